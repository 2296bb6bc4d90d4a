import { CoreInputError, requireFinite } from '../../basics/errors'
import {
  addEstimates,
  estimateOf,
  rectangularSigma,
  scaleEstimate,
  subtractEstimates,
  type Estimate,
} from '../../maths/estimate'
import { sumCompensated } from '../../maths/numbers'
import { noiseInCheckG, type CheckResult } from './check'
import { repeatabilityOf, type Scale } from './types'

/** An unchecked scale may be wrong by this fraction either way (rectangular). */
export const uncheckedGainHalfWidth = 0.003

/** The scale as it stood when something was weighed: its own facts and the check in force, null when never checked. */
export interface ScaleState {
  readonly scale: Pick<Scale, 'id' | 'resolutionG' | 'repeatabilityG' | 'capacityG'>
  readonly check: { readonly id: string; readonly result: CheckResult } | null
}

/** One weighing: what was displayed for each separate placing of the same thing, and against which tare. */
export interface Capture {
  /** Names the cause that is this weighing's own. */
  readonly id: string
  /** Displays of separate placings, grams; samples of one placing are one display. */
  readonly displaysG: readonly number[]
  /** What the scale showed with the tare on it (0 after the zero key); null when there was none: the check's level is used. */
  readonly tare: { readonly id: string; readonly displayG: number } | null
}

/**
 * The mass of what was on the pan from one tared or untared weighing, with its causes: the weighing's own, the tare
 * (shared by everything weighed on it) or the check's level, the check's gain and its references.
 * A scale that reads more than we think makes the truth less: gain parts are negative. Unit: grams.
 * Throws without a display, on one over the capacity, and on anything not finite.
 *
 * @example 3 placings of net mean 17.46, gain 1.0022 as in evaluateCheck: 17.421672 g, u 0.011094
 */
export function weighedEstimate(state: ScaleState, capture: Capture): Estimate {
  const { scale, check } = state
  const { id, displaysG, tare } = capture
  if (displaysG.length === 0)
    throw new CoreInputError('weighedEstimate', 'displaysG', displaysG.length, {
      is: 'at least',
      count: 1,
      of: 'display',
    })
  for (const display of displaysG) requireFinite('weighedEstimate', 'displaysG', display)
  const repeatability = repeatabilityOf(scale)
  const digit = scale.resolutionG ** 2 / 12
  const gain = check?.result.gain ?? 1
  const displayG = sumCompensated(displaysG) / displaysG.length
  const zeroG = tare ? tare.displayG : (check?.result.levelG ?? 0)
  requireFinite('weighedEstimate', 'tare', zeroG)
  const massG = (displayG - zeroG) / gain
  const own = Math.sqrt(repeatability ** 2 / displaysG.length + digit) / gain
  const onePlacing = Math.sqrt(repeatability ** 2 + digit)
  const inCheck = Math.sqrt(noiseInCheckG(scale) ** 2 + digit)
  const contributions: Record<string, number> = { [`weighing:${id}`]: own }
  if (tare) contributions[`tared:${tare.id}`] = onePlacing / gain
  else if (check) contributions[`level:${check.id}`] = inCheck / Math.sqrt(check.result.placings) / gain
  else contributions[`level:${scale.id}:unchecked`] = onePlacing
  if (check && check.result.linearityG > 0)
    contributions[`linearity:${id}`] = rectangularSigma(check.result.linearityG) / gain
  const leverG = check && !tare ? massG - check.result.meanMassG : massG
  for (const [key, partG] of Object.entries(gainParts(state, leverG))) contributions[key] = partG
  // Without a tare the level is the check's, and with it the mean of the references it was made with.
  if (check && !tare)
    for (const id in check.result.referenceLevelsG)
      contributions[`gain:reference:${id}`] =
        (contributions[`gain:reference:${id}`] ?? 0) - check.result.referenceLevelsG[id]!
  return estimateOf(massG, contributions)
}

/** Signed gain parts of a mass that far from where the scale is known, grams. */
function gainParts({ scale, check }: ScaleState, massG: number): Record<string, number> {
  if (!check) return { [`gain:${scale.id}:unchecked`]: -massG * rectangularSigma(uncheckedGainHalfWidth) }
  const { gain, noiseSigma, references } = check.result
  const parts: Record<string, number> = { [`gain:${scale.id}:${check.id}`]: (-massG * noiseSigma) / gain }
  for (const id in references) parts[`gain:reference:${id}`] = (-massG * references[id]!) / gain
  return parts
}

/**
 * A weighing of several lines as an observation `display = mass + Σ dₖzₖ`: the same causes as of a weighed mass, each
 * with the other sign, since here the display is explained by the truth and not the truth by the display.
 */
export function asObserved(weighed: Estimate): Estimate {
  const contributions: Record<string, number> = {}
  for (const key in weighed.contributions) contributions[key] = -weighed.contributions[key]!
  return { valueG: weighed.valueG, contributions }
}

/** Mean of pieces weighed one after another, each its own estimate; for a line it is counted as often as there are pieces. */
export function meanEstimate(pieces: readonly Estimate[]): Estimate {
  if (pieces.length === 0)
    throw new CoreInputError('meanEstimate', 'pieces', 0, { is: 'at least', count: 1, of: 'piece' })
  return scaleEstimate(addEstimates(pieces), 1 / pieces.length)
}

/** Something too heavy for the pan, weighed in parts: the coefficients add. */
export function inLifts(lifts: readonly Estimate[]): Estimate {
  if (lifts.length < 2)
    throw new CoreInputError('inLifts', 'lifts', lifts.length, { is: 'at least', count: 2, of: 'lifts' })
  return addEstimates(lifts)
}

/** What was taken off or put on between two weighings: after minus before, so that gain and a shared tare nearly cancel. */
export function byDifference(before: Estimate, after: Estimate): Estimate {
  return subtractEstimates(after, before)
}

/**
 * How many equal pieces on the pan together bring one piece's standard uncertainty from display and tare under
 * `wantedSigmaG`; the gain's part does not shrink and is not counted. At least 1.
 */
export function piecesFor(scale: Pick<Scale, 'resolutionG' | 'repeatabilityG'>, wantedSigmaG: number): number {
  if (!(wantedSigmaG > 0))
    throw new CoreInputError('piecesFor', 'wantedSigmaG', wantedSigmaG, { is: 'in range', above: 0 })
  const one = Math.sqrt(2 * (repeatabilityOf(scale) ** 2 + scale.resolutionG ** 2 / 12))
  return Math.max(1, Math.ceil(one / wantedSigmaG - 1e-9))
}
