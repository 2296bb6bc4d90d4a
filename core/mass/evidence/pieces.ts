import { CoreInputError } from '../../basics/errors'
import { sumCompensated } from '../../maths/numbers'

/** Pieces of one product are taken to differ by 1 % of their mass, worth four pieces of experience. */
const priorPieceFraction = 0.01
const priorPieceWeight = 4

/** Sample variance of the readings, g²; 0 for fewer than two. */
function sampleVarianceG2(readingsG: readonly number[]): number {
  if (readingsG.length < 2) return 0
  const meanG = sumCompensated(readingsG) / readingsG.length
  return sumCompensated(readingsG.map(m => (m - meanG) ** 2)) / (readingsG.length - 1)
}

/**
 * Standard deviation between pieces in grams, sₚ: the prior of 1 % blended with the spread of `readingsG`
 * (one entry a piece weighed by itself). Throws without readings or with a negative one.
 *
 * @example betweenPieceSigmaG([6.91, 6.88, 6.97]) // 0.062389
 */
export function betweenPieceSigmaG(readingsG: readonly number[]): number {
  const k = readingsG.length
  if (k < 1)
    throw new CoreInputError('betweenPieceSigmaG', 'readingsG', readingsG, { is: 'at least', count: 1, of: 'reading' })
  for (const m of readingsG) {
    if (!(m >= 0)) throw new CoreInputError('betweenPieceSigmaG', 'readingsG', m, { is: 'in range', least: 0 })
  }
  const meanG = sumCompensated(readingsG) / k
  const prior = priorPieceWeight * (priorPieceFraction * meanG) ** 2
  return Math.sqrt((prior + (k - 1) * sampleVarianceG2(readingsG)) / (priorPieceWeight - 1 + k))
}

/**
 * The own part in grams of `used` pieces that were never on a scale, known by `weighed` others of which the mean was taken:
 * `sₚ·√(n + n²/k)`.
 *
 * @example twinPartG(4, 4, 0.0624) // 0.1765: twice the part of four by themselves, √2 of it for the mean of the others
 */
export function twinPartG(used: number, weighed: number, pieceSigmaG: number): number {
  if (!(used >= 1)) throw new CoreInputError('twinPartG', 'used', used, { is: 'in range', least: 1 })
  if (!(weighed >= 1)) throw new CoreInputError('twinPartG', 'weighed', weighed, { is: 'in range', least: 1 })
  return pieceSigmaG * Math.sqrt(used + used ** 2 / weighed)
}

/**
 * The between-piece part in grams of a line of `used` pieces of which `weighed` were weighed
 * (or counted together): `n·sₚ·√|1/k − 1/n|`, 0 when they are the same pieces.
 *
 * @example betweenPiecePartG(4, 1, 0.01) // 0.034641 for one of four 1.00 g pieces
 */
export function betweenPiecePartG(used: number, weighed: number, pieceSigmaG: number): number {
  if (!(used >= 1)) throw new CoreInputError('betweenPiecePartG', 'used', used, { is: 'in range', least: 1 })
  if (!(weighed >= 1)) throw new CoreInputError('betweenPiecePartG', 'weighed', weighed, { is: 'in range', least: 1 })
  return used * pieceSigmaG * Math.sqrt(Math.abs(1 / weighed - 1 / used))
}
