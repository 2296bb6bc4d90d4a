import { rmSync } from 'node:fs'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { stateBefore, wholePatch } from '../../core/changes/commands'
import { blankAim, makeLine, makeMass } from '../../core/model/ledger'
import { openDatabase } from '../db/open-database'
import type { BuildFile } from '../../shared/schemas/build-file'
import { applicationOnDisk, demoFile, migrationsOnDisk } from '../testing'

let disk: ReturnType<typeof applicationOnDisk>
beforeEach(() => {
  disk = applicationOnDisk()
})
afterEach(() => {
  disk.app.close()
  disk.remove()
})
const demo = ['sherbet', 'praline', 'marzipan', 'nougat', 'treacle']

describe('what an earlier version of the application kept', () => {
  /** A file whose journal holds lines whole, as it once did. */
  function withWholeLines(file: BuildFile): BuildFile {
    let state = file.build
    const journal = [...file.journal].reverse().map(entry => {
      const patch = wholePatch(entry.patch, state)
      state = stateBefore(state, entry)
      return { ...entry, patch }
    })
    return { ...file, journal: journal.reverse() }
  }
  const without = (file: BuildFile) => {
    const drop = (key: string, value: unknown) =>
      ['weighing', 'observations', 'versions'].includes(key) ? undefined : value
    return JSON.stringify({ ...JSON.parse(JSON.stringify(file), drop), version: 1 })
  }
  it('a build file of version 1, which knew no weighings on scales, is read and goes out in the present version', async () => {
    const file = withWholeLines(JSON.parse(demoFile('marzipan')) as BuildFile)
    expect(JSON.stringify(file).length).toBeGreaterThan(demoFile('marzipan').length)
    const id = await disk.app.files.importBuild(without(file))
    expect(JSON.parse(disk.app.files.exportBuild(id))).toEqual(file)
  })
  it('a database made before there were scales is brought up to date, and its changes can be taken back', async () => {
    disk.app.close()
    rmSync(disk.path)
    const early = openDatabase(
      disk.path,
      migrationsOnDisk().filter(m => m.name < '003'),
    )
    early.exec(`
      INSERT INTO builds VALUES ('b', 'Old', '', 0, 2, '2026-01-01T00:00:00.000Z', '', 'recreation', '[]', '[]', 0, 0.95,
                                 NULL, NULL, NULL, 's', NULL);
      INSERT INTO setups VALUES ('b', 's', 0, 'as built');
      INSERT INTO mass_versions VALUES
        ('b', 'v1', 'l', '2026-01-01T00:00:00.000Z', 'listed', 9, 1, 0.1, NULL, NULL, NULL, 'as supplied', 'typed'),
        ('b', 'v2', 'l', '2026-01-02T00:00:00.000Z', 'weighed', 9.2, 1, 0.01, NULL, NULL, NULL, 'as fitted', 'typed');
      INSERT INTO lines VALUES ('b', 'l', 0, 'strap', 'strap', 1, 'v2', 9, 0.1, 'fitted', 'airframe', 0, NULL, '', NULL, NULL)`)
    const line = (versionId: string, evidence: string, valueG: number, basis: string, resolutionG: number) => ({
      id: 'l',
      slot: 'strap',
      name: 'strap',
      quantity: 1,
      listing: { valueG: 9, resolutionG: 0.1 },
      state: 'fitted',
      role: 'airframe',
      removable: false,
      priceEachCents: null,
      note: '',
      tie: null,
      insteadOf: null,
      pack: null,
      mass: {
        versionId,
        evidence,
        valueG,
        valueCount: 1,
        resolutionG,
        pieceReadingsG: null,
        halfRangeG: null,
        ownSpreadG: null,
        basis,
        origin: 'typed',
      },
    })
    const patch = JSON.stringify({
      head: null,
      lines: [
        { before: line('v1', 'listed', 9, 'as supplied', 0.1), after: line('v2', 'weighed', 9.2, 'as fitted', 0.01) },
      ],
      setups: null,
      order: null,
    })
    early
      .prepare(
        `INSERT INTO journal VALUES ('b', 1, '2026-01-02T00:00:00.000Z', 'do', NULL, 'strap: weighed', 9, 9.2, 9, 9.2, '', 'in force', ?)`,
      )
      .run(patch)
    early.close()
    const app = disk.again()
    expect(app.builds.read('b').build.lines[0]!.mass).toMatchObject({ valueG: 9.2, weighing: null })
    await app.builds.undo('b', 2)
    expect(app.builds.read('b').build.lines[0]!.mass).toMatchObject({ versionId: 'v1', valueG: 9 })
    expect(app.builds.shelf()[0]).toMatchObject({ name: 'Old', lines: 1 })
    expect(JSON.parse(app.files.exportBuild('b'))).toMatchObject({ version: 6, build: { observations: [] } })
    disk.app = app
  })
  it('packs of a database that were made up are asked about, those somebody said are kept', async () => {
    disk.app.close()
    rmSync(disk.path)
    const early = openDatabase(
      disk.path,
      migrationsOnDisk().filter(m => m.name < '015'),
    )
    early.exec(`
      INSERT INTO builds (id, name, craft_class, archived, revision, created_at, purpose, purpose_kind, places, card_ids,
                          reserve_g, confidence, flies_setup_id)
      VALUES ('b', 'Old', '', 0, 1, '2026-01-01T00:00:00.000Z', '', 'recreation', '[]', '[]', 0, 0.95, 's');
      INSERT INTO setups VALUES ('b', 's', 0, 'as built');
      INSERT INTO lines (build_id, id, position, slot, name, quantity, state, role, removable, note) VALUES
        ('b', 'made', 0, 'pack', 'New pack', 1, 'fitted', 'airframe', 0, ''),
        ('b', 'said', 1, 'pack', 'New pack', 1, 'fitted', 'airframe', 0, '');
      INSERT INTO packs VALUES ('b', 'made', 'P1', 1, 'LiPo', 300, NULL, ''), ('b', 'said', 'P2', 1, 'LiPo', 300, 60, '')`)
    const parts = early.prepare(
      `INSERT INTO parts (id, slot, name, pack, sold_in, owned, lost, scrapped, missing, bag, link, ` +
        `note, tags) VALUES (?, 'pack', 'Pack', ?, 1, 1, 0, 0, 0, '', '', '', '[]')`,
    )
    const pack = { label: 'P3', cells: 1, chemistry: 'LiPo', capacityMah: 300, cRating: null, plug: '' }
    parts.run('made', JSON.stringify(pack))
    parts.run('said', JSON.stringify({ ...pack, cells: 2 }))
    early.close()
    disk.app = disk.again()
    expect(disk.app.builds.read('b').build.lines).toMatchObject([
      { pack: null, packSoFar: { label: 'P1', cells: 1, chemistry: 'LiPo', capacityMah: 300 } },
      { pack: { label: 'P2', cRating: 60 }, packSoFar: null },
    ])
    expect(disk.app.parts.all().parts).toMatchObject([
      { pack: null, packSoFar: { label: 'P3', capacityMah: 300 } },
      { pack: { cells: 2 }, packSoFar: null },
    ])
  })
})

/** A file of an earlier version whose first entry of the journal has this in its patch. */
function withPatch(more: object): string {
  const { versions: _versions, ...file } = JSON.parse(demoFile('sherbet')) as BuildFile
  const [first, ...rest] = file.journal
  return JSON.stringify({ ...file, version: 3, journal: [{ ...first, patch: { ...first!.patch, ...more } }, ...rest] })
}

describe('what a joint holds', () => {
  it('is read out of its name where an earlier version wrote it, in the build and in its history', async () => {
    const file = JSON.parse(demoFile('nougat')) as BuildFile
    const early = JSON.stringify({ ...file, versions: { ...file.versions, fit: 1 } }).replaceAll(
      /"holds":("motors"|"something else"|null),/g,
      '',
    )
    expect(early).not.toContain('"holds"')
    const id = await disk.app.files.importBuild(early)
    expect(disk.app.builds.read(id).build.fit!.joints.map(joint => joint.holds)).toEqual(['motors', null])
    expect(disk.app.files.exportBuild(id)).toContain('"holds":"motors"')
    while (disk.app.builds.read(id).steps.undo) await disk.app.builds.undo(id, disk.app.builds.read(id).revision)
    while (disk.app.builds.read(id).steps.redo) await disk.app.builds.redo(id, disk.app.builds.read(id).revision)
    expect(disk.app.builds.read(id).build.fit!.joints.map(joint => joint.holds)).toEqual(['motors', null])
  })
})

describe('build files', () => {
  it.each(demo)('%s comes in and goes out the same to the last byte', async name => {
    const id = await disk.app.files.importBuild(demoFile(name))
    expect(disk.app.files.exportBuild(id, true)).toBe(demoFile(name))
  })
  it('stay whole through a second export and import beside the first', async () => {
    const first = await disk.app.files.importBuild(demoFile('marzipan'))
    const second = await disk.app.files.importBuild(disk.app.files.exportBuild(first))
    expect(second).not.toBe(first)
    const { id: _a, ...one } = disk.app.builds.read(first).build
    const { id: _b, ...other } = disk.app.builds.read(second).build
    expect(other).toEqual(one)
    expect(disk.app.builds.journal(second).entries).toEqual(disk.app.builds.journal(first).entries)
  })
  it('bring the own cards they chose, once', async () => {
    await disk.app.files.importBuild(demoFile('sherbet'))
    await disk.app.files.importBuild(demoFile('sherbet'))
    expect(
      disk.app.rules
        .cards()
        .filter(card => card.own)
        .map(card => card.id),
    ).toEqual(['tram-shed-30'])
  })
  it.each([
    ['no JSON', () => '{"format":', 'cannot be read as JSON'],
    ['something else', () => '{"hello": 1}', 'does not say so'],
    ['a newer version', () => demoFile('sherbet').replace(/"version": \d+/, '"version": 99'), 'version 99'],
    [
      'a part in a newer version',
      () => demoFile('sherbet').replace(/"fit":\d+/, '"fit":9'),
      'holds Fit in version 9, of which this application reads up to version 2. Update the application',
    ],
    [
      'a part nobody knows',
      () => demoFile('sherbet').replace(/"fit":\d+/, '$&,"wings":1'),
      'holds “wings”, which this application does not know. Update the application',
    ],
    [
      'no word of the version of one part',
      () => demoFile('sherbet').replace(/"fit":\d+,/, ''),
      'does not say in which version its parts are written',
    ],
    [
      'nothing in it, and no word of its parts',
      () => '{"format":"jolly-gram build","version":4,"versions":{},"build":{}}',
      'does not say in which version its parts are written',
    ],
    ...['isPrototypeOf', 'hasOwnProperty', '__proto__', 'constructor'].map(
      name =>
        [
          `a list of the journal called ${name}`,
          () => withPatch({ lists: [{ list: name, changes: [{ before: {}, after: {} }], order: null }] }),
          'mistake at journal.0.patch.lists',
        ] as [string, () => string, string],
    ),
    [
      'a part of the journal that is none',
      () => withPatch({ parts: [{ part: 'toString', before: {}, after: {} }] }),
      'mistake at journal.0.patch.parts',
    ],
    [
      'no word of the versions of its parts',
      () => demoFile('sherbet').replace('"versions":', '"otherwise":'),
      'does not say in which version its parts are written',
    ],
    ['a negative mass', () => demoFile('sherbet').replace('"valueG":3.42', '"valueG":-3.42'), 'cannot be negative'],
    ['a quantity of 2.5', () => demoFile('sherbet').replace('"quantity":4', '"quantity":2.5'), 'whole number'],
    [
      'a name that is markup',
      () => demoFile('sherbet').replace('"Clear canopy, 22° tilt"', '"<script>alert(1)</script>"'),
      '“<…>”',
    ],
    [
      'a name that is a formula',
      () => demoFile('sherbet').replace('"Clear canopy, 22° tilt"', '"=HYPERLINK(1)"'),
      'formula',
    ],
    ['a line twice', () => demoFile('sherbet').replaceAll('"id":"canopy"', '"id":"frame"'), 'same id'],
    [
      'a field nobody knows',
      () => demoFile('sherbet').replace('"archived": false', '"archived": false, "colour": "red"'),
      'colour',
    ],
  ])('with %s are refused in a sentence and change nothing', async (_what, text, sentence) => {
    await expect(disk.app.files.importBuild(text())).rejects.toThrow(sentence)
    expect(disk.app.builds.shelf()).toEqual([])
  })
})

describe('the demo', () => {
  it('whose history changes a part that is not there are refused in a sentence', async () => {
    for (const change of [
      { lists: [{ list: 'shave.shavings', changes: [], order: { before: ['a'], after: ['b'] } }] },
      { parts: [{ part: 'shave', before: { spare: 'cents' }, after: { spare: 'loss' } }] },
    ]) {
      const file = JSON.parse(demoFile('sherbet')) as { build: { shave: null }; journal: { patch: object }[] }
      expect(file.build.shave).toBeNull()
      Object.assign(file.journal.at(-1)!.patch, change)
      await expect(disk.app.files.importBuild(JSON.stringify(file))).rejects.toThrow('Nothing is said there')
    }
  })
  it('has the verdicts its stories ask for', async () => {
    for (const name of demo) await disk.app.files.importBuild(demoFile(name))
    const words = Object.fromEntries(disk.app.builds.shelf().map(entry => [entry.name, entry.word]))
    expect(words).toEqual({
      Sherbet: 'Clear',
      Praline: 'Clear',
      Marzipan: 'Too close to call',
      Nougat: 'Over',
      Treacle: 'Too close to call',
    })
    const sherbet = disk.app.builds.shelf().find(entry => entry.name === 'Sherbet')!
    expect(sherbet.weighedLines).toBe(sherbet.lines)
    expect(sherbet.dryG).toBeLessThan(20.5)
    const packs = disk.app.builds
      .shelf()
      .flatMap(entry => disk.app.builds.read(entry.id).build.lines.filter(line => line.slot === 'pack'))
    expect(packs).toHaveLength(9)
    const praline = (await disk.app.builds.report('praline')).rows
      .filter(row => row.loadout.startsWith('bumpers ·'))
      .map(row => row.cards[0]!.verdict)
    expect(praline).toEqual(['Clear', 'Clear', 'Over'])
  })
})

describe('other files', () => {
  it('the build sheet shows the total, each card and no raw markup', async () => {
    const id = await disk.app.files.importBuild(demoFile('marzipan'))
    const sheet = await disk.app.files.sheet(id)
    expect(sheet).toContain('**248.2 g ± 2.3** all-up (day, navigation · P7)')
    expect(sheet).toContain('**Too close to call**')
    expect(sheet).toContain('not legal advice')
  })
  it('the sheet of another day tells the craft as it was then, by what was known then', async () => {
    const id = await disk.app.files.importBuild(demoFile('nougat'))
    const entries = disk.app.builds.journal(id).entries
    const at = entries.find(({ seq }) => seq === 9)!
    const sheet = await disk.app.files.sheet(id, 9)
    expect(sheet).toMatch(/^# Nougat, as of 2026-10-1\d$/m)
    expect(sheet).toMatch(/^\*\*252\.\d g ± [34]\.\d\*\* all-up \(heat camera · N1\)/m)
    expect(sheet).not.toContain('254.97 g')
    expect((await disk.app.files.page(id, 9)).startsWith('<!doctype html>')).toBe(true)
    expect(at.auwAfterG).toBeCloseTo(253, 0)
    await expect(disk.app.files.sheet(id, 999)).rejects.toThrow('There is no such entry in this journal.')
    expect(await disk.app.files.sheet(id)).toContain('254.97 g')
  })
  it('the sheet carries what was noted: at lines, at steps, and as the reason of a change; not of one taken back', async () => {
    const id = await disk.app.files.importBuild(demoFile('nougat'))
    const revision = () => disk.app.builds.read(id).revision
    await disk.app.builds.command(
      id,
      revision(),
      {
        type: 'lines.change',
        changes: [{ id: 'frame', fields: { note: 'hair crack at the left arm since the crash' } }],
      },
      '',
    )
    await disk.app.builds.command(
      id,
      revision(),
      { type: 'assembly.record', stepId: 'props', fields: { note: 'one blade nicked' } },
      '',
    )
    await disk.app.builds.command(
      id,
      revision(),
      { type: 'lines.change', changes: [{ id: 'strap', fields: { quantity: 2 } }] },
      'the pack flew off',
    )
    await disk.app.builds.command(
      id,
      revision(),
      { type: 'lines.change', changes: [{ id: 'strap', fields: { quantity: 3 } }] },
      'a slip',
    )
    await disk.app.builds.undo(id, revision())
    const sheet = await disk.app.files.sheet(id)
    expect(sheet).toContain('## Notes')
    expect(sheet).toContain('hair crack at the left arm since the crash')
    expect(sheet).toContain('on, after everything else: one blade nicked')
    expect(sheet).toContain('× 1 → × 2: the pack flew off')
    expect(sheet).not.toContain('a slip')
  })
  it('a new build starts from a class, a copy or as a reference craft', async () => {
    const id = await disk.app.newBuilds.start({ from: 'class', name: 'Plan', craftClass: '3-inch ultralight' })
    expect(disk.app.builds.read(id).build.aim).toEqual(blankAim())
    const copy = await disk.app.newBuilds.start({ from: 'copy', name: 'Plan two', buildId: id })
    expect(disk.app.builds.read(copy).build.lines).toEqual(disk.app.builds.read(id).build.lines)
    await disk.app.newBuilds.start({
      from: 'reference',
      name: 'Old one',
      reference: {
        massG: 244,
        spreadG: 1,
        thrustG: 900,
        priceCents: null,
        minutes: 6,
        note: 'as it came',
        pictureIds: [],
      },
    })
    expect(disk.app.builds.shelf().map(e => e.reference?.massG ?? Math.round(e.massG))).toEqual([195, 195, 244])
    await expect(disk.app.newBuilds.start({ from: 'class', name: 'X', craftClass: 'submarine' })).rejects.toThrow(
      'no such craft class',
    )
  })
})

describe('a reference craft taken apart', () => {
  const humbug = {
    ...{ massG: 231.4, spreadG: 0.6, thrustG: null, priceCents: null, minutes: null },
    ...{ note: '', pictureIds: [] },
  }
  const weighing = (id: string, valueG: number) =>
    makeLine({
      ...{ id, slot: 'motor' as const, name: id },
      mass: makeMass({ versionId: `v-${id}`, evidence: 'weighed', valueG, ownSpreadG: 0.1 }),
    })
  it('begins with its parts as they were said and the rest as one line, as heavy as the whole', async () => {
    const craft = await disk.app.newBuilds.start({ from: 'reference', name: 'Humbug', reference: humbug })
    const add = (id: string, valueG: number, revision: number) =>
      disk.app.builds.command(craft, revision, { type: 'lines.add', lines: [weighing(id, valueG)], beforeId: null }, '')
    await add('motors', 40.8, 1)
    expect(await disk.app.files.sheet(craft)).toContain('**231.40 g ± 0.60** as a whole; 40.8')
    const id = await disk.app.newBuilds.start({ from: 'strip', name: 'Humbug, stripped', buildId: craft })
    const { build } = disk.app.builds.read(id)
    expect(build.reference).toBeNull()
    expect(build.lines.map(line => [line.name, line.mass?.valueG.toFixed(2)])).toEqual([
      ['motors', '40.80'],
      ['The rest of Humbug, not taken apart yet', '190.60'],
    ])
    const [, stripped] = disk.app.builds.shelf()
    expect(stripped!.massG).toBeCloseTo(231.4, 9)
    await add('bricks', 200, 2)
    await expect(disk.app.newBuilds.start({ from: 'strip', name: 'Again', buildId: craft })).rejects.toThrow(
      'only 231.40 g of it are left',
    )
    await expect(disk.app.newBuilds.start({ from: 'strip', name: 'Again', buildId: id })).rejects.toThrow(
      'Only a reference craft is taken apart here.',
    )
    expect(disk.app.builds.shelf()).toHaveLength(2)
  })
})

describe('flights in a build file', () => {
  interface Flown {
    flights: { id: string; buildId: string; place: string; snapshot: { pack: { key: string } } }[]
    findings: { id: string; flightId: string; buildId: string }[]
  }
  const exported = (id: string, withPlaces = false) =>
    JSON.parse(disk.app.files.exportBuild(id, withPlaces)) as Flown & Record<string, unknown>

  it('leave out where they were flown, unless that is asked for', async () => {
    await disk.app.files.importBuild(demoFile('praline'))
    expect(new Set(exported('praline').flights.map(({ place }) => place))).toEqual(new Set(['']))
    expect(exported('praline', true).flights[0]!.place).toBe('harbour wall')
  })
  it('of a build that is there already come in beside it, with their findings and packs', async () => {
    await disk.app.files.importBuild(demoFile('praline'))
    const first = exported('praline')
    const copy = await disk.app.files.importBuild(demoFile('praline'))
    expect(exported('praline')).toEqual(first)
    const { flights, findings } = exported(copy)
    expect(flights).toHaveLength(first.flights.length)
    expect(flights.every(({ buildId }) => buildId === copy)).toBe(true)
    const ids = new Set(flights.map(({ id }) => id))
    expect(first.flights.some(({ id }) => ids.has(id))).toBe(false)
    expect(findings.map(({ flightId }) => ids.has(flightId))).toEqual(first.findings.map(() => true))
    expect(new Set(flights.map(({ snapshot }) => snapshot.pack.key))).toEqual(new Set([`${copy}/q1`, `${copy}/q2`]))
    expect(disk.app.flights.ofBuild(copy).worked.map(({ held }) => held)).toContain('does not agree')
  })
  it('are none in a file of version 4, and one that cannot be refuses the whole file', async () => {
    const file = JSON.parse(demoFile('praline')) as Flown & Record<string, unknown>
    const { flights, findings: _findings, ...before } = file
    await disk.app.files.importBuild(JSON.stringify({ ...before, version: 4 }))
    expect(exported('praline').flights).toEqual([])
    await disk.app.builds.command(
      'praline',
      disk.app.builds.read('praline').revision,
      { type: 'build.set', fields: { archived: true } },
      '',
    )
    await disk.app.builds.remove('praline')
    const spoilt = { ...file, flights: [{ ...flights[0], durationS: 24_000 }] }
    await expect(disk.app.files.importBuild(JSON.stringify(spoilt))).rejects.toMatchObject({
      code: 'invalid',
      message: expect.stringMatching(/flights\.0\.durationS: A flight lasts/),
    })
    expect(disk.app.builds.exists('praline')).toBe(false)
  })
})
