import fc from 'fast-check'
import { describe, expect, expectTypeOf, it } from 'vitest'
import { newJoint } from '../../aircraft/fit'
import { makeLine, makeMass, type Build, type Line, type Mass } from '../../model/ledger'
import { massSchema, wasRead } from '../../slices/lines'
import {
  applyCommand,
  applyPatch,
  buildFields,
  buildSchema,
  commandSchema,
  describeCommand,
  diffBuilds,
  isEmptyPatch,
  keptPatch,
  makeBuild,
  nextStateProblem,
  patchSchema,
  wholePatch,
  type Command,
  type Forgotten,
  type LineChange,
} from './index'

function line(id: string, more: Partial<Line> = {}): Line {
  return makeLine({
    id,
    slot: 'strap',
    name: `line ${id}`,
    mass: makeMass({ versionId: `v-${id}`, evidence: 'weighed', valueG: 2 }),
    ...more,
  })
}
const build = makeBuild({
  id: 'b',
  name: 'B',
  lines: [
    line('a'),
    line('b', { tie: 'camera', role: 'payload' }),
    line('c', { tie: 'camera', role: 'payload' }),
    line('d', { state: 'candidate', insteadOf: 'a' }),
    line('e', { state: 'candidate', insteadOf: 'a' }),
    line('p', { slot: 'pack' }),
  ],
  setups: [
    { id: 's', name: 'all', lineIds: ['b', 'c'] },
    { id: 't', name: 'bare', lineIds: [] },
  ],
  flies: { setupId: 's', packLineId: 'p' },
  neverFlown: [{ setupId: 't', packLineId: 'p' }],
})
const byId = (b: Build, id: string) => b.lines.find(l => l.id === id)

describe('commands', () => {
  it('share everything that did not change', () => {
    const next = applyCommand(build, { type: 'lines.change', changes: [{ id: 'a', fields: { quantity: 2 } }] })
    expect(byId(next, 'a')?.quantity).toBe(2)
    expect(byId(next, 'b')).toBe(byId(build, 'b'))
    expect(next.setups).toBe(build.setups)
    expect(byId(build, 'a')?.quantity).toBe(1)
  })
  it('take tied lines off together and bring them back together', () => {
    const off = applyCommand(build, { type: 'lines.change', changes: [{ id: 'b', fields: { state: 'off' } }] })
    expect([byId(off, 'b')?.state, byId(off, 'c')?.state]).toEqual(['off', 'off'])
    const back = applyCommand(off, { type: 'lines.change', changes: [{ id: 'c', fields: { state: 'fitted' } }] })
    expect([byId(back, 'b')?.state, byId(back, 'c')?.state]).toEqual(['fitted', 'fitted'])
  })
  it('fit a candidate: the parts change places and the other candidates follow', () => {
    const next = applyCommand(build, { type: 'line.fit', id: 'd' })
    expect(byId(next, 'd')).toMatchObject({ state: 'fitted', insteadOf: null })
    expect(byId(next, 'a')).toMatchObject({ state: 'candidate', insteadOf: 'd' })
    expect(byId(next, 'e')).toMatchObject({ insteadOf: 'd' })
  })
  it('keep the listing when a listed part is weighed', () => {
    const listed = applyCommand(build, {
      type: 'lines.change',
      changes: [
        { id: 'a', fields: { mass: makeMass({ versionId: 'n1', evidence: 'listed', valueG: 3.4, resolutionG: 0.1 }) } },
      ],
    })
    const weighed = applyCommand(listed, {
      type: 'lines.change',
      changes: [{ id: 'a', fields: { mass: makeMass({ versionId: 'n2', evidence: 'weighed', valueG: 3.55 }) } }],
    })
    expect(byId(weighed, 'a')).toMatchObject({ listing: { valueG: 3.4, resolutionG: 0.1 }, mass: { valueG: 3.55 } })
  })
  it('deleting a line or a set-up leaves nothing that points to it', () => {
    const noPack = applyCommand(build, { type: 'lines.delete', ids: ['p', 'b'] })
    expect(noPack.flies.packLineId).toBeNull()
    expect(noPack.neverFlown).toEqual([])
    expect(noPack.setups[0]?.lineIds).toEqual(['c'])
    const noSetup = applyCommand(build, { type: 'setup.delete', id: 't' })
    expect(noSetup.neverFlown).toEqual([])
    expect(applyCommand(build, { type: 'setup.delete', id: 's' }).flies.setupId).toBe('t')
  })
  it('put a set-up before another one or last; the loadouts that name it go with it, and back again', () => {
    const order = ({ setups }: Build) => setups.map(({ id }) => id)
    expect(order(build)).toEqual(['s', 't'])
    const moved = applyCommand(build, { type: 'setup.move', id: 't', beforeId: 's' })
    expect(order(moved)).toEqual(['t', 's'])
    expect(moved.flies).toEqual(build.flies)
    expect(moved.neverFlown).toEqual(build.neverFlown)
    expect(order(applyCommand(moved, { type: 'setup.move', id: 't', beforeId: null }))).toEqual(['s', 't'])
    expect(order(applyCommand(moved, { type: 'setup.move', id: 't', beforeId: 'gone' }))).toEqual(['s', 't'])
    expect(applyPatch(moved, diffBuilds(build, moved), 'backwards')).toEqual(build)
  })
  it.each<[string, Command, string]>([
    ['a set-up that is gone', { type: 'setup.move', id: 'zz', beforeId: null }, 'not there any more'],
    ['an unknown line', { type: 'lines.change', changes: [{ id: 'zz', fields: {} }] }, 'no longer in this build'],
    ['an empty name', { type: 'lines.change', changes: [{ id: 'a', fields: { name: '  ' } }] }, 'needs a name'],
    ['a second line with one id', { type: 'lines.add', lines: [line('a')], beforeId: null }, 'already'],
    [
      'too many lines',
      { type: 'lines.add', lines: Array.from({ length: 2001 }, (_, i) => line(`n${i}`)), beforeId: null },
      'at most 2000',
    ],
    ['the last set-up', { type: 'setup.delete', id: 's' }, 'at least one'],
    ['a set-up of strangers', { type: 'setup.put', setup: { id: 'x', name: 'x', lineIds: ['zz'] } }, 'does not have'],
    ['a pack that is none', { type: 'loadout.fly', choice: { setupId: 's', packLineId: 'a' } }, 'no such pack'],
    ['an empty build name', { type: 'build.set', fields: { name: ' ' } }, 'needs a name'],
    ['a move before itself', { type: 'lines.move', ids: ['a'], beforeId: 'a' }, 'before itself'],
  ])('refuse %s with a sentence', (_what, command, sentence) => {
    const from = command.type === 'setup.delete' ? { ...build, setups: [build.setups[0]!] } : build
    expect(() => applyCommand(from, command)).toThrow(sentence)
  })
})

const anyCommand: fc.Arbitrary<Command> = fc.oneof(
  fc.record({
    type: fc.constant('lines.change' as const),
    changes: fc.array(
      fc.record({
        id: fc.constantFrom('a', 'b', 'c', 'd', 'p'),
        fields: fc.record({ quantity: fc.integer({ min: 1, max: 9 }), note: fc.string() }),
      }),
      { minLength: 1, maxLength: 3 },
    ),
  }),
  fc.record({
    type: fc.constant('lines.move' as const),
    ids: fc.constantFrom(['a'], ['b', 'c'], ['p']),
    beforeId: fc.constantFrom('d', 'e', null),
  }),
  fc.record({ type: fc.constant('lines.delete' as const), ids: fc.constantFrom(['a'], ['p'], ['b', 'e']) }),
  fc.record({ type: fc.constant('line.fit' as const), id: fc.constantFrom('d', 'e') }),
  fc.record({
    type: fc.constant('lines.add' as const),
    lines: fc.constantFrom([line('x')], [line('y'), line('z')]),
    beforeId: fc.constantFrom('a', null),
  }),
  fc.record({ type: fc.constant('setup.delete' as const), id: fc.constantFrom('s', 't') }),
  fc.record({
    type: fc.constant('build.set' as const),
    fields: fc.record({
      name: fc.constantFrom('N', 'M'),
      aim: fc.record({ reserveG: fc.integer({ min: 0, max: 5 }) }),
    }),
  }),
)

const withoutFurther = ({ before, after }: LineChange) =>
  [before, after].map(side => side && { ...side, further: undefined })

describe('patches', () => {
  it('any run of commands is taken back and done again exactly', () => {
    fc.assert(
      fc.property(fc.array(anyCommand, { maxLength: 8 }), commands => {
        const states = [build]
        const patches = []
        for (const command of commands) {
          try {
            const next = applyCommand(states.at(-1)!, command)
            patches.push(diffBuilds(states.at(-1)!, next))
            states.push(next)
          } catch {
            /* a refused command changes nothing */
          }
        }
        let now = states.at(-1)!
        for (let i = patches.length - 1; i >= 0; i--) {
          now = applyPatch(now, JSON.parse(JSON.stringify(patches[i])), 'backwards')
          expect(now).toEqual(states[i])
        }
        for (const [i, patch] of patches.entries()) {
          now = applyPatch(now, patch, 'forwards')
          expect(now).toEqual(states[i + 1])
        }
      }),
    )
  })
  it('as the journal keeps them lead both ways as well, and are whole again in the build before and after', () => {
    const hits = { stayed: 0, inPart: 0, listed: 0 }
    fc.assert(
      fc.property(fc.array(anyCommand, { maxLength: 8 }), commands => {
        const listing = { valueG: 2.2, resolutionG: 0.1 }
        let now: Build = { ...build, lines: build.lines.map(one => (one.id === 'b' ? { ...one, listing } : one)) }
        for (const command of commands) {
          let next: Build
          try {
            next = applyCommand(now, command)
          } catch {
            continue
          }
          const patch = diffBuilds(now, next)
          const kept = patchSchema.parse(JSON.parse(JSON.stringify(keptPatch(patch))))
          expect(applyPatch(now, kept, 'forwards')).toEqual(next)
          expect(applyPatch(next, kept, 'backwards')).toEqual(now)
          for (const state of [now, next]) {
            const whole = wholePatch(kept, state)
            expect(applyPatch(now, whole, 'forwards')).toEqual(next)
            expect(whole.lines.map(withoutFurther)).toEqual(patch.lines.map(withoutFurther))
          }
          for (const { before, after } of kept.lines.filter(one => one.before && one.after)) {
            hits.stayed++
            if (!('slot' in after!)) hits.inPart++
            if (before!.listing) hits.listed++
          }
          now = next
        }
      }),
      { numRuns: 600 },
    )
    expect(Math.min(hits.stayed, hits.inPart, hits.listed)).toBeGreaterThan(10)
  })
  it('of nothing are empty', () => {
    expect(isEmptyPatch(diffBuilds(build, build))).toBe(true)
  })
  it('are described with grams only where grams changed', () => {
    const weigh: Command = {
      type: 'lines.change',
      changes: [{ id: 'a', fields: { mass: makeMass({ versionId: 'n', evidence: 'weighed', valueG: 2.5 }) } }],
    }
    expect(describeCommand(weigh, build, diffBuilds(build, applyCommand(build, weigh)))).toEqual({
      title: 'line a: grams changed',
      gramsBeforeG: 2,
      gramsAfterG: 2.5,
    })
    const rename: Command = { type: 'lines.change', changes: [{ id: 'a', fields: { name: 'Band' } }] }
    expect(describeCommand(rename, build, diffBuilds(build, applyCommand(build, rename)))).toEqual({
      title: 'Renamed line a to Band',
      gramsBeforeG: null,
      gramsAfterG: null,
    })
  })
})

describe('fields of a build', () => {
  it('are all kept by a slice: one that is not does not compile', () => {
    expectTypeOf<Forgotten>().toEqualTypeOf<never>()
    expectTypeOf<Forgotten<Build & { readonly wings: null }>>().toEqualTypeOf<'wings'>()
  })
  it('are blank where nothing was said of them, in the order of files', () => {
    const build = makeBuild({ id: 'n', name: 'New' })
    expect(buildSchema.parse(build)).toEqual(build)
    expect(Object.keys(build)).toEqual(['id', ...Object.keys(buildFields)])
    expect(build).toMatchObject({ lines: [], fit: null, observations: [], flies: { setupId: build.setups[0]!.id } })
  })
})

describe('the state after a change', () => {
  const weighed = (mass: object) => ({ type: 'lines.change', changes: [{ id: 'a', fields: { mass } }] })
  const good = makeMass({ versionId: 'n', evidence: 'weighed', valueG: 2.5 })
  const problemWith = (mass: Mass) => {
    const next = { ...build, lines: build.lines.map(one => (one.id === 'a' ? { ...one, mass } : one)) }
    return nextStateProblem(next, diffBuilds(build, next), 'forwards', build)
  }
  it('is not good with grams that were refused when they were asked for, nor with any that nobody has read', () => {
    const bad = { ...good, valueG: -1 }
    expect(commandSchema.safeParse(weighed(bad)).success).toBe(false)
    expect(problemWith(bad)).toMatchObject({ field: 'lines.a.mass.valueG' })
    expect(problemWith({ ...good, hue: 'red' } as Mass)).toMatchObject({ field: 'lines.a.mass' })
  })
  it('is good with grams as they were read, which are not read again', () => {
    const asked = commandSchema.parse(weighed(good)) as Extract<Command, { type: 'lines.change' }>
    const mass = asked.changes[0]!.fields.mass!
    expect(wasRead(mass)).toBe(true)
    expect(wasRead(good)).toBe(false)
    expect(massSchema.parse(mass)).toEqual(mass)
    expect(problemWith(mass)).toBeNull()
    expect(problemWith(good)).toBeNull()
  })
})

describe('an edit that waited in a browser since an earlier version', () => {
  const { weighing: _weighing, ...mass } = makeMass({ versionId: 'v', evidence: 'weighed', valueG: 2 })
  it('is taken with what lines and grams have had since', () => {
    const { edition: _e, further: _f, properties: _p, feed: _d, packSoFar: _s, ...early } = { ...line('n'), mass }
    expect(commandSchema.parse({ type: 'lines.add', lines: [early], beforeId: null })).toEqual({
      type: 'lines.add',
      lines: [{ ...line('n'), mass: { ...mass, weighing: null } }],
      beforeId: null,
    })
    const change = { type: 'lines.change', changes: [{ id: 'a', fields: { mass } }] }
    expect(commandSchema.parse(change)).toMatchObject({ changes: [{ fields: { mass: { weighing: null } } }] })
  })
  it.each([
    ['Motors on the arms', 'nothing', 'motors'],
    ['Feet', 'windings', 'motors'],
    ['Stack on its rubbers', 'a board', 'boards'],
    ['Canopy', 'nothing', null],
  ])('a joint “%s” with %s beyond it says what it holds', (name, beyond, holds) => {
    const { holds: _h, ...early } = { ...newJoint('j', [], []), name, beyond }
    const given = commandSchema.parse({ type: 'fit.set', fields: { joints: [early] } })
    expect(given).toEqual({ type: 'fit.set', fields: { joints: [{ ...early, holds }] } })
    const said = { ...early, holds: 'something else' }
    expect(commandSchema.parse({ type: 'fit.set', fields: { joints: [said] } })).toEqual({
      type: 'fit.set',
      fields: { joints: [said] },
    })
  })
  it.each([null, 7, { joints: 7 }, { joints: [null] }, { joints: [{ id: 'j' }] }])(
    'is refused where it is no part of Fit: %j',
    fields => {
      expect(commandSchema.safeParse({ type: 'fit.set', fields }).success).toBe(false)
    },
  )
  it('is refused where it is no line at all', () => {
    for (const wrong of [null, 7, { id: 'x' }])
      expect(commandSchema.safeParse({ type: 'lines.add', lines: [wrong], beforeId: null }).success).toBe(false)
  })
})
