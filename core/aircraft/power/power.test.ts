import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { chemistries } from '../../model/ledger'
import {
  airDensity,
  assumedCellResistanceMohm,
  cellCurve,
  chargeAtV,
  discharge,
  dischargePoints,
  discAreaM2,
  idealHoverW,
  meanFlightW,
  openCircuitV,
  warningAfterS,
  type DischargeOf,
  type PackModel,
} from './index'

const example: PackModel = { cells: 4, chemistry: 'LiPo', capacityMah: 720, cellResistanceMohm: 9 }
const asked: DischargeOf = { powerW: 71.2396, startCharge: 1, cutOffCellV: 3.5, reserve: 0 }

/** The same physics stepped in time, with nothing clever. */
function stepped(pack: PackModel, of: DischargeOf, dtS: number): number {
  const ohm = (pack.cells * pack.cellResistanceMohm) / 1000
  let [charge, timeS] = [of.startCharge, 0]
  for (;;) {
    const openV = pack.cells * openCircuitV(pack.chemistry, Math.max(0, charge))
    const inside = openV * openV - 4 * ohm * of.powerW
    if (inside < 0) return timeS
    const volts = (openV + Math.sqrt(inside)) / 2
    if (volts < pack.cells * of.cutOffCellV || charge <= of.reserve || charge <= 0) return timeS
    charge -= ((of.powerW / volts) * dtS) / (pack.capacityMah * 3.6)
    timeS += dtS
  }
}

const packs = fc.record({
  cells: fc.integer({ min: 1, max: 6 }),
  chemistry: fc.constantFrom(...chemistries),
  capacityMah: fc.double({ min: 200, max: 4000, noNaN: true }),
  cellResistanceMohm: fc.double({ min: 0, max: 60, noNaN: true }),
})
const flights = fc.record({
  perCellW: fc.double({ min: 1, max: 40, noNaN: true }),
  startCharge: fc.double({ min: 0.3, max: 1, noNaN: true }),
  cutOffCellV: fc.double({ min: 2.5, max: 3.7, noNaN: true }),
  reserve: fc.double({ min: 0, max: 0.3, noNaN: true }),
})
const made = (
  pack: PackModel,
  { perCellW, ...of }: { perCellW: number; startCharge: number; cutOffCellV: number; reserve: number },
): DischargeOf => ({ ...of, powerW: perCellW * pack.cells })

describe('hover power', () => {
  it('gives the worked example to its digits', () => {
    const idealW = idealHoverW(240, discAreaM2(4, 76.2), 1.225)
    expect(idealW).toBeCloseTo(17.0799, 4)
    expect(meanFlightW({ idealW, style: 1, efficiency: 0.35, avionicsW: 6 })).toBeCloseTo(54.8, 3)
    expect(meanFlightW({ idealW, style: 1, efficiency: 0.35, avionicsW: 0 })).toBeCloseTo(idealW / 0.35, 12)
    expect(airDensity(1500, 5)).toBeCloseTo(1.05903, 5)
    expect(airDensity(0, 15)).toBeCloseTo(1.225, 3)
  })
  it('refuses what cannot be', () => {
    expect(() => idealHoverW(240, 0, 1.2)).toThrow(/areaM2/)
    expect(() => airDensity(20_000, 5)).toThrow(/altitudeM/)
    expect(() => meanFlightW({ idealW: 17, style: 1, efficiency: 1.2, avionicsW: 0 })).toThrow(/efficiency/)
  })
})

describe('cells', () => {
  it('go from volts to charge and back', () => {
    fc.assert(
      fc.property(fc.constantFrom(...chemistries), fc.double({ min: 0, max: 1, noNaN: true }), (chemistry, charge) => {
        expect(chargeAtV(chemistry, openCircuitV(chemistry, charge))).toBeCloseTo(charge, 9)
      }),
    )
    expect(chargeAtV('LiPo', 5)).toBe(1)
    expect(chargeAtV('LiPo', 2)).toBe(0)
  })
  it('have volts that rise with the charge throughout', () => {
    for (const chemistry of chemistries)
      cellCurve(chemistry)
        .slice(1)
        .forEach((point, i) => expect(point.openV).toBeGreaterThan(cellCurve(chemistry)[i]!.openV))
  })
  it('are assumed to resist by their capacity', () => {
    expect(assumedCellResistanceMohm('LiPo', 750)).toBeCloseTo(10, 12)
    expect(assumedCellResistanceMohm('Li-ion', 3000)).toBeCloseTo(25, 12)
    expect(() => assumedCellResistanceMohm('LiPo', 0)).toThrow(/capacityMah/)
  })
})

describe('discharge', () => {
  it('gives the worked example to its digits', () => {
    const flown = discharge(example, asked)
    expect(flown.timeS).toBeCloseTo(535.56, 2)
    expect(flown.endCharge * 100).toBeCloseTo(4.06, 2)
    expect(flown.endedBy).toBe('cut-off')
    expect(flown.endV).toBeCloseTo(14, 9)
  })
  it('closes its energy balance to a thousandth and changes by less when its steps are halved', () => {
    fc.assert(
      fc.property(packs, flights, (pack, flight) => {
        const of = made(pack, flight)
        const flown = discharge(pack, of)
        if (flown.timeS < 1) return
        expect(Math.abs(flown.cellsJ - flown.deliveredJ - flown.heatJ)).toBeLessThan(1e-3 * flown.cellsJ)
        expect(Math.abs(discharge(pack, of, 12).timeS - flown.timeS)).toBeLessThan(1e-3 * flown.timeS)
      }),
      { numRuns: 300 },
    )
  })
  it('agrees with small steps of time', () => {
    fc.assert(
      fc.property(packs, flights, (pack, flight) => {
        const of = made(pack, flight)
        const flown = discharge(pack, of)
        if (flown.timeS < 30) return
        expect(Math.abs(stepped(pack, of, 0.02) - flown.timeS)).toBeLessThan(0.2 + 2e-3 * flown.timeS)
      }),
      { numRuns: 25 },
    )
  })
  it('without resistance gives every joule that is in the cells', () => {
    const flown = discharge({ ...example, cellResistanceMohm: 0 }, { ...asked, cutOffCellV: 0 })
    expect(flown.endedBy).toBe('empty')
    expect(flown.heatJ).toBe(0)
    expect(flown.timeS * asked.powerW).toBeCloseTo(flown.cellsJ, 6)
  })
  it('of a pack without bound lasts in proportion to its capacity, as long as its resistance stays', () => {
    const big = (capacityMah: number) => discharge({ ...example, capacityMah }, asked).timeS / capacityMah
    expect(big(1e9)).toBeCloseTo(big(720), 9)
    const easy = { ...asked, powerW: 1e-6 }
    expect(discharge(example, easy).timeS * easy.powerW).toBeCloseTo(
      discharge({ ...example, cellResistanceMohm: 0 }, easy).timeS * easy.powerW,
      0,
    )
  })
  it('says so when the pack cannot give the power, instead of giving minutes', () => {
    const flown = discharge({ ...example, cellResistanceMohm: 200 }, { ...asked, powerW: 400 })
    expect(flown).toMatchObject({ timeS: 0, endedBy: 'collapse', startV: 0 })
    expect(discharge(example, { ...asked, cutOffCellV: 4.19 })).toMatchObject({ timeS: 0, endedBy: 'cut-off' })
    expect(discharge(example, { ...asked, reserve: 1 })).toMatchObject({ timeS: 0, endedBy: 'reserve' })
    expect(discharge(example, { ...asked, startCharge: 0 }).timeS).toBe(0)
  })
  it('ends by the first of its ends, collapse before cut-off before reserve', () => {
    expect(discharge(example, { ...asked, reserve: 0.2 })).toMatchObject({ endedBy: 'reserve', endCharge: 0.2 })
    expect(discharge({ ...example, cellResistanceMohm: 120 }, { ...asked, powerW: 100, cutOffCellV: 1 }).endedBy).toBe(
      'collapse',
    )
  })
  it('never lasts longer with more power, more resistance, more reserve', () => {
    fc.assert(
      fc.property(packs, flights, fc.double({ min: 1, max: 2, noNaN: true }), (pack, flight, more) => {
        const of = made(pack, flight)
        const timeS = discharge(pack, of).timeS + 1e-9
        expect(discharge(pack, { ...of, powerW: of.powerW * more }).timeS).toBeLessThanOrEqual(timeS)
        expect(
          discharge({ ...pack, cellResistanceMohm: pack.cellResistanceMohm * more }, of).timeS,
        ).toBeLessThanOrEqual(timeS)
        expect(discharge(pack, { ...of, reserve: Math.min(1, of.reserve * more) }).timeS).toBeLessThanOrEqual(timeS)
      }),
    )
  })
  it('of two thirds of a charge differs from a full one as the curve says', () => {
    const pack: PackModel = { cells: 1, chemistry: 'LiHV', capacityMah: 300, cellResistanceMohm: 0 }
    const of = { powerW: 3, startCharge: 1, cutOffCellV: 0, reserve: 0 }
    const missingJ =
      300 *
      3.6 *
      [
        [2 / 3, 0.7],
        [0.7, 0.8],
        [0.8, 0.9],
        [0.9, 1],
      ].reduce(
        (sum, [low, high]) => sum + ((high! - low!) * (openCircuitV('LiHV', low!) + openCircuitV('LiHV', high!))) / 2,
        0,
      )
    const lost = discharge(pack, of).timeS - discharge(pack, { ...of, startCharge: 2 / 3 }).timeS
    expect(lost).toBeCloseTo(missingJ / 3, 6)
    expect(discharge(pack, { ...of, startCharge: 2 / 3 }).startV).toBeCloseTo(openCircuitV('LiHV', 2 / 3), 9)
  })
  it('drawn in time ends where the sum ends and warns on the way', () => {
    const points = dischargePoints(example, asked)
    expect(points.at(-1)!.timeS).toBeCloseTo(discharge(example, asked).timeS, 2)
    expect(points.at(-1)!.packV).toBeCloseTo(14, 6)
    const warned = warningAfterS(points, 4, 3.6)!
    expect(warned).toBeGreaterThan(0.8 * points.at(-1)!.timeS)
    expect(warned).toBeLessThan(points.at(-1)!.timeS)
    expect(warningAfterS(points, 4, 3)).toBeNull()
    expect(warningAfterS(points, 4, 4.3)).toBe(0)
  })
  it('refuses what cannot be, by its field', () => {
    expect(() => discharge({ ...example, cells: 0 }, asked)).toThrow(/cells/)
    expect(() => discharge(example, { ...asked, reserve: 1.2 })).toThrow(/reserve/)
    expect(() => discharge(example, { ...asked, powerW: Number.NaN })).toThrow(/powerW/)
    expect(() => discharge({ ...example, capacityMah: Infinity }, asked)).toThrow(/capacityMah/)
  })
})
