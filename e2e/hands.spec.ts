import { readFileSync } from 'node:fs'
import type { Locator, Page } from '@playwright/test'
import sharp from 'sharp'
import { expect, test, written, type OwnServer } from './server'
import { choose } from './controls'

interface Line {
  id: string
  name: string
  state: string
  slot: string
  tie: string | null
  role: string
  mass: { evidence: string } | null
}
const buildOf = async (server: OwnServer, id = 'marzipan') =>
  (
    await server.json<{
      build: { lines: Line[]; setups: { name: string }[]; fit: { stack: { layers: { name: string }[] } } }
    }>(`/api/builds/${id}`)
  ).build
const lineIds = async (server: OwnServer) => (await buildOf(server)).lines.map(line => line.id)
const entries = async (server: OwnServer) =>
  (await server.json<{ entries: { title: string }[] }>('/api/builds/marzipan/journal')).entries
const cell = (app: Page, row: string, column: string) => app.locator(`[data-row=${row}] [data-col=${column}]`)
const menuItem = (app: Page, name: string | RegExp) => app.getByRole('menuitem', { name })
const parts = (server: OwnServer) => `${server.address}/builds/marzipan/parts`

/** Drags what has hold of to the middle of something else, as a hand does: down, a little, there, up. */
async function drag(page: Page, grip: Locator, to: Locator, side: 'above' | 'below') {
  const from = (await grip.boundingBox())!
  const goal = (await to.boundingBox())!
  await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2)
  await page.mouse.down()
  await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2 + (side === 'above' ? -8 : 8), { steps: 4 })
  await page.mouse.move(goal.x + 20, goal.y + goal.height * (side === 'above' ? 0.2 : 0.8), { steps: 12 })
  await page.mouse.up()
}

test.beforeEach(async ({ server }) => {
  await server.bringIn('marzipan')
})

test('a row offers on the secondary button, and on the menu key, what can be done with it', async ({
  app,
  server,
  context,
}) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write'])
  await app.goto(parts(server))
  await cell(app, 'strap', 'name').click({ button: 'right' })
  await expect(app.getByRole('menu', { name: 'What can be done with the line' })).toBeVisible()
  await expect(menuItem(app, /^Edit the cell/)).toBeFocused()
  await menuItem(app, 'Copy the row').click()
  await expect(app.getByText('Copied: the row of Rubberised strap, 140 mm')).toBeVisible()
  const copied = await app.evaluate(() => navigator.clipboard.readText())
  expect(copied.split('\t').slice(0, 4)).toEqual(['Strap', 'Rubberised strap, 140 mm', '× 1', '3.41'])
  await expect(cell(app, 'strap', 'name')).toBeFocused()

  // By the keys alone: the menu key opens it at the cell, arrows walk it, Escape leads back, Enter does it.
  await app.keyboard.press('ContextMenu')
  await expect(menuItem(app, /^Edit the cell/)).toBeFocused()
  await app.keyboard.press('Escape')
  await expect(cell(app, 'strap', 'name')).toBeFocused()
  await app.keyboard.press('Shift+F10')
  await expect(menuItem(app, /^Edit the cell/)).toBeFocused()
  await app.keyboard.press('ArrowDown')
  await app.keyboard.press('ArrowDown')
  await expect(menuItem(app, /^Take off/)).toBeFocused()
  await written(app, () => app.keyboard.press('Enter'))
  expect((await buildOf(server)).lines.find(line => line.id === 'strap')!.state).toBe('off')

  await cell(app, 'pad', 'grams').click({ button: 'right' })
  await written(app, () => menuItem(app, 'Delete').click())
  expect(await lineIds(server)).not.toContain('pad')
  await expect(app.locator('[data-row=pad]')).toHaveCount(0)
  const deleted = app.getByRole('alert').filter({ hasText: 'is deleted' })
  await deleted.getByRole('button', { name: 'Take back' }).click()
  await expect(app.locator('[data-row=pad]')).toBeVisible()
  await cell(app, 'pad', 'grams').click({ button: 'right' })
  await written(app, () => menuItem(app, 'Delete').click())
  await expect(deleted).toBeVisible()
  // Once something else is changed, “Take back” would take that back: it is offered no longer.
  await cell(app, 'screws', 'quantity').click()
  await app.keyboard.type('12')
  await written(app, () => app.keyboard.press('Enter'))
  await expect(deleted).toBeHidden({ timeout: 2000 })
})

test('several lines are chosen by keys or presses and changed at once, in one step that goes back in one', async ({
  app,
  server,
}) => {
  await app.goto(parts(server))
  await cell(app, 'strap', 'slot').click()
  await app.keyboard.press('Shift+ArrowDown')
  const many = app.getByRole('region', { name: 'Change the chosen lines' })
  await expect(many).toContainText('2 lines chosen')
  await cell(app, 'screws', 'slot').click({ modifiers: ['ControlOrMeta'] })
  await expect(many).toContainText('3 lines chosen')
  const before = await entries(server)
  await many.getByLabel('Tie all chosen together as').fill('kit of screws')
  await written(app, () => many.getByRole('button', { name: 'Tie' }).click())
  await written(app, () => choose(many.getByLabel('Role of all chosen'), 'fitting'))
  const chosen = async () => (await buildOf(server)).lines.filter(line => ['strap', 'pad', 'screws'].includes(line.id))
  expect((await chosen()).map(line => [line.tie, line.role])).toEqual(Array(3).fill(['kit of screws', 'fitting']))
  expect((await entries(server)).length).toBe(before.length + 2)
  await written(app, () => choose(many.getByLabel('How the grams of all chosen are known'), 'guess'))
  expect((await chosen()).map(line => line.mass?.evidence)).toEqual(['guess', 'guess', 'guess'])
  const taken = app.waitForResponse(answer => answer.url().endsWith('/undo'))
  await app.getByRole('button', { name: /^Undo/ }).click()
  await taken
  expect((await chosen()).map(line => line.mass?.evidence)).toEqual(['weighed', 'weighed', 'weighed'])

  // A candidate cannot be taken off: then none is.
  await many.getByRole('button', { name: 'All' }).click()
  await choose(many.getByLabel('State of all chosen'), 'taken off')
  await expect(many.getByRole('alert')).toContainText('it is a candidate, fit it by itself. Nothing was changed.')
  expect((await buildOf(server)).lines.filter(line => line.state === 'off')).toEqual([])
  await many.getByRole('button', { name: 'Done' }).click()
  await expect(many).toBeHidden()

  // With a finger or a mouse alone.
  await app.getByRole('button', { name: 'Several' }).click()
  await cell(app, 'strap', 'name').click()
  await cell(app, 'pad', 'name').click()
  await expect(many).toContainText('2 lines chosen')
  await expect(app.locator('[data-row=pad]')).toHaveAttribute('aria-selected', 'true')
  await written(app, () => many.getByRole('button', { name: 'Delete' }).click())
  expect(await lineIds(server)).not.toContain('strap')
  await app.getByRole('alert').filter({ hasText: '2 lines are deleted' }).getByRole('button').click()
  await expect(app.locator('[data-row=strap]')).toBeVisible()
})

test('a line is dragged to another place of its group by its grip', async ({ app, server }) => {
  await app.goto(parts(server))
  const order = async () => (await lineIds(server)).filter(id => ['cradle', 'screws', 'strap', 'pad'].includes(id))
  const was = await order()
  const [first, last] = [was[0]!, was.at(-1)!]
  const lastRow = app.locator(`[data-row=${last}]`)
  await lastRow.scrollIntoViewIfNeeded()
  await lastRow.hover()
  await written(app, () => drag(app, lastRow.locator('.grip'), app.locator(`[data-row=${first}]`), 'above'))
  expect(await order()).toEqual([last, ...was.slice(0, -1)])
  await written(app, async () => {
    await lastRow.hover()
    await drag(app, lastRow.locator('.grip'), app.locator(`[data-row=${was[1]!}]`), 'below')
  })
  expect(await order()).toEqual([first, was[1], last, ...was.slice(2, -1)])
  const shown = await app.locator('tbody [data-row]').evaluateAll(rows => rows.map(row => row.getAttribute('data-row')))
  expect(shown.filter(id => was.includes(id!))).toEqual([first, was[1], last, ...was.slice(2, -1)])
})

test('layers, steps and set-ups are dragged too; a step that waits for another says so and stays', async ({
  app,
  server,
}) => {
  await app.goto(`${server.address}/builds/marzipan/fit?view=stack`)
  const layers = async () => (await buildOf(server)).fit.stack.layers.map(layer => layer.name)
  const was = await layers()
  const rows = app.locator('tr:has([aria-label^="Name of layer"])')
  await rows.nth(0).scrollIntoViewIfNeeded()
  await written(app, () => drag(app, rows.nth(0).locator('.grip'), rows.nth(1), 'below'))
  expect(await layers()).toEqual([...was.slice(0, -2), was.at(-1), was.at(-2)])
  // The keys do the same.
  await rows
    .nth(1)
    .getByLabel(/^Name of layer/)
    .focus()
  await written(app, () => app.keyboard.press('Alt+ArrowUp'))
  expect(await layers()).toEqual(was)

  await app.goto(parts(server))
  const setups = async () => (await buildOf(server)).setups.map(setup => setup.name)
  const before = await setups()
  const setupRows = app.locator('.setup:has([aria-label^="Name of set-up"])')
  await setupRows.nth(0).scrollIntoViewIfNeeded()
  await written(app, () => drag(app, setupRows.nth(0).locator('.grip'), setupRows.nth(1), 'below'))
  expect(await setups()).toEqual([before[1], before[0], ...before.slice(2)])

  await app.goto(`${server.address}/builds/marzipan/assemble`)
  const steps = app.getByRole('navigation', { name: 'Steps' })
  const motors = steps.getByRole('button', { name: /4 motors on the frame/ })
  await motors.scrollIntoViewIfNeeded()
  await motors.focus()
  const titles = await steps.getByRole('button').allTextContents()
  for (let i = 0; i < titles.length; i++) {
    if (await steps.getByRole('alert').isVisible()) break
    await app.keyboard.press('Alt+ArrowUp')
  }
  await expect(steps.getByRole('alert')).toContainText('it needs it done')
})

test('files are dropped on the shelf, on a build and on the drawer', async ({ app, server }) => {
  const drop = async (name: string, text: string) => {
    const data = await app.evaluateHandle(
      ([fileName, contents]) => {
        const transfer = new DataTransfer()
        transfer.items.add(new File([contents!], fileName!))
        return transfer
      },
      [name, text],
    )
    await app.locator('body').dispatchEvent('dragenter', { dataTransfer: data })
    await expect(app.getByText(/^Drop /)).toBeVisible()
    await app.locator('body').dispatchEvent('drop', { dataTransfer: data })
    await expect(app.getByText(/^Drop /)).toBeHidden()
  }
  await app.goto(server.address)
  await expect(app.getByRole('heading', { name: 'Shelf' })).toBeVisible()
  await drop('broken.json', '{ "not": "a build"')
  await expect(app.getByRole('alert')).toBeVisible()
  expect((await server.json<{ entries: unknown[] }>('/api/builds')).entries).toHaveLength(1)
  await drop('nougat.build.json', readFileSync('demo/builds/nougat.build.json', 'utf8'))
  await expect(app).toHaveURL(/\/builds\/[^/]+\/parts/)
  await expect(app.locator('.where b')).toHaveText('Nougat')
  await drop('list.csv', 'What,Grams\nFabric strap,2.4\n')
  await expect(app.getByRole('dialog', { name: /rows/i })).toContainText('Fabric strap')
  await app.goto(`${server.address}/drawer`)
  await expect(app.getByRole('heading', { name: 'Drawer' })).toBeVisible()
  await drop('drawer.csv', 'Kind,What,Grams,Owned\nmotor,Loft 1303,5.2,4\n')
  await expect(app.getByRole('dialog')).toContainText('1 good')
})

test('several files at once say how far they have come, and can be stopped: what came stays, the rest does not', async ({
  app,
  server,
}) => {
  await app.goto(server.address)
  await expect(app.locator('.where b, h1').first()).toBeVisible()
  let held = () => {}
  const release = new Promise<void>(done => {
    held = done
  })
  await app.route('**/api/builds/import', async route => {
    await release
    await route.continue()
  })
  const data = await app.evaluateHandle(
    files => {
      const transfer = new DataTransfer()
      for (const [name, text] of files) transfer.items.add(new File([text!], name!))
      return transfer
    },
    ['nougat', 'praline', 'sherbet'].map(name => [name, readFileSync(`demo/builds/${name}.build.json`, 'utf8')]),
  )
  await app.locator('body').dispatchEvent('drop', { dataTransfer: data })
  const progress = app.getByRole('status').filter({ hasText: 'Files taken in: 0 of 3' })
  await expect(progress).toBeVisible()
  await expect(progress.getByRole('progressbar')).toHaveAccessibleName('Files taken in')
  await progress.getByRole('button', { name: 'Stop' }).click()
  held()
  await expect(app.getByText('One build came onto the shelf.')).toBeVisible()
  await expect(app.getByText(/^Files taken in/)).toHaveCount(0)
  const names = (await server.json<{ entries: { name: string }[] }>('/api/builds')).entries.map(({ name }) => name)
  expect(names.sort()).toEqual(['Marzipan', 'Nougat'])
})

test('columns of the drawer are hidden, drawn wider, sorted by several, and stay so', async ({ app, server }) => {
  const { parts: owned } = JSON.parse(readFileSync('demo/drawer.json', 'utf8')) as { parts: object[] }
  await server.send('POST', '/api/parts', { parts: owned.map(part => ({ ...part, kitId: null })) })
  await app.goto(`${server.address}/drawer`)
  const head = (name: string) => app.getByRole('columnheader', { name, exact: true })
  await app.getByRole('button', { name: 'Columns' }).click()
  await app.getByRole('checkbox', { name: 'Each costs' }).click()
  await app.keyboard.press('Escape')
  await expect(head('Each costs')).toHaveCount(0)
  const kind = app.getByRole('columnheader').filter({ hasText: 'Kind' })
  const wide = (await kind.boundingBox())!.width
  await kind.getByRole('slider', { name: 'Width of Kind' }).press('ArrowRight')
  await expect.poll(async () => (await kind.boundingBox())!.width).toBe(wide + 8)
  const edge = (await kind.getByRole('slider').boundingBox())!
  await app.mouse.move(edge.x + 3, edge.y + 6)
  await app.mouse.down()
  await app.mouse.move(edge.x + 43, edge.y + 6, { steps: 4 })
  await app.mouse.up()
  await expect.poll(async () => (await kind.boundingBox())!.width).toBe(wide + 48)
  await kind.getByRole('button').click()
  await app
    .getByRole('columnheader')
    .filter({ hasText: 'Each, g' })
    .getByRole('button')
    .click({ modifiers: ['Shift'] })
  const shown = async () =>
    app
      .locator('.rows .row')
      .evaluateAll(rows =>
        rows.map(row => [
          row.querySelector('[data-col=slot]')!.textContent!.trim(),
          Number(row.querySelector('[data-col=grams]')!.textContent!.replace('–', 'Infinity')),
        ]),
      )
  const inOrder = async () => {
    const rows = (await shown()) as [string, number][]
    return (
      rows.length > 8 &&
      rows.every(
        ([slot, grams], i) =>
          i === 0 || rows[i - 1]![0] < slot || (rows[i - 1]![0] === slot && rows[i - 1]![1] <= grams),
      )
    )
  }
  await expect.poll(inOrder).toBe(true)
  await app.reload()
  await expect(app.getByRole('columnheader').filter({ hasText: 'Each costs' })).toHaveCount(0)
  await expect.poll(async () => (await kind.boundingBox())!.width).toBe(wide + 48)
  await expect.poll(inOrder).toBe(true)
  await app.locator('[data-part] [data-col=name]').first().click({ button: 'right' })
  await menuItem(app, 'Delete').click()
  await expect(app.getByText(/is deleted\./)).toBeVisible()
})

test('pictures of a part: added in the inspector, taken back by Z, gone along into the drawer; what is none is refused', async ({
  app,
  server,
}) => {
  await server.bringIn('praline')
  await app.goto(`${server.address}/builds/praline/parts?line=frame`)
  const inspector = app.getByRole('complementary', { name: 'Inspector' })
  const choose = inspector.locator('.picture-row input[type=file]')
  await choose.setInputFiles({ name: 'frame.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('not a picture at all') })
  await expect(inspector.getByRole('alert')).toHaveText(
    'This is not a picture that can be read: use JPEG, PNG, WebP or AVIF. Nothing was kept.',
  )
  const photo = await sharp({ create: { width: 400, height: 300, channels: 3, background: '#7a4' } })
    .jpeg()
    .toBuffer()
  const two = ['above.jpg', 'below.jpg'].map(name => ({ name, mimeType: 'image/jpeg', buffer: photo }))
  await choose.setInputFiles(two)
  const shown = inspector.getByRole('img', { name: /^Picture of/ })
  await expect(shown).toHaveCount(2)
  await expect(inspector.getByRole('alert')).toHaveCount(0)
  await expect.poll(() => shown.first().evaluate(image => (image as HTMLImageElement).naturalWidth)).toBe(400)
  await inspector
    .getByRole('button', { name: /^Take out the picture of/ })
    .first()
    .click()
  await expect(shown).toHaveCount(1)
  await app.keyboard.press('z')
  await expect(shown).toHaveCount(2)

  // One that comes late goes to the line it was chosen for, though another is on view by then.
  let letIn: () => void = () => undefined
  const held = new Promise<void>(done => {
    letIn = done
  })
  await app.route('**/api/pictures', async route => {
    await held
    await route.continue()
  })
  await choose.setInputFiles({ name: 'late.jpg', mimeType: 'image/jpeg', buffer: photo })
  await expect(inspector.getByRole('button', { name: 'Sending …' })).toBeVisible()
  await app.locator('[data-row=strap] [data-col=name]').click()
  await expect(shown).toHaveCount(0)
  await written(app, () => Promise.resolve(letIn()))
  await expect(shown).toHaveCount(0)
  await app.locator('[data-row=frame] [data-col=name]').click()
  await expect(shown).toHaveCount(3)
  await app.keyboard.press('Control+z')
  await expect(shown).toHaveCount(2)
  await app.unrouteAll({ behavior: 'wait' })

  await inspector.getByRole('button', { name: 'Back to the build' }).click()
  await inspector.getByRole('button', { name: 'Take apart or move lines' }).click()
  const dialog = app.getByRole('dialog', { name: 'Take apart or move' })
  await dialog.getByRole('button', { name: 'Choose all' }).click()
  await dialog.getByRole('button', { name: /^Put \d+ lines$/ }).click()
  await expect(dialog).toBeHidden()
  const { parts } = await server.json<{ parts: { id: string; name: string; pictureIds: string[] }[] }>('/api/parts')
  const frame = parts.find(part => part.pictureIds.length === 2)!
  await app.goto(`${server.address}/drawer?part=${frame.id}`)
  await expect(shown).toHaveCount(2)
  await expect.poll(() => shown.last().evaluate(image => (image as HTMLImageElement).naturalWidth)).toBe(400)
  await inspector
    .getByRole('button', { name: /^Take out the picture of/ })
    .last()
    .click()
  await expect(shown).toHaveCount(1)
  await app.keyboard.press('z')
  await expect(shown).toHaveCount(2)
})
