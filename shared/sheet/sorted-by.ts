/** A column rows are sorted by, and which way. */
export interface ColumnSort<Column extends string = string> {
  readonly column: Column
  readonly down: boolean
}

/**
 * Rows by one column after another; `keyOf` gives what a row is compared by, null where that is not known. What is not
 * known stands last, whichever way the others go; rows alike stay in the order they had.
 */
export function sortedBy<Row, Column extends string>(
  rows: readonly Row[],
  sorts: readonly ColumnSort<Column>[],
  keyOf: (row: Row, column: Column) => number | string | null,
): readonly Row[] {
  if (sorts.length === 0) return rows
  const keyed = rows.map(row => ({ row, keys: sorts.map(({ column }) => keyOf(row, column)) }))
  keyed.sort((a, b) => {
    for (const [i, { down }] of sorts.entries()) {
      const [x, y] = [a.keys[i]!, b.keys[i]!]
      if (x === y) continue
      if (x === null || y === null) return x === null ? 1 : -1
      return (x < y ? -1 : 1) * (down ? -1 : 1)
    }
    return 0
  })
  return keyed.map(({ row }) => row)
}

/** How a column is sorted once its head is pressed: upwards, downwards, not at all; the other way first where that is asked. */
export function sortPressed<Column extends string>(
  was: ColumnSort<Column> | undefined,
  column: Column,
  downFirst = false,
): ColumnSort<Column> | undefined {
  if (was?.column !== column) return { column, down: downFirst }
  return was.down === downFirst ? { column, down: !downFirst } : undefined
}

/** What the head of a column says of the order, in the words assistive programs read. */
export const sortOf = (sort: ColumnSort | undefined, column: string): 'ascending' | 'descending' | 'none' =>
  sort?.column === column ? (sort.down ? 'descending' : 'ascending') : 'none'
