import type { Line } from '../../model/ledger'
import {
  assumedCellResistanceMohm,
  blankFlightPlan,
  chargeAtV,
  openCircuitV,
  plugBearing,
  settledV,
  type FlightPlan,
  type PackModel,
} from '../power'
import { measureOf, textOf } from '../../model/properties'
import { gaugeNear } from '../../mass/mass-calculators'
import { currentFrom, motorsOn, type CurrentFrom, type MotorsOn } from './vehicle-model'
import { deviceWatts } from './devices'

/** Resistance of a pack's cell, milliohms, and where it comes from. */
export function cellResistanceOf(pack: Line): { readonly mohm: number; readonly from: 'measured' | 'assumed' } {
  const said = measureOf(pack, 'resistanceMohm')
  return said === undefined
    ? { mohm: assumedCellResistanceMohm(pack.pack!.chemistry, pack.pack!.capacityMah), from: 'assumed' }
    : { mohm: said, from: textOf(pack, 'resistanceFrom') === 'assumed' ? 'assumed' : 'measured' }
}

/** The charge, 0 to 1, a pack starts a flight with by its own policy: one kept at storage is charged full before. */
export function startChargeOf(pack: Line): number {
  const policy = textOf(pack, 'chargePolicy')
  const { chemistry } = pack.pack!
  const toV = measureOf(pack, 'chargeToV')
  return policy === 'own end voltage' && toV !== undefined ? chargeAtV(chemistry, toV) : 1
}

export function packModelOf(pack: Line): PackModel {
  return {
    cells: pack.pack!.cells,
    chemistry: pack.pack!.chemistry,
    capacityMah: pack.pack!.capacityMah,
    cellResistanceMohm: cellResistanceOf(pack).mohm,
  }
}

/** Full throttle of one loadout: what is drawn, at which volts the pack settles, and what the motors push. */
export interface FullThrottle {
  readonly currentA: number
  readonly packV: number
  /** All motors together, grams; null where nothing is known of their thrust. */
  readonly thrustG: number | null
  /** Amps of one motor of each line. */
  readonly motorsA: readonly {
    readonly lineId: string
    readonly amps: number
    readonly from: CurrentFrom
    readonly atLeast: boolean
  }[]
  /** Thrust is worked out from kV and prop alone: a third either way. */
  readonly rough: boolean
  /** The pack keeps more volts than a bench table was taken at: thrust, or amps, are at least these. */
  readonly atLeast: boolean
  readonly atLeastA: boolean
  /** The least sure of where the motors' amps come from. */
  readonly from: CurrentFrom
}

/**
 * Full throttle at a charge of the pack, 0 to 1. Amps of a motor are those said, else those of its bench table by the volts
 * the pack keeps, else those worked out from kV and prop. Null where the amps of some motors, or the pack, are not known;
 * "collapses" where the pack cannot hold the load at any volts.
 */
export function fullThrottle(
  motors: readonly MotorsOn[],
  besidesW: number,
  pack: PackModel,
  charge: number,
): FullThrottle | 'collapses' | null {
  const froms = motors.map(currentFrom)
  if (motors.length === 0 || froms.includes(null)) return null
  const openV = pack.cells * openCircuitV(pack.chemistry, charge)
  const ampsOf = ({ saidA, curve }: MotorsOn, volts: number) => saidA ?? curve!.amps(volts)
  const ampsAt = (volts: number) => motors.reduce((sum, on) => sum + on.count * ampsOf(on, volts), besidesW / volts)
  const packV = settledV(ampsAt, openV, (pack.cells * pack.cellResistanceMohm) / 1000)
  if (packV === null) return 'collapses'
  const beyond = ({ curve }: MotorsOn) => curve !== null && packV > curve.mostV * (1 + 1e-9)
  const motorsA = motors.map((on, i) => ({
    lineId: on.line.id,
    amps: ampsOf(on, packV),
    from: froms[i]!,
    atLeast: on.saidA === null && beyond(on),
  }))
  return {
    packV,
    currentA: ampsAt(packV),
    motorsA,
    thrustG: motors.every(on => on.curve)
      ? motors.reduce((sum, on) => sum + on.count * on.curve!.thrustG(packV), 0)
      : null,
    rough: motors.some(on => on.curve?.rough),
    atLeast: motors.some(beyond),
    atLeastA: motorsA.some(one => one.atLeast),
    from: (['kV and prop', 'bench table', 'said'] as const).find(from => froms.includes(from))!,
  }
}

/** Full throttle of the lines on board at the start of a flight; null where there is no pack, or the amps are not known. */
export function fullThrottleOf(
  lines: readonly Line[],
  pack: Line | null,
  plan: FlightPlan = blankFlightPlan,
): FullThrottle | 'collapses' | null {
  if (!pack?.pack) return null
  const besidesW = deviceWatts(lines, pack).reduce((sum, device) => sum + device.watts, 0)
  return fullThrottle(motorsOn(lines, plan), besidesW, packModelOf(pack), startChargeOf(pack))
}

/** Something the current goes through, and what it bears: for long, and in bursts (null: nobody has said). */
export interface Bearing {
  readonly part: 'pack' | 'plug' | 'power lead' | 'speed controller'
  /** How it is called in a sentence. */
  readonly name: string
  readonly lineId: string
  readonly continuousA: number
  readonly burstA: number | null
  /** Of one motor's current; else of all the pack gives. */
  readonly ofOneMotor: boolean
}

/** What the current of a loadout goes through, and bears: only what is known. */
export function bearingsOf(lines: readonly Line[], pack: Line): Bearing[] {
  const bearings: Bearing[] = []
  const { cRating, capacityMah, plug, label } = pack.pack!
  if (cRating !== null)
    bearings.push({
      part: 'pack',
      name: `${label} (C × Ah)`,
      lineId: pack.id,
      continuousA: (cRating * capacityMah) / 1000,
      burstA: null,
      ofOneMotor: false,
    })
  const lead = lines.find(line => line.slot === 'power lead')
  const ofLead = lead && plugBearing(textOf(lead, 'plug') ?? '')
  const connector = ofLead ?? plugBearing(plug)
  if (connector)
    bearings.push({
      part: 'plug',
      name: 'the plug',
      lineId: ofLead ? lead.id : pack.id,
      continuousA: connector.continuousA,
      burstA: connector.burstA,
      ofOneMotor: false,
    })
  const awg = lead && measureOf(lead, 'awg')
  const gauge = awg === undefined ? null : gaugeNear(awg)
  if (gauge)
    bearings.push({
      part: 'power lead',
      name: `AWG ${awg}`,
      lineId: lead!.id,
      continuousA: gauge.ratedA,
      burstA: gauge.ratedA * 2,
      ofOneMotor: false,
    })
  for (const driver of driversOf(lines)) {
    const continuousA = measureOf(driver, 'ampsContinuous')
    if (continuousA)
      bearings.push({
        part: 'speed controller',
        name: 'the speed controller',
        lineId: driver.id,
        continuousA,
        burstA: measureOf(driver, 'ampsBurst') ?? null,
        ofOneMotor: true,
      })
  }
  return bearings
}

/** What drives the motors: speed controllers of their own, else the boards. */
export function driversOf(lines: readonly Line[]): Line[] {
  const own = lines.filter(line => line.slot === 'speed controller')
  return own.length > 0 ? own : lines.filter(line => line.slot === 'board')
}
