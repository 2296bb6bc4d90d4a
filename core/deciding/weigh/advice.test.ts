import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { applyCommand, mostFurther, mostObservations } from '../../changes/commands'
import { makeLine, makeMass, type Build, type Line } from '../../model/ledger'
import { ListingBiasTable, listingObservations } from '../../mass/listings'
import { countedLines, estimatesOf, loadoutMasses } from '../../mass/loadout'
import { coverageFactor95 } from '../../maths/numbers'
import { evaluateCheck } from '../../mass/scale'
import {
  mostInformativeWeighing,
  correctionsBy,
  placeOf,
  takeObservation,
  takeTogether,
  usualBasis,
  type WeighingBench,
  type Narrowing,
  type ReadyScale,
} from './index'
import {
  buildOf,
  checked,
  fine,
  flown,
  guessedLine,
  listed,
  madeUpLedger,
  taking,
  unchecked,
  weighed,
  weighTogether,
} from './testing'

const limit = { limitG: 249.4758, comparator: '<=' as const, confidence: 0.95 }
const reference = { id: 'r', name: 'the 200 g weight', massG: 200, toleranceG: 0.02, coin: false }
const honestyOf = (lines: readonly Line[]) => new ListingBiasTable(listingObservations(lines))
const desk = (ready: ReadyScale | null): WeighingBench => ({ ready, references: [reference], honestyOf })
const advise = (build: Build, ready: ReadyScale | null, wanted: typeof limit | null = limit) =>
  mostInformativeWeighing(
    build,
    countedLines(build, flown),
    estimatesOf(build, honestyOf(build.lines)),
    desk(ready),
    wanted,
  )
const spreadOf = (build: Build) =>
  coverageFactor95 * loadoutMasses(build, [flown], estimatesOf(build, honestyOf(build.lines)))[0]!.sigmaG
const names = (narrowing: Narrowing | null) => narrowing?.action.lines.map(line => line.id)

let corrected = 0
/** Carries the advice out as the builder does: everything weighs what was expected. */
function done(build: Build, { action }: Narrowing, ready: ReadyScale): Build {
  const gain = ready.check?.result.gain ?? 1
  const expected = (on: Build, id: string) =>
    estimatesOf(build, honestyOf(build.lines)).of(on.lines.find(l => l.id === id)!).valueG
  if (action.kind === 'whole') {
    const displayG = action.lines.reduce((sum, line) => sum + expected(build, line.id), 0) * gain
    return applyCommand(build, {
      type: 'observation.put',
      observation: takeObservation(taking(ready), 'whole', action.lines, [displayG], 'taken in'),
    })
  }
  if (action.kind === 'check') {
    const result = evaluateCheck(ready.scale, [
      { references: [], displayG: 0 },
      { references: [action.reference], displayG: action.reference.massG },
    ])
    const after: ReadyScale = { ...ready, check: { id: 'new', result } }
    return applyCommand(build, {
      type: 'weighings.correct',
      corrections: correctionsBy(build, after, () => `again-${corrected++}`),
    })
  }
  return action.lines.reduce((next, { id }) => {
    const line = next.lines.find(l => l.id === id)!
    const mass = takeTogether(taking(ready), line, [expected(build, id) * gain], line.quantity, usualBasis(line))
    const honesty = honestyOf(next.lines)
    return applyCommand(next, {
      type: 'line.weigh',
      id,
      mass,
      as: placeOf(mass, line, next, estimatesOf(next, honesty), honesty),
    })
  }, build)
}

describe('what would settle it', () => {
  it('names the one weighing that settles it before any pair', () => {
    const build = buildOf([
      weighed(guessedLine('frame', 231), 231.2),
      listed('vtx', 'video transmitter', 17),
      listed('aerial', 'aerial', 0.5),
    ])
    expect(names(advise(build, checked))).toEqual(['vtx'])
    expect(advise(build, checked)).toMatchObject({ settles: true, wordAfter: 'Clear' })
  })
  it('names two when one is not enough, everything together when two are not, and nothing when all is weighed well', () => {
    const two = buildOf([
      weighed(guessedLine('frame', 205), 205),
      listed('a', 'board', 21),
      listed('b', 'camera', 21),
      listed('c', 'aerial', 0.4),
    ])
    expect(names(advise(two, checked))?.sort()).toEqual(['a', 'b'])
    expect(advise(two, checked)).toMatchObject({ settles: true })
    const many = buildOf(['a', 'b', 'c', 'd', 'e', 'f'].map(id => guessedLine(id, 41.2)))
    expect(advise(many, checked)).toMatchObject({ action: { kind: 'whole' }, settles: true })
    const known = buildOf([weighed(guessedLine('frame', 231), 231.2), weighed(guessedLine('pack', 10), 10)])
    expect(advise(known, checked)).toBeNull()
    expect(advise(known, null)).toBeNull()
  })
  it('never proposes what a build has no more room for: a weighing together after the 200th, one of a line after its 200th', () => {
    const many = buildOf(['a', 'b', 'c', 'd', 'e', 'f'].map(id => guessedLine(id, 41.2)))
    const held = takeObservation(taking(checked), 'once', many.lines.slice(0, 1), [41.2], 'held')
    const full = {
      ...many,
      observations: Array.from({ length: mostObservations }, (_, i) => ({ ...held, id: `h${i}` })),
    }
    expect(advise(many, checked)).toMatchObject({ action: { kind: 'whole' } })
    expect(advise(full, checked)).toBeNull()
    const coarsely = weighed(guessedLine('a', 210), 210, { ...unchecked, check: checked.check })
    const alone = advise(buildOf([coarsely]), checked, null)
    expect(alone).toMatchObject({ action: { kind: 'weigh' } })
    const further = Array.from({ length: mostFurther }, (_, i) => ({
      mass: { ...coarsely.mass!, versionId: `f${i}` },
      of: null,
    }))
    expect(advise(buildOf([{ ...coarsely, further }]), checked, null)).toBeNull()
  })
  it('weighing a small pad is never proposed after the whole craft was weighed: it would not narrow', () => {
    const craft = weighTogether(
      buildOf([
        weighed(guessedLine('frame', 150), 150),
        weighed(guessedLine('pack', 90), 90),
        guessedLine('pad', 1.5),
        guessedLine('wires', 6),
      ]),
      248.2,
    )
    expect(advise(craft, checked)).toBeNull()
    expect(advise(craft, null)).toBeNull()
  })
  it('proposes weighing again what was weighed on a coarse scale, and only on one that was checked', () => {
    const craft = buildOf([weighed(guessedLine('frame', 159), 159.2, unchecked), weighed(guessedLine('pack', 90), 90)])
    expect(names(advise(craft, checked))).toEqual(['frame'])
    expect(advise(craft, unchecked)?.action.kind).not.toBe('weigh')
  })
  it('proposes a check where everything rests on a scale nobody has checked', () => {
    const craft = buildOf([
      weighed(guessedLine('frame', 159), 159.1, fine),
      weighed(guessedLine('pack', 90), 90.05, fine),
    ])
    expect(advise(craft, fine)).toMatchObject({
      action: { kind: 'check', reference: { id: 'r' } },
      settles: true,
      wordAfter: 'Clear',
    })
    expect(
      mostInformativeWeighing(
        craft,
        craft.lines,
        estimatesOf(craft, honestyOf(craft.lines)),
        { ...desk(fine), references: [] },
        limit,
      ),
    ).toBeNull()
  })
  it('a check, which is dearer than weighing a line, is asked for only where it brings another quarter off', () => {
    // 150 g weighed on a scale nobody has checked: ± 0.51 of its gain. Weighing the pad leaves that, a check leaves the pad's own ±.
    const kindFor = (padSpreadG: number) =>
      advise(
        buildOf([
          weighed(guessedLine('frame', 150), 150, fine),
          {
            ...guessedLine('pad', 2),
            mass: makeMass({ versionId: 'o', evidence: 'guess', valueG: 2, ownSpreadG: padSpreadG }),
          },
        ]),
        fine,
        null,
      )?.action.kind
    expect([kindFor(0.3), kindFor(0.4)]).toEqual(['check', 'weigh'])
  })
  it('without a scale it imagines what grams typed as weighed come to', () => {
    const build = buildOf([guessedLine('frame', 240), guessedLine('pad', 2)])
    const advice = advise(build, null)!
    expect(names(advice)).toEqual(['frame'])
    const typed = applyCommand(build, {
      type: 'lines.change',
      changes: [
        {
          id: 'frame',
          fields: { mass: makeMass({ versionId: 'typed', evidence: 'weighed', valueG: 240, resolutionG: 0.01 }) },
        },
      ],
    })
    expect(spreadOf(typed)).toBeCloseTo(advice.spreadAfterG, 9)
  })
  it('over 500 random ledgers with weighings the advised narrowing is what happens when it is carried out', () => {
    const hits = { first: 0, again: 0, pair: 0, whole: 0, check: 0, none: 0, settled: 0, observed: 0 }
    fc.assert(
      fc.property(
        madeUpLedger,
        fc.constantFrom(checked, unchecked, fine, null),
        fc.double({ min: -0.02, max: 0.02, noNaN: true }),
        fc.boolean(),
        (ledger, ready, off, supplied) => {
          const build: Build = supplied
            ? {
                ...ledger,
                lines: ledger.lines.map(line =>
                  line.mass!.evidence === 'listed'
                    ? makeLine({
                        ...line,
                        listing: { valueG: line.mass!.valueG, resolutionG: 0.1 },
                        mass: { ...line.mass!, basis: 'as supplied' },
                      })
                    : line,
                ),
              }
            : ledger
          const { massG } = loadoutMasses(build, [flown], estimatesOf(build, honestyOf(build.lines)))[0]!
          const advice = advise(build, ready, { ...limit, limitG: massG * (1 + off) })
          if (build.observations.length > 0) hits.observed++
          if (!advice) {
            hits.none++
            return
          }
          const { action } = advice
          if (action.kind !== 'weigh') hits[action.kind]++
          else if (action.lines.length === 2) hits.pair++
          else if (action.lines[0]!.mass!.evidence === 'weighed') hits.again++
          else hits.first++
          if (advice.settles) hits.settled++
          expect(advice.spreadBeforeG).toBeCloseTo(spreadOf(build), 6)
          expect(advice.spreadAfterG).toBeLessThan(advice.spreadBeforeG)
          const pocket: ReadyScale = {
            scale: { id: 'unchecked', resolutionG: 0.01, repeatabilityG: null, capacityG: 500 },
            check: null,
            name: 'pocket',
          }
          expect(spreadOf(done(build, advice, ready ?? pocket))).toBeCloseTo(advice.spreadAfterG, 6)
        },
      ),
      { numRuns: 1500, seed: 20_261_127 },
    )
    expect(hits.observed).toBeGreaterThan(200)
    for (const [kind, count] of Object.entries(hits)) expect(count, kind).toBeGreaterThan(5)
  })
})
