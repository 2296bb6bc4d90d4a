import type { Page } from '@playwright/test'
import { choose } from './controls'
import { expect, test, written, type OwnServer } from './server'

interface Flown {
  flights: {
    id: string
    durationS: number
    putBackMah: number | null
    landing: { volts: number } | null
    note: string
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
  await crash.getByRole('link', { name: 'Repair' }).click()
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
