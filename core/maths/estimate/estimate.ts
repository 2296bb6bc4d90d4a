import { CoreInputError, requireFinite } from '../../basics/errors'
import { coverageFactor95, sumCompensated } from '../numbers'

/**
 * A mass with its pedigree, affine in independent standard causes:
 * `truth = valueG + Σ contributions[key]·z(key)`, each z with mean 0 and variance 1.
 * A coefficient is signed, in grams: how the truth departs from the value when that cause is +1.
 * The same key is the same cause wherever it stands. Source: GUM, JCGM 100:2008, 5.1–5.2.
 */
export interface Estimate {
  readonly valueG: number
  readonly contributions: Readonly<Record<string, number>>
  /** Σ of the squared coefficients, g², where it is known without them. */
  readonly knownVarianceG2?: number | undefined
}

/**
 * An empty set of contributions. Keys differ from line to line, so nothing is gained by objects of one shape; without a
 * prototype no key can be mistaken for a method either.
 */
function noContributions(): Record<string, number> {
  return Object.create(null) as Record<string, number>
}

/** Contributions from pairs of a key and its coefficient in grams. */
export function contributionsOf(
  ...pairs: readonly (readonly [key: string, coefficientG: number])[]
): Record<string, number> {
  const contributions = noContributions()
  for (const [key, coefficientG] of pairs) contributions[key] = coefficientG
  return contributions
}

/** A mass known without spread. Throws on NaN and infinities. */
export function exactly(valueG: number): Estimate {
  requireFinite('exactly', 'valueG', valueG)
  return { valueG, contributions: {} }
}

/** An estimate from its parts. Throws when a number is not finite; zero coefficients are dropped. */
export function estimateOf(valueG: number, contributions: Record<string, number>): Estimate {
  requireFinite('estimateOf', 'valueG', valueG)
  const kept = noContributions()
  for (const key in contributions) {
    const coefficientG = contributions[key]!
    if (!Number.isFinite(coefficientG)) requireFinite('estimateOf', `contributions.${key}`, coefficientG)
    if (coefficientG !== 0) kept[key] = coefficientG
  }
  return { valueG, contributions: kept }
}

/**
 * Σ of estimates; coefficients of one key add before they are squared. No estimates sum to exactly 0 g.
 * The values are summed with compensation, so that decimal grams add up as they do on paper.
 */
export function addEstimates(estimates: readonly Estimate[]): Estimate {
  const contributions = noContributions()
  for (const estimate of estimates) {
    for (const key in estimate.contributions)
      contributions[key] = (contributions[key] ?? 0) + estimate.contributions[key]!
  }
  return { valueG: sumCompensated(estimates.map(e => e.valueG)), contributions }
}

/** `a − b` with their common causes cancelling as far as they are common. */
export function subtractEstimates(a: Estimate, b: Estimate): Estimate {
  return addEstimates([a, scaleEstimate(b, -1)])
}

/** The estimate times a plain factor (a count, −1). Throws when the factor is not finite. */
export function scaleEstimate(estimate: Estimate, factor: number): Estimate {
  if (!Number.isFinite(factor)) throw new CoreInputError('scaleEstimate', 'factor', factor, { is: 'finite' })
  const contributions = noContributions()
  for (const key in estimate.contributions) contributions[key] = factor * estimate.contributions[key]!
  return { valueG: factor * estimate.valueG, contributions }
}

/** Variance in g²: Σ of the squared coefficients. */
export function varianceG2(estimate: Estimate): number {
  if (estimate.knownVarianceG2 !== undefined) return estimate.knownVarianceG2
  let sum = 0
  for (const key in estimate.contributions) sum += estimate.contributions[key]! ** 2
  return sum
}

/** One standard uncertainty u in grams. */
export function sigmaG(estimate: Estimate): number {
  return Math.sqrt(varianceG2(estimate))
}

/** The half-width of the two-sided 95 % interval in grams, the ± shown to people. */
export function spreadG(estimate: Estimate): number {
  return coverageFactor95 * sigmaG(estimate)
}

/** Standard uncertainty of a rectangular distribution of half-width `halfWidth`: a/√3. */
export function rectangularSigma(halfWidth: number): number {
  return halfWidth / Math.sqrt(3)
}
