import { CoreInputError } from '../../basics/errors'

/** Horner evaluation, highest power first. */
function polynomial(coefficients: readonly number[], x: number): number {
  let result = 0
  for (let i = 0; i < coefficients.length; i++) result = result * x + coefficients[i]!
  return result
}

const tailNumerator = [
  0.0352624965998911, 0.700383064443688, 6.37396220353165, 33.912866078383, 112.079291497871, 221.213596169931,
  220.206867912376,
]
const tailDenominator = [
  0.0883883476483184, 1.75566716318264, 16.064177579207, 86.7807322029461, 296.564248779674, 637.333633378831,
  793.826512519948, 440.413735824752,
]

/**
 * Upper tail of the standard normal for z >= 0: Hart's rational approximation up to 5√2, a continued fraction beyond.
 * Source: J. F. Hart, Computer Approximations (1968), algorithm 5666, as set out by G. West (2005).
 */
function upperTail(z: number): number {
  const density = Math.exp(-0.5 * z * z)
  if (z < 7.07106781186547) return (density * polynomial(tailNumerator, z)) / polynomial(tailDenominator, z)
  let fraction = z + 0.65
  for (let k = 4; k >= 1; k--) fraction = z + k / fraction
  return density / fraction / Math.sqrt(2 * Math.PI)
}

/**
 * Standard normal distribution function Φ(z): the chance that a standard normal stays at or below z.
 * Range 0 to 1; ±Infinity give 0 and 1; NaN throws. Absolute error below 1e-14.
 *
 * @example normalCdf(1.96975) // 0.97557 (five digits)
 */
export function normalCdf(z: number): number {
  if (Number.isNaN(z)) throw new CoreInputError('normalCdf', 'z', z, { is: 'finite' })
  if (z < -40) return 0
  if (z > 40) return 1
  return z < 0 ? upperTail(-z) : 1 - upperTail(z)
}

const centreNumerator = [
  2509.0809287301226727, 33430.575583588128105, 67265.770927008700853, 45921.953931549871457, 13731.693765509461125,
  1971.5909503065514427, 133.14166789178437745, 3.387132872796366608,
]
const centreDenominator = [
  5226.495278852854561, 28729.085735721942674, 39307.89580009271061, 21213.794301586595867, 5394.1960214247511077,
  687.1870074920579083, 42.313330701600911252, 1,
]
const middleNumerator = [
  7.7454501427834140764e-4, 0.0227238449892691845833, 0.24178072517745061177, 1.27045825245236838258,
  3.64784832476320460504, 5.7694972214606914055, 4.6303378461565452959, 1.42343711074968357734,
]
const middleDenominator = [
  1.05075007164441684324e-9, 5.475938084995344946e-4, 0.0151986665636164571966, 0.14810397642748007459,
  0.68976733498510000455, 1.6763848301838038494, 2.05319162663775882187, 1,
]
const farNumerator = [
  2.01033439929228813265e-7, 2.71155556874348757815e-5, 0.0012426609473880784386, 0.026532189526576123093,
  0.29656057182850489123, 1.7848265399172913358, 5.4637849111641143699, 6.6579046435011037772,
]
const farDenominator = [
  2.04426310338993978564e-15, 1.4215117583164458887e-7, 1.8463183175100546818e-5, 7.868691311456132591e-4,
  0.0148753612908506148525, 0.13692988092273580531, 0.59983220655588793769, 1,
]

/**
 * Inverse of {@link normalCdf}: the z with Φ(z) = p, for 0 < p < 1; anything else throws.
 * Relative error about 1e-15. Source: M. J. Wichura, Algorithm AS 241, Applied Statistics 37 (1988).
 *
 * @example normalQuantile(0.95) // 1.6448536…
 */
export function normalQuantile(p: number): number {
  if (!(p > 0 && p < 1)) throw new CoreInputError('normalQuantile', 'p', p, { is: 'in range', above: 0, under: 1 })
  const q = p - 0.5
  if (Math.abs(q) <= 0.425) {
    const r = 0.180625 - q * q
    return (q * polynomial(centreNumerator, r)) / polynomial(centreDenominator, r)
  }
  const r = Math.sqrt(-Math.log(q < 0 ? p : 1 - p))
  const z =
    r <= 5
      ? polynomial(middleNumerator, r - 1.6) / polynomial(middleDenominator, r - 1.6)
      : polynomial(farNumerator, r - 5) / polynomial(farDenominator, r - 5)
  return q < 0 ? -z : z
}

/** Factor from one standard uncertainty to the half-width of a 95 % interval, Φ⁻¹(0.975). */
export const coverageFactor95 = normalQuantile(0.975)
