import { demoBuilds, expect, test } from './server'
import { choose } from './controls'

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

test('a segment of the strip leads to its line, by pointer and by key', async ({ app, server }) => {
  await server.bringIn(...demoBuilds)
  await app.goto(`${server.address}/builds/marzipan/record`)
  await app.getByRole('button', { name: /^Oddfellow digital, cased/ }).click()
  await expect(app).toHaveURL(/parts\?line=vtx/)
  await expect(app.getByRole('complementary', { name: 'Inspector' })).toContainText('Share of the doubt')
  await app
    .getByRole('button', { name: /^Fennel & Rook/ })
    .first()
    .focus()
  await app.keyboard.press('ArrowRight')
  await app.keyboard.press('Enter')
  await expect(app).toHaveURL(/parts\?line=motors/)
})

test('grams nobody lists are worked out at the line, wrong measures are said, and advice changes nothing', async ({
  app,
  server,
}) => {
  await server.bringIn('marzipan')
  await app.goto(`${server.address}/builds/marzipan/parts?line=screws`)
  await app.getByRole('button', { name: 'Work its grams out' }).click()
  const work = app.getByRole('region', { name: 'Work it out' })
  await expect(work.getByTestId('worked')).toContainText('M2 × 8 button, alloy steel, × 16 in this line')
  await work.getByLabel('Length, mm').fill('-8')
  await expect(work.getByRole('alert')).toHaveText('Length must be above zero and at most 200 mm.')
  await choose(work.getByLabel('Head'), 'pan')
  await work.getByLabel('Length, mm').fill('8')
  await expect(work.getByRole('alert')).toContainText('no such screw in the list')
  await choose(work.getByLabel('Head'), 'socket cap')
  await choose(work.getByLabel('Material'), 'titanium alloy (Ti-6Al-4V)')
  await expect(work.getByTestId('worked')).toContainText('0.176 g')
  await choose(work.getByLabel('What'), 'Screw length for a joint')
  await expect(work.getByTestId('still')).toHaveText('Still to say: clamped thickness, thread to hold, free depth.')
  await expect(work.getByRole('button', { name: 'Use it for this line' })).toHaveCount(0)
  await choose(work.getByLabel('What'), 'Screw')
  await work.getByLabel('Length, mm').fill('8')
  await choose(work.getByLabel('Head'), 'socket cap')
  await choose(work.getByLabel('Material'), 'titanium alloy (Ti-6Al-4V)')
  await work.getByRole('button', { name: 'Use it for this line' }).click()
  const screws = app.locator('[data-row=screws]')
  await expect(screws.locator('[data-col=known]')).toContainText('worked out')
  await expect(screws.locator('[data-col=grams]')).toHaveText(/^2\.8/)
  await expect(app.getByText('Saved', { exact: true })).toBeVisible()
  await app.keyboard.press('Escape')
  await app.evaluate(() => (document.activeElement as HTMLElement).blur())
  await app.keyboard.press('z')
  await expect(screws.locator('[data-col=known]')).toContainText('weighed')
})

test('what is being typed stays when another window changes the same line', async ({ app, server }) => {
  await server.bringIn('marzipan')
  await app.goto(`${server.address}/builds/marzipan/parts`)
  await app.locator('[data-row=strap] [data-col=each]').click()
  await app.keyboard.type('3.')
  const { revision } = await server.json<{ revision: number }>('/api/builds/marzipan')
  await server.send(
    'POST',
    '/api/builds/marzipan/commands',
    { command: { type: 'lines.change', changes: [{ id: 'strap', fields: { priceEachCents: 123 } }] }, note: '' },
    { 'if-match': `"${revision}"` },
  )
  await expect(app.locator('[data-row=strap] [data-col=price]')).toHaveText('1.23')
  await app.keyboard.type('13')
  await app.keyboard.press('Enter')
  await expect(app.locator('[data-row=strap] [data-col=each]')).toHaveText('3.13')
})

test('single keys go on after a tick and a choice, which keep their own space bar and arrows', async ({
  app,
  server,
}) => {
  await server.bringIn('marzipan', 'nougat')
  await app.goto(`${server.address}/builds/marzipan/parts?line=strap`)
  const tick = app.getByLabel('Removable without tools')
  const was = await tick.isChecked()
  await tick.focus()
  await app.keyboard.press('Space')
  await expect(tick).toBeChecked({ checked: !was })
  await app.keyboard.press('z')
  await expect(tick).toBeChecked({ checked: was })
  await app.keyboard.press('n')
  await expect(app.getByRole('form', { name: 'New line' })).toBeVisible()
  await app.goto(`${server.address}/builds/nougat/shave`)
  await app.getByLabel('minutes', { exact: true }).check()
  await app.keyboard.press('ArrowUp')
  await expect(app.getByLabel('money', { exact: true })).toBeChecked()
  await app.keyboard.press('n')
  await expect(app.getByLabel('What is done')).toBeFocused()
})
