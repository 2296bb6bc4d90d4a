import { exactly, sigmaG, subtractEstimates, type Estimate } from '../../maths/estimate'
import { coverageFactor95 } from '../../maths/numbers'
import { countedLines, type LineEstimates } from '../../mass/loadout'
import type { Build, Line, LoadoutChoice, PiecePlace } from '../../model/ledger'
import { matchLines, type MatchedLines, type Spot } from './match'

/** One column of a comparison: a build, or a day of one, in the loadout that is looked at, with its estimates. */
export interface Compared {
  readonly build: Build
  readonly choice: LoadoutChoice
  readonly estimates: LineEstimates
}

/** How one column differs from another in a row, or in all. */
export interface Difference {
  readonly valueG: number
  /** Standard uncertainty; what both share, such as the gain of one scale, cancels. */
  readonly sigmaG: number
}

export interface ComparedRow {
  readonly lines: MatchedLines
  /** What each column has there, grams; null where it has no line, 0 where nobody has said what it weighs. */
  readonly grams: readonly (Estimate | null)[]
  /** From the first column to each; the first of them is nothing. */
  readonly differences: readonly Difference[]
}

export interface Comparison {
  readonly rows: readonly ComparedRow[]
  readonly totals: readonly Estimate[]
  readonly differences: readonly Difference[]
}

const none = exactly(0)
const differenceOf = (from: Estimate, to: Estimate): Difference => {
  const change = subtractEstimates(to, from)
  return { valueG: change.valueG, sigmaG: sigmaG(change) }
}

/** The middle of the pieces of each line somebody has placed. */
function spotsOf({ places }: Build): ReadonlyMap<string, Spot> {
  const pieces = new Map<string, PiecePlace[]>()
  for (const piece of places?.pieces ?? []) pieces.set(piece.lineId, [...(pieces.get(piece.lineId) ?? []), piece])
  const middle = (all: readonly PiecePlace[], of: (piece: PiecePlace) => number) =>
    all.reduce((sum, piece) => sum + of(piece), 0) / all.length
  return new Map(
    [...pieces].map(([lineId, all]) => [
      lineId,
      { xMm: middle(all, p => p.xMm), yMm: middle(all, p => p.yMm), zMm: middle(all, p => p.zMm) },
    ]),
  )
}

/**
 * What flies of two or more crafts (or days of one) beside each other, line by line, with differences from the first.
 * The differences of the rows add up to the difference of the totals.
 */
export function compareLines(columns: readonly Compared[]): Comparison {
  const counted = columns.map(({ build, choice }) => countedLines(build, choice))
  const spots = columns.map(({ build }) => spotsOf(build))
  const rows = matchLines(counted, (column, lineId) => spots[column]!.get(lineId) ?? null).map((lines): ComparedRow => {
    const grams = lines.map((line, i) => (line ? columns[i]!.estimates.of(line) : null))
    return { lines, grams, differences: grams.map(gram => differenceOf(grams[0] ?? none, gram ?? none)) }
  })
  const totals = counted.map((lines, i) => columns[i]!.estimates.sum(lines))
  return { rows, totals, differences: totals.map(total => differenceOf(totals[0]!, total)) }
}

/** How far columns lie apart in a row, grams. */
export const farthestG = ({ differences }: ComparedRow): number =>
  Math.max(...differences.map(({ valueG }) => valueG)) - Math.min(...differences.map(({ valueG }) => valueG))

/** Rows by how far their columns lie apart, the farthest first; of the same distance in their order. */
export function farthestFirst(rows: readonly ComparedRow[]): ComparedRow[] {
  return [...rows].sort((a, b) => farthestG(b) - farthestG(a))
}

/** A row that names what differs: the line of the last column that has one. */
export const namedBy = ({ lines }: Pick<ComparedRow, 'lines'>): Line => lines.findLast(line => line !== null)!

/**
 * The rows that explain the difference of a column from the first: the largest ones by themselves, until what is left is
 * inside the spread of the whole difference, at 95 %.
 */
export function explaining(
  { rows, differences }: Comparison,
  column: number,
): { readonly rows: readonly ComparedRow[]; readonly restG: number; readonly spreadG: number } {
  const whole = differences[column]!
  const spreadG = coverageFactor95 * whole.sigmaG
  const sorted = rows
    .filter(row => row.differences[column]!.valueG !== 0)
    .sort((a, b) => Math.abs(b.differences[column]!.valueG) - Math.abs(a.differences[column]!.valueG))
  const taken: ComparedRow[] = []
  let restG = whole.valueG
  for (const row of sorted) {
    if (Math.abs(restG) <= spreadG) break
    taken.push(row)
    restG -= row.differences[column]!.valueG
  }
  return { rows: taken, restG, spreadG }
}
