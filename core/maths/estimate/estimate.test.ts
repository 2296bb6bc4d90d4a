import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  addEstimates,
  estimateOf,
  exactly,
  scaleEstimate,
  sigmaG,
  spreadG,
  subtractEstimates,
  varianceG2,
} from './index'

const estimate = fc
  .record({
    valueG: fc.double({ min: 0, max: 500, noNaN: true }),
    contributions: fc.dictionary(fc.constantFrom('a', 'b', 'c', 'd'), fc.double({ min: -3, max: 3, noNaN: true })),
  })
  .map(e => estimateOf(e.valueG, e.contributions))

describe('estimates', () => {
  it('add one cause linearly and different causes in quadrature', () => {
    expect(sigmaG(addEstimates([estimateOf(1, { same: 3 }), estimateOf(1, { same: 4 })]))).toBe(7)
    expect(sigmaG(addEstimates([estimateOf(1, { one: 3 }), estimateOf(1, { other: 4 })]))).toBe(5)
  })
  it('let a shared cause cancel in a difference', () => {
    const before = estimateOf(50, { gain: -0.05, own1: 0.01 })
    const after = estimateOf(49, { gain: -0.049, own2: 0.01 })
    expect(sigmaG(subtractEstimates(before, after))).toBeCloseTo(Math.hypot(0.001, 0.01, 0.01), 12)
  })
  it('subtracting itself leaves exactly nothing', () => {
    fc.assert(
      fc.property(estimate, e => {
        const nothing = subtractEstimates(e, e)
        expect(nothing.valueG).toBe(0)
        expect(varianceG2(nothing)).toBe(0)
      }),
    )
  })
  it('do not depend on the order and scale with the factor', () => {
    fc.assert(
      fc.property(fc.array(estimate, { maxLength: 6 }), fc.double({ min: -5, max: 5, noNaN: true }), (list, factor) => {
        expect(sigmaG(addEstimates([...list].reverse()))).toBeCloseTo(sigmaG(addEstimates(list)), 9)
        expect(sigmaG(scaleEstimate(addEstimates(list), factor))).toBeCloseTo(
          Math.abs(factor) * sigmaG(addEstimates(list)),
          8,
        )
      }),
    )
  })
  it('show a spread of 1.96 standard uncertainties', () => {
    expect(spreadG(estimateOf(1, { a: 1 }))).toBeCloseTo(1.959964, 6)
    expect(spreadG(exactly(3))).toBe(0)
  })
  it('refuse NaN and infinities by the name of the field', () => {
    expect(() => exactly(NaN)).toThrow('valueG')
    expect(() => estimateOf(1, { x: Infinity })).toThrow('contributions.x')
    expect(() => scaleEstimate(exactly(1), NaN)).toThrow('factor')
  })
})
