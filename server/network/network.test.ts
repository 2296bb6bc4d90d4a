import { describe, expect, it } from 'vitest'
import { applicationOnDisk } from '../testing'
import { passphraseService } from '../services/passphrase-service'
import { Attempts, mostWrong } from './attempts'
import { isAtHome, mostBodyBytes, refusalOf, type Asked } from './origin'
import { hashPassphrase, verifyPassphrase } from './passphrase-hash'
import { signInPage } from './sign-in-page'

const asked = (more: Partial<Asked> = {}): Asked => ({ method: 'GET', host: '127.0.0.1:4250', origin: undefined, fetchSite: undefined, contentLength: 0, localAddress: '127.0.0.1', ...more })

describe('who is let in', () => {
  it.each(['127.0.0.1:4250', 'localhost:4250', 'LOCALHOST', '[::1]:4250', '127.0.0.9:1'])('at home the host “%s” is ours', (host) => {
    expect(refusalOf(asked({ host }), [])).toBeNull()
  })
  it.each(['evil.example:4250', '127.0.0.1.evil.example', '192.168.1.5', '', 'localhost.evil.example'])('at home the host “%s” is not', (host) => {
    expect(refusalOf(asked({ host }), ['bench'])).toBe('foreign-host')
  })
  it('on a network address only that address and this machine’s names fit', () => {
    const net = { localAddress: '::ffff:192.168.1.5' }
    for (const host of ['192.168.1.5:4250', 'bench:4250', 'BENCH.local:4250']) expect(refusalOf(asked({ ...net, host }), ['bench'])).toBeNull()
    for (const host of ['localhost:4250', '127.0.0.1:4250', '192.168.1.6:4250', 'rebound.example:4250']) expect(refusalOf(asked({ ...net, host }), ['bench'])).toBe('foreign-host')
    expect(isAtHome('::ffff:192.168.1.5')).toBe(false)
    expect(isAtHome('::ffff:127.0.0.1')).toBe(true)
    expect(isAtHome('127.0.0.2')).toBe(false)
  })
  it('writes come from the same origin, and bodies have a limit', () => {
    const post = (more: Partial<Asked>) => refusalOf(asked({ method: 'POST', ...more }), [])
    expect(post({ origin: 'http://127.0.0.1:4250' })).toBeNull()
    expect(post({ origin: 'http://evil.example' })).toBe('foreign-origin')
    expect(post({ origin: 'null' })).toBe('foreign-origin')
    expect(post({ fetchSite: 'cross-site' })).toBe('foreign-origin')
    expect(post({ fetchSite: 'same-origin' })).toBeNull()
    expect(post({ contentLength: mostBodyBytes + 1 })).toBe('too-large')
  })
})

describe('wrong passphrases', () => {
  it('the eleventh in a minute has to wait, others do not, and a minute later it may try again', () => {
    const attempts = new Attempts()
    for (let i = 0; i < mostWrong; i++) {
      expect(attempts.waitMs('a', i * 1000)).toBe(0)
      attempts.failed('a', i * 1000)
    }
    expect(attempts.waitMs('a', 10_000)).toBe(50_000)
    expect(attempts.waitMs('b', 10_000)).toBe(0)
    expect(attempts.waitMs('a', 60_001)).toBe(0)
    attempts.failed('a', 60_001)
    expect(attempts.waitMs('a', 60_002)).toBeGreaterThan(0)
    attempts.succeeded('a')
    expect(attempts.waitMs('a', 60_003)).toBe(0)
  })
})

describe('the passphrase', () => {
  it('is kept as a hash, refused when short, and its stamp ends older sessions', async () => {
    const disk = applicationOnDisk()
    const service = passphraseService(disk.app.secrets, '')
    expect(service.isSet()).toBe(false)
    expect(await service.matches('')).toBe(false)
    await expect(service.set('short')).rejects.toMatchObject({ code: 'invalid', field: 'passphrase' })
    await service.set('seven tall masts')
    const before = await service.stamp()
    expect(disk.app.secrets.get('passphrase')).not.toContain('seven tall masts')
    expect(await service.matches('seven tall masts')).toBe(true)
    expect(await service.matches('seven tall mast')).toBe(false)
    await service.set('another one of them')
    expect(await service.stamp()).not.toBe(before)
    service.clear()
    expect(service.isSet()).toBe(false)
    disk.app.close()
    disk.remove()
  })
  it('is hashed with a salt of its own, and nothing that is no hash matches', async () => {
    const [one, two] = await Promise.all([hashPassphrase('seven tall masts'), hashPassphrase('seven tall masts')])
    expect(one).not.toBe(two)
    expect(await verifyPassphrase(two, 'seven tall masts')).toBe(true)
    for (const kept of ['', 'plain', 'scrypt::', 'scrypt:AAAA:AAAA', one.slice(0, -4)]) expect(await verifyPassphrase(kept, 'seven tall masts'), kept).toBe(false)
  })
  it('from the environment goes before the one that is set', async () => {
    const disk = applicationOnDisk()
    const service = passphraseService(disk.app.secrets, 'from outside')
    await service.set('from settings')
    expect(await service.matches('from outside')).toBe(true)
    expect(await service.matches('from settings')).toBe(false)
    disk.app.close()
    disk.remove()
  })
  it('the sign-in page asks for it and loads nothing', () => {
    const page = signInPage('That is not the passphrase.')
    expect(page).toContain('role="alert"')
    expect(page).not.toMatch(/<script|https?:\/\//)
  })
})
