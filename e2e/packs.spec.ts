import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { demoBuilds, expect, test } from './server'
import { choose } from './controls'

interface Report {
  rows: {
    choice: { setupId: string; packLineId: string }
    auwG: number
    spreadG: number
    minutes: number
    hardMinutes: number
    gentleMinutes: number
    cards: { verdict: string; headroomG: number | null }[]
  }[]
}
const drawer = JSON.parse(readFileSync('demo/drawer.json', 'utf8')) as {
  gear: object
  parts: { kitId: string | null }[]
}
const cell = (app: Page, key: string) => app.locator(`[data-key="${key}"]`)
const decimals = (spread: number) => Math.min(2, Math.max(0, 1 - Math.floor(Math.log10(spread))))
const minutes = (value: number) => value.toFixed(value < 20 ? 1 : 0)
const saved = (app: Page) => expect(app.getByText('Saved', { exact: true })).toBeVisible()

test('sheet, chart, strip, Shelf, Parts and the report route show the same figures for every loadout of the demo', async ({
  app,
  server,
}) => {
  test.setTimeout(120_000)
  await server.bringIn(...demoBuilds)
  for (const id of demoBuilds) {
    const build = JSON.parse(readFileSync(`demo/builds/${id}.build.json`, 'utf8')).build as {
      flies: { setupId: string; packLineId: string }
      flying: { alsoCardIds: string[] }
    }
    const report = (await (await app.request.get(`${server.address}/api/builds/${id}/report`)).json()) as Report
    expect(report.rows.length).toBeGreaterThan(0)
    await app.goto(`${server.address}/builds/${id}/packs`)
    for (const row of report.rows) {
      const { setupId, packLineId } = row.choice
      const at = cell(app, `${setupId}.${packLineId}`)
      const grams = row.auwG.toFixed(decimals(row.spreadG))
      await expect(at).toContainText(`${grams} ± ${row.spreadG.toFixed(decimals(row.spreadG))}`)
      await expect(at).toContainText(`${minutes(row.hardMinutes)}–${minutes(row.gentleMinutes)} min`)
      if (build.flying.alsoCardIds.length === 0 && row.cards.length === 1)
        await expect(at).toContainText(row.cards[0]!.verdict)
      await expect(app.locator('.chart svg[role=img]')).toHaveAttribute(
        'aria-label',
        new RegExp(`: ${row.auwG.toFixed(1)} g, ${row.minutes.toFixed(1)} min`),
      )
      await at.click()
      await expect(app.getByTestId('loadout-auw')).toHaveText(
        `${grams} g ± ${row.spreadG.toFixed(decimals(row.spreadG))}`,
      )
      await expect(app.getByTestId('auw')).toHaveText(`${grams} g ± ${row.spreadG.toFixed(decimals(row.spreadG))}`)
    }
    const flown = report.rows.find(
      row => row.choice.setupId === build.flies.setupId && row.choice.packLineId === build.flies.packLineId,
    )!
    await app.goto(`${server.address}/builds/${id}/parts`)
    await expect(app.getByTestId('auw')).toContainText(flown.auwG.toFixed(decimals(flown.spreadG)))
    await app.goto(server.address)
    await expect(app.getByRole('article').filter({ hasText: id.charAt(0).toUpperCase() + id.slice(1) })).toContainText(
      `${flown.auwG.toFixed(decimals(flown.spreadG))} g ± ${flown.spreadG.toFixed(decimals(flown.spreadG))}`,
    )
  }
})

test('an assumption recomputes minutes, is kept, and bad ones are refused where they are typed', async ({
  app,
  server,
}) => {
  await server.bringIn('marzipan')
  await app.goto(`${server.address}/builds/marzipan/packs`)
  await expect(cell(app, 'day.p7')).toContainText('4.8–9.9 min')
  await choose(app.getByLabel('Style'), 'freestyle')
  await expect(cell(app, 'day.p7')).not.toContainText('4.8–9.9 min')
  const freestyle = await cell(app, 'day.p7').locator('.more').textContent()
  await app.getByLabel('Reserve, % of the capacity').fill('120')
  await app.keyboard.press('Enter')
  await expect(app.getByRole('alert')).toHaveText('The reserve is from 0 to 100 % of the capacity.')
  await app.getByLabel('Altitude, m').fill('high')
  await app.keyboard.press('Enter')
  await expect(app.getByRole('alert')).toContainText('“high” is not a number')
  await saved(app)
  await app.reload()
  await expect(app.getByLabel('Reserve, % of the capacity')).toHaveValue('15')
  await expect(cell(app, 'day.p7')).toContainText(freestyle!)
  await app.getByLabel('Reserve, % of the capacity').fill('40')
  await app.keyboard.press('Enter')
  await expect(cell(app, 'day.p7')).not.toContainText(freestyle!)
  await app.evaluate(() => (document.activeElement as HTMLElement).blur())
  await app.keyboard.press('z')
  await expect(cell(app, 'day.p7')).toContainText(freestyle!)
})

test('the sheet by keyboard: arrows, Enter, the default loadout, over on purpose', async ({ app, server }) => {
  await server.bringIn('marzipan')
  await app.goto(`${server.address}/builds/marzipan/parts`)
  await expect(app.getByRole('heading', { name: 'Parts', exact: true })).toBeVisible()
  await app.keyboard.press('6')
  await expect(app.getByRole('heading', { name: 'Packs', exact: true })).toBeVisible()
  await expect(app.locator('.stations a[href*="/packs"] small')).toHaveText('4 of 6 clear')
  await cell(app, 'as-built.p4').focus()
  await app.keyboard.press('ArrowDown')
  await app.keyboard.press('ArrowRight')
  await expect(cell(app, 'ridge.p7')).toBeFocused()
  await app.keyboard.press('Enter')
  await expect(app.getByTestId('verdict')).toHaveText('Over')
  await app.getByRole('button', { name: 'I fly this one over on purpose' }).click()
  await expect(app.locator('.stations a[href*="/packs"] small')).toHaveText('4 of 6 clear · 1 over on purpose')
  await app.getByRole('button', { name: 'Make it the way I fly' }).click()
  await expect(app.getByTestId('headroom')).toContainText('g over, on purpose')
  await saved(app)
  await app.goto(server.address)
  await expect(app.getByRole('article')).toContainText('g over, on purpose')
  await app.goto(`${server.address}/builds/marzipan/packs`)
  await app.getByRole('button', { name: 'It is never flown' }).click()
  await expect(app.locator('.stations a[href*="/packs"] small')).toHaveText('4 of 5 clear')
  await expect(cell(app, 'ridge.p7')).toHaveCount(0)
})

test('packs of the drawer and typical ones are tried; one is put on the build; those that do not fit say why', async ({
  app,
  server,
}) => {
  await server.bringIn('praline')
  await server.send('POST', '/api/parts', { parts: drawer.parts.map(part => ({ ...part, kitId: null })) })
  await app.goto(`${server.address}/builds/praline/packs`)
  await expect(app.locator('[data-pack]')).toHaveCount(3)
  await app.getByLabel('packs of the drawer').check()
  await expect(app.locator('[data-pack="D1"]')).toContainText('takes at most 3 cells')
  await app.getByLabel('typical packs').check()
  await expect(app.locator('[data-pack="450"]')).toContainText('typical, not owned')
  await app.getByLabel('only clear').check()
  await expect(app.locator('[data-pack="Q3"]')).toHaveCount(0)
  await app.locator('[data-pack="450"] .cell').first().click()
  await expect(app.getByTestId('auw')).toContainText('97.09')
  await app.getByRole('button', { name: 'Put this pack on the build' }).click()
  await expect(app.getByRole('complementary', { name: 'Inspector' }).getByLabel('Label')).toHaveValue('450')
  await saved(app)
  await app.getByLabel('only clear').uncheck()
  await app.getByLabel('packs of the drawer').uncheck()
  await app.getByLabel('typical packs').uncheck()
  await expect(app.locator('[data-pack]')).toHaveCount(4)
})

test('a pack is an individual: charged today, tired, measured; bad facts are refused; too weak a pack says so instead of minutes', async ({
  app,
  server,
}) => {
  await server.bringIn('marzipan')
  await app.goto(`${server.address}/builds/marzipan/packs`)
  await app.locator('[data-pack="P7"] .pack').click()
  const inspector = app.getByRole('complementary', { name: 'Inspector' })
  await expect(inspector.locator('.note').first()).toContainText('A pack left full ages and sags')
  await inspector.getByRole('button', { name: 'Charged today' }).click()
  await expect(inspector.locator('.note').first()).toHaveText('Charged today.')
  await choose(inspector.getByLabel('State'), 'tired')
  await expect(app.locator('[data-pack="P7"] .pack')).toContainText('tired')
  await inspector.getByLabel('Cells').fill('0')
  await app.keyboard.press('Enter')
  await expect(inspector.getByRole('alert')).toHaveText('A pack has at least one cell.')
  await inspector.getByLabel('C rating').fill('0')
  await app.keyboard.press('Enter')
  await expect(inspector.getByRole('alert')).toHaveText('The C rating must be above zero.')
  await inspector.locator('[data-property=resistanceMohm]').fill('0')
  await app.keyboard.press('Enter')
  await expect(inspector.getByRole('alert').last()).toContainText('mΩ')
  await inspector.locator('[data-property=resistanceMohm]').fill('450')
  await app.keyboard.press('Enter')
  await cell(app, 'day.p7').click()
  await expect(app.getByTestId('no-minutes')).toContainText(
    /P7 (cannot give \d+ W: its volts collapse|falls below 3\.50 V a cell at once when asked for \d+ W)/,
  )
  await expect(cell(app, 'day.p7')).toContainText('no minutes')
})

test('two places: a loadout is clear only where all cards say so; the go list carries what is clear and can be printed', async ({
  app,
  server,
}) => {
  await server.bringIn('praline')
  await app.goto(`${server.address}/builds/praline/packs?view=go`)
  const rows = app.locator('tbody tr')
  await expect(rows).toHaveCount(5)
  await expect(rows.first()).toContainText('Clear')
  await app.getByText('Judged under').first().click()
  await app.getByLabel('United States, recreation').check()
  await expect(app.locator('p', { hasText: 'Judged under' })).toContainText('United States, recreation')
  await expect(rows).toHaveCount(5)
  await app.keyboard.press('Escape')
  await expect(app.getByLabel('United States, recreation')).toBeHidden()
  await app.getByLabel('also what is not clear').check()
  await expect(rows).toHaveCount(9)
  await expect(rows.filter({ hasText: 'bumpers and lamp' }).filter({ hasText: 'Q2' })).toContainText('Over')
  await app.emulateMedia({ media: 'print' })
  await expect(app.getByRole('heading', { name: /Praline: go list/ })).toBeVisible()
  await expect(app.getByLabel('also what is not clear')).toBeHidden()
})

test('a set-up is made by ticking lines; the discharge of a loadout follows what it was charged to', async ({
  app,
  server,
}) => {
  await server.bringIn('praline')
  await app.goto(`${server.address}/builds/praline/packs?view=setups`)
  await app.getByLabel('Name of the new set-up').fill('lamp alone')
  await app.keyboard.press('Enter')
  await app.getByLabel('Clip-on tail lamp with its own cell flies in lamp alone').check()
  await expect(app.getByLabel('Printed clip for the lamp flies in lamp alone')).toBeChecked()
  await expect(app.locator('tfoot')).toContainText('4.97 g')
  await app.goto(`${server.address}/builds/praline/packs?view=discharge`)
  const ends = app.locator('dl', { hasText: 'Ends after' })
  await expect(ends).toContainText('reserve reached, 15 % left')
  const before = await ends.textContent()
  await app.getByLabel('Charged to, V a cell').fill('3.9')
  await app.keyboard.press('Enter')
  await expect(ends).not.toHaveText(before!)
  await app.getByLabel('Charged to, V a cell').fill('4.6')
  await app.keyboard.press('Enter')
  await expect(app.getByRole('alert')).toHaveText('A cell of LiHV rests between 3.3 and 4.35 V.')
})

test('counting the minutes says how far it is, can be stopped, and is taken up again', async ({ app, server }) => {
  await server.bringIn('nougat')
  let isSilent = true
  await app.route('**/loadouts.worker*.js', route =>
    isSilent ? route.fulfill({ contentType: 'text/javascript', body: '' }) : route.continue(),
  )
  await app.goto(`${server.address}/builds/nougat/packs`)
  const progress = app.getByRole('status').filter({ hasText: /^Counting minutes: 0 of \d/ })
  await progress.getByRole('button', { name: 'Stop' }).click()
  await expect(progress).toHaveCount(0)
  await expect(app.locator('.cell').first()).not.toContainText('min')
  isSilent = false
  await app.getByRole('status').getByRole('button', { name: 'Count them' }).click()
  await expect(app.locator('.cell').first()).toContainText('min')
  await expect(app.getByRole('button', { name: 'Count them' })).toHaveCount(0)
})

test('an empty build is told what Packs is for and gets its first pack by key', async ({ app, server }) => {
  const { id } = (await (
    await app.request.post(`${server.address}/api/builds`, {
      data: { from: 'empty', name: 'Fudge' },
      headers: { origin: server.address },
    })
  ).json()) as { id: string }
  await app.goto(`${server.address}/builds/${id}/aim`)
  await expect(app.getByRole('heading', { name: 'Aim' })).toBeVisible()
  await app.keyboard.press('6')
  await expect(app.getByText('how long it flies. Add a pack first.')).toBeVisible()
  await app.keyboard.press('n')
  const inspector = app.getByRole('complementary', { name: 'Inspector' })
  await inspector.getByLabel('Grams').fill('25.4 w')
  await app.keyboard.press('Enter')
  await expect(app.getByTestId('auw')).toContainText('25.40')
  await app.locator('.cell').click()
  await expect(inspector).toContainText('Say what the pack is: cells, chemistry and mAh.')
  await app.locator('button.pack').click()
  const which = inspector.getByRole('form', { name: 'Which pack is it?' })
  await which.getByLabel('mAh').fill('450')
  await which.getByRole('button', { name: 'That is the pack' }).click()
  await expect(which.getByRole('alert')).toHaveText([
    'Which chemistry? It stands on the pack.',
    'How many cells? A whole number, as in the 4 of 4S.',
  ])
  await expect(which.getByLabel('Cells')).toHaveAccessibleDescription(
    'How many cells? A whole number, as in the 4 of 4S.',
  )
  await which.getByLabel('Cells').fill('2')
  await choose(which.getByLabel('Chemistry'), 'LiPo')
  await which.getByRole('button', { name: 'That is the pack' }).click()
  await expect(which).toHaveCount(0)
  await expect(app.locator('.pack b')).toHaveText('F1')
  await app.locator('.cell').click()
  await expect(inspector).toContainText(
    'Add the propellers: their diameter decides how much power the weight asks for.',
  )
})

test('a plan from a craft class tells minutes at once', async ({ app, server }) => {
  const { id } = (await (
    await app.request.post(`${server.address}/api/builds`, {
      data: { from: 'class', name: 'Fudge', craftClass: '3-inch ultralight' },
      headers: { origin: server.address },
    })
  ).json()) as { id: string }
  await app.goto(`${server.address}/builds/${id}/packs`)
  await expect(app.locator('.cell')).toContainText(/\d\.\d–\d+\.\d min/)
})
