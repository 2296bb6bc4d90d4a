import { CoreInputError } from '../../basics/errors'
import { contributionsOf, estimateOf, exactly, rectangularSigma, type Estimate } from '../../maths/estimate'
import { coverageFactor95 } from '../../maths/numbers'
import type { ListingBiasTable } from '../listings'
import type { Mass, Slot, Weighed, Weighing } from '../../model/ledger'
import { uncheckedGainHalfWidth } from '../scale'
import { betweenPiecePartG, betweenPieceSigmaG, twinPartG } from './pieces'

/** Key of the gain of the scale that masses typed as weighed were read on; shared by all of them. */
export const uncheckedGainKey = 'gain:unchecked'

const sharedPrefixes = ['listing:', 'gain:', 'tared:', 'level:']

/** Whether a cause may stand in several lines. All others carry the id of their line's mass version. */
export function isSharedCause(key: string): boolean {
  return sharedPrefixes.some(prefix => key.startsWith(prefix))
}

/** Key of what all parts of a kind share in their listings. */
export function listingKey(slot: string): string {
  return `listing:${slot}`
}

/** Half the range of a guess. Our choice: a guess of a part is right within a fifth, of the smallest within 0.2 g. */
export const guess = { fraction: 0.2, leastG: 0.2 } as const
/**
 * Half the range of grams worked out from dimensions. Our choice: dimensions and densities are known within a twentieth; a
 * screw's head and thread are known less well.
 */
export const workedOut = { fraction: 0.05, screwFraction: 0.1, leastG: 0.02 } as const
export const workedOutFraction = (slot: Slot): number =>
  slot === 'screw' ? workedOut.screwFraction : workedOut.fraction

/**
 * The estimate of a whole line (all pieces), from its present mass and the default pedigree of its evidence.
 * A line without a mass is exactly 0 g: callers count it as open. Unit: grams; one standard uncertainty a coefficient.
 *
 * - guess: rectangular, half-width 20 % or 0.2 g of the line, whichever is larger
 * - typical: rectangular over the class range
 * - listed: times exp(μ) of its kind; σ of its own, √v shared by the kind, half the last listed digit
 * - worked out: rectangular, 5 % (screws 10 %), at least 0.02 g
 * - anything weighed on a scale of the builder's own carries its causes with it
 * - twin: as the piece it was copied from was weighed, and the part of pieces that were not
 * - weighed: one tared reading on an unchecked scale whose resolution is the last digit typed; its repeatability,
 *   which nobody has measured, is taken as one step
 *
 * Throws {@link CoreInputError} on a mass below zero, a quantity below one, or anything not finite.
 */
export function lineEstimate(line: Weighed, honesty: ListingBiasTable): Estimate {
  const { mass, quantity } = line
  if (!mass) return exactly(0)
  const lineG = lineValueG(line, honesty)
  if (mass.ownSpreadG !== null)
    return estimateOf(lineG, { [`product:${mass.versionId}`]: mass.ownSpreadG / coverageFactor95 })
  if (mass.weighing) return scaledWeighing(mass, mass.weighing, quantity)
  switch (mass.evidence) {
    case 'guess':
      return estimateOf(lineG, {
        [`product:${mass.versionId}`]: rectangularSigma(Math.max(guess.fraction * lineG, guess.leastG)),
      })
    case 'typical': {
      const halfRangeG = ((mass.halfRangeG ?? guess.fraction * mass.valueG) * quantity) / mass.valueCount
      return estimateOf(lineG, { [`product:${mass.versionId}`]: rectangularSigma(halfRangeG) })
    }
    case 'listed':
      return listedEstimate(line, mass, lineG, honesty)
    case 'worked out': {
      const halfG = Math.max(workedOutFraction(line.slot) * lineG, workedOut.leastG)
      return estimateOf(lineG, { [`product:${mass.versionId}`]: rectangularSigma(halfG) })
    }
    case 'twin':
    case 'weighed':
      return typedWeighing(mass, quantity)
  }
}

/**
 * The value alone of {@link lineEstimate}, grams: what is listed times exp(μ) of its kind, anything else as it is said.
 * Throws {@link CoreInputError} on what that refuses of a mass and a quantity.
 */
export function lineValueG({ mass, quantity, slot }: Weighed, honesty: ListingBiasTable): number {
  if (!mass) return 0
  requireUsable(mass, quantity)
  const lineG = lineGrams(mass, quantity)
  const asListed = mass.evidence === 'listed' && (mass.ownSpreadG !== null || mass.weighing === null)
  return asListed ? lineG * Math.exp(honesty.of(slot).mu) : lineG
}

/** Grams of `quantity` pieces of a mass, before any listing correction. */
export function lineGrams(mass: Mass, quantity: number): number {
  return mass.valueCount === quantity ? mass.valueG : (mass.valueG * quantity) / mass.valueCount
}

function requireUsable(mass: Mass, quantity: number): void {
  if (!(mass.valueG >= 0) || !Number.isFinite(mass.valueG))
    throw new CoreInputError('lineEstimate', 'valueG', mass.valueG, { is: 'in range', least: 0 })
  if (!(mass.valueCount >= 1))
    throw new CoreInputError('lineEstimate', 'valueCount', mass.valueCount, { is: 'in range', least: 1 })
  if (!(quantity >= 1) || !Number.isFinite(quantity))
    throw new CoreInputError('lineEstimate', 'quantity', quantity, { is: 'in range', least: 1 })
}

function listedEstimate(line: Weighed, mass: Mass, expectedG: number, honesty: ListingBiasTable): Estimate {
  const { ownSigma, sharedSigma } = honesty.of(line.slot)
  return estimateOf(expectedG, {
    [`product:${mass.versionId}`]: expectedG * ownSigma,
    [listingKey(line.slot)]: expectedG * sharedSigma,
    [`digit:${mass.versionId}`]: rectangularSigma((mass.resolutionG / 2) * (line.quantity / mass.valueCount)),
  })
}

/** How many pieces a weighed mass was made from: those weighed one by one, or those on the pan together. */
function weighedPieces(mass: Mass): number {
  return mass.pieceReadingsG?.length ?? mass.valueCount
}

/** Between-piece part of a weighed line, grams; of a twin, the part of pieces that were never on a scale. */
function piecesPart(mass: Mass, quantity: number): number {
  const readingsG = mass.pieceReadingsG ?? [mass.valueG / mass.valueCount]
  const pieceSigmaG = betweenPieceSigmaG(readingsG.map(g => Math.max(g, 0)))
  return mass.evidence === 'twin'
    ? twinPartG(quantity, weighedPieces(mass), pieceSigmaG)
    : betweenPiecePartG(quantity, weighedPieces(mass), pieceSigmaG)
}

/** Key of the between-piece part: that of a twin is told apart, for it goes along when the twin is trimmed. */
const piecesKey = ({ evidence, versionId }: Mass) => `${evidence === 'twin' ? 'twin' : 'pieces'}:${versionId}`

/**
 * Whether a weighing lacks the between-piece part: a twin's unless it came along from what it was trimmed from, else
 * where the pieces are others than those weighed.
 */
function lacksPiecesPart(mass: Mass, { contributions }: Weighing, quantity: number): boolean {
  return mass.evidence === 'twin'
    ? !Object.keys(contributions).some(key => key.startsWith('twin:'))
    : quantity !== weighedPieces(mass)
}

/** A weighing on one of the builder's scales: its causes were worked out when it was taken. */
function scaledWeighing(mass: Mass, weighing: Weighing, quantity: number): Estimate {
  const factor = quantity / mass.valueCount
  const contributions = contributionsOf()
  for (const key in weighing.contributions) contributions[key] = factor * weighing.contributions[key]!
  if (lacksPiecesPart(mass, weighing, quantity)) contributions[piecesKey(mass)] = piecesPart(mass, quantity)
  return estimateOf(lineGrams(mass, quantity), contributions)
}

function typedWeighing(mass: Mass, quantity: number): Estimate {
  const lineG = lineGrams(mass, quantity)
  const factor = quantity / mass.valueCount
  const stepG = mass.resolutionG
  const placings = mass.pieceReadingsG?.length ?? 1
  const digit = stepG ** 2 / 12
  return estimateOf(
    lineG,
    contributionsOf(
      [`reading:${mass.versionId}`, factor * Math.sqrt(stepG ** 2 / placings + digit)],
      [`zero:${mass.versionId}`, factor * Math.sqrt(stepG ** 2 + digit)],
      [uncheckedGainKey, -lineG * rectangularSigma(uncheckedGainHalfWidth)],
      [piecesKey(mass), piecesPart(mass, quantity)],
    ),
  )
}
