import { connect } from 'node:net'
import { readdirSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { request } from 'node:http'
import { join } from 'node:path'
import Database from 'better-sqlite3'
import sharp from 'sharp'
import { expect, OwnServer, test } from './server'

interface Answer {
  status: number
  body: string
  headers: Record<string, string | string[] | undefined>
}
function ask(
  address: string,
  path: string,
  {
    method = 'GET',
    headers = {},
    body,
  }: { method?: string; headers?: Record<string, string>; body?: string | Buffer } = {},
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
const problemOf = (answer: Answer) => JSON.parse(answer.body) as { status: number; detail: string; code: string }

test('started by hand on all addresses without network mode, nothing but home is answered', async () => {
  const server = new OwnServer()
  await server.start({ HOST: '0.0.0.0' })
  await server.bringIn('marzipan')
  for (const address of [server.address.replace('127.0.0.1', '127.0.0.2')]) {
    for (const [method, path] of [
      ['GET', '/'],
      ['GET', '/api/builds'],
      ['GET', '/api/builds/marzipan/export/build.json'],
      ['PUT', '/api/passphrase'],
      ['PUT', '/api/settings'],
      ['GET', '/icon.svg'],
      ['GET', '/api/bench-scale/stream'],
    ] as const) {
      for (const host of [undefined, new URL(server.address).host]) {
        const answer = await ask(address, path, {
          method,
          headers: host ? { host } : {},
          body: method === 'PUT' ? '{"passphrase":"seven tall masts"}' : undefined,
        })
        expect([answer.status, problemOf(answer).code], `${method} ${path}`).toEqual([403, 'not-open'])
      }
    }
  }
  // Passed on by a proxy on this machine it is not home either.
  for (const name of ['x-forwarded-for', 'forwarded', 'via', 'x-real-ip'])
    expect((await ask(server.address, '/api/builds', { headers: { [name]: '10.0.0.9' } })).status).toBe(403)
  expect((await ask(server.address, '/api/builds')).status).toBe(200)
  await server.end()
})

test('a signed-in phone changes neither the passphrase nor what this machine calls, by whatever path', async () => {
  const server = new OwnServer()
  await server.start({ HOST: '0.0.0.0', JOLLY_GRAM_LAN: '1', JOLLY_GRAM_PASSPHRASE: 'seven tall masts' })
  const network = server.address.replace('127.0.0.1', '127.0.0.2')
  const signedIn = await ask(network, '/sign-in', {
    method: 'POST',
    headers: { 'content-type': 'application/x-www-form-urlencoded' },
    body: 'passphrase=seven+tall+masts&then=%2Fdrawer',
  })
  expect([signedIn.status, signedIn.headers.location]).toEqual([303, '/drawer'])
  const cookie = String(signedIn.headers['set-cookie']).split(';')[0]!
  const put = (path: string, data: object, method = 'PUT') =>
    ask(network, path, { method, headers: { cookie, 'content-type': 'application/json' }, body: JSON.stringify(data) })
  for (const path of [
    '/api/passphrase',
    '/api/passphrase/',
    '/api/passphrase?',
    '/api/passphrase?a=/api/builds',
    '//api/passphrase',
    '/api//passphrase',
    '/api/./passphrase',
  ]) {
    expect((await put(path, { passphrase: 'another passphrase' })).status, path).toBeGreaterThanOrEqual(400)
  }
  expect(await server.json('/api/network')).toMatchObject({ passphraseSet: true, fromEnvironment: true })
  for (const settings of [{ benchScale: '192.168.0.7:4305' }, { networkNames: 'rebound.example' }]) {
    expect(problemOf(await put('/api/settings', settings)).code).toBe('at-the-machine')
    expect(
      problemOf(
        await put(
          '/api/kept/settings',
          { edits: [{ changes: [{ kind: 'settings', id: 'settings', set: settings }] }] },
          'POST',
        ),
      ).code,
    ).toBe('at-the-machine')
  }
  expect((await put('/api/settings', { currency: 'kr' })).status).toBe(200)
  expect(await server.json('/api/settings')).toMatchObject({ currency: 'kr', benchScale: '', networkNames: '' })
  expect(
    (
      await ask(network, '/sign-in', {
        method: 'POST',
        headers: { 'content-type': 'application/x-www-form-urlencoded' },
        body: 'passphrase=seven+tall+masts',
      })
    ).status,
  ).toBe(303)
  // A start with the same passphrase signs nobody out.
  await server.kill()
  await server.start({ HOST: '0.0.0.0', JOLLY_GRAM_LAN: '1', JOLLY_GRAM_PASSPHRASE: 'seven tall masts' })
  expect((await ask(network, '/api/builds', { headers: { cookie } })).status).toBe(200)
  await server.kill()
  await server.start({ HOST: '0.0.0.0', JOLLY_GRAM_LAN: '1', JOLLY_GRAM_PASSPHRASE: 'eight tall masts' })
  expect((await ask(network, '/api/builds', { headers: { cookie } })).status).toBe(401)
  await server.end()
})

test('bodies are counted while they come, with or without a length', async ({ server }) => {
  const { port } = new URL(server.address)
  /** Sends chunks for as long as the other side takes them; resolves with its answer and how much it took. */
  const pour = (path: string, mostBytes: number) =>
    new Promise<{ answer: string; sent: number }>(done => {
      const socket = connect(Number(port), '127.0.0.1')
      let answer = ''
      let sent = 0
      const chunk = Buffer.concat([Buffer.from('10000\r\n'), Buffer.alloc(65_536, 97), Buffer.from('\r\n')])
      socket.write(
        `POST ${path} HTTP/1.1\r\nhost: 127.0.0.1:${port}\r\ntransfer-encoding: chunked\r\ncontent-type: application/json\r\n\r\n`,
      )
      const more = () => {
        while (sent < mostBytes && !socket.destroyed) {
          sent += 65_536
          if (!socket.write(chunk)) return
        }
        if (!socket.destroyed) socket.write('0\r\n\r\n')
      }
      socket
        .on('drain', more)
        .on('data', data => {
          answer += data.toString()
        })
        .on('error', () => undefined)
        .on('close', () => done({ answer, sent }))
      more()
    })
  for (const [path, limit] of [
    ['/api/builds', 16_000_000],
    ['/api/builds/import', 256_000_000],
  ] as const) {
    const { answer, sent } = await pour(path, limit + 60_000_000)
    expect(answer).toContain('413')
    expect(sent).toBeLessThan(limit + 44_000_000)
  }
  expect((await ask(server.address, '/api/health')).status).toBe(200)
})

test('a picture that unpacks to more than a phone takes is refused before it is unpacked', async ({ server }) => {
  await server.bringIn('nougat')
  const trap = await sharp({
    create: { width: 11_000, height: 10_800, channels: 3, background: '#000' },
    limitInputPixels: false,
  })
    .png({ compressionLevel: 9 })
    .toBuffer()
  const begun = performance.now()
  const answer = await ask(server.address, '/api/builds/nougat/photos', { method: 'POST', body: trap })
  expect([answer.status, problemOf(answer).detail]).toEqual([
    422,
    'This picture has more than 52 million pixels. Take it smaller. Nothing was kept.',
  ])
  expect(performance.now() - begun).toBeLessThan(1000)
})

test('every answer says what a browser may do with it, and errors are problems with a sentence', async ({ server }) => {
  await server.bringIn('marzipan')
  for (const path of [
    '/',
    '/api/builds',
    '/api/builds/nobody',
    '/api/nothing',
    '/nothing',
    '/icon.svg',
    '/api/builds/marzipan/export/build.json',
    '/api/health',
  ]) {
    const { headers, status } = await ask(server.address, path)
    expect(headers, path).toMatchObject({
      'x-content-type-options': 'nosniff',
      'referrer-policy': 'same-origin',
      'cross-origin-resource-policy': 'same-origin',
      'cross-origin-opener-policy': 'same-origin',
    })
    expect(headers['x-powered-by'], path).toBeUndefined()
    expect(String(headers['content-security-policy']), path).toContain(
      path.startsWith('/api') ? `default-src 'none'` : `default-src 'self'`,
    )
    expect(String(headers['permissions-policy'])).toContain('camera=()')
    if (path.startsWith('/api')) expect(headers['cache-control']).toBe('no-store')
    expect(status).toBeLessThan(500)
  }
  for (const [path, options, status] of [
    ['/api/builds/%E0%A4%A', {}, 404],
    ['/api/builds/nobody', {}, 404],
    ['/api/builds', { method: 'DELETE' }, 405],
    ['/api/health', { method: 'PUT', body: '{}' }, 405],
    ['/builds/marzipan', { method: 'POST', body: '' }, 405],
    ['/api/builds/import', { method: 'POST', body: '{' }, 422],
    ['/api/_auth/session', {}, 200],
  ] as const) {
    const answer = await ask(server.address, path, options)
    expect([400, 404, 405, status], path).toContain(answer.status)
    if (answer.status >= 400) {
      expect(answer.headers['content-type'], path).toContain('application/problem+json')
      expect(problemOf(answer).detail, path).toMatch(/^[A-Z“].*\.$/)
    }
  }
})

test('the data folder and its files are for this user alone', async ({ server }) => {
  await server.bringIn('nougat')
  const photo = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#7a4' } })
    .jpeg()
    .toBuffer()
  expect((await ask(server.address, '/api/builds/nougat/photos', { method: 'POST', body: photo })).status).toBe(200)
  expect(statSync(server.folder).mode & 0o777).toBe(0o700)
  for (const entry of readdirSync(server.folder, { recursive: true, withFileTypes: true }))
    expect(statSync(join(entry.parentPath, entry.name)).mode & 0o077, entry.name).toBe(0)
})

test('a second start on one data folder says so and ends; the first goes on', async ({ server }) => {
  const second = new OwnServer()
  second.address = server.address
  expect(await second.startAndWaitForEnd({ HOST: '127.0.0.1', PORT: '0', JOLLY_GRAM_DATA: server.folder })).toBe(3)
  expect((await ask(server.address, '/api/builds')).status).toBe(200)
  rmSync(second.folder, { recursive: true, force: true })
})

test.describe('trouble with the data is said on every page with what to do, and ends by itself', () => {
  const database = (server: OwnServer) => join(server.folder, 'jolly-gram.sqlite')
  const troubles: [string, (server: OwnServer) => () => void, RegExp][] = [
    [
      'a newer database',
      server => {
        const db = new Database(database(server))
        db.exec(`INSERT INTO migrations VALUES ('999-later.sql', '2026-01-01')`)
        db.close()
        return () => {
          const again = new Database(database(server))
          again.exec(`DELETE FROM migrations WHERE name LIKE '999%'`)
          again.close()
        }
      },
      /newer version/,
    ],
    [
      'a damaged one',
      server => {
        for (const ending of ['-wal', '-shm']) rmSync(database(server) + ending, { force: true })
        renameSync(database(server), `${database(server)}.good`)
        writeFileSync(database(server), 'this is no database at all, whatever it is called. '.repeat(200))
        return () => renameSync(`${database(server)}.good`, database(server))
      },
      /damaged/,
    ],
  ]
  for (const [what, spoil, sentence] of troubles) {
    test(what, async ({ page }) => {
      const server = new OwnServer()
      await server.start()
      await server.bringIn('marzipan')
      await server.kill()
      const checkpoint = new Database(database(server))
      checkpoint.pragma('wal_checkpoint(TRUNCATE)')
      checkpoint.close()
      const mend = spoil(server)
      await server.startAnyhow()
      await page.goto(server.address)
      await expect(page.getByRole('alert')).toContainText(sentence)
      const answer = await ask(server.address, '/api/builds')
      expect([answer.status, problemOf(answer).detail]).toEqual([503, expect.stringMatching(sentence)])
      mend()
      await expect(page.getByText('Marzipan').first()).toBeVisible()
      await server.end()
    })
  }
  test('a folder that is deleted under it', async ({ app, server }) => {
    await server.bringIn('marzipan')
    renameSync(server.folder, `${server.folder}-away`)
    await expect.poll(async () => (await ask(server.address, '/api/builds')).status).toBe(503)
    await app.reload()
    await expect(app.getByRole('alert')).toContainText('moved or deleted')
    renameSync(`${server.folder}-away`, server.folder)
    await expect(app.getByText('Marzipan').first()).toBeVisible()
  })
  test('a database another program holds for eight seconds: others are answered, what was typed is written then', async ({
    app,
    server,
  }) => {
    await server.bringIn('marzipan')
    await app.goto(`${server.address}/builds/marzipan/parts`)
    await expect(app.getByTestId('verdict')).toBeVisible()
    const other = new Database(database(server))
    other.exec('BEGIN IMMEDIATE')
    await app.locator('[data-row=strap] [data-col=each]').click()
    await app.keyboard.type('3.19')
    await app.keyboard.press('Enter')
    await expect(app.getByText('Not saved yet: the server asks to wait')).toBeVisible()
    const times: number[] = []
    const until = performance.now() + 4000
    while (performance.now() < until) {
      const begun = performance.now()
      expect((await ask(server.address, '/api/builds/marzipan')).status).toBe(200)
      times.push(performance.now() - begun)
    }
    expect(times.sort((a, b) => a - b)[Math.floor(times.length * 0.5)]).toBeLessThan(50)
    other.exec('COMMIT')
    other.close()
    await expect(app.getByText('Saved', { exact: true })).toBeVisible()
    const { build } = await server.json<{ build: { lines: { id: string; mass: { valueG: number } }[] } }>(
      '/api/builds/marzipan',
    )
    expect(build.lines.find(line => line.id === 'strap')?.mass.valueG).toBe(3.19)
  })
})

test('listeners that never read cost a bounded heap', async ({ server }) => {
  await server.bringIn('marzipan')
  const { port } = new URL(server.address)
  const memory = async () => statm(server.pid)
  const sockets = Array.from({ length: 20 }, () => {
    const socket = connect(Number(port), '127.0.0.1')
    socket.write(`GET /api/builds/marzipan/stream HTTP/1.1\r\nhost: 127.0.0.1:${port}\r\n\r\n`)
    socket.pause()
    return socket
  })
  await expect.poll(async () => (await ask(server.address, '/api/health')).status).toBe(200)
  const before = await memory()
  const { revision } = await server.json<{ revision: number }>('/api/builds/marzipan')
  for (let i = 0; i < 400; i++)
    await server.send(
      'POST',
      '/api/builds/marzipan/commands',
      { command: { type: 'build.set', fields: { name: `Marzipan ${i}` } }, note: '' },
      { 'if-match': `"${revision + i}"` },
    )
  expect((await memory()) - before).toBeLessThan(80_000_000)
  for (const socket of sockets) socket.destroy()
})

test('a report of 97 set-ups with 302 packs is done or refused in ten seconds, and others are answered meanwhile', async ({
  server,
}) => {
  test.setTimeout(120_000)
  await server.bringIn('nougat')
  const file = await server.json<{
    build: {
      lines: { id: string; slot: string; mass: { versionId: string } | null }[]
      setups: { id: string; name: string; lineIds: string[] }[]
      id: string
    }
    journal: unknown[]
    massVersions: { lineId: string; mass: { versionId: string } }[]
  }>('/api/builds/nougat/export/build.json')
  const pack = file.build.lines.find(line => line.slot === 'pack')!
  for (let i = 0; file.build.lines.filter(line => line.slot === 'pack').length < 302; i++)
    file.build.lines.push({ ...pack, id: `pack${i}`, mass: pack.mass && { ...pack.mass, versionId: `pv${i}` } })
  for (let i = 0; file.build.setups.length < 97; i++)
    file.build.setups.push({ id: `su${i}`, name: `set-up ${i}`, lineIds: [] })
  file.journal = []
  file.massVersions = []
  const made = await ask(server.address, '/api/builds/import', {
    method: 'POST',
    body: JSON.stringify({ ...file, build: { ...file.build, id: 'many' } }),
  })
  expect(made.status, made.body.slice(0, 300)).toBe(200)
  for (const path of ['/api/builds/many/report', '/api/builds/many/export/sheet.md']) {
    const begun = performance.now()
    const report = ask(server.address, path).then(answer => ({ answer, ms: performance.now() - begun }))
    let done = false
    void report.finally(() => {
      done = true
    })
    const times: number[] = []
    while (!done) {
      const at = performance.now()
      await ask(server.address, '/api/builds/nougat')
      times.push(performance.now() - at)
    }
    const { answer, ms } = await report
    expect(ms).toBeLessThan(10_900)
    expect([200, 422]).toContain(answer.status)
    if (answer.status === 422) expect(problemOf(answer).detail).toContain('97 set-ups with 302 packs')
    expect(times.sort((a, b) => a - b)[Math.floor(times.length / 2)]).toBeLessThan(50)
  }
})

/** Resident memory of a process, bytes. */
async function statm(pid: number): Promise<number> {
  const { readFile } = await import('node:fs/promises')
  return Number((await readFile(`/proc/${pid}/statm`, 'utf8')).split(' ')[1]) * 4096
}
