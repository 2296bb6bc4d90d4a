import { readFileSync } from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import { choose } from './controls'
import { expect, loadedAhead, test, written } from './server'

test('a page is set in its own letters; those of further languages follow', async ({ app, server }) => {
  const answer = await fetch(`${server.address}/api/builds`, {
    method: 'POST',
    body: JSON.stringify({ from: 'empty', name: 'Őszi szél' }),
  })
  expect(answer.ok).toBe(true)
  await app.goto(server.address)
  await expect(app.getByText('Őszi szél')).toBeVisible()
  const loaded = (page: typeof app, range: string) =>
    page.evaluate(
      first =>
        [...document.fonts]
          .filter(face => face.unicodeRange.startsWith(first) && face.status === 'loaded')
          .map(face => face.family.replaceAll('"', ''))
          .sort(),
      range,
    )
  const own = ['Fraunces Variable', 'Instrument Sans Variable', 'Spline Sans Mono']
  await expect.poll(() => loaded(app, 'U+0-')).toEqual(own)
  await expect.poll(() => loaded(app, 'U+100-')).toContain('Fraunces Variable')
})

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
      days: 'day-month-year',
      decimal: 'point',
      firstWeekday: 'monday',
      theme: 'dark',
      ounces: true,
      confidence: 0.95,
      singleKeys: false,
      benchScale: '',
      networkNames: '',
      hand: 'usual',
      lifeLimits: {},
      automaticCopies: true,
      gear: { radioFamily: '2.4 GHz, old', videoFamily: '', polarisation: '', chargerCells: null, chargerPlugs: '' },
    })
  await app.goto(`${server.address}/builds/sherbet/parts`)
  await expect(app.locator('html')).toHaveClass(/dark/)
  await expect(app.locator('.strip-head').getByText('0.94 oz')).toBeVisible()
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
  await expect(dialog.getByLabel('Mass, g')).toBeFocused()
  await expect(dialog.getByLabel('Mass, g')).toHaveAttribute('aria-invalid', 'true')
  await expect(dialog.getByLabel('Mass, g')).toHaveAccessibleDescription(/“heavy” is not a number/)
  await expect(dialog.getByLabel('Thrust, g')).toHaveAttribute('aria-invalid', 'false')
  // What the server says of a field stands under it too.
  await app.route('**/api/builds', route =>
    route.request().method() === 'POST'
      ? route.fulfill({
          status: 422,
          contentType: 'application/problem+json',
          body: JSON.stringify({
            type: 'about:blank',
            title: 'invalid',
            status: 422,
            code: 'invalid',
            detail: 'That is too heavy.',
            field: 'reference.massG',
          }),
        })
      : route.continue(),
  )
  await dialog.getByLabel('Mass, g').fill('244')
  await expect(dialog.getByRole('alert')).toHaveCount(0)
  await dialog.getByRole('button', { name: 'Start it' }).click()
  await expect(dialog.getByLabel('Mass, g')).toHaveAccessibleDescription('That is too heavy.')
  await app.unroute('**/api/builds')
  await dialog.getByLabel('Mass, g').fill('244,5')
  await dialog.getByLabel('Thrust, g').fill('980')
  await dialog.getByRole('button', { name: 'Start it' }).click()
  await expect(app.getByLabel('Reference craft')).toContainText('244.50 g')
  const head = app.getByLabel('Reference craft')
  await expect(head).toContainText('4.0 : 1')
  await head.getByLabel('Flies, min').fill('6,5')
  await head.getByLabel('Flies, min').press('Enter')
  await head.getByLabel('Weighs, g').fill('light')
  await head.getByLabel('Weighs, g').press('Enter')
  await expect(head.getByRole('alert')).toContainText('“light” is not a number')
  const { id } = (
    await server.json<{ entries: { id: string; reference: object | null }[] }>('/api/builds')
  ).entries.find(({ reference }) => reference !== null)!
  await expect
    .poll(async () => (await server.json<{ build: { reference: object } }>(`/api/builds/${id}`)).build.reference)
    .toMatchObject({ massG: 244.5, minutes: 6.5 })
})

test('an address that leads nowhere says so and leads back', async ({ app, server }) => {
  await app.goto(`${server.address}/nowhere/at/all`)
  await expect(app.getByRole('heading', { name: 'There is nothing at this address.' })).toBeVisible()
  await app.getByRole('link', { name: 'Back to the Shelf' }).click()
  await expect(app.getByText('Nothing on the shelf yet')).toBeVisible()
})

test('a page comes in the look that was chosen before any script has run, and can lie on a home screen', async ({
  browser,
  server,
}) => {
  await server.send('PUT', '/api/settings', { ...(await server.json('/api/settings')), theme: 'dark' })
  const still = await browser.newPage({ javaScriptEnabled: false, colorScheme: 'light' })
  const background = () => still.evaluate(() => getComputedStyle(document.body).backgroundColor)
  await still.goto(server.address)
  expect(await background()).toBe('rgb(23, 18, 28)')
  await server.send('PUT', '/api/settings', { ...(await server.json('/api/settings')), theme: 'light' })
  await still.emulateMedia({ colorScheme: 'dark' })
  await still.goto(server.address)
  expect(await background()).toBe('rgb(247, 241, 229)')
  await server.send('PUT', '/api/settings', { ...(await server.json('/api/settings')), theme: 'system' })
  await still.goto(server.address)
  expect(await background()).toBe('rgb(23, 18, 28)')
  await still.close()

  const manifest = await server.json<{ start_url: string; display: string; icons: { src: string; type: string }[] }>(
    '/manifest.webmanifest',
  )
  expect(manifest).toMatchObject({ start_url: '/', display: 'standalone' })
  for (const { src, type } of manifest.icons) {
    const icon = await fetch(server.address + src)
    expect([src, icon.status, icon.headers.get('content-type')]).toEqual([src, 200, type])
  }
})

test('what every page loads first is light: it has neither charts nor the rules of a build', async ({ server }) => {
  const textOf = async (path: string) => (await fetch(new URL(path, server.address))).text()
  const entry = /<script[^>]* src="([^"]+\.js)"/.exec(await textOf('/'))![1]!
  const seen = new Map<string, number>()
  const waiting = [entry]
  while (waiting.length > 0) {
    const path = waiting.pop()!
    if (seen.has(path)) continue
    const script = await textOf(path)
    seen.set(path, script.length)
    for (const [, name] of script.matchAll(/\bfrom\s*"\.\/([\w-]+\.js)"/g)) waiting.push(`/_nuxt/${name}`)
  }
  const bytes = [...seen.values()].reduce((sum, size) => sum + size, 0)
  expect(bytes).toBeGreaterThan(100_000)
  expect(bytes).toBeLessThan(330_000)
})

test('what several stations need comes in one file: all of them together are few', async ({ app, server }) => {
  await server.bringIn('marzipan')
  await app.goto(`${server.address}/builds/marzipan/parts`)
  await loadedAhead(app)
  const files = await app.evaluate(() =>
    performance
      .getEntriesByType('resource')
      .map(({ name }) => new URL(name).pathname)
      .filter(path => /^\/_nuxt\/.*\.(?:js|css)$/.test(path)),
  )
  expect(new Set(files).size).toBeGreaterThan(40)
  expect(new Set(files).size).toBeLessThan(120)
})

test('what the server reads at every start is little: packages for files and codes wait until one is asked for', () => {
  const seen = new Set<string>()
  const packages = new Set<string>()
  const waiting = [join(import.meta.dirname, '../.output/server/index.mjs')]
  while (waiting.length > 0) {
    const path = waiting.pop()!
    if (seen.has(path)) continue
    seen.add(path)
    for (const [, name] of readFileSync(path, 'utf8').matchAll(
      /(?:^|;)(?:import|export)(?:[^'"();\n]*\bfrom)?\s*['"]([^'"\n]+)['"]/gm,
    )) {
      if (name!.startsWith('.')) waiting.push(resolve(dirname(path), name!))
      else if (!name!.startsWith('node:')) packages.add(name!)
    }
  }
  expect(seen.size).toBeGreaterThan(1)
  expect([...packages].sort()).toEqual(['better-sqlite3'])
})

test('the shelf is told at once of all it needs, and that is little: no rules, no schemas, its builds already asked for', async ({
  app,
  server,
}) => {
  const page = await (await fetch(server.address)).text()
  const told = [...page.matchAll(/<link rel="modulepreload"[^>]* href="([^"]+)"/g)].map(([, href]) => href!)
  const script = /<script[^>]* src="([^"]+)"/.exec(page)![1]!
  expect(page).toContain('<link rel="preload" as="fetch" crossorigin href="/api/builds">')
  const texts = await Promise.all(
    [...new Set([...told, script])].map(async path => (await fetch(server.address + path)).text()),
  )
  const bytes = texts.reduce((sum, text) => sum + text.length, 0)
  expect(bytes).toBeGreaterThan(150_000)
  expect(bytes).toBeLessThan(400_000)
  // What only the shelf needs is not asked for by the pages of a build.
  expect(await (await fetch(`${server.address}/settings`)).text()).not.toContain('/api/builds')

  await app.goto(server.address)
  await expect(app.getByRole('heading', { name: 'Nothing on the shelf yet' })).toBeVisible()
  await app.waitForFunction(() => performance.getEntriesByName('first page drawn').length > 0)
  const asked = await app.evaluate(() => {
    const drawn = performance.getEntriesByName('first page drawn')[0]!.startTime
    const before = performance.getEntriesByType('resource').filter(({ startTime }) => startTime < drawn)
    return before.map(({ name }) => new URL(name).pathname)
  })
  const scripts = asked.filter(path => path.endsWith('.js'))
  expect(scripts).toEqual(expect.arrayContaining([script, ...told]))
  expect(scripts.filter(path => ![...told, script].includes(path))).toEqual([])
  expect(asked.filter(path => path === '/api/builds')).toHaveLength(1)
  // Its letters come with it, and its settings stand in the page.
  expect(asked.filter(path => path.endsWith('.woff2')).length).toBeGreaterThanOrEqual(3)
  expect(asked).not.toContain('/api/settings')
})

test('figures are written as chosen from the first picture on; a shelf whose builds are long in coming stands without them', async ({
  app,
  server,
}) => {
  await server.bringIn('marzipan')
  await server.send('PUT', '/api/settings', { decimal: 'comma', currency: '<!--' })
  await app.addInitScript(() => {
    const seen: string[] = []
    Object.assign(window, { seen })
    new MutationObserver(() => seen.push(document.querySelector('main')?.textContent ?? '')).observe(document, {
      childList: true,
      subtree: true,
      characterData: true,
    })
  })
  await app.goto(server.address)
  await expect(app.getByRole('link', { name: 'Marzipan' })).toBeVisible()
  const seen = await app.evaluate(() => (window as unknown as { seen: string[] }).seen.join('\n'))
  expect(seen).toMatch(/\d,\d+ g/)
  expect(seen).not.toMatch(/\d\.\d+ g/)

  let answer: () => void = () => undefined
  const waits = new Promise<void>(resolve => (answer = resolve))
  await app.route('**/api/builds', async route => {
    await waits
    await route.continue()
  })
  await app.goto(server.address)
  await expect(app.getByRole('heading', { name: 'Shelf' })).toBeVisible()
  await expect(app.getByRole('link', { name: 'Marzipan' })).toHaveCount(0)
  answer()
  await expect(app.getByRole('link', { name: 'Marzipan' })).toBeVisible()
  await app.goto(`${server.address}/settings`)
  await expect(app.getByLabel('Currency')).toHaveValue('<!--')
})

test('figures are written with the decimal comma, days and ounces as chosen; files keep the point', async ({
  app,
  server,
}) => {
  await server.bringIn('marzipan')
  await app.goto(`${server.address}/settings`)
  await app.getByRole('radio', { name: /^comma/ }).click()
  await app.getByRole('radio', { name: /^month first/ }).click()
  await app.getByRole('checkbox', { name: 'Show ounces beside grams' }).click()
  await expect
    .poll(async () => (await server.json<{ decimal: string; ounces: boolean }>('/api/settings')).ounces)
    .toBe(true)
  await app.goto(`${server.address}/builds/marzipan/parts`)
  const row = (column: string) => app.locator(`[data-row=strap] [data-col=${column}]`)
  await expect(row('each')).toHaveText('3,41')
  await expect(row('grams')).toContainText('0,12 oz')
  await expect(app.locator('.strip-head')).toContainText('248,2 g ± 2,3')
  await expect(app.locator('.strip-head')).toContainText('8,76 oz')
  await row('each').click()
  await app.keyboard.press('Enter')
  await expect(app.locator('[data-row=strap] input')).toHaveValue('3,41')
  await app.keyboard.type('3.5')
  await app.keyboard.press('Enter')
  await expect(row('each')).toHaveText('3,5')
  await row('each').click()
  await app.keyboard.type('3,44')
  await app.keyboard.press('Enter')
  await expect(row('each')).toHaveText('3,44')
  await expect(app.getByText('Saved', { exact: true })).toBeVisible()
  await app.goto(`${server.address}/builds/marzipan/packs?view=go`)
  await expect(app.getByText(/: go list of [A-Z][a-z]+ \d{1,2}, \d{4}$/)).toBeVisible()
  const sheet = await (await fetch(`${server.address}/api/builds/marzipan/export/sheet.md`)).text()
  expect(sheet).toMatch(/\*\*248\.\d g ± 2\.\d \(8\.7\d oz\)\*\* all-up/)
  expect(sheet).not.toMatch(/\d,\d+ g/)
  const file = await (await fetch(`${server.address}/api/builds/marzipan/export/build.json`)).text()
  expect(file).toContain('3.44')
})

test('the shelf is searched, sorted, pinned and tagged; what was changed can be taken back in the build', async ({
  app,
  server,
}) => {
  await server.bringIn('marzipan', 'nougat', 'praline', 'sherbet', 'treacle')
  await app.goto(server.address)
  const names = () => app.locator('article.card .name').allTextContents()
  await expect.poll(names).toEqual(['Marzipan', 'Nougat', 'Praline', 'Sherbet', 'Treacle'])
  const pin = app.getByRole('button', { name: 'Pin Sherbet' })
  await pin.focus()
  await app.keyboard.press('Enter')
  await expect.poll(names).toEqual(['Sherbet', 'Marzipan', 'Nougat', 'Praline', 'Treacle'])
  await choose(app.getByRole('combobox', { name: 'Order of the shelf' }), 'by weight')
  await expect.poll(names).toEqual(['Sherbet', 'Praline', 'Treacle', 'Marzipan', 'Nougat'])
  await app.getByLabel('Search the shelf').fill('3.5 over')
  await expect.poll(names).toEqual(['Nougat'])
  await app.getByLabel('Search the shelf').fill('nothing like it')
  await expect(app.getByText('No build is like that.')).toBeVisible()
  await app.getByLabel('Search the shelf').fill('')
  await app.getByRole('button', { name: 'Tags of Praline' }).focus()
  await app.keyboard.press('Enter')
  const dialog = app.getByRole('dialog', { name: 'Tags of Praline' })
  const field = dialog.getByRole('textbox', { name: 'Tags' })
  await field.fill('for sale')
  await field.press('Enter')
  await expect(dialog.locator('.el-tag')).toHaveText(['for sale'])
  await field.fill('lent out')
  await written(app, () => dialog.getByRole('button', { name: 'Keep' }).click(), '/api/builds/praline/commands')
  await choose(app.getByRole('combobox', { name: 'Only with the tag' }), 'for sale')
  await expect.poll(names).toEqual(['Praline'])
  const { entries } = await server.json<{ entries: { title: string }[] }>('/api/builds/praline/journal')
  expect(entries[0]!.title).toBe('Shelf: tagged “for sale”, “lent out”')
  await choose(app.getByRole('combobox', { name: 'Only with the tag' }), 'all tags')
  await app.getByRole('button', { name: 'Tags of Sherbet' }).click()
  await app.getByRole('button', { name: 'Add for sale' }).click()
  await written(app, () => app.getByRole('button', { name: 'Keep' }).click(), '/api/builds/sherbet/commands')
  await choose(app.getByRole('combobox', { name: 'Only with the tag' }), 'for sale')
  await expect.poll(names).toEqual(['Sherbet', 'Praline'])
})
