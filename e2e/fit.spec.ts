import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { expect, test } from './server'

const drawer = JSON.parse(readFileSync('demo/drawer.json', 'utf8')) as {
  gear: object
  parts: { id: string; kitId: string | null }[]
}
const fitStatus = (app: Page) => app.locator('.stations a[href$="/fit"] small')
const finding = (app: Page, text: string) => app.locator('.finding', { hasText: text })

test('Marzipan’s two clashes are explained with their numbers; a feed moved by keyboard solves one, and the station says so', async ({
  app,
  server,
}) => {
  await server.bringIn('marzipan')
  await app.goto(`${server.address}/builds/marzipan/parts`)
  await expect(app.getByRole('heading', { name: 'Parts', exact: true })).toBeVisible()
  await app.keyboard.press('3')
  await expect(app.getByRole('heading', { name: 'Fit', exact: true })).toBeVisible()
  await expect(fitStatus(app)).toHaveText('2 clashes, 1 to check')
  await expect(finding(app, 'Capacitor is rated 16 V, a full pack is 16.8 V')).toContainText(
    '4 cells of LiPo at 4.2 V. It can burst.',
  )
  await expect(finding(app, '9 V output gives 1.5 A, asked for 1.9 A')).toContainText(
    'Oddfellow digital 1.3 A + Ridge lamp 0.6 A. Only in “ridge, lamp and navigation”.',
  )
  const lamp = app.locator('g.node[data-node=lamp]')
  await expect(lamp).toHaveAttribute('aria-label', 'Ridge lamp, 5–12 V · 0.60 A, clash. Arrow keys change its feed.')
  await lamp.focus()
  await app.keyboard.press('ArrowUp')
  await expect(fitStatus(app)).toHaveText('1 clash, 1 to check')
  await expect(finding(app, '9 V output')).toHaveCount(0)
  await expect(app.locator('g.node[data-node="board/5 V"] .detail')).toHaveText('0.91 of 2.00 A')
  await expect(app.getByText('Saved', { exact: true })).toBeVisible()
  await app.reload()
  await expect(fitStatus(app)).toHaveText('1 clash, 1 to check')
  await app.keyboard.press('z')
  await expect(fitStatus(app)).toHaveText('2 clashes, 1 to check')
})

test('a device is dragged to another output; “Do that” moves it back to where it fits; a finding can be lived with', async ({
  app,
  server,
}) => {
  await server.bringIn('marzipan')
  await app.goto(`${server.address}/builds/marzipan/fit`)
  const at = async (id: string) => {
    const box = (await app.locator(`g.node[data-node="${id}"] rect`).boundingBox())!
    return [box.x + box.width / 2, box.y + box.height / 2] as const
  }
  await app.locator('g.node[data-node=gps]').scrollIntoViewIfNeeded()
  const [from, to] = [await at('gps'), await at('board/3.3 V')]
  await app.mouse.move(...from)
  await app.mouse.down()
  await app.mouse.move(to[0] + 3, to[1] + 3, { steps: 5 })
  await app.mouse.up()
  await expect(finding(app, 'Small satellite receiver gets too few volts')).toContainText(
    'It wants at least 3.6 V; 3.3 V output falls to 3.3 V',
  )
  await finding(app, 'gets too few volts').getByRole('button', { name: 'Do that' }).click()
  await expect(finding(app, 'gets too few volts')).toHaveCount(0)
  await finding(app, 'Capacitor is rated').getByRole('button', { name: 'Live with it' }).click()
  await app.getByLabel(/^Why you live with/).fill('the right one is in the post')
  await app.keyboard.press('Enter')
  await expect(fitStatus(app)).toHaveText('1 clash, 1 to check')
  await app.getByText('1 set aside').click()
  await expect(app.getByText('the right one is in the post', { exact: true })).toBeVisible()
  await app.getByRole('button', { name: 'Bring back' }).click()
  await expect(fitStatus(app)).toHaveText('2 clashes, 1 to check')
})

test('the stack-up is to scale and answers at once; too high is a clash', async ({ app, server }) => {
  await server.bringIn('marzipan')
  await app.goto(`${server.address}/builds/marzipan/fit?view=stack`)
  const side = app.getByTestId('side-view')
  const heightOf = async (layer: string) => Number(await side.locator(`[data-layer="${layer}"]`).getAttribute('height'))
  const perMm = Number(await side.getAttribute('data-per-mm'))
  for (const [layer, mm] of [
    ['a', 7.5],
    ['v', 6],
    ['sp', 1.5],
    ['b', 2],
  ] as const)
    expect(await heightOf(layer)).toBeCloseTo(mm * perMm, 6)
  const sums = app.locator('.sums')
  await expect(sums).toContainText('17.5 mm')
  await expect(sums).toContainText('18 mm')
  await app.getByLabel('Height of Spacers').fill('4,5')
  await app.keyboard.press('Enter')
  await expect(sums).toContainText('20.5 mm')
  await expect(sums).toContainText('22 mm')
  await expect(sums.locator('.word-over')).toHaveText('−0.5 mm')
  await expect(fitStatus(app)).toHaveText('3 clashes, 1 to check')
  await app.getByLabel('Height of Spacers').fill('-3')
  await app.keyboard.press('Enter')
  await expect(app.getByRole('alert')).toHaveText('The height is in mm, from 0 to 200.')
  await expect(sums).toContainText('20.5 mm')
})

test('fixings name the screw that touches and the one that holds too little; taking another mends it', async ({
  app,
  server,
}) => {
  await server.bringIn('nougat')
  await app.goto(`${server.address}/builds/nougat/fit?view=fixings`)
  await expect(app.locator('[data-joint=motors]')).toContainText(
    '10 mm would touch the windings: 10 through 4 leaves 6, and 2.6 are free. M2 × 6 fits.',
  )
  await expect(app.locator('[data-joint=top]')).toContainText('10 mm holds too few threads: 2 mm of the 3 mm wanted.')
  await app.getByRole('button', { name: 'Take × 6' }).click()
  await expect(app.locator('[data-joint=motors]')).toContainText('6 mm fits: 6 to 6.6 mm is safe.')
  await expect(fitStatus(app)).toHaveText('1 clash, 1 to check')
  await app.getByRole('tab', { name: 'Leads' }).click()
  await expect(app.locator('[data-wire=motor]')).toContainText('Trim 78 mm: 3.68 g saved.')
  await app.getByLabel('Motor leads: is there').fill('40')
  await app.keyboard.press('Enter')
  await expect(app.locator('[data-wire=motor]')).toContainText('26 mm too short')
  await app.getByLabel('Heat camera feed: is there').fill('')
  await app.keyboard.press('Enter')
  await app.getByRole('button', { name: 'Book 0.37 g from the reel as worked out' }).click()
  await expect(app.getByTestId('auw')).toContainText('255.3')
  await expect(fitStatus(app)).toHaveText('2 clashes, 1 to check')
})

test('choosing shows what each candidate would change; fitting one changes just that; reasons against are kept', async ({
  app,
  server,
}) => {
  await server.bringIn('nougat')
  await server.send('POST', '/api/parts', { parts: drawer.parts.filter(p => p.kitId === null) })
  await app.goto(`${server.address}/builds/nougat/parts?line=motors`)
  await app.getByRole('link', { name: 'Compare all that could go here' }).click()
  const row = app.locator('[data-candidate="Fennel & Rook 1404, 4600 kV"]')
  await expect(row).toContainText('34.6')
  await expect(row).toContainText('yes')
  await expect(app.locator('[data-candidate^="Tallow Works 0802"]')).toContainText('Takes at most 1 cell')
  await app.getByRole('button', { name: 'Ostler 1303.5, 5500 kV' }).click()
  await app.getByLabel('Why not').fill('needs longer screws')
  await app.getByRole('button', { name: 'Keep the reason' }).click()
  await expect(app.locator('.considered')).toContainText('needs longer screws')
  await row.getByRole('button').click()
  const inspector = app.getByRole('complementary', { name: 'Inspector' })
  const auw = (await inspector.locator('dt:text("All-up with it") + dd').textContent())!
  await app.getByRole('button', { name: 'Fit this' }).click()
  await expect(app.getByTestId('auw')).toContainText(Number(auw.replace(' g', '')).toFixed(1))
})

test('choosing goes no wider than its screen: what has no column stands in words; what is not known is last either way', async ({
  app,
  server,
}) => {
  await server.bringIn('nougat')
  await server.send('POST', '/api/parts', { parts: drawer.parts.filter(p => p.kitId === null) })
  await app.goto(`${server.address}/builds/nougat/choosing?line=motors`)
  await app.getByText('typical classes too').click()
  const table = app.locator('main table')
  await expect(table.getByRole('row').filter({ hasText: 'catalogue' }).first()).toBeVisible()
  const tooWide = () => table.evaluate(({ parentElement: place }) => place!.scrollWidth - place!.clientWidth)
  await expect.poll(tooWide).toBe(0)
  const narrow = await table.getByRole('columnheader').count()
  await expect(table.locator('tr[data-candidate^="Ostler"] + tr').first()).toContainText('kV: ')
  await app.setViewportSize({ width: 1900, height: 900 })
  await expect.poll(() => table.getByRole('columnheader').count()).toBeGreaterThan(narrow)
  await expect.poll(tooWide).toBe(0)
  await app.setViewportSize({ width: 1280, height: 800 })
  await expect(table.getByRole('columnheader')).toHaveCount(narrow)
  await expect.poll(tooWide).toBe(0)

  const prices = () =>
    table.evaluate(element => {
      const { tHead, tBodies } = element as HTMLTableElement
      const at = [...tHead!.rows[0]!.cells].findIndex(cell => cell.textContent.includes('Price'))
      return [...tBodies[0]!.rows].filter(one => one.dataset.candidate).map(one => one.cells[at]!.textContent.trim())
    })
  const head = table.getByRole('columnheader', { name: 'Price' })
  const own = await prices()
  const known = own.filter(Boolean).map(Number)
  expect(known.length).toBeGreaterThan(1)
  expect(own.length).toBeGreaterThan(known.length)
  const unknown = own.slice(known.length).map(() => '')
  for (const [sort, order] of [
    ['ascending', (a: number, b: number) => a - b],
    ['descending', (a: number, b: number) => b - a],
  ] as const) {
    await head.getByRole('button').click()
    await expect(head).toHaveAttribute('aria-sort', sort)
    const said = await prices()
    expect(said.slice(0, known.length).map(Number)).toEqual([...known].sort(order))
    expect(said.slice(known.length)).toEqual(unknown)
  }
  await head.getByRole('button').click()
  await expect(head).toHaveAttribute('aria-sort', 'none')
})
