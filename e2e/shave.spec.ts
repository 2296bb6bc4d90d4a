import type { Page } from '@playwright/test'
import type { BuildReply } from '../shared/schemas/api'
import { Bench } from './scale-fixture'
import { expect, test } from './server'
import { choose } from './controls'

const sentence = (app: Page) => app.getByTestId('plan-sentence')
const status = (app: Page) => app.locator('.stations a[href*="/shave"] small')
const idle = (app: Page) => expect(app.getByRole('button', { name: 'Stop' })).toHaveCount(0)

test('Nougat starts over; its list leads to four steps; doing them by keyboard ends Clear on the strip, the Shelf and in Packs', async ({
  app,
  server,
}) => {
  await server.bringIn('nougat')
  await app.goto(`${server.address}/builds/nougat/parts`)
  await expect(app.getByTestId('verdict')).toHaveText('Over')
  await app.keyboard.press('5')
  await expect(app.getByRole('heading', { name: 'Shave', exact: true })).toBeVisible()
  await expect(sentence(app)).toContainText('The plan: four steps, 2.37 € and 72 minutes.')
  await expect(app.locator('[data-step="4"]')).toContainText('the last one needed')
  await expect(app.locator('[data-step="4"]')).toContainText('over 99.9 %')
  await expect(status(app)).toHaveText('9 on the list')
  for (let left = 4; left > 0; left--) {
    await expect(app.locator('.step')).toHaveCount(left)
    await idle(app)
    await app.keyboard.press('d')
    await expect(app.getByLabel('What came off by the scale, g')).toBeFocused()
    if (left === 4) await app.keyboard.type('2.14')
    await app.keyboard.press('Enter')
    await expect(status(app)).toHaveText(`${5 + left - 1} on the list · ${5 - left} done`)
  }
  await expect(sentence(app)).toContainText('Nothing has to come off.')
  await expect(app.getByTestId('verdict')).toHaveText('Clear')
  await expect(app.locator('tr', { hasText: 'fabric strap 12 mm' })).toContainText(
    'forecast −2.10 ± 0.20, weighed −2.14',
  )
  await expect(app.locator('tr', { hasText: 'no pad under the pack' })).toContainText('not weighed yet')
  await expect(app.getByText('Saved', { exact: true })).toBeVisible()
  const auw = await app.getByTestId('auw').textContent()
  await app.goto(`${server.address}/builds/nougat/packs`)
  await expect(app.locator('[data-key="nests.n1"]')).toContainText('Clear')
  await app.goto(server.address)
  await expect(app.getByRole('article')).toContainText('Clear')
  await expect(app.getByRole('article')).toContainText(auw!.split(' ')[0]!)
  await app.goto(`${server.address}/builds/nougat/shave`)
  await expect(app.getByTestId('verdict')).toHaveText('Clear')
  for (let n = 0; n < 4; n++) {
    await app.keyboard.press('z')
    await expect(status(app)).toHaveText(n === 3 ? '9 on the list' : `${6 + n} on the list · ${3 - n} done`)
  }
  await expect(app.getByTestId('verdict')).toHaveText('Over')
})

test('a shaving needs only words and grams; forced in, left out and refused, the plan follows; the reason is kept', async ({
  app,
  server,
}) => {
  await server.bringIn('nougat')
  await app.goto(`${server.address}/builds/nougat/shave`)
  await expect(sentence(app)).toContainText('four steps')
  await app.getByLabel('What is done').fill('no canopy screws')
  await app.getByLabel('Grams off', { exact: true }).fill('lots')
  await app.keyboard.press('Enter')
  await expect(app.getByRole('alert')).toHaveText(
    'Grams off: “lots” is not a number. Type digits, with a point or a comma.',
  )
  await app.getByLabel('Grams off', { exact: true }).fill('1,5')
  await app.keyboard.press('Enter')
  const inspector = app.getByRole('complementary', { name: 'Inspector' })
  await expect(inspector).toContainText('until then no plan can use it')
  await choose(inspector.getByLabel('Line it touches'), 'M2 × 10 socket cap, steel')
  await expect(sentence(app)).toContainText('The plan:')
  await inspector.getByRole('button', { name: 'Back to the plan' }).click()
  await app
    .locator('tr', { hasText: 'titanium screws, all twenty' })
    .getByRole('button', { name: 'Force it in' })
    .click()
  await expect(app.locator('.step', { hasText: 'titanium screws' })).toBeVisible()
  await app.keyboard.press('z')
  await expect(app.locator('.step', { hasText: 'titanium screws' })).toHaveCount(0)
  await app.locator('tr', { hasText: 'drill the bottom plate' }).getByRole('button', { name: 'Refuse' }).click()
  await app.getByLabel('Why not').fill('cracked one that way')
  await app.keyboard.press('Enter')
  await expect(app.locator('tr', { hasText: 'drill the bottom plate' })).toContainText('cracked one that way')
  await app.getByRole('button', { name: 'drill the bottom plate' }).click()
  await expect(inspector).toContainText('Thinner carbon can fail in flight: never fly over people.')
})

test(
  'what cannot be reached is said in grams, with the nearest; what to spare and caps change the ' +
    'plan; the frontier is drawn and chosen from',
  async ({ app, server }) => {
    await server.bringIn('nougat')
    await app.goto(`${server.address}/builds/nougat/shave`)
    await expect(sentence(app)).toContainText('four steps, 2.37 €')
    await app.getByLabel('the number of changes').check()
    await expect(sentence(app)).toContainText('three steps')
    await app.getByLabel('Most money').fill('-3')
    await app.keyboard.press('Enter')
    await expect(app.getByRole('alert')).toHaveText('A price cannot be negative.')
    await app.getByLabel('Most money').fill('0.10')
    await app.keyboard.press('Enter')
    await expect(sentence(app)).toContainText('Everything on the list still misses by')
    await app.getByLabel('Most money').fill('')
    await app.keyboard.press('Enter')
    await app.getByLabel('Grams to take off').fill('500')
    await app.keyboard.press('Enter')
    await expect(sentence(app)).toContainText(/still misses by 4\d\d\.\d\d g/)
    await app.getByLabel('Grams to take off').fill('3')
    await app.keyboard.press('Enter')
    await expect(sentence(app)).toContainText('The plan: one step')
    await app.getByLabel('draw the cheapest way to every weight').check()
    const points = app.locator('.inspector svg circle')
    await expect(points).toHaveCount(24)
    await points.nth(12).focus()
    await app.keyboard.press('Enter')
    await expect(sentence(app)).toContainText('another point:')
    await app.getByRole('button', { name: 'Back to the plan' }).click()
    await expect(sentence(app)).toContainText('The plan: one step')
  },
)

test('the ledger suggests what is lighter, once; an empty list says what it is for', async ({ app, server }) => {
  await server.bringIn('marzipan')
  await app.goto(`${server.address}/builds/marzipan/shave`)
  await expect(app.getByText('its grams can be worked out, the rest can wait')).toBeVisible()
  await app.getByRole('button', { name: 'Suggest from the ledger' }).click()
  const suggestions = app.getByRole('region', { name: 'Suggestions' })
  const open = suggestions.locator('p', { hasText: 'Oddfellow digital, open board instead of' })
  await expect(open).toContainText('g with it')
  await open.getByRole('button', { name: 'Put on the list' }).click()
  await expect(open).toHaveCount(0)
  await expect(sentence(app)).toContainText('The plan: one step')
  await app.keyboard.press('d')
  await app.keyboard.press('Enter')
  await expect(app.getByTestId('verdict')).toHaveText('Clear')
  await expect(app.locator('tr', { hasText: 'open board' })).toContainText('not weighed yet')
})

test('what is worth putting on is chosen by what it brings, within what stays clear, and becomes a line', async ({
  app,
  server,
}) => {
  await server.bringIn('praline')
  await app.goto(`${server.address}/builds/praline/shave`)
  for (const [what, grams] of [
    ['louder sounder', '0.7'],
    ['crash feet', '9'],
    ['tail light', '0.4'],
  ] as const) {
    await app.getByLabel('What is done').fill(what)
    await choose(app.getByLabel('Kind', { exact: true }).first(), 'put on')
    await app.getByLabel('Grams off', { exact: true }).fill(grams)
    await app.keyboard.press('Enter')
    await app.getByRole('button', { name: 'Back to the plan' }).click()
  }
  await expect(status(app)).toHaveText('3 on the list')
  await expect(sentence(app)).toContainText('Nothing has to come off.')
  await app.getByLabel('put on what is worth it').check()
  await expect(sentence(app)).toContainText('The plan: two steps')
  await expect(app.locator('.step', { hasText: 'louder sounder' })).toContainText('brings 3 of 5')
  await expect(app.locator('.step', { hasText: 'crash feet' })).toHaveCount(0)
  await idle(app)
  await app.locator('.step', { hasText: 'tail light' }).getByRole('button', { name: 'Do it' }).click()
  await app.keyboard.type('0.41')
  await app.keyboard.press('Enter')
  await expect(status(app)).toHaveText('2 on the list · 1 done')
  await expect(app.getByTestId('verdict')).toHaveText('Clear')
  await app.goto(`${server.address}/builds/praline/parts`)
  await expect(app.getByRole('grid')).toContainText('tail light')
})

test('a solver that cannot be loaded ends in a sentence, the list stays, and asking again works once it can', async ({
  browser,
  server,
}) => {
  await server.bringIn('nougat')
  const page = await browser.newPage()
  await page.route('**/*.wasm*', route => route.abort())
  await page.goto(`${server.address}/builds/nougat/shave`)
  await expect(sentence(page)).toContainText('The plan could not be worked out:')
  await expect(page.getByRole('button', { name: 'fabric strap 12 mm' })).toBeVisible()
  await idle(page)
  await page.unroute('**/*.wasm*')
  await page.getByRole('button', { name: 'Go on longer' }).click()
  await expect(sentence(page)).toContainText('The plan: four steps')
  await page.close()
})

test('what a step forced in or left out would cost is worked out and said; deciding keeps a plan through changes', async ({
  app,
  server,
}) => {
  await server.bringIn('nougat')
  await app.goto(`${server.address}/builds/nougat/shave`)
  await expect(sentence(app)).toContainText('four steps, 2.37 €')
  await idle(app)
  const inspector = app.getByRole('complementary', { name: 'Inspector' })
  await app.getByRole('button', { name: 'titanium screws, all twenty' }).click()
  await expect(inspector.getByRole('heading', { name: 'Why not this one?' })).toBeVisible()
  await inspector.getByRole('button', { name: 'Work it out' }).click()
  await expect(inspector.getByTestId('turned')).toContainText(/titanium screws.* \+1\d\.\d\d €,.*against the plan/)
  await app.getByRole('button', { name: 'fabric strap 12 mm' }).click()
  await expect(inspector.getByRole('heading', { name: 'Without it' })).toBeVisible()
  await inspector.getByRole('button', { name: 'Work it out' }).click()
  await expect(inspector.getByTestId('turned')).not.toContainText('fabric strap')
  await inspector.getByRole('button', { name: 'Back to the plan' }).click()
  await app.getByRole('button', { name: 'Decide on it' }).click()
  await expect(app.locator('.step', { hasText: '· planned' })).toHaveCount(4)
  await expect(status(app)).toHaveText('9 on the list · 4 planned')
  await app.getByLabel('the number of changes').check()
  await expect(app.locator('.step', { hasText: '· planned' })).toHaveCount(4)
  await app.getByRole('heading', { name: 'Shave', exact: true }).click()
  await app.keyboard.press('z')
  await expect(app.getByLabel('money', { exact: true })).toBeChecked()
  await app.keyboard.press('z')
  await expect(status(app)).toHaveText('9 on the list')
})

test('the own dry goal is a goal of its own', async ({ app, server }) => {
  await server.bringIn('nougat')
  await app.goto(`${server.address}/builds/nougat/aim`)
  const dryGoal = app.getByLabel('Own goal, dry mass, g')
  const aimAt = async (grams: number) => {
    await dryGoal.fill(String(grams))
    await dryGoal.press('Enter')
    await expect.poll(async () => (await server.json<BuildReply>('/api/builds/nougat')).build.aim.goalDryG).toBe(grams)
  }
  await aimAt(100)
  const said = await app.getByText(/^Dry [\d.]+ of 100.0 g/).textContent()
  await app.goto(`${server.address}/builds/nougat/shave`)
  await app.getByLabel('the dry mass aimed at, 100.0 g').check()
  await expect(sentence(app)).toContainText('still misses by')
  await app.goto(`${server.address}/builds/nougat/aim`)
  await aimAt(Number((Number(/Dry ([\d.]+)/.exec(said!)![1]) - 2).toFixed(1)))
  await app.goto(`${server.address}/builds/nougat/shave`)
  await app.getByLabel(/the dry mass aimed at/).check()
  await expect(sentence(app)).toContainText('The plan: two steps, 0.09 € and 25 minutes.')
})

test('a step is weighed straight from the bench scale: what came off, or before and after', async ({ app, server }) => {
  const bench = await Bench.start()
  await server.bringIn('nougat')
  await server.send('PUT', '/api/settings', { ...(await server.json('/api/settings')), benchScale: bench.address })
  await app.goto(`${server.address}/builds/nougat/shave`)
  await expect(sentence(app)).toContainText('four steps')
  await idle(app)
  await app.locator('.step', { hasText: 'fabric strap' }).getByRole('button', { name: 'Do it' }).click()
  await bench.put(6.31)
  await expect(app.getByText(/On the pan 6.3\d g/)).toBeVisible()
  await app.getByRole('button', { name: 'That is it before' }).click()
  await bench.put(4.22)
  await expect(app.getByText(/On the pan 4.2\d g/)).toBeVisible()
  await app.getByRole('button', { name: /6.3\d g before: that is it after/ }).click()
  // 2.09 g times a gain of 1.0022, two placings of 0.007 g each: within three and a half of their standard deviations.
  await expect(app.getByLabel('What came off by the scale, g')).toHaveValue(/^2\.(0[6-9]|1[0-3])$/)
  await bench.put(2.05)
  await expect(app.getByText(/On the pan 2.0\d g/)).toBeVisible()
  await app.getByRole('button', { name: 'That came off' }).click()
  await app.getByRole('button', { name: 'Done', exact: true }).click()
  await expect(app.locator('tr', { hasText: 'fabric strap' })).toContainText('forecast −2.10 ± 0.20, weighed −2.0')
  await bench.stop()
})

test('grams of a shaving are worked out by a calculator; plugs to solder and heavier candidates are suggested', async ({
  app,
  server,
}) => {
  await server.bringIn('sherbet')
  await app.goto(`${server.address}/builds/sherbet/shave`)
  await app.getByRole('button', { name: 'Suggest from the ledger' }).click()
  const solder = app.getByRole('region', { name: 'Suggestions' }).locator('p', { hasText: 'solder the leads' })
  await expect(solder).toContainText('−1.00')
  await solder.getByRole('button', { name: 'Put on the list' }).click()
  await expect(app.getByRole('button', { name: /^solder the leads/ })).toBeVisible()
  await app.getByRole('button', { name: /^solder the leads/ }).click()
  const inspector = app.getByRole('complementary', { name: 'Inspector' })
  await inspector.getByRole('button', { name: 'Work the grams out …' }).click()
  const work = inspector.getByRole('region', { name: 'Work it out' })
  await expect(work.getByLabel('What')).toHaveAccessibleDescription('Trimming leads')
  await choose(work.getByLabel('What'), 'Drilling holes')
  await expect(work).toContainText('can fail in flight')
  await expect(work.getByTestId('worked')).toHaveCount(0)
  await choose(work.getByLabel('What'), 'Trimming leads')
  await expect(work.getByTestId('still')).toBeVisible()
  await expect(work.getByRole('button', { name: 'That much comes off' })).toHaveCount(0)
  await choose(work.getByLabel('Gauge, AWG'), '28')
  await work.getByLabel('Cut off each, mm').fill('20')
  await work.getByLabel('How many leads').fill('12')
  await work.getByRole('button', { name: 'That much comes off' }).click()
  await expect(inspector.getByLabel('Grams off')).not.toHaveValue('1')
  await inspector.getByRole('button', { name: 'Back to the plan' }).click()
  await app.getByText('Two schools: what each way comes to on this build').click()
  await expect(app.getByRole('table', { name: 'Motor leads' })).toContainText('soldered straight to the board')
})

test('a solver that falls silent is ended after its time, said, and asked again', async ({ browser, server }) => {
  await server.bringIn('nougat')
  const page = await browser.newPage()
  await page.clock.install()
  await page.goto(`${server.address}/builds/nougat/shave`)
  await expect(sentence(page)).toContainText('The plan: four steps')
  await idle(page)
  await page
    .workers()
    .at(-1)!
    .evaluate(() => {
      self.close()
    })
  await page.getByLabel('the number of changes').check()
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible()
  await page.clock.fastForward(30_000)
  await expect(sentence(page)).toContainText('The solver fell silent and was ended. The list is as it was; ask again.')
  await page.getByRole('button', { name: 'Go on longer' }).click()
  await expect(sentence(page)).toContainText('The plan: three steps')
  await page.close()
})

test('with no limit chosen Shave says so, and still finds so many grams', async ({ app, server }) => {
  await server.send('POST', '/api/builds', { from: 'class', name: 'Toffee', craftClass: '3-inch ultralight' })
  await app.goto(server.address)
  await app.getByRole('link', { name: 'Toffee' }).click()
  await expect(app.getByRole('heading', { name: 'Parts' })).toBeVisible()
  await app.keyboard.press('5')
  await app.getByRole('button', { name: 'Suggest from the ledger' }).click()
  await app
    .getByRole('region', { name: 'Suggestions' })
    .getByRole('button', { name: 'Put on the list' })
    .first()
    .click()
  await expect(sentence(app)).toContainText('No limit is chosen: choose one in Aim, or say how many grams.')
  await app.getByLabel('Grams to take off').fill('1')
  await app.keyboard.press('Enter')
  await expect(sentence(app)).toContainText('The plan: one step')
})
