import { readFileSync } from 'node:fs'
import { gunzipSync } from 'node:zlib'
import { chromium, type Page } from '@playwright/test'
import sharp from 'sharp'
import type { BuildReply } from '../shared/schemas/api'
import { choose } from './controls'
import { expect, loadedAhead, OwnServer, written, test as base } from './server'

const name = 'tram-shed.home'
const demoParts = (JSON.parse(readFileSync('demo/drawer.json', 'utf8')) as { parts: object[] }).parts.map(part => ({
  ...part,
  kitId: null,
}))

/** A phone in the network at home: a name of the builder’s own, plain http, an origin the browser does not trust. */
const test = base.extend<{ phone: Page; home: OwnServer }>({
  // eslint-disable-next-line no-empty-pattern -- the runner reads the names of the fixtures from this pattern
  home: async ({}, use) => {
    const server = new OwnServer()
    await server.start({ HOST: '0.0.0.0', JOLLY_GRAM_LAN: '1', JOLLY_GRAM_PASSPHRASE: 'seven tall masts' })
    await server.send('PUT', '/api/settings', { networkNames: name })
    await server.bringIn('marzipan', 'nougat')
    await use(server)
    await server.end()
  },
  phone: async ({ home, launchOptions }, use) => {
    const browser = await chromium.launch({
      ...launchOptions,
      args: [...(launchOptions.args ?? []), `--host-resolver-rules=MAP ${name} 127.0.0.2`],
    })
    const page = await (await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true })).newPage()
    const errors: string[] = []
    page.on('pageerror', error => errors.push(error.message))
    await page.goto(home.address.replace('127.0.0.1', name))
    await page.getByLabel('Passphrase').fill('seven tall masts')
    await page.getByRole('button', { name: 'Sign in' }).click()
    await expect(page.getByRole('heading', { name: 'Shelf' })).toBeVisible()
    await use(page)
    expect(errors).toEqual([])
    await browser.close()
  },
})
const saved = (page: Page) => expect(page.getByText('Saved', { exact: true })).toBeVisible()
const build = async (server: OwnServer, id: string) => (await server.json<BuildReply>(`/api/builds/${id}`)).build
const at = (page: Page, path: string) => page.goto(new URL(path, page.url()).href)

test('is not trusted by the browser, and can do without what that takes away', async ({ phone }) => {
  expect(
    await phone.evaluate(() => [window.isSecureContext, typeof crypto.randomUUID, typeof navigator.locks]),
  ).toEqual([false, 'undefined', 'undefined'])
})

test('a build is started, its ledger edited, a line added, a set-up and a pack made', async ({ phone, home }) => {
  await phone
    .getByRole('button', { name: /^Start a build/ })
    .first()
    .click()
  await phone.getByRole('dialog').getByLabel('Name').fill('Toffee')
  await phone.getByRole('dialog').getByLabel('Name').press('Enter')
  await expect(phone.getByRole('heading', { name: 'Aim' })).toBeVisible()
  await at(phone, '/builds/marzipan/parts')
  await phone.locator('[data-row=strap] [data-col=each]').click()
  await phone.keyboard.type('3.17')
  await written(phone, () => phone.keyboard.press('Enter'))
  await saved(phone)
  expect((await build(home, 'marzipan')).lines.find(line => line.id === 'strap')?.mass?.valueG).toBe(3.17)
  await phone.keyboard.press('Escape')
  await phone
    .getByRole('button', { name: /^New line/ })
    .first()
    .click()
  const bar = phone.getByRole('form', { name: 'New line' })
  await bar.getByLabel(/What/).fill('Brick for testing')
  await bar.getByLabel(/What/).press('Enter')
  await expect
    .poll(async () => (await build(home, 'marzipan')).lines.some(line => line.name === 'Brick for testing'))
    .toBe(true)
  await at(phone, '/builds/marzipan/packs?view=setups')
  await phone.getByLabel('Name of the new set-up').fill('calm day')
  await phone.keyboard.press('Enter')
  await expect
    .poll(async () => (await build(home, 'marzipan')).setups.some(setup => setup.name === 'calm day'))
    .toBe(true)
  const packs = (await build(home, 'marzipan')).lines.filter(line => line.slot === 'pack').length
  await at(phone, '/builds/marzipan/packs')
  await phone.getByRole('button', { name: /^New pack/ }).click()
  await expect
    .poll(async () => (await build(home, 'marzipan')).lines.filter(line => line.slot === 'pack').length)
    .toBe(packs + 1)
})

test('Weigh takes a typed display; Assemble a tick and a photo; Shave a shaving; every page opens', async ({
  phone,
  home,
}) => {
  await at(phone, '/builds/marzipan/weigh')
  const hand = phone.getByLabel('Type what the scale shows').first()
  await hand.fill('33.21')
  await hand.press('Enter')
  // Far from what was expected it is asked about once.
  const doubt = phone.getByText('Is it the right part?')
  const taken = async () =>
    (await build(home, 'marzipan')).lines
      .filter(line => line.mass?.weighing?.scaleId === 'unlisted')
      .map(line => line.mass!.weighing!.displaysG)
  await expect.poll(async () => (await doubt.isVisible()) || (await taken()).length > 0).toBe(true)
  if (await doubt.isVisible()) await hand.press('Enter')
  await expect.poll(taken).toEqual([[33.21]])
  await at(phone, '/builds/nougat/assemble')
  await phone.getByRole('button', { name: /Done/ }).first().click()
  await expect
    .poll(async () => (await build(home, 'nougat')).assembly?.records.some(record => record.doneAt !== null))
    .toBe(true)
  const photo = await sharp({ create: { width: 400, height: 300, channels: 3, background: '#7a4' } })
    .jpeg()
    .toBuffer()
  await phone
    .locator('.picture-row input[type=file]')
    .setInputFiles({ name: 'joint.jpg', mimeType: 'image/jpeg', buffer: photo })
  await expect
    .poll(async () => (await build(home, 'nougat')).assembly?.records.some(record => record.photoIds.length === 1))
    .toBe(true)
  const shavings = (await build(home, 'nougat')).shave!.shavings.length
  await at(phone, '/builds/nougat/shave')
  await phone.getByLabel('What is done').first().fill('trim the aerial tube')
  await phone.getByLabel('Grams off').first().fill('0.4')
  await phone.getByLabel('Grams off').first().press('Enter')
  await expect.poll(async () => (await build(home, 'nougat')).shave!.shavings.length).toBe(shavings + 1)
  for (const [path, heading] of [
    ['choosing', 'Choosing'],
    ['fit', 'Fit'],
    ['record', 'Record'],
  ] as const) {
    await at(phone, `/builds/marzipan/${path}`)
    await expect(phone.getByRole('heading', { name: heading, exact: true })).toBeVisible()
  }
  await at(phone, '/rules')
  await expect(phone.getByRole('heading', { name: 'Rules' })).toBeVisible()
})

test('a part, its grams, a list of parts, a scale and a setting are kept', async ({ phone, home }) => {
  await at(phone, '/drawer')
  await phone.getByRole('button', { name: /^New part/ }).click()
  const inspector = phone.getByRole('complementary')
  await inspector.getByLabel('Weighed, g each').fill('9.12')
  await inspector.getByLabel('Weighed, g each').press('Enter')
  type Parts = { parts: { name: string; mass: { valueG: number } | null }[] }
  await expect
    .poll(async () => (await home.json<Parts>('/api/parts')).parts.map(part => part.mass?.valueG))
    .toEqual([9.12])
  await phone.getByRole('button', { name: 'Bring parts in' }).click()
  await phone
    .getByRole('dialog')
    .locator('input[type=file]')
    .setInputFiles({
      name: 'mine.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from('Kind;What;Owned\nMotor;Ostler 1404;4\n'),
    })
  await phone.getByRole('button', { name: 'Take the 1 good' }).click()
  await expect
    .poll(async () => (await home.json<Parts>('/api/parts')).parts.map(part => part.name))
    .toContain('Ostler 1404')
  await at(phone, '/scales')
  await expect(phone.getByRole('heading', { name: 'Your first scale' })).toBeVisible()
  await phone.getByLabel('Name').first().fill('pocket scale')
  await phone.getByRole('button', { name: 'Keep this scale' }).click()
  await expect
    .poll(async () => (await home.json<{ scales: { name: string }[] }>('/api/scales')).scales.map(scale => scale.name))
    .toEqual(['pocket scale'])
  await at(phone, '/settings')
  await phone.getByLabel('Currency').fill('kr')
  await phone.getByLabel('Currency').press('Enter')
  await expect.poll(async () => (await home.json<{ currency: string }>('/api/settings')).currency).toBe('kr')
})

test('an edit waits while signed out, says so, and is written after signing in again', async ({ phone, home }) => {
  await at(phone, '/builds/marzipan/parts')
  await expect(phone.locator('[data-row=strap]')).toBeVisible()
  await loadedAhead(phone)
  await phone.context().clearCookies()
  await phone.locator('[data-row=strap] [data-col=each]').click()
  await phone.keyboard.type('2.88')
  await phone.keyboard.press('Enter')
  await expect(phone.locator('.waiting')).toContainText('1 of Marzipan waits')
  await phone.locator('.waiting').click()
  await phone.getByRole('link', { name: 'Sign in again' }).click()
  await phone.getByLabel('Passphrase').fill('seven tall masts')
  await phone.getByRole('button', { name: 'Sign in' }).click()
  await expect(phone).toHaveURL(/\/builds\/marzipan\/parts/)
  await expect
    .poll(async () => (await build(home, 'marzipan')).lines.find(line => line.id === 'strap')?.mass?.valueG)
    .toBe(2.88)
})

test('signing out ends the session on the server and its streams, and keeps what waits', async ({ phone, home }) => {
  await at(phone, '/builds/marzipan/parts')
  await expect(phone.locator('[data-row=strap]')).toBeVisible()
  const [cookie] = await phone.context().cookies()
  const network = home.address.replace('127.0.0.1', '127.0.0.2')
  const asked = (path: string, method = 'GET') =>
    fetch(network + path, { method, headers: { cookie: `jolly-gram=${cookie!.value}` } })
  const stream = await asked('/api/builds/marzipan/stream')
  expect(stream.status).toBe(200)
  const ended = stream.text().then(
    () => 'ended',
    () => 'ended',
  )
  expect(await (await asked('/api/_auth/session')).text()).not.toMatch(/scrypt|stamp|sessionId/)
  await at(phone, '/settings')
  await phone.getByRole('button', { name: 'Sign out' }).click()
  await expect(phone.getByLabel('Passphrase')).toBeVisible()
  expect(await ended).toBe('ended')
  expect((await asked('/api/builds')).status).toBe(401)
})

test('every place and the stations of everyday work are as wide as the screen', async ({ phone, home }) => {
  await home.send('POST', '/api/parts', { parts: demoParts })
  for (const path of [
    '/',
    '/drawer',
    '/drawer?part=strap-12',
    '/rules',
    '/settings',
    '/builds/marzipan/aim',
    '/builds/marzipan/parts',
    '/builds/marzipan/parts?line=vtx',
    '/builds/marzipan/weigh',
    '/builds/nougat/shave',
    '/builds/marzipan/packs',
    '/builds/marzipan/assemble',
    '/builds/marzipan/record',
  ]) {
    await at(phone, path)
    await expect(phone.getByRole('heading', { level: 1 })).toBeVisible()
    await phone.waitForLoadState('networkidle')
    const wider = await phone.evaluate(() =>
      [...document.querySelectorAll('html, body *')]
        .filter(one => one.scrollWidth > one.clientWidth + 1)
        .filter(one => one === document.documentElement || /auto|scroll/.test(getComputedStyle(one).overflowX))
        .map(one => `${one.tagName} ${one.className}`),
    )
    expect(wider, path).toEqual([])
  }
})

test('the stations lie at the foot of the screen, and a card of the ledger is edited as its row is', async ({
  phone,
  home,
}) => {
  await at(phone, '/builds/marzipan/parts')
  const stations = phone.getByRole('navigation', { name: 'Stations' })
  const box = (await stations.boundingBox())!
  expect(box.y + box.height).toBe(844)
  for (const link of await stations.getByRole('link').all()) {
    const { width, height } = (await link.boundingBox())!
    expect(Math.min(width, height)).toBeGreaterThanOrEqual(44)
  }
  const grams = phone.locator('[data-row=strap] [data-col=grams]')
  await grams.tap()
  await grams.tap()
  await phone.keyboard.type('3.21')
  await written(phone, () => phone.keyboard.press('Enter'))
  expect((await build(home, 'marzipan')).lines.find(line => line.id === 'strap')?.mass?.valueG).toBe(3.21)
  await stations.getByRole('link', { name: 'Weigh' }).tap()
  await expect(phone.getByRole('heading', { name: 'Weigh', exact: true })).toBeVisible()
})

test('a card of the drawer is edited as its row is', async ({ phone, home }) => {
  await home.send('POST', '/api/parts', { parts: demoParts })
  await at(phone, '/drawer')
  const grams = phone.locator('[data-part=ostler-1404] [data-col=grams]')
  await grams.tap()
  await grams.tap()
  await phone.keyboard.type('9.33')
  await phone.keyboard.press('Enter')
  await expect(grams).toHaveText('9.33')
  await expect
    .poll(
      async () =>
        (await home.json<{ parts: { id: string; mass: { valueG: number } | null }[] }>('/api/parts')).parts.find(
          part => part.id === 'ostler-1404',
        )?.mass?.valueG,
    )
    .toBe(9.33)
})

test('a flight is noted in the field, and its log is read, compressed and kept', async ({ phone, home }) => {
  await at(phone, '/field')
  await expect(phone.getByText('Ready for the field')).toBeVisible()
  await choose(phone.getByLabel('Build', { exact: true }), 'Marzipan')
  await phone.getByRole('button', { name: /^Go/ }).click()
  await phone.evaluate(() => {
    const clock = JSON.parse(localStorage.getItem('field-clock')!) as { startedMs: number }
    localStorage.setItem('field-clock', JSON.stringify({ ...clock, startedMs: clock.startedMs - 20_000 }))
  })
  await phone.reload()
  await phone.getByRole('button', { name: /^Landed/ }).click()
  await phone.getByRole('button', { name: 'Keep flight 1' }).click()
  await expect(phone.getByText('Flight 1 of Marzipan is noted')).toBeVisible()
  await at(phone, '/builds/marzipan/fly?view=log')
  const rows = Array.from(
    { length: 400 },
    (_, i) => `${i / 10},${16 - i / 800 - (i % 7 < 3 ? 0.4 : 0.2)},${i % 7 < 3 ? 12 : 6}`,
  )
  const buffer = Buffer.from(`time (s),volts (V),amps (A)\n${rows.join('\n')}\n`)
  await phone.locator('input[type=file]').setInputFiles({ name: 'log.csv', mimeType: 'text/csv', buffer })
  await written(phone, () => phone.getByRole('button', { name: /^Use these/ }).click(), '/api/kept/flights')
  const { flights } = await home.json<{ flights: { logId: string | null; loggedMah: number }[] }>(
    '/api/builds/marzipan/flights',
  )
  expect(flights).toHaveLength(1)
  expect(flights[0]!.loggedMah).toBeGreaterThan(90)
  const kept = await fetch(`${home.address}/api/logs/${flights[0]!.logId}`)
  expect(kept.ok).toBe(true)
  expect(gunzipSync(Buffer.from(await kept.arrayBuffer())).toString()).toContain('time (s),volts (V),amps (A)')
})
