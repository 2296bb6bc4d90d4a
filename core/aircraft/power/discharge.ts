import { CoreInputError, requireFinite, requireNotNegative } from '../../basics/errors'
import type { Chemistry } from '../../model/data'
import { cellCurve, openCircuitV } from './cells'

/** A pack as the discharge sees it. Resistance of one cell, milliohms. */
export interface PackModel {
  readonly cells: number
  readonly chemistry: Chemistry
  readonly capacityMah: number
  readonly cellResistanceMohm: number
}

/** What is asked of it: a constant power from a starting charge (0 to 1) down to the first of the ends. */
export interface DischargeOf {
  readonly powerW: number
  readonly startCharge: number
  /** Volts per cell under load at which the flight ends. */
  readonly cutOffCellV: number
  /** Share of the capacity that stays in the pack, 0 to 1. */
  readonly reserve: number
}

/** Why a discharge ends, in the order that decides when two meet. */
export const endings = ['collapse', 'cut-off', 'reserve', 'empty'] as const
export type Ending = (typeof endings)[number]

export interface Discharge {
  readonly timeS: number
  readonly endedBy: Ending
  readonly endCharge: number
  /** Volts of the pack under load at start and end; 0 where it cannot give the power. */
  readonly startV: number
  readonly endV: number
  readonly peakA: number
  readonly consumedMah: number
  /** What left the cells, what arrived, what warmed the pack. */
  readonly cellsJ: number
  readonly deliveredJ: number
  readonly heatJ: number
}

/** One moment of a discharge. */
export interface DischargePoint {
  readonly timeS: number
  readonly charge: number
  readonly packV: number
  readonly currentA: number
  readonly consumedMah: number
}

/** Volts of a pack of `openV` and `resistanceOhm` that gives a power: the upper of the two, or null where it cannot. */
export function loadedV(openV: number, resistanceOhm: number, powerW: number): number | null {
  const inside = openV * openV - 4 * resistanceOhm * powerW
  return inside < 0 ? null : (openV + Math.sqrt(inside)) / 2
}

const [near, far] = [(1 - 1 / Math.sqrt(3)) / 2, (1 + 1 / Math.sqrt(3)) / 2]
/** Substeps of each straight piece of the cell's curve: minutes are then right to far below what is shown. */
const usualSteps = 6

interface Walk {
  readonly from: number
  readonly to: number
  readonly endedBy: Ending
  readonly ohm: number
  readonly coulomb: number
}

function walkOf(pack: PackModel, { powerW, startCharge, cutOffCellV, reserve }: DischargeOf): Walk {
  const where = 'discharge'
  if (!(Number.isInteger(pack.cells) && pack.cells >= 1))
    throw new CoreInputError(where, 'cells', pack.cells, { is: 'in range', least: 1, whole: true })
  if (!(pack.capacityMah > 0) || !Number.isFinite(pack.capacityMah))
    throw new CoreInputError(where, 'capacityMah', pack.capacityMah, { is: 'in range', above: 0 })
  requireNotNegative(where, 'cellResistanceMohm', pack.cellResistanceMohm)
  if (!(powerW > 0) || !Number.isFinite(powerW))
    throw new CoreInputError(where, 'powerW', powerW, { is: 'in range', above: 0 })
  if (!(startCharge >= 0 && startCharge <= 1))
    throw new CoreInputError(where, 'startCharge', startCharge, { is: 'in range', least: 0, most: 1 })
  requireFinite(where, 'cutOffCellV', cutOffCellV)
  if (!(reserve >= 0 && reserve <= 1))
    throw new CoreInputError(where, 'reserve', reserve, { is: 'in range', least: 0, most: 1 })
  const ohm = (pack.cells * pack.cellResistanceMohm) / 1000
  const cutV = pack.cells * cutOffCellV
  const collapseV = 2 * Math.sqrt(ohm * powerW)
  // Below the point of most power the volts under load have already passed the cut-off on their way down.
  const cutAtV = cutV * cutV >= ohm * powerW && cutV > 0 ? cutV + (powerW * ohm) / cutV : 0
  const ends: readonly (readonly [Ending, number])[] = [
    ['collapse', chargeBelow(pack, collapseV)],
    ['cut-off', chargeBelow(pack, cutAtV)],
    ['reserve', reserve > 0 ? reserve : -1],
    ['empty', 0],
  ]
  let [endedBy, to] = ends[3]!
  for (const [ending, charge] of ends.toReversed())
    if (charge >= to) {
      endedBy = ending
      to = charge
    }
  return { from: startCharge, to: Math.min(to, startCharge), endedBy, ohm, coulomb: pack.capacityMah * 3.6 }
}

/** The charge at which the pack rests at so many volts: below 0 when it never does, 2 when it does not reach them when full. */
function chargeBelow(pack: PackModel, openV: number): number {
  const cellV = openV / pack.cells
  const curve = cellCurve(pack.chemistry)
  if (cellV < curve[0]!.openV) return -1
  for (let i = 1; i < curve.length; i++) {
    const [a, b] = [curve[i - 1]!, curve[i]!]
    if (cellV <= b.openV) return a.charge + ((b.charge - a.charge) * (cellV - a.openV)) / (b.openV - a.openV)
  }
  return 2
}

/** Charges at which the walk passes a point of the curve, from high to low, ends included. */
function stretches(pack: PackModel, { from, to }: Walk): number[] {
  const between = cellCurve(pack.chemistry)
    .map(point => point.charge)
    .filter(charge => charge < from && charge > to)
    .toReversed()
  return [from, ...between, to]
}

/**
 * A pack that gives constant power until the first end. Where it fails at the start, the time is 0 s and `endedBy` says why.
 * The charge is integrated along the cell's curve, which is straight between its points: volts under load are then smooth
 * in each piece, and two Gauss points a substep are enough.
 * Throws for cells below 1, capacity or power not above zero, charges or reserve outside 0 to 1, anything not finite.
 */
export function discharge(pack: PackModel, of: DischargeOf, steps = usualSteps): Discharge {
  const walk = walkOf(pack, of)
  const { ohm, coulomb } = walk
  const voltsAt = (charge: number) => loadedV(pack.cells * openCircuitV(pack.chemistry, charge), ohm, of.powerW) ?? 0
  const startV = walk.endedBy === 'collapse' && walk.to >= walk.from ? 0 : voltsAt(walk.from)
  let [timeS, cellsJ, heatJ] = [0, 0, 0]
  const marks = stretches(pack, walk)
  for (let m = 1; m < marks.length; m++) {
    const span = (marks[m - 1]! - marks[m]!) / steps
    if (span <= 0) continue
    const openHigh = pack.cells * openCircuitV(pack.chemistry, marks[m - 1]!)
    const slope = (openHigh - pack.cells * openCircuitV(pack.chemistry, marks[m]!)) / (span * steps)
    for (let s = 0; s < steps; s++) {
      for (const place of [near, far]) {
        const openV = openHigh - slope * span * (s + place)
        const packV = (openV + Math.sqrt(Math.max(0, openV * openV - 4 * ohm * of.powerW))) / 2
        const passed = (coulomb * span) / 2
        timeS += (passed * packV) / of.powerW
        cellsJ += passed * openV
        heatJ += (passed * ohm * of.powerW) / packV
      }
    }
  }
  const endV = timeS === 0 ? startV : endVolts(pack, walk, of.powerW)
  return {
    timeS,
    endedBy: walk.endedBy,
    endCharge: walk.to,
    startV,
    endV,
    cellsJ,
    heatJ,
    deliveredJ: timeS * of.powerW,
    consumedMah: (walk.from - walk.to) * pack.capacityMah,
    peakA: endV > 0 ? of.powerW / endV : 0,
  }
}

/** Under load at the end; at a collapse the two roots meet at half the resting volts. */
function endVolts(pack: PackModel, walk: Walk, powerW: number): number {
  const openV = pack.cells * openCircuitV(pack.chemistry, walk.to)
  return loadedV(openV, walk.ohm, powerW) ?? openV / 2
}

/** The same discharge as points in time, start and end included. */
export function dischargePoints(pack: PackModel, of: DischargeOf, perStretch = 8): DischargePoint[] {
  const walk = walkOf(pack, of)
  const marks = stretches(pack, walk)
  const points: DischargePoint[] = []
  let timeS = 0
  const note = (charge: number) => {
    const openV = pack.cells * openCircuitV(pack.chemistry, charge)
    const packV = loadedV(openV, walk.ohm, of.powerW) ?? openV / 2
    points.push({
      timeS,
      charge,
      packV,
      currentA: of.powerW / packV,
      consumedMah: (walk.from - charge) * pack.capacityMah,
    })
  }
  note(walk.from)
  for (let m = 1; m < marks.length; m++) {
    for (let s = 1; s <= perStretch; s++) {
      const [high, low] = [
        marks[m - 1]! + ((marks[m]! - marks[m - 1]!) * (s - 1)) / perStretch,
        marks[m - 1]! + ((marks[m]! - marks[m - 1]!) * s) / perStretch,
      ]
      if (high <= low) continue
      timeS += discharge(pack, { ...of, startCharge: high, reserve: low, cutOffCellV: 0 }, 2).timeS
      note(low)
    }
  }
  return points
}

/** When the volts per cell under load first fall to a warning, seconds from the start; null when they never do before the end. */
export function warningAfterS(points: readonly DischargePoint[], cells: number, warnCellV: number): number | null {
  const warnV = cells * warnCellV
  const first = points.findIndex(point => point.packV <= warnV)
  if (first < 0) return null
  if (first === 0) return 0
  const [a, b] = [points[first - 1]!, points[first]!]
  return a.timeS + ((b.timeS - a.timeS) * (a.packV - warnV)) / (a.packV - b.packV)
}
