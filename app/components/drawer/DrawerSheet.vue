<script setup lang="ts">
import { useVirtualizer } from '@tanstack/vue-virtual'
import { priceEachCents, statorCode, statorText, type Part } from '#core/parts/drawer'
import { slotFacts } from '#core/model/ledger'
import { centsFigure } from '#core/text/display'
import { propertiesOf, propertyText } from '#core/model/properties'
import { isNotRead, readCents, readGrams, readNumber } from '#core/text/units'
import { nameSchema } from '#core/text/schemas'

const props = defineProps<{ parts: readonly Part[]; selectedId: string | null }>()
const emit = defineEmits<{ select: [id: string] }>()
const selection = defineModel<ReadonlySet<string>>('selection', { required: true })
const drawer = useDrawerStore()

const columns = ['slot', 'name', 'facts', 'grams', 'known', 'owned', 'left', 'price'] as const
type Column = (typeof columns)[number]
const titles: Record<Column, string> = {
  slot: 'Kind',
  name: 'What',
  facts: 'What it is',
  grams: 'Each, g',
  known: 'Known by',
  owned: 'Owned',
  left: 'In drawer',
  price: 'Each costs',
}
const editable: readonly Column[] = ['name', 'grams', 'owned', 'price']
const sort = ref<{ column: Column; down: boolean } | null>(null)

const each = (part: Part) => (part.mass ? part.mass.valueG / part.mass.valueCount : (part.listing?.valueG ?? null))
function factsOf(part: Part): string {
  const { properties, pack } = part
  const stator = statorCode(properties)
  const between = (low: string, high: string, unit: string) =>
    properties?.[low] !== undefined && properties[high] !== undefined
      ? [
          properties[low] === properties[high]
            ? `${propertyText(properties[low])} ${unit}`
            : `${propertyText(properties[low])}–${propertyText(properties[high])} ${unit}`,
        ]
      : []
  const single = propertiesOf(part.slot)
    .filter(p => p.kind === 'measure' || p.kind === 'choice' || p.kind === 'text' || p.kind === 'patterns')
    .filter(p => properties?.[p.key] !== undefined && !/^(stator|cells|volts)/.test(p.key))
    .map(p => `${propertyText(properties![p.key])}${p.kind === 'measure' && p.unit ? ` ${p.unit}` : ''}`)
  const shown = [
    ...single.slice(0, 1),
    ...between('cellsMin', 'cellsMax', 'cells'),
    ...between('voltsMin', 'voltsMax', 'V'),
    ...single.slice(1),
  ].slice(0, stator === null ? 3 : 2)
  return [
    ...(stator === null ? [] : [statorText(stator)]),
    ...(pack ? [`${pack.cells}S ${pack.chemistry} ${pack.capacityMah} mAh`] : shown),
  ].join(' · ')
}
function keyOf(part: Part, column: Column): number | string {
  switch (column) {
    case 'slot':
      return slotFacts[part.slot].label
    case 'name':
      return part.name.toLowerCase()
    case 'facts':
      return factsOf(part)
    case 'grams':
      return each(part) ?? Infinity
    case 'known':
      return part.mass?.evidence ?? 'zz'
    case 'owned':
      return part.owned
    case 'left':
      return drawer.left(part)
    case 'price':
      return priceEachCents(part) ?? Infinity
  }
}
const sorted = computed(() => {
  const by = sort.value
  if (!by) return props.parts
  const keyed = props.parts.map(part => ({ part, key: keyOf(part, by.column) }))
  keyed.sort((a, b) => (a.key < b.key ? -1 : a.key > b.key ? 1 : 0) * (by.down ? -1 : 1))
  return keyed.map(k => k.part)
})
function sortBy(column: Column) {
  sort.value =
    sort.value?.column === column ? (sort.value.down ? null : { column, down: true }) : { column, down: false }
}

const scroller = useTemplateRef<HTMLDivElement>('scroller')
const virtual = useVirtualizer(
  computed(() => ({
    count: sorted.value.length,
    getScrollElement: () => scroller.value,
    estimateSize: () => 29,
    overscan: 12,
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
const editor = useTemplateRef<HTMLInputElement[]>('editor')
/** Whether the editor holds what the cell held, all of it chosen; otherwise it holds what was typed so far. */
let whole = false
function cell(part: Part, column: Column): string {
  switch (column) {
    case 'slot':
      return slotFacts[part.slot].label
    case 'name':
      return part.name
    case 'facts':
      return factsOf(part)
    case 'grams': {
      const grams = each(part)
      return grams === null ? '–' : Number(grams.toFixed(3)).toFixed(grams < 1 ? 3 : 2)
    }
    case 'known':
      return part.mass?.evidence ?? (part.listing ? 'listed' : '')
    case 'owned':
      return part.owned === 0 ? 'no' : String(part.owned)
    case 'left': {
      const left = drawer.left(part)
      const out = drawer.out(part)
      return part.owned === 0 && out === 0 ? '' : `${left}${out > 0 ? ` · ${out} out` : ''}`
    }
    case 'price':
      return priceEachCents(part) === null ? '' : centsFigure(priceEachCents(part)!)
  }
}
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
function textToEdit(part: Part, column: Column): string {
  if (column === 'price') return part.priceCents === null ? '' : centsFigure(part.priceCents)
  if (column === 'grams') return each(part) === null ? '' : String(each(part))
  return column === 'owned' ? String(part.owned) : part.name
}
async function edit(part: Part, column: Column, start?: string) {
  if (!editable.includes(column)) return
  problem.value = ''
  active.value = { id: part.id, column }
  whole = start === undefined
  draft.value = start ?? textToEdit(part, column)
  await nextTick()
  editor.value?.[0]?.focus()
  if (whole) editor.value?.[0]?.select()
}
/** What a typed cell makes of a part; a sentence when it cannot be. */
function typed(part: Part, column: Column, text: string): Partial<Part> | { problem: string } {
  if (column === 'name') {
    const named = nameSchema('The name').safeParse(text)
    return named.success ? { name: text.trim() } : { problem: named.error.issues[0]!.message }
  }
  if (column === 'owned') {
    const read = readNumber(text)
    if (isNotRead(read) || !Number.isInteger(read.value) || read.value < 0 || read.value > 99_999)
      return { problem: 'How many you own: a whole number from 0 to 99,999.' }
    return read.value < part.lost + part.scrapped
      ? { problem: `${part.lost + part.scrapped} are lost or scrapped already.` }
      : { owned: read.value }
  }
  if (column === 'price') {
    const read = readCents(text)
    return isNotRead(read) ? read : { priceCents: read.cents }
  }
  const listed = /^l\s+/i.test(text)
  const read = readGrams(text.replace(/^l\s+/i, ''))
  if (isNotRead(read)) return read
  const evidence = listed || (part.mass?.evidence ?? 'listed') === 'listed' ? ('listed' as const) : part.mass!.evidence
  return {
    mass: {
      versionId: newId(),
      evidence,
      valueG: read.massG,
      valueCount: 1,
      resolutionG: read.stepG,
      pieceReadingsG: null,
      halfRangeG: null,
      ownSpreadG: null,
      basis: 'as supplied',
      origin: 'typed in the drawer',
      weighing: null,
    },
    ...(evidence === 'listed' ? { listing: { valueG: read.massG, resolutionG: read.stepG } } : {}),
  }
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
  const fields = draft.value === textToEdit(part, column) ? {} : typed(part, column, draft.value)
  if ('problem' in fields) {
    problem.value = fields.problem!
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
  if (event.key === 'Enter') void commit(1)
  else if (event.key === 'Escape') cancel()
  else if (startsTyping(event)) {
    draft.value = whole ? event.key : draft.value + event.key
    whole = false
  } else return
  event.preventDefault()
  event.stopPropagation()
}
/** In figure cells only figures start an edit, so that single-key shortcuts keep working there; in names every letter does. */
function startsTyping(event: KeyboardEvent): boolean {
  if (event.ctrlKey || event.metaKey || event.altKey || event.key.length !== 1) return false
  return active.value!.column === 'name' ? !'/? '.includes(event.key) : /[\d.,]/.test(event.key)
}
function onKey(event: KeyboardEvent) {
  if (!active.value) return
  if (draft.value !== null) {
    typeOn(event)
    return
  }
  const at = sorted.value.findIndex(p => p.id === active.value!.id)
  const part = sorted.value[at]
  const column = columns.indexOf(active.value.column)
  const moves: Record<string, [number, number]> = {
    ArrowDown: [1, 0],
    ArrowUp: [-1, 0],
    PageDown: [12, 0],
    PageUp: [-12, 0],
    ArrowRight: [0, 1],
    ArrowLeft: [0, -1],
  }
  const move = moves[event.key]
  if (move) void focus(at + move[0], columns[Math.min(Math.max(column + move[1], 0), columns.length - 1)]!)
  else if (event.key === 'Home' && event.ctrlKey) void focus(0, active.value.column)
  else if (event.key === 'End' && event.ctrlKey) void focus(sorted.value.length - 1, active.value.column)
  else if (part && (event.key === 'Enter' || event.key === 'F2')) void edit(part, active.value.column)
  else if (part && event.key === ' ') toggle(part.id)
  else if (part && startsTyping(event)) void edit(part, active.value.column, event.key)
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
    aria-label="Parts of the drawer"
    :aria-rowcount="sorted.length"
    @keydown="onKey"
  >
    <div
      class="row head"
      role="row"
    >
      <span
        class="pick"
        role="columnheader"
      ><span class="visually-hidden">chosen</span></span><span
        v-for="column in columns"
        :key="column"
        role="columnheader"
        :class="column"
        :aria-sort="sort?.column === column ? (sort.down ? 'descending' : 'ascending') : 'none'"
      ><button
        type="button"
        class="plain"
        @click="sortBy(column)"
      >{{ titles[column] }}<i
        v-if="sort?.column === column"
        aria-hidden="true"
      >{{ sort.down ? '▾' : '▴' }}</i></button></span>
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
              :aria-label="`${titles[column]} of ${row.part.name}`"
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
            <template v-else-if="column === 'known' && (row.part.mass || row.part.listing)"><EvidenceSwatch :evidence="row.part.mass?.evidence ?? 'listed'" />{{ cell(row.part, column) }}</template>
            <template v-else>{{ cell(row.part, column) }}</template>
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
  grid-template-columns: 26px 94px minmax(150px, 1.4fr) minmax(120px, 1fr) 62px 92px 62px 86px 76px;
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
.head .plain {
  color: var(--ink-soft);
  font-weight: 500;
  font-size: 11.5px;
  padding: 0;
}
.head i {
  font-style: normal;
  margin-left: 3px;
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
@media (max-width: 760px) {
  .rows {
    contain: none;
    height: 60vh;
    flex: none;
  }
  .sheet {
    display: block;
  }
}
</style>
