import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { toGrams } from '../../text/units'
import { sumCompensated } from '../../maths/numbers'
import { intoReserveG, judge, type Comparator } from './index'

const poundLimitG = toGrams(0.55, 'lb')
const at = (massG: number, sigmaG: number, limitG = poundLimitG, comparator: Comparator = '<=', confidence = 0.95) =>
  judge({ massG, sigmaG, limitG, comparator, confidence })

describe('judge', () => {
  it('gives the worked examples', () => {
    const clear = at(247.9, 0.8, 249.4758)
    expect(clear.probability).toBeCloseTo(0.97557, 5)
    expect(clear.guardG).toBeCloseTo(1.3159, 4)
    expect(clear.word).toBe('Clear')
    const close = at(248.6, 0.8, 249.4758)
    expect(close.probability).toBeCloseTo(0.86319, 5)
    expect(close.word).toBe('Too close to call')
    expect(at(250.3, 0.1, 249.4758).word).toBe('Over')
  })
  it('reads each wording exactly', () => {
    expect(at(249.6, 0, 250, '<').word).toBe('Clear')
    expect(at(249.6, 0).word).toBe('Over')
    expect(at(250, 0, 250, '<').word).toBe('Over')
    expect(at(250, 0, 250, '<=').word).toBe('Clear')
    expect(at(toGrams(0.55, 'lb'), 0).word).toBe('Clear')
  })
  it('judges 2,000 ledgers of decimal grams that add up to exactly the limit', () => {
    let seed = 7
    const random = () => (seed = (seed * 48271) % 2147483647) / 2147483647
    let naivelyWrong = 0
    for (let n = 0; n < 2000; n++) {
      const cents: number[] = []
      let left = 25000
      while (left > 0) {
        const part = Math.min(left, 1 + Math.floor(random() * 2500))
        cents.push(part)
        left -= part
      }
      const grams = cents.map(c => c / 100)
      if (grams.reduce((a, b) => a + b, 0) > 250) naivelyWrong++
      const massG = sumCompensated(grams)
      expect(at(massG, 0, 250, '<=').word).toBe('Clear')
      expect(at(massG, 0, 250, '<').word).toBe('Over')
    }
    expect(naivelyWrong).toBeGreaterThan(200)
  })
  it('says what spread would make it clear, and that spread does', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 200, max: 249.4, noNaN: true }),
        fc.double({ min: 0.5, max: 30, noNaN: true }),
        (massG, sigma) => {
          const verdict = at(massG, sigma)
          const enough = verdict.clearSpreadG! / 1.959964
          expect(at(massG, enough * 0.999).word).toBe('Clear')
          expect(at(massG, enough * 1.001).word).not.toBe('Clear')
        },
      ),
    )
    expect(at(250, 0.5).clearSpreadG).toBeNull()
  })
  it('moves one way only: heavier is never better, and Clear agrees with the probability', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 500, noNaN: true }),
        fc.double({ min: 1e-3, max: 20, noNaN: true }),
        (massG, sigma) => {
          const verdict = at(massG, sigma)
          expect(at(massG + 0.5, sigma).probability).toBeLessThanOrEqual(verdict.probability)
          if (verdict.word === 'Clear') expect(verdict.probability).toBeGreaterThanOrEqual(0.95 - 1e-9)
          if (verdict.word === 'Over') expect(verdict.probability).toBeLessThanOrEqual(0.05 + 1e-9)
          if (verdict.word === 'Too close to call') expect(verdict.probability).toBeGreaterThan(0.05 - 1e-9)
        },
      ),
    )
  })
  it('a reserve counts apart from the word: what is left of the headroom beyond the guard, or what is missing of it', () => {
    const clear = at(246.5, 0.8)
    const leftG = poundLimitG - 246.5 - clear.guardG
    expect(clear.word).toBe('Clear')
    expect(intoReserveG(clear, leftG)).toBe(0)
    expect(intoReserveG(clear, leftG - 0.3)).toBe(0)
    expect(intoReserveG(clear, leftG + 1.2)).toBeCloseTo(1.2, 9)
    expect(intoReserveG(at(249, 0.8), 0)).toBeNull()
  })
  it('asked with no guard at all, says nothing of a spread that would do', () => {
    expect(at(249, 0.8, poundLimitG, '<=', 0.5)).toMatchObject({ word: 'Clear', clearSpreadG: null })
  })
  it('refuses what it cannot judge', () => {
    expect(() => at(NaN, 1)).toThrow('massG')
    expect(() => at(1, -1)).toThrow('sigmaG')
    expect(() => at(1, 1, Infinity)).toThrow('limitG')
    for (const confidence of [0.4, 1, NaN]) expect(() => at(1, 1, 10, '<=', confidence)).toThrow('confidence')
  })
})
