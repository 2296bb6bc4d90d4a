import { CoreInputError } from '../errors'
import type { BenchRow } from '../properties/types'

/** A curve that goes through its points, rises where they rise and never overshoots; nothing beyond its ends. */
export interface MonotoneCurve { readonly from: number, readonly to: number, at(x: number): number }

/**
 * Piecewise cubic through points with rising x. Slopes by Fritsch and Butland (weighted harmonic means), ends by three
 * points. Throws for fewer than two points or x that do not rise; `at` holds the end values outside.
 */
export function monotoneCubic(xs: readonly number[], ys: readonly number[]): MonotoneCurve {
  const n = xs.length
  if (n < 2 || ys.length !== n) throw new CoreInputError('monotoneCubic', 'xs', n, 'at least two points')
  const widths = Array.from({ length: n - 1 }, (_, i) => xs[i + 1]! - xs[i]!)
  if (widths.some(width => !(width > 0))) throw new CoreInputError('monotoneCubic', 'xs', xs.join(', '), 'rising')
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
    from, to,
    at(x) {
      if (x <= from) return ys[0]!
      if (x >= to) return ys[n - 1]!
      let i = 0
      while (xs[i + 1]! < x) i++
      const [width, t] = [widths[i]!, (x - xs[i]!) / widths[i]!]
      const [t2, t3] = [t * t, t * t * t]
      return ys[i]! * (2 * t3 - 3 * t2 + 1) + slopes[i]! * width * (t3 - 2 * t2 + t) + ys[i + 1]! * (3 * t2 - 2 * t3) + slopes[i + 1]! * width * (t3 - t2)
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
}

/** A motor's curve from its bench table: rows with throttle rising from row to row. Nothing at 0 V is added where the table starts above. */
export function benchCurve(bench: readonly BenchRow[]): MotorCurve {
  const rows = bench[0]!.throttlePercent > 0 ? [{ throttlePercent: 0, volts: bench[0]!.volts, amps: 0, thrustG: 0 }, ...bench] : bench
  const volts = rows.map(row => row.throttlePercent / 100 * row.volts)
  const thrust = monotoneCubic(volts, rows.map(row => row.thrustG))
  const watts = monotoneCubic(volts, rows.map(row => row.volts * row.amps))
  return { mostV: thrust.to, rough: false, thrustG: v => thrust.at(v), watts: v => watts.at(v) }
}

interface RoughMotor { readonly kv: number, readonly diameterMm: number, readonly pitchMm: number | null, readonly blades: number, readonly densityKgM3: number, readonly efficiency: number }

/** Share of the unloaded speed a prop lets a small motor reach at full throttle. */
const loadedSpeed = 0.7

/**
 * Rough thrust without a bench table: loaded speed from kV, static thrust from the prop's diameter, blades and pitch,
 * watts from momentum theory. Good for a third either way; marked rough wherever it is shown.
 */
export function roughCurve({ kv, diameterMm, pitchMm, blades, densityKgM3, efficiency }: RoughMotor): MotorCurve {
  const diameterM = diameterMm / 1000
  const coefficient = (blades <= 2 ? 0.09 : blades === 3 ? 0.11 : 0.125) * (pitchMm === null ? 1 : Math.min(1.3, Math.max(0.6, 0.3 + pitchMm / diameterMm)))
  const newton = (volts: number) => coefficient * densityKgM3 * (loadedSpeed * kv * volts / 60) ** 2 * diameterM ** 4
  return {
    mostV: Number.MAX_VALUE, rough: true,
    thrustG: volts => newton(volts) / 9.80665 * 1000,
    watts: volts => newton(volts) ** 1.5 / Math.sqrt(2 * densityKgM3 * Math.PI * diameterM ** 2 / 4) / efficiency,
  }
}

/** Full throttle on a pack: what the motors push together, from how many amps, at which volts the pack settles. */
export interface FullThrottle { readonly thrustG: number, readonly currentA: number, readonly packV: number, readonly rough: boolean, readonly atLeast: boolean }

/**
 * Full throttle of `motors` motors and `besidesW` watts on a pack of `openV` and `resistanceOhm`: the volts at which what
 * the pack gives and what is drawn meet. `atLeast` when the pack has more volts than the bench table was taken at.
 */
export function fullThrottle({ curve, motors, besidesW, openV, resistanceOhm }: { curve: MotorCurve, motors: number, besidesW: number, openV: number, resistanceOhm: number }): FullThrottle {
  const ampsAt = (volts: number) => (motors * curve.watts(volts) + besidesW) / volts
  let [low, high] = [openV * 0.05, openV]
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2
    if (openV - resistanceOhm * ampsAt(middle) > middle) low = middle
    else high = middle
  }
  const packV = (low + high) / 2
  return { thrustG: motors * curve.thrustG(packV), currentA: ampsAt(packV), packV, rough: curve.rough, atLeast: packV > curve.mostV * (1 + 1e-9) }
}
