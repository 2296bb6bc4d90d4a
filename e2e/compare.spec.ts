import { readFileSync } from 'node:fs'
import sharp from 'sharp'
import { choose } from './controls'
import { expect, test, written } from './server'

test('crafts ticked on the Shelf stand beside each other, line by line; what is kept as a file adds up', async ({
  app,
  server,
}) => {
  await server.bringIn('marzipan', 'nougat', 'praline')
  await app.goto(server.address)
  for (const name of ['Marzipan', 'Nougat']) {
    const tick = app.getByRole('button', { name: `Compare ${name}` })
    await tick.focus()
    await app.keyboard.press('Enter')
    await expect(tick).toHaveAttribute('aria-pressed', 'true')
  }
  await app.getByRole('button', { name: 'Compare 2 crafts' }).click()
  await expect(app.getByRole('heading', { name: 'Compare' })).toBeVisible()
  const lines = app.getByRole('region', { name: 'Lines beside each other' })
  await expect(lines.getByRole('row', { name: /Heat-sensing camera/ })).toContainText('24.31')
  // A camera is one row, whatever it is called.
  await expect(
    lines
      .getByRole('row', { name: /^Camera/ })
      .or(lines.getByRole('button', { name: /more/ }))
      .first(),
  ).toBeVisible()
  await expect(app.getByTestId('explained')).toContainText(/Nougat is 6\.\d ± \d\.\d g heavier than Marzipan/)
  await choose(app.getByRole('combobox', { name: 'differences from' }), 'Nougat')
  await expect(app.getByTestId('explained')).toContainText('Marzipan is 6.')
  await expect(app.getByTestId('explained')).toContainText('lighter than Nougat')

  const coming = app.waitForEvent('download')
  await app.getByRole('button', { name: 'CSV' }).click()
  const rows = readFileSync((await (await coming).path())!, 'utf8')
    .trim()
    .split('\r\n')
  const last = rows.slice(1).map(row => row.split(',').at(-2)!)
  const sum = last.reduce((total, cell) => total + Number(cell), 0)
  expect(sum).toBeLessThan(-6)
  expect(sum).toBeGreaterThan(-7)
  await choose(app.getByRole('combobox', { name: 'Add a craft' }), /Praline/)
  await expect(app).toHaveURL(/of=praline/)
  await expect(app.getByTestId('explained')).toHaveCount(2)
  await app.getByRole('button', { name: 'Take Praline out of the comparison' }).click()
  await expect(app.getByTestId('explained')).toHaveCount(1)
})

test('a day of a build, another loadout and a craft known only as a whole stand beside it; what is not there is said', async ({
  app,
  server,
}) => {
  await server.bringIn('nougat')
  await server.send('POST', '/api/builds', {
    from: 'reference',
    name: 'Humbug',
    reference: { massG: 231.4, spreadG: 0.6, thrustG: 900, priceCents: 25900, minutes: 6.6 },
  })
  const { entries } = await server.json<{ entries: { id: string; name: string }[] }>('/api/builds')
  const { id } = entries.find(({ name }) => name === 'Humbug')!
  await app.goto(`${server.address}/compare?of=nougat@3&of=nougat&of=nougat~as-built.n1&of=${id}`)
  const whole = app.getByRole('region', { name: 'As a whole' })
  await expect(whole.getByRole('row', { name: /^Minutes/ })).toContainText('6.6')
  await expect(whole.getByRole('row', { name: /^All-up/ })).toContainText('231.4')
  await expect(app.getByTestId('explained')).toHaveCount(2)
  await expect(app.getByRole('combobox', { name: 'Add a craft' })).toHaveCount(0)
  await app.goto(`${server.address}/compare?of=nougat&of=nobody`)
  await expect(app.getByRole('alert')).toContainText('no such build')
  await app.goto(`${server.address}/compare`)
  await expect(app.getByText('Choose two to four crafts')).toBeVisible()
})

test('a reference craft has notes and a picture, says how much of it is accounted for, and is taken apart', async ({
  app,
  server,
}) => {
  const reference = { massG: 231.4, spreadG: 0.6, thrustG: null, priceCents: null, minutes: null }
  await server.send('POST', '/api/builds', { from: 'reference', name: 'Humbug', reference })
  await app.goto(server.address)
  await app.getByRole('link', { name: 'Humbug' }).click()
  const head = app.getByRole('region', { name: 'Reference craft' })
  await head.getByLabel('Notes').fill('bought in spring')
  await written(app, () => head.getByLabel('Notes').press('Tab'))
  const buffer = await sharp({ create: { width: 60, height: 40, channels: 3, background: '#48a' } })
    .png()
    .toBuffer()
  await written(app, () =>
    head.locator('input[type=file]').setInputFiles({ name: 'humbug.png', mimeType: 'image/png', buffer }),
  )
  await expect(head.getByRole('img', { name: 'Picture of Humbug' })).toBeVisible()
  await expect(head).toContainText('nothing said of its parts')
  await app.goto(server.address)
  await expect(app.getByRole('article').getByRole('img', { name: 'Picture of Humbug' })).toBeVisible()
  await expect(app.getByRole('article')).toContainText('bought in spring')
  await app.getByRole('link', { name: 'Humbug' }).click()
  await app.getByRole('button', { name: 'Add the first line' }).click()
  const add = app.getByRole('form', { name: 'New line' })
  await choose(add.getByRole('combobox', { name: 'Slot' }), 'Motor')
  await add.getByLabel('What').fill('Its motors')
  await add.getByLabel('Many').fill('4')
  await add.getByLabel('Each, g').fill('10.2')
  await written(app, () => add.getByRole('button', { name: 'Add', exact: true }).click())
  await expect(head).toContainText('40.8 of 231.4 g accounted for, 18 %')
  await head.getByRole('button', { name: /Strip it/ }).click()
  await expect(app.getByRole('region', { name: 'All-up weight' })).toContainText('231.4')
  await app.getByRole('row', { name: /The rest of Humbug/ }).click()
  await app.getByRole('button', { name: 'Name a part of it' }).click()
  const dialog = app.getByRole('dialog', { name: 'Name a part of it' })
  await dialog.getByLabel('Name').fill('Its frame')
  await dialog.getByLabel('Each, g').fill('200')
  await dialog.getByRole('button', { name: 'Take it out' }).click()
  await expect(dialog.getByRole('alert')).toContainText('Only 190.60 g of it are left.')
  await dialog.getByLabel('Each, g').fill('50.6')
  await written(app, () => dialog.getByRole('button', { name: 'Take it out' }).click())
  await expect(dialog).toBeHidden()
  await expect(app.getByRole('row', { name: /The rest of Humbug/ })).toContainText('140')
  await expect(app.getByRole('region', { name: 'All-up weight' })).toContainText('231.4')
})
