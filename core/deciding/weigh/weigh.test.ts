import { describe, expect, it } from 'vitest'
import { addEstimates, sigmaG, spreadG } from '../../maths/estimate'
import { uncheckedGainKey } from '../../mass/evidence'
import { makeLine, makeMass, type Build, type Line, type Mass } from '../../model/ledger'
import { ListingBiasTable } from '../../mass/listings'
import { estimatesOf } from '../../mass/loadout'
import { overviewOf } from '../../mass/report'
import { startingCards } from '../../limits/rules'
import { evaluateCheck } from '../../mass/scale'
import { makeBuild, applyCommand, mostFurther } from '../../changes/commands'
import { listed, lineOf, total, weighTogether, buildOf } from './testing'
import {
  expectedOnPan,
  isFarOff,
  learntBetween,
  placeOf,
  readAtHand,
  reapplied,
  runLines,
  takeByDifference,
  takeInLifts,
  takeObservation,
  takeOneByOne,
  takeTogether,
  withDisplays,
  wouldChange,
  type ReadyScale,
  type Taking,
} from './index'

const scale = { id: 'blue', resolutionG: 0.01, capacityG: 200, repeatabilityG: 0.008 }
const checkAt = (id: string, displayG: number) => ({
  id,
  result: evaluateCheck(scale, [
    { references: [], displayG: 0 },
    { references: [{ id: 'brass', massG: 100, toleranceG: 0.01 }], displayG },
  ]),
})
const ready: ReadyScale = { scale, name: 'blue pocket scale', check: checkAt('c1', 100.2) }
const taking: Taking = {
  ready,
  tare: { id: 'zero', name: 'zero key', displayG: 0 },
  takenAt: '2026-11-02T18:00:00.000Z',
  id: 'v2',
}
const nobody = new ListingBiasTable()
const motors = makeLine({
  id: 'motors',
  slot: 'motor',
  name: 'motors',
  quantity: 4,
  mass: makeMass({ versionId: 'm1', evidence: 'listed', valueG: 11 }),
  listing: { valueG: 11, resolutionG: 0.1 },
})
const frame = makeLine({
  id: 'frame',
  slot: 'frame',
  name: 'frame',
  mass: makeMass({ versionId: 'f1', evidence: 'guess', valueG: 42 }),
})
const pack = makeLine({
  id: 'p',
  slot: 'pack',
  name: 'pack',
  mass: makeMass({ versionId: 'p1', evidence: 'weighed', valueG: 150 }),
  pack: { label: 'P', cells: 4, chemistry: 'LiPo', capacityMah: 850, cRating: null, plug: '' },
})
const spare = makeLine({ id: 'spare', slot: 'guard', name: 'guards', role: 'fitting' })
const build = makeBuild({
  id: 'b',
  name: 'B',
  lines: [motors, frame, pack, spare],
  setups: [{ id: 's', name: 'as built', lineIds: [] }],
  flies: { setupId: 's', packLineId: 'p' },
  aim: {
    purpose: '',
    purposeKind: 'recreation',
    places: [],
    cardIds: ['us-recreation'],
    reserveG: 0,
    confidence: 0.95,
    goalDryG: null,
    goalMinutes: null,
    goalPriceCents: null,
  },
})
const estimates = estimatesOf(build, nobody)
const of = (line: Line, mass: Line['mass']) => estimates.of({ ...line, mass })

describe('grams typed as weighed, with a scale at hand', () => {
  const typed = (given: Partial<Mass>) => makeMass({ versionId: 't1', evidence: 'weighed', valueG: 12.34, ...given })
  const atHand = (given: Partial<Mass>, by: ReadyScale | null = ready) => {
    const read = readAtHand(by, typed(given), '2026-11-02T18:00:00.000Z')
    if ('problem' in read) throw new Error(read.problem)
    return read.mass
  }
  it('are what it showed, over the gain of its check, with the causes of a weighing on it', () => {
    const mass = atHand({})
    expect(mass).toMatchObject({
      versionId: 't1',
      origin: 'typed',
      weighing: { method: 'typed', scaleId: 'blue', checkId: 'c1', displaysG: [12.34] },
    })
    expect(mass.valueG).toBeCloseTo(12.34 / 1.002, 9)
    // One placing and the zero key, s 0.008 and d 0.01, over the gain: √(s² + d²/12) twice.
    expect(mass.weighing!.contributions['weighing:t1']).toBeCloseTo(Math.sqrt(0.008 ** 2 + 0.01 ** 2 / 12) / 1.002, 12)
    expect(mass.weighing!.contributions['tared:t1']).toBeCloseTo(Math.sqrt(0.008 ** 2 + 0.01 ** 2 / 12) / 1.002, 12)
    expect(mass.weighing!.contributions['gain:blue:c1']).toBeLessThan(0)
    expect(of(frame, mass).contributions[uncheckedGainKey]).toBeUndefined()
  })
  it('one by one keep every piece', () => {
    const mass = atHand({ valueG: 6.92, pieceReadingsG: [6.91, 6.88, 6.97] })
    expect(mass.pieceReadingsG!.map(g => Number((g * 1.002).toFixed(9)))).toEqual([6.91, 6.88, 6.97])
    expect(withDisplays(mass)).toEqual(typed({ valueG: 6.92, pieceReadingsG: [6.91, 6.88, 6.97] }))
  })
  it('never checked, they are as sure as on a scale nobody has named, whose gain is that scale’s', () => {
    const mass = atHand({}, { scale: { ...scale, repeatabilityG: null }, name: 'blue pocket scale', check: null })
    expect(mass.valueG).toBe(12.34)
    expect(sigmaG(of(frame, mass))).toBeCloseTo(sigmaG(of(frame, typed({}))), 12)
    expect(Object.keys(of(frame, mass).contributions)).toContain('gain:blue:unchecked')
  })
  it('with other steps, a ± of one’s own, another evidence or no scale they stay as typed', () => {
    for (const given of [{ resolutionG: 0.1 }, { ownSpreadG: 0.3 }, { evidence: 'listed' as const }])
      expect(atHand(given)).toEqual(typed(given))
    expect(atHand({}, null)).toEqual(typed({}))
  })
  it('grams that were corrected already are no display: they are not corrected again', () => {
    const once = { ...atHand({}), weighing: null }
    expect(atHand(once)).toEqual({ ...typed({}), valueG: once.valueG })
  })
  it('over what the scale carries is refused in a sentence, the capacity itself is not', () => {
    expect(readAtHand(ready, typed({ valueG: 200 }), '')).toHaveProperty('mass')
    expect(readAtHand(ready, typed({ valueG: 200.01 }), '')).toEqual({
      problem:
        'blue pocket scale goes to 200 g and cannot have shown 200.01 g. Choose the scale it was weighed ' +
        'on, or add that one, under Scales.',
    })
    expect(readAtHand(ready, typed({ valueG: 150, pieceReadingsG: [90, 210] }), '')).toHaveProperty('problem')
  })
  it('a later check corrects them, and they stay typed', () => {
    const again = reapplied(atHand({}), { ...ready, check: checkAt('c2', 101) }, 'v9')!
    expect(again).toMatchObject({
      versionId: 'v9',
      origin: 'typed',
      weighing: { method: 'typed', checkId: 'c2', displaysG: [12.34] },
    })
    expect(again.valueG).toBeCloseTo(12.34 / 1.01, 9)
  })
})

describe('the place a first weighing takes', () => {
  it('is the estimate’s up to 3 % wider for any loadout, beyond that it stays beside', () => {
    // Two listed alike, weighed together: what is known of the one alone rests on what they share, and a rough weighing of it forgets that.
    const two = buildOf([listed('a', 'guard', 10), { ...listed('b', 'guard', 10), role: 'fitting' }])
    const together = weighTogether(
      {
        ...two,
        setups: [
          { id: 's', name: 'one', lineIds: [] },
          { id: 'both', name: 'both', lineIds: ['b'] },
        ],
      },
      20,
    )
    const placeOn = (repeatabilityG: number) => {
      const line = lineOf(together, 'a')
      const mass = takeTogether(
        { ...taking, ready: { scale: { ...scale, id: 'rough', repeatabilityG }, check: null, name: 'rough' } },
        line,
        [10],
        1,
        'as supplied',
      )
      const next = applyCommand(together, { type: 'line.weigh', id: 'a', mass, as: 'estimate' })
      return [
        (total(next).sigmaG / total(together).sigmaG).toFixed(3),
        placeOf(mass, line, together, estimatesOf(together, nobody), nobody),
      ]
    }
    expect([placeOn(0.38), placeOn(0.382)]).toEqual([
      ['1.028', 'estimate'],
      ['1.032', 'further'],
    ])
  })
})

describe('taking a reading', () => {
  it('all pieces together keeps the raw display, the scale and the check, and the corrected grams', () => {
    const mass = takeTogether(taking, motors, [44.09], 4, 'as supplied')
    expect(mass).toMatchObject({
      versionId: 'v2',
      evidence: 'weighed',
      valueCount: 4,
      basis: 'as supplied',
      weighing: {
        scaleId: 'blue',
        scaleName: 'blue pocket scale',
        checkId: 'c1',
        displaysG: [44.09],
        method: 'on the pan',
        supersedes: 'm1',
      },
    })
    expect(mass.valueG).toBeCloseTo(44.09 / 1.002, 9)
    expect(of(motors, mass).contributions['pieces:v2']).toBeUndefined()
    expect(sigmaG(of(motors, mass))).toBeCloseTo(Math.hypot(...Object.values(mass.weighing!.contributions)), 12)
  })
  it('one of four counts four times and adds the between-piece part', () => {
    const one = takeTogether(taking, motors, [11.02], 1, 'as supplied')
    expect(of(motors, one).valueG).toBeCloseTo((4 * 11.02) / 1.002, 9)
    expect(of(motors, one).contributions['pieces:v2']).toBeGreaterThan(0.3)
  })
  it('one after another gives the mean and what differs between pieces', () => {
    const mass = takeOneByOne(taking, motors, [11.0, 11.04, 10.98], 'as fitted')
    expect(mass.pieceReadingsG).toHaveLength(3)
    expect(mass.valueG).toBeCloseTo((11.0 + 11.04 + 10.98) / 3 / 1.002, 9)
    const estimate = of(motors, mass)
    expect(estimate.contributions['weighing:v2-1']).toBeCloseTo(4 * mass.weighing!.contributions['weighing:v2-1']!, 12)
    expect(estimate.contributions['pieces:v2']).toBeGreaterThan(0)
  })
  it('fewer pieces than were weighed one after another: any of them may be the one, and the spread says so', () => {
    const four = takeOneByOne(taking, motors, [6.83, 7.2, 6.6, 6.95], 'as fitted')
    const one = of({ ...motors, quantity: 1 }, four)
    // s of the four 0.24893: sₚ = √((4·(0.01·m̄)² + 3s²)/7), part sₚ·√(1 − 1/4)
    const meanG = (6.83 + 7.2 + 6.6 + 6.95) / 4 / 1.002
    const squares = [6.83, 7.2, 6.6, 6.95].reduce((sum, g) => sum + (g / 1.002 - meanG) ** 2, 0)
    expect(one.contributions['pieces:v2']).toBeCloseTo(
      Math.sqrt((4 * (0.01 * meanG) ** 2 + squares) / 7) * Math.sqrt(0.75),
      9,
    )
    expect(of({ ...motors, quantity: 4 }, four).contributions['pieces:v2']).toBeUndefined()
  })
  it('in two lifts carries more than the pan', () => {
    const mass = takeInLifts(taking, frame, [150, 98.3], 'as fitted')
    expect(mass.valueG).toBeCloseTo(248.3 / 1.002, 9)
    expect(mass.weighing).toMatchObject({ method: 'in lifts', displaysG: [150, 98.3] })
  })
  it('before and after keeps how the line was known, and moves it by the difference', () => {
    const cut = takeByDifference(taking, motors, 44.1, 41.3, nobody)
    expect(cut).toMatchObject({ evidence: 'listed', basis: 'as fitted', weighing: { method: 'by difference' } })
    expect(of(motors, cut).valueG).toBeCloseTo(44 - 2.8 / 1.002, 9)
    expect(sigmaG(of(motors, cut))).toBeCloseTo(sigmaG(estimates.of(motors)), 1)
    expect(() => takeByDifference(taking, { ...motors, mass: null }, 2, 1, nobody)).toThrow('mass')
  })
  it('refuses what comes out below nothing', () => {
    expect(() => takeTogether(taking, frame, [-2], 1, 'as fitted')).toThrow(
      expect.objectContaining({ field: 'display', expected: { is: 'in range', above: 0 } }),
    )
    expect(() => takeObservation(taking, 'dry', [frame], [-2], 'held')).toThrow(
      expect.objectContaining({ field: 'display', expected: { is: 'in range', above: 0 } }),
    )
  })
  it('a tray by name is taken off, and everything weighed on it shares its error', () => {
    const tray = { ...taking, tare: { id: 'tray', name: 'small tray', displayG: 5.01 } }
    const [a, b] = ['a', 'b'].map(id => takeTogether({ ...tray, id }, frame, [46.01], 1, 'as fitted'))
    expect(a!.valueG).toBeCloseTo(41 / 1.002, 9)
    expect(addEstimates([of(frame, a!), of(frame, b!)]).contributions['tared:tray']).toBeCloseTo(
      2 * a!.weighing!.contributions['tared:tray']!,
      12,
    )
  })
})

describe('a later check', () => {
  const later: ReadyScale = { ...ready, check: checkAt('c2', 100.4) }
  it('corrects an earlier weighing only when asked, from its raw displays', () => {
    const mass = takeTogether(taking, motors, [44.09], 4, 'as supplied')
    const again = reapplied(mass, later, 'v3')!
    expect(mass.valueG).toBeCloseTo(44.09 / 1.002, 9)
    expect(again.valueG).toBeCloseTo(44.09 / 1.004, 9)
    expect(again).toMatchObject({
      versionId: 'v3',
      valueCount: 4,
      weighing: { checkId: 'c2', takenAt: taking.takenAt, supersedes: 'v2' },
    })
    expect(
      reapplied(takeOneByOne(taking, motors, [11, 11.1], 'as fitted'), later, 'v3')!.pieceReadingsG![1],
    ).toBeCloseTo(11.1 / 1.004, 9)
  })
  it('has nothing to say of other scales, typed grams, the same check, or what was tied to another weighing', () => {
    const mass = takeTogether(taking, motors, [44.09], 4, 'as supplied')
    expect(reapplied(mass, ready, 'v3')).toBeNull()
    expect(reapplied(mass, { ...later, scale: { ...scale, id: 'other' } }, 'v3')).toBeNull()
    expect(reapplied(frame.mass!, later, 'v3')).toBeNull()
    expect(reapplied(takeByDifference(taking, motors, 44.1, 41.3, nobody), later, 'v3')).toBeNull()
  })
})

describe('a run', () => {
  it('goes by what adds most to the spread, open lines first, or as the ledger has them', () => {
    expect(runLines(build, build.flies, estimates, 'by spread').map(l => l.id)).toEqual([
      'spare',
      'frame',
      'motors',
      'p',
    ])
    expect(runLines(build, build.flies, estimates, 'as listed').map(l => l.id)).toEqual([
      'motors',
      'frame',
      'p',
      'spare',
    ])
  })
  it('expects what is believed, and doubts only what is far from it', () => {
    expect(expectedOnPan(spare, 1, estimates)).toBeNull()
    const expected = expectedOnPan(motors, 1, estimates)!
    expect(expected.valueG).toBeCloseTo(11, 9)
    expect(isFarOff(expected, 11.4, 0.01)).toBe(false)
    expect(isFarOff(expected, 17, 0.01)).toBe(true)
    expect(isFarOff({ valueG: 11, contributions: {} }, 11.1, 0.001)).toBe(false)
    // Four joint standard uncertainties: 4 × √(0.3² + 0.4²) = 2; and two hundredths of what was expected: 0.22.
    const wide = { valueG: 11, contributions: { product: 0.3 } }
    expect([12.95, 13.05, 9.05, 8.95].map(displayG => isFarOff(wide, displayG, 0.4))).toEqual([
      false,
      true,
      false,
      true,
    ])
    expect(
      [11.21, 11.23, 10.79, 10.77].map(displayG => isFarOff({ valueG: 11, contributions: {} }, displayG, 0.001)),
    ).toEqual([false, true, false, true])
  })
  it('says before what taking it would change: listing, spread, headroom, verdict', () => {
    const overview = overviewOf(build, build.flies, startingCards, estimates)
    const change = wouldChange(
      build,
      overview,
      motors,
      takeTogether(taking, motors, [44.09], 4, 'as supplied'),
      startingCards,
      estimates,
      nobody,
    )!
    expect(change.againstListing!.percent).toBeCloseTo(100 * (44.09 / 1.002 / 44 - 1), 6)
    expect(change.spreadAfterG).toBeLessThan(change.spreadBeforeG)
    expect(change.headroomAfterG! - change.headroomBeforeG!).toBeCloseTo(change.lineBeforeG - change.lineAfterG, 1)
    expect(
      wouldChange(
        build,
        overview,
        motors,
        takeTogether(taking, motors, [44.09], 4, 'as fitted'),
        startingCards,
        estimates,
        nobody,
      )!.againstListing,
    ).toBeNull()
    expect(build.lines[0]).toBe(motors)
  })
  it('says nothing beforehand of what would be refused: a line has as many weighings beside its grams as it can keep', () => {
    const mass = takeTogether(taking, motors, [44.09], 4, 'as fitted')
    const beside = Array.from({ length: mostFurther }, (_, i) => ({ mass: { ...mass, versionId: `f${i}` }, of: null }))
    const change = (further: typeof beside) => {
      const full = { ...motors, mass, further }
      const next = { ...build, lines: build.lines.map(line => (line === motors ? full : line)) }
      const known = estimatesOf(next, nobody)
      const again = { ...mass, versionId: 'again' }
      return wouldChange(
        next,
        overviewOf(next, next.flies, startingCards, known),
        full,
        again,
        startingCards,
        known,
        nobody,
      )
    }
    expect(change(beside.slice(1))).not.toBeNull()
    expect(change(beside)).toBeNull()
  })
  it('ends in what was learnt, surprises first', () => {
    const weighed = (line: Line, displayG: number, id: string) => ({
      ...line,
      mass: takeTogether({ ...taking, id }, line, [displayG], line.quantity, 'as fitted'),
    })
    const after: Build = { ...build, lines: [weighed(motors, 44.1, 'x'), weighed(frame, 60, 'y'), pack, spare] }
    const learnt = learntBetween(build, estimates, after, estimatesOf(after, nobody))
    expect(learnt.map(l => l.line.id)).toEqual(['frame', 'motors'])
    expect(learnt[0]!.surprise).toBeGreaterThan(2)
    expect(learnt[0]!.afterG - learnt[0]!.beforeG).toBeCloseTo(60 / 1.002 - 42, 6)
  })
  it('a whole weighed in lifts becomes an observation that narrows the loadout', () => {
    const observation = takeObservation(taking, 'everything', [motors, frame, pack], [190, 47.5], 'taken in')
    expect(observation.valueG).toBeCloseTo(237.5 / 1.002, 9)
    const known: Build = { ...build, observations: [observation] }
    const total = overviewOf(known, build.flies, startingCards, estimatesOf(known, nobody))
    expect(total.massG).toBeCloseTo(237.5 / 1.002, 1)
    expect(total.spreadG).toBeLessThan(0.2)
    expect(spreadG(overviewOf(build, build.flies, startingCards, estimates).total)).toBeGreaterThan(5)
  })
})
