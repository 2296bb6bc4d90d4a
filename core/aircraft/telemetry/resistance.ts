import { factorise, solve } from '../../maths/matrix'
import { loggedPackVolts, type Stretch } from './work-out'
import type { TelemetryLog } from './log'

/** A pack's resistance as a log says it. */
export interface LoggedResistance {
  readonly mohm: number
  /** Standard uncertainty, milliohms. */
  readonly u: number
  /** The throttle swung as slowly as the blocks: the doubt itself is then unsure. */
  readonly isSlow: boolean
}
export type NoResistance = {
  readonly why: 'no volts or amps' | 'too few rows' | 'amps hardly vary' | 'volts do not fall'
}

const blocks = 20
/** Amps that vary by less than this share of their mean say nothing of a resistance. */
const leastVariation = 0.1
/** Of the resistance itself: wires and connectors warm, cells recover. */
const alwaysShare = 0.02
/** Where the means of blocks hold more than this share of the variance of the amps, the throttle swings slowly. */
const slowShare = 0.5
/** Under this no pack lies, milliohms. Our choice. */
const leastMohm = 0.5

/** Sums of the least squares of volts on 1, charge, charge² and amps. */
class Sums {
  private readonly products = new Float64Array(16)
  private readonly right = new Float64Array(4)

  add(x: readonly number[], y: number): void {
    for (let i = 0; i < 4; i++) {
      this.right[i]! += x[i]! * y
      for (let k = 0; k < 4; k++) this.products[4 * i + k]! += x[i]! * x[k]!
    }
  }
  plus(other: Sums, sign: 1 | -1): Sums {
    const sum = new Sums()
    for (let i = 0; i < 16; i++) sum.products[i] = this.products[i]! + sign * other.products[i]!
    for (let i = 0; i < 4; i++) sum.right[i] = this.right[i]! + sign * other.right[i]!
    return sum
  }
  /** The coefficient of the amps; NaN where the rows do not tell them apart. */
  ofAmps(): number {
    const factor = factorise(4, (i, k) => this.products[4 * i + k]!)
    return factor.kept.length < 4 ? NaN : solve(factor, this.right)[3]!
  }
}

/**
 * The resistance of a pack from volts and amps of a stretch: least squares of volts on 1, charge, charge² and amps. Rows beside
 * each other are not independent, so its doubt comes from leaving out each of twenty equal blocks of time in turn. Source: the
 * jackknife over blocks (Künsch, Ann. Statist. 17 (1989)).
 */
export function loggedResistance(
  log: TelemetryLog,
  { fromS, toS }: Stretch,
  cells: number,
): LoggedResistance | NoResistance {
  const volts = loggedPackVolts(log, cells)
  const { amps } = log.of
  if (!volts || !amps) return { why: 'no volts or amps' }
  const { timeS } = log
  const sums = Array.from({ length: blocks }, () => new Sums())
  const means = Array.from({ length: blocks }, () => ({ n: 0, sum: 0 }))
  let [n, sum, squares, coulomb, last] = [0, 0, 0, 0, -1]
  // Charge in units of about the whole of it, so that its square is no smaller than rounding.
  const wholeC = Math.max(1e-9, (toS - fromS) * meanOf(amps))
  for (let i = 0; i < timeS.length; i++) {
    const [s, a, v] = [timeS[i]!, amps[i]!, volts[i]!]
    if (s < fromS || s > toS || Number.isNaN(a) || Number.isNaN(v)) continue
    if (last >= 0) coulomb += ((s - timeS[last]!) * (a + amps[last]!)) / 2
    last = i
    const block = Math.min(blocks - 1, Math.floor(((s - fromS) / (toS - fromS)) * blocks))
    const q = coulomb / wholeC
    sums[block]!.add([1, q, q * q, a], v)
    means[block]!.n++
    means[block]!.sum += a
    n++
    sum += a
    squares += a * a
  }
  if (n < 4 * blocks) return { why: 'too few rows' }
  const mean = sum / n
  const variance = squares / n - mean * mean
  if (!(Math.sqrt(variance) >= leastVariation * Math.abs(mean))) return { why: 'amps hardly vary' }
  const all = sums.reduce((total, one) => total.plus(one, 1))
  const mohm = -1000 * all.ofAmps()
  // Volts that do not fall with the amps are of something else than this pack.
  if (!(mohm > leastMohm)) return { why: 'volts do not fall' }
  const without = sums.map(one => -1000 * all.plus(one, -1).ofAmps())
  const middle = without.reduce((total, one) => total + one, 0) / blocks
  const jackknife = ((blocks - 1) / blocks) * without.reduce((total, one) => total + (one - middle) ** 2, 0)
  const between =
    means.reduce((total, block) => total + (block.n > 0 ? block.n * (block.sum / block.n - mean) ** 2 : 0), 0) / n
  return { mohm, u: Math.hypot(Math.sqrt(jackknife), alwaysShare * mohm), isSlow: between > slowShare * variance }
}

function meanOf(values: Float64Array): number {
  let [sum, n] = [0, 0]
  for (const value of values) {
    if (Number.isNaN(value)) continue
    sum += value
    n++
  }
  return n > 0 ? Math.abs(sum / n) : 0
}
