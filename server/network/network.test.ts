import { mkdtempSync, rmSync, writeFileSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gunzipSync } from 'node:zlib'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { applicationOnDisk, migrationsOnDisk } from '../testing'
import { makeApplication } from '../services/application'
import { passphraseService, type Hashing } from '../services/passphrase-service'
import { Attempts, mostFromAll, mostFromOne } from './attempts'
import { mostFileBytes } from '../../shared/files/largest'
import { isAtHome, mostBodyBytes, refusalOf, type RequestFacts } from './origin'
import { verifyPassphrase } from './passphrase-hash'
import { signInPage, whereTo } from './sign-in-page'

const asked = (more: Partial<RequestFacts> = {}): RequestFacts => ({
  method: 'GET',
  host: '127.0.0.1:4250',
  origin: undefined,
  fetchSite: undefined,
  contentLength: 0,
  mostBytes: mostBodyBytes,
  localAddress: '127.0.0.1',
  remoteAddress: '127.0.0.1',
  forwarded: false,
  ...more,
})
const closed = { openToNetwork: false, machineNames: [] as string[] }
const open = { openToNetwork: true, machineNames: ['bench', 'tram-shed.home'] }

describe('who is let in', () => {
  it.each(['127.0.0.1:4250', 'localhost:4250', 'LOCALHOST', '[::1]:4250', '127.0.0.9:1'])(
    'at home the host “%s” is ours',
    host => {
      for (const how of [closed, open]) expect(refusalOf(asked({ host }), how)).toBeNull()
    },
  )
  it.each(['evil.example:4250', '127.0.0.1.evil.example', '192.168.1.5', '', 'localhost.evil.example', 'bench'])(
    'at home the host “%s” is not',
    host => {
      expect(refusalOf(asked({ host }), open)).toBe('foreign-host')
    },
  )
  const net = { localAddress: '::ffff:192.168.1.5', remoteAddress: '::ffff:192.168.1.9' }
  it('on a network address only that address and this machine’s names fit', () => {
    for (const host of ['192.168.1.5:4250', 'bench:4250', 'BENCH.local:4250', 'tram-shed.home:4250'])
      expect(refusalOf(asked({ ...net, host }), open)).toBeNull()
    for (const host of ['localhost:4250', '127.0.0.1:4250', '192.168.1.6:4250', 'rebound.example:4250'])
      expect(refusalOf(asked({ ...net, host }), open)).toBe('foreign-host')
  })
  it('not opened to the network, nothing but home is answered, whatever it calls itself', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('192.168.1.5', '::ffff:10.0.0.3', 'fe80::1', '127.0.0.2', ''),
        fc.constantFrom('127.0.0.1:4250', 'localhost', '192.168.1.5:4250', 'bench'),
        fc.constantFrom('GET', 'PUT'),
        (localAddress, host, method) => {
          expect(refusalOf(asked({ localAddress, remoteAddress: localAddress, host, method }), closed)).toBe('not-open')
        },
      ),
    )
  })
  it('what somebody has passed on is not home, nor what comes from elsewhere', () => {
    expect(isAtHome(asked())).toBe(true)
    expect(isAtHome(asked({ localAddress: '::ffff:127.0.0.1', remoteAddress: '::ffff:127.0.0.1' }))).toBe(true)
    expect(isAtHome(asked({ forwarded: true }))).toBe(false)
    expect(isAtHome(asked({ remoteAddress: '10.1.1.1' }))).toBe(false)
    expect(isAtHome(asked({ localAddress: '127.0.0.2', remoteAddress: '127.0.0.2' }))).toBe(false)
    expect(refusalOf(asked({ forwarded: true }), closed)).toBe('not-open')
    expect(refusalOf(asked({ forwarded: true }), open)).toBe('foreign-host')
  })
  it('writes come from the same origin, and bodies have a limit', () => {
    const post = (more: Partial<RequestFacts>) => refusalOf(asked({ method: 'POST', ...more }), closed)
    expect(post({ origin: 'http://127.0.0.1:4250' })).toBeNull()
    expect(post({ origin: 'http://evil.example' })).toBe('foreign-origin')
    expect(post({ origin: 'null' })).toBe('foreign-origin')
    expect(post({ fetchSite: 'cross-site' })).toBe('foreign-origin')
    expect(post({ fetchSite: 'same-origin' })).toBeNull()
    expect(post({ contentLength: mostBodyBytes + 1 })).toBe('too-large')
    expect(post({ contentLength: mostBodyBytes + 1, mostBytes: mostFileBytes })).toBeNull()
    expect(refusalOf(asked({ contentLength: mostBodyBytes + 1 }), closed)).toBe('too-large')
  })
})

describe('passphrases that are tried', () => {
  it('are counted before they are looked at: the eleventh of one address waits, others do not', async () => {
    const attempts = new Attempts()
    for (let i = 0; i < mostFromOne; i++) expect(await attempts.admit('a')).toBe(0)
    expect(await attempts.admit('a')).toBeGreaterThan(50_000)
    expect(await attempts.admit('b')).toBe(0)
  })
  it('are counted for all addresses together, too', async () => {
    const attempts = new Attempts()
    let let_in = 0
    for (let i = 0; i < 200; i++) if ((await attempts.admit(`10.0.0.${i}`)) === 0) let_in++
    expect(let_in).toBe(mostFromAll)
  })
  it('wait by a clock of their own: putting the machine’s clock forward opens nothing', async () => {
    let now = 5000
    const attempts = new Attempts(() => now)
    for (let i = 0; i < mostFromOne; i++) await attempts.admit('a')
    const waitMs = await attempts.admit('a')
    const real = Date.now
    Date.now = () => real() + 3_600_000
    try {
      expect(await attempts.admit('a')).toBeGreaterThan(50_000)
      now += waitMs + 1
      expect(await attempts.admit('a')).toBe(0)
    } finally {
      Date.now = real
    }
  })
  it('that were right do not count', async () => {
    const attempts = new Attempts()
    for (let i = 0; i < 3 * mostFromOne; i++) {
      expect(await attempts.admit('a')).toBe(0)
      await attempts.succeeded('a')
    }
  })
})

/** Stands for the slow hash: knows what it made, and how many are made at a time. */
function quickHashing(): Hashing & { most: () => number } {
  let [now, most] = [0, 0]
  const slowly = async <T>(value: T): Promise<T> => {
    most = Math.max(most, ++now)
    await new Promise(done => setTimeout(done, 1))
    now--
    return value
  }
  let salt = 0
  return {
    hash: text => slowly(`quick:${salt++}:${text}`),
    verify: (kept, text) => slowly(kept.split(':').slice(2).join(':') === text),
    most: () => most,
  }
}

describe('the passphrase', () => {
  it('is kept as a hash; short ones and those of one character are refused; a new one ends every session', async () => {
    const disk = applicationOnDisk()
    const { secrets, sessions } = disk.app
    const service = passphraseService(secrets, sessions, quickHashing(), '')
    expect(service.isSet()).toBe(false)
    expect(await service.matches('')).toBe(false)
    for (const text of ['short', 'ninechars', 'aaaaaaaaaaaa', 'abababababab'])
      await expect(service.set(text)).rejects.toMatchObject({ code: 'invalid', field: 'passphrase' })
    await service.set('seven tall masts')
    const session = sessions.begin()
    let ended = 0
    sessions.whileOn(session, () => {
      ended++
    })
    expect(await service.matches('seven tall masts')).toBe(true)
    expect(await service.matches('seven tall mast')).toBe(false)
    expect(service.shouldRenew()).toBe(false)
    await service.set('another one of them')
    expect([sessions.isOn(session), ended]).toEqual([false, 1])
    service.clear()
    expect(service.isSet()).toBe(false)
    disk.app.close()
    disk.remove()
  })
  it('is hashed one at a time, however many are tried', async () => {
    const disk = applicationOnDisk()
    const hashing = quickHashing()
    const service = passphraseService(disk.app.secrets, disk.app.sessions, hashing, '')
    await service.set('seven tall masts')
    await Promise.all(Array.from({ length: 20 }, (_, i) => service.matches(`try ${i}`)))
    expect(hashing.most()).toBe(1)
    disk.app.close()
    disk.remove()
  })
  it('from the environment goes before the one that is set, and signs nobody out at the next start; another one does', async () => {
    const disk = applicationOnDisk()
    const { secrets, sessions } = disk.app
    await passphraseService(secrets, sessions, quickHashing(), '').set('from settings')
    const first = passphraseService(secrets, sessions, quickHashing(), 'from outside')
    await first.prepare()
    expect(await first.matches('from outside')).toBe(true)
    expect(await first.matches('from settings')).toBe(false)
    const session = sessions.begin()
    disk.app.close()
    disk.app = disk.again()
    const next = passphraseService(disk.app.secrets, disk.app.sessions, quickHashing(), 'from outside')
    await next.prepare()
    expect(disk.app.sessions.isOn(session)).toBe(true)
    await passphraseService(disk.app.secrets, disk.app.sessions, quickHashing(), 'from elsewhere').prepare()
    expect(disk.app.sessions.isOn(session)).toBe(false)
    disk.app.close()
    disk.remove()
  })
  it('of an earlier version goes on opening, with a request to renew it', async () => {
    const home = mkdtempSync(join(tmpdir(), 'old-'))
    writeFileSync(
      join(home, 'ledger.sqlite'),
      gunzipSync(readFileSync(join(import.meta.dirname, '../../golden/2026-11/jolly-gram.sqlite.gz'))),
    )
    const app = makeApplication(join(home, 'ledger.sqlite'), migrationsOnDisk())
    const service = passphraseService(app.secrets, app.sessions, quickHashing(), '')
    expect([service.isSet(), service.shouldRenew()]).toEqual([true, true])
    expect(await service.matches('seven tall masts')).toBe(true)
    expect(await service.matches('seven tall mast')).toBe(false)
    await service.set('seven tall masts')
    expect(service.shouldRenew()).toBe(false)
    app.close()
    rmSync(home, { recursive: true })
  })
  it('nothing that is no hash matches', async () => {
    for (const kept of ['', 'plain', 'scrypt::', 'scrypt:AAAA:AAAA'])
      expect(await verifyPassphrase(kept, 'seven tall masts'), kept).toBe(false)
  })
})

describe('sessions', () => {
  it('are kept over a restart until they are ended, and end what is open under them', () => {
    const disk = applicationOnDisk()
    const [one, other] = [disk.app.sessions.begin(), disk.app.sessions.begin()]
    disk.app.close()
    disk.app = disk.again()
    const ended: string[] = []
    disk.app.sessions.whileOn(one, () => ended.push('stream'))
    const off = disk.app.sessions.whileOn(one, () => ended.push('closed before'))
    off()
    disk.app.sessions.end(one)
    expect(ended).toEqual(['stream'])
    expect([disk.app.sessions.isOn(one), disk.app.sessions.isOn(other), disk.app.sessions.isOn('made up')]).toEqual([
      false,
      true,
      false,
    ])
    const again = disk.again()
    expect([again.sessions.isOn(one), again.sessions.isOn(other)]).toEqual([false, true])
    again.close()
    disk.app.close()
    disk.remove()
  })
})

describe('the sign-in page', () => {
  it('asks for it and loads nothing', () => {
    const page = signInPage('That is not the passphrase.', '/builds/a/parts?line="><script>')
    expect(page).toContain('role="alert"')
    expect(page).not.toMatch(/<script|https?:\/\//)
  })
  it('goes on to places of this application only', () => {
    for (const path of ['/builds/marzipan/weigh', '/drawer?part=p1', '/']) expect(whereTo(path)).toBe(path)
    for (const path of [
      '//evil.example',
      '/\\evil.example',
      'http://evil.example',
      '/api/builds',
      '/sign-in',
      'javascript:alert(1)',
      '',
      null,
    ])
      expect(whereTo(path)).toBe('/')
  })
})
