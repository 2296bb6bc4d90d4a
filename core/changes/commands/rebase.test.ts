import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { makeLine, makeMass, type Build, type Line } from '../../model/ledger'
import { makeShaving } from '../../model/data'
import { sameData } from '../../basics/merge'
import { makeBuild, applyCommand, meetingWords, rebaseCommand, type Command } from './index'

const line = (id: string, more: Partial<Line> = {}): Line =>
  makeLine({
    id,
    slot: 'strap',
    name: `line ${id}`,
    mass: makeMass({ versionId: `v-${id}`, evidence: 'listed', valueG: 2 }),
    ...more,
  })
const build = makeBuild({
  id: 'b',
  name: 'B',
  lines: [line('a'), line('b', { role: 'payload' }), line('c', { role: 'payload' }), line('p', { slot: 'pack' })],
  setups: [{ id: 's', name: 'all', lineIds: ['b'] }],
  flies: { setupId: 's', packLineId: 'p' },
})
const weigh = (id: string, valueG: number, evidence: 'weighed' | 'listed' = 'weighed'): Command => ({
  type: 'lines.change',
  changes: [{ id, fields: { mass: makeMass({ versionId: `n-${id}-${valueG}`, evidence, valueG }) } }],
})
const change = (id: string, fields: Partial<Line>): Command => ({ type: 'lines.change', changes: [{ id, fields }] })
const shaving = makeShaving({ id: 'x', what: 'trim the strap', kind: 'cut', lineId: 'a' })

/** What comes of `mine` made on the build while somebody did `theirs`. */
function both(mine: Command, theirs: Command, from: Build = build) {
  const now = applyCommand(from, theirs)
  const { command, meetings } = rebaseCommand(mine, from, now)
  return { now, meetings, after: applyCommand(now, command), words: meetingWords(meetings, from, now) }
}

describe('a change made on an older state', () => {
  it('of another field of the same line takes nothing back', () => {
    const { meetings, after } = both(weigh('a', 3.2), change('a', { name: 'new strap', note: 'thin' }))
    expect(meetings).toEqual([])
    expect(after.lines[0]).toMatchObject({ name: 'new strap', note: 'thin', mass: { valueG: 3.2 } })
  })
  it('of the same grams meets, and both are said in words', () => {
    const { meetings, words } = both(weigh('a', 12.4), weigh('a', 12.9, 'listed'))
    expect(meetings.map(m => m.path)).toEqual([['lines', 'a', 'mass']])
    expect(words).toEqual([{ what: 'line a: grams', mine: '12.40 g weighed', theirs: '12.90 g listed' }])
  })
  it('two who weigh one line again do not meet, and both weighings are kept; two first weighings do', () => {
    const again = (versionId: string, as: 'further' | 'estimate'): Command => ({
      type: 'line.weigh',
      id: 'a',
      mass: makeMass({ versionId, evidence: 'weighed', valueG: 3.2 }),
      as,
    })
    const { meetings, after } = both(again('mine', 'further'), again('theirs', 'further'))
    expect(meetings).toEqual([])
    expect(after.lines[0]!.further.map(one => one.mass.versionId)).toEqual(['theirs', 'mine'])
    expect(both(again('mine', 'estimate'), again('theirs', 'estimate')).meetings.map(m => m.path)).toEqual([
      ['lines', 'a', 'mass'],
    ])
  })
  it('that comes to the same does not meet', () => {
    expect(both(change('a', { quantity: 3 }), change('a', { quantity: 3 })).meetings).toEqual([])
  })
  it('deleting a line somebody has weighed since meets', () => {
    const { words } = both({ type: 'lines.delete', ids: ['a'] }, weigh('a', 2.5))
    expect(words).toEqual([{ what: 'line a', mine: 'deleted', theirs: '× 1, 2.50 g weighed, fitted' }])
  })
  it('ticks of a set-up on both sides are both kept', () => {
    const { meetings, after } = both(
      { type: 'setup.put', setup: { id: 's', name: 'all', lineIds: ['b', 'c'] } },
      { type: 'setup.put', setup: { id: 's', name: 'every thing', lineIds: [] } },
    )
    expect(meetings).toEqual([])
    expect(after.setups[0]).toEqual({ id: 's', name: 'every thing', lineIds: ['c'] })
  })
  it('whole shavings are merged by field', () => {
    const from = applyCommand(build, { type: 'shaving.put', shaving })
    const { meetings, after } = both(
      { type: 'shaving.put', shaving: { ...shaving, minutes: 12 } },
      { type: 'shaving.put', shaving: { ...shaving, why: 'it hangs over' } },
      from,
    )
    expect(meetings).toEqual([])
    expect(after.shave!.shavings[0]).toMatchObject({ minutes: 12, why: 'it hangs over' })
    const met = both(
      { type: 'shaving.put', shaving: { ...shaving, minutes: 12 } },
      { type: 'shaving.put', shaving: { ...shaving, minutes: 5 } },
      from,
    )
    expect(met.words).toEqual([{ what: 'Shave, shaving, “trim the strap”, minutes', mine: '12 min', theirs: '5 min' }])
  })
  it('two who begin the same part do not meet', () => {
    const { meetings, after } = both(
      { type: 'flying.set', fields: { altitudeM: 500 } },
      { type: 'flying.set', fields: { temperatureC: 3 } },
    )
    expect(meetings).toEqual([])
    expect(after.flying).toMatchObject({ altitudeM: 500, temperatureC: 3 })
  })
  it('properties are merged one by one, and meet with their unit', () => {
    const from = applyCommand(build, change('a', { slot: 'motor', properties: { massOfLeads: 1 } as never }))
    const after = both(
      change('a', { properties: { kv: 4500 } }),
      change('a', { properties: { statorDiameterMm: 14 } }),
      { ...from, lines: from.lines.map(l => (l.id === 'a' ? { ...l, properties: null } : l)) },
    )
    expect(after.meetings).toEqual([])
    expect(after.after.lines[0]!.properties).toEqual({ kv: 4500, statorDiameterMm: 14 })
    const met = both(change('a', { properties: { kv: 4500 } }), change('a', { properties: { kv: 4600 } }), from)
    expect(met.words[0]).toMatchObject({ mine: expect.stringMatching(/^4500/), theirs: expect.stringMatching(/^4600/) })
  })
})

const fieldsOf = fc.record(
  { quantity: fc.integer({ min: 1, max: 3 }), note: fc.constantFrom('', 'n', 'm'), name: fc.constantFrom('x', 'y') },
  { requiredKeys: [] },
)
const anyCommand: fc.Arbitrary<Command> = fc.oneof(
  fc.record({
    type: fc.constant('lines.change' as const),
    changes: fc.array(fc.record({ id: fc.constantFrom('a', 'b', 'c'), fields: fieldsOf }), {
      minLength: 1,
      maxLength: 2,
    }),
  }),
  fc.record({
    type: fc.constant('setup.put' as const),
    setup: fc.record({ id: fc.constant('s'), name: fc.constantFrom('one', 'two'), lineIds: fc.subarray(['b', 'c']) }),
  }),
  fc.record({
    type: fc.constant('build.set' as const),
    fields: fc.record(
      {
        name: fc.constantFrom('N', 'M'),
        aim: fc.record(
          { reserveG: fc.integer({ min: 0, max: 2 }), cardIds: fc.subarray(['k', 'l']) },
          { requiredKeys: [] },
        ),
      },
      { requiredKeys: ['aim'] },
    ),
  }),
  fc.record({
    type: fc.constant('flying.set' as const),
    fields: fc.record(
      { altitudeM: fc.integer({ min: 0, max: 2 }), style: fc.constantFrom('race' as const, 'hover' as const) },
      { requiredKeys: [] },
    ),
  }),
)

describe('any two changes', () => {
  it('that do not meet come to the same whoever is first; those that meet are named from both sides', () => {
    let [met, apart] = [0, 0]
    fc.assert(
      fc.property(anyCommand, anyCommand, (one, other) => {
        const [first, second] = [both(one, other), both(other, one)]
        expect(first.meetings.map(m => m.path.join('/')).sort()).toEqual(
          second.meetings.map(m => m.path.join('/')).sort(),
        )
        if (first.meetings.length > 0) {
          met++
          return
        }
        apart++
        expect(
          sameData(
            {
              ...first.after,
              lines: [...first.after.lines].sort((a, b) => a.id.localeCompare(b.id)),
              setups: first.after.setups.map(s => ({ ...s, lineIds: [...s.lineIds].sort() })),
              aim: { ...first.after.aim, cardIds: [...first.after.aim.cardIds].sort() },
            },
            {
              ...second.after,
              lines: [...second.after.lines].sort((a, b) => a.id.localeCompare(b.id)),
              setups: second.after.setups.map(s => ({ ...s, lineIds: [...s.lineIds].sort() })),
              aim: { ...second.after.aim, cardIds: [...second.after.aim.cardIds].sort() },
            },
          ),
        ).toBe(true)
      }),
      { numRuns: 1500, seed: 7 },
    )
    expect(met).toBeGreaterThan(100)
    expect(apart).toBeGreaterThan(100)
  })
})
