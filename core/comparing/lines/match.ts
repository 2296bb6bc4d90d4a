import type { Line } from '../../model/ledger'

/** One row of a comparison: the line that stands there in each column, null where a column has none. */
export type MatchedLines = readonly (Line | null)[]

/** What two lines may have in common, the surest first. Each is tried on what the ones before have left. */
const sameness: readonly ((line: Line) => string | null)[] = [
  line => `line ${line.id} ${line.slot}`,
  line => (line.partId === null ? null : `part ${line.partId} ${line.slot}`),
  line => `name ${line.name.trim().toLowerCase()} ${line.slot} ${line.role}`,
]
/** What is left of a slot when its places are told apart: a camera that was swapped is one row. */
const slotOf = (line: Line) => `slot ${line.slot}`

/** A place on the craft, mm. */
export interface Spot {
  readonly xMm: number
  readonly yMm: number
  readonly zMm: number
}
/** Where a line of a column sits; null where nobody has said. */
export type SpotOf = (column: number, lineId: string) => Spot | null
/** Farther apart are two places, mm. Our choice: half the length of a small board. */
const samePlaceMm = 15

/**
 * Lines of several crafts, or of several days of one, side by side: a line stands beside the one with its id, else beside
 * the same part of the drawer, else beside one of its slot and name, else beside the nearest of its slot that sits in the same
 * place, else beside what has its slot, in order of the ledger.
 * Every line stands in exactly one row. Rows are in order of the first column they stand in.
 */
export function matchLines(columns: readonly (readonly Line[])[], spotOf: SpotOf = () => null): MatchedLines[] {
  const rows: (Line | null)[][] = []
  for (const [at, lines] of columns.entries()) {
    const open = new Set(rows.filter(row => row.some(line => line !== null)))
    let left: readonly Line[] = lines
    for (const keyOf of sameness) left = putBeside(left, open, keyOf, at)
    left = putNear(left, open, spotOf, at)
    left = putBeside(left, open, slotOf, at)
    for (const line of left) rows.push(columns.map((_column, i) => (i === at ? line : null)))
  }
  return rows
}

/** Puts lines into rows that have the same key; gives back those that found none. */
function putBeside(
  lines: readonly Line[],
  open: Set<(Line | null)[]>,
  keyOf: (line: Line) => string | null,
  at: number,
): readonly Line[] {
  const waiting = new Map<string, (Line | null)[][]>()
  for (const row of open)
    for (const key of new Set(row.flatMap(line => (line ? (keyOf(line) ?? []) : []))))
      waiting.set(key, [...(waiting.get(key) ?? []), row])
  return lines.filter(line => {
    const key = keyOf(line)
    const row = key === null ? undefined : waiting.get(key)?.find(one => open.has(one))
    if (!row) return true
    row[at] = line
    open.delete(row)
    return false
  })
}

/** Puts lines into rows of their slot that sit in the same place, the nearest pairs first; gives back those that found none. */
function putNear(lines: readonly Line[], open: Set<(Line | null)[]>, spotOf: SpotOf, at: number): readonly Line[] {
  const bySlot = new Map<string, (Line | null)[][]>()
  const pairs = lines.flatMap(line => {
    const spot = spotOf(at, line.id)
    if (!spot) return []
    const ofSlot = bySlot.get(line.slot) ?? [...open].filter(row => row.some(other => other?.slot === line.slot))
    bySlot.set(line.slot, ofSlot)
    return ofSlot.flatMap(row => {
      const apart = row.flatMap((other, column) => {
        const there = other && other.slot === line.slot ? spotOf(column, other.id) : null
        return there ? [Math.hypot(there.xMm - spot.xMm, there.yMm - spot.yMm, there.zMm - spot.zMm)] : []
      })
      const mm = Math.min(...apart)
      return mm <= samePlaceMm ? [{ line, row, mm }] : []
    })
  })
  const placed = new Set<Line>()
  for (const { line, row } of pairs.sort((a, b) => a.mm - b.mm)) {
    if (placed.has(line) || !open.has(row)) continue
    row[at] = line
    open.delete(row)
    placed.add(line)
  }
  return lines.filter(line => !placed.has(line))
}
