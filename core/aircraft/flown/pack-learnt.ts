import { quantile } from '../../maths/numbers'
import type { Chemistry } from '../../model/data'
import { chargeLeft, type Landing } from './charge-used'

/** A figure of a pack as one flight, or several, say it, with its standard uncertainty. */
export interface Learnt {
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
): Learnt | null {
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
export function lastFiveOf(byFlight: readonly Learnt[]): Learnt | null {
  const last = byFlight.slice(-lastFlights)
  if (last.length <= 1) return last[0] ?? null
  const sorted = last.map(({ value }) => value).sort((a, b) => a - b)
  return {
    value: quantile(sorted, 0.5),
    u: (quantile(sorted, 0.75) - quantile(sorted, 0.25)) / 2,
    flights: last.length,
  }
}
