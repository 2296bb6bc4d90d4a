<script setup lang="ts">
import { groupOf, groups, type Group, type Line } from '#core/model/ledger'
import { addEstimates, spreadG } from '#core/maths/estimate'
import { gramsFigure, priceWords, spreadFigure, fixed } from '#core/text/display'
import type { SheetColumn } from '#shared/sheet/edit-cell'
import type { RowAction } from '../RowMenu.vue'
import type { SheetRowProps } from '~/utils/sheet-row'

/** Whether a press on a row chooses it. */
const choosing = defineModel<boolean>('choosing', { required: true })
const emit = defineEmits<{ rows: [text: string]; handOver: [ids: readonly string[]] }>()
const store = useBuildStore()
const { settings } = storeToRefs(useSettingsStore())
const grid = useTemplateRef<HTMLTableElement>('grid')

const countedIds = computed(() => new Set(store.overview?.counted.map(line => line.id)))
interface Section {
  group: Group
  lines: Line[]
  valueG: number
  grams: string
  share: string
  spread: string
}
const sections = computed<Section[]>(() => {
  const fitted = store.build?.lines.filter(line => line.state === 'fitted') ?? []
  const limit = store.overview?.binding?.limitG ?? null
  return groups.flatMap(group => {
    const lines = fitted.filter(line => groupOf(line.slot) === group)
    if (lines.length === 0) return []
    const sum = addEstimates(lines.filter(line => countedIds.value.has(line.id)).map(line => store.estimates.of(line)))
    return [
      {
        group,
        lines,
        valueG: sum.valueG,
        grams: gramsFigure(sum.valueG, spreadG(sum)),
        spread: spreadG(sum) > 0 ? `± ${spreadFigure(spreadG(sum))}` : '',
        share: limit ? `${fixed((100 * sum.valueG) / limit, 1)} % of the limit` : '',
      },
    ]
  })
})
const setAside = computed(() => store.build?.lines.filter(line => line.state !== 'fitted') ?? [])
const rows = computed(() => [...sections.value.flatMap(s => s.lines), ...setAside.value])

const { chosen, isChosen, toggle, reach, clear, all } = useChosen(rows)
const { active, draft, whole, problem, focusCell, pointAt, commit, become, stop, putAt, doing, onKey, onPointer } = useSheetKeys(
  rows,
  grid,
  { toggle, reach, clear, byPress: () => choosing.value },
)
watch(choosing, on => {
  if (!on) clear()
})
function stopChoosing() {
  clear()
  choosing.value = false
}
const menu = useTemplateRef<{ open: (event: MouseEvent, actions: readonly RowAction[]) => void }>('menu')
const menuOf = useLineMenu(
  {
    ...doing,
    choose: () => toggle(active.value!.rowId),
    handOver: () => emit('handOver', [active.value!.rowId]),
  },
  (line, column) =>
    grid.value?.querySelector(`[data-row="${line.id}"] [data-col="${column}"]`)?.textContent?.trim() ?? '',
)
async function onMenu(event: MouseEvent) {
  const cell = event.target instanceof Element ? event.target.closest<HTMLElement>('[data-col]') : null
  const line = rows.value.find(({ id }) => id === cell?.closest<HTMLElement>('[data-row]')?.dataset.row)
  if (!cell || !line || draft.value !== null) return
  event.preventDefault()
  const column = cell.dataset.col as SheetColumn
  await focusCell({ rowId: line.id, column })
  menu.value?.open(event, menuOf(line, column))
}

watch(
  () => store.selectedId,
  id => {
    if (!id || active.value?.rowId === id || draft.value !== null || !rows.value.some(line => line.id === id)) return
    const cell = { rowId: id, column: active.value?.column ?? 'each' } as const
    if (document.activeElement?.closest('form')) pointAt(cell)
    else focusCell(cell)
  },
)

function deltaOf(line: Line): number | null {
  const fitted = line.insteadOf ? store.lineOf(line.insteadOf) : undefined
  return line.state === 'candidate' && fitted && line.mass
    ? store.estimates.of(line).valueG - store.estimates.of(fitted).valueG
    : null
}
/** All a row is drawn from. */
function rowOf(line: Line): SheetRowProps {
  const isActive = active.value?.rowId === line.id
  return {
    line,
    estimate: store.estimates.of(line),
    counted: countedIds.value.has(line.id),
    selected: line.id === store.selectedId,
    chosen: isChosen(line.id),
    activeColumn: isActive ? active.value!.column : null,
    draft: isActive ? draft.value : null,
    whole: isActive && whole.value,
    problem: isActive ? problem.value : '',
    deltaG: deltaOf(line),
  }
}
function onPaste(event: ClipboardEvent) {
  const text = event.clipboardData?.getData('text/plain') ?? ''
  if (draft.value !== null || text.trim() === '') return
  event.preventDefault()
  emit('rows', text)
}
/** Entering the grid by Tab lands on the first cell. */
function onEnter(event: FocusEvent) {
  if (!active.value && rows.value[0] && event.target === grid.value)
    focusCell({ rowId: rows.value[0].id, column: 'slot' })
}
</script>

<template>
  <RowMenu
    ref="menu"
    label="What can be done with the line"
  />
  <table
    ref="grid"
    :class="{ choosing }"
    aria-multiselectable="true"
    role="grid"
    aria-label="Parts, one line each"
    :tabindex="active ? -1 : 0"
    @keydown="onKey"
    @click="onPointer"
    @contextmenu="onMenu"
    @focus="onEnter"
    @paste="onPaste"
  >
    <colgroup>
      <col class="c-slot">
      <col>
      <col class="c-quantity">
      <col class="c-figure">
      <col class="c-figure">
      <col class="c-spread">
      <col class="c-known">
      <col class="c-price">
    </colgroup>
    <thead role="rowgroup">
      <tr role="row">
        <th role="columnheader">
          <TermTip word="Slot" />
        </th><th role="columnheader">
          What is fitted
        </th><th
          role="columnheader"
          class="right"
        >
          Many
        </th><th
          role="columnheader"
          class="right"
        >
          Each, g
        </th><th
          role="columnheader"
          class="right"
        >
          Grams
        </th><th
          role="columnheader"
          class="right"
        >
          <TermTip word="Spread" />
        </th><th role="columnheader">
          <TermTip word="Known by" />
        </th><th
          role="columnheader"
          class="right"
          title="All pieces of the line; typed for each"
        >
          Price, line
        </th>
      </tr>
    </thead>
    <SheetBody
      v-for="section in sections"
      :key="section.group"
      :lines="section.lines"
      :row-of="rowOf"
      @moved="putAt"
      @commit="commit"
      @become="become"
      @cancel="stop"
    >
      <tr
        class="group"
        role="row"
      >
        <th
          colspan="4"
          role="rowheader"
          aria-colspan="4"
        >
          <i :style="{ background: `var(--g-${groupTone[section.group].name})` }" />{{ section.group }}
        </th><td
          role="gridcell"
          class="right figure"
        >
          {{ section.grams }} <InOunces :grams="section.valueG" />
        </td><td
          role="gridcell"
          class="right figure soft"
        >
          {{ section.spread }}
        </td><td
          role="gridcell"
          colspan="2"
          aria-colspan="2"
          class="right soft share"
        >
          {{ section.share }}
        </td>
      </tr>
    </SheetBody>
    <SheetBody
      v-if="setAside.length > 0"
      :lines="setAside"
      :row-of="rowOf"
      @moved="putAt"
      @commit="commit"
      @become="become"
      @cancel="stop"
    >
      <tr
        class="group"
        role="row"
      >
        <th
          colspan="8"
          role="rowheader"
          aria-colspan="8"
        >
          Not fitted: could go there instead, or taken off
        </th>
      </tr>
    </SheetBody>
    <tfoot
      v-if="rows.length > 0"
      role="rowgroup"
    >
      <tr role="row">
        <td
          role="gridcell"
          colspan="4"
          aria-colspan="4"
        >
          {{ store.build?.reference ? 'What is said of its parts' : 'All-up in this loadout' }}; price of everything fitted
        </td><td
          role="gridcell"
          class="right figure"
        >
          {{ gramsFigure(store.overview!.massG, store.overview!.spreadG) }} <InOunces :grams="store.overview!.massG" />
        </td><td
          role="gridcell"
          class="right figure soft"
        >
          ± {{ spreadFigure(store.overview!.spreadG) }}
        </td><td
          role="gridcell"
          colspan="2"
          aria-colspan="2"
          class="right figure"
          data-test="price-total"
        >
          {{ priceWords(store.overview!.priceCents, store.overview!.unpricedLines, settings.currency) }}
        </td>
      </tr>
    </tfoot>
  </table>
  <ManyLines
    v-if="chosen.length > 0 || choosing"
    :lines="chosen"
    @all="all"
    @done="stopChoosing"
    @hand-over="emit('handOver', chosen.map(({ id }) => id))"
  />
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
  table-layout: fixed;
}
.c-slot {
  width: 88px;
}
.c-quantity {
  width: 44px;
}
.c-figure {
  width: 64px;
}
.c-spread {
  width: 62px;
}
.c-known {
  width: 104px;
}
.c-price {
  width: 66px;
}
thead th {
  font-weight: 500;
  font-size: 11.5px;
  color: var(--ink-soft);
  text-align: left;
  padding: 3px 6px;
  border-bottom: 1px solid var(--edge);
  position: sticky;
  top: -12px;
  background: var(--card);
  z-index: 5;
}
.right,
thead th.right {
  text-align: right;
}
.group th,
.group td {
  background: var(--paper);
  font-size: 12px;
  padding: 3px 6px;
  height: 24px;
}
.group th {
  text-align: left;
  font-weight: 600;
}
.group i {
  display: inline-block;
  width: 9px;
  height: 9px;
  border-radius: 2px;
  margin-right: 7px;
}
.share {
  white-space: nowrap;
}
tfoot td {
  border-top: 1px solid var(--edge);
  padding: 7px 6px;
  font-size: 12.5px;
  font-weight: 600;
  white-space: nowrap;
}
tfoot td:first-child {
  color: var(--ink-soft);
  font-weight: 500;
}
/* Rows are boxes of their own rather than those of a table, so that those out of sight cost nothing. */
@media screen and (min-width: 761px) {
  table,
  tbody,
  thead,
  tfoot {
    display: block;
  }
  table {
    --ledger-columns: 88px minmax(0, 1fr) 44px 64px 64px 62px 104px 66px;
    width: auto;
    margin-left: calc(-1 * var(--ledger-edge));
    --ledger-edge: 12px;
  }
  tr {
    display: grid;
    grid-template-columns: var(--ledger-columns);
    padding-left: var(--ledger-edge);
  }
  thead {
    position: sticky;
    top: -12px;
    z-index: 5;
  }
  [colspan='2'] {
    grid-column: span 2;
  }
  [colspan='4'] {
    grid-column: span 4;
  }
  [colspan='8'] {
    grid-column: span 8;
  }
}
/* On the phone every line is a card of its own; its cells are the same cells, side by side. */
@media screen and (max-width: 760px) {
  table,
  tbody,
  tfoot {
    display: block;
  }
  thead {
    display: none;
  }
  .group,
  tfoot tr {
    display: flex;
    align-items: baseline;
    background: var(--paper);
  }
  tfoot tr {
    background: none;
  }
  .group th,
  .group td {
    height: auto;
    padding: 6px 4px;
    font-size: 14px;
  }
  .group th {
    flex: 1;
  }
  .group .share {
    display: none;
  }
  tfoot tr {
    flex-wrap: wrap;
    justify-content: flex-end;
  }
  tfoot td {
    border: 0;
    font-size: 14px;
  }
  tfoot td:first-child {
    flex-basis: 100%;
    white-space: normal;
  }
}
</style>
