/** By which column a table is sorted, and which way; without a key its rows stand in their own order. */
export interface ColumnOrder {
  readonly key: string
  readonly down: boolean
}

/** Rows by a value of theirs; those whose value is not known stand last, whichever way the others go. */
export function inOrder<T>(rows: readonly T[], valueOf: (row: T) => number | string | null, down: boolean): T[] {
  const compare = (a: T, b: T): number => {
    const [x, y] = [valueOf(a), valueOf(b)]
    if (x === null || y === null) return Number(x === null) - Number(y === null)
    return (x < y ? -1 : x > y ? 1 : 0) * (down ? -1 : 1)
  }
  return [...rows].sort(compare)
}

/** The order once a column's head is chosen: the other way round where it has that column already. */
export const turned = (order: ColumnOrder, key: string, downFirst = false): ColumnOrder =>
  order.key === key ? { key, down: !order.down } : { key, down: downFirst }

/** What the head of a column says of the order, in the words assistive programs read. */
export const sortOf = (order: ColumnOrder, key: string): 'ascending' | 'descending' | 'none' =>
  order.key === key ? (order.down ? 'descending' : 'ascending') : 'none'
