import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { lineOfPart, makePart, type Part } from '../../core/parts/drawer'
import { makeMass, type Mass } from '../../core/model/ledger'
import { partSchema } from '../../shared/schemas/drawer'
import { applicationOnDisk, demoFile } from '../testing'

let disk: ReturnType<typeof applicationOnDisk>
let nougat: string
let praline: string
beforeEach(async () => {
  disk = applicationOnDisk()
  nougat = await disk.app.files.importBuild(demoFile('nougat'))
  praline = await disk.app.files.importBuild(demoFile('praline'))
})
afterEach(() => {
  disk.app.close()
  disk.remove()
})
const read = (id: string) => disk.app.builds.read(id)
const line = (id: string, lineId: string) => read(id).build.lines.find(l => l.id === lineId)
const auw = (id: string) => disk.app.builds.shelf().find(entry => entry.id === id)!.massG
const part = (id: string) => disk.app.parts.all().parts.find(p => p.id === id)
const weighed = (versionId: string, valueG: number, more: Partial<Mass> = {}) =>
  makeMass({ versionId, evidence: 'weighed', valueG, ...more })
const strap: Part = makePart({
  id: 'strap-12',
  slot: 'strap',
  name: 'Fabric strap',
  owned: 5,
  listing: { valueG: 2.2, resolutionG: 0.1 },
  mass: makeMass({ versionId: 's1', evidence: 'listed', valueG: 2.2 }),
  properties: { lengthMm: 130 },
})
const place = (build: string, id: string) =>
  disk.app.builds.command(
    build,
    read(build).revision,
    { type: 'lines.add', lines: [lineOfPart(strap, id, 1)], beforeId: null },
    '',
  )
const change = (build: string, id: string, fields: object) =>
  disk.app.builds.command(build, read(build).revision, { type: 'lines.change', changes: [{ id, fields }] }, '')

describe('a part that lies on two builds', () => {
  beforeEach(async () => {
    await disk.app.parts.put([strap])
    await place(nougat, 'mine')
    await place(praline, 'other')
  })
  it('is known to lie there', () =>
    expect(
      disk.app.parts
        .all()
        .placements.filter(p => p.partId === strap.id)
        .map(p => [p.buildName, p.quantity]),
    ).toEqual([
      ['Nougat', 1],
      ['Praline', 1],
    ]))
  it('weighed on one is weighed everywhere, and its history goes along, after a restart too', async () => {
    const told: number[] = []
    disk.app.builds.follow(praline, revision => told.push(revision))
    await change(nougat, 'mine', { mass: weighed('s2', 2.14) })
    expect(part(strap.id)?.mass?.valueG).toBe(2.14)
    expect(line(praline, 'other')?.mass?.valueG).toBe(2.14)
    expect(told).toEqual([read(praline).revision])
    expect(disk.app.parts.history(strap.id).map(v => v.mass.valueG)).toEqual([2.2, 2.14])
    const again = disk.again()
    expect(again.builds.read(praline).build.lines.find(l => l.id === 'other')?.mass?.versionId).toBe('s2')
    again.close()
  })
  it('taken back on one it is taken back everywhere', async () => {
    await change(nougat, 'mine', { mass: weighed('s2', 2.14) })
    await disk.app.builds.undo(nougat, read(nougat).revision)
    expect([part(strap.id)?.mass?.versionId, line(praline, 'other')?.mass?.versionId]).toEqual(['s1', 's1'])
  })
  it('weighed in the drawer is weighed on both builds, each with a journal entry of its own', async () => {
    await disk.app.parts.put([{ ...strap, mass: weighed('s3', 2.09) }])
    for (const [build, id] of [
      [nougat, 'mine'],
      [praline, 'other'],
    ] as const) {
      expect(line(build, id)?.mass?.valueG).toBe(2.09)
      expect(disk.app.builds.journal(build).entries[0]!.title).toBe('Fabric strap: follows the drawer')
    }
  })
  it('what was done to one piece alone stays with it, and later weighings pass it by', async () => {
    await change(nougat, 'mine', {
      mass: weighed('cut', 1.7, {
        weighing: {
          takenAt: '2026-11-02T18:00:00.000Z',
          scaleId: 'b',
          scaleName: 'b',
          checkId: null,
          method: 'by difference',
          displaysG: [1.7],
          tare: null,
          contributions: { 'weighing:cut': 0.01 },
          supersedes: 's1',
        },
      }),
    })
    expect([part(strap.id)?.mass?.versionId, line(praline, 'other')?.mass?.versionId]).toEqual(['s1', 's1'])
    await change(praline, 'other', { mass: weighed('s4', 2.2) })
    expect([part(strap.id)?.mass?.versionId, line(nougat, 'mine')?.mass?.versionId]).toEqual(['s4', 'cut'])
  })
  it('cannot be deleted, and says where it is', async () => {
    await expect(disk.app.parts.remove([strap.id])).rejects.toMatchObject({
      code: 'refused',
      message: '“Fabric strap” is on Nougat and Praline. Take it off there first.',
    })
  })
})

describe('lines moved to another build', () => {
  it('keep grams, weighings and leads; one total drops by what the other rises; one undo restores both', async () => {
    await change(nougat, 'strap', { properties: { lengthMm: 180 } })
    const before = {
      nougat: auw(nougat),
      praline: auw(praline),
      from: read(nougat).build,
      to: read(praline).build,
      line: line(nougat, 'strap')!,
    }
    const versions = disk.app.builds.lineHistory(nougat, 'strap')
    await disk.app.builds.handOver(nougat, read(nougat).revision, {
      lineIds: ['strap', 'motors'],
      to: { kind: 'build', id: praline },
    })
    const moved = read(praline).build.lines
    for (const came of before.from.lines.filter(l => l.id === 'strap' || l.id === 'motors'))
      expect(moved.find(l => l.name === came.name)).toMatchObject({
        mass: came.mass,
        properties: came.properties,
        listing: came.listing,
      })
    expect(before.nougat - auw(nougat)).toBeCloseTo(auw(praline) - before.praline, 9)
    expect(before.nougat - auw(nougat)).toBeGreaterThan(40)
    const strapThere = moved.find(l => l.name === before.line.name)!
    expect(disk.app.builds.lineHistory(praline, strapThere.id).map(v => v.mass)).toEqual(
      expect.arrayContaining(versions.map(v => v.mass)),
    )
    await disk.app.builds.undo(praline, read(praline).revision)
    expect(read(nougat).build).toEqual(before.from)
    expect(read(praline).build).toEqual(before.to)
    await disk.app.builds.redo(nougat, read(nougat).revision)
    expect(auw(praline)).toBeGreaterThan(before.praline + 40)
    const again = disk.again()
    expect(again.builds.read(praline).build).toEqual(read(praline).build)
    again.close()
  })
  it('payload that flew flies on: it joins the set-up the other build is flown in', async () => {
    const [a, b] = [auw(nougat), auw(praline)]
    await disk.app.builds.handOver(nougat, read(nougat).revision, {
      lineIds: ['heat'],
      to: { kind: 'build', id: praline },
    })
    expect(a - auw(nougat)).toBeCloseTo(auw(praline) - b, 9)
  })
  it('are not taken back over later changes of the other build', async () => {
    await disk.app.builds.handOver(nougat, read(nougat).revision, {
      lineIds: ['strap'],
      to: { kind: 'build', id: praline },
    })
    await change(praline, 'frame', { note: 'later' })
    const before = read(nougat)
    await expect(disk.app.builds.undo(nougat, before.revision)).rejects.toMatchObject({
      code: 'refused',
      message: '“Praline” was changed since. Take its later changes back first.',
    })
    expect(read(nougat)).toEqual(before)
  })
  it('are refused when seen late, to nowhere, to itself, or when they are not there', async () => {
    const { revision } = read(nougat)
    const to = { kind: 'build' as const, id: praline }
    await expect(disk.app.builds.handOver(nougat, revision - 1, { lineIds: ['strap'], to })).rejects.toMatchObject({
      code: 'stale',
    })
    await expect(disk.app.builds.handOver(nougat, revision, { lineIds: ['nobody'], to })).rejects.toMatchObject({
      code: 'refused',
    })
    await expect(
      disk.app.builds.handOver(nougat, revision, { lineIds: ['strap'], to: { kind: 'build', id: nougat } }),
    ).rejects.toMatchObject({ code: 'refused' })
    await expect(
      disk.app.builds.handOver(nougat, revision, { lineIds: ['strap'], to: { kind: 'build', id: 'nowhere' } }),
    ).rejects.toMatchObject({ code: 'not-found' })
    expect(read(nougat).revision).toBe(revision)
  })
})

describe('a build taken apart', () => {
  const takeApart = (ids: string[]) =>
    disk.app.builds.handOver(nougat, read(nougat).revision, { lineIds: ids, to: { kind: 'drawer' } })
  it('becomes parts with their grams and history; undo puts everything back', async () => {
    const before = read(nougat).build
    const ids = before.lines.filter(l => l.slot !== 'other').map(l => l.id)
    await takeApart(ids)
    expect(read(nougat).build.lines.map(l => l.slot)).toEqual(['other'])
    const { parts } = disk.app.parts.all()
    expect(parts).toHaveLength(ids.length)
    const motors = parts.find(p => p.slot === 'motor')!
    expect(motors).toMatchObject({ owned: 4, mass: before.lines.find(l => l.id === 'motors')!.mass })
    expect(disk.app.parts.history(motors.id).map(v => v.mass.valueG)).toContain(36.84)
    await disk.app.builds.undo(nougat, read(nougat).revision)
    expect(disk.app.parts.all().parts).toEqual([])
    expect(read(nougat).build).toEqual(before)
    await disk.app.builds.redo(nougat, read(nougat).revision)
    expect(disk.app.parts.all().parts).toEqual(parts)
    expect(disk.app.parts.history(motors.id).map(v => v.mass.valueG)).toContain(36.84)
  })
  it('a line that is simply its part goes back without a second part; one changed for itself becomes a part of its own', async () => {
    await disk.app.parts.put([strap])
    await place(nougat, 'same')
    await place(nougat, 'cut')
    await change(nougat, 'cut', {
      properties: { lengthMm: 110 },
      mass: weighed('c', 1.8, {
        weighing: {
          takenAt: '2026-11-02T18:00:00.000Z',
          scaleId: 'b',
          scaleName: 'b',
          checkId: null,
          method: 'by difference',
          displaysG: [1.8],
          tare: null,
          contributions: {},
          supersedes: 's1',
        },
      }),
    })
    await takeApart(['same', 'cut'])
    const { parts } = disk.app.parts.all()
    expect(parts.map(p => [p.id === strap.id, p.owned, p.mass!.versionId])).toEqual([
      [true, 4, 's1'],
      [false, 1, 'c'],
    ])
  })
  it('solder is nobody’s part; and what came out cannot be taken back once it is on another build', async () => {
    await expect(takeApart(['sundries'])).rejects.toMatchObject({
      code: 'refused',
      message: expect.stringContaining('no part that can lie in a drawer'),
    })
    await takeApart(['strap'])
    const [out] = disk.app.parts.all().parts
    await disk.app.builds.command(
      praline,
      read(praline).revision,
      { type: 'lines.add', lines: [lineOfPart(out!, 'there', 1)], beforeId: null },
      '',
    )
    await expect(disk.app.builds.undo(nougat, read(nougat).revision)).rejects.toMatchObject({
      code: 'refused',
      message: 'A part that came out of this is on Praline now. Take it off there first.',
    })
  })
})

describe('the drawer', () => {
  it('keeps a kit with the pieces it became', async () => {
    await disk.app.parts.putKit(
      { id: 'k', name: 'Sparrow', priceCents: 3290, link: '', note: '', leavesOut: 'the strap' },
      [{ ...strap, kitId: null }],
    )
    expect(disk.app.parts.all()).toMatchObject({
      kits: [{ name: 'Sparrow', leavesOut: 'the strap' }],
      parts: [{ kitId: 'k' }],
    })
    await disk.app.parts.removeKit('k')
    expect(part(strap.id)?.kitId).toBeNull()
  })
  it('remembers how the columns of a file were understood', async () => {
    await disk.app.parts.putMapping('a|b', { a: 'name', b: '' })
    const again = disk.again()
    expect([again.parts.mapping('a|b'), again.parts.mapping('c')]).toEqual([{ a: 'name', b: '' }, null])
    again.close()
  })
  it.each([
    ['properties of another kind', { properties: { kv: 3000 } }, 'A strap has no property “kv”.'],
    ['a length beyond sense', { properties: { lengthMm: 9000 } }, 'Length is a number in mm, from 20 to 600.'],
    ['more lost than owned', { lost: 6 }, '6 lost or scrapped are more than the 5 owned.'],
    [
      'volts the wrong way round',
      { slot: 'camera' as const, properties: { voltsMin: 9, voltsMax: 5 } },
      'The highest volts in V (5) is below the lowest (9).',
    ],
    ['sold in none', { soldIn: 0 }, '“Sold in” is at least 1 piece.'],
  ])('refuses %s', (_what, fields, sentence) =>
    expect(partSchema.safeParse({ ...strap, ...fields }).error?.issues[0]!.message).toBe(sentence),
  )
  it('refuses properties that a line’s kind does not have, and changes nothing', async () => {
    const before = read(nougat)
    await expect(change(nougat, 'strap', { properties: { kv: 1000 } })).rejects.toMatchObject({
      code: 'invalid',
      field: 'properties.kv',
    })
    expect(read(nougat)).toEqual(before)
  })
  it('a line that becomes another kind keeps only what that kind has', async () => {
    await change(nougat, 'screws', { slot: 'standoff' })
    expect(line(nougat, 'screws')?.properties).toEqual({ thread: 'M2', lengthMm: 10, material: 'alloy steel' })
  })
})

describe('rows of a list', () => {
  const row = (id: string) => ({
    id,
    slot: 'strap' as const,
    name: `strap ${id}`,
    owned: 2,
    weighed: { valueG: 2.1, resolutionG: 0.1 },
  })
  it('come in as parts, and all or none of them: a row that is there already takes the others back', async () => {
    expect(await disk.app.parts.bringIn([row('r1'), row('r2')])).toBe(2)
    expect(part('r1')).toMatchObject({ owned: 2, mass: { evidence: 'weighed', valueG: 2.1, versionId: 'r1' } })
    await expect(disk.app.parts.bringIn([row('r3'), row('r2')])).rejects.toMatchObject({ code: 'refused' })
    expect(disk.app.parts.all().parts.map(p => p.id)).toEqual(['r1', 'r2'])
  })
})
