import { request } from 'node:http'
import { expect, test } from '@playwright/test'
import { OwnServer } from './server'

interface Answer {
  status: number
  body: string
  headers: Record<string, string | string[] | undefined>
}

/** Asks over plain sockets, so that any Host and Origin can be said. */
function ask(
  address: string,
  path: string,
  { method = 'GET', headers = {}, body }: { method?: string; headers?: Record<string, string>; body?: string } = {},
): Promise<Answer> {
  return new Promise((done, fail) => {
    const asked = request(address + path, { method, headers }, answer => {
      let text = ''
      answer
        .setEncoding('utf8')
        .on('data', chunk => {
          text += chunk
        })
        .on('end', () => done({ status: answer.statusCode ?? 0, body: text, headers: answer.headers }))
    })
    asked.on('error', fail).end(body)
  })
}
const form = { 'content-type': 'application/x-www-form-urlencoded' }
const routes = [
  '/',
  '/api/health',
  '/api/builds',
  '/api/builds/marzipan',
  '/api/builds/marzipan/export/build.json',
  '/api/builds/marzipan/stream',
  '/api/bench-scale/stream',
  '/api/scales',
  '/api/settings',
  '/api/network',
  '/api/search?q=a',
  '/api/_auth/session',
  '/icon.svg',
  '/nothing',
]

test.describe('on the network', () => {
  const server = new OwnServer()
  let network = ''
  test.beforeAll(async () => {
    await server.start({ HOST: '0.0.0.0', JOLLY_GRAM_LAN: '1', JOLLY_GRAM_PASSPHRASE: 'seven tall masts' })
    await server.bringIn('marzipan')
    network = server.address.replace('127.0.0.1', '127.0.0.2')
  })
  test.afterAll(() => server.end())
  test.describe.configure({ mode: 'serial' })

  test('without a session every route answers 401 and no data, the event streams included', async () => {
    for (const path of routes) {
      const answer = await ask(network, path, { headers: { accept: path === '/' ? 'text/html' : 'application/json' } })
      expect(answer.status, path).toBe(401)
      expect(answer.body, path).not.toMatch(/marzipan|Marzipan/)
    }
    expect(
      (await ask(network, '/api/builds/marzipan/undo', { method: 'POST', headers: { 'if-match': '"1"' } })).status,
    ).toBe(401)
    expect((await ask(server.address, '/api/builds')).status).toBe(200)
  })
  test('a foreign Host or Origin is refused, in both ways', async () => {
    for (const [address, host] of [
      [network, 'rebound.example'],
      [network, '127.0.0.1'],
      [server.address, 'rebound.example'],
    ] as const) {
      expect((await ask(address, '/api/builds', { headers: { host } })).status).toBe(403)
    }
    expect(
      (
        await ask(network, '/sign-in', {
          method: 'POST',
          headers: { ...form, origin: 'http://evil.example' },
          body: 'passphrase=seven+tall+masts',
        })
      ).status,
    ).toBe(403)
  })
  test('the passphrase opens a session from the sign-in page, and the phone sees the bench', async ({ browser }) => {
    const phone = await browser.newPage({ viewport: { width: 390, height: 844 } })
    await phone.goto(network)
    await phone.getByLabel('Passphrase').fill('wrong one')
    await phone.getByRole('button', { name: 'Sign in' }).click()
    await expect(phone.getByRole('alert')).toContainText('not the passphrase')
    await phone.getByLabel('Passphrase').fill('seven tall masts')
    await phone.getByRole('button', { name: 'Sign in' }).click()
    await expect(phone.getByText('Marzipan').first()).toBeVisible()
    const cookie = (await phone.context().cookies()).find(c => c.name === 'jolly-gram')!
    expect(cookie).toMatchObject({ httpOnly: true, sameSite: 'Strict' })
    const with_ = (value: string) => ask(network, '/api/builds', { headers: { cookie: `jolly-gram=${value}` } })
    expect((await with_(cookie.value)).status).toBe(200)
    expect((await with_(`${cookie.value.slice(0, -6)}AAAAAA`)).status).toBe(401)
    expect(
      (
        await ask(network, '/api/passphrase', {
          method: 'PUT',
          headers: { cookie: `jolly-gram=${cookie.value}`, 'content-type': 'application/json' },
          body: '{"passphrase":"another passphrase"}',
        })
      ).status,
    ).toBe(403)
    await phone.close()
  })
  test('the eleventh wrong passphrase in a minute is slowed down, the right one too', async () => {
    const attempt = (passphrase: string) =>
      ask(network, '/sign-in', { method: 'POST', headers: form, body: new URLSearchParams({ passphrase }).toString() })
    let answer = await attempt('wrong 0')
    for (let i = 1; i < 12 && answer.status === 401; i++) answer = await attempt(`wrong ${i}`)
    expect(answer.status).toBe(429)
    expect(Number(answer.headers['retry-after'])).toBeGreaterThan(0)
    expect((await attempt('seven tall masts')).status).toBe(429)
  })
})

test('without a passphrase it does not open to the network at all', async () => {
  const server = new OwnServer()
  await server.start()
  await server.kill()
  const ended = server.startAndWaitForEnd({ HOST: '0.0.0.0', JOLLY_GRAM_LAN: '1' })
  expect(await ended).toBe(2)
  await server.end()
})
