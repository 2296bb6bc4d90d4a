import Database from 'better-sqlite3'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import type { Flight } from '../../core/aircraft/flown'
import { testFinding, testFlight, testPack } from '../../core/aircraft/flown/testing'
import type { KeptChange } from '../../shared/schemas/kept'
import { applicationOnDisk, demoFile } from '../testing'

let disk: ReturnType<typeof applicationOnDisk>
beforeEach(async () => {
  disk = applicationOnDisk()
  for (const name of ['marzipan', 'treacle']) await disk.app.files.importBuild(demoFile(name))
})
afterEach(() => {
  disk.app.close()
  disk.remove()
})
let keys = 0
const keep = (...changes: KeptChange[]) =>
  disk.app.keeping.change('flights', [{ changes, key: `k.${keys++}`, onTop: false }])
function putOf(flight: Flight): KeptChange {
  const { id, ...set } = flight
  return { kind: 'flight', id, seen: null, set: set as unknown as Record<string, unknown> }
}
const put = (id: string, more: Partial<Flight> = {}) => keep(putOf(testFlight({ id, ...more })))
const ids = (build: string) => disk.app.flights.ofBuild(build).flights.map(({ id }) => id)

describe('flights', () => {
  it('stand by build, worked out, and are there after a restart', async () => {
    await put('a', { putBackMah: 668 })
    await put('b', { buildId: 'treacle' })
    const before = disk.app.flights.ofBuild('marzipan')
    expect(before.worked).toEqual([expect.objectContaining({ id: 'a', held: null })])
    expect(before.worked[0]!.powerW).toBeGreaterThan(100)
    disk.app.close()
    disk.app = disk.again()
    expect(disk.app.flights.ofBuild('marzipan')).toEqual(before)
    expect(ids('treacle')).toEqual(['b'])
  })
  it('leave revision and journal of the build as they are', async () => {
    const [revision, journal] = [disk.app.builds.read('marzipan').revision, disk.app.builds.journal('marzipan')]
    await put('a')
    expect(disk.app.builds.read('marzipan').revision).toBe(revision)
    expect(disk.app.builds.journal('marzipan')).toEqual(journal)
  })
  it('are taken back by build: another build’s last flight stays', async () => {
    await put('a')
    await put('b', { buildId: 'treacle' })
    await disk.app.keeping.undo('flights', 'marzipan')
    expect([ids('marzipan'), ids('treacle')]).toEqual([[], ['b']])
    expect(disk.app.keeping.steps('flights', 'treacle').steps.undo).toMatch(/Added Flight of 2026-11-02, 10:00/)
    await expect(disk.app.keeping.undo('flights', 'marzipan')).rejects.toMatchObject({ code: 'nothing-to-undo' })
  })
  it('teach the forecasts of the build, and by the style those of others', async () => {
    await put('a', { putBackMah: 668 })
    const [own, other] = [disk.app.flights.lessonsOf('marzipan'), disk.app.flights.lessonsOf('treacle')]
    expect(own.said).toEqual(other.said)
    expect(own.said).toEqual([expect.objectContaining({ buildId: 'marzipan', style: 'freestyle', flights: 1 })])
    expect(Object.keys(own.packs)).toEqual([testPack.key])
  })
  it('go with a build that is deleted for good, and cannot be brought back without it', async () => {
    await put('a')
    const { build, revision } = disk.app.builds.read('marzipan')
    await disk.app.builds.command(build.id, revision, { type: 'build.set', fields: { archived: true } }, '')
    await disk.app.builds.remove('marzipan')
    expect(() => disk.app.flights.ofBuild('marzipan')).toThrow(/no such build/)
    expect(disk.app.flights.lessonsOf('treacle').said).toEqual([])
    await expect(put('b')).rejects.toMatchObject({ code: 'refused' })
    await expect(disk.app.keeping.undo('flights', 'marzipan')).resolves.toBeDefined()
    await expect(disk.app.keeping.redo('flights', 'marzipan')).rejects.toMatchObject({ code: 'refused' })
  })
  it('of which one cannot be kept are all left out, and what was worked out stays true', async () => {
    await put('a', { putBackMah: 668 })
    const before = disk.app.flights.ofBuild('marzipan')
    await expect(
      keep(putOf(testFlight({ id: 'b' })), putOf(testFlight({ id: 'c', durationS: 0 }))),
    ).rejects.toMatchObject({ code: 'invalid' })
    expect(disk.app.flights.ofBuild('marzipan')).toEqual(before)
  })
  it('tell those who follow their build, once each write is on disk', async () => {
    const told: string[] = []
    const stop = disk.app.flights.follow('marzipan', () => told.push('marzipan'))
    disk.app.flights.follow('treacle', () => told.push('treacle'))
    await put('a')
    expect(told).toEqual(['marzipan'])
    const { id, ...set } = testFinding({ id: 'f' })
    await keep({ kind: 'finding', id, seen: null, set: set as unknown as Record<string, unknown> })
    await expect(put('bad', { durationS: -1 })).rejects.toBeDefined()
    expect(told).toEqual(['marzipan', 'marzipan'])
    stop()
    await put('c')
    expect(told).toHaveLength(2)
  })
})

describe('what cannot be', () => {
  it.each([
    ['no time', { durationS: 0 }, /one second to 180 minutes/],
    ['400 minutes', { durationS: 24_000 }, /one second to 180 minutes/],
    [
      '47 V on four cells',
      { landing: { volts: 47, of: 'pack', loadA: null, isFresh: false } },
      /47 V on 4 cells cannot be/,
    ],
    ['9 V a cell', { landing: { volts: 9, of: 'cell', loadA: null, isFresh: false } }, /9 V a cell cannot be/],
    ['a warning after the landing', { firstWarningS: 500 }, /comes within the flight/],
    ['far more put back than it holds', { putBackMah: 5000 }, /far more than the 850 mAh/],
    ['a day that is none', { flownAt: '2026-13-02T10:00' }, /day and time/],
  ] as const)('%s is refused with a sentence, and nothing is kept', async (_what, more, sentence) => {
    await expect(put('a', more as Partial<Flight>)).rejects.toMatchObject({
      code: 'invalid',
      message: expect.stringMatching(sentence),
    })
    expect(ids('marzipan')).toEqual([])
  })
})

describe('a flight that cannot be read', () => {
  it('is left where it lies and counted; the others stand, and teach', async () => {
    await put('a', { putBackMah: 668 })
    await put('b', { putBackMah: 660, flownAt: '2026-11-03T10:00' })
    disk.app.close()
    const db = new Database(disk.path)
    db.exec(`UPDATE flights SET value = json_set(value, '$.durationS', 'long') WHERE id = 'a'`)
    db.close()
    disk.app = disk.again()
    const { flights, unreadable, lessons } = disk.app.flights.ofBuild('marzipan')
    expect([flights.map(({ id }) => id), unreadable]).toEqual([['b'], 1])
    expect(lessons.said[0]!.flights).toBe(1)
    await expect(disk.app.builds.report('marzipan')).resolves.toBeDefined()
  })
})
