import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { makeBuild } from '../../changes/commands'
import { ListingBiasTable } from '../../mass/listings'
import { makeLine, makeMass, type Build, type Evidence, type Line, type Slot } from '../../model/ledger'
import { learnSundries, outcomeOf, plannedLines, sundriesFor, teachesSundries, totalsApart, wholeTotals } from './index'

const prior = { mu: 0.03, tau: 0.01 }

describe('the share that plans leave out', () => {
  it('is the prior of the class while nothing was finished', () => {
    const { mu, sigma, builds } = learnSundries(prior, [])
    expect(mu).toBeCloseTo(0.03, 12)
    expect(builds).toBe(0)
    // (0.7τ)² + (0.6τ)²·4/(4−2)
    expect(sigma).toBeCloseTo(Math.sqrt(0.007 ** 2 + 2 * 0.006 ** 2), 12)
  })
  it('goes from the prior towards what was found, by hand for three builds', () => {
    // ȳ = 0.05, Σ(y−ȳ)² = 2·10⁻⁴; ν = 6; σ² = (4·3.6·10⁻⁵ + 2·10⁻⁴)/6 · 6/4 = 8.6·10⁻⁵
    const { mu, sigma } = learnSundries(prior, [0.04, 0.05, 0.06])
    const v = 1 / (1 / 4.9e-5 + 3 / 8.6e-5)
    expect(mu).toBeCloseTo(v * (0.03 / 4.9e-5 + (3 * 0.05) / 8.6e-5), 12)
    expect(mu).toBeCloseTo(0.042618, 6)
    expect(sigma).toBeCloseTo(Math.sqrt(v + 8.6e-5), 12)
  })
  it('lies between the prior and the mean found, and nearer to it with every build', () => {
    let hits = 0
    fc.assert(
      fc.property(fc.double({ min: 0.005, max: 0.2, noNaN: true }), fc.integer({ min: 1, max: 30 }), (found, n) => {
        const all = (count: number) =>
          learnSundries(
            prior,
            Array.from({ length: count }, () => found),
          ).mu
        const [low, high] = [Math.min(prior.mu, found), Math.max(prior.mu, found)]
        expect(all(n)).toBeGreaterThanOrEqual(low - 1e-12)
        expect(all(n)).toBeLessThanOrEqual(high + 1e-12)
        expect(Math.abs(all(n + 1) - found)).toBeLessThanOrEqual(Math.abs(all(n) - found) + 1e-12)
        if (Math.abs(all(n) - prior.mu) > 1e-3) hits++
      }),
    )
    expect(hits).toBeGreaterThan(30)
  })
  it('becomes grams of a plan: booked·μ/(1−μ), and its u', () => {
    const { valueG, sigmaG } = sundriesFor(96, { builds: 2, mu: 0.04, sigma: 0.01 })
    expect(valueG).toBeCloseTo(4, 12)
    expect(sigmaG).toBeCloseTo((96 * 0.01) / 0.96 ** 2, 12)
  })
  it('wants a range, and finite shares', () => {
    expect(() => learnSundries({ mu: 0.03, tau: 0 }, [])).toThrow('tau')
    expect(() => learnSundries(prior, [NaN])).toThrow('shares')
    expect(() => sundriesFor(-1, { builds: 0, mu: 0.03, sigma: 0.01 })).toThrow('bookedG')
  })
})

const line = (id: string, slot: Slot, valueG: number, evidence: Evidence = 'weighed') =>
  makeLine({ id, slot, name: id, mass: makeMass({ versionId: `v-${id}`, evidence, valueG, ownSpreadG: 0.1 }) })
function craft(lines: Line[], on: readonly string[], valueG: number): Build {
  const build = makeBuild({
    id: 'b',
    name: 'b',
    lines,
    setups: [{ id: 'as', name: 'as built', lineIds: [] }],
    flies: { setupId: 'as', packLineId: 'pack' },
  })
  return {
    ...build,
    observations: [
      {
        id: 'o',
        title: 'dry',
        takenAt: '2026-11-01T10:00:00.000Z',
        scaleId: 's',
        scaleName: 'pocket scale',
        checkId: null,
        displaysG: [valueG],
        tareDisplayG: null,
        valueG,
        contributions: { own: 0.02 },
        pictureIds: [],
        subjects: lines
          .filter(({ id }) => on.includes(id))
          .map(({ id, slot, quantity, mass, edition }) => ({ id, slot, quantity, mass, edition })),
        state: 'taken in' as const,
      },
    ],
  }
}
const lines = [
  line('frame', 'frame', 60),
  line('motor', 'motor', 30),
  line('solder', 'other', 2, 'guess'),
  line('pack', 'pack', 80),
]
const honesty = new ListingBiasTable()

describe('how the plan of a build came out', () => {
  it('by a weighing of the dry craft: forecast as it stood before, what was on the pan, and the share beside', () => {
    const outcome = outcomeOf(craft(lines, ['frame', 'motor', 'solder'], 94.5), honesty)!
    expect(outcome).toMatchObject({ forecastG: 92, weighedG: 94.5, bookedG: 90 })
    expect(outcome.share).toBeCloseTo(4.5 / 94.5, 12)
    expect(outcome.bookedSigmaG).toBeCloseTo((0.1 * Math.SQRT2) / 1.959964, 6)
    expect(teachesSundries(outcome, 0.01)).toBe(true)
    expect(teachesSundries(outcome, 0.0005)).toBe(false)
  })
  it('by one of everything, the pack taken off as it is known; not by one of half of it, nor of more than flies', () => {
    expect(outcomeOf(craft(lines, ['frame', 'motor', 'solder', 'pack'], 174.5), honesty)!.weighedG).toBeCloseTo(94.5, 9)
    expect(outcomeOf(craft(lines, ['frame', 'motor'], 90.2), honesty)).toBeNull()
    const spare: Line = { ...line('spare', 'strap', 3), state: 'off' }
    expect(outcomeOf(craft([...lines, spare], ['frame', 'motor', 'solder', 'spare'], 97), honesty)).toBeNull()
  })
  it('line by line: what was planned first against what was weighed; weighed from the first on is no plan', () => {
    const build = craft(lines, [], 0)
    const plan = makeMass({ versionId: 'p', evidence: 'guess', valueG: 28, ownSpreadG: 1 })
    const versions = [{ lineId: 'motor', mass: plan }, ...lines.map(({ id, mass }) => ({ lineId: id, mass: mass! }))]
    const planned = plannedLines(build, versions, honesty)
    expect(planned).toHaveLength(1)
    expect(planned[0]).toMatchObject({
      lineId: 'motor',
      evidence: 'guess',
      forecastG: 28,
      weighedG: 30,
      isWithin: false,
    })
    expect(planned[0]!.spreadG).toBeCloseTo(Math.hypot(1, 0.1), 6)
  })
})

describe('two totals of one craft', () => {
  const at = (day: number, on: readonly Line[], valueG: number, own: number): Build['observations'][number] => ({
    ...craft(
      [...on],
      on.map(({ id }) => id),
      valueG,
    ).observations[0]!,
    id: `o${day}`,
    takenAt: `2026-11-0${day}T10:00:00.000Z`,
    contributions: { [`own ${day}`]: own },
  })
  const dry = lines.slice(0, 3)
  const before = makeLine({ ...line('strap', 'strap', 2.3), edition: 0 })
  const strap = makeLine({
    ...line('strap', 'strap', 3.4),
    mass: makeMass({ versionId: 'v-strap-2', evidence: 'weighed', valueG: 3.4, ownSpreadG: 0.1 }),
    edition: 1,
  })
  it('82.0 typed, 83.4 weighed after a new strap and tape: both stand, the strap’s 1.1 is named, 0.3 remains within its ±', () => {
    const build = {
      ...craft([...dry, strap], [], 0),
      observations: [at(1, [...dry, before], 82, 0.25), at(2, [...dry, strap], 83.4, 0.02)],
    }
    expect(wholeTotals(build).map(({ of, valueG }) => [of, valueG])).toEqual([
      ['dry', 82],
      ['dry', 83.4],
    ])
    const [apart] = totalsApart(build, honesty)
    expect(apart!.changed).toHaveLength(1)
    expect(apart!.changed[0]).toMatchObject({ lineId: 'strap', slot: 'strap' })
    expect(apart!.changed[0]!.changeG).toBeCloseTo(1.1, 9)
    expect(apart!.differenceG).toBeCloseTo(1.4, 9)
    expect(apart!.remainsG).toBeCloseTo(0.3, 9)
    expect(apart!.isFinding).toBe(false)
  })
  it('what remains beyond its ± is a finding; dry is held against dry, all-up against all-up', () => {
    const pack = lines[3]!
    const observations = [at(1, dry, 92, 0.02), at(2, [...dry, pack], 172, 0.02), at(3, dry, 92.5, 0.02)]
    const apart = totalsApart({ ...craft([...lines], [], 0), observations }, honesty)
    expect(apart.map(({ from, to, isFinding }) => [from.id, to.id, isFinding])).toEqual([['o1', 'o3', true]])
    expect(apart[0]!.changed).toEqual([])
  })
  it('a weighing of a part of the craft is none of the whole', () => {
    expect(wholeTotals({ observations: [at(1, dry.slice(0, 1), 60, 0.02)] })).toEqual([])
  })
})
