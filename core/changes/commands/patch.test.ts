import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import nougatFile from '../../../demo/builds/nougat.build.json'
import { blankAssembly, blankRecord } from '../../making/assembly'
import type { Build } from '../../model/ledger'
import { makeShaving } from '../../deciding/shave'
import { diffItems, isUnchanged, patchItems } from '../../slices/contract'
import { applyCommand, applyPatch, diffBuilds, isEmptyPatch, keptPatch, patchSchema, type Patch } from './index'

interface Item {
  readonly id: string
  readonly value: number
}
const keyOf = ({ id }: Item) => id
const items = fc.uniqueArray(fc.record({ id: fc.constantFrom(...'abcdefghij'), value: fc.nat(2) }), { selector: keyOf })
const nougat = nougatFile.build as unknown as Build

describe('a list patched item by item', () => {
  it('goes forwards to what it became and backwards to what it was, whatever was put in, taken out, changed or moved', () => {
    const hits = { putIn: 0, takenOut: 0, changed: 0, moved: 0, same: 0 }
    fc.assert(
      fc.property(items, items, (before, after) => {
        const change = diffItems(before, after, keyOf)!
        expect(patchItems(before, change, 'forwards', keyOf)).toEqual(after)
        expect(patchItems(after, change, 'backwards', keyOf)).toEqual(before)
        const again = JSON.parse(JSON.stringify(change)) as typeof change
        expect(patchItems(before, again, 'forwards', keyOf)).toEqual(after)
        if (change.changes.some(one => one.before === null)) hits.putIn++
        if (change.changes.some(one => one.after === null)) hits.takenOut++
        if (change.changes.some(one => one.before !== null && one.after !== null)) hits.changed++
        if (change.order) hits.moved++
        if (isUnchanged(change)) hits.same++
      }),
      { numRuns: 2000, examples: [[[], []]] },
    )
    expect(Math.min(hits.putIn, hits.takenOut, hits.changed, hits.moved)).toBeGreaterThan(100)
    expect(hits.same).toBeGreaterThan(0)
  })
  it('holds what changed and nothing else: no order where nothing changed places', () => {
    const [a, b, c] = ['a', 'b', 'c'].map(id => ({ id, value: 1 }))
    expect(diffItems([a!, b!], [a!, c!, b!], keyOf)).toEqual({
      changes: [{ before: null, after: c, at: 1 }],
      order: null,
    })
    expect(diffItems([a!, c!, b!], [a!, b!], keyOf)).toEqual({
      changes: [{ before: c, after: null, at: 1 }],
      order: null,
    })
    expect(diffItems([a!, b!], [b!, a!], keyOf)).toEqual({
      changes: [],
      order: { before: ['a', 'b'], after: ['b', 'a'] },
    })
  })
  it('is not told apart where two items have one key', () => {
    expect(
      diffItems(
        [{ id: 'a', value: 1 }],
        [
          { id: 'a', value: 1 },
          { id: 'a', value: 2 },
        ],
        keyOf,
      ),
    ).toBeNull()
  })
})

describe('a patch of a build', () => {
  const step = (build: Build, ...commands: Parameters<typeof applyCommand>[1][]) => {
    const next = commands.reduce(applyCommand, build)
    const patch = JSON.parse(JSON.stringify(diffBuilds(build, next))) as Patch
    expect(applyPatch(build, patch, 'forwards')).toEqual(next)
    expect(applyPatch(next, patch, 'backwards')).toEqual(build)
    return patch
  }
  it('of one shaving holds that shaving, not the list', () => {
    const patch = step(nougat, {
      type: 'shaving.put',
      shaving: makeShaving({ id: 'new', what: 'new', kind: 'other', gramsG: 1 }),
    })
    expect(patch).toMatchObject({
      head: null,
      lines: [],
      setups: null,
      lists: [{ list: 'shave.shavings', changes: [{ before: null, after: { id: 'new' } }], order: null }],
    })
    expect(JSON.stringify(patch).length).toBeLessThan(700)
    expect(
      step(nougat, { type: 'shaving.delete', id: nougat.shave!.shavings[2]!.id }).lists![0]!.changes[0],
    ).toMatchObject({ after: null, at: 2 })
  })
  it('of a set-up, a loadout never flown, a joint and a step holds those', () => {
    const named = (patch: Patch) => patch.lists?.map(one => one.list)
    expect(named(step(nougat, { type: 'setup.put', setup: { id: 'x', name: 'x', lineIds: [] } }))).toEqual(['setups'])
    expect(named(step(nougat, { type: 'loadout.never', choice: nougat.flies, never: true }))).toEqual(['neverFlown'])
    const [joint] = nougat.fit!.joints
    expect(
      named(step(nougat, { type: 'fit.set', fields: { joints: [...nougat.fit!.joints, { ...joint!, id: 'x' }] } })),
    ).toEqual(['fit.joints'])
    const begun: Build = { ...nougat, assembly: blankAssembly }
    const record = step(begun, { type: 'assembly.record', stepId: 'motors', fields: { note: 'tight' } })
    expect(record.lists).toEqual([
      {
        list: 'assembly.records',
        changes: [{ before: null, after: { ...blankRecord('motors'), note: 'tight' }, at: 0 }],
        order: null,
      },
    ])
    const again: Build = {
      ...begun,
      assembly: { ...blankAssembly, records: ['frame', 'motors', 'video'].map(blankRecord) },
    }
    expect(
      step(again, { type: 'assembly.record', stepId: 'motors', fields: { note: 'loose' } }).lists![0],
    ).toMatchObject({ changes: [{ before: { note: '' }, after: { note: 'loose' } }], order: null })
  })
  it('of a line holds, as it is kept, its id and what changed; its listing stays with it, and all of it where that changed', () => {
    const frame = nougat.lines.find(({ listing }) => listing !== null)!
    const bare = nougat.lines.find(({ listing }) => listing === null)!
    const kept = (id: string, fields: Partial<typeof frame>) =>
      keptPatch(
        diffBuilds(nougat, applyCommand(nougat, { type: 'lines.change', changes: [{ id, fields: fields as never }] })),
      ).lines
    expect(kept(bare.id, { note: 'sanded' })).toEqual([
      { before: { id: bare.id, note: bare.note }, after: { id: bare.id, note: 'sanded' } },
    ])
    const { id, listing, note } = frame
    expect(kept(id, { note: 'sanded' })).toEqual([
      { before: { id, listing, note }, after: { id, listing, note: 'sanded' } },
    ])
    const { further: _, ...whole } = frame
    expect(kept(id, { listing: null })).toMatchObject([{ before: whole, after: { ...whole, listing: null } }])
  })
  it('with lines whole, as they were once kept, still leads both ways', () => {
    const next = applyCommand(nougat, {
      type: 'lines.change',
      changes: [{ id: nougat.lines[0]!.id, fields: { note: 'sanded' } }],
    })
    const [was, is] = [nougat.lines[0]!, next.lines[0]!].map(({ further: _, ...line }) => line)
    const early = patchSchema.parse({ head: null, lines: [{ before: was, after: is }], setups: null, order: null })
    expect(applyPatch(nougat, early, 'forwards')).toEqual(next)
    expect(applyPatch(next, early, 'backwards')).toEqual(nougat)
  })
  it.each([
    ['other fields before than after', { before: { id: 'a', note: '' }, after: { id: 'a', name: 'x' } }, 'after'],
    ['a line that came in part', { before: null, after: { id: 'a', note: '' } }, 'after.slot'],
    ['a line that went in part', { before: { id: 'a', note: '' }, after: null }, 'before.slot'],
    ['a line without an id', { before: { note: '' }, after: { note: 'x' } }, 'before.id'],
    ['a field that no line has', { before: { id: 'a', hue: 1 }, after: { id: 'a', hue: 2 } }, 'before'],
  ])('is refused with %s', (_what, change, place) => {
    const read = patchSchema.safeParse({ head: null, lines: [change], setups: null, order: null })
    expect(read.error?.issues[0]?.path.join('.')).toBe(`lines.0.${place}`)
  })
  it('of a field of a part holds that field; a part that comes or goes is held as a whole', () => {
    expect(
      step(nougat, { type: 'fit.set', fields: { mounting: { ...nougat.fit!.mounting, boardTurnDeg: 135 } } }),
    ).toMatchObject({ head: null, parts: [{ part: 'fit', after: { mounting: { boardTurnDeg: 135 } } }] })
    const bare: Build = { ...nougat, shave: null }
    expect(step(bare, { type: 'shave.set', fields: { spare: 'loss' } }).head).toMatchObject({
      before: { shave: null },
      after: { shave: { spare: 'loss' } },
    })
    expect(isEmptyPatch(diffBuilds(nougat, { ...nougat }))).toBe(true)
  })
  it('of a part that is not there changes nothing, so that the check of the state can say so', () => {
    const bare: Build = { ...nougat, shave: null, fit: null }
    const list = step(nougat, { type: 'shaving.delete', id: nougat.shave!.shavings[0]!.id })
    const field = step(nougat, {
      type: 'fit.set',
      fields: { mounting: { ...nougat.fit!.mounting, boardTurnDeg: 135 } },
    })
    for (const patch of [list, field]) expect(applyPatch(bare, patch, 'forwards')).toEqual(bare)
  })
  it('from before lists were kept item by item goes both ways still', () => {
    const shavings = nougat.shave!.shavings.slice(1)
    const next: Build = {
      ...nougat,
      shave: { ...nougat.shave!, shavings },
      setups: nougat.setups.slice(0, 1),
      lines: nougat.lines.slice(1),
    }
    const early: Patch = {
      head: { before: { shave: nougat.shave }, after: { shave: next.shave } },
      lines: [{ before: nougat.lines[0]!, after: null }],
      setups: { before: nougat.setups, after: next.setups },
      order: { before: nougat.lines.map(l => l.id), after: next.lines.map(l => l.id) },
    }
    expect(applyPatch(nougat, early, 'forwards')).toEqual(next)
    expect(applyPatch(next, early, 'backwards')).toEqual(nougat)
  })
})
