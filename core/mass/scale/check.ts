import { CoreInputError, requireFinite, requireNotNegative } from '../../basics/errors'
import { rectangularSigma } from '../../maths/estimate'
import { coverageFactor95, studentQuantile975, sumCompensated } from '../../maths/numbers'
import { repeatabilityOf, type Placing, type Scale } from './types'

/** What a check says: display = level + gain · mass. */
export interface CheckResult {
  readonly gain: number
  readonly levelG: number
  /** Mean of the reference masses placed, grams: where the line is best known. */
  readonly meanMassG: number
  readonly placings: number
  /** Standard uncertainty of the gain from the display alone (repeatability and rounding). */
  readonly noiseSigma: number
  /** Signed part of the gain's uncertainty a reference is answerable for, by reference id; the cause is that it is lighter than said. */
  readonly references: Readonly<Record<string, number>>
  /** How far each reference moves the masses the line goes through on the average, grams, with the same sign. */
  readonly referenceLevelsG: Readonly<Record<string, number>>
  /** Standard uncertainty of the gain, everything together. */
  readonly gainSigma: number
  /** Half-width of what a straight line leaves over, grams; 0 for fewer than three different masses. */
  readonly linearityG: number
}

/**
 * In a check one placing is taken to repeat no better than this share of a step: repeats on one step of the display do
 * not average the rounding away.
 */
const leastNoiseSteps = 0.3
const leastGain = 0.8
const mostGain = 1.25

/**
 * Level and gain of a scale by least squares over the placings of a check; at least two different masses, the empty pan
 * being one. Throws {@link CoreInputError} on fewer and on a gain that no scale has.
 * Source: ordinary least squares; tolerances are rectangular and belong to their reference.
 *
 * @example a zero and one 50.000 ± 0.010 g reference displayed 50.11 (d 0.01, s 0.008): gain 1.0022, sigma 2.66943e-4
 */
export function evaluateCheck(
  scale: Pick<Scale, 'resolutionG' | 'repeatabilityG'>,
  placings: readonly Placing[],
): CheckResult {
  const where = 'evaluateCheck'
  const masses = placings.map(({ references, displayG }) => {
    requireFinite(where, 'displayG', displayG)
    for (const { massG, toleranceG } of references) {
      requireNotNegative(where, 'massG', massG)
      requireNotNegative(where, 'toleranceG', toleranceG)
    }
    return sumCompensated(references.map(r => r.massG))
  })
  const count = placings.length
  const meanMassG = count === 0 ? 0 : sumCompensated(masses) / count
  const meanDisplayG = count === 0 ? 0 : sumCompensated(placings.map(p => p.displayG)) / count
  const spreadG2 = sumCompensated(masses.map(m => (m - meanMassG) ** 2))
  if (!(spreadG2 > 1e-9))
    throw new CoreInputError(where, 'placings', count, {
      is: 'at least',
      count: 2,
      of: 'different masses (the empty pan is one)',
    })
  const gain = sumCompensated(placings.map((p, i) => (masses[i]! - meanMassG) * (p.displayG - meanDisplayG))) / spreadG2
  if (!(gain >= leastGain && gain <= mostGain))
    throw new CoreInputError(where, 'gain', gain.toFixed(4), {
      is: 'fitting',
      what: 'near 1: check that each display belongs to its mass',
    })
  const levelG = meanDisplayG - gain * meanMassG

  const noiseSigma = Math.sqrt((noiseInCheckG(scale) ** 2 + scale.resolutionG ** 2 / 12) / spreadG2)
  const references: Record<string, number> = {}
  const referenceLevelsG: Record<string, number> = {}
  placings.forEach((placing, i) => {
    for (const { id, toleranceG } of placing.references) {
      if (toleranceG === 0) continue
      references[id] =
        (references[id] ?? 0) + (gain * (masses[i]! - meanMassG) * rectangularSigma(toleranceG)) / spreadG2
      referenceLevelsG[id] = (referenceLevelsG[id] ?? 0) + rectangularSigma(toleranceG) / count
    }
  })
  const gainSigma = Math.sqrt(sumCompensated([noiseSigma ** 2, ...Object.values(references).map(c => c ** 2)]))
  const different = new Set(masses.map(m => m.toFixed(6))).size
  const residualG = Math.max(...placings.map((p, i) => Math.abs(p.displayG - levelG - gain * masses[i]!)))
  const linearityG = different >= 3 ? Math.max(0, residualG - scale.resolutionG / 2) : 0
  return { gain, levelG, meanMassG, placings: count, noiseSigma, references, referenceLevelsG, gainSigma, linearityG }
}

/** Evaluates a check that is about to be kept; also throws when references were placed that the scale does not carry. */
export function admitCheck(
  scale: Pick<Scale, 'resolutionG' | 'repeatabilityG' | 'capacityG'>,
  placings: readonly Placing[],
): CheckResult {
  for (const { references } of placings) {
    const massG = sumCompensated(references.map(r => r.massG))
    if (massG > scale.capacityG)
      throw new CoreInputError('admitCheck', 'placings', massG, { is: 'in range', most: scale.capacityG })
  }
  return evaluateCheck(scale, placings)
}

/** Standard deviation of one placing as a check takes it, grams. */
export function noiseInCheckG(scale: Pick<Scale, 'resolutionG' | 'repeatabilityG'>): number {
  return Math.max(repeatabilityOf(scale), leastNoiseSteps * scale.resolutionG)
}

/** Weight of the prior for a placing's standard deviation, in placings, and the prior itself in steps of the display. */
const priorPlacings = 4
const priorSteps = 0.5

/**
 * The standard deviation to be used for one placing, from the displays of the same thing placed again and again: two or
 * more. A few placings are not trusted as they stand: their spread is blended with half a step, and widened by Student's
 * factor, so that 95 % intervals made with it hold. Grams. Throws on fewer than two displays and on any not finite.
 */
export function repeatabilityFrom(displaysG: readonly number[], resolutionG: number): number {
  const n = displaysG.length
  if (n < 2) throw new CoreInputError('repeatabilityFrom', 'displaysG', n, { is: 'at least', count: 2, of: 'placings' })
  for (const display of displaysG) requireFinite('repeatabilityFrom', 'displaysG', display)
  const mean = sumCompensated(displaysG) / n
  const variance = sumCompensated(displaysG.map(d => (d - mean) ** 2)) / (n - 1)
  const blended = (priorPlacings * (priorSteps * resolutionG) ** 2 + (n - 1) * variance) / (n + 1)
  return Math.sqrt(Math.max(blended, variance * (studentQuantile975(n - 1) / coverageFactor95) ** 2))
}
