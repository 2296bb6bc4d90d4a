import { drawerColumns, type DrawerColumn } from './drawer-cells'
import { sortPressed, type ColumnSort } from './sorted-by'

/** How somebody wants the columns of the drawer: which are hidden, how wide, sorted by what first, second … */
export interface ColumnLayout {
  readonly hidden: readonly DrawerColumn[]
  readonly widths: Readonly<Partial<Record<DrawerColumn, number>>>
  readonly sorts: readonly ColumnSort<DrawerColumn>[]
}
export const plainLayout: ColumnLayout = { hidden: [], widths: {}, sorts: [] }

/** The column that names the part stays. */
export const fixedColumn: DrawerColumn = 'name'
/** Widths in px. */
const narrowest = 44
const widest = 640
const usualWidths: Readonly<Record<DrawerColumn, string>> = {
  slot: '94px',
  name: 'minmax(150px, 1.4fr)',
  facts: 'minmax(120px, 1fr)',
  grams: '62px',
  known: '92px',
  owned: '62px',
  left: '86px',
  price: '76px',
}
const isColumn = (value: unknown): value is DrawerColumn =>
  typeof value === 'string' && (drawerColumns as readonly string[]).includes(value)

/** What was kept of a layout, as far as it can be read: a browser may hold what an earlier version wrote. */
export function readLayout(kept: unknown): ColumnLayout {
  if (typeof kept !== 'object' || kept === null) return plainLayout
  const { hidden, widths, sorts } = kept as Record<string, unknown>
  const list = (value: unknown) => (Array.isArray(value) ? (value as unknown[]) : [])
  return {
    hidden: list(hidden)
      .filter(isColumn)
      .filter(column => column !== fixedColumn),
    widths: Object.fromEntries(
      Object.entries(typeof widths === 'object' && widths !== null ? widths : {}).filter(
        ([column, width]) => isColumn(column) && typeof width === 'number' && width >= narrowest && width <= widest,
      ),
    ),
    sorts: list(sorts).flatMap(sort => {
      const { column, down } = (sort ?? {}) as Record<string, unknown>
      return isColumn(column) ? [{ column, down: down === true }] : []
    }),
  }
}

export const shownColumns = ({ hidden }: ColumnLayout): readonly DrawerColumn[] =>
  drawerColumns.filter(column => !hidden.includes(column))

/** The tracks of the grid, behind the ticks. */
export const columnTracks = (layout: ColumnLayout): string =>
  shownColumns(layout)
    .map(column => {
      const width = layout.widths[column]
      return width === undefined ? usualWidths[column] : `${width}px`
    })
    .join(' ')

export function withHidden(layout: ColumnLayout, column: DrawerColumn, isHidden: boolean): ColumnLayout {
  if (column === fixedColumn) return layout
  const others = layout.hidden.filter(other => other !== column)
  return {
    ...layout,
    hidden: isHidden ? [...others, column] : others,
    sorts: isHidden ? layout.sorts.filter(sort => sort.column !== column) : layout.sorts,
  }
}

/** A column so many px wide, within what can be read. */
export const withWidth = (layout: ColumnLayout, column: DrawerColumn, width: number): ColumnLayout => ({
  ...layout,
  widths: { ...layout.widths, [column]: Math.round(Math.min(Math.max(width, narrowest), widest)) },
})

/**
 * Sorted by this column: upwards, then downwards, then not. `further` keeps what sorts already, and this column decides
 * where that leaves two rows alike; without it this column decides alone.
 */
export function withSort(layout: ColumnLayout, column: DrawerColumn, further: boolean): ColumnLayout {
  const was = layout.sorts.find(sort => sort.column === column)
  const sort = sortPressed(was, column)
  const next = sort ? [sort] : []
  if (!further) return { ...layout, sorts: next }
  const sorts = was
    ? layout.sorts.flatMap(sort => (sort.column === column ? next : [sort]))
    : [...layout.sorts, ...next]
  return { ...layout, sorts }
}
