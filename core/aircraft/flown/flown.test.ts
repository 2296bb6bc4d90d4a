import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { coverageFactor95 } from '../../maths/numbers'
import { discharge, efficiencySpread, openCircuitV, styleFactors, type PackModel } from '../power'
import {
  Calibration,
  chanceOfGoal,
  chargeLeft,
  chargeUsed,
  lastFiveOf,
  meanPowerW,
  powerAtW,
  powerThatLastsW,
  uOneFlight,
  usableByFlight,
  type ChargeEvidence,
  type FlownFlight,
} from './index'

const pack: PackModel = { cells: 4, chemistry: 'LiPo', capacityMah: 850, cellResistanceMohm: 35.3 / 4 }
const sure = { mah: 850, uMah: 0 }
const nothing: ChargeEvidence = { putBackMah: null, loggedMah: null, landing: null, isLandingSpent: false }
const rested = (cellV: number, isFresh = false) => ({ cellV, load: null, isFresh })

describe('the charge left at landing', () => {
  it.each([
    ['3.74 V, resting', rested(3.74), 0.225],
    ['3.62 V, resting', rested(3.62), 0.05625],
    ['3.45 V under 22 A', { cellV: 3.45, load: { amps: 22, cellMohm: 8.8, uCellMohm: 0 }, isFresh: false }, 0.071],
  ])('%s', (_words, landing, charge) => {
    expect(chargeLeft('LiPo', landing).charge).toBeCloseTo(charge, 3)
  })
  it('is less sure while the cells recover, under an unsure load, and where the curve is flat', () => {
    const u = (landing: Parameters<typeof chargeLeft>[1]) => chargeLeft('LiPo', landing).u
    expect(u(rested(3.74, true))).toBeGreaterThan(2 * u(rested(3.74)))
    const loaded = (uCellMohm: number) =>
      u({ cellV: 3.45, load: { amps: 22, cellMohm: 8.8, uCellMohm }, isFresh: false })
    expect(loaded(3)).toBeGreaterThan(loaded(0))
    expect(u(rested(3.8))).toBeGreaterThan(u(rested(3.5)))
  })
  it('has a doubt beyond both ends of the curve, and none of charge itself', () => {
    for (const [cellV, charge] of [
      [5, 1],
      [1, 0],
    ] as const) {
      expect(chargeLeft('LiPo', rested(cellV)).charge).toBe(charge)
      expect(chargeLeft('LiPo', rested(cellV)).u).toBeGreaterThan(0)
    }
  })
  it('cannot be told of volts that are none', () => {
    expect(() => chargeLeft('LiPo', rested(NaN))).toThrow()
    expect(() =>
      chargeLeft('LiPo', { cellV: 3.5, load: { amps: -1, cellMohm: 8, uCellMohm: 0 }, isFresh: false }),
    ).toThrow()
  })
})

describe('the charge a flight used', () => {
  it('668 mAh put back are 661.3 ± u 9.9', () => {
    const { mah, uMah } = chargeUsed(pack, sure, 1, { ...nothing, putBackMah: 668 })
    expect(mah).toBeCloseTo(661.3, 1)
    expect(uMah).toBeCloseTo(9.9, 1)
  })
  it('from 3.74 V resting on 850 mAh: 658.8 ± u 42.5', () => {
    const { mah, uMah } = chargeUsed(pack, sure, 1, { ...nothing, landing: rested(3.74) })
    expect(mah).toBeCloseTo(658.75, 2)
    expect(uMah).toBeCloseTo(42.5, 1)
  })
  it('both together: 661.2 ± u 9.7, nothing against', () => {
    const { mah, uMah, from, against } = chargeUsed(pack, sure, 1, {
      ...nothing,
      putBackMah: 668,
      landing: rested(3.74),
    })
    expect(mah).toBeCloseTo(661.2, 1)
    expect(uMah).toBeCloseTo(9.7, 1)
    expect(from.map(({ source }) => source)).toEqual(['put back', 'landing volts'])
    expect(against).toEqual([])
  })
  it('what disagrees with the surest is left out and named', () => {
    const { mah, uMah, from, against } = chargeUsed(pack, sure, 1, {
      ...nothing,
      putBackMah: 668,
      loggedMah: 500,
      landing: rested(3.74),
    })
    expect(from.map(({ source }) => source)).toEqual(['put back', 'landing volts'])
    expect(against.map(({ source }) => source)).toEqual(['logged'])
    expect([mah, uMah]).toEqual([expect.closeTo(661.2, 1), expect.closeTo(9.7, 1)])
  })
  it('is assumed where nothing is said: 20 % left, ± u 8 %', () => {
    const { mah, uMah, from } = chargeUsed(pack, sure, 1, nothing)
    expect([mah, uMah]).toEqual([expect.closeTo(680, 9), expect.closeTo(68, 9)])
    expect(from.map(({ source }) => source)).toEqual(['assumed'])
  })
  it('volts that made the usable charge are no second evidence', () => {
    const spent = chargeUsed(pack, sure, 1, {
      ...nothing,
      putBackMah: 668,
      landing: rested(3.74),
      isLandingSpent: true,
    })
    expect(spent.from.map(({ source }) => source)).toEqual(['put back'])
  })
  it('is never surer than its surest evidence less the rest of it, nor outside of what it rests on', () => {
    let [combined, left] = [0, 0]
    fc.assert(
      fc.property(
        fc.double({ min: 50, max: 850, noNaN: true }),
        fc.double({ min: 50, max: 850, noNaN: true }),
        fc.double({ min: 3.3, max: 4.1, noNaN: true }),
        (putBackMah, loggedMah, cellV) => {
          const used = chargeUsed(pack, sure, 1, {
            putBackMah,
            loggedMah,
            landing: rested(cellV),
            isLandingSpent: false,
          })
          const values = used.from.map(({ mah }) => mah)
          expect(used.mah).toBeGreaterThanOrEqual(Math.min(...values) - 1e-9)
          expect(used.mah).toBeLessThanOrEqual(Math.max(...values) + 1e-9)
          expect(used.uMah).toBeLessThanOrEqual(used.from[0]!.uMah + 1e-9)
          expect(used.from.length + used.against.length).toBe(3)
          if (used.from.length > 1) combined++
          if (used.against.length > 0) left++
        },
      ),
    )
    expect(combined).toBeGreaterThan(10)
    expect(left).toBeGreaterThan(10)
  })
})

describe('what flights say of a pack', () => {
  it('its usable charge: what was used over the share used, as unsure as both', () => {
    const learnt = usableByFlight('LiPo', 1, rested(3.74), { mah: 661.3, uMah: 9.9 })!
    expect(learnt.value).toBeCloseTo(661.3 / 0.775, 9)
    expect(learnt.u).toBeCloseTo(learnt.value * Math.hypot(9.9 / 661.3, 0.05 / 0.775), 6)
    expect(usableByFlight('LiPo', 1, rested(4), { mah: 200, uMah: 3 })).toBeNull()
    expect(usableByFlight('LiPo', 1, rested(3.6), { mah: 0, uMah: 0 })).toBeNull()
  })
  it('the middle of the last five, unsure by half of the range between the quartiles', () => {
    const say = (...values: number[]) => lastFiveOf(values.map(value => ({ value, u: 7, flights: 1 })))
    expect(say()).toBeNull()
    expect(say(840)).toEqual({ value: 840, u: 7, flights: 1 })
    expect(say(10, 20, 800, 840, 820, 830, 810)).toEqual({ value: 820, u: 10, flights: 5 })
    expect(say(800, 820)).toEqual({ value: 810, u: 5, flights: 2 })
  })
})

describe('the mean power of a flight', () => {
  it('4S 850 mAh, 35.3 mΩ, from full to 22 % in 228 s: 160.2968 W', () => {
    expect(meanPowerW(pack, 1, 0.22, 228)).toBeCloseTo(160.2968, 4)
  })
  it('is the power whose discharge takes as long, on any pack', () => {
    let found = 0
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 6 }),
        fc.double({ min: 0, max: 15, noNaN: true }),
        fc.double({ min: 0.05, max: 0.8, noNaN: true }),
        fc.double({ min: 60, max: 1500, noNaN: true }),
        (cells, cellResistanceMohm, toCharge, seconds) => {
          const one: PackModel = { cells, chemistry: 'LiPo', capacityMah: 850, cellResistanceMohm }
          const powerW = meanPowerW(one, 1, toCharge, seconds)
          if (powerW === null) return
          found++
          const flown = discharge(one, { powerW, startCharge: 1, cutOffCellV: 0, reserve: toCharge })
          expect(flown.timeS).toBeCloseTo(seconds, 4)
        },
      ),
    )
    expect(found).toBeGreaterThan(50)
  })
  it('is none where even the most the pack can give takes longer', () => {
    const weak: PackModel = { ...pack, cellResistanceMohm: 100 }
    const most = (4 * openCircuitV('LiPo', 0.22)) ** 2 / (4 * 0.4)
    const fastest = discharge(weak, { powerW: most * (1 - 1e-9), startCharge: 1, cutOffCellV: 0, reserve: 0.22 }).timeS
    expect(meanPowerW(weak, 1, 0.22, fastest * 0.99)).toBeNull()
    expect(meanPowerW(weak, 1, 0.22, fastest * 1.01)).not.toBeNull()
  })
  it.each([0, -1, NaN, Infinity])('%s seconds are refused', seconds => {
    expect(() => meanPowerW(pack, 1, 0.2, seconds)).toThrow()
  })
  it('a charge that rises is refused', () => {
    expect(() => meanPowerW(pack, 0.2, 0.2, 100)).toThrow()
    expect(() => meanPowerW(pack, 1, -0.1, 100)).toThrow()
  })
})

const avionicsW = 9
const idealW = 17.07988
const flight = (id: string, lnKappa: number, more: Partial<FlownFlight> = {}): FlownFlight => ({
  id,
  at: id,
  buildId: 'b',
  drive: 'd',
  style: 'freestyle',
  efficiency: 0.38,
  idealW,
  avionicsW,
  powerW: avionicsW + idealW * Math.exp(lnKappa),
  uCharge: 0,
  uTime: 0,
  isTakenIn: false,
  ...more,
})
/** A flight with so much of its own uncertainty, whatever its power. */
function withOwn(one: FlownFlight, uOwn: number): FlownFlight {
  const share = Math.sqrt(uOwn ** 2 - uOneFlight ** 2)
  return { ...one, uCharge: (share * (one.powerW! - one.avionicsW)) / one.powerW! }
}
const cruise = { buildId: 'b', drive: 'd', style: 'cruise', efficiency: 0.38 } as const
const freestyle = { ...cruise, style: 'freestyle' } as const

describe('calibration', () => {
  it('before any flight: cruise 1.437588 ± u 0.165969 of the style and 0.127553 of η; freestyle 1.800493', () => {
    const none = new Calibration([])
    expect(none.lnKappa(cruise).value).toBeCloseTo(1.437588, 6)
    expect(none.lnKappa(cruise).u).toBeCloseTo(Math.hypot(0.165969, 0.127553), 6)
    expect(none.lnKappa(freestyle).value).toBeCloseTo(1.800493, 6)
    expect(none.lnKappa(freestyle).u).toBeCloseTo(Math.hypot(0.161361, 0.127553), 6)
  })
  it('three freestyle flights: 2.118852 ± u 0.088581, and cruise 1.560017 ± u 0.196772', () => {
    const y = Math.log((160.2968 - avionicsW) / idealW)
    expect(y).toBeCloseTo(2.181342, 6)
    const told = new Calibration([
      withOwn(flight('1', y), 0.17),
      withOwn(flight('2', y + 0.08), 0.17),
      withOwn(flight('3', y - 0.05), 0.17),
    ])
    expect(told.held).toEqual([])
    expect(told.lnKappa(freestyle).value).toBeCloseTo(2.118852, 6)
    expect(told.lnKappa(freestyle).u).toBeCloseTo(0.088581, 6)
    expect(told.lnKappa(cruise).value).toBeCloseTo(1.560017, 6)
    expect(told.lnKappa(cruise).u).toBeCloseTo(0.196772, 6)
    expect(told.restsOn(cruise)).toBe(3)
    expect(told.lnKappa(freestyle, true)).toEqual(new Calibration([]).lnKappa(freestyle))
  })
  it('a new drive on the same craft takes over half of the shift, and another craft what the style says', () => {
    const prior = new Calibration([]).lnKappa({ ...freestyle, style: 'hover' }).value
    const told = new Calibration(
      Array.from({ length: 8 }, (_, i) => flight(String(i), prior + 0.2, { style: 'hover' })),
    )
    const shift = (more: object) => told.lnKappa({ ...freestyle, style: 'hover', ...more }).value - prior
    expect(shift({ drive: 'other' }) / shift({})).toBeCloseTo(0.5, 9)
    expect(shift({ buildId: 'other' })).toBe(0)
    const race = new Calibration([flight('1', 2.4), flight('2', 2.4)])
    const before = new Calibration([])
    const other = { ...freestyle, buildId: 'other' }
    expect(race.lnKappa(other).value).toBeGreaterThan(before.lnKappa(other).value)
    expect(race.lnKappa(other).u).toBeLessThan(before.lnKappa(other).u)
  })
  it('the difference of two drives leaves out what they share, and narrows only with flights on both', () => {
    const other = { ...freestyle, drive: 'other' }
    const half = 0.127553 / Math.SQRT2
    const none = new Calibration([]).taught
    expect(none.difference(freestyle, freestyle)).toEqual({ value: 0, u: 0 })
    expect(none.difference(other, freestyle).u).toBeCloseTo(half * Math.SQRT2, 6)
    // Flights on one of them: the other follows by half, and what is left of its own is as large as before.
    const one = new Calibration([1, 2, 3, 4].map(n => flight(`a${n}`, 2.1))).taught
    expect(one.difference(other, freestyle).value).toBeLessThan(0)
    expect(one.difference(other, freestyle).u).toBeGreaterThan(half)
    const both = new Calibration([
      ...[1, 2, 3, 4].map(n => flight(`a${n}`, 2.1)),
      ...[1, 2, 3, 4].map(n => flight(`b${n}`, 2.3, { drive: 'other' })),
    ])
    expect(both.held).toEqual([])
    const { value, u } = both.taught.difference(other, freestyle)
    expect(value).toBeGreaterThan(0.08)
    expect(value).toBeLessThan(0.2)
    expect(u).toBeLessThan(one.difference(other, freestyle).u)
    expect(both.taught.difference(freestyle, other).value).toBeCloseTo(-value, 12)
    expect([both.taught.flownOn(freestyle), both.taught.flownOn(other)]).toEqual([4, 4])
    expect([both.taught.restsOn(cruise), both.taught.restsOnOthers(freestyle)]).toEqual([8, 0])
    expect(both.taught.restsOnOthers({ buildId: 'else', style: 'freestyle' })).toBe(8)
    expect(both.taught.restsOnOthers({ buildId: 'else', style: 'cruise' })).toBe(0)
    expect(both.taught.restsOnOthers({ buildId: 'else', style: 'hover' })).toBe(0)
  })
  it('keeps what was expected of each flight before it came: of the first, what was known before any', () => {
    const told = new Calibration([flight('1', 2.0), flight('2', 2.05), flight('3', 2.02)])
    const prior = new Calibration([]).lnKappa(freestyle)
    expect(told.asked.get('1')!.before.value).toBeCloseTo(prior.value, 12)
    expect(told.asked.get('1')!.before.u).toBeCloseTo(prior.u, 12)
    const [first, second, third] = ['1', '2', '3'].map(id => told.asked.get(id)!.before)
    expect(second!.u).toBeLessThan(first!.u)
    expect(third!.u).toBeLessThan(second!.u)
    const two = new Calibration([flight('1', 2.0), flight('2', 2.05)]).lnKappa(freestyle)
    expect(third!.value).toBeCloseTo(two.value, 9)
    expect(third!.u).toBeCloseTo(two.u, 9)
  })
  it('is a dense update with every flight on its own, whatever their order', () => {
    let cases = 0
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            buildId: fc.constantFrom('a', 'b', 'c'),
            drive: fc.constantFrom('d', 'e'),
            style: fc.constantFrom('hover', 'cruise', 'freestyle', 'race'),
            lnKappa: fc.double({ min: 0.8, max: 2.6, noNaN: true }),
            uCharge: fc.double({ min: 0, max: 0.2, noNaN: true }),
          }),
          { minLength: 1, maxLength: 12 },
        ),
        fc.integer(),
        (list, seed) => {
          const flights = list.map(({ lnKappa, ...more }, i) =>
            flight(String(i).padStart(2, '0'), lnKappa, { ...more, isTakenIn: true } as Partial<FlownFlight>),
          )
          const shuffled = [...flights].sort((a, b) => mixed(a.id, seed) - mixed(b.id, seed))
          const [told, again] = [new Calibration(flights), new Calibration(shuffled)]
          const dense = denseOf(flights)
          for (const buildId of ['a', 'b', 'new'])
            for (const style of ['hover', 'cruise', 'race'] as const) {
              const flying = { buildId, drive: 'd', style, efficiency: 0.38 }
              const { value, u } = told.lnKappa(flying)
              expect(again.lnKappa(flying)).toEqual({ value, u })
              const [mean, variance] = dense(flying)
              expect(value).toBeCloseTo(mean, 9)
              expect(u).toBeCloseTo(Math.sqrt(variance), 9)
            }
          cases++
        },
      ),
      { numRuns: 300 },
    )
    expect(cases).toBe(300)
  })
  it('holds what does not agree, in the order flown, and says by how much', () => {
    const y = new Calibration([]).lnKappa(freestyle).value
    const good = Array.from({ length: 5 }, (_, i) => flight(`0${i}`, y))
    const wrong = flight('05', y + 0.5)
    const told = new Calibration([wrong, ...good])
    expect(told.held).toEqual([{ id: '05', why: 'does not agree', z: expect.any(Number) as number }])
    expect(told.held[0]!.z).toBeGreaterThan(2.5)
    expect(told.lnKappa(freestyle)).toEqual(new Calibration(good).lnKappa(freestyle))
    expect(new Calibration([{ ...wrong, isTakenIn: true }, ...good]).held).toEqual([])
    // Flown first, it is within what such a craft may ask for; then it is the others that are asked.
    expect(new Calibration([{ ...wrong, at: '' }, ...good]).held.map(({ id }) => id)).not.toContain('05')
  })
  it('offers three held flights that agree among themselves, and not three that do not', () => {
    const y = new Calibration([]).lnKappa(freestyle).value
    const good = Array.from({ length: 6 }, (_, i) => flight(`0${i}`, y))
    const later = (...off: number[]) => off.map((by, i) => flight(`1${i}`, y + by))
    expect(new Calibration([...good, ...later(0.9, 0.95, 0.92)]).offered).toEqual([['10', '11', '12']])
    expect(new Calibration([...good, ...later(0.9, 0.95)]).offered).toEqual([])
    expect(new Calibration([...good, ...later(0.9, -0.9, 2)]).offered).toEqual([])
  })
  it('holds a flight without a power, or with less than its devices draw', () => {
    const told = new Calibration([flight('1', 1, { powerW: null }), flight('2', 1, { powerW: 8 })])
    expect(told.held).toEqual([
      { id: '1', why: 'no power fits', z: null },
      { id: '2', why: 'less than the devices', z: null },
    ])
    expect(told.restsOn(cruise)).toBe(0)
  })
  it('refuses an efficiency that is none, and figures that are not finite', () => {
    expect(() => new Calibration([]).lnKappa({ ...cruise, efficiency: 0 })).toThrow()
    expect(() => new Calibration([flight('1', 1, { idealW: NaN })])).toThrow()
  })
})

describe('the chance of a minutes goal', () => {
  const of = { startCharge: 1, cutOffCellV: 3.5, reserve: 0.2 }
  const told = new Calibration([]).lnKappa(freestyle)
  it('is even for what the middle of the forecast lasts, and falls with the goal', () => {
    const middle = powerAtW(told, idealW, avionicsW)
    const minutes = discharge(pack, { ...of, powerW: middle }).timeS / 60
    const chance = (goal: number) => chanceOfGoal(told, idealW, avionicsW, powerThatLastsW(pack, of, goal * 60))
    expect(chance(minutes)).toBeCloseTo(0.5, 6)
    const chances = [0.5, 0.8, 1, 1.2, 2].map(share => chance(share * minutes))
    expect(chances).toEqual([...chances].sort((a, b) => b - a))
    expect(chance(1e6)).toBe(0)
  })
  it('is the share of the normal law between: one uncertainty harder is 84 %', () => {
    const easier = powerAtW(told, idealW, avionicsW, 1)
    expect(chanceOfGoal(told, idealW, avionicsW, easier)).toBeCloseTo(0.8413, 4)
    expect(chanceOfGoal(told, idealW, avionicsW, avionicsW)).toBe(0)
  })
  it('a goal that even the devices alone drain the pack before is not reached', () => {
    const lasts = powerThatLastsW(pack, of, 24 * 3600)
    expect(lasts).toBeLessThan(avionicsW)
    expect(lasts).toBeGreaterThan(0)
    expect(() => powerThatLastsW(pack, of, 0)).toThrow()
  })
})

/** A number of its own for each word and seed, to shuffle by. */
function mixed(word: string, seed: number): number {
  let hash = seed | 0
  for (const letter of word) hash = Math.imul(hash ^ letter.charCodeAt(0), 0x9e3779b1)
  return hash
}

/** The same update written out with every flight as a row of its own, solved by elimination. */
function denseOf(flights: readonly FlownFlight[]) {
  const q = coverageFactor95
  type Of = Pick<FlownFlight, 'buildId' | 'drive' | 'style' | 'efficiency'>
  const mean = ({ style, efficiency }: Of) => Math.log(styleFactors[style].usual / efficiency)
  const common = (a: Of, b: Of) => {
    const eta = (efficiencySpread / q) ** 2 / 2
    const { hard, gentle } = styleFactors[a.style]
    return (
      (a.buildId === b.buildId ? eta : 0) +
      (a.buildId === b.buildId && a.drive === b.drive ? eta : 0) +
      (a.style === b.style ? (Math.log(hard / gentle) / (2 * q)) ** 2 : 0)
    )
  }
  const own = (one: FlownFlight) => 0.15 ** 2 + ((one.uCharge * one.powerW!) / (one.powerW! - one.avionicsW)) ** 2
  const rows = flights.map((a, i) => flights.map((b, k) => common(a, b) + (i === k ? own(a) : 0)))
  const off = flights.map(one => Math.log((one.powerW! - one.avionicsW) / one.idealW) - mean(one))
  return (asked: Of): readonly [number, number] => {
    const c = flights.map(one => common(asked, one))
    const gains = eliminated(rows, c)
    const sum = (values: readonly number[]) => gains.reduce((total, gain, i) => total + gain * values[i]!, 0)
    return [mean(asked) + sum(off), common(asked, asked) - sum(c)]
  }
}
function eliminated(matrix: readonly (readonly number[])[], right: readonly number[]): number[] {
  const rows = matrix.map((row, i) => [...row, right[i]!])
  const n = rows.length
  for (let i = 0; i < n; i++) {
    for (let k = i + 1; k < n; k++) {
      const factor = rows[k]![i]! / rows[i]![i]!
      for (let j = i; j <= n; j++) rows[k]![j]! -= factor * rows[i]![j]!
    }
  }
  const x = new Array<number>(n).fill(0)
  for (let i = n - 1; i >= 0; i--) {
    let sum = rows[i]![n]!
    for (let j = i + 1; j < n; j++) sum -= rows[i]![j]! * x[j]!
    x[i] = sum / rows[i]![i]!
  }
  return x
}
