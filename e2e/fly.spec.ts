import { execFileSync } from 'node:child_process'
import { readFileSync, truncateSync, writeFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import type { Page } from '@playwright/test'
import { choose } from './controls'
import { expect, test, written, type OwnServer } from './server'

interface Flown {
  flights: {
    id: string
    durationS: number
    putBackMah: number | null
    landing: { volts: number } | null
    loggedMah: number | null
    logId: string | null
  }[]
  findings: { kind: string; goneAt: string | null; tried: { what: string; revision: number | null }[] }[]
  worked: { id: string; held: string | null }[]
}
const flownOf = (server: OwnServer, id = 'marzipan') => server.json<Flown>(`/api/builds/${id}/flights`)
const revisionOf = async (server: OwnServer, id = 'marzipan') =>
  (await server.json<{ revision: number }>(`/api/builds/${id}`)).revision
const kept = (app: Page, act: () => Promise<unknown>) => written(app, act, '/api/kept/flights')
const row = (app: Page, number: number, field: string) => app.getByLabel(`Flight ${number}: ${field}`)

test('a flight is noted by its minutes alone, filled in by keys in its row, and taken back by Z: not the build', async ({
  app,
  server,
}) => {
  await server.bringIn('marzipan')
  const revision = await revisionOf(server)
  await app.goto(`${server.address}/builds/marzipan/fly`)
  await expect(app.getByText('Fly keeps what was flown')).toBeVisible()
  await app.keyboard.press('n')
  await expect(app.getByLabel('Flown', { exact: true })).toBeFocused()
  await app.keyboard.type('6:20')
  await kept(app, () => app.keyboard.press('Enter'))
  await expect(row(app, 1, 'flown')).toHaveValue('6:20')
  await expect(app.getByText('Comes to')).toBeVisible()
  await app.getByLabel('Flown', { exact: true }).fill('380 s')
  await kept(app, () => app.keyboard.press('Enter'))
  await row(app, 2, 'put back, mAh').focus()
  await kept(app, async () => {
    await app.keyboard.type('641')
    await app.keyboard.press('Enter')
  })
  await app.keyboard.press('ArrowDown')
  await expect(row(app, 1, 'put back, mAh')).toBeFocused()
  await kept(app, async () => {
    await app.keyboard.type('655')
    await app.keyboard.press('Enter')
  })
  expect((await flownOf(server)).flights.map(({ durationS, putBackMah }) => [durationS, putBackMah])).toEqual([
    [380, 655],
    [380, 641],
  ])
  await expect(app.getByTestId('next-flight')).toContainText('rests on 2 flights')
  // Out of the field: Z is a key of the page there.
  await app.getByRole('heading', { name: 'Fly', exact: true }).click()
  await kept(app, () => app.keyboard.press('z'))
  await expect(row(app, 1, 'put back, mAh')).toHaveValue('')
  expect(await revisionOf(server)).toBe(revision)
})

test('what cannot be is said at its field, and nothing is kept', async ({ app, server }) => {
  await server.bringIn('marzipan')
  await app.goto(`${server.address}/builds/marzipan/fly`)
  await app.getByRole('button', { name: /^New flight/ }).click()
  const flown = app.getByLabel('Flown', { exact: true })
  for (const [minutes, sentence] of [
    ['0', 'at least a second'],
    ['400', 'more than 180 minutes'],
    ['soon', 'no time in the air'],
  ] as const) {
    await flown.fill(minutes)
    await flown.press('Enter')
    await expect(app.getByRole('alert').filter({ hasText: sentence })).toBeVisible()
  }
  await flown.fill('6')
  await app.getByLabel('Landed with, V').first().fill('47')
  await flown.press('Enter')
  await expect(app.getByRole('alert').filter({ hasText: '47 V on 4 cells cannot be' })).toBeVisible()
  expect((await flownOf(server)).flights).toEqual([])
})

test('two windows see one another’s flights, and Packs rests on them at once', async ({ app, server, context }) => {
  await server.bringIn('marzipan')
  const other = await context.newPage()
  await other.goto(`${server.address}/builds/marzipan/packs`)
  const minutes = other.getByTestId('minutes').first()
  await expect(minutes).toHaveText(/min/)
  await expect(other.getByTestId('rests-on')).toHaveCount(0)
  await app.goto(`${server.address}/builds/marzipan/fly`)
  await app.getByRole('button', { name: /^New flight/ }).click()
  await app.getByLabel('Flown', { exact: true }).fill('5:30')
  await choose(app.getByLabel('Style', { exact: true }).first(), 'cruise')
  await app.getByLabel('Put back, mAh').first().fill('700')
  await kept(app, () => app.getByRole('button', { name: 'Note it' }).click())
  await expect(other.getByTestId('rests-on')).toHaveText('Rests on 1 flight.')
  await other.goto(`${server.address}/builds/marzipan/fly`)
  await expect(row(other, 1, 'flown')).toHaveValue('5:30')
  await kept(other, async () => {
    await row(other, 1, 'flown').fill('5:40')
    await other.keyboard.press('Enter')
  })
  await expect(row(app, 1, 'flown')).toHaveValue('5:40')
})

test('a flight noted in the field while the server is dead, with the page opened anew, arrives once', async ({
  browser,
  server,
}) => {
  await server.bringIn('praline')
  const before = (await flownOf(server, 'praline')).flights.length
  const phone = await browser.newPage({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true })
  await phone.goto(`${server.address}/field`)
  await expect(phone.getByText('Ready for the field')).toBeVisible()
  await phone.getByRole('button', { name: /^Go/ }).click()
  await expect(phone.getByRole('heading', { name: 'In the air' })).toBeVisible()
  // The screen was locked meanwhile: the clock goes by the time of day.
  await phone.evaluate(() => {
    const clock = JSON.parse(localStorage.getItem('field-clock')!) as { startedMs: number }
    localStorage.setItem('field-clock', JSON.stringify({ ...clock, startedMs: clock.startedMs - 200_000 }))
  })
  await phone.reload()
  await expect(phone.getByTestId('field-clock')).toHaveText(/^3:2\d$/)
  await server.kill()
  await phone.getByRole('button', { name: /^First warning/ }).click()
  await phone.getByRole('button', { name: /^Landed/ }).click()
  await phone.getByLabel('Volts now, resting').fill('7.3')
  await phone.getByText('Vibration', { exact: true }).click()
  await phone.getByRole('button', { name: 'Keep flight 14' }).click()
  await expect(phone.getByText('One flight waits on this phone')).toBeVisible()
  // Another one, on another build, as well without the server.
  await phone.getByRole('button', { name: /^Go/ }).click()
  await phone.evaluate(() => {
    const clock = JSON.parse(localStorage.getItem('field-clock')!) as { startedMs: number }
    localStorage.setItem('field-clock', JSON.stringify({ ...clock, startedMs: clock.startedMs - 60_000 }))
  })
  await server.start()
  await phone.reload()
  await expect(phone.getByTestId('field-clock')).toHaveText(/^1:0\d$/)
  await expect.poll(async () => (await flownOf(server, 'praline')).flights.length).toBe(before + 1)
  await phone.getByRole('button', { name: /^Landed/ }).click()
  await phone.getByRole('button', { name: 'Keep flight 15' }).click()
  await expect.poll(async () => (await flownOf(server, 'praline')).flights.length).toBe(before + 2)
  const { flights, findings } = await flownOf(server, 'praline')
  expect(flights.slice(-2).map(({ durationS }) => Math.floor(durationS / 10))).toEqual([20, 6])
  expect(flights.at(-2)!.landing).toMatchObject({ volts: 7.3, isFresh: true })
  expect(findings.filter(({ kind }) => kind === 'vibration in the picture')).toHaveLength(2)
  await phone.close()
})

test('a crash leads to Repair and back; a finding is closed by a change of the ledger and comes back', async ({
  app,
  server,
}) => {
  await server.bringIn('praline')
  await app.goto(`${server.address}/builds/praline/fly`)
  await app.getByRole('button', { name: 'Found something' }).click()
  await choose(app.getByLabel('What it was'), 'crash')
  await app.getByText('Three-blade 2.5 in, pressed on').last().click()
  await app.getByLabel('What it taught').fill('Turn earlier.')
  await kept(app, () => app.getByRole('button', { name: 'Note it' }).click())
  const crash = app.getByRole('article', { name: 'Crash' })
  await expect(crash).toContainText('What it taught. Turn earlier.')
  await crash.getByRole('link', { name: /^Repair Three-blade/ }).click()
  await expect(app.getByRole('region', { name: 'Repair' })).toContainText('Take apart')
  await expect(app.getByText(/steps? to undo/)).toBeVisible()
  await app.goBack()
  await expect(crash).toBeVisible()
  await crash.getByRole('button', { name: 'What I changed' }).click()
  await choose(app.getByLabel('The change of the ledger'), /Fabric strap 10 mm, 120 mm: grams changed/)
  await kept(app, () => app.getByRole('button', { name: 'Keep', exact: true }).click())
  await expect(crash).toContainText('(entry 8)')
  await kept(app, () => crash.getByRole('button', { name: 'It is gone' }).click())
  await expect(crash).toContainText('Gone since')
  const ofCrash = async () => (await flownOf(server, 'praline')).findings.find(({ kind }) => kind === 'crash')!
  expect(await ofCrash()).toMatchObject({ goneAt: expect.any(String), tried: [{ revision: 8 }] })
  await kept(app, () => crash.getByRole('button', { name: 'It is back' }).click())
  await expect(crash).toContainText('not flown since')
  expect((await ofCrash()).goneAt).toBeNull()
})

test('a held flight is explained and may be taken in; forecasts can be looked at as before any flight', async ({
  app,
  server,
}) => {
  await server.bringIn('praline')
  await app.goto(`${server.address}/builds/praline/fly`)
  await expect(app.getByTestId('next-flight')).toContainText('rests on 12 flights')
  await app.getByRole('button', { name: 'Flight 7: held' }).click()
  await expect(app.getByTestId('held')).toContainText('It asked for more power than flights like it ever do')
  await kept(app, () => app.getByRole('button', { name: 'Take it in' }).click())
  await expect(app.getByTestId('next-flight')).toContainText('rests on 13 flights')
  await expect(app.getByRole('button', { name: 'Flight 7: agrees' })).toBeVisible()
  await app.getByText('Forecasts without flights').click()
  await expect(app.getByTestId('next-flight')).toContainText('before any flight')
})

/** A made-up log beside its truth. */
function madeUpLog(server: OwnServer): { text: string; truth: { loggedMah: number; mohm: number } } {
  const root = resolve(import.meta.dirname, '..')
  const path = join(server.folder, 'made-up.csv')
  const jiti = join(root, 'node_modules/jiti/lib/jiti-cli.mjs')
  execFileSync(process.execPath, [jiti, join(root, 'simulators/telemetry/main.ts'), path, '5'])
  const truth = JSON.parse(readFileSync(`${path}.truth.json`, 'utf8')) as { loggedMah: number; mohm: number }
  return { text: readFileSync(path, 'utf8'), truth }
}

test('a log is read, its columns corrected and remembered, and its figures become evidence of the flight', async ({
  app,
  server,
}) => {
  await server.bringIn('nougat')
  const { text, truth } = madeUpLog(server)
  const backwards = text.split('\n').toSpliced(400, 0, '1.000,16.0,1,0,5', '1.050,16.0,1,0,5').join('\n')
  const file = (name: string, content: string) => ({ name, mimeType: 'text/csv', buffer: Buffer.from(content) })
  await app.goto(`${server.address}/builds/nougat/fly?view=log`)
  const field = app.locator('input[type=file]')
  await field.setInputFiles(file('flight.csv', backwards))
  await expect(app.getByTestId('set-aside')).toContainText('2 rows whose time runs backwards were set aside')
  const mah = Number((await app.getByTestId('log-mah').textContent())!.replace(/\D/g, ''))
  expect(Math.abs(mah / truth.loggedMah - 1)).toBeLessThan(0.02)
  // Volts taken for those of a cell: four times as much, until it is corrected; then it is remembered.
  await app.getByRole('button', { name: 'Change the columns' }).click()
  await choose(app.getByLabel('Volts of the pack'), 'not in it')
  await choose(app.getByLabel('Altitude', { exact: true }), /volts/)
  await app.getByRole('button', { name: 'Read it so' }).click()
  await expect(app.getByTestId('log-resistance')).toHaveText('–')
  await field.setInputFiles(file('another.csv', text))
  await expect(app.getByText('altitude, m')).toBeVisible()
  await app.getByRole('button', { name: 'Change the columns' }).click()
  await choose(app.getByLabel('Altitude', { exact: true }), 'not in it')
  await choose(app.getByLabel('Volts of the pack'), /volts/)
  await app.getByRole('button', { name: 'Read it so' }).click()
  await expect(app.getByTestId('log-resistance')).toContainText('mΩ')
  const said = Number(/^[\d.]+/.exec((await app.getByTestId('log-resistance').textContent())!)![0])
  expect(Math.abs(said - truth.mohm)).toBeLessThan(0.15 * truth.mohm)
  await kept(app, () => app.getByRole('button', { name: /^Use these/ }).click())
  await expect(app.getByText('evidence of this flight now')).toBeVisible()
  const flight = () => flownOf(server, 'nougat').then(({ flights }) => flights.at(-1)!)
  expect(await flight()).toMatchObject({ resistance: { mohm: expect.closeTo(said, 0) }, logId: expect.any(String) })
  expect((await flight()).loggedMah).toBeCloseTo(mah, 0)
  await app.reload()
  await expect(app.getByTestId('log-mah')).toBeVisible()
})

test('a log that cannot be is refused in words before anything is kept', async ({ app, server }) => {
  await server.bringIn('nougat')
  await app.goto(`${server.address}/builds/nougat/fly?view=log`)
  const field = app.locator('input[type=file]')
  const csv = (text: string) => ({ name: 'log.csv', mimeType: 'text/csv', buffer: Buffer.from(text) })
  await field.setInputFiles(csv(''))
  await expect(app.getByText('log.csv is empty')).toBeVisible()
  await field.setInputFiles(csv('volts,amps\n15,2\n15,3\n'))
  await expect(app.getByText('No column of it is a time')).toBeVisible()
  await field.setInputFiles(csv(`time,amps\n${Array.from({ length: 20 }, (_, i) => `${i},none`).join('\n')}\n`))
  await expect(app.getByText('amps holds no figure')).toBeVisible()
  // Three gigabytes of nothing: only its size is ever looked at.
  const large = join(server.folder, 'large.csv')
  writeFileSync(large, '')
  truncateSync(large, 3_000_000_000)
  await field.setInputFiles(large)
  await expect(app.getByText('has 3,000 MB; at most 64 MB are read')).toBeVisible()
  expect((await flownOf(server, 'nougat')).flights.every(({ logId }) => logId === null)).toBe(true)
})

test('Choosing tells the minutes of a part against those of the fitted one, and what they are known by', async ({
  app,
  server,
}) => {
  await server.bringIn('praline')
  await app.goto(`${server.address}/builds/praline/choosing?line=motors`)
  await app.getByText('typical classes too').click()
  const fitted = app.locator('tr.fitted').getByTestId('minutes')
  await expect(fitted).toHaveText(/^\s*\d/)
  const other = app.locator('tbody tr:not(.fitted)').first()
  await expect(other.getByTestId('minutes')).toContainText(' ± ')
  await other.getByRole('button').first().click()
  await expect(app.getByTestId('minutes-against')).toContainText('by their class alone')
})

test('parts count their flights; a new one begins at none, and a limit of one’s own is said quietly', async ({
  app,
  server,
}) => {
  await server.bringIn('praline')
  await app.goto(`${server.address}/builds/praline/fly?view=lives`)
  const props = app.getByRole('listitem').filter({ hasText: 'Three-blade 2.5 in' })
  await expect(props).toContainText('13')
  await app.getByLabel('Propeller', { exact: true }).fill('12')
  await app.getByLabel('Propeller', { exact: true }).press('Enter')
  await expect(props).toContainText('Look at it: 13 of 12 flights.')
  await kept(app, () => props.getByRole('button', { name: 'New one fitted' }).click())
  await expect(props).toContainText('until')
  await app.getByRole('heading', { name: 'Fly', exact: true }).click()
  await kept(app, () => app.keyboard.press('z'))
  await expect(props).not.toContainText('until')
})

test('configurations are kept whole, found by a word, compared, and taken back by Z', async ({ app, server }) => {
  await server.bringIn('marzipan')
  await app.goto(`${server.address}/builds/marzipan/fly?view=settings`)
  const add = async (name: string, text: string) => {
    await app.getByRole('button', { name: 'New record' }).click()
    const form = app.getByRole('form', { name: 'New record' })
    await form.getByLabel('Name').fill(name)
    await form.getByLabel('Version, as it says').fill('4.5.1')
    await form.getByLabel('Configuration').fill(text)
    await kept(app, () => form.getByRole('button', { name: 'Keep it' }).click())
    await expect(app.getByText(name, { exact: true })).toBeVisible()
  }
  await add('before filters', 'idle = 5.5\nfilter = 250\nroll = 45')
  await add('new filters', 'idle = 5.5\nfilter = 210\nroll = 45')
  await app.getByText('before filters', { exact: true }).click()
  await app.getByText('new filters', { exact: true }).click()
  const differs = app.getByRole('region', { name: /From .before filters. to .new filters./ })
  await expect(differs).toContainText('− filter = 250')
  await expect(differs).toContainText('+ filter = 210')
  await app.getByLabel('Search the configurations').fill('FILTER = 210')
  await app.getByLabel('Search the configurations').press('Enter')
  await expect(app.getByText('before filters', { exact: true })).toHaveCount(0)
  await expect(app.getByText('new filters', { exact: true })).toBeVisible()
  const file = await server.json<{ settings: { text: string }[] }>('/api/builds/marzipan/export/build.json')
  expect(file.settings.map(({ text }) => text)).toEqual(['', ''])
  await app.getByRole('heading', { name: 'Fly', exact: true, level: 1 }).click()
  await kept(app, () => app.keyboard.press('z'))
  await expect(app.getByText('None of them has it.')).toBeVisible()
})

test('flights go out as a list and come in again; rows that can be none are told', async ({ app, server }) => {
  await server.bringIn('praline', 'marzipan')
  await app.goto(`${server.address}/builds/praline/fly`)
  const downloading = app.waitForEvent('download')
  await app.getByRole('button', { name: 'Keep as CSV' }).click()
  const path = await (await downloading).path()
  const list = readFileSync(path, 'utf8')
  expect(list.split('\n')[1]).toContain('Q2')
  await app.goto(`${server.address}/builds/marzipan/fly`)
  const rows = ['2026-11-02 10:00,P7,6:20,641', '2026-11-02 11:00,Q2,6:20,641', '2026-11-02 12:00,P7,400,641']
  const buffer = Buffer.from(`Flown at,Pack,Flown,"Put back, mAh"\n${rows.join('\n')}\n`)
  await app.locator('input[type=file]').setInputFiles({ name: 'flights.csv', mimeType: 'text/csv', buffer })
  const read = app.getByRole('region', { name: 'A list of flights' })
  await expect(read).toContainText('Row 3: The pack “Q2” is not on this build.')
  await expect(read).toContainText('Row 4: Flown: 400 is more than 180 minutes.')
  await kept(app, () => read.getByRole('button', { name: 'Take one flight in' }).click())
  await expect(row(app, 1, 'flown')).toHaveValue('6:20')
  expect((await flownOf(server)).flights).toHaveLength(1)
})

test('what was flown stands in pictures: their points are read by keys', async ({ app, server }) => {
  await server.bringIn('praline', 'nougat')
  await app.goto(`${server.address}/builds/praline/fly?view=charts`)
  await app.getByRole('group', { name: /^Points of Minutes by pack and style/ }).press('ArrowRight')
  await expect(app.getByText(/Q2, freestyle, flight 1: \d\.\d min with the reserve kept/)).toBeVisible()
  await app.getByRole('group', { name: /^Points of Watt-hours a minute by build/ }).press('End')
  await expect(app.getByText(/Nougat: \d\.\d\d Wh a minute, 9 flights/)).toBeVisible()
  await app.getByRole('group', { name: /^Points of Findings over time/ }).press('Home')
  await expect(app.getByText(/Vibration in the picture, grave, found 7 Nov, gone 8 Nov \(1 of 3\)/)).toBeVisible()
})
