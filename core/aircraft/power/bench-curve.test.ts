import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { benchCurve, monotoneCubic, roughCurve, settledV } from './index'

const bench = [
  [20, 16.4, 0.8, 38],
  [40, 16.3, 1.9, 88],
  [60, 16.2, 3.4, 140],
  [80, 16, 5.1, 190],
  [100, 15.8, 6.7, 231],
].map(([throttlePercent, volts, amps, thrustG]) => ({
  throttlePercent: throttlePercent!,
  volts: volts!,
  amps: amps!,
  thrustG: thrustG!,
}))

describe('a monotone cubic', () => {
  const tables = fc
    .array(fc.tuple(fc.double({ min: 0.01, max: 5, noNaN: true }), fc.double({ min: 0, max: 9, noNaN: true })), {
      minLength: 2,
      maxLength: 12,
    })
    .map(steps =>
      steps.reduce<{ xs: number[]; ys: number[] }>(
        ({ xs, ys }, [dx, dy]) => ({ xs: [...xs, (xs.at(-1) ?? 0) + dx], ys: [...ys, (ys.at(-1) ?? 0) + dy] }),
        { xs: [], ys: [] },
      ),
    )
  it('goes through its points, never falls between rising ones and never leaves their range', () => {
    fc.assert(
      fc.property(
        tables,
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        ({ xs, ys }, a, b) => {
          const curve = monotoneCubic(xs, ys)
          xs.forEach((x, i) => expect(curve.at(x)).toBeCloseTo(ys[i]!, 8))
          const [low, high] = [Math.min(a, b), Math.max(a, b)].map(t => curve.from + t * (curve.to - curve.from))
          expect(curve.at(low!)).toBeLessThanOrEqual(curve.at(high!) + 1e-9)
        },
      ),
    )
  })
  it('of a straight line is that line, also at its ends', () => {
    const line = monotoneCubic([0, 1, 3, 7], [2, 4, 8, 16])
    for (const x of [0, 0.3, 1.7, 5.9, 7]) expect(line.at(x)).toBeCloseTo(2 + 2 * x, 12)
  })
  it('has the slopes of Fritsch and Butland: the worked value between four points', () => {
    // Secants 1, 3, 2 of equal widths: harmonic means 2·1·3/(1 + 3) = 1.5 and 2·3·2/(3 + 2) = 2.4.
    const curve = monotoneCubic([0, 1, 2, 3], [0, 1, 4, 6])
    expect(curve.at(1.5)).toBeCloseTo((1 + 4) / 2 + (1.5 - 2.4) / 8, 12)
  })
  it('says nothing beyond its ends and refuses what does not rise', () => {
    const curve = monotoneCubic([1, 2], [3, 5])
    expect([curve.at(0), curve.at(9)]).toEqual([3, 5])
    expect(() => monotoneCubic([0, 1, 1], [0, 1, 2])).toThrow(/rising/)
    expect(() => monotoneCubic([1], [1])).toThrow(
      expect.objectContaining({ field: 'xs', received: 1, code: 'at least' }),
    )
  })
})

describe('where pack and load meet', () => {
  it('is the highest volts at which the pack gives what is drawn', () => {
    const curve = benchCurve(bench)
    const ampsAt = (volts: number) => 4 * curve.amps(volts) + 12 / volts
    const packV = settledV(ampsAt, 16.4, 0.036)!
    expect(16.4 - 0.036 * ampsAt(packV)).toBeCloseTo(packV, 6)
    // Constant power alone: V = (E + √(E² − 4RP))/2.
    expect(settledV(volts => 71.2396 / volts, 16.8, 0.036)).toBeCloseTo(
      (16.8 + Math.sqrt(16.8 ** 2 - 4 * 0.036 * 71.2396)) / 2,
      9,
    )
  })
  it('is nowhere where the pack cannot hold the load: 4.2 V over 0.2 Ω never gives 27.4 A', () => {
    expect(settledV(() => 27.4, 4.2, 0.2)).toBeNull()
    expect(settledV(volts => 30 / volts, 4.2, 0.2)).toBeNull()
    expect(settledV(volts => 20 / volts, 4.2, 0.2)).toBeCloseTo((4.2 + Math.sqrt(4.2 ** 2 - 0.8 * 20)) / 2, 9)
  })
  it('sinks with an emptier or a worse pack', () => {
    const ampsAt = (volts: number) => 4 * benchCurve(bench).amps(volts) + 5 / volts
    fc.assert(
      fc.property(
        fc.double({ min: 12, max: 15, noNaN: true }),
        fc.double({ min: 0.005, max: 0.1, noNaN: true }),
        (openV, resistanceOhm) => {
          const at = settledV(ampsAt, openV, resistanceOhm)!
          expect(settledV(ampsAt, openV - 0.5, resistanceOhm)!).toBeLessThan(at)
          expect(settledV(ampsAt, openV, resistanceOhm * 1.3)!).toBeLessThan(at)
        },
      ),
      { numRuns: 40 },
    )
  })
})

describe('a motor', () => {
  it('gives the thrust and the watts of its bench table', () => {
    const curve = benchCurve(bench)
    expect(curve.thrustG(15.8)).toBeCloseTo(231, 9)
    expect(curve.watts(0.4 * 16.3)).toBeCloseTo(16.3 * 1.9, 9)
    expect(curve.thrustG(0)).toBe(0)
    expect(curve.thrustG(99)).toBeCloseTo(231, 9)
  })
  it('draws at least what its last row says above the volts of its table, never less than on fewer volts', () => {
    const curve = benchCurve(bench)
    expect(curve.amps(15.8)).toBeCloseTo(6.7, 9)
    expect(curve.amps(25)).toBeCloseTo(6.7, 9)
    fc.assert(
      fc.property(
        fc.double({ min: 15.8, max: 30, noNaN: true }),
        fc.double({ min: 0, max: 5, noNaN: true }),
        (volts, more) => {
          expect(curve.amps(volts + more)).toBeGreaterThanOrEqual(curve.amps(volts) - 1e-12)
        },
      ),
    )
  })
  it('without a table is rough, and in the right region', () => {
    const rough = roughCurve({
      kv: 3850,
      diameterMm: 76.2,
      pitchMm: 58,
      blades: 3,
      densityKgM3: 1.225,
      efficiency: 0.38,
    })
    expect(rough.rough).toBe(true)
    expect(rough.thrustG(15.8)).toBeGreaterThan(231 * 0.67)
    expect(rough.thrustG(15.8)).toBeLessThan(231 * 1.33)
    expect(rough.watts(15.8)).toBeGreaterThan(106 * 0.6)
    expect(rough.watts(15.8)).toBeLessThan(106 * 1.5)
  })
})
