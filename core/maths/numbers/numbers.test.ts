import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { chanceOf, quantile, normalCdf, normalQuantile, coverageFactor95, sumCompensated } from './index'

describe('sumCompensated', () => {
  it('adds decimal grams as they add on paper', () => {
    expect(sumCompensated([0.1, 0.2, 0.3])).toBe(0.6)
    expect(sumCompensated([1e16, 1, -1e16])).toBe(1)
    expect(sumCompensated([])).toBe(0)
  })
})

describe('the normal distribution', () => {
  it('gives tabulated values', () => {
    expect(normalCdf(0)).toBe(0.5)
    expect(normalCdf(1.96975)).toBeCloseTo(0.97557, 5)
    expect(normalCdf(1)).toBeCloseTo(0.841344746068543, 13)
    expect(normalCdf(-3.5)).toBeCloseTo(2.3262907903552504e-4, 15)
    expect(normalCdf(-6)).toBeCloseTo(9.865876450376946e-10, 17)
    expect(normalQuantile(0.95)).toBeCloseTo(1.6448536269514722, 12)
    expect(coverageFactor95).toBeCloseTo(1.959963984540054, 12)
  })
  it('is monotone, symmetric and inverted by its quantile', () => {
    fc.assert(
      fc.property(fc.double({ min: -6, max: 6, noNaN: true }), z => {
        const p = normalCdf(z)
        expect(p + normalCdf(-z)).toBeCloseTo(1, 13)
        expect(normalCdf(z + 1e-3)).toBeGreaterThan(p)
        if (Math.abs(z) < 5) expect(normalQuantile(p)).toBeCloseTo(z, 7)
      }),
    )
  })
  it('has no jump where the rational approximation meets the continued fraction', () => {
    const [before, after] = [normalCdf(-7.0710678), normalCdf(-7.0710679)]
    expect(before - after).toBeGreaterThan(0)
    expect((before - after) / before).toBeLessThan(1e-5)
  })
  it('keeps its ends and refuses what is not a number or a probability', () => {
    expect(normalCdf(Infinity)).toBe(1)
    expect(normalCdf(-Infinity)).toBe(0)
    expect(() => normalCdf(NaN)).toThrow('z must be')
    for (const p of [0, 1, -0.1, NaN]) expect(() => normalQuantile(p)).toThrow('p must be')
  })
})

describe('a quantile', () => {
  it('lies between sorted figures in proportion, and is none of none', () => {
    expect([0, 0.25, 0.5, 1].map(share => quantile([1, 2, 4], share))).toEqual([1, 1.5, 2, 4])
    expect(quantile([7], 0.3)).toBe(7)
    expect(quantile([], 0.5)).toBeNaN()
  })
})

describe('chance by a seed', () => {
  it('comes again for the same seed, fills 0 to 1, and is normal where it is asked to be', () => {
    const take = (seed: number) => Array.from({ length: 4000 }, chanceOf(seed).uniform)
    expect(take(7)).toEqual(take(7))
    expect(take(7)).not.toEqual(take(8))
    expect(Math.min(...take(7))).toBeLessThan(0.01)
    expect(Math.max(...take(7))).toBeGreaterThan(0.99)
    expect(Math.max(...take(7))).toBeLessThan(1)
    const normals = Array.from({ length: 4000 }, chanceOf(7).normal)
    const mean = normals.reduce((sum, z) => sum + z, 0) / normals.length
    const variance = normals.reduce((sum, z) => sum + (z - mean) ** 2, 0) / normals.length
    expect(Math.abs(mean)).toBeLessThan(0.06)
    expect(Math.abs(variance - 1)).toBeLessThan(0.09)
  })
})
