import { request as rawRequest } from 'node:http'
import type { Page } from '@playwright/test'
import { demoBuilds, expect, test, written } from './server'

/** Asks with headers a browser would not let a page choose. */
function askAs(address: string, path: string, headers: Record<string, string>): Promise<number> {
  return new Promise((done, fail) => {
    rawRequest(address + path, { headers }, answer => {
      answer.resume()
      done(answer.statusCode ?? 0)
    })
      .on('error', fail)
      .end()
  })
}

test('settings are kept: theme, ounces, currency, keys; a bad one is refused', async ({ app, server }) => {
  await server.bringIn('sherbet')
  await app.goto(`${server.address}/settings`)
  await app.getByLabel('night bench').check()
  await expect(app.locator('html')).toHaveClass(/dark/)
  await app.getByLabel('Show ounces beside grams').check()
  await app.getByLabel('Currency').fill('kr')
  await app.getByLabel('Currency').press('Enter')
  await app.getByLabel(/Confidence for new builds/).fill('20')
  await app.getByLabel(/Confidence for new builds/).press('Enter')
  await expect(app.getByRole('alert')).toHaveText('Confidence is at least 50 %.')
  await app.getByLabel('Single-key shortcuts').uncheck()
  await app.getByLabel('Hand controller, radio family').fill('2.4 GHz, old')
  await app.getByLabel('Hand controller, radio family').press('Enter')
  await app.getByLabel('Charger, most cells').fill('many')
  await app.getByLabel('Charger, most cells').press('Enter')
  await expect(app.getByRole('alert')).toHaveText('Cells are a whole number.')
  await expect
    .poll(() => server.json('/api/settings'))
    .toEqual({
      currency: 'kr',
      theme: 'dark',
      ounces: true,
      confidence: 0.95,
      singleKeys: false,
      benchScale: '',
      networkNames: '',
      hand: 'usual',
      gear: { radioFamily: '2.4 GHz, old', videoFamily: '', polarisation: '', chargerCells: null, chargerPlugs: '' },
    })
  await app.goto(`${server.address}/builds/sherbet/parts`)
  await expect(app.locator('html')).toHaveClass(/dark/)
  await expect(app.getByText('0.94 oz')).toBeVisible()
  await expect(app.getByTestId('price-total')).toContainText('kr')
  await app.keyboard.press('n')
  await expect(app.getByRole('form', { name: 'New line' })).toHaveCount(0)
  await app.goto(`${server.address}/builds/sherbet/fit`)
  await expect(app.locator('.finding', { hasText: 'Your hand controller does not reach this receiver' })).toContainText(
    'The receiver is 2.4 GHz, wide, your hand controller 2.4 GHz, old.',
  )
})

test('a build is put away and brought back, and a reference craft stands beside it', async ({ app, server }) => {
  await server.bringIn('sherbet', 'praline')
  await app.goto(server.address)
  await app.getByRole('button', { name: 'Put away Praline' }).press('Enter')
  await expect(app.getByRole('article')).toHaveCount(1)
  await app.getByRole('button', { name: 'Show what was put away (1)' }).click()
  await app.getByRole('button', { name: 'Bring back Praline' }).press('Enter')
  await expect(app.getByRole('article')).toHaveCount(2)

  await app.getByRole('button', { name: /Start a build/ }).click()
  const dialog = app.getByRole('dialog', { name: 'Start a build' })
  await dialog.getByLabel('Name').fill('The old one')
  await dialog.getByLabel(/A reference craft/).check()
  await dialog.getByLabel('Mass, g').fill('heavy')
  await dialog.getByRole('button', { name: 'Start it' }).click()
  await expect(dialog.getByRole('alert')).toContainText('“heavy” is not a number')
  await dialog.getByLabel('Mass, g').fill('244,5')
  await dialog.getByLabel('Thrust, g').fill('980')
  await dialog.getByRole('button', { name: 'Start it' }).click()
  await expect(app.getByLabel('Reference craft')).toContainText('244.50 g')
  await expect(app.getByLabel('Reference craft')).toContainText('4.0 : 1')
})

test('the loadout chooser: another way to fly, the default, and one never flown', async ({ app, server }) => {
  await server.bringIn('marzipan')
  await app.goto(`${server.address}/builds/marzipan/parts`)
  await app.getByRole('button', { name: /day, navigation · P7/ }).click()
  await app.getByLabel('ridge, lamp and navigation · P7', { exact: true }).check()
  await expect(app.getByTestId('verdict')).toHaveText('Over')
  await expect(app).toHaveURL(/with=ridge\.p7/)
  await app.reload()
  await expect(app.getByTestId('verdict')).toHaveText('Over')
  await app.getByRole('button', { name: /ridge, lamp and navigation · P7/ }).click()
  await app.getByLabel('day, navigation · P4', { exact: true }).check()
  await written(app, () => app.getByRole('button', { name: 'Make it the way I fly' }).click())
  await expect(app.getByText('Saved', { exact: true })).toBeVisible()
  await app.goto(server.address)
  await expect(app.getByRole('article')).toContainText('day, navigation · P4')
  await expect(app.getByRole('article')).toContainText('Clear')
  await app.goto(`${server.address}/builds/marzipan/aim`)
  await app.getByLabel('European Union').check()
  await app.getByLabel(/European Union, open category/).check()
  const heaviest = app.locator('.path').filter({ hasText: 'European Union' })
  await expect(heaviest).toContainText('Over')
  await app.getByRole('button', { name: /day, navigation · P4/ }).click()
  await app.getByLabel('ridge, lamp and navigation · P7 is never flown').check()
  await app.keyboard.press('Escape')
  await expect(heaviest).not.toContainText('Over')
})

test('Aim: answers lead to cards, goals are read, what cannot be read changes nothing, and the path prints', async ({
  app,
  server,
}) => {
  await server.bringIn('marzipan')
  await app.goto(`${server.address}/builds/marzipan/aim`)
  await app.getByLabel('anything else: paid').check()
  await expect(app.getByLabel(/United States, any other purpose/)).toBeVisible()
  // The card of another purpose does not count, ticked or not; what is asked whatever it weighs stands here and in the head.
  await expect(app.getByText('does not follow from your answers: it does not count')).toBeVisible()
  await expect(app.getByTestId('verdict')).toHaveCount(0)
  await expect(app.getByTestId('whatever')).toContainText('asked whatever it weighs')
  await expect(app.getByRole('region', { name: 'What applies' })).toContainText(
    'register the aircraft whatever it weighs',
  )
  await expect(app.getByRole('region', { name: 'What applies' })).not.toContainText('no registration')
  await app.getByLabel('recreation', { exact: true }).check()
  await app.getByLabel('Reserve to keep free, g').fill('-1')
  await app.getByLabel('Reserve to keep free, g').press('Tab')
  await expect(app.getByRole('alert')).toHaveText('A mass cannot be negative.')
  await app.getByLabel('Reserve to keep free, g').fill('2,5')
  await app.getByLabel('Reserve to keep free, g').press('Tab')
  await expect(app.getByRole('alert')).toBeHidden()
  await app.getByLabel('Own goal, dry mass, g').fill('150')
  await app.getByLabel('Own goal, dry mass, g').press('Tab')
  await expect(app.getByText('Dry 148.6 of 150.0 g: met.')).toBeVisible()
  await app.getByLabel('Confidence for a verdict, %').fill('75')
  await app.getByLabel('Confidence for a verdict, %').press('Tab')
  await expect(app.getByTestId('verdict')).toHaveText('Clear')
  // The word is judged by the limit; what of the reserve is taken is said beside, here and on the shelf.
  await expect(app.getByTestId('reserve')).toHaveText('Clear, 2.0 g into your reserve.')
  await app.emulateMedia({ media: 'print' })
  await expect(app.getByRole('navigation', { name: 'Stations' })).toBeHidden()
  await expect(app.getByText('Your answers → what applies')).toBeVisible()
  await expect(app.getByText('not legal advice')).toBeVisible()
  await app.emulateMedia({ media: 'screen' })
  await app.getByRole('link', { name: 'Shelf', exact: true }).click()
  await expect(app.getByRole('article')).toContainText('2.0 g into your reserve')
  await expect(app.getByText('one clear, but into the reserve')).toBeVisible()
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

test('only this machine’s own pages are answered, and nothing but the application’s own files may run', async ({
  server,
}) => {
  expect(await askAs(server.address, '/api/builds', {})).toBe(200)
  expect(await askAs(server.address, '/api/builds', { host: 'somewhere.example' })).toBe(403)
  expect(await askAs(server.address, '/', { host: 'somewhere.example:80' })).toBe(403)
  const answer = await fetch(server.address)
  const policy = answer.headers.get('content-security-policy') ?? ''
  expect(policy).toContain(`default-src 'self'`)
  expect(policy).not.toMatch(/script-src[^;]*'unsafe-/)
  const foreign = await fetch(`${server.address}/api/builds`, {
    method: 'POST',
    headers: { origin: 'http://elsewhere.example' },
    body: '{"from":"empty","name":"x"}',
  })
  expect(foreign.status).toBe(403)
  expect((await server.json<{ entries: unknown[] }>('/api/builds')).entries).toEqual([])
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
  await work.getByLabel('Head').selectOption('pan')
  await work.getByLabel('Length, mm').fill('8')
  await expect(work.getByRole('alert')).toContainText('no such screw in the list')
  await work.getByLabel('Head').selectOption('socket cap')
  await work.getByLabel('Material').selectOption('titanium alloy (Ti-6Al-4V)')
  await expect(work.getByTestId('worked')).toContainText('0.176 g')
  await work.getByLabel('What').selectOption('Screw length for a joint')
  await expect(work.getByTestId('still')).toHaveText('Still to say: clamped thickness, thread to hold, free depth.')
  await expect(work.getByRole('button', { name: 'Use it for this line' })).toHaveCount(0)
  await work.getByLabel('What').selectOption('Screw')
  await work.getByLabel('Length, mm').fill('8')
  await work.getByLabel('Head').selectOption('socket cap')
  await work.getByLabel('Material').selectOption('titanium alloy (Ti-6Al-4V)')
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

/** Types masses into the strap's cell, each over the one before. */
async function typeOneAfterAnother(app: Page, masses: readonly string[]) {
  await app.locator('[data-row=strap] [data-col=each]').click()
  for (const grams of masses) {
    await app.keyboard.type(grams)
    await app.keyboard.press('Enter')
    await app.keyboard.press('ArrowUp')
  }
}

test('edits that waited for an answer go in one request, each with its own journal entry', async ({ app, server }) => {
  await server.bringIn('marzipan')
  const asked: string[] = []
  let release = () => {}
  const held = new Promise<void>(done => {
    release = done
  })
  await app.route('**/api/builds/marzipan/commands**', async route => {
    asked.push(new URL(route.request().url()).pathname)
    if (asked.length === 1) await held
    await route.continue()
  })
  await app.goto(`${server.address}/builds/marzipan/parts`)
  await typeOneAfterAnother(app, ['3.11'])
  await expect.poll(() => asked).toEqual(['/api/builds/marzipan/commands'])
  await app.keyboard.type('3.12')
  await app.keyboard.press('Enter')
  await app.keyboard.press('ArrowUp')
  await app.keyboard.type('3.13')
  await app.keyboard.press('Enter')
  await expect(app.locator('[data-row=strap] [data-col=each]')).toHaveText('3.13')
  release()
  await expect(app.getByText('Saved', { exact: true })).toBeVisible()
  expect(asked).toEqual(['/api/builds/marzipan/commands', '/api/builds/marzipan/commands/many'])
  const { entries } = await server.json<{ entries: { gramsAfterG: number }[] }>('/api/builds/marzipan/journal')
  expect(entries.slice(0, 3).map(e => e.gramsAfterG)).toEqual([3.13, 3.12, 3.11])
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

test('when waiting edits are refused together they are sent one by one, and the good ones are kept', async ({
  app,
  server,
}) => {
  await server.bringIn('marzipan')
  let release = () => {}
  const held = new Promise<void>(done => {
    release = done
  })
  let asked = 0
  await app.route('**/api/builds/marzipan/commands', async route => {
    if (++asked === 1) await held
    await route.continue()
  })
  await app.route('**/api/builds/marzipan/commands/many', route =>
    route.fulfill({
      status: 422,
      contentType: 'application/problem+json',
      body: JSON.stringify({
        type: 'urn:jolly-gram:refused',
        title: 'refused',
        status: 422,
        code: 'refused',
        detail: 'One of them was refused.',
      }),
    }),
  )
  await app.goto(`${server.address}/builds/marzipan/parts`)
  await typeOneAfterAnother(app, ['3.11', '3.12', '3.13'])
  await expect.poll(() => asked).toBe(1)
  release()
  await expect(app.getByText('Saved', { exact: true })).toBeVisible()
  const { entries } = await server.json<{ entries: { gramsAfterG: number }[] }>('/api/builds/marzipan/journal')
  expect(entries.slice(0, 3).map(e => e.gramsAfterG)).toEqual([3.13, 3.12, 3.11])
})

test('an address that leads nowhere says so and leads back', async ({ app, server }) => {
  await app.goto(`${server.address}/nowhere/at/all`)
  await expect(app.getByRole('heading', { name: 'There is nothing at this address.' })).toBeVisible()
  await app.getByRole('link', { name: 'Back to the Shelf' }).click()
  await expect(app.getByText('Nothing on the shelf yet')).toBeVisible()
})
