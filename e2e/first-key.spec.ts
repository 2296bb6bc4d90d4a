import fc from 'fast-check'
import type { BuildReply } from '../shared/schemas/api'
import { expect, test } from './server'

/** Whatever a cell holds and whichever key comes first, what is typed is what is kept, to the last key. */
const grams = fc
  .tuple(fc.constantFrom('1', '2', '3', '9', '0'), fc.constantFrom('', '.', '.4', '.44', '2', '2.05'))
  .map(([first, rest]) => first + rest)
  .filter(text => Number(text) > 0)
const content = fc.constantFrom(0.5, 1, 2, 3, 3.44, 9.1, 12)

test('in the sheet', async ({ app, server }) => {
  test.setTimeout(150_000)
  await server.bringIn('marzipan')
  await app.goto(`${server.address}/builds/marzipan/parts`)
  const cell = (column: string) => app.locator(`[data-row=strap] [data-col=${column}]`)
  const line = async () =>
    (await server.json<BuildReply>('/api/builds/marzipan')).build.lines.find(l => l.id === 'strap')!
  /** Types into the cell as fast as keys can come, from the state in which it is only chosen. */
  const type = async (column: string, text: string) => {
    await cell(column).click()
    await app.keyboard.type(text)
    await app.keyboard.press('Enter')
  }
  let sameFirst = 0
  for (const [held, typed] of fc.sample(fc.tuple(content, grams), { numRuns: 28, seed: 5 })) {
    await type('each', `${held} w`)
    await expect.poll(async () => (await line()).mass?.valueG).toBe(held)
    if (String(held)[0] === typed[0]) sameFirst++
    await type('each', typed)
    await expect.poll(async () => (await line()).mass?.valueG, { message: `${held} then ${typed}` }).toBe(Number(typed))
    expect((await line()).mass?.evidence).toBe('weighed')
  }
  expect(sameFirst).toBeGreaterThan(3)
  for (const [held, typed] of [
    [1, '12'],
    [2, '2'],
    [3, '31'],
    [1, '1'],
  ] as const) {
    await type('quantity', String(held))
    await expect.poll(async () => (await line()).quantity).toBe(held)
    await type('quantity', typed)
    await expect.poll(async () => (await line()).quantity).toBe(Number(typed))
  }
  for (const typed of ['Rubber ring', 'R', 'RR 2']) {
    await type('name', typed)
    await expect.poll(async () => (await line()).name).toBe(typed)
  }
  await type('price', '1')
  await type('price', '12.50')
  await expect.poll(async () => (await line()).priceEachCents).toBe(1250)
})

test('in the grid of the drawer', async ({ app, server }) => {
  await server.send('POST', '/api/parts', {
    parts: [
      {
        id: 'p1',
        slot: 'strap',
        name: 'Fabric strap',
        properties: null,
        listing: null,
        mass: null,
        pack: null,
        priceCents: null,
        soldIn: 1,
        owned: 1,
        lost: 0,
        scrapped: 0,
        missing: 0,
        kitId: null,
        bag: '',
        link: '',
        note: '',
        tags: [],
      },
    ],
  })
  await app.goto(`${server.address}/drawer`)
  const part = async () =>
    (await server.json<{ parts: { owned: number; name: string; mass: { valueG: number } | null }[] }>('/api/parts'))
      .parts[0]!
  const type = async (column: string, text: string) => {
    await app.locator(`[data-part=p1] [data-col=name]`).press('Escape')
    await app.locator(`[data-part=p1] [data-col=${column}]`).focus()
    await app.locator(`[data-part=p1] [data-col=${column}]`).click()
    const editor = app.locator('[data-part=p1] input:not([type=checkbox])')
    if (await editor.isVisible()) await app.keyboard.press('Escape')
    await app.keyboard.type(text)
    await app.keyboard.press('Enter')
  }
  for (const [held, typed] of fc.sample(
    fc.tuple(fc.constantFrom('1', '2', '12'), fc.constantFrom('1', '12', '2', '21')),
    { numRuns: 8, seed: 3 },
  )) {
    await type('owned', held)
    await expect.poll(async () => (await part()).owned).toBe(Number(held))
    await type('owned', typed)
    await expect.poll(async () => (await part()).owned, { message: `${held} then ${typed}` }).toBe(Number(typed))
  }
  for (const typed of ['3', '3.44', '0.5']) {
    await type('grams', typed)
    await expect.poll(async () => (await part()).mass?.valueG).toBe(Number(typed))
  }
  await type('name', 'Fat strap')
  await expect.poll(async () => (await part()).name).toBe('Fat strap')
})
