import { readFileSync } from 'node:fs'
import { expect, test } from './server'
import { choose } from './controls'

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
  await choose(dialog.getByLabel('Slot of row 2'), 'Printed part')
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
  const plain = await server.json<{ flights: { place: string }[]; settings: { text: string }[] }>(
    '/api/builds/praline/export/build.json',
  )
  expect([...plain.flights.map(({ place }) => place), ...plain.settings.map(({ text }) => text)].join('')).toBe('')
  await app.getByText('with places of flights and texts of settings').click()
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
    buffer: Buffer.from(text.replace(/"version": \d+/, '"version": 99')),
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

test('rows pasted onto the sheet are shown first; Shift+Z does again what Z took back', async ({ app, server }) => {
  await server.bringIn('treacle')
  await app.goto(`${server.address}/builds/treacle/parts`)
  await app.locator('[data-row=frame] [data-col=name]').click()
  await app.getByRole('grid').evaluate(grid => {
    const clipboardData = new DataTransfer()
    clipboardData.setData('text/plain', 'Pad\tFoam pad\t2\t0,45\nStrap\tRubber ring\t1\t0,6')
    grid.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }))
  })
  await app.getByRole('button', { name: 'Take all 2 rows' }).click()
  const foam = app.getByRole('gridcell', { name: 'Foam pad' })
  await expect(foam).toBeVisible()
  await expect(app.getByRole('dialog')).toBeHidden()
  await expect(app.getByText('Saved', { exact: true })).toBeVisible()
  await app.evaluate(() => (document.activeElement as HTMLElement).blur())
  await app.keyboard.press('z')
  await expect(foam).toHaveCount(0)
  await app.keyboard.press('Shift+Z')
  await expect(foam).toBeVisible()
  const { entries } = await server.json<{ entries: { title: string }[] }>('/api/builds/treacle/journal')
  expect(entries.slice(0, 3).map(entry => entry.title)).toEqual([
    'Did again: Added 2 lines',
    'Took back: Added 2 lines',
    'Added 2 lines',
  ])
})
