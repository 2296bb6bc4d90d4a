import { CoreInputError, requireFinite, requireNotNegative } from '../../basics/errors'
import { normalCdf, normalQuantile, coverageFactor95 } from '../../maths/numbers'

/** One-sided confidence a verdict asks for until somebody says otherwise. Our choice: one in twenty may be wrong. */
export const usualConfidence = 0.95

/** How a limit is worded: `<` is "less than", `<=` is "at most". */
export type Comparator = '<' | '<='

export const verdictWords = ['Clear', 'Too close to call', 'Over'] as const
export type VerdictWord = (typeof verdictWords)[number]

/** Comparisons are made with this tolerance, grams: decimal grams must add up as they do on paper. */
export const comparisonToleranceG = 1e-9

export interface VerdictInput {
  /** Mean all-up weight, grams. */
  massG: number
  /** One standard uncertainty of it, grams, zero or more. */
  sigmaG: number
  limitG: number
  comparator: Comparator
  /** One-sided confidence asked for, 0.5 to less than 1. */
  confidence: number
}

export interface Verdict {
  readonly word: VerdictWord
  /** Limit minus mass, grams; negative when over. */
  readonly headroomG: number
  /** Guard band k·u, grams. */
  readonly guardG: number
  /** Probability that the true mass passes the limit's wording. */
  readonly probability: number
  /** The largest ± (95 %, grams) with which this mass would be Clear; null when no spread would do. */
  readonly clearSpreadG: number | null
}

/**
 * How far a Clear mass with its guard band reaches into a reserve that is to be kept free under the limit, grams: 0 where all
 * of it is free, null where the mass is not Clear. The word is judged by the limit alone; what counts as clear, filters or
 * plans by it keeps the reserve free.
 */
export function intoReserveG(verdict: Verdict, reserveG: number): number | null {
  if (verdict.word !== 'Clear') return null
  const intoG = reserveG - (verdict.headroomG - verdict.guardG)
  return intoG > comparisonToleranceG ? intoG : 0
}

function passes(massG: number, limitG: number, comparator: Comparator): boolean {
  const excessG = massG - limitG
  return comparator === '<=' ? excessG <= comparisonToleranceG : excessG < -comparisonToleranceG
}

/**
 * The measured verdict on a mass against a limit, with a guard band of k·u (k = Φ⁻¹(confidence), one-sided).
 * Clear when mass + guard still passes the limit; Over when mass − guard already fails it; otherwise too close to call.
 * Throws when anything is not finite, sigma is negative, or confidence lies outside [0.5, 1).
 * Source: JCGM 106:2012, guarded acceptance and guarded rejection.
 *
 * @example judge({ massG: 247.9, sigmaG: 0.8, limitG: 249.4758, comparator: '<=', confidence: 0.95 }).probability // 0.97557
 */
export function judge({ massG, sigmaG, limitG, comparator, confidence }: VerdictInput): Verdict {
  requireFinite('judge', 'massG', massG)
  requireFinite('judge', 'limitG', limitG)
  requireNotNegative('judge', 'sigmaG', sigmaG)
  if (!(confidence >= 0.5 && confidence < 1))
    throw new CoreInputError('judge', 'confidence', confidence, { is: 'in range', least: 0.5, under: 1 })
  const k = guardFactor(confidence)
  const guardG = k * sigmaG
  const headroomG = limitG - massG
  let word: VerdictWord = 'Too close to call'
  if (passes(massG + guardG, limitG, comparator)) word = 'Clear'
  else if (!passes(massG - guardG, limitG, comparator)) word = 'Over'
  return {
    word,
    headroomG,
    guardG,
    probability: passProbability(massG, sigmaG, limitG, comparator),
    clearSpreadG: clearSpread(headroomG, k, massG, limitG, comparator),
  }
}

let lastFactor = { confidence: 0.5, k: 0 }
/** k = Φ⁻¹(confidence), kept from the last call: a sheet of loadouts is judged at one confidence. */
function guardFactor(confidence: number): number {
  if (lastFactor.confidence !== confidence) lastFactor = { confidence, k: normalQuantile(confidence) }
  return lastFactor.k
}

function passProbability(massG: number, sigmaG: number, limitG: number, comparator: Comparator): number {
  if (sigmaG === 0) return passes(massG, limitG, comparator) ? 1 : 0
  return normalCdf((limitG - massG) / sigmaG)
}

function clearSpread(
  headroomG: number,
  k: number,
  massG: number,
  limitG: number,
  comparator: Comparator,
): number | null {
  if (!passes(massG, limitG, comparator)) return null
  // Without a guard no spread is too much: there is nothing to be said of it.
  if (k === 0) return null
  return (Math.max(headroomG, 0) / k) * coverageFactor95
}
