import type { Page } from '@playwright/test'
import { expect, loadedAhead, test, written, type OwnServer } from './server'

interface Line {
  id: string
  name: string
  quantity: number
  mass: { valueG: number; evidence: string } | null
  note: string
}
const lineOf = async (server: OwnServer, build: string, id: string) =>
  (await server.json<{ build: { lines: Line[] } }>(`/api/builds/${build}`)).build.lines.find(line => line.id === id)!
const gramsOf = async (server: OwnServer, build: string, id: string) => (await lineOf(server, build, id)).mass?.valueG

/** Types grams into a cell of the sheet and leaves it with Enter. */
async function type(page: Page, row: string, grams: string) {
  const cell = page.locator(`[data-row=${row}] [data-col=each]`)
  await cell.click()
  await page.keyboard.type(grams)
  await page.keyboard.press('Enter')
  await expect(cell).toHaveText(grams)
}
const saved = (page: Page) => expect(page.getByText('Saved', { exact: true })).toBeVisible()
const openBuild = async (page: Page, name: string) => {
  await page.getByRole('button', { name: /^Find/ }).click()
  await page.getByRole('combobox', { name: /^Find a build/ }).fill(name)
  await page
    .getByRole('option', { name: new RegExp(`^${name}`) })
    .first()
    .click()
  await expect(page.getByText(name).first()).toBeVisible()
  await expect(page.locator('.where b')).toHaveText(name)
}

/** Ways for a server not to answer: it hangs, it is not there, it gives an error. */
const troubles = {
  hangs: (page: Page) => page.route('**/commands**', () => new Promise<void>(() => {})),
  fails: (page: Page) =>
    page.route('**/commands**', route =>
      route.fulfill({
        status: 503,
        contentType: 'application/problem+json',
        body: JSON.stringify({
          type: 'about:blank',
          title: 'locked',
          status: 503,
          code: 'locked',
          detail: 'The data are in use.',
        }),
      }),
    ),
  'drops the line': (page: Page) => page.route('**/commands**', route => route.abort()),
} as const
const end = (page: Page) => page.unroute('**/commands**')

test.beforeEach(async ({ server }) => {
  await server.bringIn('marzipan', 'nougat')
})

for (const [how, begin] of Object.entries(troubles)) {
  test(`a server that ${how}: what was typed goes to its own build, whatever is opened meanwhile`, async ({
    app,
    server,
  }) => {
    const copy = (await (
      await fetch(`${server.address}/api/builds`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ from: 'copy', name: 'Twin', buildId: 'marzipan' }),
      })
    ).json()) as { id: string }
    await app.goto(`${server.address}/builds/marzipan/parts`)
    await begin(app)
    for (const grams of ['3.01', '3.02', '3.03']) await type(app, 'strap', grams)
    await openBuild(app, 'Twin')
    await type(app, 'strap', '2.50')
    await app.getByRole('link', { name: 'Shelf' }).click()
    await expect(app.getByRole('heading', { name: 'Shelf' })).toBeVisible()
    if (how !== 'hangs') await expect(app.locator('.waiting')).toContainText('Marzipan')
    await end(app)
    // A request that hangs is asked for again when the page is.
    if (how === 'hangs') await app.reload()
    await expect.poll(() => gramsOf(server, copy.id, 'strap'), { timeout: 25_000 }).toBe(2.5)
    await expect.poll(() => gramsOf(server, 'marzipan', 'strap'), { timeout: 25_000 }).toBe(3.03)
    await expect(app.locator('.waiting')).toBeHidden()
    const { entries } = await server.json<{ entries: { gramsAfterG: number }[] }>('/api/builds/marzipan/journal')
    expect(entries.slice(0, 3).map(entry => entry.gramsAfterG)).toEqual([3.03, 3.02, 3.01])
  })
}

for (const slowMs of [2500, 4000]) {
  test(
    `an answer that takes ${slowMs / 1000} s, and another build opened meanwhile: nothing is lost, ` +
      `and “Saved” is said only when it is`,
    async ({ app, server }) => {
      await app.goto(`${server.address}/builds/marzipan/parts`)
      await app.route('**/commands**', async route => {
        await new Promise(after => setTimeout(after, slowMs))
        await route.continue().catch(() => undefined)
      })
      for (const grams of ['3.01', '3.02', '3.03']) await type(app, 'strap', grams)
      await openBuild(app, 'Nougat')
      await expect(app.locator('.waiting')).toContainText('of Marzipan')
      await type(app, 'strap', '2.50')
      await expect(app.getByText('Saved', { exact: true })).toBeHidden()
      await expect(app.locator('.waiting')).toBeHidden({ timeout: 30_000 })
      await saved(app)
      expect([await gramsOf(server, 'marzipan', 'strap'), await gramsOf(server, 'nougat', 'strap')]).toEqual([
        3.03, 2.5,
      ])
      const { entries } = await server.json<{ entries: { gramsAfterG: number }[] }>('/api/builds/marzipan/journal')
      expect(entries.slice(0, 3).map(entry => entry.gramsAfterG)).toEqual([3.03, 3.02, 3.01])
    },
  )
}

test('a note that is too long stands among four edits: it alone is set aside', async ({ app, server }) => {
  await app.goto(`${server.address}/builds/marzipan/parts`)
  await troubles.fails(app)
  await type(app, 'strap', '3.01')
  await app.locator('[data-row=strap] [data-col=slot]').click()
  const note = app.getByLabel('Note', { exact: true })
  await note.evaluate(field => field.removeAttribute('maxlength'))
  await note.fill('x'.repeat(2001))
  await note.blur()
  await type(app, 'pad', '1.22')
  await type(app, 'strap', '3.04')
  await end(app)
  await expect(app.locator('.waiting')).toHaveText('1 not written', { timeout: 25_000 })
  await expect.poll(() => gramsOf(server, 'marzipan', 'strap')).toBe(3.04)
  expect(await gramsOf(server, 'marzipan', 'pad')).toBe(1.22)
  expect((await lineOf(server, 'marzipan', 'strap')).note).not.toContain('xxx')
  await app.locator('.waiting').click()
  await expect(app.getByRole('dialog', { name: 'Not written yet' })).toContainText('at most 2000 characters')
})

test('a tab that is closed while the server is away leaves its edits to the next one, the drawer’s and settings’ too', async ({
  app,
  server,
  context,
}) => {
  const errors: string[] = []
  await app.goto(`${server.address}/builds/marzipan/parts`)
  await expect(app.getByTestId('verdict')).toBeVisible()
  await app.goto(`${server.address}/settings`)
  await expect(app.getByLabel('Currency')).toBeVisible()
  await loadedAhead(app)
  await context.setOffline(true)
  await app.getByLabel('Currency').fill('kr')
  await app.getByLabel('Currency').press('Enter')
  await expect(app.locator('.waiting')).toContainText('Settings')
  await context.setOffline(false)
  const builds = await context.newPage()
  builds.on('pageerror', error => errors.push(error.message))
  await builds.goto(`${server.address}/builds/marzipan/parts`)
  await expect(builds.getByTestId('verdict')).toBeVisible()
  await loadedAhead(builds)
  await server.kill()
  await type(builds, 'strap', '2.95')
  await expect(builds.locator('.waiting')).toContainText('1 of Marzipan waits')
  await builds.close({ runBeforeUnload: false })
  await server.start()
  const next = await context.newPage()
  await next.goto(server.address)
  await expect.poll(() => gramsOf(server, 'marzipan', 'strap')).toBe(2.95)
  await expect.poll(async () => (await server.json<{ currency: string }>('/api/settings')).currency).toBe('kr')
  expect(errors).toEqual([])
})

test('of five edits the second is refused: it is set aside with the reason, the others are written', async ({
  app,
  server,
}) => {
  await app.goto(`${server.address}/builds/marzipan/parts`)
  await troubles.fails(app)
  await type(app, 'strap', '3.01')
  // Behind this window’s back the line of the second edit goes.
  await type(app, 'pad', '1.11')
  for (const grams of ['3.03', '3.04', '3.05']) await type(app, 'strap', grams)
  const { revision } = await server.json<{ revision: number }>('/api/builds/marzipan')
  await server.send(
    'POST',
    '/api/builds/marzipan/commands',
    { command: { type: 'lines.delete', ids: ['pad'] }, note: '' },
    { 'if-match': `"${revision}"` },
  )
  await end(app)
  const dialog = app.getByRole('dialog', { name: 'This build was changed in another window' })
  await expect(dialog).toContainText('deleted', { timeout: 25_000 })
  await dialog.getByRole('button', { name: 'Put my change on top' }).click()
  await expect(app.locator('.waiting')).toHaveText('1 not written', { timeout: 25_000 })
  await expect.poll(() => gramsOf(server, 'marzipan', 'strap')).toBe(3.05)
  // It is kept: the next page has it too.
  await app.reload()
  await expect(app.locator('.waiting')).toHaveText('1 not written')
  await app.locator('.waiting').click()
  const list = app.getByRole('dialog', { name: 'Not written yet' })
  await expect(list).not.toContainText('keeps nothing')
  await expect(list).toContainText('1.11')
  await expect(list).toContainText('no longer in this build')
  await list.getByRole('button', { name: 'Let it go' }).click()
  await expect(app.locator('.waiting')).toBeHidden()
})

test('a lost answer is no conflict with oneself, and nothing is done twice', async ({ app, server }) => {
  await app.goto(`${server.address}/builds/marzipan/parts`)
  let lost = 0
  await app.route('**/commands**', async route => {
    if (lost++ > 1) return route.continue()
    await route.fetch()
    return route.abort()
  })
  const before = await server.json<{ revision: number }>('/api/builds/marzipan')
  await type(app, 'strap', '3.07')
  await type(app, 'pad', '1.12')
  await saved(app)
  expect((await server.json<{ revision: number }>('/api/builds/marzipan')).revision).toBe(before.revision + 2)
  expect(await gramsOf(server, 'marzipan', 'strap')).toBe(3.07)
  await expect(app.getByRole('dialog')).toBeHidden()
})

test('two windows at one line: other fields are merged, the same field is asked about in words', async ({
  app,
  server,
  context,
}) => {
  await context.route('**/stream', route => route.abort())
  await app.goto(`${server.address}/builds/marzipan/parts`)
  const other = await context.newPage()
  await other.goto(`${server.address}/builds/marzipan/parts`)
  await expect(other.getByTestId('verdict')).toBeVisible()
  await type(app, 'strap', '3.11')
  await saved(app)
  await other.locator('[data-row=strap] [data-col=name]').click()
  await other.keyboard.press('Enter')
  await other.keyboard.press('End')
  await other.keyboard.type(' red')
  await written(other, () => other.keyboard.press('Enter'))
  await saved(other)
  await expect(other.locator('[data-row=strap] [data-col=each]')).toHaveText('3.11')
  expect((await lineOf(server, 'marzipan', 'strap')).name).toMatch(/ red$/)
})

test('while the server is away, undo takes back what was not sent yet', async ({ app, server }) => {
  await app.goto(`${server.address}/builds/marzipan/parts`)
  const before = await gramsOf(server, 'marzipan', 'strap')
  await troubles['drops the line'](app)
  await type(app, 'strap', '3.33')
  await expect(app.getByText('Not saved yet: the server does not answer')).toBeVisible()
  await app.getByRole('button', { name: /^Undo/ }).click()
  await expect(app.locator('[data-row=strap] [data-col=each]')).toHaveText(String(before))
  await end(app)
  await saved(app)
  expect(await gramsOf(server, 'marzipan', 'strap')).toBe(before)
})

test('a change of the drawer, of a card and of a setting is taken back where it was made', async ({ app, server }) => {
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
        owned: 2,
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
  await app.goto(`${server.address}/drawer?part=p1`)
  await app.getByLabel('Bag or box').fill('tin 4')
  await app.getByLabel('Bag or box').press('Enter')
  const part = async () =>
    (await server.json<{ parts: { id: string; bag: string }[] }>('/api/parts')).parts.find(p => p.id === 'p1')
  await expect.poll(async () => (await part())?.bag).toBe('tin 4')
  await app.getByRole('button', { name: /^Undo/ }).click()
  await expect(app.getByLabel('Bag or box')).toHaveValue('')
  expect((await part())?.bag).toBe('')
  await app.goto(`${server.address}/settings`)
  await app.getByLabel('Currency').fill('mark')
  await app.getByLabel('Currency').press('Enter')
  await expect.poll(async () => (await server.json<{ currency: string }>('/api/settings')).currency).toBe('mark')
  await app.getByRole('button', { name: /^Undo/ }).click()
  await expect(app.getByLabel('Currency')).toHaveValue('€')
})

test('edits that wait for a build that is deleted for good are listed as not written', async ({ app, server }) => {
  await app.goto(`${server.address}/builds/marzipan/parts`)
  await troubles['drops the line'](app)
  await type(app, 'strap', '3.01')
  const { revision } = await server.json<{ revision: number }>('/api/builds/marzipan')
  await server.send(
    'POST',
    '/api/builds/marzipan/commands',
    { command: { type: 'build.set', fields: { archived: true } }, note: '' },
    { 'if-match': `"${revision}"` },
  )
  expect((await fetch(`${server.address}/api/builds/marzipan`, { method: 'DELETE' })).status).toBe(200)
  await expect(app.getByText('deleted for good in another window')).toBeVisible()
  await end(app)
  await expect(app.locator('.waiting')).toHaveText('1 not written', { timeout: 25_000 })
  await app.locator('.waiting').click()
  await expect(app.getByRole('dialog', { name: 'Not written yet' })).toContainText('3.01 g')
})

test('what could not be loaded is said, and never looks like nothing', async ({ app, server }) => {
  await app.route('**/history', route => route.abort())
  await app.goto(`${server.address}/builds/marzipan/parts?line=strap`)
  await expect(app.getByText('How it became known could not be read')).toBeVisible()
  await app.route('**/api/parts', route => route.abort())
  await app.goto(`${server.address}/builds/marzipan/choosing`)
  await expect(app.getByText('The drawer could not be read, so its parts are missing here')).toBeVisible()
  await app.goto(`${server.address}/drawer`)
  await expect(app.getByRole('alert')).toContainText('does not answer')
})

test('every page opens although the server has gone: they were loaded ahead', async ({ app, server }) => {
  await app.goto(server.address)
  await loadedAhead(app)
  await server.kill()
  for (const place of ['Drawer', 'Scales', 'Rules', 'Settings', 'Shelf']) {
    await app.getByRole('link', { name: place, exact: true }).click()
    await expect(app.getByRole('heading', { level: 1, name: place, exact: true })).toBeVisible()
  }
  await app.keyboard.press('?')
  await expect(app.getByRole('dialog', { name: 'Keys' })).toBeVisible()
})
