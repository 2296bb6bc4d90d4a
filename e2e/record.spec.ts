import { choose } from './controls'
import { expect, test } from './server'

interface Moments {
  moments: { seq: number; at: string; massG: number }[]
}
const grams = (text: string) => Number(/\d+(?:\.\d+)?/.exec(text)![0])

test('any day: the slider, the strip, the figures and the table tell what it was then, and nothing is changed', async ({
  app,
  server,
}) => {
  await server.bringIn('nougat')
  const { revision } = await server.json<{ revision: number }>('/api/builds/nougat')
  const { moments } = await server.json<Moments>('/api/builds/nougat/weights')
  await app.goto(`${server.address}/builds/nougat/record`)
  await app.getByRole('tab', { name: 'Any day' }).click()
  const slider = app.getByRole('slider', { name: 'The day that is looked at' })
  await expect(slider).toBeVisible()
  await slider.focus()
  await app.keyboard.press('Home')
  const first = moments.find(({ massG }) => massG > 0)!
  await expect(app.getByTestId('auw-then')).toContainText(String(Math.round(first.massG)).slice(0, 3))
  // By keys through every entry.
  const steps = moments.filter(({ massG }) => massG > 0)
  expect(new Set(steps.slice(1, 12).map(({ massG }) => massG.toFixed(1))).size).toBeGreaterThan(4)
  for (const { massG } of steps.slice(1, 12)) {
    await app.keyboard.press('ArrowRight')
    await expect
      .poll(async () => Math.abs(grams(await app.getByTestId('auw-then').innerText()) - massG))
      .toBeLessThan(0.55)
    await expect(slider).toHaveAttribute('aria-valuetext', /\d{4}/)
  }
  await expect(app.getByText('As it was on')).toBeVisible()
  await app.keyboard.press('Home')
  const changed = app.getByRole('table', { name: /to today/ })
  await expect(changed.getByRole('row', { name: /Heat-sensing camera/ })).toContainText('took the case off')
  await app.getByText(/^The whole ledger and every way to fly it/).click()
  const whole = app.getByRole('table', { name: 'The ledger that day' })
  await expect(whole.getByRole('row', { name: /^All-up/ })).toBeVisible()
  const ways = app.getByRole('table', { name: 'Every way to fly it that day' })
  await expect(ways.getByRole('row').nth(1)).toContainText(/\d g/)
  const sheet = await app.getByRole('link', { name: 'Markdown' }).getAttribute('href')
  expect(await (await fetch(server.address + sheet)).text()).toMatch(/^# Nougat, as of 20\d\d-\d\d-\d\d$/m)
  expect((await fetch(`${server.address}/api/builds/nougat/export/sheet.md?at=x`)).status).toBe(404)
  await expect(app).toHaveURL(/at=\d+/)
  await app.reload()
  await expect(app.getByText('As it was on')).toBeVisible()
  await app.getByRole('button', { name: 'Back to today' }).click()
  await expect(app.getByText('As it was on')).toBeHidden()
  expect((await server.json<{ revision: number }>('/api/builds/nougat')).revision).toBe(revision)
})

test('two days are held against each other, a day is marked, gone back to as one step, and a build begun from it', async ({
  app,
  server,
}) => {
  await server.bringIn('nougat')
  const { moments } = await server.json<Moments>('/api/builds/nougat/weights')
  const [day, later] = [moments.at(7)!.seq, moments.at(12)!.seq]
  const lines = async () =>
    (await server.json<{ build: { lines: { id: string; mass: { valueG: number } }[] } }>('/api/builds/nougat')).build
      .lines
  const now = await lines()
  await app.goto(`${server.address}/builds/nougat/record?view=day&at=${day}`)
  const inspector = app.getByRole('complementary', { name: 'The day that is looked at' })
  await inspector.getByRole('button', { name: 'Hold this day' }).click()
  await app.goto(`${server.address}/builds/nougat/record`)
  await app.getByLabel('Search the journal').fill('sea wall')
  await expect(app.getByRole('row', { name: /counting nests/ })).toHaveCount(1)
  await expect(app.getByRole('row', { name: /Silicone pad/ })).toHaveCount(0)
  await app.getByLabel('Search the journal').fill('')
  await choose(app.getByRole('combobox', { name: 'What it is about' }), 'Shaving')
  await expect(app.getByRole('row', { name: /power lead cut/ })).toBeVisible()
  await expect(app.getByRole('row', { name: /Heat-sensing camera, stripped: grams/ })).toHaveCount(0)
  await choose(app.getByRole('combobox', { name: 'What it is about' }), 'Everything')
  await app.getByRole('button', { name: /^Look at the craft after: Heat-sensing camera/ }).click()
  await expect(inspector.getByText('took', { exact: false }).or(inspector.getByText('That day'))).toBeVisible()

  await app.goto(`${server.address}/builds/nougat/record?view=day&at=${day}`)
  await inspector.getByLabel('Your mark on this moment').fill('before the pan')
  await inspector.getByRole('button', { name: 'Keep' }).click()
  await expect
    .poll(async () =>
      (await server.json<{ entries: { mark: string }[] }>('/api/builds/nougat/journal/marks')).entries.map(
        ({ mark }) => mark,
      ),
    )
    .toContain('before the pan')
  await inspector.getByRole('button', { name: 'Go back to this day' }).click()
  const then = (
    await server.json<{ build: { lines: { id: string; mass: { valueG: number } }[] } }>(
      `/api/builds/nougat/days/${day}`,
    )
  ).build.lines
  await expect.poll(lines).toEqual(then)
  await app.getByRole('button', { name: 'Take back' }).click()
  await expect.poll(lines).toEqual(now)

  await app.goto(`${server.address}/builds/nougat/record?view=day&at=${later}`)
  await inspector.getByLabel('A new build from this day').fill('Nougat of old')
  await inspector.getByRole('button', { name: 'Begin' }).click()
  await expect(app).toHaveURL(/\/builds\/(?!nougat)[^/]+\/parts/)
  await expect(app.getByText('Nougat of old').first()).toBeVisible()
})

test('an entry that is not there is said, and changes nothing', async ({ app, server }) => {
  await server.bringIn('nougat')
  await app.goto(`${server.address}/builds/nougat/record?view=day&at=9999`)
  await expect(app.getByRole('alert')).toContainText('no such entry')
})
