import { existsSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import Database from 'better-sqlite3'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import type { Command } from '../../core/changes/commands'
import { makeLine, makeMass, type Build } from '../../core/model/ledger'
import { parsePattern } from '../../core/model/properties'
import { guarded, unguarded } from '../../shared/files/csv'
import type { BuildFile } from '../../shared/schemas/build-file'
import { ownFolder } from '../db/owner'
import { openDatabase } from '../db/open-database'
import { applicationOnDisk, demoFile, migrationsOnDisk } from '../testing'
import { inThisThread } from './report-runner'

let disk: ReturnType<typeof applicationOnDisk>
beforeEach(() => {
  disk = applicationOnDisk()
})
afterEach(() => {
  disk.app.close()
  disk.remove()
})
const parsed = (name: string) => JSON.parse(demoFile(name)) as BuildFile
/** Changes rows behind the application’s back, as an earlier version or another program might have left them. */
function behindItsBack(sql: string) {
  disk.app.close()
  const db = new Database(disk.path)
  db.exec(sql)
  db.close()
  disk.app = disk.again()
}

describe('a build that cannot be read', () => {
  const spoilt = [
    [
      'a part of it is no JSON of its kind',
      `UPDATE build_parts SET value = '{"school":5}' WHERE build_id = 'praline' AND field = 'assembly'`,
    ],
    ['a line has a slot nobody knows', `UPDATE lines SET slot = 'wing' WHERE build_id = 'praline' AND position = 0`],
    ['a weighing is not one', `UPDATE mass_versions SET weighing = '7' WHERE build_id = 'praline'`],
    ['a loadout names nothing', `UPDATE builds SET flies_setup_id = 'ghost' WHERE id = 'praline'`],
  ] as const
  it.each(spoilt)('because %s is told apart; the others stand', async (_why, sql) => {
    for (const name of ['marzipan', 'praline', 'nougat']) await disk.app.files.importBuild(demoFile(name))
    const before = disk.app.builds.shelf().filter(entry => entry.id !== 'praline')
    behindItsBack(sql)
    const { entries, unreadable } = disk.app.builds.shelfWithUnreadable()
    expect(entries.filter(entry => entry.id !== 'praline').map(entry => entry.id)).toEqual(
      before.map(entry => entry.id),
    )
    expect(unreadable.length + entries.length).toBe(3)
    for (const bad of unreadable)
      expect(bad).toMatchObject({
        id: 'praline',
        name: 'Praline',
        sentence: expect.stringMatching(/^“Praline” cannot be read: .+/),
      })
    expect(JSON.parse(disk.app.files.raw('praline'))).toMatchObject({ builds: [{ id: 'praline' }] })
    const marzipan = disk.app.builds.read('marzipan')
    await expect(
      disk.app.builds.command('marzipan', marzipan.revision, { type: 'build.set', fields: { name: 'Still here' } }, ''),
    ).resolves.toBeDefined()
  })
  it('its last entry can be taken back where that mends it, else it can be put away and deleted', async () => {
    await disk.app.files.importBuild(demoFile('praline'))
    const { build, revision } = disk.app.builds.read('praline')
    await disk.app.builds.command('praline', revision, { type: 'build.set', fields: { aim: { reserveG: 2 } } }, '')
    behindItsBack(`UPDATE builds SET reserve_g = 9999, confidence = 0.99995 WHERE id = 'praline'`)
    expect(
      disk.app.builds.shelfWithUnreadable().unreadable.length + disk.app.builds.shelfWithUnreadable().entries.length,
    ).toBe(1)
    await disk.app.builds.rescue('praline', 'take back')
    expect(disk.app.builds.read('praline').build.aim).toEqual(build.aim)
    expect(disk.app.builds.journal('praline').entries[0]!.title).toMatch(/^Took back/)
    behindItsBack(`UPDATE lines SET slot = 'wing' WHERE build_id = 'praline' AND position = 0`)
    await expect(disk.app.builds.remove('praline')).rejects.toMatchObject({ code: 'refused' })
    await disk.app.builds.rescue('praline', 'put away')
    await disk.app.builds.remove('praline')
    expect(disk.app.builds.shelfWithUnreadable()).toEqual({ entries: [], unreadable: [] })
  })
})

describe('a write that would make a build unreadable', () => {
  const marzipan = () => disk.app.builds.read('marzipan')
  beforeEach(async () => {
    await disk.app.files.importBuild(demoFile('marzipan'))
  })
  const ghost = makeLine({ id: 'g', slot: 'strap', name: 'g', state: 'candidate', insteadOf: 'ghost' })
  const wrong: [string, Command][] = [
    ['stands for a line that is not there', { type: 'lines.add', lines: [ghost], beforeId: null }],
    ['has a school that every object has', { type: 'assembly.set', fields: { school: 'x'.repeat(90) } }],
    [
      'has a capacity next to nothing',
      {
        type: 'lines.change',
        changes: [
          {
            id: 'p7',
            fields: {
              pack: { label: 'P7', cells: 4, chemistry: 'LiPo', capacityMah: 5e-324, cRating: null, plug: '' },
            },
          },
        ],
      },
    ],
    [
      'flies a loadout over on purpose that is not there',
      { type: 'flying.set', fields: { overOnPurpose: [{ setupId: 'ghost', packLineId: null }] } },
    ],
  ]
  it.each(wrong)('because it %s is refused with a sentence and changes nothing', async (_why, command) => {
    const before = [marzipan(), disk.app.builds.journal('marzipan')]
    await expect(disk.app.builds.command('marzipan', marzipan().revision, command, '')).rejects.toThrow(/^[\w“].*\.$/)
    expect([marzipan(), disk.app.builds.journal('marzipan')]).toEqual(before)
    const again = disk.again()
    expect(again.builds.read('marzipan')).toEqual(before[0])
    again.close()
  })
  it('a school called “constructor” is an unknown one, and takes no shelf down', async () => {
    await disk.app.builds.command(
      'marzipan',
      marzipan().revision,
      { type: 'assembly.set', fields: { school: 'constructor' } },
      '',
    )
    expect(disk.app.builds.shelf()).toHaveLength(1)
    expect(disk.app.files.exportBuild('marzipan')).toContain('"constructor"')
  })
  it('the hundred-and-first set-up is refused', async () => {
    for (let i = marzipan().build.setups.length; i < 100; i++)
      await disk.app.builds.command(
        'marzipan',
        marzipan().revision,
        { type: 'setup.put', setup: { id: `s${i}`, name: `s${i}`, lineIds: [] } },
        '',
      )
    await expect(
      disk.app.builds.command(
        'marzipan',
        marzipan().revision,
        { type: 'setup.put', setup: { id: 'more', name: 'more', lineIds: [] } },
        '',
      ),
    ).rejects.toThrow(/\w/)
    expect(marzipan().build.setups).toHaveLength(100)
  })
  it.each([
    [
      'flies as what it has not',
      { head: { before: { flies: { setupId: 'ghost', packLineId: null } }, after: {} }, lines: [] },
    ],
    [
      'tells part of a line that is not there',
      { head: null, lines: [{ before: { id: 'ghost', note: '' }, after: { id: 'ghost', note: 'x' } }] },
    ],
  ])('an undo of a forged entry that %s is refused, and the build stays', async (_why, forged) => {
    const file = parsed('marzipan')
    const id = await disk.app.files.importBuild(JSON.stringify({ ...file, build: { ...file.build, id: 'other' } }))
    disk.app.close()
    const db = new Database(disk.path)
    db.exec('DROP TRIGGER journal_keeps_entries')
    db.prepare(
      `UPDATE journal SET patch = ? WHERE build_id = 'other' AND seq = (SELECT max(seq) FROM journal ` +
        `WHERE build_id = 'other' AND kind = 'do' AND undone = 'in force')`,
    ).run(JSON.stringify({ ...forged, setups: null, order: null }))
    db.close()
    disk.app = disk.again()
    const before = disk.app.builds.read(id)
    await expect(disk.app.builds.undo(id, before.revision)).rejects.toMatchObject({ code: 'invalid' })
    expect(disk.app.builds.read(id).build).toEqual(before.build)
  })
})

describe('a build file whose history is not its own', () => {
  const forge = (
    change: (file: {
      build: Build
      journal: {
        seq: number
        undone: string
        kind: string
        target: number | null
        patch: { lines: unknown[]; head: unknown }
      }[]
    }) => void,
  ): string => {
    const file = JSON.parse(demoFile('nougat')) as never
    change(file)
    return JSON.stringify(file)
  }
  const forgeries: [string, string][] = [
    [
      'ends in another build',
      forge(file => {
        ;(file.build.lines[0] as { quantity: number }).quantity = 77
      }),
    ],
    [
      'has an entry that changed something else',
      forge(file => {
        file.journal[3]!.patch.lines = []
        file.journal[3]!.patch.head = { before: { name: 'A' }, after: { name: 'B' } }
      }),
    ],
    [
      'is numbered backwards',
      forge(file => {
        file.journal[4]!.seq = 1
      }),
    ],
    [
      'takes back what was never done',
      forge(file => {
        file.journal.push({ ...file.journal.at(-1)!, seq: 900, kind: 'undo', target: 899 })
      }),
    ],
    [
      'changes part of a line that is not there',
      forge(file => {
        const lines = [{ before: { id: 'ghost', note: '' }, after: { id: 'ghost', note: 'x' } }]
        const last = file.journal.at(-1)!
        file.journal.push({ ...last, seq: 900, kind: 'do', target: null, patch: { ...last.patch, head: null, lines } })
      }),
    ],
    [
      'says of an entry that it was taken back',
      forge(file => {
        file.journal[2]!.undone = 'taken back'
      }),
    ],
  ]
  it.each(forgeries)('because it %s is refused, or taken without it', async (_why, text) => {
    await expect(disk.app.files.importBuild(text)).rejects.toMatchObject({ code: 'journal-forged' })
    expect(disk.app.builds.shelf()).toEqual([])
    const id = await disk.app.files.importBuild(text, { withoutJournal: true })
    expect(disk.app.builds.journal(id).entries).toEqual([])
    const { build } = disk.app.builds.read(id)
    expect(build).toEqual({ ...(JSON.parse(text) as BuildFile).build, id })
  })
  it('with a card that cannot be kept comes in not at all', async () => {
    const file = parsed('praline')
    const card = { ...disk.app.rules.cards()[0]!, id: 'mine', own: true, verifiedOn: null }
    const twice = { ...file, ownCards: [card, { ...card }] }
    await expect(disk.app.files.importBuild(JSON.stringify(twice))).rejects.toThrow()
    expect([disk.app.builds.shelf(), disk.app.rules.cards().some(c => c.id === 'mine')]).toEqual([[], false])
    await disk.app.files.importBuild(JSON.stringify({ ...file, ownCards: [card] }))
    expect(disk.app.rules.cards().some(c => c.id === 'mine')).toBe(true)
  })
})

describe('deleted for good', () => {
  it('only what was put away; its parts lie in the drawer again, nothing of it is left, and its id is free', async () => {
    const id = await disk.app.files.importBuild(demoFile('marzipan'))
    const { build, revision } = disk.app.builds.read(id)
    await disk.app.keeping.change('drawer', [
      {
        changes: [
          {
            kind: 'part',
            id: 'p',
            seen: null,
            set: {
              slot: 'strap',
              name: 'Strap',
              properties: null,
              listing: null,
              mass: null,
              pack: null,
              priceCents: null,
              soldIn: 1,
              owned: 3,
              lost: 0,
              scrapped: 0,
              missing: 0,
              kitId: null,
              bag: '',
              link: '',
              note: '',
              tags: [],
            },
          },
        ],
        key: null,
        onTop: false,
      },
    ])
    await disk.app.builds.command(
      id,
      revision,
      { type: 'lines.change', changes: [{ id: build.lines[0]!.id, fields: { partId: 'p' } }] },
      '',
    )
    expect(disk.app.parts.all().placements.some(placement => placement.partId === 'p')).toBe(true)
    await expect(disk.app.builds.remove(id)).rejects.toMatchObject({ code: 'refused' })
    let gone = 0
    disk.app.builds.follow(
      id,
      () => undefined,
      () => {
        gone++
      },
    )
    await disk.app.builds.command(id, revision + 1, { type: 'build.set', fields: { archived: true } }, '')
    await disk.app.builds.remove(id)
    await new Promise(after => setImmediate(after))
    expect(gone).toBe(1)
    expect(disk.app.parts.all().placements).toEqual([])
    await expect(
      disk.app.builds.command(id, revision, { type: 'build.set', fields: { name: 'late' } }, ''),
    ).rejects.toMatchObject({ code: 'not-found' })
    const db = new Database(disk.path, { readonly: true })
    for (const table of ['lines', 'mass_versions', 'journal', 'packs', 'setups', 'observations'])
      expect(db.prepare(`SELECT count(*) FROM ${table}`).pluck().get(), table).toBe(0)
    db.close()
    expect(await disk.app.files.importBuild(demoFile('marzipan'))).toBe(id)
  })
})

describe('a hole pattern', () => {
  it('of 80,000 blanks is looked at in no time', () => {
    const begun = performance.now()
    for (const text of [
      `12${' '.repeat(80_000)}x 12 M2`,
      ' '.repeat(80_000),
      `${'1'.repeat(80_000)}×12`,
      `4 on ${' '.repeat(80_000)}9`,
    ])
      expect(parsePattern(text)).toBeNull()
    expect(performance.now() - begun).toBeLessThan(200)
    expect(parsePattern('12  × 12   M2')?.thread).toBe('M2')
  })
})

describe('cells of a file that a spreadsheet might run', () => {
  it.each(['=1+1', '+1', '-1', '@a', '\t=1', '\n=1', '\r\n=cmd', ' =1', '＝1', '＋1', '－1', '＠a', '\n', '\u00a0=1'])(
    '%j is guarded, and is itself again when it is read',
    text => {
      expect(guarded(text)).toBe(`'${text}`)
      expect(unguarded(guarded(text))).toBe(text)
    },
  )
  it.each(['M2 × 8', '', 'a=b', '(-1)', "'quoted"])('%j is left alone', text =>
    expect([guarded(text), unguarded(text)]).toEqual([text, text]),
  )
})

describe('a data folder', () => {
  it('is held by one at a time, and free again when that one lets go', () => {
    const folder = mkdtempSync(join(tmpdir(), 'own-'))
    const first = ownFolder(folder, '4250')
    expect(() => ownFolder(folder, '4251')).toThrow(
      /in use by another start of the application \(process \d+ on .*, port 4250/,
    )
    first.release()
    ownFolder(folder, '4251').release()
    rmSync(folder, { recursive: true })
  })
  it('is copied before its schema is changed', async () => {
    await disk.app.files.importBuild(demoFile('marzipan'))
    disk.app.close()
    const all = migrationsOnDisk()
    openDatabase(disk.path, [...all, { name: '900-later.sql', sql: 'CREATE TABLE later (a)' }]).close()
    const copy = disk.path.replace('.sqlite', '.before-900.sqlite')
    expect(existsSync(copy)).toBe(true)
    const before = openDatabase(copy, all)
    expect(before.prepare('SELECT count(*) FROM builds').pluck().get()).toBe(1)
    before.close()
    const db = new Database(disk.path)
    db.exec(`DROP TABLE later; DELETE FROM migrations WHERE name LIKE '900%'`)
    db.close()
    disk.app = disk.again()
  })
  it('that is deleted under it takes no write', async () => {
    const id = await disk.app.files.importBuild(demoFile('marzipan'))
    const { revision } = disk.app.builds.read(id)
    for (const ending of ['', '-wal', '-shm']) rmSync(disk.path + ending, { force: true })
    await expect(
      disk.app.builds.command(id, revision, { type: 'build.set', fields: { name: 'lost' } }, ''),
    ).rejects.toMatchObject({ trouble: 'gone' })
  })
  it('that another program has locked keeps nobody waiting but who writes, and the write is made when it is free', async () => {
    const id = await disk.app.files.importBuild(demoFile('marzipan'))
    const { revision } = disk.app.builds.read(id)
    const other = new Database(disk.path)
    other.exec('BEGIN IMMEDIATE')
    const written = disk.app.builds.command(id, revision, { type: 'build.set', fields: { name: 'After all' } }, '')
    const begun = performance.now()
    for (let i = 0; i < 20; i++) {
      expect(disk.app.builds.read(id).build.name).toBe('Marzipan')
      await new Promise(after => setTimeout(after, 5))
    }
    expect(performance.now() - begun).toBeLessThan(600)
    other.exec('COMMIT')
    await written
    expect(disk.app.builds.read(id).build.name).toBe('After all')
    other.exec('BEGIN IMMEDIATE')
    await expect(
      disk.app.builds.command(id, revision + 1, { type: 'build.set', fields: { name: 'Too long' } }, ''),
    ).rejects.toMatchObject({ trouble: 'in use' })
    other.exec('COMMIT')
    other.close()
    await disk.app.builds.command(id, revision + 1, { type: 'build.set', fields: { name: 'Again' } }, '')
  })
  it('tells what became known in the order of entry, though the clock was put back', async () => {
    disk.app.close()
    const times = ['2026-11-20T10:00:00.000Z', '2026-11-20T11:00:00.000Z', '2026-11-19T09:00:00.000Z']
    let n = 0
    const { makeApplication } = await import('./application')
    disk.app = makeApplication(disk.path, migrationsOnDisk(), () => times[Math.min(n, 2)]!, inThisThread)
    const id = await disk.app.files.importBuild(demoFile('marzipan'))
    for (const valueG of [3.1, 3.2, 3.3]) {
      n = [3.1, 3.2, 3.3].indexOf(valueG)
      await disk.app.builds.command(
        id,
        disk.app.builds.read(id).revision,
        {
          type: 'lines.change',
          changes: [
            { id: 'strap', fields: { mass: makeMass({ versionId: `c${valueG * 10}`, evidence: 'weighed', valueG }) } },
          ],
        },
        '',
      )
    }
    expect(
      disk.app.builds
        .lineHistory(id, 'strap')
        .slice(-3)
        .map(version => version.mass.valueG),
    ).toEqual([3.1, 3.2, 3.3])
    expect(
      disk.app.builds
        .journal(id)
        .entries.slice(0, 3)
        .map(entry => entry.gramsAfterG),
    ).toEqual([3.3, 3.2, 3.1])
  })
})
