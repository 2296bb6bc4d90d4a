import type { Line } from '#core/model/ledger'
import { cellText, editCellAt, sheetColumns, type SheetColumn } from '#shared/sheet/edit-cell'

export interface SheetCell {
  readonly rowId: string
  readonly column: SheetColumn
}
export type Move = 'down' | 'right' | 'left' | 'stay'

/**
 * The cell that has the focus, the editing of it, and the keys of the sheet. `rows` are the lines in the order shown;
 * `grid` is the element whose cells carry data-row and data-col.
 */
export function useSheetKeys(rows: MaybeRefOrGetter<readonly Line[]>, grid: Ref<HTMLElement | null>) {
  const store = useBuildStore()
  const scales = useScalesStore()
  const active = shallowRef<SheetCell | null>(null)
  const draft = ref<string | null>(null)
  /** Whether the editor holds what the cell held, all of it chosen; otherwise it holds what was typed so far. */
  const whole = ref(false)
  const problem = ref('')

  const rowIndex = (id: string) => toValue(rows).findIndex(line => line.id === id)
  const lineAt = computed(() => (active.value ? (store.lineOf(active.value.rowId) ?? null) : null))

  async function focusCell(cell: SheetCell) {
    active.value = cell
    store.selectedId = cell.rowId
    await nextTick()
    // Somebody may have moved on while this cell was being drawn: the last one asked for has the focus.
    if (active.value !== cell || draft.value !== null) return
    const element = grid.value?.querySelector<HTMLElement>(`[data-row="${cell.rowId}"] [data-col="${cell.column}"]`)
    element?.focus({ preventScroll: true })
    element?.scrollIntoView({ block: 'nearest' })
  }

  function move(rowsBy: number, columnsBy: number) {
    const lines = toValue(rows)
    const from = active.value
    if (!from || lines.length === 0) return
    const row = Math.min(Math.max(rowIndex(from.rowId) + rowsBy, 0), lines.length - 1)
    let column = sheetColumns.indexOf(from.column) + columnsBy
    let line = lines[row]!
    if (column >= sheetColumns.length && row < lines.length - 1) {
      column = 0
      line = lines[row + 1]!
    }
    if (column < 0 && row > 0) {
      column = sheetColumns.length - 1
      line = lines[row - 1]!
    }
    focusCell({ rowId: line.id, column: sheetColumns[Math.min(Math.max(column, 0), sheetColumns.length - 1)]! })
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
    else if (then === 'down') move(1, 0)
    else move(0, then === 'right' ? 1 : -1)
  }

  function stop() {
    draft.value = null
    problem.value = ''
    if (active.value) focusCell(active.value)
  }

  function moveLine(by: -1 | 1) {
    const line = lineAt.value
    if (!line || !store.build) return
    const lines = toValue(rows)
    const other = lines[rowIndex(line.id) + by]
    if (!other) return
    const all = store.build.lines
    const beforeId = by < 0 ? other.id : (all[all.indexOf(other) + 1]?.id ?? null)
    if (beforeId !== line.id && store.run({ type: 'lines.move', ids: [line.id], beforeId })) focusCell(active.value!)
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

  const arrows: Record<string, [number, number]> = {
    ArrowDown: [1, 0],
    ArrowUp: [-1, 0],
    ArrowRight: [0, 1],
    ArrowLeft: [0, -1],
    PageDown: [10, 0],
    PageUp: [-10, 0],
  }

  function onKey(event: KeyboardEvent) {
    if (!active.value) return
    if (draft.value !== null) {
      typeOn(event)
      return
    }
    const arrow = arrows[event.key]
    if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown'))
      moveLine(event.key === 'ArrowUp' ? -1 : 1)
    else if (arrow) move(...arrow)
    else if (event.key === 'Home') focusCell({ ...active.value, column: 'slot' })
    else if (event.key === 'End') focusCell({ ...active.value, column: 'price' })
    else if (event.key === 'Tab') {
      const atEnd = event.shiftKey ? active.value.column === 'slot' : active.value.column === 'price'
      if (atEnd) return
      move(0, event.shiftKey ? -1 : 1)
    } else if (event.key === 'Enter' || event.key === 'F2') edit()
    else if (event.key === 'Delete') toggleOff()
    else if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'd') duplicate()
    else if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z')
      store.step(event.shiftKey ? 'redo' : 'undo')
    else if (startsTyping(event))
      edit(active.value.column === 'slot' || active.value.column === 'known' ? undefined : event.key)
    else return
    event.preventDefault()
    event.stopPropagation()
  }

  /** A key that meets the cell while its editor is only just opening is not lost. */
  function typeOn(event: KeyboardEvent) {
    if (event.target instanceof HTMLInputElement || event.target instanceof HTMLSelectElement) return
    if (event.key === 'Enter') commit(draft.value!, 'down')
    else if (event.key === 'Escape') stop()
    else if (startsTyping(event)) {
      draft.value = whole.value ? event.key : draft.value + event.key
      whole.value = false
    } else return
    event.preventDefault()
    event.stopPropagation()
  }

  /** In figure cells only figures start an edit, so that single-key shortcuts keep working there; in names every letter does. */
  function startsTyping(event: KeyboardEvent): boolean {
    if (event.ctrlKey || event.metaKey || event.altKey || event.key.length !== 1) return false
    const column = active.value!.column
    if (column === 'name') return event.key !== '/' && event.key !== '?' && event.key !== ' '
    return /[\d.,~±]/.test(event.key) && column !== 'slot' && column !== 'known'
  }

  function onPointer(event: MouseEvent) {
    const cell = event.target instanceof Element ? event.target.closest<HTMLElement>('[data-col]') : null
    const rowId = cell?.closest<HTMLElement>('[data-row]')?.dataset.row
    if (!cell || !rowId || (event.target as Element).closest('input, select')) return
    const wasActive = active.value?.rowId === rowId && active.value.column === cell.dataset.col
    focusCell({ rowId, column: cell.dataset.col as SheetColumn })
    if (wasActive || event.detail === 2) edit()
  }

  return { active, draft, whole, problem, focusCell, edit, commit, stop, onKey, onPointer }
}
