<script setup lang="ts">
import { useVirtualizer } from '@tanstack/vue-virtual'
import { inDrawer, onBuilds, type Part, type Placement } from '#core/parts/drawer'
import {
  cellWords,
  drawerTyping,
  editPart,
  sortKey,
  textToEdit,
  type DrawerColumn as Column,
} from '#shared/sheet/drawer-cells'
import { columnTracks, shownColumns, withSort, withWidth, type ColumnLayout } from '#shared/sheet/column-layout'
import { sortedBy } from '#shared/sheet/sorted-by'
import type { RowAction } from '../RowMenu.vue'
import { cellAway, draftAction, gridAction } from '#shared/sheet/grid-keys'

const props = defineProps<{ parts: readonly Part[]; selectedId: string | null }>()
const emit = defineEmits<{ select: [id: string]; remove: [part: Part] }>()
const selection = defineModel<ReadonlySet<string>>('selection', { required: true })
const drawer = useDrawerStore()

const layout = defineModel<ColumnLayout>('layout', { required: true })
const columns = computed(() => shownColumns(layout.value))
const tracks = computed(() => `26px ${columnTracks(layout.value)}`)
const noPlacements: readonly Placement[] = []
/** Asked for every cell that is drawn and every part that is sorted: worked out here, beside the store. */
function whereabouts(part: Part) {
  const placements = drawer.placementsOf.get(part.id) ?? noPlacements
  return { left: inDrawer(part, placements), out: onBuilds(part.id, placements) }
}
const cell = (part: Part, column: Column) => cellWords(part, column, whereabouts(part))
const sorted = computed(() =>
  sortedBy(props.parts, layout.value.sorts, (part, column) => sortKey(part, column, whereabouts(part))),
)
const sortOf = (column: Column) => layout.value.sorts.findIndex(sort => sort.column === column)

/** On the phone every part is a card of three lines. */
const isPhone = useMediaQuery('(max-width: 760px)')
const rowHeight = computed(() => (isPhone.value ? 84 : 29))
watch(rowHeight, () => virtual.value.measure())
const scroller = useTemplateRef<HTMLDivElement>('scroller')
const virtual = useVirtualizer(
  computed(() => ({
    count: sorted.value.length,
    getScrollElement: () => scroller.value,
    estimateSize: () => rowHeight.value,
    overscan: 6,
  })),
)
const rows = computed(() =>
  virtual.value
    .getVirtualItems()
    .map(item => ({ at: item.index, top: item.start, part: sorted.value[item.index]! }))
    .filter(row => row.part),
)

const active = ref<{ id: string; column: Column } | null>(null)
const draft = ref<string | null>(null)
const problem = ref('')
/** Everything a row is drawn from: while it is the same the row is not drawn anew, however fast the sheet is scrolled. */
const drawnFrom = ({ part, at, top }: { readonly part: Part; readonly at: number; readonly top: number }) => [
  part,
  top,
  columns.value,
  drawer.placementsOf.get(part.id),
  selection.value.has(part.id),
  part.id === props.selectedId,
  ...(active.value?.id === part.id ? [active.value.column, draft.value, problem.value] : ['', '', '']),
  at === 0 && !active.value,
]
const editor = useTemplateRef<HTMLInputElement[]>('editor')
/** Whether the editor holds what the cell held, all of it chosen; otherwise it holds what was typed so far. */
let whole = false
async function focus(index: number, column: Column) {
  const part = sorted.value[Math.min(Math.max(index, 0), sorted.value.length - 1)]
  if (!part) return
  active.value = { id: part.id, column }
  emit('select', part.id)
  virtual.value.scrollToIndex(sorted.value.indexOf(part), { align: 'auto' })
  await nextTick()
  scroller.value
    ?.querySelector<HTMLElement>(`[data-part="${part.id}"] [data-col="${column}"]`)
    ?.focus({ preventScroll: true })
}
async function edit(part: Part, column: Column, start?: string) {
  if (drawerTyping[column] === 'nothing') return
  problem.value = ''
  active.value = { id: part.id, column }
  whole = start === undefined
  draft.value = start ?? textToEdit(part, column)
  await nextTick()
  editor.value?.[0]?.focus()
  if (whole) editor.value?.[0]?.select()
}
/** Takes what was typed; `move` is null when the field was left by pointer, so that the focus stays where it went. */
async function commit(move: number | null) {
  if (draft.value === null || !active.value) return
  const part = drawer.partOf(active.value.id)
  const column = active.value.column
  if (!part) {
    draft.value = null
    return
  }
  const fields = draft.value === textToEdit(part, column) ? {} : editPart(part, column, draft.value, newId())
  if ('problem' in fields) {
    problem.value = fields.problem
    return
  }
  draft.value = null
  problem.value = ''
  if (Object.keys(fields).length > 0) void drawer.change(part, fields)
  if (move !== null) await focus(sorted.value.findIndex(p => p.id === part.id) + move, column)
}
function cancel() {
  draft.value = null
  problem.value = ''
  if (active.value)
    void focus(
      sorted.value.findIndex(p => p.id === active.value!.id),
      active.value.column,
    )
}
/** A key that meets the cell while its editor is only just opening is not lost. */
function typeOn(event: KeyboardEvent) {
  if (event.target instanceof HTMLInputElement || draft.value === null) return
  const action = draftAction(event, { text: draft.value, whole }, drawerTyping[active.value!.column])
  if (action === null) return
  if (action === 'keep') void commit(1)
  else if (action === 'leave') cancel()
  else {
    draft.value = action.text
    whole = action.whole
  }
  event.preventDefault()
  event.stopPropagation()
}
function onKey(event: KeyboardEvent) {
  if (!active.value) return
  if (draft.value !== null) {
    typeOn(event)
    return
  }
  const { id, column } = active.value
  const at = sorted.value.findIndex(p => p.id === id)
  const part = sorted.value[at]
  const action = gridAction(event, drawerTyping[column])
  if (action?.do === 'move' && event.key !== 'Tab') {
    const to = cellAway({ row: at, column }, { ...action, wraps: false }, sorted.value.length, columns.value)
    void focus(to.row, to.column)
  } else if (action?.do === 'to row') void focus(action.end === 'first' ? 0 : sorted.value.length - 1, column)
  else if (part && action?.do === 'edit') void edit(part, column, action.text ?? undefined)
  else if (part && action?.do === 'choose') toggle(part.id)
  else return
  event.preventDefault()
  event.stopPropagation()
}
let anchor: string | null = null
function toggle(id: string, range = false) {
  const next = new Set(selection.value)
  const from = anchor === null ? -1 : sorted.value.findIndex(p => p.id === anchor)
  if (range && from >= 0) {
    const to = sorted.value.findIndex(p => p.id === id)
    for (const part of sorted.value.slice(Math.min(from, to), Math.max(from, to) + 1)) next.add(part.id)
  } else if (next.has(id)) next.delete(id)
  else next.add(id)
  anchor = id
  selection.value = next
}
const menu = useTemplateRef<{ open: (event: MouseEvent, actions: readonly RowAction[]) => void }>('menu')
async function onMenu(event: MouseEvent) {
  const place = event.target instanceof Element ? event.target.closest<HTMLElement>('[data-col]') : null
  const part = sorted.value.find(({ id }) => id === place?.closest<HTMLElement>('[data-part]')?.dataset.part)
  if (!place || !part || draft.value !== null) return
  event.preventDefault()
  const column = place.dataset.col as Column
  await focus(sorted.value.indexOf(part), column)
  menu.value?.open(event, menuOf(part, column))
}
function menuOf(part: Part, column: Column): RowAction[] {
  const link = new URL(`/drawer?part=${part.id}`, window.location.href).toString()
  const row = () => columns.value.map(each => cell(part, each)).join('\t')
  const isEdited = drawerTyping[column] !== 'nothing'
  return [
    { words: 'Edit the cell', key: 'Enter', disabled: !isEdited, act: () => edit(part, column) },
    { words: 'Choose it, for several at once', key: 'Space', act: () => toggle(part.id) },
    { words: 'Copy the cell', apart: true, act: () => copyText(cell(part, column)) },
    { words: 'Copy the row', act: () => copyText(row(), `Copied: the row of ${part.name}`) },
    { words: 'Copy a link to this part', act: () => copyText(link, 'Copied: a link to this part') },
    { words: 'Delete', apart: true, act: () => emit('remove', part) },
  ]
}
/** The cell that was active when the pointer went down: only a second click on it edits. */
let pressed: { readonly id: string; readonly column: Column } | null = null
function press() {
  pressed = active.value
}
function click(part: Part, column: Column) {
  if (pressed?.id === part.id && pressed.column === column) void edit(part, column)
  else void focus(sorted.value.indexOf(part), column)
}
watch(
  () => props.selectedId,
  id => {
    const at = sorted.value.findIndex(p => p.id === id)
    if (at >= 0 && active.value?.id !== id) virtual.value.scrollToIndex(at, { align: 'auto' })
  },
)
</script>

<template>
  <div
    class="sheet"
    role="grid"
    :style="{ '--tracks': tracks }"
    aria-label="Parts of the drawer"
    :aria-rowcount="sorted.length"
    @keydown="onKey"
    @contextmenu="onMenu"
  >
    <RowMenu
      ref="menu"
      label="What can be done with the part"
    />
    <div
      class="row head"
      role="row"
    >
      <span
        class="pick"
        role="columnheader"
      ><span class="visually-hidden">chosen</span></span><ColumnHead
        v-for="column in columns"
        :key="column"
        :class="column"
        :title="drawerTitles[column]"
        :down="layout.sorts[sortOf(column)]?.down ?? null"
        :place="sortOf(column) + 1"
        :sorts="layout.sorts.length"
        @sort="layout = withSort(layout, column, $event)"
        @width="layout = withWidth(layout, column, $event)"
      />
    </div>
    <div
      ref="scroller"
      class="rows"
      role="rowgroup"
      tabindex="-1"
    >
      <div :style="{ height: `${virtual.getTotalSize()}px`, position: 'relative' }">
        <div
          v-for="row in rows"
          :key="row.part.id"
          v-memo="drawnFrom(row)"
          class="row"
          role="row"
          :aria-rowindex="row.at + 1"
          :class="{ selected: row.part.id === selectedId, none: row.part.owned === 0 }"
          :style="{ transform: `translateY(${row.top}px)` }"
          :data-part="row.part.id"
        >
          <span
            class="pick"
            role="gridcell"
          ><input
            type="checkbox"
            :checked="selection.has(row.part.id)"
            :aria-label="`Choose ${row.part.name}`"
            @click="toggle(row.part.id, $event.shiftKey)"
          ></span>
          <span
            v-for="column in columns"
            :key="column"
            role="gridcell"
            :class="column"
            :data-col="column"
            :tabindex="active?.id === row.part.id && active.column === column ? 0 : row.at === 0 && !active && column === 'name' ? 0 : -1"
            @pointerdown="press"
            @click="click(row.part, column)"
            @focus="active ??= { id: row.part.id, column }"
          >
            <template v-if="draft !== null && active?.id === row.part.id && active.column === column"><input
              ref="editor"
              v-model="draft"
              :aria-label="`${drawerTitles[column]} of ${row.part.name}`"
              @keydown.esc.stop="cancel"
              @keydown.enter.stop="commit(1)"
              @keydown.tab.prevent.stop="commit(0)"
              @keydown.stop
              @blur="commit(null)"
            ><small
              v-if="problem"
              class="cell-problem"
              role="alert"
            >{{ problem }}</small></template>
            <template v-else>
              <EvidenceSwatch
                v-if="column === 'known' && (row.part.mass || row.part.listing)"
                :evidence="row.part.mass?.evidence ?? 'listed'"
              />{{ cell(row.part, column) }}
            </template>
          </span>
        </div>
      </div>
    </div>
  </div>
</template>

<style scoped>
.sheet {
  flex: 1;
  min-height: 260px;
  display: flex;
  flex-direction: column;
  border-top: 1px solid var(--line);
  overflow-x: auto;
}
.rows {
  flex: 1;
  overflow-y: auto;
  min-height: 0;
  contain: strict;
  min-width: 760px;
}
.row {
  display: grid;
  grid-template-columns: var(--tracks);
  align-items: center;
  height: 29px;
  border-bottom: 1px solid var(--line);
  font-size: 13px;
  min-width: 760px;
}
.rows .row {
  position: absolute;
  inset: 0 0 auto 0;
}
.head {
  height: 26px;
  font-size: 11.5px;
  color: var(--ink-soft);
  flex: none;
}
.row > span {
  padding: 0 6px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  height: 100%;
  line-height: 28px;
  position: relative;
}
.row > span:focus {
  outline: 2px solid var(--plum-text);
  outline-offset: -2px;
  border-radius: 3px;
}
.head > span {
  line-height: 25px;
}
.grams,
.owned,
.left,
.price {
  text-align: right;
  font: 500 12.5px/28px var(--mono);
}
.head .grams,
.head .owned,
.head .left,
.head .price {
  font-family: var(--sans);
}
.slot,
.facts {
  color: var(--ink-soft);
}
.facts {
  font-size: 12px;
}
.known {
  font-size: 12px;
}
.selected {
  background: var(--selection);
  box-shadow: inset 3px 0 var(--plum-text);
}
.selected span {
  color: var(--ink);
}
.none .name,
.none .grams {
  font-style: italic;
  color: var(--ink-soft);
}
.row input:not([type='checkbox']) {
  position: absolute;
  inset: 1px;
  width: calc(100% - 2px);
  height: calc(100% - 2px);
  border: 2px solid var(--plum-text);
  border-radius: 3px;
  padding: 0 5px;
  font: inherit;
  min-height: 0;
  text-align: inherit;
}
.row > span:has(input:not([type='checkbox'])) {
  overflow: visible;
}
.pick input {
  min-height: 0;
  margin: 0;
}
.cell-problem {
  position: absolute;
  top: 100%;
  right: 0;
  z-index: 10;
  background: var(--over);
  color: var(--verdict-ink);
  font: 500 12px/1.35 var(--sans);
  padding: 4px 8px;
  border-radius: 5px;
  white-space: normal;
  width: max-content;
  max-width: 300px;
  text-align: left;
}
.name .cell-problem {
  left: 0;
  right: auto;
}
@media screen and (max-width: 760px) {
  .sheet {
    display: block;
    overflow: visible;
  }
  .rows {
    contain: none;
    height: 66vh;
    flex: none;
    min-width: 0;
  }
  .head {
    display: none;
  }
  .rows .row {
    grid-template:
      'pick name name name grams' 30px
      'pick slot known owned left' 26px
      'pick facts facts facts price' 26px / 40px auto auto 1fr auto;
    height: 84px;
    min-width: 0;
    padding: 1px 0;
  }
  .row > span {
    line-height: 26px;
    padding: 0 4px;
    font-size: 14px;
  }
  .row > .pick {
    grid-area: pick;
    display: grid;
    place-items: center;
  }
  .row > .name {
    grid-area: name;
    font-weight: 600;
    font-size: 16px;
    line-height: 30px;
  }
  .row > .grams {
    grid-area: grams;
    font-size: 16px;
    line-height: 30px;
  }
  .row > .slot {
    grid-area: slot;
  }
  .row > .known {
    grid-area: known;
  }
  .row > .owned {
    grid-area: owned;
  }
  .row > .owned::after {
    content: ' owned';
    font-family: var(--sans);
  }
  .row > .left {
    grid-area: left;
  }
  .row > .left::after {
    content: ' in drawer';
    font-family: var(--sans);
  }
  .row.none > .owned::before {
    content: 'owned: ';
    font-family: var(--sans);
  }
  .row.none > :is(.owned, .left)::after {
    content: none;
  }
  .row > .facts {
    grid-area: facts;
  }
  .row > .price {
    grid-area: price;
  }
}
</style>
