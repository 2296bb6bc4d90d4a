import { coverageFactor95, quantile } from '../../maths/numbers'
import type { Chemistry } from '../../model/data'
import { chargeLeft, type Landing } from './charge-used'

/** A figure of a pack as one flight, or several, say it, with its standard uncertainty. */
export interface LearntFigure {
  readonly value: number
  readonly u: number
  /** On how many flights it rests. */
  readonly flights: number
}

/** Of a flight that used less than this share of a pack nothing is learnt of the whole. */
const leastShare = 0.5
/** So many flights back: packs age. */
const lastFlights = 5

/**
 * The charge of a pack from full to empty, mAh, by one flight that has both its charge and landing volts; null where it used
 * half of the pack or less.
 */
export function usableByFlight(
  chemistry: Chemistry,
  startCharge: number,
  landing: Landing,
  used: { readonly mah: number; readonly uMah: number },
): LearntFigure | null {
  const left = chargeLeft(chemistry, landing)
  const share = startCharge - left.charge
  if (!(share > leastShare) || !(used.mah > 0)) return null
  const value = used.mah / share
  return { value, u: value * Math.hypot(used.uMah / used.mah, left.u / share), flights: 1 }
}

/**
 * A figure of a pack from those its flights say, in the order flown: the median of the last five, uncertain by half of the
 * range between their quartiles; of one flight its own. Null where no flight says any.
 */
export function lastFiveOf(byFlight: readonly LearntFigure[]): LearntFigure | null {
  const last = byFlight.slice(-lastFlights)
  if (last.length <= 1) return last[0] ?? null
  const sorted = last.map(({ value }) => value).sort((a, b) => a - b)
  return {
    value: quantile(sorted, 0.5),
    u: (quantile(sorted, 0.75) - quantile(sorted, 0.25)) / 2,
    flights: last.length,
  }
}

/** Below this share of its capacity a pack is tired. Our choice, by what is usually said of lithium cells. */
export const tiredShare = 0.85
/** Beyond so many times its first resistance a pack is tired. Our choice. */
export const tiredResistance = 1.5

/** How a pack has aged by its flights: share of its capacity, and resistance against its first flights; null where unknown. */
export interface PackAge {
  readonly share: number | null
  readonly grown: number | null
  /** One of them says so beyond its own doubt. */
  readonly isTired: boolean
}

/** Whether a pack has become tired, by flights that say it surely. `capacityMah` is what it was sold with. */
export function packAge(
  capacityMah: number,
  {
    usable,
    resistance,
    resistanceAtFirst,
  }: {
    readonly usable: LearntFigure | null
    readonly resistance: LearntFigure | null
    readonly resistanceAtFirst: LearntFigure | null
  },
): PackAge {
  const share = usable && usable.value / capacityMah
  const grown = resistance && resistanceAtFirst && resistance.value / resistanceAtFirst.value
  const holdsLittle = usable !== null && usable.value + coverageFactor95 * usable.u < tiredShare * capacityMah
  const resistsMore =
    resistance !== null &&
    resistanceAtFirst !== null &&
    resistance.value - coverageFactor95 * resistance.u > tiredResistance * resistanceAtFirst.value
  return { share, grown, isTired: holdsLittle || resistsMore }
}
