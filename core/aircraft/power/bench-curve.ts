import { standardGravityMps2 } from '../../text/units'
import { CoreInputError } from '../../basics/errors'
import type { BenchRow } from '../../model/data'

/** A curve that goes through its points, rises where they rise and never overshoots; nothing beyond its ends. */
export interface MonotoneCurve {
  readonly from: number
  readonly to: number
  at(x: number): number
}

/**
 * Piecewise cubic through points with rising x. Slopes by Fritsch and Butland (weighted harmonic means), ends by three
 * points. Throws for fewer than two points or x that do not rise; `at` holds the end values outside.
 */
export function monotoneCubic(xs: readonly number[], ys: readonly number[]): MonotoneCurve {
  const n = xs.length
  if (n < 2 || ys.length !== n)
    throw new CoreInputError('monotoneCubic', 'xs', n, { is: 'at least', count: 2, of: 'points' })
  const widths = Array.from({ length: n - 1 }, (_, i) => xs[i + 1]! - xs[i]!)
  if (widths.some(width => !(width > 0)))
    throw new CoreInputError('monotoneCubic', 'xs', xs.join(', '), { is: 'fitting', what: 'rising' })
  const secants = widths.map((width, i) => (ys[i + 1]! - ys[i]!) / width)
  const slopes = ys.map((_, i) => {
    if (n === 2) return secants[0]!
    if (i === 0) return endSlope(widths[0]!, widths[1]!, secants[0]!, secants[1]!)
    if (i === n - 1) return endSlope(widths[n - 2]!, widths[n - 3]!, secants[n - 2]!, secants[n - 3]!)
    const [before, after] = [secants[i - 1]!, secants[i]!]
    if (before * after <= 0) return 0
    const [w1, w2] = [2 * widths[i]! + widths[i - 1]!, widths[i]! + 2 * widths[i - 1]!]
    return (w1 + w2) / (w1 / before + w2 / after)
  })
  const [from, to] = [xs[0]!, xs[n - 1]!]
  return {
    from,
    to,
    at(x) {
      if (x <= from) return ys[0]!
      if (x >= to) return ys[n - 1]!
      let i = 0
      while (xs[i + 1]! < x) i++
      const [width, t] = [widths[i]!, (x - xs[i]!) / widths[i]!]
      const [t2, t3] = [t * t, t * t * t]
      return (
        ys[i]! * (2 * t3 - 3 * t2 + 1) +
        slopes[i]! * width * (t3 - 2 * t2 + t) +
        ys[i + 1]! * (3 * t2 - 2 * t3) +
        slopes[i + 1]! * width * (t3 - t2)
      )
    },
  }
}

function endSlope(width: number, next: number, secant: number, nextSecant: number): number {
  const slope = ((2 * width + next) * secant - width * nextSecant) / (width + next)
  if (slope * secant <= 0) return 0
  return secant * nextSecant < 0 && Math.abs(slope) > 3 * Math.abs(secant) ? 3 * secant : slope
}

/** What one motor with its prop does by the volts its controller passes on (throttle × pack volts). */
export interface MotorCurve {
  /** The highest volts the table was taken at: nothing is known above. */
  readonly mostV: number
  readonly rough: boolean
  thrustG(volts: number): number
  watts(volts: number): number
  /**
   * Amps from the pack at full throttle on so many volts; above the table's volts those of its last row, which more
   * volts do not draw less than.
   */
  amps(volts: number): number
}

/**
 * A motor's curve from its bench table: rows with throttle rising from row to row. Nothing at 0 V is added where the
 * table starts above.
 */
export function benchCurve(bench: readonly BenchRow[]): MotorCurve {
  const rows =
    bench[0]!.throttlePercent > 0
      ? [{ throttlePercent: 0, volts: bench[0]!.volts, amps: 0, thrustG: 0 }, ...bench]
      : bench
  const volts = rows.map(row => (row.throttlePercent / 100) * row.volts)
  const thrust = monotoneCubic(
    volts,
    rows.map(row => row.thrustG),
  )
  const watts = monotoneCubic(
    volts,
    rows.map(row => row.volts * row.amps),
  )
  const mostV = thrust.to
  return {
    mostV,
    rough: false,
    thrustG: v => thrust.at(v),
    watts: v => watts.at(v),
    amps: v => watts.at(v) / Math.min(v, mostV),
  }
}

interface RoughMotor {
  readonly kv: number
  readonly diameterMm: number
  readonly pitchMm: number | null
  readonly blades: number
  readonly densityKgM3: number
  readonly efficiency: number
}

/**
 * Share of the unloaded speed (kV × volts) a prop lets a small motor reach at full throttle: a choice between the 0.65
 * and 0.75 of small motors.
 */
export const loadedSpeed = 0.7

/**
 * Rough thrust without a bench table: loaded speed from kV, static thrust from the prop's diameter, blades and pitch,
 * watts from momentum theory. Good for a third either way; marked rough wherever it is shown.
 */
export function roughCurve({ kv, diameterMm, pitchMm, blades, densityKgM3, efficiency }: RoughMotor): MotorCurve {
  const diameterM = diameterMm / 1000
  const coefficient =
    (blades <= 2 ? 0.09 : blades === 3 ? 0.11 : 0.125) *
    (pitchMm === null ? 1 : Math.min(1.3, Math.max(0.6, 0.3 + pitchMm / diameterMm)))
  const newton = (volts: number) => coefficient * densityKgM3 * ((loadedSpeed * kv * volts) / 60) ** 2 * diameterM ** 4
  const watts = (volts: number) =>
    newton(volts) ** 1.5 / Math.sqrt((2 * densityKgM3 * Math.PI * diameterM ** 2) / 4) / efficiency
  return {
    mostV: Number.MAX_VALUE,
    rough: true,
    thrustG: volts => (newton(volts) / standardGravityMps2) * 1000,
    watts,
    amps: volts => watts(volts) / volts,
  }
}

/** How finely the volts are searched for where pack and load meet, and how far down. */
const settleSteps = 400
const leastShareOfOpen = 0.02

/**
 * The volts at which what a pack of `openV` and `resistanceOhm` gives and what is drawn (`ampsAt` so many volts) meet: the
 * highest there are. Null where the pack cannot hold the load at any volts.
 */
export function settledV(ampsAt: (volts: number) => number, openV: number, resistanceOhm: number): number | null {
  const spare = (volts: number) => openV - resistanceOhm * ampsAt(volts) - volts
  let high = openV
  for (let i = 0; i <= settleSteps; i++) {
    let low = openV * (1 - ((1 - leastShareOfOpen) * i) / settleSteps)
    if (spare(low) < 0) {
      high = low
      continue
    }
    for (let n = 0; n < 60; n++) {
      const middle = (low + high) / 2
      if (spare(middle) >= 0) low = middle
      else high = middle
    }
    return (low + high) / 2
  }
  return null
}
