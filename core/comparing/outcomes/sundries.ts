import { requireFinite, requireNotNegative, requirePositive } from '../../basics/errors'
import { sumCompensated } from '../../maths/numbers'

/** What a class of craft has of solder, tape and the like, as shares of its dry mass, before anything was learnt. */
export interface SundriesPrior {
  /** Mean share, dimensionless. */
  readonly mu: number
  /** Half its typical range over √3, as a share. */
  readonly tau: number
}

/** The share of the dry mass that plans leave out, as learnt from finished builds. */
export interface LearntSundries {
  readonly builds: number
  /** Expected share. */
  readonly mu: number
  /** Standard deviation of the share of one build to come: √(v + σ²). */
  readonly sigma: number
}

/** Prior sd of the mean, and within builds, in τ; how many builds the prior is worth. */
const [meanTaus, withinTaus, priorWeight] = [0.7, 0.6, 4]

/**
 * The share of solder, heat-shrink, tape and glue in the dry mass, by the normal model with shrinkage of listings, on
 * the shares themselves. `shares` holds one a finished build; may be empty. Throws where a number is not finite or τ is
 * not above 0.
 *
 * @example learnSundries({ mu: 0.02, tau: 0.005 }, []).mu // 0.02
 */
export function learnSundries({ mu, tau }: SundriesPrior, shares: readonly number[]): LearntSundries {
  requirePositive('learnSundries', 'tau', tau)
  requireFinite('learnSundries', 'mu', mu)
  for (const share of shares) requireFinite('learnSundries', 'shares', share)
  const n = shares.length
  const mean = n === 0 ? 0 : sumCompensated(shares) / n
  const squares = sumCompensated(shares.map(share => (share - mean) ** 2))
  const nu = priorWeight + Math.max(n - 1, 0)
  const within = ((priorWeight * (withinTaus * tau) ** 2 + squares) / nu) * (nu / (nu - 2))
  const priorVariance = (meanTaus * tau) ** 2
  const v = 1 / (1 / priorVariance + n / within)
  return { builds: n, mu: v * (mu / priorVariance + (n * mean) / within), sigma: Math.sqrt(v + within) }
}

/** What a plan's line of sundries starts at. */
export interface SundriesStart {
  readonly valueG: number
  /** Standard uncertainty, grams. */
  readonly sigmaG: number
}

/** Grams of sundries for what is booked of the rest of a dry craft. Throws where what is booked is below 0. */
export function sundriesFor(bookedG: number, { mu, sigma }: LearntSundries): SundriesStart {
  requireNotNegative('sundriesFor', 'bookedG', bookedG)
  const share = Math.min(Math.max(mu, 0), 0.9)
  return { valueG: (bookedG * share) / (1 - share), sigmaG: (bookedG * sigma) / (1 - share) ** 2 }
}
