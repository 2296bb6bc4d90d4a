/** A press of a key, as a browser tells it. */
export interface Press {
  readonly key: string
  readonly ctrlKey: boolean
  readonly metaKey: boolean
  readonly altKey: boolean
  readonly shiftKey: boolean
}

/** What typing into a cell begins: a name takes every letter, a figure only what figures are written with. */
export type Typing = 'letters' | 'figures' | 'nothing'

/** What a key does in a grid of cells. */
export type GridAction =
  | { readonly do: 'move'; readonly rows: number; readonly columns: number; readonly wraps: boolean }
  | { readonly do: 'to column'; readonly end: 'first' | 'last' }
  | { readonly do: 'to row'; readonly end: 'first' | 'last' }
  | { readonly do: 'edit'; readonly text: string | null }
  | { readonly do: 'move row'; readonly by: -1 | 1 }
  | { readonly do: 'delete' | 'duplicate' | 'undo' | 'redo' | 'choose' }

/** Rows that a page of the grid moves by. */
const pageRows = 10

const arrows: Readonly<Record<string, readonly [rows: number, columns: number]>> = {
  ArrowDown: [1, 0],
  ArrowUp: [-1, 0],
  ArrowRight: [0, 1],
  ArrowLeft: [0, -1],
  PageDown: [pageRows, 0],
  PageUp: [-pageRows, 0],
}

/**
 * Whether a key begins to write into a cell. In figure cells only figures do, so that single-key shortcuts keep working
 * there; in names every letter does but what finds and helps.
 */
export function startsTyping(press: Press, typing: Typing): boolean {
  if (press.ctrlKey || press.metaKey || press.altKey || press.key.length !== 1) return false
  if (typing === 'letters') return !'/? '.includes(press.key)
  return typing === 'figures' && /[\d.,~±]/.test(press.key)
}

function withControl({ key, shiftKey }: Press): GridAction | null {
  if (key === 'Home' || key === 'End') return { do: 'to row', end: key === 'Home' ? 'first' : 'last' }
  if (key.toLowerCase() === 'd') return { do: 'duplicate' }
  if (key.toLowerCase() === 'z') return { do: shiftKey ? 'redo' : 'undo' }
  return null
}

/** What a key does while no cell is being edited; null where it is nothing to the grid. */
export function gridAction(press: Press, typing: Typing): GridAction | null {
  const { key } = press
  if (press.altKey)
    return key === 'ArrowUp' || key === 'ArrowDown' ? { do: 'move row', by: key === 'ArrowUp' ? -1 : 1 } : null
  if (press.ctrlKey || press.metaKey) return withControl(press)
  const arrow = arrows[key]
  if (arrow) return { do: 'move', rows: arrow[0], columns: arrow[1], wraps: arrow[1] !== 0 }
  if (key === 'Tab') return { do: 'move', rows: 0, columns: press.shiftKey ? -1 : 1, wraps: true }
  if (key === 'Home' || key === 'End') return { do: 'to column', end: key === 'Home' ? 'first' : 'last' }
  if (key === 'Enter' || key === 'F2') return { do: 'edit', text: null }
  if (key === 'Delete') return { do: 'delete' }
  if (key === ' ') return { do: 'choose' }
  return startsTyping(press, typing) ? { do: 'edit', text: key } : null
}

/** What an editor holds: what the cell held, all of it chosen (`whole`), or what was typed so far. */
export interface CellDraft {
  readonly text: string
  readonly whole: boolean
}

/**
 * What a key does to a cell whose editor is only just opening, so that it is not lost: keep what was typed, leave it, or
 * hold more. Null where it is nothing to it.
 */
export function draftAction(press: Press, draft: CellDraft, typing: Typing): 'keep' | 'leave' | CellDraft | null {
  if (press.key === 'Enter') return 'keep'
  if (press.key === 'Escape') return 'leave'
  if (!startsTyping(press, typing)) return null
  return { text: draft.whole ? press.key : draft.text + press.key, whole: false }
}

/** The cell so many rows and columns away, kept within the grid; `wraps` goes on in the next row at the end of one. */
export function cellAway<C extends string>(
  from: { readonly row: number; readonly column: C },
  { rows, columns: by, wraps }: { readonly rows: number; readonly columns: number; readonly wraps: boolean },
  rowCount: number,
  columns: readonly C[],
): { readonly row: number; readonly column: C } {
  const within = (value: number, count: number) => Math.min(Math.max(value, 0), count - 1)
  const row = within(from.row + rows, rowCount)
  const column = columns.indexOf(from.column) + by
  if (wraps && column >= columns.length && row < rowCount - 1) return { row: row + 1, column: columns[0]! }
  if (wraps && column < 0 && row > 0) return { row: row - 1, column: columns.at(-1)! }
  return { row, column: columns[within(column, columns.length)]! }
}
