import { sigmaG, type Estimate } from '../../maths/estimate'
import type { Line } from '../../model/ledger'
import type { LineEstimates } from '../loadout'

/** How much of the total's variance each line is answerable for (covariance with the total over its variance), widest first. */
export function spreadShares(
  counted: readonly Line[],
  total: Estimate,
  estimates: LineEstimates,
): { line: Line; share: number }[] {
  const variance = sigmaG(total) ** 2
  if (variance === 0) return []
  return counted
    .map(line => {
      // The total after every weighing is a projection: against it a line counts as it was before them.
      const { contributions } = estimates.before(line)
      let covariance = 0
      for (const key in contributions) covariance += contributions[key]! * (total.contributions[key] ?? 0)
      return { line, share: covariance / variance }
    })
    .sort((a, b) => b.share - a.share)
}
