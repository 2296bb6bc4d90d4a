import type { Line } from '#core/model/ledger'
import type { Estimate } from '#core/maths/estimate'

/** Some lines of the strip that stand side by side, moved together by those before them. */
export interface StripBlock {
  readonly lines: readonly Line[]
  readonly estimates: readonly Estimate[]
  /** Grams before its first line. */
  readonly fromG: number
  /** Segments drawn before it. */
  readonly firstIndex: number
  readonly drawn: number
}

/** So many lines move as one when a line before them changes its grams. Our choice: both counts stay small at 400 lines. */
const linesInBlock = 16

/** A line has a segment when it has grams. */
export const isDrawn = (line: Line, { valueG }: Estimate) => line.mass !== null && valueG > 0

const sameItems = (a: readonly unknown[], b: readonly unknown[]) =>
  a.length === b.length && a.every((x, i) => x === b[i])

/**
 * The lines of the groups in order, in blocks that begin anew with each group. What a block holds is the same as before
 * where its lines and their estimates are, so that it need not be drawn again.
 */
export function stripBlocks(
  groups: readonly { readonly lines: readonly Line[] }[],
  estimateOf: (line: Line) => Estimate,
  before: readonly StripBlock[] = [],
): StripBlock[] {
  const blocks: StripBlock[] = []
  let fromG = 0
  let firstIndex = 0
  for (const { lines: all } of groups)
    for (let at = 0; at < all.length; at += linesInBlock) {
      const old = before[blocks.length]
      let lines: readonly Line[] = all.slice(at, at + linesInBlock)
      let estimates: readonly Estimate[] = lines.map(estimateOf)
      const isAsBefore = old && sameItems(lines, old.lines) && sameItems(estimates, old.estimates)
      if (isAsBefore) ({ lines, estimates } = old)
      const drawn = lines.filter((line, i) => isDrawn(line, estimates[i]!)).length
      blocks.push({ lines, estimates, fromG, firstIndex, drawn })
      fromG += estimates.reduce((sum, { valueG }) => sum + valueG, 0)
      firstIndex += drawn
    }
  return blocks
}
