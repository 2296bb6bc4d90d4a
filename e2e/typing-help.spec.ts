import { readFileSync } from 'node:fs'
import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { choose } from './controls'
import { blueScale } from './scale-fixture'
import { expect, test, type OwnServer } from './server'

interface Line {
  id: string
  slot: string
  name: string
  quantity: number
  partId: string | null
  mass: { valueG: number; evidence: string } | null
  properties: Record<string, unknown> | null
}
const parts = (JSON.parse(readFileSync('demo/drawer.json', 'utf8')) as { parts: object[] }).parts
const fill = (server: OwnServer) =>
  server.send('POST', '/api/parts', { parts: parts.map(part => ({ ...part, kitId: null })) })
const linesOf = async (server: OwnServer, build: string) =>
  (await server.json<{ build: { lines: Line[] } }>(`/api/builds/${build}`)).build.lines
const saved = (app: Page) => expect(app.getByText('Saved', { exact: true })).toBeVisible()
const offer = (app: Page, name: RegExp) => app.getByRole('option', { name })

test('a name begun is a part of the drawer, picked by keys: its grams and properties come along', async ({
  app,
  server,
}) => {
  await server.bringIn('marzipan', 'nougat')
  await fill(server)
  await app.goto(`${server.address}/builds/marzipan/parts`)
  await app.getByRole('button', { name: /^New line/ }).click()
  const form = app.getByRole('form', { name: 'New line' })
  await form.getByLabel('What').fill('oatler')
  await form.getByLabel('What').fill('ostler 1404')
  await expect(offer(app, /^Ostler 1404, 3750 kV/)).toContainText('motor · 9.10 g listed · 4 in the drawer')
  await expect(offer(app, /^Ostler 1404, full leads/)).toContainText('in Nougat')
  const faults = (await new AxeBuilder({ page: app }).analyze()).violations
  expect(faults.filter(v => v.impact === 'serious' || v.impact === 'critical').map(v => v.id)).toEqual([])
  await app.keyboard.press('ArrowDown')
  await app.keyboard.press('Enter')
  await expect(form.getByLabel('Many')).toBeFocused()
  await expect(form.getByLabel('Slot')).toHaveAccessibleDescription('Motor')
  await expect(form.getByLabel('Each, g')).toHaveValue('9.10')
  await expect(form).toContainText('It becomes this part of the drawer: 9.10 g listed · 4 in the drawer.')
  await form.getByLabel('Many').fill('2')
  await app.keyboard.press('Enter')
  await saved(app)
  const part = (await linesOf(server, 'marzipan')).find(line => line.partId === 'ostler-1404')!
  expect(part).toMatchObject({ slot: 'motor', name: 'Ostler 1404, 3750 kV', quantity: 2 })
  expect(part.mass).toMatchObject({ valueG: 9.1, evidence: 'listed' })
  expect(part.properties).toMatchObject({ kv: 3750 })
})

test('a part that is picked keeps its grams, though the scale at hand could not carry it; typed ones it could not show', async ({
  app,
  server,
}) => {
  await server.bringIn('marzipan')
  await fill(server)
  await server.send('PUT', '/api/scales/tiny', { ...blueScale, name: 'tiny scale', capacityG: 2 })
  await app.goto(`${server.address}/builds/marzipan/parts`)
  await app.getByRole('button', { name: /^New line/ }).click()
  const form = app.getByRole('form', { name: 'New line' })
  await form.getByLabel('What').fill('fabric strap 12')
  await expect(offer(app, /^Fabric strap 12 mm, 130 mm/)).toContainText('2.14 g weighed')
  await offer(app, /^Fabric strap 12 mm, 130 mm/).click()
  await expect(form.getByLabel('Each, g')).toHaveValue('2.14')
  await form.getByRole('button', { name: 'Add' }).click()
  await expect(app.getByRole('gridcell', { name: 'Fabric strap 12 mm, 130 mm', exact: true })).toBeVisible()
  await saved(app)
  const strap = (await linesOf(server, 'marzipan')).find(line => line.partId === 'strap-12')!
  expect(strap.mass).toMatchObject({ valueG: 2.14, evidence: 'weighed' })

  await form.getByLabel('What').fill('Another strap')
  await choose(form.getByLabel('Known by'), 'weighed')
  await form.getByLabel('Each, g').fill('2.14')
  await form.getByRole('button', { name: 'Add' }).click()
  await expect(form.getByRole('alert')).toContainText('2 g')
  await expect(app.getByRole('gridcell', { name: 'Another strap' })).toHaveCount(0)
})

test('typed over, it is a part of its own; a name nobody knows is taken as it stands', async ({ app, server }) => {
  await server.bringIn('marzipan')
  await fill(server)
  await app.goto(`${server.address}/builds/marzipan/parts`)
  await app.getByRole('button', { name: /^New line/ }).click()
  const form = app.getByRole('form', { name: 'New line' })
  await choose(form.getByLabel('Slot'), 'Motor')
  await form.getByLabel('What').fill('ostler 1404')
  await offer(app, /^Ostler 1404, 3750 kV/).click()
  await form.getByLabel('Each, g').fill('8.88')
  await app.keyboard.press('Enter')
  await form.getByLabel('What').fill('Hand-wound one')
  await app.keyboard.press('Enter')
  await saved(app)
  const added = (await linesOf(server, 'marzipan')).slice(-2)
  expect(added.map(line => [line.name, line.partId, line.mass?.valueG ?? null])).toEqual([
    ['Ostler 1404, 3750 kV', null, 8.88],
    ['Hand-wound one', null, null],
  ])
})

test('what was weighed on another build is known here as a twin, in the bar as in the ledger', async ({
  app,
  server,
}) => {
  await server.bringIn('marzipan', 'nougat')
  const weighed = (await linesOf(server, 'nougat')).find(line => line.name === 'Ostler 1404, full leads')!
  expect(weighed.mass!.evidence).toBe('weighed')
  await app.goto(`${server.address}/builds/marzipan/parts`)
  await app.getByRole('button', { name: /^New line/ }).click()
  const form = app.getByRole('form', { name: 'New line' })
  await form.getByLabel('What').fill('full leads')
  await offer(app, /^Ostler 1404, full leads/).click()
  await expect(form.getByLabel('Known by')).toHaveAccessibleDescription('twin')
  await form.getByLabel('Many').press('Enter')
  await saved(app)
  const line = (await linesOf(server, 'marzipan')).at(-1)!
  expect(line.mass).toMatchObject({ evidence: 'twin', valueG: weighed.mass!.valueG })
})

test('in the ledger a name typed over becomes that part, and Undo brings the other back', async ({ app, server }) => {
  await server.bringIn('marzipan')
  await fill(server)
  await app.goto(`${server.address}/builds/marzipan/parts`)
  const name = app.locator('[data-row=motors] [data-col=name]')
  const before = (await linesOf(server, 'marzipan')).find(line => line.id === 'motors')!
  await name.click()
  await app.keyboard.type('ostler 1404')
  await offer(app, /^Ostler 1404, 3750 kV/).click()
  await expect(name).toHaveText('Ostler 1404, 3750 kV')
  await saved(app)
  const after = (await linesOf(server, 'marzipan')).find(line => line.id === 'motors')!
  expect(after).toMatchObject({ partId: 'ostler-1404', quantity: before.quantity, mass: { valueG: 9.1 } })
  await app.keyboard.press('Control+z')
  await expect(name).toHaveText(before.name)
  await saved(app)
  expect((await linesOf(server, 'marzipan')).find(line => line.id === 'motors')).toEqual(before)
})

test('in the ledger Home, Enter and Escape do what they do in every cell', async ({ app, server }) => {
  await server.bringIn('marzipan')
  await app.goto(`${server.address}/builds/marzipan/parts`)
  const name = app.locator('[data-row=strap] [data-col=name]')
  await name.click()
  await app.keyboard.press('Enter')
  await app.keyboard.press('Home')
  await app.keyboard.type('Old ')
  await app.keyboard.press('Enter')
  await expect(name).toHaveText(/^Old Rubberised strap/)
  await name.click()
  await app.keyboard.type('gone')
  await app.keyboard.press('Escape')
  await app.keyboard.press('Escape')
  await expect(name).toHaveText(/^Old Rubberised strap/)
  await name.click()
  await app.keyboard.type('Left by a click')
  await app.locator('[data-row=pad] [data-col=name]').click()
  await expect(name).toHaveText('Left by a click')
  await expect(app.locator('[data-row=pad] [data-col=name]')).toHaveText(/^Grip pad/)
})

test('Find also finds parts of the drawer, bags and settings', async ({ app, server }) => {
  await server.bringIn('marzipan')
  await fill(server)
  await app.goto(server.address)
  await app.getByRole('button', { name: /^Find/ }).click()
  const field = app.getByRole('dialog').getByRole('combobox')
  await field.fill('1303.5')
  await expect(app.getByRole('option').first()).toContainText('Ostler 1303.5, 5500 kV')
  await app.keyboard.press('Enter')
  await expect(app).toHaveURL(/\/drawer\?part=/)
  await expect(app.getByRole('complementary', { name: 'Inspector' })).toContainText('Ostler 1303.5')
  await app.getByRole('button', { name: /^Find/ }).click()
  await field.fill('currency')
  await app.keyboard.press('Enter')
  await expect(app.getByRole('heading', { name: 'Figures' })).toBeVisible()
})

test('Find offers nothing that the shelf, when it comes, would push away from under the hand', async ({
  app,
  server,
}) => {
  await server.bringIn('marzipan')
  await fetch(`${server.address}/api/builds`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ from: 'copy', name: 'Twin', buildId: 'marzipan' }),
  })
  await app.goto(`${server.address}/builds/marzipan/parts`)
  await app.route('**/api/builds', async route => {
    await new Promise(after => setTimeout(after, 700))
    await route.continue()
  })
  for (const chosenBy of ['click', 'Enter']) {
    await app.getByRole('button', { name: /^Find/ }).click()
    await app.getByRole('dialog').getByRole('combobox').fill('twin')
    // The glossary has a word “Twin” as well: it was offered alone while the shelf was on its way.
    if (chosenBy === 'Enter') await app.keyboard.press('Enter')
    else await app.getByRole('option', { name: /^Twin/ }).first().click()
    await expect(app.locator('.where b')).toHaveText('Twin')
    await app.goto(`${server.address}/builds/marzipan/parts`)
  }
})

test('a word of the trade says what it is to a pointer, to the keyboard and to a finger; all stand in the glossary', async ({
  app,
  browser,
  server,
}) => {
  await server.bringIn('marzipan')
  await app.goto(`${server.address}/builds/marzipan/parts`)
  const term = app.getByText('Known by', { exact: true })
  const tip = app.getByRole('tooltip').filter({ hasText: 'Where the grams of a line come from' })
  await term.hover()
  await expect(tip).toBeVisible()
  await app.getByRole('heading', { name: 'Parts', exact: true }).hover()
  await expect(tip).toBeHidden()
  await term.focus()
  await expect(tip).toBeVisible()
  await expect(term).toHaveAccessibleDescription(/^Where the grams of a line come from/)
  const phone = await browser.newPage({ viewport: { width: 390, height: 844 }, hasTouch: true })
  await phone.goto(`${server.address}/builds/marzipan/packs`)
  await phone.getByText('Hover draw', { exact: true }).tap()
  await expect(phone.getByRole('tooltip')).toHaveText('Amperes it takes to stay where it is.')
  await phone.close()
  await app.getByRole('button', { name: /^Find/ }).click()
  await app.getByRole('dialog').getByRole('combobox').fill('guard band')
  await app.keyboard.press('Enter')
  await expect(app).toHaveURL(/glossary#guard-band/)
  await expect(app.locator('#guard-band')).toContainText('Grams kept below a limit')
  await expect(app.locator('#guard-band')).toBeInViewport()
})
