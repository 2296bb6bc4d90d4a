import { blueScale } from './bench'
import { readFileSync } from 'node:fs'
import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { demoBuilds, expect, test } from './server'

async function seriousFaults(page: Page): Promise<string[]> {
  const { violations } = await new AxeBuilder({ page }).analyze()
  return violations
    .filter(v => v.impact === 'serious' || v.impact === 'critical')
    .map(
      v =>
        `${v.id}: ${v.nodes
          .map(n => n.target.join(' '))
          .slice(0, 3)
          .join(', ')}`,
    )
}

test('from an empty shelf to a verdict with the keyboard alone', async ({ app }) => {
  await expect(app.getByText('Nothing on the shelf yet')).toBeVisible()
  await app.keyboard.press('n')
  const dialog = app.getByRole('dialog', { name: 'Start a build' })
  await expect(dialog.getByLabel('Name')).toBeFocused()
  await app.keyboard.press('Enter')
  await expect(dialog.getByRole('alert')).toHaveText('The build’s name cannot be empty.')
  await app.keyboard.type('Toffee')
  await app.keyboard.press('Enter')
  await expect(app.getByRole('heading', { name: 'Aim' })).toBeVisible()
  await app.getByLabel('United States').focus()
  await app.keyboard.press('Space')
  await app.getByLabel('United States, recreation, at most 0.55 lb').focus()
  await app.keyboard.press('Space')
  await expect(app.getByTestId('verdict')).toHaveText('Clear')
  await app.evaluate(() => (document.activeElement as HTMLElement).blur())
  await app.keyboard.press('2')
  await expect(app.getByRole('heading', { name: 'Parts' })).toBeVisible()
  await app.keyboard.press('n')
  const bar = app.getByRole('form', { name: 'New line' })
  await expect(bar.getByLabel('Slot')).toBeFocused()
  await app.keyboard.press('Tab')
  await app.keyboard.type('Brick for testing')
  await app.keyboard.press('Tab')
  await app.keyboard.press('Tab')
  await app.keyboard.type('170,5')
  await app.keyboard.press('Enter')
  await expect(app.getByTestId('verdict')).toHaveText('Over')
  await expect(app.getByText('Saved', { exact: true })).toBeVisible()
})

test('the sheet by keyboard: arrows, typing, Tab, Delete, undo, a changed verdict', async ({ app, server }) => {
  await server.bringIn(...demoBuilds)
  await app.goto(server.address)
  await app.getByRole('link', { name: 'Nougat' }).focus()
  await app.keyboard.press('Enter')
  await expect(app.getByTestId('verdict')).toHaveText('Over')
  const grid = app.getByRole('grid')
  await grid.focus()
  await expect(app.locator('[data-row=frame] [data-col=slot]')).toBeFocused()
  await app.keyboard.press('ArrowRight')
  await app.keyboard.press('ArrowDown')
  await expect(app.locator('[data-row=motors] [data-col=name]')).toBeFocused()
  await app.keyboard.press('End')
  await app.keyboard.press('ArrowRight')
  await expect(app.locator('[data-row=props] [data-col=slot]')).toBeFocused()
  while (!(await app.locator('[data-row=heat] [data-col=slot]').evaluate(cell => cell === document.activeElement)))
    await app.keyboard.press('ArrowDown')
  await app.keyboard.press('Delete')
  await expect(app.getByTestId('verdict')).toHaveText('Clear')
  await expect(app.locator('.group', { hasText: 'Not fitted' })).toBeVisible()
  await app.keyboard.press('Control+z')
  await expect(app.getByTestId('verdict')).toHaveText('Over')
  await app.locator('[data-row=strap] [data-col=quantity]').click()
  await app.keyboard.type('2')
  await app.keyboard.press('Tab')
  await expect(app.locator('[data-row=strap] [data-col=each]')).toBeFocused()
  await expect(app.locator('[data-row=strap] [data-col=quantity]')).toHaveText('× 2')
  await app.keyboard.press('Control+d')
  await expect(app.getByRole('gridcell', { name: 'Rubberised strap, 180 mm' })).toHaveCount(2)
})

test('bad input stays where it is, says why, and changes nothing', async ({ app, server }) => {
  await server.bringIn('marzipan')
  await app.goto(`${server.address}/builds/marzipan/parts`)
  const before = await server.json('/api/builds/marzipan')
  const attempts: [string, string, RegExp][] = [
    ['each', '-3', /cannot be negative/],
    ['each', '1e9', /not a number/],
    ['each', '1000000000', /more than 10,000 g/],
    ['each', 'NaN', /not a number/],
    ['quantity', '0', /whole number/],
    ['quantity', '2.5', /whole number/],
    ['name', '<script>alert(1)</script>', /“<…>” marks/],
    ['name', '=HYPERLINK("x")', /formula/],
    ['price', 'free', /not a price/],
  ]
  for (const [column, text, sentence] of attempts) {
    const cell = app.locator(`[data-row=strap] [data-col=${column}]`)
    await cell.dblclick()
    await app.keyboard.press('Control+a')
    await app.keyboard.type(text)
    await app.keyboard.press('Enter')
    await expect(cell.getByRole('alert')).toHaveText(sentence)
    await app.keyboard.press('Escape')
    await expect(cell.getByRole('alert')).toHaveCount(0)
  }
  const cell = app.locator('[data-row=strap] [data-col=name]')
  await cell.dblclick()
  await app.keyboard.press('Control+a')
  await app.keyboard.press('Backspace')
  await app.keyboard.press('Enter')
  await expect(cell.getByRole('alert')).toHaveText('The name cannot be empty.')
  await app.keyboard.press('Escape')
  expect(await server.json('/api/builds/marzipan')).toEqual(before)

  await app.locator('[data-row=strap] [data-col=each]').click()
  await app.keyboard.press('Enter')
  await app.keyboard.press('Control+a')
  await app.keyboard.type('12,4 g')
  await app.keyboard.press('Enter')
  await expect(app.locator('[data-row=strap] [data-col=grams]')).toHaveText('12.40')
})

test('the routes refuse in sentences whatever comes past the interface', async ({ server }) => {
  await server.bringIn('marzipan')
  const { revision } = await server.json<{ revision: number }>('/api/builds/marzipan')
  const send = async (body: string, headers: Record<string, string> = { 'if-match': `"${revision}"` }) => {
    const answer = await fetch(`${server.address}/api/builds/marzipan/commands`, { method: 'POST', body, headers })
    return {
      status: answer.status,
      type: answer.headers.get('content-type'),
      problem: (await answer.json()) as { detail: string; field?: string },
    }
  }
  const change = (fields: object) =>
    JSON.stringify({ command: { type: 'lines.change', changes: [{ id: 'strap', fields }] } })
  for (const [body, field] of [
    [change({ quantity: 2.5 }), 'quantity'],
    [change({ quantity: 0 }), 'quantity'],
    [change({ name: '' }), 'name'],
    [change({ name: '<script>' }), 'name'],
    [change({ priceEachCents: -1 }), 'priceEachCents'],
    [change({ colour: 'red' }), 'fields'],
  ] as const) {
    const { status, type, problem } = await send(body)
    expect([status, type?.split(';')[0]]).toEqual([422, 'application/problem+json'])
    expect(problem.field).toContain(field)
    expect(problem.detail.length).toBeGreaterThan(10)
  }
  expect((await send('{"command":')).problem.detail).toBe('The request is not JSON.')
  expect((await send(change({ quantity: 2 }), {})).status).toBe(428)
  expect((await send(change({ quantity: 2 }), { 'if-match': '"77"' })).status).toBe(409)
  expect(
    (await send(change({ quantity: 2 }), { 'if-match': `"${revision}"`, origin: 'http://elsewhere.example' })).status,
  ).toBe(403)
  expect((await server.json<{ revision: number }>('/api/builds/marzipan')).revision).toBe(revision)
  expect((await fetch(`${server.address}/api/builds/nobody`)).status).toBe(404)
})

test('rows from a spreadsheet: mapping, preview, the good ones taken, the bad ones named', async ({ app, server }) => {
  await server.bringIn('treacle')
  await app.goto(`${server.address}/builds/treacle/parts`)
  await app.getByRole('button', { name: 'Bring in rows' }).click()
  const dialog = app.getByRole('dialog', { name: 'Bring in rows' })
  await dialog
    .getByLabel('Rows')
    .fill('What;How many;Each (g);Known by\nTail fin;1;3,25;weighed\nBroken;0;-1;weighed\nLong bolt;2;0,5;guess\n')
  await dialog.getByRole('button', { name: 'Look at the rows' }).click()
  await expect(dialog).toContainText('2 good rows, 1 with a mistake')
  await expect(dialog).toContainText('A mass cannot be negative.')
  await dialog.getByLabel('Slot of row 2').selectOption({ label: 'Printed part' })
  await dialog.getByRole('button', { name: 'Take the 2 good rows' }).click()
  await expect(app.getByRole('gridcell', { name: 'Tail fin' })).toBeVisible()
  await expect(app.getByRole('gridcell', { name: 'Broken' })).toHaveCount(0)
  await expect(app.getByRole('grid').getByRole('row').filter({ hasText: 'Tail fin' })).toContainText('Printed part')

  await app.getByRole('button', { name: 'Bring in rows' }).click()
  for (const [text, sentence] of [
    ['What,Each (g)\n"Strap,2\n', 'quotation mark'],
    [Array.from({ length: 20_000 }, (_, i) => `Part ${i},1`).join('\n'), 'at most 2,000 lines'],
    ['x'.repeat(3_000_000), 'at most 2 MB'],
  ] as const) {
    await dialog.getByLabel('Rows').evaluate((field, pasted) => {
      const clipboardData = new DataTransfer()
      clipboardData.setData('text/plain', pasted)
      field.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }))
    }, text)
    await expect(dialog.getByRole('alert')).toContainText(sentence)
  }
})

test('a build goes out as a file and comes in again; a newer version is refused', async ({ app, server }) => {
  await server.bringIn('praline')
  await app.goto(`${server.address}/builds/praline/record`)
  const [download] = await Promise.all([
    app.waitForEvent('download'),
    app.getByRole('link', { name: 'Build file' }).click(),
  ])
  expect(download.suggestedFilename()).toBe('Praline.build.json')
  const text = readFileSync(await download.path(), 'utf8')
  expect(text).toBe(readFileSync('demo/builds/praline.build.json', 'utf8'))
  await app.goto(server.address)
  await app.getByLabel('Build file').setInputFiles({
    name: 'new.build.json',
    mimeType: 'application/json',
    buffer: Buffer.from(text.replace('"version": 4', '"version": 99')),
  })
  await expect(app.getByRole('alert')).toContainText('version 99')
  await expect(app.getByRole('article')).toHaveCount(1)
  await app
    .getByLabel('Build file')
    .setInputFiles({ name: 'same.build.json', mimeType: 'application/json', buffer: Buffer.from(text) })
  await expect(app.getByTestId('verdict')).toHaveText('Clear')
  await app.goto(server.address)
  await expect(app.getByRole('article')).toHaveCount(2)
})

test('candidates, set-ups, reasons, own cards and find work as they say', async ({ app, server }) => {
  await server.bringIn('marzipan')
  await app.goto(`${server.address}/builds/marzipan/parts?line=vtx`)
  const inspector = app.getByRole('complementary', { name: 'Inspector' })
  await inspector.getByRole('button', { name: 'Fit Oddfellow digital, open board instead' }).click()
  await expect(app.getByTestId('verdict')).toHaveText('Clear')
  await app.getByLabel('Reason for the last change').fill('lighter without its case')
  await app.keyboard.press('Enter')
  await expect(app.getByLabel('Reason for the last change')).toHaveCount(0)
  await app.getByRole('link', { name: 'Record' }).click()
  await expect(
    app.getByLabel('Reason for: Fitted Oddfellow digital, open board instead of Oddfellow digital, cased, 9 V feed'),
  ).toHaveValue('lighter without its case')
  await app.getByRole('button', { name: 'Take back' }).click()
  await expect(app.getByTestId('verdict')).toHaveText('Too close to call')
  await app.getByRole('button', { name: 'Do again' }).click()
  await expect(app.getByTestId('verdict')).toHaveText('Clear')

  await app.getByRole('link', { name: 'Rules' }).click()
  await app.getByRole('button', { name: 'A card of your own' }).click()
  const editor = app.getByRole('dialog', { name: 'A card of your own' })
  await editor.getByLabel('Place').fill('Quillhaven pier')
  await editor.getByLabel('Limit', { exact: true }).fill('-5')
  await editor.getByRole('button', { name: 'Keep it' }).click()
  await expect(editor.getByRole('alert')).toHaveText('The limit must be above zero.')
  await editor.getByLabel('Limit', { exact: true }).fill('8.5')
  await editor.getByLabel('Unit').selectOption('oz')
  await editor.getByRole('button', { name: 'Keep it' }).click()
  await expect(app.getByRole('article').filter({ hasText: 'Quillhaven pier' })).toContainText(
    'at most 8.5 oz (240.97 g)',
  )
  await app.getByLabel('United States, recreation verified on').fill('2026-11-20')
  await expect(app.getByRole('article').filter({ hasText: 'Verified by you on' })).toHaveCount(1)

  await app.keyboard.press('Escape')
  await expect(app.getByRole('dialog')).toHaveCount(0)
  await app.evaluate(() => (document.activeElement as HTMLElement).blur())
  await app.keyboard.press('/')
  await expect(app.getByRole('dialog').getByRole('combobox')).toBeFocused()
  await app.keyboard.type('grip pad')
  await expect(app.getByRole('option').first()).toContainText('Grip pad under the pack')
  await app.keyboard.press('Enter')
  await expect(app).toHaveURL(/marzipan\/parts\?line=pad/)
})

test('what flies in no set-up is said in the head with a way out; new payload joins; a copy is of twins', async ({
  app,
  server,
}) => {
  await server.bringIn('praline')
  await app.goto(`${server.address}/builds/praline/parts`)
  await app.getByRole('button', { name: /^New line/ }).click()
  const row = app.getByRole('form', { name: 'New line' })
  await row.getByLabel('Slot').selectOption('payload')
  await row.getByLabel('What').fill('Little camera')
  await row.getByLabel('Each, g').fill('32.5')
  await row.getByRole('button', { name: 'Add' }).click()
  await expect(app.getByTestId('auw')).toContainText('129')
  const id = (await app.locator('tr.selected').getAttribute('data-row'))!
  for (const tick of await app
    .getByRole('complementary')
    .locator('label.tick', { hasText: /^(as built|bumpers|lamp|race)/ })
    .getByRole('checkbox')
    .all())
    await tick.uncheck()
  await expect(app.getByTestId('in-no-setup')).toContainText(
    'Little camera, 32.5 g, flies in no set-up and is not counted',
  )
  await expect(app.getByTestId('auw')).toContainText('97.')
  await app
    .getByTestId('in-no-setup')
    .getByRole('button', { name: /Put it into/ })
    .click()
  await expect(app.getByTestId('in-no-setup')).toHaveCount(0)
  await expect(app.getByTestId('auw')).toContainText('129')
  expect(id).not.toBe('')

  const copied = (await (
    await app.request.post(`${server.address}/api/builds`, {
      data: { from: 'copy', name: 'Praline twin', buildId: 'praline' },
    })
  ).json()) as { id: string }
  await app.goto(`${server.address}/builds/${copied.id}/parts`)
  await expect(app.locator('[data-row=motors] [data-col=known]')).toHaveText('twin')
  await expect(app.getByText(/^0 of \d+ weighed$/)).toBeVisible()
  await app.goto(`${server.address}/builds/${copied.id}/parts?line=motors`)
  await expect(app.getByRole('complementary')).toContainText('this one never was, and pieces differ')
})

for (const colorScheme of ['light', 'dark'] as const) {
  test(`axe finds nothing serious on any page, ${colorScheme}`, async ({ app, server }) => {
    test.setTimeout(360_000)
    await server.bringIn(...demoBuilds)
    for (const id of ['blue', 'red']) {
      await server.send('PUT', `/api/scales/${id}`, blueScale)
      await server.send('POST', `/api/scales/${id}/checks`, {
        takenAt: new Date().toISOString(),
        placings: [
          { references: [], displayG: 0 },
          { references: [{ id: 'brass', massG: 100, toleranceG: 0.01 }], displayG: 100.22 },
        ],
      })
    }
    await server.send('POST', '/api/parts', {
      parts: (JSON.parse(readFileSync('demo/drawer.json', 'utf8')) as { parts: object[] }).parts.map(part => ({
        ...part,
        kitId: null,
      })),
    })
    await app.emulateMedia({ colorScheme, reducedMotion: 'reduce' })
    for (const path of [
      '/',
      '/builds/marzipan/aim',
      '/builds/marzipan/parts',
      '/builds/marzipan/parts?line=vtx',
      '/builds/praline/parts?with=lamp.q2&line=lamp',
      '/builds/nougat/record',
      '/builds/marzipan/weigh',
      '/builds/marzipan/weigh?pan=whole',
      '/builds/marzipan/fit',
      '/builds/marzipan/fit?view=stack',
      '/builds/nougat/fit?view=fixings',
      '/builds/nougat/fit?view=leads',
      '/builds/treacle/fit?view=buy',
      '/builds/nougat/choosing?line=motors',
      '/builds/marzipan/packs',
      '/builds/marzipan/packs?view=discharge',
      '/builds/praline/packs?view=setups',
      '/builds/praline/packs?view=go',
      '/builds/nougat/shave',
      '/builds/marzipan/assemble',
      '/builds/treacle/assemble?step=directions',
      '/builds/marzipan/assemble?view=connections',
      '/builds/treacle/assemble?view=maiden',
      '/builds/marzipan/assemble?view=repair',
      '/drawer',
      '/drawer?part=strap-12',
      '/scales',
      '/rules',
      '/settings',
    ]) {
      await app.goto(server.address + path)
      await expect(app.getByRole('heading', { level: 1 })).toBeVisible()
      await app.waitForLoadState('networkidle')
      expect(await seriousFaults(app), path).toEqual([])
    }
    await app.goto(server.address)
    await app.getByRole('button', { name: /Start a build/ }).click()
    await expect(app.getByRole('dialog', { name: 'Start a build' })).toBeVisible()
    expect(await seriousFaults(app), 'start a build').toEqual([])
  })
}
