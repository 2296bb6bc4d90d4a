<script setup lang="ts">
import { groupOf, groups, type Group, type Line } from '#core/model/ledger'
import { addEstimates, spreadG } from '#core/maths/estimate'
import { gramsFigure, priceWords, spreadFigure, fixed } from '#core/text/display'
import type { SheetColumn } from '#shared/sheet/edit-cell'
import type { RowAction } from '../RowMenu.vue'

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
const { active, draft, whole, problem, focusCell, commit, become, stop, putAt, doing, onKey, onPointer } = useSheetKeys(
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
    if (id && active.value?.rowId !== id && draft.value === null && rows.value.some(line => line.id === id))
      focusCell({ rowId: id, column: active.value?.column ?? 'each' })
  },
)

function deltaOf(line: Line): number | null {
  const fitted = line.insteadOf ? store.lineOf(line.insteadOf) : undefined
  return line.state === 'candidate' && fitted && line.mass
    ? store.estimates.of(line).valueG - store.estimates.of(fitted).valueG
    : null
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
    <thead>
      <tr role="row">
        <th>Slot</th><th>What is fitted</th><th class="right">
          Many
        </th><th class="right">
          Each, g
        </th><th class="right">
          Grams
        </th><th class="right">
          <TermTip word="Spread" />
        </th><th><TermTip word="Known by" /></th><th
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
      @moved="putAt"
    >
      <tr
        class="group"
        role="row"
      >
        <th
          colspan="4"
          scope="rowgroup"
        >
          <i :style="{ background: `var(--g-${groupTone[section.group].name})` }" />{{ section.group }}
        </th><td class="right figure">
          {{ section.grams }} <InOunces :grams="section.valueG" />
        </td><td class="right figure soft">
          {{ section.spread }}
        </td><td
          colspan="2"
          class="right soft share"
        >
          {{ section.share }}
        </td>
      </tr>
      <SheetRow
        v-for="line in section.lines"
        :key="line.id"
        :line="line"
        :estimate="store.estimates.of(line)"
        :counted="countedIds.has(line.id)"
        :selected="line.id === store.selectedId"
        :chosen="isChosen(line.id)"
        :active-column="active?.rowId === line.id ? active.column : null"
        :draft="active?.rowId === line.id ? draft : null"
        :whole="whole"
        :problem="active?.rowId === line.id ? problem : ''"
        :delta-g="null"
        @commit="commit"
        @become="become"
        @cancel="stop"
      />
    </SheetBody>
    <SheetBody
      v-if="setAside.length > 0"
      :lines="setAside"
      @moved="putAt"
    >
      <tr
        class="group"
        role="row"
      >
        <th
          colspan="8"
          scope="rowgroup"
        >
          Not fitted: could go there instead, or taken off
        </th>
      </tr>
      <SheetRow
        v-for="line in setAside"
        :key="line.id"
        :line="line"
        :estimate="store.estimates.of(line)"
        :counted="false"
        :selected="line.id === store.selectedId"
        :chosen="isChosen(line.id)"
        :active-column="active?.rowId === line.id ? active.column : null"
        :draft="active?.rowId === line.id ? draft : null"
        :whole="whole"
        :problem="active?.rowId === line.id ? problem : ''"
        :delta-g="deltaOf(line)"
        @commit="commit"
        @become="become"
        @cancel="stop"
      />
    </SheetBody>
    <tfoot v-if="rows.length > 0">
      <tr>
        <td colspan="4">
          All-up in this loadout; price of everything fitted
        </td><td class="right figure">
          {{ gramsFigure(store.overview!.massG, store.overview!.spreadG) }} <InOunces :grams="store.overview!.massG" />
        </td><td class="right figure soft">
          ± {{ spreadFigure(store.overview!.spreadG) }}
        </td><td
          colspan="2"
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
