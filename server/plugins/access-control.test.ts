import { createServer, type Server } from 'node:http'
import * as h3 from 'h3'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { mostBodyBytes } from '../network/origin'
import { applicationOnDisk } from '../testing'

/** Where a request seems to come from: this machine itself, or a phone in the same network. */
type From = 'here' | 'a phone'
const seen = { here: ['127.0.0.1', '127.0.0.1'], 'a phone': ['192.168.7.20', '192.168.7.4'] } as const

let disk: ReturnType<typeof applicationOnDisk>
let server: Server
let port: number
let from: From
let onNetwork: boolean
let signedIn: string | null
let trouble: Error | null
let tried: string[]

beforeEach(async () => {
  disk = applicationOnDisk()
  ;[from, onNetwork, signedIn, trouble, tried] = ['here', false, null, null, []]
  for (const [name, what] of Object.entries(h3)) vi.stubGlobal(name, what)
  vi.stubGlobal('defineNitroPlugin', (plugin: unknown) => plugin)
  vi.stubGlobal('sessionHooks', { hook: () => undefined })
  vi.stubGlobal('sealingKey', async () => 'k'.repeat(32))
  vi.stubGlobal('isOnNetwork', () => onNetwork)
  vi.stubGlobal('machineNames', () => ['bench'])
  vi.stubGlobal('getUserSession', async () => (signedIn === null ? {} : { secure: { sessionId: signedIn } }))
  vi.stubGlobal('replaceUserSession', async () => {
    signedIn = 'new'
  })
  vi.stubGlobal('usePassphrase', async () => ({
    isSet: () => true,
    prepare: async () => undefined,
    async matches(text: string) {
      tried.push(text)
      return text === 'open sesame please'
    },
  }))
  vi.stubGlobal('useApplication', async () => {
    if (trouble) throw trouble
    return disk.app
  })
  const h3App = h3.createApp()
  h3App.use(
    '/',
    h3.defineEventHandler(event => `let in: ${event.path}${event.context.atTheMachine ? ' at the machine' : ''}`),
  )
  const { default: plugin } = await import('./access-control')
  plugin({ h3App } as never)
  const listener = h3.toNodeListener(h3App)
  server = createServer((request, response) => {
    const [remoteAddress, localAddress] = seen[from]
    Object.defineProperty(request.socket, 'remoteAddress', { value: remoteAddress, configurable: true })
    Object.defineProperty(request.socket, 'localAddress', { value: localAddress, configurable: true })
    if (from === 'a phone') request.headers.host = `192.168.7.4:${port}`
    listener(request, response)
  })
  await new Promise<void>(done => server.listen(0, '127.0.0.1', done))
  port = (server.address() as { port: number }).port
})
afterEach(() => {
  server.close()
  server.closeAllConnections()
  vi.unstubAllGlobals()
  vi.resetModules()
  disk.app.close()
  disk.remove()
})

async function ask(path: string, init: RequestInit = {}) {
  const answer = await fetch(`http://127.0.0.1:${port}${path}`, { redirect: 'manual', ...init })
  return { status: answer.status, headers: answer.headers, text: await answer.text() }
}
const asPage = { headers: { accept: 'text/html' } }

describe('at this machine', () => {
  it('everything is answered, and known to be asked for here', async () => {
    expect(await ask('/builds/a/parts', asPage)).toMatchObject({
      status: 200,
      text: 'let in: /builds/a/parts at the machine',
    })
  })
  it('every answer says what a browser may do with it, refusals too', async () => {
    for (const { headers } of [await ask('/'), await ask('/', { method: 'DELETE' })]) {
      expect(headers.get('content-security-policy')).toContain("default-src 'self'")
      expect(headers.get('x-content-type-options')).toBe('nosniff')
    }
  })
  it.each([
    ['another page’s write', '/api/builds', { method: 'POST', headers: { origin: 'http://elsewhere' } }, 403],
    ['what was passed on', '/', { headers: { 'x-forwarded-for': '10.0.0.1' } }, 403],
    ['a write to a page', '/builds/a', { method: 'POST' }, 405],
    ['a body too large', '/api/builds', { method: 'POST', body: 'x'.repeat(mostBodyBytes + 1) }, 413],
  ] as const)('%s is refused as a problem with a sentence', async (_what, path, init, status) => {
    const answer = await ask(path, init)
    expect(answer.status).toBe(status)
    expect(JSON.parse(answer.text)).toMatchObject({ status, detail: expect.stringMatching(/\.$/) })
  })
  it('a log of a flight may be larger than a change', async () => {
    const body = 'x'.repeat(mostBodyBytes + 1)
    expect((await ask('/api/logs', { method: 'POST', body })).status).toBe(200)
  })
  it('the sign-in page leads on: nobody signs in here', async () => {
    const answer = await ask('/sign-in')
    expect([answer.status, answer.headers.get('location')]).toEqual([303, '/'])
  })
  it('trouble with the data is a page where a page was asked for, else a problem, and may be tried again', async () => {
    trouble = Object.assign(new Error('no room'), { code: 'SQLITE_FULL' })
    const page = await ask('/', asPage)
    expect([page.status, page.headers.get('retry-after')]).toEqual([503, '3'])
    expect(page.text).toContain('The disk with the data folder is full.')
    const data = await ask('/api/builds')
    expect([data.status, data.headers.get('content-type')]).toEqual([503, 'application/problem+json'])
    expect((await ask('/_nuxt/entry.js')).status).toBe(200)
  })
})

describe('from a phone', () => {
  beforeEach(() => {
    from = 'a phone'
  })
  it('nothing is answered before the application was opened to the network', async () => {
    const answer = await ask('/', asPage)
    expect(answer.status).toBe(403)
    expect(answer.text).toContain('is not open to the network')
  })
  it('a page asks for the passphrase, data are refused, files of the application too', async () => {
    onNetwork = true
    const page = await ask('/drawer?part=strap', asPage)
    expect([page.status, page.headers.get('cache-control')]).toEqual([401, 'no-store'])
    expect(page.text).toContain('name="then" value="/drawer?part=strap"')
    const data = await ask('/api/builds')
    expect(JSON.parse(data.text)).toMatchObject({ status: 401, code: 'signed-out' })
    expect((await ask('/_nuxt/entry.js')).status).toBe(401)
  })
  it('the right passphrase opens it and leads to where one wanted to go, a wrong one says so', async () => {
    onNetwork = true
    const signIn = (passphrase: string) =>
      ask('/sign-in', {
        method: 'POST',
        body: new URLSearchParams({ passphrase, then: '/drawer' }),
        headers: { origin: `http://192.168.7.4:${port}` },
      })
    const wrong = await signIn('let me in')
    expect([wrong.status, signedIn]).toEqual([401, null])
    expect(wrong.text).toContain('That is not the passphrase.')
    const right = await signIn('open sesame please')
    expect([right.status, right.headers.get('location'), signedIn]).toEqual([303, '/drawer', 'new'])
    expect(tried).toEqual(['let me in', 'open sesame please'])
  })
  it('who tries too many waits, and nothing is looked at meanwhile', async () => {
    onNetwork = true
    let last = 401
    for (let n = 0; n < 40 && last === 401; n++)
      last = (
        await ask('/sign-in', {
          method: 'POST',
          body: new URLSearchParams({ passphrase: `guess ${n}` }),
          headers: { origin: `http://192.168.7.4:${port}` },
        })
      ).status
    expect(last).toBe(429)
    expect(tried.length).toBeLessThan(40)
  })
  it('who has signed in is let in, but is not at the machine; an ended session is none', async () => {
    onNetwork = true
    signedIn = disk.app.sessions.begin()
    expect((await ask('/drawer', asPage)).text).toBe('let in: /drawer')
    expect((await ask('/sign-in?then=/scales', asPage)).headers.get('location')).toBe('/scales')
    disk.app.sessions.end(signedIn)
    expect((await ask('/drawer', asPage)).status).toBe(401)
  })
})
