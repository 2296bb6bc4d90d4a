import { exactly, type Estimate } from '../estimate'
import { isSharedCause, lineEstimate } from '../evidence'
import type { HonestyTable } from '../listings'
import type { Line } from '../ledger'

/**
 * A line's estimate in the form sums are made from: its value, the variance of the causes it has for itself, and the
 * coefficients of the causes it shares with other lines, by the number of the cause.
 */
export interface LinePart {
  readonly valueG: number
  readonly ownVarianceG2: number
  readonly causes: readonly number[]
  readonly coefficientsG: readonly number[]
}

/** The estimates of a build's lines, kept by line object: an edit makes one new object, so one new estimate. */
export class LineEstimates {
  private readonly estimates = new WeakMap<Line, Estimate>()
  private readonly causeNumbers = new Map<string, number>()
  constructor(private readonly honesty: HonestyTable) {}

  /** The whole estimate of a line; exactly 0 g while it has no grams. */
  of(line: Line): Estimate {
    const known = this.estimates.get(line)
    if (known) return known
    const made = line.mass ? lineEstimate(line, this.honesty) : exactly(0)
    this.estimates.set(line, made)
    return made
  }

  /** How many different shared causes have been met so far. */
  get causeCount(): number {
    return this.causeNumbers.size
  }

  /** The line's estimate as a part of a sum. */
  partOf(line: Line): LinePart {
    const { valueG, contributions } = this.of(line)
    const causes: number[] = []
    const coefficientsG: number[] = []
    let ownVarianceG2 = 0
    for (const key in contributions) {
      const coefficientG = contributions[key]!
      if (isSharedCause(key)) {
        causes.push(this.numberOf(key))
        coefficientsG.push(coefficientG)
      }
      else { ownVarianceG2 += coefficientG * coefficientG }
    }
    return { valueG, ownVarianceG2, causes, coefficientsG }
  }

  private numberOf(key: string): number {
    let number = this.causeNumbers.get(key)
    if (number === undefined) {
      number = this.causeNumbers.size
      this.causeNumbers.set(key, number)
    }
    return number
  }
}
