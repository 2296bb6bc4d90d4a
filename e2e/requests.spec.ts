import type { Page } from '@playwright/test'
import { request as rawRequest } from 'node:http'
import { expect, test } from './server'

/** Types masses into the strap's cell, each over the one before. */
async function typeOneAfterAnother(app: Page, masses: readonly string[]) {
  await app.locator('[data-row=strap] [data-col=each]').click()
  for (const grams of masses) {
    await app.keyboard.type(grams)
    await app.keyboard.press('Enter')
    await app.keyboard.press('ArrowUp')
  }
}

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

test('the routes refuse in sentences whatever comes past the interface', async ({ server }) => {
  await server.bringIn('marzipan')
  const { revision } = await server.json<{ revision: number }>('/api/builds/marzipan')
  const send = async (body: string, headers: Record<string, string> = { 'if-match': `"${revision}"` }) => {
    const answer = await fetch(`${server.address}/api/builds/marzipan/commands`, { method: 'POST', body, headers })
    return {
      status: answer.status,
      type: answer.headers.get('content-type'),
      problem: (await answer.json()) as { detail: string; field?: string },
    }
  }
  const change = (fields: object) =>
    JSON.stringify({ command: { type: 'lines.change', changes: [{ id: 'strap', fields }] } })
  for (const [body, field] of [
    [change({ quantity: 2.5 }), 'quantity'],
    [change({ quantity: 0 }), 'quantity'],
    [change({ name: '' }), 'name'],
    [change({ name: '<script>' }), 'name'],
    [change({ priceEachCents: -1 }), 'priceEachCents'],
    [change({ colour: 'red' }), 'fields'],
  ] as const) {
    const { status, type, problem } = await send(body)
    expect([status, type?.split(';')[0]]).toEqual([422, 'application/problem+json'])
    expect(problem.field).toContain(field)
    expect(problem.detail.length).toBeGreaterThan(10)
  }
  expect((await send('{"command":')).problem.detail).toBe('The request is not JSON.')
  expect((await send(change({ quantity: 2 }), {})).status).toBe(428)
  expect((await send(change({ quantity: 2 }), { 'if-match': '"77"' })).status).toBe(409)
  expect(
    (await send(change({ quantity: 2 }), { 'if-match': `"${revision}"`, origin: 'http://elsewhere.example' })).status,
  ).toBe(403)
  expect((await server.json<{ revision: number }>('/api/builds/marzipan')).revision).toBe(revision)
  expect((await fetch(`${server.address}/api/builds/nobody`)).status).toBe(404)
})

test('the application’s own files come packed to whoever can unpack them', async ({ server }) => {
  const page = await (await fetch(server.address)).text()
  const script = /src="(\/_nuxt\/[^"]+\.js)"/.exec(page)![1]!
  const come = (encoding: string) =>
    new Promise<{ encoding: string | undefined; bytes: number }>((done, fail) => {
      rawRequest(server.address + script, { headers: { 'accept-encoding': encoding } }, answer => {
        let bytes = 0
        answer
          .on('data', (chunk: Buffer) => (bytes += chunk.length))
          .on('end', () => done({ encoding: answer.headers['content-encoding'], bytes }))
      })
        .on('error', fail)
        .end()
    })
  const [plain, packed] = [await come('identity'), await come('gzip, deflate')]
  expect([plain.encoding, packed.encoding]).toEqual([undefined, 'gzip'])
  expect(packed.bytes).toBeLessThan(plain.bytes / 2)
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
