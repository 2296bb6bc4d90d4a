<script setup lang="ts">
import { fixed, gramsFigure } from '#core/text/display'
import { loadoutFigure, loadoutFigures, packNotes, type LoadoutCell } from '#core/aircraft/flight'
import { packLabel } from '#core/model/ledger'
import { sortPressed, sortedBy, sortOf, type ColumnSort } from '#shared/sheet/sorted-by'

const figureChoices = loadoutFigures
  .filter(({ key }) => key !== 'auw' && key !== 'headroom')
  .map(({ key, label }) => ({ value: key, label: label.toLowerCase() }))
const props = defineProps<{ selectedKey: string | null; selectedPackId: string | null; figureKey: string }>()
const emit = defineEmits<{ cell: [cell: LoadoutCell]; pack: [id: string]; figure: [key: string] }>()
const store = useBuildStore()
const { cells, flights, progress, isStopped, ask, stop, withDrawer, withTypical } = useLoadouts()

const onlyClear = ref(false)
const withNever = ref(false)
const withRetired = ref(false)
const sort = ref<ColumnSort>()
const figure = computed(() => loadoutFigure(props.figureKey))

const today = localDay()
/** Packs of the build stand in its own order while nothing sorts them; then they can be dragged into another one. */
const packRows = useTemplateRef<HTMLElement>('packRows')
useReorder(packRows, {
  handle: '.grip',
  rows: 'tr:not(.tried)',
  moved(from, to) {
    const own = rows.value.filter(row => row.pack.source === 'on the build').map(row => row.pack.line.id)
    const all = store.build!.lines
    const toward = own[to]!
    const after = all[all.findIndex(line => line.id === toward) + 1]?.id ?? null
    store.run({ type: 'lines.move', ids: [own[from]!], beforeId: to > from ? after : toward })
  },
})
const setupIds = computed(() => store.build!.setups.map(({ id }) => id))
const rows = computed(() => {
  const shown = { onlyClear: onlyClear.value, withNever: withNever.value, withRetired: withRetired.value }
  const all = loadoutRows(cells.value, setupIds.value, pack => store.estimates.of(pack), shown)
  const sorts = sort.value ? [sort.value] : []
  return sortedBy(all, sorts, (row, key) => loadoutValue(row, key, setupIds.value, figure.value, flights.value))
})
const misfits = computed(() => rows.value.map(row => misfitsOfRow(row, flights.value)))
function sortBy(key: string) {
  sort.value = sortPressed(sort.value, key, setupIds.value.includes(key) && figure.value.moreIsBetter)
}
const perGram = ({ pack, packG }: LoadoutRow) => {
  const ratio = capacityPerGram(pack.line, packG)
  return ratio === null ? '' : fixed(ratio, 1)
}
const setupName = (cell: LoadoutCell) => store.build!.setups.find(({ id }) => id === cell.choice.setupId)!.name

const grid = useTemplateRef<HTMLElement>('grid')
/** Arrow keys go from loadout to loadout. */
function step(event: KeyboardEvent) {
  const by: Record<string, [number, number]> = {
    ArrowDown: [1, 0],
    ArrowUp: [-1, 0],
    ArrowRight: [0, 1],
    ArrowLeft: [0, -1],
  }
  const move = by[event.key]
  const at = (event.target as HTMLElement).closest<HTMLElement>('[data-at]')?.dataset.at?.split(',').map(Number)
  if (!move || !at) return
  event.preventDefault()
  for (
    let [r, c] = [at[0]! + move[0], at[1]! + move[1]];
    r >= 0 && r < rows.value.length && c >= -1 && c < store.build!.setups.length;
    r += move[0], c += move[1]
  ) {
    const next = grid.value?.querySelector<HTMLElement>(`[data-at="${r},${c}"]`)
    if (next) {
      next.focus()
      return
    }
  }
}
</script>

<template>
  <div class="tools no-print">
    <PickOne
      inline
      field="show"
      :model-value="figureKey"
      label="Figure in the cells"
      :options="figureChoices"
      @update:model-value="emit('figure', $event)"
    />
    <el-checkbox v-model="onlyClear">
      only clear
    </el-checkbox>
    <el-checkbox v-model="withDrawer">
      packs of the drawer
    </el-checkbox>
    <el-checkbox v-model="withTypical">
      typical packs
    </el-checkbox>
    <el-checkbox
      v-if="store.build!.neverFlown.length > 0"
      v-model="withNever"
    >
      never flown
    </el-checkbox>
    <el-checkbox
      v-if="withRetired || cells.some(cell => isRetired(cell.pack))"
      v-model="withRetired"
    >
      retired packs
    </el-checkbox>
    <WorkProgress
      v-if="progress"
      words="Counting minutes"
      v-bind="progress"
      @stop="stop"
    />
    <span
      v-else-if="isStopped"
      role="status"
    >The minutes are not counted to the end. <el-button
      link
      type="primary"
      @click="ask"
    >
      Count them
    </el-button></span>
  </div>
  <div class="scroll">
    <table
      ref="grid"
      @keydown="step"
    >
      <caption class="visually-hidden">
        Packs and set-ups: all-up weight, verdict and {{ figure.label.toLowerCase() }}
      </caption>
      <thead>
        <tr>
          <th :aria-sort="sortOf(sort, 'label')">
            <button
              type="button"
              class="plain"
              @click="sortBy('label')"
            >
              Pack
            </button>
          </th>
          <th
            class="right side"
            :aria-sort="sortOf(sort, 'mah')"
          >
            <TermTip
              word="mAh"
              on
            >
              <button
                type="button"
                class="plain"
                @click="sortBy('mah')"
              >
                mAh
              </button>
            </TermTip>
          </th>
          <th
            class="right side"
            :aria-sort="sortOf(sort, 'grams')"
          >
            <button
              type="button"
              class="plain"
              @click="sortBy('grams')"
            >
              Grams
            </button>
          </th>
          <th
            class="right side"
            :aria-sort="sortOf(sort, 'ratio')"
          >
            <TermTip
              word="mAh/g"
              on
            >
              <button
                type="button"
                class="plain"
                @click="sortBy('ratio')"
              >
                mAh/g
              </button>
            </TermTip>
          </th>
          <th
            v-for="setup in store.build!.setups"
            :key="setup.id"
            class="setup"
            :aria-sort="sortOf(sort, setup.id)"
          >
            <button
              type="button"
              class="plain"
              @click="sortBy(setup.id)"
            >
              {{ setup.name }}
            </button>
          </th>
        </tr>
      </thead>
      <tbody ref="packRows">
        <tr
          v-for="(row, r) in rows"
          :key="row.pack.line.id"
          :class="{ tried: row.pack.source !== 'on the build' }"
          :data-pack="packLabel(row.pack.line)"
        >
          <th
            scope="row"
            :class="{ selected: selectedPackId === row.pack.line.id }"
          >
            <RowGrip v-if="!sort && row.pack.source === 'on the build'" /><button
              type="button"
              class="pack"
              :data-at="`${r},-1`"
              :title="packNotes(row.pack.line, today).join(' ')"
              @click="emit('pack', row.pack.line.id)"
            >
              <PackFace
                :row="row"
                :misfits="misfits[r]!.all"
              />
            </button>
          </th>
          <td class="right figure side">
            {{ row.pack.line.pack?.capacityMah ?? '' }}
          </td>
          <td class="right figure side">
            {{ row.packG > 0 ? gramsFigure(row.packG, row.packSpreadG) : '–' }} <InOunces :grams="row.packG > 0 ? row.packG : null" />
          </td>
          <td class="right figure side soft">
            {{ perGram(row) }}
          </td>
          <td
            v-for="(cell, c) in row.cells"
            :key="c"
            class="slot"
            :data-setup="store.build!.setups[c]!.name"
          >
            <button
              v-if="cell"
              type="button"
              class="cell"
              :class="[toneOf(cell.binding), { selected: cell.key === selectedKey, never: cell.never }]"
              :data-at="`${r},${c}`"
              :data-key="cell.key"
              :title="loadoutTitle(cell, setupName(cell), flights.get(cell.key))"
              @click="emit('cell', cell)"
            >
              <LoadoutFace
                :cell="cell"
                :figure-words="loadoutFigureWords(figure, cell, flights.get(cell.key), row.packG)"
                :misfits="misfits[r]!.of(cell).length > 0"
              />
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <p
      v-if="rows.length === 0"
      class="soft"
    >
      {{ onlyClear ? 'Nothing is clear with these packs and set-ups.' : 'No pack to show.' }}
    </p>
  </div>
</template>

<style scoped>
.scroll .grip {
  position: absolute;
  left: -4px;
  top: 50%;
  margin-top: -9px;
  z-index: 1;
  opacity: 0;
}
tr:hover .grip,
.grip:hover {
  opacity: 1;
}
@media (hover: none) {
  .scroll .grip {
    opacity: 0.6;
  }
}
tbody th {
  position: relative;
}
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: center;
  font-size: 12.5px;
  margin-bottom: 6px;
}
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: separate;
  border-spacing: 3px 0;
  margin: 0 -3px;
  min-width: 100%;
}
thead th {
  font-weight: 500;
  font-size: 11.5px;
  text-align: left;
  vertical-align: bottom;
  padding: 2px 4px 5px;
  border-bottom: 1px solid var(--edge);
}
thead .plain {
  color: var(--ink-soft);
  font-weight: 500;
  font-size: 11.5px;
  padding: 0;
  white-space: normal;
  text-align: left;
}
thead .right .plain {
  text-align: right;
}
th[aria-sort='ascending'] .plain::after {
  content: ' ▴';
}
th[aria-sort='descending'] .plain::after {
  content: ' ▾';
}
.setup {
  min-width: 118px;
}
.right {
  text-align: right;
}
tbody th,
tbody td {
  padding: 3px 0 0;
  font-weight: 400;
  text-align: left;
  vertical-align: top;
}
tbody td.side {
  vertical-align: middle;
  padding: 0 6px;
  text-align: right;
  font-size: 13px;
}
tbody th {
  position: sticky;
  left: 0;
  background: var(--card);
  z-index: 1;
}
.pack {
  border: 0;
  background: none;
  padding: 8px 8px;
  display: block;
  text-align: left;
  width: 100%;
  min-height: 60px;
  border-radius: 5px;
  font-weight: 400;
  white-space: normal;
}
.selected .pack {
  background: var(--selection);
}
.cell {
  width: 100%;
  min-height: 60px;
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0 8px;
  align-content: center;
  text-align: left;
  border: 0;
  border-radius: 5px;
  padding: 5px 9px;
  font-weight: 400;
  white-space: nowrap;
  background: var(--free);
  color: var(--ink);
}
.cell.clear {
  background: color-mix(in srgb, var(--clear) 13%, var(--card));
}
.cell.close {
  background: color-mix(in srgb, var(--close) 16%, var(--card));
}
.cell.over {
  background: color-mix(in srgb, var(--over) 14%, var(--card));
}
.cell.selected {
  outline: 2px solid var(--plum-text);
  outline-offset: -2px;
}
.tried .cell {
  border: 1px dashed var(--edge);
}
@media screen and (max-width: 760px) {
  .tools {
    font-size: 15px;
  }
  table,
  tbody {
    display: block;
  }
  table {
    margin: 0;
  }
  thead {
    display: none;
  }
  tbody tr {
    display: block;
    border-bottom: 1px solid var(--line);
    padding: 6px 0;
  }
  tbody th {
    display: block;
    position: relative;
  }
  tbody th:has(.grip) {
    padding-left: 18px;
  }
  .scroll .grip {
    left: 0;
  }
  .side {
    display: none;
  }
  .pack {
    min-height: 44px;
    padding: 6px 0;
  }
  .slot {
    display: block;
  }
  .slot::before {
    content: attr(data-setup);
    font-size: 13px;
    color: var(--ink-soft);
  }
  .slot:not(:has(.cell)) {
    display: none;
  }
  .cell {
    font-size: 15px;
  }
}
</style>
