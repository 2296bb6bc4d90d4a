import { coverageFactor95 } from '../../maths/numbers'
import { assumedResistanceSpread, discharge, type PackModel } from '../power'
import { Calibration, uOneFlight, type FlownFlight, type HeldFlight, type LnKappa } from './calibration'
import { chargeUsed, type ChargeUsed, type Landing } from './charge-used'
import type { Flight, FlownCraft, FlownPack } from './flight'
import { byTimeFlown } from './make'
import { meanPowerW } from './mean-power'
import { lastFiveOf, usableByFlight, type LearntFigure } from './pack-learnt'

/** What the flights of one pack say of it: charge from full to empty, mAh, and resistance of the whole pack, milliohms. */
export interface PackLearnt {
  readonly usable: LearntFigure | null
  readonly resistance: LearntFigure | null
  /** Resistance by its first flights, to see it age; null while there are no more than the last five. */
  readonly resistanceAtFirst: LearntFigure | null
}
export const nothingLearnt: PackLearnt = { usable: null, resistance: null, resistanceAtFirst: null }

/** How well a measured resistance is that of the pack in the air, as a share; one standard uncertainty. Our choice. */
const uMeasuredResistance = 0.05
/** How well take-off and landing are timed, seconds; one standard uncertainty. Our choice. */
const uTimedS = 2

/** A flight with what it used and the mean power that follows; null where nothing can be told. */
export interface FlightFigures {
  readonly used: ChargeUsed | null
  /** The charge it was landed with, 0 to 1, of what the pack holds as far as flights say. */
  readonly left: number | null
  readonly powerW: number | null
}

/** The pack of a flight, with what flights have taught of it in place of what was assumed. */
export function packAsLearnt(pack: FlownPack, learnt: PackLearnt): PackModel {
  const { cells, chemistry, capacityMah, cellMohm } = pack
  return {
    cells,
    chemistry,
    capacityMah: learnt.usable?.value ?? capacityMah,
    cellResistanceMohm: learnt.resistance ? learnt.resistance.value / cells : cellMohm,
  }
}

function uCellMohm({ cells, cellMohm, resistanceFrom }: FlownPack, { resistance }: PackLearnt): number {
  if (resistance) return resistance.u / cells
  return cellMohm * (resistanceFrom === 'measured' ? uMeasuredResistance : assumedResistanceSpread / coverageFactor95)
}

function landingOf({ landing }: Flight, pack: FlownPack, learnt: PackLearnt): Landing | null {
  if (!landing) return null
  const { volts, of, loadA, isFresh } = landing
  const { cellResistanceMohm } = packAsLearnt(pack, learnt)
  return {
    cellV: of === 'cell' ? volts : volts / pack.cells,
    load: loadA === null ? null : { amps: loadA, cellMohm: cellResistanceMohm, uCellMohm: uCellMohm(pack, learnt) },
    isFresh,
  }
}

/** The last figures of a flight, and what they were worked out from. */
interface Known {
  readonly key: string
  readonly figures: FlightFigures
}

/**
 * All flights worked out together: charge, power, what they say of the packs, and the calibration. Kept between changes, it
 * works a flight out anew only where something it rests on has changed.
 */
export class FlightSums {
  private readonly known = new WeakMap<Flight, Known>()

  workOut(flights: readonly Flight[]): FlightsWorkedOut {
    const inOrder = [...flights].sort(byTimeFlown)
    const packs = new Map<string, PackLearnt>()
    const spent = new Set<string>()
    for (const [key, ofPack] of byPack(inOrder)) packs.set(key, learntBy(ofPack, spent))
    const figures = new Map(
      inOrder.map(flight => [flight.id, this.figuresOf(flight, packs, spent.has(flight.id))] as const),
    )
    const calibration = new Calibration(inOrder.flatMap(flight => flownOf(flight, figures.get(flight.id)!) ?? []))
    return { figures, packs, calibration }
  }

  private figuresOf(flight: Flight, packs: ReadonlyMap<string, PackLearnt>, isLandingSpent: boolean): FlightFigures {
    const { pack } = flight.snapshot
    if (!pack) return { used: null, left: null, powerW: null }
    const learnt = packs.get(pack.key)!
    const key = [
      learnt.usable?.value,
      learnt.usable?.u,
      learnt.resistance?.value,
      learnt.resistance?.u,
      isLandingSpent,
    ].join()
    const before = this.known.get(flight)
    if (before?.key === key) return before.figures
    const figures = figuresFrom(flight, pack, learnt, isLandingSpent)
    this.known.set(flight, { key, figures })
    return figures
  }
}

export interface FlightsWorkedOut {
  readonly figures: ReadonlyMap<string, FlightFigures>
  readonly packs: ReadonlyMap<string, PackLearnt>
  readonly calibration: Calibration
}

function byPack(flights: readonly Flight[]): Map<string, Flight[]> {
  const packs = new Map<string, Flight[]>()
  for (const flight of flights) {
    const { pack } = flight.snapshot
    if (!pack) continue
    const met = packs.get(pack.key)
    if (met) met.push(flight)
    else packs.set(pack.key, [flight])
  }
  return packs
}

/** What the flights of one pack, in the order flown, say of it; those whose landing volts it rests on join `spent`. */
function learntBy(flights: readonly Flight[], spent: Set<string>): PackLearnt {
  const byLog = flights.flatMap(({ resistance }) =>
    resistance ? [{ value: resistance.mohm, u: resistance.uMohm, flights: 1 }] : [],
  )
  const resistance = lastFiveOf(byLog)
  const withResistance: PackLearnt = { ...nothingLearnt, resistance }
  const usable = flights.flatMap(flight => {
    const pack = flight.snapshot.pack!
    const landing = landingOf(flight, pack, withResistance)
    if (!landing || (flight.putBackMah === null && flight.loggedMah === null)) return []
    const full = { mah: pack.capacityMah, uMah: 0 }
    const used = chargeUsed(pack, full, pack.startCharge, { ...flight, landing: null, isLandingSpent: true })
    const learnt = usableByFlight(pack.chemistry, pack.startCharge, landing, used)
    if (learnt) spent.add(flight.id)
    return learnt ?? []
  })
  return {
    usable: lastFiveOf(usable),
    resistance,
    resistanceAtFirst: byLog.length > 5 ? lastFiveOf(byLog.slice(0, 5)) : null,
  }
}

function figuresFrom(flight: Flight, pack: FlownPack, learnt: PackLearnt, isLandingSpent: boolean): FlightFigures {
  const model = packAsLearnt(pack, learnt)
  const used = chargeUsed(pack, { mah: model.capacityMah, uMah: learnt.usable?.u ?? 0 }, pack.startCharge, {
    ...flight,
    landing: landingOf(flight, pack, learnt),
    isLandingSpent,
  })
  const left = Math.max(0, pack.startCharge - used.mah / model.capacityMah)
  const powerW = left < pack.startCharge ? meanPowerW(model, pack.startCharge, left, flight.durationS) : null
  return { used, left, powerW }
}

function flownOf(flight: Flight, { used, powerW }: FlightFigures): FlownFlight | null {
  const { craft } = flight.snapshot
  if (!craft || !used) return null
  return {
    id: flight.id,
    at: flight.flownAt,
    buildId: flight.buildId,
    drive: craft.drive,
    style: flight.style,
    efficiency: craft.efficiency,
    idealW: craft.idealW,
    avionicsW: craft.avionicsW,
    powerW,
    uCharge: used.mah > 0 ? used.uMah / used.mah : 1,
    uTime: Math.hypot(uTimedS, flight.stepS / Math.sqrt(12)) / flight.durationS,
    isTakenIn: flight.isTakenIn,
  }
}

/** Minutes at one power until the flight is to end, its reserve kept. */
function minutesAt(pack: FlownPack, craft: FlownCraft, learnt: PackLearnt, powerW: number): number {
  return (
    discharge(packAsLearnt(pack, learnt), {
      powerW,
      startCharge: pack.startCharge,
      cutOffCellV: craft.endCellV,
      reserve: craft.reservePercent / 100,
    }).timeS / 60
  )
}

/**
 * Minutes that were to be expected: the middle, how well that is known at 95 % (`sureLow` to `sureHigh`), and the wider band
 * one flight lies in 95 times of 100.
 */
export interface MinutesBand {
  readonly low: number
  readonly sureLow: number
  readonly middle: number
  readonly sureHigh: number
  readonly high: number
}

/** Minutes to be expected of a pack on a craft, from what is known of the power. */
export function minutesBandOf(pack: FlownPack, craft: FlownCraft, learnt: PackLearnt, lnKappa: LnKappa): MinutesBand {
  const { idealW, avionicsW } = craft
  const at = (u: number) => minutesAt(pack, craft, learnt, avionicsW + idealW * Math.exp(lnKappa.value + u))
  const [sure, one] = [lnKappa.u, Math.hypot(lnKappa.u, uOneFlight)].map(u => coverageFactor95 * u) as [number, number]
  return { low: at(one), sureLow: at(sure), middle: at(0), sureHigh: at(-sure), high: at(-one) }
}

/** A flight as it is shown: what it used, what it comes to with the reserve kept, and what was expected of it. */
export interface WorkedFlight extends FlightFigures {
  readonly id: string
  /** Minutes at its own power until the reserve is reached. */
  readonly toReserve: number | null
  readonly expected: MinutesBand | null
  /** Standard uncertainties it is off; above 0 it asked for more power than expected. */
  readonly z: number | null
  readonly held: HeldFlight['why'] | null
}

/** Flights as they are shown, by what all flights say. */
export function workedFlights(
  flights: readonly Flight[],
  { figures, packs, calibration }: FlightsWorkedOut,
): WorkedFlight[] {
  const held = new Map(calibration.held.map(one => [one.id, one.why]))
  return flights.map(({ id, snapshot: { pack, craft } }) => {
    const { used, left, powerW } = figures.get(id)!
    const asked = calibration.asked.get(id)
    const learnt = pack ? packs.get(pack.key)! : nothingLearnt
    return {
      id,
      used,
      left,
      powerW,
      toReserve: pack && craft && powerW !== null ? minutesAt(pack, craft, learnt, powerW) : null,
      expected: pack && craft && asked ? minutesBandOf(pack, craft, learnt, asked.before) : null,
      z: asked?.z ?? null,
      held: held.get(id) ?? null,
    }
  })
}
