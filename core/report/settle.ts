import { rectangularSigma, sigmaG, spreadG, subtractEstimates, addEstimates, type Estimate } from '../estimate'
import type { Line } from '../ledger'
import type { LineEstimates } from '../loadout'
import { judge, type VerdictInput, type VerdictWord } from '../verdict'
import { uncheckedGainKey } from '../evidence'

/** Step of the scale a suggested weighing is imagined on, grams. */
const pocketScaleStepG = 0.01
/** How many of the widest lines are tried in pairs. */
const triedInPairs = 14

/** One or two weighings and what they would bring, if the parts weigh what is expected. */
export interface Narrowing {
  readonly lines: readonly Line[]
  readonly spreadBeforeG: number
  readonly spreadAfterG: number
  /** The verdict after it, when a limit was given. */
  readonly wordAfter: VerdictWord | null
  readonly settles: boolean
}

/** What a line would be known to after weighing all its pieces together on a 0.01 g scale nobody has checked. */
function asIfWeighed(line: Line, valueG: number): Estimate {
  const own = Math.sqrt(2 * (pocketScaleStepG ** 2 + pocketScaleStepG ** 2 / 12))
  return { valueG, contributions: { [`imagined:${line.id}`]: own, [uncheckedGainKey]: -valueG * rectangularSigma(0.003) } }
}

/** How much of the total's variance each line is answerable for (covariance with the total over its variance), widest first. */
export function spreadShares(counted: readonly Line[], total: Estimate, estimates: LineEstimates): { line: Line, share: number }[] {
  const variance = sigmaG(total) ** 2
  if (variance === 0) return []
  return counted.map((line) => {
    const { contributions } = estimates.of(line)
    let covariance = 0
    for (const key in contributions) covariance += contributions[key]! * (total.contributions[key] ?? 0)
    return { line, share: covariance / variance }
  }).sort((a, b) => b.share - a.share)
}

/**
 * The one or two weighings that would narrow a total most: one when it settles the verdict or brings most of what
 * two would, otherwise two. Null when nothing is left to weigh. `limit` is the verdict to settle, without mass and sigma.
 */
export function bestNarrowing(counted: readonly Line[], total: Estimate, estimates: LineEstimates, limit: Omit<VerdictInput, 'massG' | 'sigmaG'> | null): Narrowing | null {
  const open = spreadShares(counted.filter(line => line.mass && line.mass.evidence !== 'weighed'), total, estimates)
    .slice(0, triedInPairs).map(entry => entry.line)
  if (open.length === 0) return null
  const singles = open.map(line => tryOut([line], total, estimates, limit)).sort(byUse)
  const single = singles[0]!
  if (single.settles || open.length === 1) return single
  const pairs: Narrowing[] = []
  for (let i = 0; i < open.length; i++) {
    for (let j = i + 1; j < open.length; j++) pairs.push(tryOut([open[i]!, open[j]!], total, estimates, limit))
  }
  const pair = pairs.sort(byUse)[0]!
  return pair.settles || pair.spreadAfterG < 0.9 * single.spreadAfterG ? pair : single
}

function byUse(a: Narrowing, b: Narrowing): number {
  return Number(b.settles) - Number(a.settles) || a.spreadAfterG - b.spreadAfterG
}

function tryOut(lines: Line[], total: Estimate, estimates: LineEstimates, limit: Omit<VerdictInput, 'massG' | 'sigmaG'> | null): Narrowing {
  let after = total
  for (const line of lines) {
    const now = estimates.of(line)
    after = addEstimates([subtractEstimates(after, now), asIfWeighed(line, now.valueG)])
  }
  const wordAfter = limit ? judge({ ...limit, massG: after.valueG, sigmaG: sigmaG(after) }).word : null
  return {
    lines, spreadBeforeG: spreadG(total), spreadAfterG: spreadG(after), wordAfter,
    settles: wordAfter !== null && wordAfter !== 'Too close to call',
  }
}
