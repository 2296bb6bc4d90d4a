import { expect, test, written } from './server'

test('an empty shelf offers three ways in; a list of parts that is pasted begins a build of its own', async ({
  app,
  server,
}) => {
  await expect(app.getByRole('heading', { name: 'Nothing on the shelf yet' })).toBeVisible()
  for (const way of ['From a craft class', 'Rows or a file', 'Look round first'])
    await expect(app.getByRole('heading', { name: way })).toBeVisible()
  await app.evaluate(() => {
    const clipboard = new DataTransfer()
    clipboard.setData('text/plain', 'What\tGrams\nFabric strap\t2.4\nBottom plate\t9,81\n')
    document.body.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: clipboard, bubbles: true, cancelable: true }),
    )
  })
  const dialog = app.getByRole('dialog')
  await expect(dialog).toContainText('Bottom plate')
  await written(app, () => dialog.getByRole('button', { name: 'Take all 2 rows' }).click())
  await expect(app.getByRole('gridcell', { name: 'Bottom plate' })).toBeVisible()
  const { entries } = await server.json<{ entries: { name: string; massG: number }[] }>('/api/builds')
  expect(entries).toHaveLength(1)
  expect(entries[0]).toMatchObject({ name: 'Pasted parts' })
  expect(entries[0]!.massG).toBeCloseTo(12.21, 6)
})

test('the sample can be looked round in, toured by keyboard, and thrown away', async ({ app, server }) => {
  await app.getByRole('button', { name: 'Open the sample' }).click()
  const note = app.getByTestId('sample')
  await expect(note).toContainText('A sample to look round in')
  await note.getByRole('button', { name: 'Take the tour' }).click()
  const tour = app.locator('.el-tour__content')
  const titles: string[] = []
  for (;;) {
    await expect(tour).toBeVisible()
    const title = (await tour.locator('.el-tour__title').textContent())!
    titles.push(title)
    if (title === 'Find') break
    await tour.getByRole('button', { name: 'Next' }).press('Enter')
    await expect(tour.locator('.el-tour__title')).not.toHaveText(title)
  }
  expect(titles).toEqual(['What it weighs', 'The verdict', 'The mass strip', 'The ledger', 'The stations', 'Find'])
  // The page is where it was: a tour that scrolls it away leaves nobody the wiser.
  expect(await app.evaluate(() => document.scrollingElement!.scrollTop)).toBe(0)
  await tour.getByRole('button', { name: 'Done' }).press('Enter')
  await expect(tour).toBeHidden()
  await app.keyboard.press('?')
  await app.getByRole('dialog', { name: 'Keys' }).getByRole('button', { name: 'Take the tour' }).click()
  await expect(tour.locator('.el-tour__title')).toHaveText('What it weighs')
  await app.keyboard.press('Escape')
  await expect(tour).toBeHidden()
  await note.getByRole('button', { name: 'Throw it away' }).click()
  await app.getByRole('dialog').getByRole('button', { name: 'Throw it away' }).click()
  await expect(app.getByRole('heading', { name: 'Nothing on the shelf yet' })).toBeVisible()
  expect((await server.json<{ entries: unknown[] }>('/api/builds')).entries).toEqual([])
})

test('every station says what it is for, and what is still missing there', async ({ app, server }) => {
  await server.send('POST', '/api/builds', { from: 'empty', name: 'First' })
  const [entry] = (await server.json<{ entries: { id: string }[] }>('/api/builds')).entries
  const says = async (page: string) => {
    await app.goto(`${server.address}/builds/${entry!.id}/${page}`)
    return app.locator('.station-says')
  }
  await expect(await says('parts')).toHaveText(
    /^One line for everything .* Still missing: frame, motor, propeller, board, receiver, pack\.\s*$/,
  )
  await expect(await says('aim')).toContainText('Still missing: a limit to hold')
  await expect(await says('packs')).toContainText('Still missing: a pack.')
  await server.bringIn('marzipan')
  await app.goto(`${server.address}/builds/marzipan/parts`)
  await expect(app.locator('.station-says')).toHaveText(/known\.\s*$/)
  await app.goto(`${server.address}/builds/marzipan/weigh`)
  await expect(app.locator('.station-says')).toContainText('Still missing: 4 lines on the scale.')
})

test('the order of choosing says what is left for each step and what the parts so far ask, and leads to the next', async ({
  app,
  server,
}) => {
  await server.bringIn('nougat')
  await app.goto(`${server.address}/builds/nougat/choosing?line=motors`)
  const order = app.getByRole('region', { name: 'The order of choosing' })
  await expect(order.getByRole('listitem')).toHaveText([
    /Frame\s*chosen\s*44\.10 g/,
    /Motors and props\s*chosen\s*44\.76 g/,
    /Board\s*chosen\s*8\.56 g/,
    /Video\s*chosen\s*20\.40 g/,
    /Radio\s*chosen\s*1\.72 g/,
    /Pack\s*chosen\s*79\.34 g/,
  ])
  await expect(order).toContainText('The limit leaves 38.3 g for motors and props, all else as it is.')
  await expect(order).toContainText('props of at most 92 mm · motor holes 12×12 M2 or 9×9 M2')

  await app.goto(`${server.address}/builds/nougat/parts?line=board`)
  await app.locator('[data-row=board] [data-col=slot]').click()
  await app.keyboard.press('Delete')
  await expect(app.locator('[data-row=board]')).toHaveClass(/resting/)
  await app.goto(`${server.address}/builds/nougat/choosing?line=frame`)
  await expect(order.getByRole('listitem').nth(2)).toHaveText(/Board\s*to choose\s*nothing yet/)
  await order.getByRole('button', { name: 'Next to choose: board' }).click()
  await expect(order).toContainText('Nothing for board flies in this loadout.')
  await expect(order).toContainText('holes 25.5×25.5 M2 or 20×20 M3 · 24 mm between the plates')
  await order.getByRole('button', { name: /^Pack/ }).click()
  await expect(order.getByRole('button', { name: /^Pack/ })).toHaveAttribute('aria-current', 'step')
  await expect(app).toHaveURL(/line=n1/)
})
