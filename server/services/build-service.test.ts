import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { makeLine, makeMass, type Build, type Line } from '../../core/model/ledger'
import { makeShaving } from '../../core/model/data/shave-list'
import type { Command } from '../../core/changes/commands'
import { applicationOnDisk, demoFile } from '../testing'
import { DomainProblem } from '../problems'

let disk: ReturnType<typeof applicationOnDisk>
let id: string
beforeEach(async () => {
  disk = applicationOnDisk()
  id = await disk.app.files.importBuild(demoFile('marzipan'))
})
afterEach(() => {
  disk.app.close()
  disk.remove()
})
const weigh = (lineId: string, valueG: number): Command => ({
  type: 'lines.change',
  changes: [
    {
      id: lineId,
      fields: { mass: makeMass({ versionId: `n${valueG}`.replace('.', '-'), evidence: 'weighed', valueG }) },
    },
  ],
})
const revision = () => disk.app.builds.read(id).revision

describe('a change', () => {
  it('is on disk when it is answered, with the all-up weight before and after in the journal', async () => {
    const reply = await disk.app.builds.command(id, revision(), weigh('vtx', 17.02), 'on the bench')
    expect(reply.entry).toMatchObject({
      title: 'Oddfellow digital, cased, 9 V feed: weighed',
      gramsBeforeG: 16.9,
      gramsAfterG: 17.02,
      note: 'on the bench',
    })
    const other = disk.again()
    expect(other.builds.read(id).build.lines.find(l => l.id === 'vtx')?.mass).toMatchObject({
      valueG: 17.02,
      evidence: 'weighed',
    })
    expect(other.builds.journal(id).entries[0]).toEqual(reply.entry)
    expect((await other.builds.report(id)).rows.find(r => r.loadout === 'day, navigation · P7')?.auwG).toBeCloseTo(
      reply.entry!.auwAfterG,
      9,
    )
    other.close()
  })
  it('is taken back and done again, across a restart too', async () => {
    const before = disk.app.builds.read(id).build
    await disk.app.builds.command(id, revision(), weigh('vtx', 17.02), '')
    const after = disk.app.builds.read(id).build
    disk.app.close()
    disk.app = disk.again()
    await disk.app.builds.undo(id, revision())
    expect(disk.app.builds.read(id).build).toEqual(before)
    disk.app.close()
    disk.app = disk.again()
    expect(disk.app.builds.read(id).build).toEqual(before)
    expect(disk.app.builds.read(id).steps.redo).toContain('Oddfellow')
    await disk.app.builds.redo(id, revision())
    expect(disk.app.builds.read(id).build).toEqual(after)
  })
  it('after an undo overtakes what was taken back', async () => {
    await disk.app.builds.command(id, revision(), weigh('vtx', 17.02), '')
    await disk.app.builds.undo(id, revision())
    await disk.app.builds.command(id, revision(), weigh('strap', 3.3), '')
    expect(disk.app.builds.read(id).steps.redo).toBeNull()
    await expect(disk.app.builds.redo(id, revision())).rejects.toThrow('nothing to do again')
    expect(disk.app.builds.journal(id).entries.map(e => e.undone)).toContain('overtaken')
  })
  it('everything in the journal can be taken back, down to the empty build, and done again', async () => {
    const whole = disk.app.builds.read(id).build
    while (disk.app.builds.read(id).steps.undo) await disk.app.builds.undo(id, revision())
    expect(disk.app.builds.read(id).build.lines).toEqual([])
    while (disk.app.builds.read(id).steps.redo) await disk.app.builds.redo(id, revision())
    expect(disk.app.builds.read(id).build).toEqual(whole)
    const reopened = disk.again()
    expect(reopened.builds.read(id).build).toEqual(whole)
    reopened.close()
  })
  it('that saw an older revision is refused with what is there now, and changes nothing', async () => {
    const seen = revision()
    await disk.app.builds.command(id, seen, weigh('vtx', 17.02), '')
    const late = disk.app.builds.command(id, seen, weigh('vtx', 16.5), '')
    await expect(late).rejects.toMatchObject({ code: 'stale', current: { revision: seen + 1 } })
    expect(disk.app.builds.read(id).build.lines.find(l => l.id === 'vtx')?.mass?.valueG).toBe(17.02)
  })
  it('that is refused leaves its neighbours in the same commit alone', async () => {
    const other = await disk.app.files.importBuild(demoFile('nougat'))
    const good = disk.app.builds.command(id, revision(), weigh('vtx', 17.02), '')
    const bad = disk.app.builds.command(
      other,
      disk.app.builds.read(other).revision,
      { type: 'lines.delete', ids: ['nobody'] },
      '',
    )
    await expect(bad).rejects.toBeInstanceOf(DomainProblem)
    await expect(good).resolves.toMatchObject({ revision: expect.any(Number) })
    expect(
      disk
        .again()
        .builds.read(id)
        .build.lines.find(l => l.id === 'vtx')?.mass?.valueG,
    ).toBe(17.02)
  })
  it('goes with others in one commit, each with its own journal entry, all of them or none', async () => {
    const seen = revision()
    const heard: number[] = []
    disk.app.builds.follow(id, at => heard.push(at))
    const together = [weigh('vtx', 17.02), weigh('strap', 3.3), weigh('strap', 3.2)].map(command => ({
      command,
      note: '',
    }))
    const reply = await disk.app.builds.commands(id, seen, together)
    expect(reply).toMatchObject({
      revision: seen + 3,
      entries: [
        { gramsAfterG: 17.02 },
        { gramsBeforeG: 3.41, gramsAfterG: 3.3 },
        { gramsBeforeG: 3.3, gramsAfterG: 3.2 },
      ],
    })
    expect(heard).toEqual([seen + 3])
    // What is written at once was written at one moment, and only its last revision is ever seen.
    expect(new Set(reply.entries.map(({ at }) => at)).size).toBe(1)
    const reopened = disk.again()
    expect(reopened.builds.read(id).revision).toBe(seen + 3)
    reopened.close()
    await disk.app.builds.undo(id, seen + 3)
    expect(disk.app.builds.read(id).build.lines.find(l => l.id === 'strap')?.mass?.valueG).toBe(3.3)
    const before = disk.app.builds.read(id)
    const withBad = [
      { command: weigh('vtx', 15), note: '' },
      { command: { type: 'lines.delete', ids: ['nobody'] } as Command, note: '' },
    ]
    await expect(disk.app.builds.commands(id, before.revision, withBad)).rejects.toMatchObject({ code: 'refused' })
    expect(disk.app.builds.read(id)).toEqual(before)
    await expect(
      disk.app.builds.commands(
        id,
        seen,
        [weigh('pad', 1.4), weigh('strap', 2.9)].map(command => ({ command, note: '' })),
      ),
    ).rejects.toMatchObject({ code: 'stale' })
    const other = disk.again()
    expect(other.builds.read(id)).toEqual(before)
    other.close()
  })
  it('that gives an earlier version other grams is refused and changes nothing', async () => {
    await disk.app.builds.command(id, revision(), weigh('vtx', 17.02), '')
    const before = disk.app.builds.read(id).build
    const forged: Command = {
      type: 'lines.change',
      changes: [{ id: 'strap', fields: { mass: makeMass({ versionId: 'n17-02', evidence: 'weighed', valueG: 1 }) } }],
    }
    await expect(disk.app.builds.command(id, revision(), forged, '')).rejects.toMatchObject({
      code: 'refused',
      field: 'versionId',
    })
    const other = disk.again()
    expect(other.builds.read(id).build).toEqual(before)
    other.close()
  })
  it('that changes nothing makes no entry', async () => {
    const seen = revision()
    const same = disk.app.builds.read(id).build.aim
    await disk.app.builds.command(id, seen, { type: 'lines.move', ids: ['frame'], beforeId: 'cradle' }, '')
    expect(revision()).toBe(seen)
    expect(same).toBe(disk.app.builds.read(id).build.aim)
  })
})

describe('weighings beside a line', () => {
  it('are kept with it through restart, file and journal, and are another piece’s when it is said so', async () => {
    const mass = (versionId: string, valueG: number) => makeMass({ versionId, evidence: 'weighed', valueG })
    for (const n of [1, 2])
      await disk.app.builds.command(
        id,
        revision(),
        { type: 'line.weigh', id: 'strap', mass: mass(`again-${n}`, 3 + n / 10), as: 'further' },
        '',
      )
    const was = disk.app.builds.read(id).build.lines.find(l => l.id === 'strap')!.mass!
    await disk.app.builds.command(id, revision(), { type: 'line.another', id: 'strap', versionId: 'again-2', was }, '')
    const strap = disk
      .again()
      .builds.read(id)
      .build.lines.find(l => l.id === 'strap')!
    expect(strap).toMatchObject({
      edition: 1,
      mass: { versionId: 'again-2', valueG: 3.2 },
      further: [{ mass: { versionId: 'again-1' }, of: { quantity: 1, mass: was } }],
    })
    expect(
      disk.app.builds
        .lineHistory(id, 'strap')
        .map(version => version.mass.versionId)
        .slice(-2),
    ).toEqual(['again-1', 'again-2'])
    const text = disk.app.files.exportBuild(id)
    const beside = applicationOnDisk()
    expect(beside.app.files.exportBuild(await beside.app.files.importBuild(text))).toBe(text)
    beside.app.close()
    beside.remove()
    for (const _ of [1, 2, 3]) await disk.app.builds.undo(id, revision())
    expect(disk.app.builds.read(id).build.lines.find(l => l.id === 'strap')).toMatchObject({
      edition: 0,
      further: [],
      mass: was,
    })
  })
})

describe('a long journal', () => {
  it('is told page by page, newest first, all of it', async () => {
    for (let n = 0; n < 203; n++) {
      const { revision } = disk.app.builds.read('marzipan')
      await disk.app.builds.command(
        'marzipan',
        revision,
        { type: 'build.set', fields: { craftClass: `class ${n}` } },
        '',
      )
    }
    const whole = [...disk.app.builds.wholeOf('marzipan').journal].map(entry => entry.seq).reverse()
    const told: number[] = []
    let page = disk.app.builds.journal('marzipan')
    expect(page.entries).toHaveLength(200)
    for (;;) {
      told.push(...page.entries.map(entry => entry.seq))
      if (!page.earlier) break
      page = disk.app.builds.journal('marzipan', { before: told.at(-1)! })
    }
    expect(told).toEqual(whole)
  })
})

describe('every kind of command survives the database', () => {
  const commands: Command[] = [
    {
      type: 'lines.add',
      lines: [
        {
          ...makeLine({ id: 'x', slot: 'frame', name: 'x' }),
          ...JSON.parse(demoFile('marzipan')).build.lines[0],
          id: 'second',
          mass: makeMass({ versionId: 'x1', evidence: 'guess', valueG: 1 }),
        },
      ],
      beforeId: 'motors',
    },
    { type: 'lines.move', ids: ['strap', 'pad'], beforeId: 'frame' },
    { type: 'lines.delete', ids: ['p7', 'lamp'] },
    { type: 'line.fit', id: 'vtx-open' },
    { type: 'setup.put', setup: { id: 'new', name: 'camera day', lineIds: ['gps', 'lamp'] } },
    { type: 'setup.delete', id: 'ridge' },
    { type: 'loadout.fly', choice: { setupId: 'ridge', packLineId: 'p4' } },
    { type: 'loadout.never', choice: { setupId: 'ridge', packLineId: 'p7' }, never: true },
    {
      type: 'flying.set',
      fields: { style: 'race', reservePercent: 20, overOnPurpose: [{ setupId: 'day', packLineId: 'p4' }] },
    },
    { type: 'flying.set', fields: { endCellV: 3.4 } },
    {
      type: 'fit.set',
      fields: {
        wires: [
          {
            id: 'w',
            name: 'lamp lead',
            from: 'board',
            to: 'lamp',
            awg: 28,
            count: 2,
            routeMm: 80,
            slackMm: 10,
            haveMm: null,
          },
        ],
      },
    },
    {
      type: 'lines.change',
      changes: [
        { id: 'lamp', fields: { properties: { voltsMin: 5, voltsMax: 9 }, feed: { from: 'board', output: '5 V' } } },
      ],
    },
    {
      type: 'observation.put',
      observation: {
        id: 'dry',
        title: 'dry aircraft',
        takenAt: '2026-11-02T18:00:00.000Z',
        scaleId: 'blue',
        scaleName: 'blue',
        checkId: null,
        displaysG: [148.2],
        tareDisplayG: 0,
        valueG: 148.2,
        contributions: { 'weighing:dry': -0.01, 'listing:video transmitter': 0.2 },
        pictureIds: [],
        subjects: JSON.parse(demoFile('marzipan'))
          .build.lines.slice(0, 3)
          .map(({ id, slot, quantity, mass }: Line) => ({ id, slot, quantity, mass })),
        state: 'taken in',
      },
    },
    {
      type: 'lines.change',
      changes: [
        {
          id: 'strap',
          fields: {
            mass: makeMass({
              versionId: 'onscale',
              evidence: 'weighed',
              valueG: 3.2,
              weighing: {
                takenAt: '2026-11-02T18:00:00.000Z',
                scaleId: 'blue',
                scaleName: 'blue',
                checkId: 'c',
                method: 'on the pan',
                displaysG: [3.21],
                tare: { id: 't', name: 'tray', displayG: 0.01 },
                contributions: { 'gain:blue:c': -0.001 },
                supersedes: null,
              },
            }),
          },
        },
      ],
    },
    {
      type: 'line.weigh',
      id: 'strap',
      mass: makeMass({ versionId: 'again', evidence: 'weighed', valueG: 3.19 }),
      as: 'further',
    },
    {
      type: 'line.weigh',
      id: 'vtx',
      mass: makeMass({ versionId: 'cut', evidence: 'weighed', valueG: 15 }),
      as: 'another piece',
    },
    {
      type: 'build.set',
      fields: {
        name: 'Other',
        archived: true,
        reference: {
          massG: 200,
          spreadG: 1,
          thrustG: null,
          priceCents: 1,
          minutes: null,
          note: 'as it came',
          pictureIds: [],
        },
        aim: { goalDryG: 140, places: ['Canada'] },
      },
    },
    { type: 'shave.set', fields: { spare: 'minutes', caps: { cents: 500, minutes: null, loss: 3 } } },
    {
      type: 'shaving.put',
      shaving: makeShaving({ id: 'thin', what: 'thinner strap', kind: 'lighter strap', lineId: 'strap', gramsG: 1.2 }),
    },
    {
      type: 'assembly.set',
      fields: {
        school: 'boards first',
        order: ['camera', 'video'],
        own: [{ id: 'own-1', title: 'clean the lens', words: '', phase: 'camera', after: ['camera'], minutes: 2 }],
      },
    },
    {
      type: 'assembly.record',
      stepId: 'capacitor',
      fields: { note: 'legs cut short', photoIds: ['p1'], minutes: 7.5 },
    },
    {
      type: 'assembly.record',
      stepId: 'first-power',
      fields: { overriddenWhy: 'tried on the bench supply', doneAt: '2026-11-02T18:00:00.000Z' },
    },
    { type: 'lines.change', changes: [{ id: 'p4', fields: { pack: null, packSoFar: { label: 'P4', cells: 4 } } }] },
    { type: 'line.fit', id: 'vtx-open' },
    {
      type: 'fit.set',
      fields: {
        joints: [
          {
            id: 'j',
            name: 'New joint',
            holds: null,
            count: null,
            thread: null,
            head: null,
            material: null,
            clampedMm: 3,
            engagementMm: null,
            freeDepthMm: null,
            beyond: null,
            into: '',
            lengthMm: null,
            lineId: null,
            said: true,
          },
        ],
      },
    },
    {
      type: 'lines.change',
      changes: [
        {
          id: 'p4',
          fields: { pack: { label: 'P4b', cells: 4, chemistry: 'LiHV', capacityMah: 700, cRating: null, plug: '' } },
        },
        { id: 'strap', fields: { mass: null, listing: null, tie: 't', removable: true } },
      ],
    },
  ]
  it.each(commands.map(c => [c.type, c] as const))('%s, done and taken back', async (_type, command) => {
    const before = disk.app.builds.read(id).build
    await disk.app.builds.command(id, revision(), command, '')
    const done = disk.app.builds.read(id).build
    expect(done).not.toEqual(before)
    const afterwards = disk.again()
    expect(afterwards.builds.read(id).build).toEqual(done)
    afterwards.close()
    await disk.app.builds.undo(id, revision())
    const takenBack = disk.again()
    expect(takenBack.builds.read(id).build).toEqual(before)
    takenBack.close()
  })
})

describe('how a line became known', () => {
  it('leaves out slips that were taken back, and has them again when they are done again', async () => {
    const known = () => disk.app.builds.lineHistory(id, 'strap').map(version => version.mass.versionId)
    const before = known()
    const put = (versionId: string, valueG: number): Command => ({
      type: 'lines.change',
      changes: [{ id: 'strap', fields: { mass: makeMass({ versionId, evidence: 'weighed', valueG }) } }],
    })
    await disk.app.builds.command(id, revision(), put('slip', 31), '')
    expect(known()).toEqual([...before, 'slip'])
    await disk.app.builds.undo(id, revision())
    expect(known()).toEqual(before)
    await disk.app.builds.redo(id, revision())
    expect(known()).toEqual([...before, 'slip'])
    await disk.app.builds.undo(id, revision())
    await disk.app.builds.command(id, revision(), put('right', 3.1), '')
    expect(known()).toEqual([...before, 'right'])
    await disk.app.builds.command(
      id,
      revision(),
      {
        type: 'line.weigh',
        id: 'strap',
        mass: makeMass({ versionId: 'beside', evidence: 'weighed', valueG: 3.12 }),
        as: 'further',
      },
      '',
    )
    expect(known()).toEqual([...before, 'right', 'beside'])
    await disk.app.builds.undo(id, revision())
    expect(known()).toEqual([...before, 'right'])
  })
})

describe('any run of changes', () => {
  const names = ['Thistle', 'Rook', 'Ostler']
  const commandFor = (build: Build, dice: number, n: number): Command => {
    const line = build.lines[dice % build.lines.length]!
    switch (dice % 5) {
      case 0:
        return { type: 'lines.change', changes: [{ id: line.id, fields: { name: names[n % 3]! } }] }
      case 1:
        return { type: 'lines.delete', ids: [line.id] }
      case 2:
        return { type: 'lines.move', ids: [line.id], beforeId: null }
      case 3:
        return { type: 'setup.put', setup: { id: `s${n}`, name: names[n % 3]!, lineIds: [line.id] } }
      default:
        return {
          type: 'lines.change',
          changes: [{ id: line.id, fields: { mass: makeMass({ versionId: `r${n}`, evidence: 'guess', valueG: n }) } }],
        }
    }
  }
  it('taken back or not, is the same build to another process, after a restart, and in its file', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(fc.nat(999), { minLength: 1, maxLength: 12 }), async throws => {
        let n = revision()
        for (const dice of throws) {
          if (dice % 7 === 6 && disk.app.builds.read(id).steps.undo) await disk.app.builds.undo(id, n)
          else await disk.app.builds.command(id, n, commandFor(disk.app.builds.read(id).build, dice, n), '')
          n = revision()
        }
        const now = disk.app.builds.read(id)
        const elsewhere = disk.again()
        expect(elsewhere.builds.read(id)).toEqual(now)
        elsewhere.close()
        const file = disk.app.files.exportBuild(id)
        disk.app.close()
        disk.app = disk.again()
        expect(disk.app.builds.read(id)).toEqual(now)
        expect(disk.app.files.exportBuild(id)).toBe(file)
        expect(
          disk.app.builds.searchLines(now.build.lines[0]!.name).some(found => found.lineId === now.build.lines[0]!.id),
        ).toBe(true)
      }),
      { numRuns: 12 },
    )
  })
})

describe('listings', () => {
  it('a part weighed as supplied in one build corrects a listed one in another', async () => {
    const before = disk.app.builds.honesty().of('video transmitter').products
    await disk.app.files.importBuild(demoFile('praline'))
    expect(disk.app.builds.honesty().of('video transmitter').products).toBe(before + 1)
    expect(disk.app.builds.read(id).honestyElsewhere.some(o => o.slot === 'video transmitter')).toBe(true)
  })
})
