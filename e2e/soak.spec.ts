import { createHash } from 'node:crypto'
import { existsSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import Database from 'better-sqlite3'
import { chromium, type Page } from '@playwright/test'
import type { BuildReply } from '../shared/schemas/api'
import { demoBuilds, expect, OwnServer, test } from './server'

/** In the suite a short form of each; `npm run soak` runs them whole. */
const whole = process.env.SOAK === '1'
const much = (full: number, short: number) => (whole ? full : short)

/** A small generator of chance with a seed, so that a run can be had again (mulberry32). */
function chance(seed: number) {
  const next = () => {
    seed = (seed + 0x6d2b79f5) | 0
    let t = Math.imul(seed ^ (seed >>> 15), 1 | seed)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
  const pick = <T>(items: readonly T[]): T => items[Math.floor(next() * items.length)]!
  return { next, pick, below: (n: number) => Math.floor(next() * n) }
}
const seed = Number(process.env.SEED ?? 20261127)

interface Answer {
  status: number
  body: string
  ms: number
}
async function ask(
  address: string,
  method: string,
  path: string,
  body?: string,
  headers: Record<string, string> = {},
): Promise<Answer> {
  const begun = performance.now()
  const answer = await fetch(address + path, {
    method,
    body,
    headers: { 'content-type': 'application/json', ...headers },
    signal: AbortSignal.timeout(20_000),
  })
  return { status: answer.status, body: await answer.text(), ms: performance.now() - begun }
}

test('killed again and again, what was acknowledged is there', async () => {
  test.setTimeout(whole ? 3_600_000 : 180_000)
  const { below, next } = chance(seed)
  const server = new OwnServer()
  await server.start()
  await server.bringIn('marzipan', 'nougat')
  let acknowledged = 0
  let lost = 0
  const last: Record<string, { note: string; n: number }> = {}
  for (let kill = 0; kill < much(1000, 14); kill++) {
    let down = false
    const writer = async (build: string, tag: string) => {
      const { revision } = await server.json<BuildReply>(`/api/builds/${build}`).catch(() => ({ revision: -1 }))
      for (let n = 0, seen = revision; !down && seen >= 0; n++) {
        const note = `${kill}-${n}`
        const command = { type: 'lines.change', changes: [{ id: 'strap', fields: { note } }] }
        const answer = await ask(
          server.address,
          'POST',
          `/api/builds/${build}/commands`,
          JSON.stringify({ command, note: '', key: `${tag}${kill}.${n}` }),
          { 'if-match': `"${seen}"` },
        ).catch(() => null)
        if (answer?.status !== 200) return
        seen = (JSON.parse(answer.body) as { revision: number }).revision
        last[build] = { note, n }
        acknowledged++
      }
    }
    const writers = [writer('marzipan', 'm'), writer('nougat', 'n')]
    // Killed amid the writes, wherever they then are: after some were acknowledged, however long that takes.
    const enough = acknowledged + 4 + below(8)
    await expect.poll(() => acknowledged, { intervals: [5], timeout: 30_000 }).toBeGreaterThanOrEqual(enough)
    await new Promise(after => setTimeout(after, below(20) + (next() < 0.1 ? 150 : 0)))
    await server.kill()
    down = true
    await Promise.all(writers)
    await server.start()
    for (const [build, { note }] of Object.entries(last)) {
      const { build: present } = await server.json<BuildReply>(`/api/builds/${build}`)
      const [[round, n], [wantedRound, wantedN]] = [present.lines.find(line => line.id === 'strap')!.note, note].map(
        text => text.split('-').map(Number),
      ) as [number[], number[]]
      // What was not acknowledged may be there too; what was, must be.
      if (round! < wantedRound! || (round === wantedRound && n! < wantedN!)) lost++
    }
  }
  expect(lost).toBe(0)
  expect(acknowledged).toBeGreaterThan(much(1000, 14) * 3)
  console.log(`${much(1000, 14)} kills, ${acknowledged} acknowledged writes, ${lost} lost`)
  await server.end()
})

/** Every route there is, from the folder they lie in. */
function routes(): { method: string; path: string }[] {
  const folder = join(import.meta.dirname, '../server/api')
  return readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter(entry => entry.isFile() && entry.name.endsWith('.ts'))
    .flatMap(entry => {
      const file = join(entry.parentPath, entry.name)
        .slice(folder.length + 1)
        .replace(/\.ts$/, '')
      const match = /^(.*)\.(get|post|put|patch|delete)$/.exec(file)
      return match ? [{ method: match[2]!.toUpperCase(), path: `/api/${match[1]!}`.replace(/\/index$/, '') }] : []
    })
}

/** No answer takes as long as reading and writing all demo files so often: about a second on a machine that has nothing else to do. */
const mostRounds = 400
/** How long reading and writing all of them once takes now, ms. */
function roundMs(texts: readonly string[]): number {
  const rounds = 20
  const begun = performance.now()
  for (let i = 0; i < rounds; i++) for (const text of texts) JSON.stringify(JSON.parse(text))
  return (performance.now() - begun) / rounds
}

test('generated requests over all routes: no server error, nothing slow, nothing changed by a refusal, no heap left behind', async () => {
  test.setTimeout(whole ? 3_600_000 : 300_000)
  const { next, pick, below } = chance(seed)
  const server = new OwnServer()
  const heapFile = join(server.folder, '..', `heap-${process.pid}-${below(1e9)}`)
  await server.start({
    NODE_OPTIONS: `--expose-gc --import=${join(import.meta.dirname, 'tools/heap-hook.mjs')}`,
    HEAP_FILE: heapFile,
  })
  await server.bringIn(...demoBuilds)
  const { parts, kits } = JSON.parse(readFileSync(join(import.meta.dirname, '../demo/drawer.json'), 'utf8')) as {
    parts: { id: string; kitId: string | null }[]
    kits: object[]
  }
  await server.send('POST', '/api/parts', { parts: parts.map(part => ({ ...part, kitId: null })) })
  const files = demoBuilds.map(name =>
    readFileSync(join(import.meta.dirname, `../demo/builds/${name}.build.json`), 'utf8'),
  )
  const build = (JSON.parse(files[2]!) as { build: BuildReply['build'] }).build
  const all = routes().filter(({ path }) => !path.includes('[...'))
  expect(all.length).toBeGreaterThan(50)

  const names = [
    'marzipan',
    'praline',
    'nougat',
    'sherbet',
    'treacle',
    'nobody',
    'constructor',
    '__proto__',
    '..',
    '%00',
    'a'.repeat(80),
    '',
  ]
  const ids = [
    ...build.lines.map(line => line.id).slice(0, 6),
    'p1',
    'blue',
    'jp-100',
    '1',
    '0',
    '-1',
    '9007199254740993',
    'constructor',
    '%F0%9F%8D%AC',
  ]
  const scalars: (() => unknown)[] = [
    () => 0,
    () => -1,
    () => 1e308,
    () => 5e-324,
    () => 2 ** 53,
    () => null,
    () => true,
    () => '',
    () => 'x'.repeat(300),
    () => '=1+1',
    () => '<b>',
    () => '\ud800',
    () => '\u0000',
    () => [],
    () => ({}),
    () => 'constructor',
    () => pick(ids),
    () => below(100),
    () => '2026-11-27',
    () => '2026-11-27T10:00:00.000Z',
  ]
  /** A value like this one with something in it turned into something else. */
  const spoilt = (value: unknown, depth = 0): unknown => {
    if (depth > 6 || typeof value !== 'object' || value === null) return next() < 0.3 ? pick(scalars)() : value
    if (Array.isArray(value))
      return value.length === 0 || next() < 0.1
        ? pick(scalars)()
        : value.map((item, i) => (i === below(value.length) ? spoilt(item, depth + 1) : item))
    const keys = Object.keys(value)
    const chosen = pick(keys)
    const missing = next() < 0.1 ? pick(keys) : null
    const changed = Object.fromEntries(
      keys
        .filter(key => key !== missing)
        .map(key => [
          key,
          key === chosen
            ? spoilt((value as Record<string, unknown>)[key], depth + 1)
            : (value as Record<string, unknown>)[key],
        ]),
    )
    if (next() < 0.1) changed[pick(['extra', 'constructor', '__proto__'])] = pick(scalars)()
    return changed
  }
  const line = () => ({ ...pick(build.lines), id: `l${below(1e9)}` })
  const commands: (() => unknown)[] = [
    () => ({ type: 'build.set', fields: { name: `N${below(99)}`, aim: { reserveG: below(5) } } }),
    () => ({ type: 'lines.add', lines: [{ ...line(), mass: null }], beforeId: null }),
    () => ({
      type: 'lines.change',
      changes: [{ id: pick(build.lines).id, fields: { note: `n${below(99)}`, quantity: 1 + below(4) } }],
    }),
    () => ({ type: 'lines.move', ids: [pick(build.lines).id], beforeId: pick(build.lines).id }),
    () => ({ type: 'lines.delete', ids: [pick(build.lines).id] }),
    () => ({ type: 'line.fit', id: pick(build.lines).id }),
    () => ({ type: 'setup.put', setup: { id: `s${below(200)}`, name: 'one', lineIds: [pick(build.lines).id] } }),
    () => ({ type: 'setup.delete', id: pick(build.setups).id }),
    () => ({ type: 'observation.delete', id: 'x' }),
    () => ({ type: 'fit.set', fields: build.fit ?? {} }),
    () => ({ type: 'flying.set', fields: { altitudeM: below(3000) } }),
    () => ({ type: 'shave.set', fields: { everyLoadout: true } }),
    () => ({ type: 'shaving.delete', id: 'x' }),
    () => ({ type: 'shavings.plan', ids: [] }),
    () => ({ type: 'assembly.set', fields: { school: pick(['motors first', 'constructor']) } }),
    () => ({ type: 'assembly.record', stepId: 'dry-fit', fields: { note: 'x', minutes: below(50) } }),
    () => ({ type: 'loadout.fly', choice: build.flies }),
    () => ({ type: 'loadout.never', choice: build.flies, never: next() < 0.5 }),
  ]
  const bodies: Record<string, () => unknown> = {
    commands: () => ({ command: pick(commands)(), note: '', key: `k${below(1e6)}.1` }),
    many: () => ({ commands: Array.from({ length: 1 + below(3) }, () => ({ command: pick(commands)(), note: '' })) }),
    import: () => JSON.parse(pick(files)) as unknown,
    builds: () =>
      pick([
        { from: 'empty', name: 'E' },
        { from: 'copy', name: 'C', buildId: 'marzipan' },
        { from: 'class', name: 'K', craftClass: 'whatever' },
      ]),
    parts: () => ({ parts: [pick(parts)] }),
    rows: () => ({ rows: [{ id: `r${below(1e9)}`, slot: 'strap', name: 'row', owned: 1 }] }),
    remove: () => ({ ids: [pick(parts).id] }),
    mapping: () => ({ heads: 'a', mapping: { a: 'name' } }),
    kits: () => ({ kit: kits[0], parts: [pick(parts)] }),
    settings: () => ({ currency: 'kr', confidence: 0.9 }),
    scales: () => ({ name: 'blue', resolutionG: 0.01, capacityG: 200, repeatabilityG: null, checkIntervalDays: 30 }),
    references: () => ({ name: 'brass', massG: 50, toleranceG: 0.01, coin: false }),
    checks: () => ({ takenAt: '2026-11-27T10:00:00.000Z', placings: [{ references: [], displayG: 0 }] }),
    tares: () => ({ name: 'lid', scaleId: 'blue', displayG: 4, takenAt: '2026-11-27T10:00:00.000Z' }),
    cards: () => ({
      place: 'P',
      purpose: 'q',
      purposeKind: 'any',
      comparator: '<',
      limit: { value: 250, unit: 'g' },
      counts: 'take-off',
      conditions: [],
      within: [],
      beyond: [],
      always: [],
      source: '',
      status: 'in force',
      since: null,
    }),
    verified: () => ({ verifiedOn: '2026-11-02' }),
    templates: () => ({ id: 't', name: 'way', order: [], own: [] }),
    passphrase: () => ({ passphrase: '' }),
    'hand-over': () => ({ lineIds: [pick(build.lines).id], to: { kind: 'drawer' } }),
    rescue: () => ({ what: pick(['put away', 'bring back', 'take back']) }),
    kept: () => ({
      edits: [
        {
          changes: [
            {
              kind: pick(['part', 'scale', 'settings', 'card']),
              id: pick(ids),
              set: pick([{ currency: '€' }, { bag: 'x' }, null]),
            },
          ],
        },
      ],
    }),
    journal: () => ({ note: 'why' }),
    pan: () => ({ masses: [{ name: 'a', massG: 1 }] }),
  }
  const bodyOf = (path: string): string | undefined => {
    const made =
      Object.entries(bodies)
        .filter(([key]) => path.split('/').includes(key))
        .at(-1)?.[1]() ?? {}
    const r = next()
    if (r < 0.35) return JSON.stringify(made)
    if (r < 0.85) return JSON.stringify(spoilt(made))
    return pick(['', '{', 'null', '[]', '"x"', '{"__proto__":{"a":1}}', `{"a":${'['.repeat(2000)}`, '\ufeff{}'])
  }
  const probe = new Database(join(server.folder, 'jolly-gram.sqlite'), { readonly: true })
  const version = () => probe.pragma('data_version', { simple: true })
  const tables = probe.prepare(`SELECT name FROM sqlite_schema WHERE type = 'table'`).pluck().all() as string[]
  /** Everything kept, as one word. A commit in which all was taken back writes pages, but changes nothing. */
  const digest = () => {
    const hash = createHash('sha1')
    for (const table of tables)
      for (const row of probe.prepare(`SELECT * FROM ${table}`).raw().iterate() as Iterable<unknown[]>)
        hash.update(JSON.stringify(row))
    return hash.digest('hex')
  }
  let shown = version()
  let kept = digest()
  const heap = async (): Promise<number> => {
    rmSync(heapFile, { force: true })
    process.kill(server.pid, 'SIGUSR2')
    await expect.poll(() => existsSync(heapFile) && readFileSync(heapFile, 'utf8') !== '').toBe(true)
    return Number(readFileSync(heapFile, 'utf8'))
  }
  const count = much(24_000, 900)
  const statuses: Record<string, number> = {}
  const bad: string[] = []
  let before = 0
  for (let i = 0; i < count; i++) {
    // The first tenth fills caches; the heap is compared from there on.
    if (i === Math.floor(count / 10)) before = await heap()
    const route = pick(all)
    if (route.path.endsWith('/stream') || route.path.endsWith('/photos')) continue
    if (route.method === 'DELETE' && route.path === '/api/builds/[id]' && next() < 0.9) continue
    const path = route.path.replace(/\[(\w+)\]/g, (_all, name: string) =>
      name === 'id' && route.path.includes('/builds/')
        ? pick(names)
        : name === 'document'
          ? pick(['drawer', 'rules', 'scales', 'templates', 'settings', 'nothing'])
          : pick(ids),
    )
    const revision = pick([undefined, '"1"', '"2"', `"${below(60)}"`, '"9007199254740993"', 'x', '*'])
    const answer = await ask(
      server.address,
      route.method,
      path + pick(['', '', '?without=journal', '?q=%27%22']),
      route.method === 'GET' ? undefined : bodyOf(route.path),
      revision ? { 'if-match': revision } : {},
    ).catch((error: Error) => ({ status: 599, body: error.message, ms: 0 }))
    statuses[answer.status] = (statuses[answer.status] ?? 0) + 1
    const what = `${route.method} ${path}: ${answer.status} ${answer.body.slice(0, 160)}`
    if (answer.status >= 500) bad.push(what)
    // An archive reads and writes everything: it takes as long as that does.
    const isSlow = answer.ms > 1000 && answer.ms > mostRounds * roundMs(files)
    if (isSlow && !path.startsWith('/api/archive')) bad.push(`${what} took ${Math.round(answer.ms)} ms`)
    if (version() !== shown) {
      const now = digest()
      if (answer.status >= 400 && now !== kept) bad.push(`${what} changed something`)
      shown = version()
      kept = now
    }
    if (answer.status >= 400 && answer.status < 500 && !/"detail":"[^"]{8,}/.test(answer.body))
      bad.push(`${what} says nothing`)
    if (i % 400 === 0) for (const file of files) await ask(server.address, 'POST', '/api/builds/import', file)
    if (i % 400 === 0)
      for (const entry of (
        JSON.parse((await ask(server.address, 'GET', '/api/builds')).body) as { entries: { id: string }[] }
      ).entries.slice(12)) {
        await ask(server.address, 'POST', `/api/builds/${entry.id}/rescue`, '{"what":"put away"}')
        await ask(server.address, 'DELETE', `/api/builds/${entry.id}`)
      }
    if (i % 400 === 0) kept = digest()
  }
  expect(bad.slice(0, 12)).toEqual([])
  const { entries, unreadable } = await server.json<{ entries: { id: string }[]; unreadable: object[] }>('/api/builds')
  expect(unreadable).toEqual([])
  for (const { id } of entries)
    for (const path of ['', '/export/build.json', '/report', '/export/sheet.md', '/export/parts.csv', '/journal'])
      expect((await ask(server.address, 'GET', `/api/builds/${id}${path}`)).status, id + path).toBe(200)
  const grown = (await heap()) - before
  console.log(`${count} requests: ${JSON.stringify(statuses)}; heap grew by ${(grown / 1e6).toFixed(1)} MB`)
  expect(grown).toBeLessThan(20_000_000)
  expect(statuses['200']).toBeGreaterThan(count / 10)
  probe.close()
  await server.end()
})

test('edit, switch, lose the network, kill the server, kill the tab, sign out: in the end everything typed is written or listed', async ({
  launchOptions,
}) => {
  test.setTimeout(whole ? 3_600_000 : 240_000)
  // As a phone in the network has it: a name that is not trusted, with a session to be signed out of.
  const name = 'tram-shed.home'
  const inNetwork = { HOST: '0.0.0.0', JOLLY_GRAM_LAN: '1', JOLLY_GRAM_PASSPHRASE: 'seven tall masts' }
  const server = new OwnServer()
  await server.start(inNetwork)
  await server.send('PUT', '/api/settings', { networkNames: name })
  const browser = await chromium.launch({
    ...launchOptions,
    args: [...(launchOptions.args ?? []), `--host-resolver-rules=MAP ${name} 127.0.0.2`],
  })
  const context = await browser.newContext()
  const address = server.address.replace('127.0.0.1', name)
  const { next, pick, below } = chance(seed)
  const builds = ['marzipan', 'nougat', 'praline']
  await server.bringIn(...builds)
  const rows = {
    marzipan: ['strap', 'pad', 'cam'],
    nougat: ['strap', 'pad', 'cam'],
    praline: ['strap', 'pad', 'cam'],
  } as Record<string, string[]>
  for (const id of builds) {
    const { build } = await server.json<BuildReply>(`/api/builds/${id}`)
    rows[id] = build.lines
      .filter(line => line.state === 'fitted' && line.slot !== 'pack' && line.quantity === 1)
      .slice(0, 4)
      .map(line => line.id)
  }
  const wanted = new Map<string, number>()
  let page: Page = await context.newPage()
  let open = pick(builds)
  let up = true
  let offline = false
  // A page that is left says so where something would be lost, and whoever is asked stays until it no longer does.
  const nothingToLose = () =>
    page.waitForFunction(() => window.dispatchEvent(new Event('beforeunload', { cancelable: true })))
  const show = async (id: string) => {
    if (!up || offline) return false
    open = id
    await nothingToLose()
    await page.goto(`${address}/builds/${id}/parts`)
    const passphrase = page.getByLabel('Passphrase')
    const row = page.locator(`[data-row="${rows[id]![0]}"]`)
    await expect(passphrase.or(row)).toBeVisible()
    if (await passphrase.isVisible()) {
      await passphrase.fill('seven tall masts')
      await page.getByRole('button', { name: 'Sign in' }).click()
      done('signed in')
    }
    await expect(page.locator(`[data-row="${rows[id]![0]}"]`)).toBeVisible()
    return true
  }
  const counts: Record<string, number> = {}
  const done = (what: string) => {
    counts[what] = (counts[what] ?? 0) + 1
  }
  await show(open)
  const steps = much(500, 36)
  for (let i = 0; i < steps; i++) {
    const r = next()
    const row = pick(rows[open]!)
    const cell = page.locator(`[data-row="${row}"] [data-col=each]`)
    if (r < 0.62 && (await cell.isVisible().catch(() => false))) {
      const grams = Number((1 + below(900) / 100).toFixed(2))
      await cell.click()
      await page.keyboard.type(grams.toFixed(2))
      await page.keyboard.press('Enter')
      await expect(cell).toHaveText(grams.toFixed(2))
      wanted.set(`${open}/${row}`, grams)
      done('typed')
    } else if (r < 0.72) {
      if (await show(pick(builds))) done('switched')
    } else if (r < 0.8) {
      offline = !offline
      await context.setOffline(offline)
      done(offline ? 'network lost' : 'network back')
    } else if (r < 0.88) {
      if (up) await server.kill()
      else await server.start(inNetwork)
      up = !up
      done(up ? 'server back' : 'server killed')
    } else if (r < 0.92 && up && !offline) {
      expect(await page.evaluate(async () => (await fetch('/api/sign-out', { method: 'POST' })).status)).toBeLessThan(
        402,
      )
      done('signed out')
    } else if (up && !offline) {
      // The tab is gone without a word, as a phone does it, as soon as it no longer says that something would be lost.
      await nothingToLose()
      const next_ = await context.newPage()
      await page.close({ runBeforeUnload: false })
      page = next_
      await show(pick(builds))
      done('tab killed')
    }
  }
  if (offline) await context.setOffline(false)
  offline = false
  if (!up) await server.start(inNetwork)
  up = true
  await show(open)
  await expect(page.locator('.waiting')).toBeHidden({ timeout: 40_000 })
  for (const [key, grams] of wanted) {
    const [id, row] = key.split('/') as [string, string]
    await expect
      .poll(
        async () =>
          (await server.json<BuildReply>(`/api/builds/${id}`)).build.lines.find(line => line.id === row)?.mass?.valueG,
        { message: key, timeout: 30_000 },
      )
      .toBe(grams)
  }
  console.log(`${steps} steps: ${JSON.stringify(counts)}`)
  expect(counts.typed).toBeGreaterThan(steps / 6)
  await browser.close()
  await server.end()
})
