import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { addEstimates, sigmaG, varianceG2 } from '../../maths/estimate'
import { evidences, makeLine, makeMass, type Line, type Mass } from '../../model/ledger'
import { ListingBiasTable } from '../listings'
import { betweenPiecePartG, betweenPieceSigmaG, lineEstimate } from './index'

const nobody = new ListingBiasTable()
function line(mass: Partial<Mass> & Pick<Mass, 'evidence' | 'valueG'>, more: Partial<Line> = {}): Line {
  return makeLine({ id: 'l', slot: 'motor', name: 'part', mass: makeMass({ versionId: 'v', ...mass }), ...more })
}
const sigmaOf = (l: Line, table = nobody) => sigmaG(lineEstimate(l, table))

describe('pieces', () => {
  it('one of four 1.00 g pieces weighed adds 0.034641 g', () => {
    expect(betweenPiecePartG(4, 1, betweenPieceSigmaG([1]))).toBeCloseTo(0.034641, 6)
  })
  it('three of four weighed 6.91, 6.88, 6.97', () => {
    const sigma = betweenPieceSigmaG([6.91, 6.88, 6.97])
    expect(sigma).toBeCloseTo(0.062389, 6)
    expect(betweenPiecePartG(4, 3, sigma)).toBeCloseTo(0.072041, 6)
  })
  it('all pieces weighed leave no between-piece part, more weighed never widen it', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 20 }), fc.double({ min: 0.01, max: 50, noNaN: true }), (n, massG) => {
        expect(betweenPiecePartG(n, n, massG)).toBe(0)
        for (let k = 2; k <= n; k++)
          expect(betweenPiecePartG(n, k, massG)).toBeLessThan(betweenPiecePartG(n, k - 1, massG))
      }),
    )
  })
  it('refuses no readings and negative ones', () => {
    expect(() => betweenPieceSigmaG([])).toThrow('readingsG')
    expect(() => betweenPieceSigmaG([1, -1])).toThrow('readingsG')
    expect(() => betweenPiecePartG(0, 1, 1)).toThrow('used')
  })
})

describe('default pedigrees', () => {
  it('a guess counts 20 %, at least 0.2 g, rectangular', () => {
    expect(sigmaOf(line({ evidence: 'guess', valueG: 10 }))).toBeCloseTo(2 / Math.sqrt(3), 12)
    expect(sigmaOf(line({ evidence: 'guess', valueG: 0.3 }))).toBeCloseTo(0.2 / Math.sqrt(3), 12)
  })
  it('a typical mass spans its class', () => {
    expect(sigmaOf(line({ evidence: 'typical', valueG: 9.1, halfRangeG: 0.9 }, { quantity: 4 }))).toBeCloseTo(
      3.6 / Math.sqrt(3),
      12,
    )
  })
  it('a listed mass is corrected by what its kind has taught', () => {
    const taught = new ListingBiasTable(
      [1.06, 1.02, 1.05, 1.04, 1.01].map((ratio, i) => ({ slot: 'motor' as const, product: `p${i}`, ratio })),
    )
    const estimate = lineEstimate(line({ evidence: 'listed', valueG: 10, resolutionG: 0.1 }), taught)
    expect(estimate.valueG).toBeCloseTo(10.27525, 5)
    expect(estimate.contributions['listing:motor']).toBeCloseTo(10.27525 * 0.014348, 5)
    expect(estimate.contributions['digit:v']).toBeCloseTo(0.05 / Math.sqrt(3), 12)
  })
  it('worked out counts 5 %, screws 10 %, at least 0.02 g', () => {
    expect(sigmaOf(line({ evidence: 'worked out', valueG: 4 }))).toBeCloseTo(0.2 / Math.sqrt(3), 12)
    expect(sigmaOf(line({ evidence: 'worked out', valueG: 4 }, { slot: 'screw' }))).toBeCloseTo(0.4 / Math.sqrt(3), 12)
    expect(sigmaOf(line({ evidence: 'worked out', valueG: 0.1 }))).toBeCloseTo(0.02 / Math.sqrt(3), 12)
  })
  it('a line weighed once and counted four times widens the total by exactly the between-piece term', () => {
    const together = lineEstimate(line({ evidence: 'weighed', valueG: 4, valueCount: 4 }, { quantity: 4 }), nobody)
    const once = lineEstimate(line({ evidence: 'weighed', valueG: 1 }, { quantity: 4 }), nobody)
    expect(together.contributions['pieces:v']).toBeUndefined()
    expect(once.contributions['pieces:v']).toBeCloseTo(0.034641, 6)
    const { 'pieces:v': pieces, ...rest } = once.contributions
    expect(varianceG2(once)).toBeCloseTo(varianceG2({ valueG: 4, contributions: rest }) + pieces! ** 2, 15)
  })
  it('two lines on one kind share that part of the spread', () => {
    const a = lineEstimate(line({ evidence: 'listed', valueG: 10 }), nobody)
    const b = lineEstimate(line({ evidence: 'listed', valueG: 20 }), nobody)
    expect(addEstimates([a, b]).contributions['listing:motor']).toBeCloseTo(30 * 0.03, 12)
    expect(sigmaG(addEstimates([a, b]))).toBeGreaterThan(Math.hypot(sigmaG(a), sigmaG(b)))
  })
  it('an own spread replaces the default for every evidence, zero included', () => {
    for (const evidence of evidences) {
      expect(sigmaOf(line({ evidence, valueG: 5, ownSpreadG: 0 }))).toBe(0)
      expect(sigmaOf(line({ evidence, valueG: 5, ownSpreadG: 1.959964 }))).toBeCloseTo(1, 6)
    }
  })
  it('a line without grams weighs nothing and says nothing', () => {
    expect(lineEstimate(makeLine({ id: 'x', slot: 'strap', name: 'x' }), nobody)).toEqual({
      valueG: 0,
      contributions: {},
    })
  })
  it('refuses impossible masses and counts by field', () => {
    expect(() => lineEstimate(line({ evidence: 'guess', valueG: -1 }), nobody)).toThrow('valueG')
    expect(() => lineEstimate(line({ evidence: 'guess', valueG: NaN }), nobody)).toThrow('valueG')
    expect(() => lineEstimate(line({ evidence: 'guess', valueG: 1 }, { quantity: 0 }), nobody)).toThrow('quantity')
  })
  it('never gives NaN, and more pieces of anything never narrow it', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...evidences),
        fc.double({ min: 0, max: 200, noNaN: true }),
        fc.integer({ min: 1, max: 30 }),
        (evidence, valueG, quantity) => {
          const few = sigmaOf(line({ evidence, valueG }, { quantity }))
          const more = sigmaOf(line({ evidence, valueG }, { quantity: quantity + 1 }))
          expect(Number.isFinite(few)).toBe(true)
          expect(more).toBeGreaterThanOrEqual(few)
        },
      ),
    )
  })
})

it('a typical mass whose class has no range counts 20 % either way, rectangular', () => {
  const line = makeLine({
    id: 'l',
    slot: 'strap',
    name: 'strap',
    quantity: 2,
    mass: makeMass({ versionId: 'v', evidence: 'typical', valueG: 5 }),
  })
  expect(sigmaG(lineEstimate(line, new ListingBiasTable()))).toBeCloseTo((2 * 1) / Math.sqrt(3), 9)
})
