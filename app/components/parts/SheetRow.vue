<script setup lang="ts">
import { saidEvidences, slotFacts, slots, type Line } from '#core/model/ledger'
import { spreadG } from '#core/maths/estimate'
import { centsFigure, fixed, gramsFigure, signed, spreadFigure } from '#core/text/display'
import { sheetColumns, type SheetColumn } from '#shared/sheet/edit-cell'
import type { Move } from '~/composables/useSheetKeys'
import type { SheetRowProps } from '~/utils/sheet-row'

const props = defineProps<SheetRowProps>()
const emit = defineEmits<{ commit: [text: string, move: Move]; cancel: []; become: [line: Line] }>()

type Editor = HTMLInputElement | HTMLSelectElement | { focus(): void; select(): void }
const editor = useTemplateRef<Editor[] | Editor>('editor')
const spread = computed(() => spreadG(props.estimate))
const eachText = computed(() => {
  const { mass } = props.line
  return mass ? fixed(mass.valueG / mass.valueCount, decimalsTyped.value) : '–'
})
const decimalsTyped = computed(() => {
  const step = props.line.mass?.resolutionG ?? 0.01
  return Math.min(3, Math.max(0, Math.round(-Math.log10(step || 0.01)), props.line.mass?.valueCount === 1 ? 0 : 2))
})
const figures = computed<Record<SheetColumn, string>>(() => ({
  slot: slotFacts[props.line.slot].label,
  name: lineTitle(props.line),
  quantity: `× ${props.line.quantity}`,
  each: eachText.value,
  grams: props.line.mass ? gramsFigure(props.estimate.valueG, spread.value) : 'open',
  spread: props.line.mass && spread.value > 0 ? `± ${spreadFigure(spread.value)}` : '',
  known: props.line.mass?.evidence ?? '',
  price: props.line.priceEachCents === null ? '' : centsFigure(props.line.priceEachCents * props.line.quantity),
}))

/** What stands in the editor: its own, so that a row drawn anew while somebody types does not take letters back. */
const typed = ref('')
watch(
  () => props.draft,
  async draft => {
    if (draft === null) return
    typed.value = draft
    await nextTick()
    const field = [editor.value].flat()[0]
    if (!field) return
    field.focus()
    if ('select' in field && props.whole) field.select()
  },
  { immediate: true },
)

let done = false
function finish(event: Event, move: Move) {
  commit(move, (event.target as HTMLInputElement).value)
}
function commit(move: Move, text = typed.value) {
  done = true
  emit('commit', text, move)
  nextTick(() => {
    done = false
  })
}
function become(line: Line) {
  done = true
  emit('become', line)
  nextTick(() => {
    done = false
  })
}
function left() {
  if (!done && props.draft !== null) emit('commit', typed.value, 'stay')
}
function leave(event: FocusEvent) {
  if (!done && props.draft !== null) emit('commit', (event.target as HTMLInputElement).value, 'stay')
}
function cancel() {
  done = true
  emit('cancel')
  nextTick(() => {
    done = false
  })
}
</script>

<template>
  <tr
    role="row"
    :class="{ selected, resting: !counted, chosen, typing: draft !== null }"
    :aria-selected="chosen"
    :data-row="line.id"
  >
    <td
      v-for="column in sheetColumns"
      :key="column"
      role="gridcell"
      :class="column"
      :data-col="column"
      :tabindex="activeColumn === column ? 0 : -1"
      :aria-invalid="problem !== '' && activeColumn === column"
    >
      <template v-if="draft !== null && activeColumn === column">
        <select
          v-if="column === 'slot'"
          ref="editor"
          :value="line.slot"
          aria-label="Slot"
          @change="finish($event, 'stay')"
          @keydown.esc.stop="cancel"
          @keydown.enter.stop="finish($event, 'down')"
          @keydown.tab.prevent.stop="finish($event, $event.shiftKey ? 'left' : 'right')"
          @blur="leave"
        >
          <option
            v-for="slot in slots"
            :key="slot"
            :value="slot"
          >
            {{ slotFacts[slot].label }}
          </option>
        </select>
        <select
          v-else-if="column === 'known'"
          ref="editor"
          :value="line.mass?.evidence ?? ''"
          aria-label="Known by"
          @change="finish($event, 'stay')"
          @keydown.esc.stop="cancel"
          @keydown.enter.stop="finish($event, 'down')"
          @keydown.tab.prevent.stop="finish($event, $event.shiftKey ? 'left' : 'right')"
          @blur="leave"
        >
          <option
            v-if="!line.mass"
            value=""
          >
            –
          </option>
          <option
            v-if="line.mass?.evidence === 'twin'"
            value="twin"
          >
            twin
          </option><option
            v-for="evidence in saidEvidences"
            :key="evidence"
            :value="evidence"
          >
            {{ evidence }}
          </option>
        </select>
        <NameField
          v-else-if="column === 'name'"
          ref="editor"
          v-model="typed"
          :slot-name="line.slot"
          :label="`name of ${line.name}`"
          @pick="become"
          @keydown.esc.stop="cancel"
          @keydown.enter.stop="commit('down')"
          @keydown.tab.prevent.stop="commit($event.shiftKey ? 'left' : 'right')"
          @keydown.stop
          @focusout="left"
        />
        <input
          v-else
          ref="editor"
          v-model="typed"
          :aria-label="`${column} of ${line.name}`"
          autocomplete="off"
          @keydown.esc.stop="cancel"
          @keydown.enter.stop="finish($event, 'down')"
          @keydown.tab.prevent.stop="finish($event, $event.shiftKey ? 'left' : 'right')"
          @keydown.stop
          @blur="leave"
        >
        <span
          v-if="problem"
          class="cell-problem"
          role="alert"
        >{{ problem }}</span>
      </template>
      <template v-else-if="column === 'known'">
        <template v-if="line.mass">
          <EvidenceSwatch :evidence="line.mass.evidence" />{{ figures.known }}
        </template>
      </template>
      <template v-else-if="column === 'name'">
        {{ figures.name }}<small
          v-if="deltaG !== null"
          class="delta figure"
          :class="deltaG <= 0 ? 'word-clear' : 'word-over'"
        >{{ signed(deltaG, 1) }} g</small><small
          v-if="line.tie"
          class="soft tie"
          title="Tied lines travel together"
        >tied: {{ line.tie }}</small>
      </template>
      <template v-else>
        <i
          v-if="column === 'slot'"
          class="grip"
          title="Drag to another place"
          aria-hidden="true"
        />{{ figures[column] }}<InOunces
          v-if="column === 'grams' && line.mass"
          :grams="estimate.valueG"
        />
      </template>
    </td>
  </tr>
</template>

<style scoped>
td {
  padding: 4.4px 6px;
  position: relative;
  height: 28px;
  cursor: default;
}
td:focus {
  outline: 2px solid var(--plum-text);
  outline-offset: -2px;
  border-radius: 3px;
}
.slot {
  color: var(--ink-soft);
}
.grip {
  position: absolute;
  left: -9px;
  top: 50%;
  width: 14px;
  height: 18px;
  margin-top: -9px;
  cursor: grab;
  opacity: 0;
  background: radial-gradient(circle, var(--ink-soft) 1.2px, transparent 1.6px) 3px 1px / 5px 5px;
  touch-action: none;
}
tr:hover .grip {
  opacity: 1;
}
tr.chosen td {
  background: var(--note);
}
tr.chosen td:first-child::before {
  content: '✓';
  position: absolute;
  left: -9px;
  top: 50%;
  translate: 0 -50%;
  font-weight: 700;
  color: var(--plum-text);
}
tr.chosen .grip {
  display: none;
}
.grams :deep(.in-ounces) {
  display: block;
  line-height: 1;
}
.quantity,
.each,
.grams,
.spread,
.price {
  text-align: right;
  font: 500 13px var(--mono);
  font-variant-numeric: tabular-nums;
  white-space: nowrap;
}
.quantity,
.spread,
.price {
  color: var(--ink-soft);
}
.grams {
  font-weight: 500;
  color: var(--ink);
}
.known {
  font-size: 12px;
  white-space: nowrap;
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
tr.selected td {
  background: var(--selection);
}
tr.selected td.spread,
tr.selected td.price,
tr.selected td.quantity,
tr.selected td.slot {
  color: var(--ink);
}
tr.selected td:first-child {
  box-shadow: inset 3px 0 var(--plum-text);
}
tr.resting td {
  color: var(--ink-soft);
}
tr.resting .grams {
  font-style: italic;
}
.delta,
.tie {
  margin-left: 8px;
  font-size: 11.5px;
}
input,
select,
.name-field {
  position: absolute;
  inset: 1px;
  width: calc(100% - 2px);
  height: calc(100% - 2px);
  padding: 0 5px;
  border-radius: 3px;
  border: 2px solid var(--plum-text);
  font: inherit;
  text-align: inherit;
  min-height: 0;
}
.name-field {
  padding: 0;
  background: var(--card);
}
.name-field :deep(.el-input) {
  --el-input-border-color: transparent;
  --el-input-height: 100%;
  --el-component-size: 22px;
  height: 100%;
  font: inherit;
}
.name-field :deep(.el-autocomplete),
.name-field :deep(.inside) {
  display: block;
  height: 100%;
}
.name-field :deep(.el-input__wrapper),
.name-field :deep(.el-input__wrapper.is-focus) {
  padding: 0 4px;
  box-shadow: none;
}
.name input,
.slot select,
.known select {
  text-align: left;
}
.cell-problem {
  position: absolute;
  top: calc(100% + 2px);
  right: 0;
  z-index: 15;
  background: var(--over);
  color: var(--verdict-ink);
  font: 500 12px/1.35 var(--sans);
  padding: 4px 8px;
  border-radius: 5px;
  white-space: normal;
  width: max-content;
  max-width: 320px;
  text-align: left;
}
.name .cell-problem,
.slot .cell-problem {
  left: 0;
  right: auto;
}
@media screen and (min-width: 761px) {
  tr {
    display: grid;
    grid-template-columns: var(--ledger-columns);
    padding-left: var(--ledger-edge);
    content-visibility: auto;
    contain-intrinsic-size: auto 28px;
  }
  /* What an editor says reaches beyond its row. */
  tr.typing {
    content-visibility: visible;
  }
  td {
    align-content: center;
  }
}
@media screen and (max-width: 760px) {
  tr {
    display: grid;
    grid-template:
      'name name name grams' auto
      'slot quantity each spread' auto
      'known known known price' auto / auto auto 1fr auto;
    column-gap: 4px;
    padding: 6px 0;
    border-bottom: 1px solid var(--line);
  }
  td {
    height: auto;
    min-height: 36px;
    padding: 8px 4px;
    font-size: 15px;
    line-height: 20px;
  }
  td.slot {
    grid-area: slot;
  }
  td.name {
    grid-area: name;
    font-weight: 600;
    font-size: 16px;
    white-space: normal;
  }
  td.quantity {
    grid-area: quantity;
  }
  td.each {
    grid-area: each;
    text-align: left;
    color: var(--ink-soft);
  }
  td.each::before {
    content: 'of\a0';
    font-family: var(--sans);
  }
  td.each::after,
  td.grams::after {
    content: ' g';
  }
  td.grams {
    grid-area: grams;
    font-size: 16px;
  }
  td.spread {
    grid-area: spread;
  }
  td.known {
    grid-area: known;
    font-size: 14px;
  }
  td.price {
    grid-area: price;
  }
  tr.selected td:first-child {
    box-shadow: none;
  }
  tr.selected {
    background: var(--selection);
    box-shadow: inset 3px 0 var(--plum-text);
  }
}
</style>
