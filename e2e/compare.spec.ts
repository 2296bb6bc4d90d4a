import { readFileSync } from 'node:fs'
import { choose } from './controls'
import { expect, test } from './server'

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
