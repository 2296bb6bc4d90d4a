import { readFileSync } from 'node:fs'
import type { Locator, Page } from '@playwright/test'
import { expect, test, type OwnServer } from './server'
import { choose } from './controls'

const drawer = JSON.parse(readFileSync('demo/drawer.json', 'utf8')) as { parts: { id: string; kitId: string | null }[] }
const fill = (server: OwnServer) =>
  server.send('POST', '/api/parts', { parts: drawer.parts.map(part => ({ ...part, kitId: null })) })
const grid = (app: Page) => app.getByRole('grid', { name: 'Parts of the drawer' })
const row = (app: Page, id: string) => app.locator(`[data-part="${id}"]`)
const gramsOf = async (server: OwnServer, id: string) =>
  (await server.json<{ entries: { id: string; massG: number }[] }>('/api/builds')).entries.find(e => e.id === id)!.massG

test('parts are filtered by figures, edited in place by keyboard, and bad input says its unit and changes nothing', async ({
  app,
  server,
}) => {
  await fill(server)
  await app.goto(`${server.address}/drawer`)
  await expect(grid(app)).toHaveAttribute('aria-rowcount', '43')
  await app.getByLabel('Filter the drawer').fill('1404–1505, 3000–4000 kV, ≤ 11 g')
  await expect(grid(app)).toHaveAttribute('aria-rowcount', '2')
  await expect(app.getByText('stator 1404–1505 · 3000–4000 kV · at most 11 g each')).toBeVisible()
  await row(app, 'ostler-1404').locator('[data-col=grams]').click()
  await app.keyboard.type('9,24')
  await app.keyboard.press('Enter')
  await expect(row(app, 'ostler-1404').locator('[data-col=grams]')).toHaveText('9.24')
  await row(app, 'ostler-1504').locator('[data-col=owned]').click()
  await app.keyboard.type('1.5')
  await app.keyboard.press('Enter')
  await expect(app.getByRole('alert')).toHaveText('How many you own: a whole number from 0 to 99,999.')
  await app.keyboard.press('Escape')
  await expect(row(app, 'ostler-1504').locator('[data-col=owned]')).toHaveText('1')
  const inspector = app.getByRole('complementary', { name: 'Inspector' })
  await inspector.locator('[data-property=kv]').fill('fast')
  await app.keyboard.press('Enter')
  await expect(inspector.getByRole('alert')).toHaveText('Turns per volt is a number in kV, from 100 to 50000.')
  await app.reload()
  await app.getByLabel('Filter the drawer').fill('1404')
  await expect(row(app, 'ostler-1404').locator('[data-col=grams]')).toHaveText('9.24')
  await expect(app.locator('[data-property=kv]')).toHaveValue('3850')
})

test('a part put on two builds is weighed once for both; deleted parts come back', async ({ app, server }) => {
  await server.bringIn('nougat', 'praline')
  await fill(server)
  const before = { nougat: await gramsOf(server, 'nougat'), praline: await gramsOf(server, 'praline') }
  await app.goto(`${server.address}/drawer?part=strap-12`)
  const inspector = app.getByRole('complementary', { name: 'Inspector' })
  for (const build of ['Nougat', 'Praline']) {
    await choose(inspector.getByLabel('Build', { exact: true }), build)
    await inspector.getByRole('button', { name: 'Put on' }).click()
    await expect(inspector.getByRole('status')).toHaveText(`1 × on ${build} now.`)
  }
  await expect(row(app, 'strap-12').locator('[data-col=left]')).toHaveText('1 · 2 out')
  await inspector.getByLabel('Weighed, g each').fill('2.50')
  await app.keyboard.press('Enter')
  await expect
    .poll(async () => [
      (await gramsOf(server, 'nougat')) - before.nougat,
      (await gramsOf(server, 'praline')) - before.praline,
    ])
    .toEqual([expect.closeTo(2.5, 6), expect.closeTo(2.5, 6)])
  await inspector.getByRole('button', { name: 'Delete' }).click()
  await expect(app.getByRole('alert')).toContainText('is on Nougat and Praline. Take it off there first.')
  await app.getByLabel('Filter the drawer').fill('thin grip')
  await row(app, 'pad-thin').locator('[data-col=name]').click()
  await inspector.getByRole('button', { name: 'Delete' }).click()
  await expect(row(app, 'pad-thin')).toHaveCount(0)
  await app.getByRole('button', { name: 'Bring back' }).click()
  await expect(row(app, 'pad-thin')).toHaveCount(1)
})

test('lines moved to another build keep their weighings, totals move by the same grams, and one undo brings both back', async ({
  app,
  server,
}) => {
  await server.bringIn('nougat', 'praline')
  const before = { nougat: await gramsOf(server, 'nougat'), praline: await gramsOf(server, 'praline') }
  await app.goto(`${server.address}/builds/nougat/parts?line=strap`)
  await app.getByRole('button', { name: 'Move …' }).click()
  const dialog = app.getByRole('dialog', { name: 'Take apart or move' })
  await choose(dialog.getByLabel('Where to'), 'to Praline')
  await dialog.getByRole('button', { name: 'Move the line' }).click()
  await expect(dialog).toBeHidden()
  await expect(app.locator('[data-row=strap]')).toHaveCount(0)
  const [fell, rose] = [
    before.nougat - (await gramsOf(server, 'nougat')),
    (await gramsOf(server, 'praline')) - before.praline,
  ]
  expect(fell).toBeCloseTo(4.38, 9)
  expect(rose).toBeCloseTo(fell, 9)
  await app.getByRole('button', { name: /^Undo/ }).click()
  await expect(app.locator('[data-row=strap] [data-col=grams]')).toHaveText('4.38')
  expect(await gramsOf(server, 'praline')).toBeCloseTo(before.praline, 9)
})

test('a build taken apart fills the drawer', async ({ app, server }) => {
  await server.bringIn('praline')
  await app.goto(`${server.address}/builds/praline/parts`)
  await app.getByRole('button', { name: 'Take apart or move lines' }).click()
  const dialog = app.getByRole('dialog', { name: 'Take apart or move' })
  await dialog.getByRole('button', { name: 'Choose all' }).click()
  await dialog.getByRole('button', { name: /^Put \d+ lines$/ }).click()
  await expect(dialog).toBeHidden()
  await app.getByRole('link', { name: 'Drawer', exact: true }).click()
  await expect(grid(app)).toHaveAttribute('aria-rowcount', '19')
  await expect(grid(app)).toContainText('Ostler 1202.5, leads cut to 45 mm')
})

test('a list with mistakes is shown row by row; the good rows are taken, and the same heads are understood the next time', async ({
  app,
  server,
}) => {
  await app.goto(`${server.address}/drawer`)
  const csv =
    '\uFEFFTyp;What;Owned;Listed, g;kV\nMotor;Ostler 1404;4;9,1;3750\nMotor;Rook 1504;4;0,4 oz;3900\nMotor;;4;9;1\nWing;x;1;1;\n'
  const take = async () => {
    await app.getByRole('button', { name: 'Bring parts in' }).click()
    await app
      .getByRole('dialog')
      .locator('input[type=file]')
      .setInputFiles({ name: 'mine.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) })
  }
  await take()
  const dialog = app.getByRole('dialog', { name: 'Bring parts in' })
  await expect(dialog).toContainText('0 good rows, 4 with a mistake')
  await choose(dialog.getByLabel('What the column “Typ” is'), 'Kind')
  await expect(dialog).toContainText('2 good rows, 2 with a mistake')
  await expect(dialog).toContainText('“Wing” is no kind of part.')
  await dialog.getByRole('button', { name: 'Take the 2 good' }).click()
  await expect(dialog).toBeHidden()
  await expect(grid(app)).toHaveAttribute('aria-rowcount', '2')
  await expect(grid(app)).toContainText('11.34')
  await take()
  await expect(dialog).toContainText('as you said for these heads before')
  await expect(dialog).toContainText('2 good rows, 2 with a mistake')
})

async function kitCame(app: Page, address: string, name: string): Promise<Locator> {
  await app.goto(`${address}/drawer`)
  await app.getByRole('button', { name: 'A kit came' }).click()
  const dialog = app.getByRole('dialog', { name: 'A kit or set came' })
  await dialog.getByLabel('Name').fill(name)
  return dialog
}

test('a kit is put on a build in one step, and taken back as one', async ({ app, server }) => {
  await server.bringIn('praline')
  const dialog = await kitCame(app, server.address, 'Sparrow kit')
  await dialog.getByLabel('Price').fill('39.90')
  await dialog.getByLabel('What the kit leaves out').fill('motor screws')
  for (const [row, name, count] of [
    [0, 'Side plates', '2'],
    [1, 'Posts', '4'],
  ] as const) {
    await dialog.getByLabel('Piece', { exact: true }).nth(row).fill(name)
    await dialog.getByLabel('How many pieces').nth(row).fill(count)
  }
  await dialog.getByRole('button', { name: 'Put the pieces into the drawer' }).click()
  await expect(dialog).toBeHidden()
  const kit = app.locator('.kit')
  await expect(kit).toContainText('2 kinds of pieces. Leaves out: motor screws.')
  await choose(kit.getByLabel('Build for the kit Sparrow kit'), 'Praline')
  await kit.getByRole('button', { name: 'Put all of it on' }).click()
  await expect(kit.getByRole('status')).toHaveText('2 kinds of pieces are on Praline now.')
  await app.goto(`${server.address}/builds/praline/parts`)
  await expect(app.getByRole('gridcell', { name: 'Side plates' })).toHaveCount(1)
  await expect(app.getByRole('gridcell', { name: 'Posts' })).toHaveCount(1)
  await app.goto(`${server.address}/builds/praline/fit?view=buy`)
  await expect(app.getByRole('row', { name: /motor screws left out of Sparrow kit/ })).toBeVisible()
  await app.goto(`${server.address}/builds/praline/parts`)
  await app.getByRole('button', { name: /^Undo/ }).click()
  await expect(app.getByRole('gridcell', { name: 'Side plates' })).toHaveCount(0)
  await expect(app.getByRole('gridcell', { name: 'Posts' })).toHaveCount(0)
})

test('a kit becomes pieces; what a build still needs is listed and saved', async ({ app, server }) => {
  await server.bringIn('treacle')
  const dialog = await kitCame(app, server.address, 'Sparrow kit')
  await dialog.getByRole('button', { name: 'Put the pieces into the drawer' }).click()
  await expect(dialog.getByRole('alert')).toHaveText('Name at least one kind of piece that was in it.')
  await dialog.getByLabel('Piece', { exact: true }).first().fill('Fabric straps 15 mm')
  await choose(dialog.getByLabel('Kind of piece').first(), 'Strap')
  await dialog.getByRole('button', { name: 'Put the pieces into the drawer' }).click()
  await expect(dialog).toBeHidden()
  await expect(grid(app)).toContainText('Fabric straps 15 mm')
  await app.getByRole('button', { name: 'Forget the kit Sparrow kit' }).click()
  await app
    .getByRole('dialog', { name: /Its pieces stay/ })
    .getByRole('button', { name: 'Forget' })
    .click()
  await expect(app.locator('.kit')).toHaveCount(0)
  await expect(grid(app)).toContainText('Fabric straps 15 mm')
  await app.goto(`${server.address}/builds/treacle/fit?view=buy`)
  const straps = app.getByRole('row', { name: /Fabric straps/ })
  await expect(straps.getByRole('cell')).toHaveText(['Fabric straps 15 mm', '2', '1', '1', '', ''])
  await app.getByLabel('tools and consumables').check()
  await expect(app.getByRole('row', { name: /Current limiter/ })).toBeVisible()
  const download = app.waitForEvent('download')
  await app.getByRole('button', { name: 'As CSV' }).click()
  const saved = readFileSync((await (await download).path())!, 'utf8')
  expect(saved).toContain('not owned yet,Fabric straps 15 mm,2,1,1,')
})
