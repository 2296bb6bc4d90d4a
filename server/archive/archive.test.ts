import {
  createWriteStream,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  truncateSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { Writable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { ZipArchive } from 'archiver'
import Database from 'better-sqlite3'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { makeMass } from '../../core/model/ledger'
import { makeApplication } from '../services/application'
import { applicationOnDisk, demoFile, migrationsOnDisk } from '../testing'
import { withTrailingSum } from './trailing-sum'
import { checkArchive, copiesToDrop, decideRestore, finishRestore, type Manifest } from './index'

let disk: ReturnType<typeof applicationOnDisk>
let folder: string
let other: string
beforeEach(() => {
  disk = applicationOnDisk('jolly-gram.sqlite')
  folder = dirname(disk.path)
  other = mkdtempSync(join(tmpdir(), 'elsewhere-'))
})
afterEach(() => {
  disk.app.close()
  disk.remove()
  rmSync(other, { recursive: true, force: true })
})
async function archived(to = join(other, 'all.zip')): Promise<{ file: string; manifest: Manifest }> {
  const manifest = await disk.app.archive.write(createWriteStream(to))
  return { file: to, manifest }
}
/** Everything of an application that its pages show. */
const everything = (app: typeof disk.app) => ({
  builds: app.builds.shelf().map(({ id }) => [app.builds.read(id).build, [...app.builds.wholeOf(id).journal]]),
  shelf: app.builds.shelf(),
  parts: app.parts.all(),
  scales: app.scales.all(),
  cards: app.rules.cards(),
  settings: app.settings.load(),
  templates: app.templates.all(),
})
async function furnish() {
  for (const name of ['marzipan', 'nougat', 'praline']) await disk.app.files.importBuild(demoFile(name))
  mkdirSync(join(folder, 'photos/nougat'), { recursive: true })
  writeFileSync(join(folder, 'photos/nougat/one.jpg'), Buffer.alloc(300_000, 7))
  mkdirSync(join(folder, 'logs'), { recursive: true })
  writeFileSync(join(folder, 'logs/log-1.csv.gz'), Buffer.alloc(1000, 9))
  writeFileSync(join(folder, 'photos/nougat/unfinished.jpg.part'), 'half')
}
const openedAt = (at: string) => makeApplication(join(at, 'jolly-gram.sqlite'), migrationsOnDisk())

describe('an archive', () => {
  it('holds the database and every file, each with its sum, and nothing secret of this machine', async () => {
    await furnish()
    disk.app.secrets.put('passphrase', 'a-hash-that-must-not-leave')
    disk.app.secrets.put('sealing key', 'k'.repeat(64))
    const { file, manifest } = await archived()
    expect(manifest.members.map(({ name }) => name)).toEqual([
      'jolly-gram.sqlite',
      'logs/log-1.csv.gz',
      'photos/nougat/one.jpg',
    ])
    expect(manifest.holds).toMatchObject({ flights: 22, parts: 0 })
    expect(manifest.holds.builds.map(({ name }) => name)).toEqual(['Marzipan', 'Nougat', 'Praline'])
    const checked = await checkArchive(other, file, migrationsOnDisk())
    const laid = readFileSync(join(other, `restore-${checked.id}/jolly-gram.sqlite`))
    for (const secret of ['a-hash-that-must-not-leave', 'kkkkkkkkkkkk']) expect(laid.includes(secret)).toBe(false)
    expect(readdirSync(folder).filter(name => name.startsWith('archive-'))).toEqual([])
  })

  it('restored on another machine, shows the same there; what was here is kept, and so is its passphrase', async () => {
    await furnish()
    const { file } = await archived()
    const there = openedAt(other)
    await there.files.importBuild(demoFile('treacle'))
    there.secrets.put('passphrase', 'of this machine')
    const identity = there.identity()
    const { id, holds, here } = await checkArchive(other, file, migrationsOnDisk())
    expect(holds.builds).toHaveLength(3)
    expect(here!.builds.map(({ name }) => name)).toEqual(['Treacle'])
    there.close()
    const { keptAs } = decideRestore(other, id)
    finishRestore(other)
    const again = openedAt(other)
    expect(everything(again)).toEqual(everything(disk.app))
    expect(again.secrets.get('passphrase')).toBe('of this machine')
    expect([identity, disk.app.identity()]).not.toContain(again.identity())
    again.close()
    expect(readFileSync(join(other, 'photos/nougat/one.jpg'))).toEqual(
      readFileSync(join(folder, 'photos/nougat/one.jpg')),
    )
    const kept = makeApplication(join(other, keptAs, 'jolly-gram.sqlite'), migrationsOnDisk())
    expect(kept.builds.shelf().map(({ name }) => name)).toEqual(['Treacle'])
    kept.close()
    expect(readdirSync(other).filter(name => /^restore/.test(name))).toEqual([])
  })

  it('that nobody takes to its end is let go: its desk is cleared, its files are closed, and the next one is whole', async () => {
    await furnish()
    writeFileSync(join(folder, 'photos/nougat/large.jpg'), Buffer.alloc(5_000_000, 3))
    const openFiles = () => readdirSync('/proc/self/fd').length
    const before = openFiles()
    for (const most of [0, 1000, 400_000]) {
      let taken = 0
      const leaves = new Writable({
        write(chunk: Buffer, _encoding, done) {
          taken += chunk.length
          done(taken > most ? new Error('gone') : null)
        },
      })
      await expect(disk.app.archive.write(leaves)).rejects.toThrow('gone')
    }
    expect(readdirSync(folder).filter(name => name.startsWith('archive-'))).toEqual([])
    await expect.poll(openFiles).toBe(before)
    const { manifest } = await archived()
    expect(manifest.members).toHaveLength(4)
  })

  it('written while eight write as fast as they can is the database at one moment, whole', async () => {
    await furnish()
    let stop = false
    const counts = Array.from({ length: 8 }, () => 0)
    const writers = counts.map(async (_, n) => {
      const id = ['marzipan', 'nougat', 'praline'][n % 3]!
      while (!stop) {
        const { revision } = disk.app.builds.read(id)
        const mass = makeMass({ versionId: `w${n}-${counts[n]}`, evidence: 'weighed', valueG: 1 + counts[n]! / 1000 })
        await disk.app.builds
          .command(id, revision, { type: 'lines.change', changes: [{ id: 'board', fields: { mass } }] }, `${n}`)
          .then(() => counts[n]!++)
          .catch(() => undefined)
      }
    })
    const files = [0, 1, 2].map(n => join(other, `${n}.zip`))
    for (const file of files) await archived(file)
    stop = true
    await Promise.all(writers)
    expect(counts.reduce((a, b) => a + b, 0)).toBeGreaterThan(50)
    const final = new Map(
      ['marzipan', 'nougat', 'praline'].map(id => [id, [...disk.app.builds.wholeOf(id).journal]] as const),
    )
    for (const file of files) {
      const { id } = await checkArchive(other, file, migrationsOnDisk())
      const app = makeApplication(join(other, `restore-${id}/jolly-gram.sqlite`), migrationsOnDisk())
      const moments: string[] = []
      const after: string[] = []
      for (const [build, journal] of final) {
        const then = [...app.builds.wholeOf(build).journal]
        // The journal as it was is the beginning of what it became, and the state is the one after its last entry.
        expect(then.map(({ seq, title }) => [seq, title])).toEqual(
          journal.slice(0, then.length).map(({ seq, title }) => [seq, title]),
        )
        expect(app.builds.read(build).build).toEqual((await disk.app.builds.stateAt(build, then.at(-1)!.seq)).build)
        moments.push(then.at(-1)!.at)
        if (journal[then.length]) after.push(journal[then.length]!.at)
      }
      // One moment: nothing that is in it was written after something that is not.
      for (const at of after) expect(moments.every(moment => moment <= at)).toBe(true)
      app.close()
    }
  }, 60_000)
})

describe('an archive that is not as it was written', () => {
  it('is refused whatever bit was flipped, before anything is touched', async () => {
    await disk.app.files.importBuild(demoFile('sherbet'))
    mkdirSync(join(folder, 'logs'), { recursive: true })
    writeFileSync(join(folder, 'logs/log-1.csv.gz'), Buffer.alloc(100, 9))
    const { file } = await archived()
    const whole = readFileSync(file)
    const flipped = join(other, 'flipped.zip')
    // Every part of the file, the sum at its end among them.
    const places = new Set([
      ...Array.from({ length: 60 }, (_, i) => Math.floor((i * whole.length) / 60)),
      ...Array.from({ length: 140 }, (_, i) => whole.length - 1 - i),
      ...Array.from({ length: 40 }, (_, i) => i),
    ])
    for (const at of places) {
      const bytes = Buffer.from(whole)
      bytes[at]! ^= 1 << (at % 8)
      writeFileSync(flipped, bytes)
      await expect(
        checkArchive(other, flipped, migrationsOnDisk()),
        `byte ${at} of ${whole.length}`,
      ).rejects.toMatchObject({
        code: 'refused',
      })
    }
    expect(readdirSync(other).sort()).toEqual(['all.zip', 'flipped.zip'])
    truncateSync(flipped, Math.floor(whole.length / 2))
    await expect(checkArchive(other, flipped, migrationsOnDisk())).rejects.toThrow('not an archive')
    writeFileSync(flipped, 'hello')
    await expect(checkArchive(other, flipped, migrationsOnDisk())).rejects.toThrow('not an archive')
  }, 60_000)

  /** A zip file with a true sum at its end, whatever is in it. */
  async function forged(members: Record<string, string | Buffer>, manifest: object): Promise<string> {
    const file = join(other, 'forged.zip')
    const zip = new ZipArchive()
    const written = pipeline(zip, withTrailingSum(), createWriteStream(file))
    for (const [name, bytes] of Object.entries(members)) zip.append(bytes, { name })
    zip.append(JSON.stringify(manifest), { name: 'manifest.json' })
    await zip.finalize()
    await written
    return file
  }
  const empty = { builds: [], flights: 0, parts: 0, from: null, to: null }
  const told = {
    format: 'jolly-gram archive',
    version: 1,
    madeAt: '2026-11-29T10:00:00.000Z',
    migrations: [],
    holds: empty,
  }
  const sum = 'a'.repeat(64)
  it.each([
    [
      'a member its manifest does not name',
      { 'photos/a/b.jpg': 'x' },
      { ...told, members: [] },
      'none of its own files',
    ],
    [
      'one that climbs out',
      { 'photos/a/b.jpg': 'x' },
      { ...told, members: [{ name: '../evil.sqlite', size: 1, sha256: sum }] },
      'not an archive',
    ],
    [
      'one that is larger than stated',
      { 'photos/a/b.jpg': 'xx' },
      { ...told, members: [{ name: 'photos/a/b.jpg', size: 1, sha256: sum }] },
      'not as large',
    ],
    [
      'one that is missing',
      {},
      { ...told, members: [{ name: 'photos/a/b.jpg', size: 1, sha256: sum }] },
      'missing in this archive',
    ],
    ['no database', {}, { ...told, members: [] }, 'no database'],
    ['a newer version', {}, { ...told, version: 9, members: [] }, 'version 9'],
    ['another format', {}, { ...told, format: 'x', members: [] }, 'not an archive'],
  ])('with %s is refused in a sentence', async (_what, members, manifest, sentence) => {
    await expect(checkArchive(other, await forged(members, manifest), migrationsOnDisk())).rejects.toThrow(sentence)
    expect(readdirSync(other)).toEqual(['forged.zip'])
  })
  it('of a newer application is refused by what it says; of an older one it is brought up to date', async () => {
    await disk.app.files.importBuild(demoFile('sherbet'))
    const { file } = await archived()
    await expect(checkArchive(other, file, migrationsOnDisk().slice(0, -1))).rejects.toThrow('newer version')
    const golden = join(import.meta.dirname, '../../golden')
    const old = mkdtempSync(join(tmpdir(), 'old-'))
    const { gunzipSync } = await import('node:zlib')
    const version = readdirSync(golden).sort()[0]!
    writeFileSync(
      join(old, 'jolly-gram.sqlite'),
      gunzipSync(readFileSync(join(golden, version, 'jolly-gram.sqlite.gz'))),
    )
    const db = new Database(join(old, 'jolly-gram.sqlite'))
    const had = db.prepare('SELECT name FROM migrations').pluck().all() as string[]
    db.close()
    const bytes = readFileSync(join(old, 'jolly-gram.sqlite'))
    const { createHash } = await import('node:crypto')
    const sha256 = createHash('sha256').update(bytes).digest('hex')
    const members = [{ name: 'jolly-gram.sqlite', size: bytes.length, sha256 }]
    const { holds } = await checkArchive(
      other,
      await forged({ 'jolly-gram.sqlite': bytes }, { ...told, migrations: had, members }),
      migrationsOnDisk(),
    )
    expect(holds.builds.length).toBeGreaterThanOrEqual(5)
    rmSync(old, { recursive: true })
  })
})

describe('copies that go', () => {
  const copy = (daysAgo: number) => ({
    name: `${daysAgo}`,
    madeAt: new Date(Date.UTC(2026, 10, 29, 3) - daysAgo * 86_400_000).toISOString(),
  })
  it('leave 7 days, 4 weeks and 12 months, however many there were', () => {
    const all = Array.from({ length: 500 }, (_, i) => copy(i))
    const gone = new Set(copiesToDrop(all).map(({ name }) => name))
    const stay = all.filter(({ name }) => !gone.has(name)).map(({ name }) => Number(name))
    expect(stay.slice(0, 7)).toEqual([0, 1, 2, 3, 4, 5, 6])
    expect(stay.length).toBeLessThanOrEqual(23)
    expect(stay.length).toBeGreaterThanOrEqual(19)
    expect(Math.max(...stay)).toBeGreaterThan(300)
    expect(copiesToDrop(all.filter(({ name }) => stay.includes(Number(name))))).toEqual([])
  })
  it('leave what there is after a long time off', () => {
    expect(copiesToDrop([copy(0), copy(200), copy(201)]).map(({ name }) => name)).toEqual([])
  })
})
