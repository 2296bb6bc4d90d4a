import { addEstimates, scaleEstimate, sigmaG, subtractEstimates, varianceG2, type Estimate } from '../../maths/estimate'

/** The same thing on two scales: how they differ against what they claim. */
export interface ScaleComparison {
  readonly differenceG: number
  readonly sigmaG: number
  readonly z: number
  readonly agree: boolean
  /** The best combined value; null when they do not agree. */
  readonly combined: Estimate | null
  /** The share of the first scale in the combined value, 0 to 1. */
  readonly firstShare: number
}

/**
 * Compares two weighings of one thing. They agree when |difference| ≤ 2 joint standard uncertainties; then they are
 * combined with the weights that make the variance least (common causes are respected).
 */
export function compareScales(first: Estimate, second: Estimate): ScaleComparison {
  const difference = subtractEstimates(first, second)
  const sigma = sigmaG(difference)
  const z = sigma === 0 ? (Math.abs(difference.valueG) < 1e-9 ? 0 : Infinity) : difference.valueG / sigma
  const agree = Math.abs(z) <= 2
  const variance = varianceG2(difference)
  let covariance = 0
  for (const key in first.contributions) covariance += first.contributions[key]! * (second.contributions[key] ?? 0)
  const firstShare = variance === 0 ? 0.5 : Math.min(1, Math.max(0, (varianceG2(second) - covariance) / variance))
  const combined = agree
    ? addEstimates([scaleEstimate(first, firstShare), scaleEstimate(second, 1 - firstShare)])
    : null
  return { differenceG: difference.valueG, sigmaG: sigma, z, agree, combined, firstShare }
}
