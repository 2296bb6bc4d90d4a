import { describe, expect, it } from 'vitest'
import { craftOf, deviceWatts, motorsOn } from '../currents'
import { makeLine, type Line, type PackFacts, type Slot } from '../../model/ledger'
import { airDensity, assumedCellResistanceMohm, blankFlightPlan, discharge, packWh, type FlightPlan } from '../power'
import type { Properties } from '../../model/properties'
import { forecast, landsWeakly } from './index'

/** Sums done anew from the written formulas, with the figures typed here: a constant that moves moves away from these. */
const line = (slot: Slot, properties: Properties | null, more: Partial<Line> = {}) =>
  makeLine({ id: slot, slot, name: slot, properties, ...more })
const facts: PackFacts = { label: 'P', cells: 4, chemistry: 'LiPo', capacityMah: 650, cRating: null, plug: '' }
const pack = (
  more: Partial<PackFacts> = {},
  properties: Properties | null = { resistanceMohm: 10, resistanceFrom: 'measured' },
) => line('pack', properties, { pack: { ...facts, ...more } })
const craftLines = (diameterMm: number, ducted: boolean) => [
  line('frame', ducted ? { ductMm: diameterMm + 2 } : {}),
  line('motor', {}, { quantity: 4 }),
  line('propeller', { diameterMm }, { quantity: 4 }),
]
const rho = airDensity(0, 15)
const hoverW = (massG: number, diameterMm: number, efficiency: number) =>
  ((massG / 1000) * 9.80665) ** 1.5 / Math.sqrt((2 * rho * 4 * Math.PI * (diameterMm / 1000) ** 2) / 4) / efficiency
const plan = (more: Partial<FlightPlan> = {}): FlightPlan => ({
  ...blankFlightPlan,
  altitudeM: 0,
  temperatureC: 15,
  style: 'cruise',
  ...more,
})
function flown(lines: readonly Line[], p: Line, massG: number, how: FlightPlan) {
  const craft = craftOf(lines, p, how)
  if ('missing' in craft) throw new Error(craft.missing)
  return forecast(craft, lines, p, massG, how)
}

describe('minutes by hand', () => {
  it.each([
    [31, true, 0.28],
    [40, true, 0.28],
    [63.5, false, 0.33],
    [69.5, false, 0.33],
    [76.2, false, 0.38],
    [88.9, false, 0.38],
    [94, false, 0.38],
    [101.6, false, 0.45],
    [127, false, 0.45],
  ] as const)('hover of a %s mm prop, ducted %s, at an efficiency of %s', (diameterMm, ducted, efficiency) => {
    expect(flown(craftLines(diameterMm, ducted), pack(), 100, plan()).hoverW).toBeCloseTo(
      hoverW(100, diameterMm, efficiency),
      9,
    )
  })
  it.each([
    ['cruise', 1.6, 1.2, 2.3],
    ['freestyle', 2.3, 1.7, 3.2],
    ['race', 3, 2.2, 4.5],
  ] as const)('%s: its mean power, and a band of style and efficiency together', (style, usual, gentle, hard) => {
    const [lines, p] = [craftLines(76.2, false), pack()]
    const told = flown(lines, p, 180, plan({ style, reservePercent: 0, endCellV: 3.2 }))
    const lift = usual * hoverW(180, 76.2, 0.38)
    expect(told.meanW).toBeCloseTo(lift, 9)
    const minutes = (powerW: number) =>
      discharge(
        { cells: 4, chemistry: 'LiPo', capacityMah: 650, cellResistanceMohm: 10 },
        { powerW, startCharge: 1, cutOffCellV: 3.2, reserve: 0 },
      ).timeS / 60
    const band = (extreme: number, sign: number) =>
      lift * Math.exp(sign * Math.hypot(Math.log(extreme / usual), Math.log(1 / 0.75)))
    expect(told.minutes).toBeCloseTo(minutes(lift), 9)
    expect(told.gentleMinutes).toBeCloseTo(minutes(band(gentle, -1)), 9)
    expect(told.hardMinutes).toBeCloseTo(minutes(band(hard, 1)), 9)
  })
  it('a pack nobody has measured: 7.5 or 75 mΩ at an amp-hour, 40 % either way in the band', () => {
    expect([
      assumedCellResistanceMohm('LiPo', 500),
      assumedCellResistanceMohm('LiHV', 300),
      assumedCellResistanceMohm('Li-ion', 3000),
    ]).toEqual([15, 25, 25])
    const told = flown(craftLines(76.2, false), pack({}, null), 180, plan({ reservePercent: 0, endCellV: 3.2 }))
    const lift = 1.6 * hoverW(180, 76.2, 0.38)
    const minutes = (powerW: number, mohm: number) =>
      discharge(
        { cells: 4, chemistry: 'LiPo', capacityMah: 650, cellResistanceMohm: mohm },
        { powerW, startCharge: 1, cutOffCellV: 3.2, reserve: 0 },
      ).timeS / 60
    const mohm = 7500 / 650
    expect(told.gentleMinutes).toBeCloseTo(
      minutes(lift * Math.exp(-Math.hypot(Math.log(1.2 / 1.6), Math.log(1 / 0.75))), 0.6 * mohm),
      9,
    )
    expect(told.hardMinutes).toBeCloseTo(
      minutes(lift * Math.exp(Math.hypot(Math.log(2.3 / 1.6), Math.log(1 / 0.75))), 1.4 * mohm),
      9,
    )
  })
  it('lands at 3.5 V a cell under load, lithium-ion at 3.0', () => {
    const ends = (chemistry: PackFacts['chemistry'], cutOffCellV: number) => {
      const p = pack({ chemistry, capacityMah: 1200 }, { resistanceMohm: 12, resistanceFrom: 'measured' })
      const told = flown(craftLines(76.2, false), p, 200, plan({ reservePercent: 0 }))
      expect(told.minutes).toBeCloseTo(
        discharge(
          { cells: 4, chemistry, capacityMah: 1200, cellResistanceMohm: 12 },
          { powerW: told.meanW, startCharge: 1, cutOffCellV, reserve: 0 },
        ).timeS / 60,
        9,
      )
      expect(told.endedBy).toBe('cut-off')
    }
    ends('LiPo', 3.5)
    ends('Li-ion', 3)
  })
  it('watt-hours stand on the volts of half a charge', () => {
    // 3.84, 3.87 and 3.70 V in the facts of the three chemistries.
    expect(packWh({ chemistry: 'LiPo', cells: 4, capacityMah: 650 })).toBeCloseTo(0.65 * 4 * 3.84, 2)
    expect(packWh({ chemistry: 'LiHV', cells: 1, capacityMah: 300 })).toBeCloseTo(0.3 * 3.87, 2)
    expect(packWh({ chemistry: 'Li-ion', cells: 4, capacityMah: 3000 })).toBeCloseTo(3 * 4 * 3.7, 2)
  })
})

describe('watts by hand', () => {
  it('devices nobody has said anything of: typical of their slot; said ones through a regulator of 85 %', () => {
    const lines = [
      line('board', { outputs: [{ name: '5 V', volts: 5, amps: 2 }] }),
      line('receiver', {}),
      line('camera', {}),
      line('navigation', { drawA: 0.2 }, { feed: { from: 'board', output: '5 V' } }),
      line('video transmitter', { videoFamily: 'digital' }),
    ]
    const watts = (at: readonly Line[]) =>
      Object.fromEntries(deviceWatts(at, pack()).map(device => [device.lineId, device.watts]))
    expect(watts(lines)).toEqual({
      board: 0.8,
      receiver: 0.3,
      camera: 0.8,
      navigation: expect.closeTo((0.2 * 5) / 0.85, 9),
      'video transmitter': 8,
    })
    expect(watts([line('navigation', {}), line('video transmitter', { videoFamily: 'analogue' })])).toEqual({
      navigation: 0.4,
      'video transmitter': 2.5,
    })
  })
  it.each([
    [2, 0.09],
    [3, 0.11],
    [4, 0.125],
  ] as const)('thrust from kV and a prop of %s blades', (blades, coefficient) => {
    const at = (pitchMm: number | undefined) =>
      motorsOn(
        [
          line('motor', { kv: 3000 }),
          line('propeller', { diameterMm: 76.2, blades, ...(pitchMm === undefined ? {} : { pitchMm }) }),
        ],
        plan(),
      )[0]!.curve!.thrustG(10)
    const newton = coefficient * rho * ((0.7 * 3000 * 10) / 60) ** 2 * 0.0762 ** 4
    expect(at(undefined)).toBeCloseTo((newton / 9.80665) * 1000, 9)
    // By pitch over diameter: 0.3 and the ratio, from 0.6 to 1.3.
    for (const [pitchMm, factor] of [
      [10, 0.6],
      [38.1, 0.8],
      [76.2, 1.3],
      [100, 1.3],
      [60.96, 1.1],
    ] as const)
      expect(at(pitchMm), String(pitchMm)).toBeCloseTo(((factor * newton) / 9.80665) * 1000, 9)
  })
})

it('a flight that ends below one and a half times its weight in thrust lands weakly', () => {
  expect([1.2, 1.49, 1.51, 1.6, 3].map(thrustToWeightEnd => landsWeakly({ thrustToWeightEnd }))).toEqual([
    true,
    true,
    false,
    false,
    false,
  ])
  expect(landsWeakly({ thrustToWeightEnd: null })).toBe(false)
})
