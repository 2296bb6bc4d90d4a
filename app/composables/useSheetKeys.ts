import type { Line } from '#core/model/ledger'
import { cellText, editCellAt, sheetColumns, sheetTyping, type SheetColumn } from '#shared/sheet/edit-cell'
import { cellAway, draftAction, gridAction, type GridAction } from '#shared/sheet/grid-keys'

export interface GridCell {
  readonly rowId: string
  readonly column: SheetColumn
}
/** Rows that are chosen: one more or less, all as far as one, none. */
export interface Choosing {
  readonly toggle: (id: string) => void
  readonly reach: (id: string) => void
  readonly clear: () => void
  /** Whether a press on a row chooses it, as a builder without keys wants it. */
  readonly byPress: () => boolean
}
export type Move = 'down' | 'right' | 'left' | 'stay'

/**
 * The cell that has the focus, the editing of it, and the keys of the sheet. `rows` are the lines in the order shown;
 * `grid` is the element whose cells carry data-row and data-col; `choosing` is told which rows are chosen for several at once.
 */
export function useSheetKeys(
  rows: MaybeRefOrGetter<readonly Line[]>,
  grid: Ref<HTMLElement | null>,
  choosing: Choosing,
) {
  const store = useBuildStore()
  const scales = useScalesStore()
  const active = shallowRef<GridCell | null>(null)
  const draft = ref<string | null>(null)
  /** Whether the editor holds what the cell held, all of it chosen; otherwise it holds what was typed so far. */
  const whole = ref(false)
  const problem = ref('')

  const rowIndex = (id: string) => toValue(rows).findIndex(line => line.id === id)
  const lineAt = computed(() => (active.value ? (store.lineOf(active.value.rowId) ?? null) : null))

  const elementOf = ({ rowId, column }: GridCell) =>
    grid.value?.querySelector<HTMLElement>(`[data-row="${rowId}"] [data-col="${column}"]`)

  async function focusCell(cell: GridCell) {
    active.value = cell
    store.selectedId = cell.rowId
    // Before anything is drawn anew: an editor that is removed with the focus in it has the page laid out once more.
    if (draft.value === null) elementOf(cell)?.focus({ preventScroll: true })
    await nextTick()
    // Somebody may have moved on while this cell was being drawn: the last one asked for has the focus.
    if (active.value !== cell || draft.value !== null) return
    const element = elementOf(cell)
    if (element !== document.activeElement) element?.focus({ preventScroll: true })
    element?.scrollIntoView({ block: 'nearest' })
  }

  /** Makes it the cell that is meant without taking the focus from where somebody is typing. */
  async function pointAt(cell: GridCell) {
    active.value = cell
    await nextTick()
    if (active.value === cell) elementOf(cell)?.scrollIntoView({ block: 'nearest' })
  }

  function move(by: { rows: number; columns: number }) {
    const lines = toValue(rows)
    const from = active.value
    if (!from || lines.length === 0) return
    const at = { row: rowIndex(from.rowId), column: from.column }
    const to = cellAway(at, { ...by, wraps: true }, lines.length, sheetColumns)
    focusCell({ rowId: lines[to.row]!.id, column: to.column })
  }

  function edit(text?: string) {
    if (!lineAt.value || !active.value) return
    problem.value = ''
    whole.value = text === undefined
    draft.value = text ?? cellText(lineAt.value, active.value.column)
  }

  function commit(text: string, then: Move) {
    const line = lineAt.value
    const cell = active.value
    if (!line || !cell || draft.value === null) return
    if (text !== cellText(line, cell.column)) {
      const edited = editCellAt(line, cell.column, text, newId(), scales.typed)
      if ('problem' in edited) {
        problem.value = edited.problem
        whole.value = false
        draft.value = text
        return
      }
      if (!store.run({ type: 'lines.change', changes: [{ id: line.id, fields: edited.fields }] })) {
        problem.value = store.refusal
        return
      }
    }
    draft.value = null
    problem.value = ''
    if (then === 'stay') focusCell(cell)
    else if (then === 'down') move({ rows: 1, columns: 0 })
    else move({ rows: 0, columns: then === 'right' ? 1 : -1 })
  }

  /** The line is that part from now on, with its grams and all that is known of it; so many pieces as before. */
  function become(part: Line) {
    const line = lineAt.value
    if (!line || draft.value === null) return
    const { slot, name, mass, listing, priceEachCents, pack, packSoFar, properties, partId } = part
    const fields = { slot, name, mass, listing, priceEachCents, pack, packSoFar, properties, partId }
    const changes = [{ id: line.id, fields, anotherPiece: line.mass !== null }]
    if (store.run({ type: 'lines.change', changes })) {
      stop()
      return
    }
    problem.value = store.refusal
  }

  function stop() {
    draft.value = null
    problem.value = ''
    if (active.value) focusCell(active.value)
  }

  /** Puts a line where another one stands: before it, or after it. */
  function putAt(line: Line, toward: Line, after: boolean) {
    const all = store.build!.lines
    const beforeId = after ? (all[all.indexOf(toward) + 1]?.id ?? null) : toward.id
    if (beforeId !== line.id && store.run({ type: 'lines.move', ids: [line.id], beforeId }))
      focusCell({ rowId: line.id, column: active.value?.column ?? 'name' })
  }

  function moveLine(by: -1 | 1) {
    const line = lineAt.value
    if (!line || !store.build) return
    const lines = toValue(rows)
    const other = lines[rowIndex(line.id) + by]
    if (other) putAt(line, other, by > 0)
  }

  function duplicate() {
    const line = lineAt.value
    if (!line || !store.build) return
    const id = newId()
    const mass = line.mass ? { ...line.mass, versionId: newId() } : null
    const next = store.build.lines[store.build.lines.indexOf(line) + 1]?.id ?? null
    if (store.run({ type: 'lines.add', lines: [{ ...line, id, mass, edition: 0, further: [] }], beforeId: next }))
      focusCell({ rowId: id, column: active.value!.column })
  }

  function toggleOff() {
    const line = lineAt.value
    if (!line || line.state === 'candidate') return
    const rowsNow = toValue(rows)
    const neighbour = rowsNow[rowIndex(line.id) + 1] ?? rowsNow[rowIndex(line.id) - 1]
    store.run({
      type: 'lines.change',
      changes: [{ id: line.id, fields: { state: line.state === 'off' ? 'fitted' : 'off' } }],
    })
    if (neighbour) focusCell({ rowId: line.id, column: active.value!.column })
  }

  const atEnd = (by: number) => active.value!.column === (by < 0 ? sheetColumns[0] : sheetColumns.at(-1))

  /** Does what a key asks for; false where it is left to the browser. */
  function act(action: GridAction, event: KeyboardEvent): boolean {
    const cell = active.value!
    switch (action.do) {
      case 'move':
        if (event.key === 'Tab' && atEnd(action.columns)) return false
        if (event.shiftKey && action.rows !== 0) choosing.reach(cell.rowId)
        move(action)
        if (event.shiftKey && action.rows !== 0) choosing.reach(active.value!.rowId)
        return true
      case 'to column':
        focusCell({ ...cell, column: action.end === 'first' ? sheetColumns[0] : sheetColumns.at(-1)! })
        return true
      case 'to row':
        focusCell({ ...cell, rowId: toValue(rows).at(action.end === 'first' ? 0 : -1)!.id })
        return true
      case 'edit':
        edit(action.text ?? undefined)
        return true
      case 'move row':
        moveLine(action.by)
        return true
      case 'delete':
        toggleOff()
        return true
      case 'duplicate':
        duplicate()
        return true
      case 'undo':
      case 'redo':
        store.step(action.do)
        return true
      case 'choose':
        choosing.toggle(cell.rowId)
        return true
    }
  }

  function onKey(event: KeyboardEvent) {
    if (!active.value) return
    if (draft.value !== null) {
      typeOn(event)
      return
    }
    if (event.key === 'Escape') choosing.clear()
    const action = gridAction(event, sheetTyping[active.value.column])
    if (!action || !act(action, event)) return
    event.preventDefault()
    event.stopPropagation()
  }

  /** A key that meets the cell while its editor is only just opening is not lost. */
  function typeOn(event: KeyboardEvent) {
    if (event.target instanceof HTMLInputElement || event.target instanceof HTMLSelectElement) return
    const action = draftAction(event, { text: draft.value!, whole: whole.value }, sheetTyping[active.value!.column])
    if (action === null) return
    if (action === 'keep') commit(draft.value!, 'down')
    else if (action === 'leave') stop()
    else {
      draft.value = action.text
      whole.value = action.whole
    }
    event.preventDefault()
    event.stopPropagation()
  }

  function onPointer(event: MouseEvent) {
    const cell = event.target instanceof Element ? event.target.closest<HTMLElement>('[data-col]') : null
    const rowId = cell?.closest<HTMLElement>('[data-row]')?.dataset.row
    if (!cell || !rowId || (event.target as Element).closest('input, select')) return
    if (event.shiftKey || event.ctrlKey || event.metaKey || choosing.byPress()) {
      event.preventDefault()
      if (event.shiftKey) choosing.reach(rowId)
      else choosing.toggle(rowId)
      return
    }
    const wasActive = active.value?.rowId === rowId && active.value.column === cell.dataset.col
    focusCell({ rowId, column: cell.dataset.col as SheetColumn })
    if (wasActive || event.detail === 2) edit()
  }

  const doing = { edit: () => edit(), move: moveLine, duplicate, toggleOff }
  return { active, draft, whole, problem, focusCell, pointAt, commit, become, stop, putAt, doing, onKey, onPointer }
}
