<script setup lang="ts">
import { fixed, gramsFigure, spreadFigure, gramsWithSpread } from '#core/text/display'
import { spreadG } from '#core/maths/estimate'
import { loadoutFigure, loadoutFigures, packNotes, type LoadoutCell, type SheetPack } from '#core/aircraft/flight'
import { packLabel } from '#core/model/ledger'
import { judgementWord } from '#core/mass/report'
import { loadoutName, sameLoadout, withSetup } from '#core/mass/loadout'
import { coverageFactor95 } from '#core/maths/numbers'
import { textOf } from '#core/model/properties'

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
const sort = ref<{ key: string; down: boolean }>({ key: '', down: false })
const figure = computed(() => loadoutFigure(props.figureKey))

interface Row {
  pack: SheetPack
  packG: number
  packSpreadG: number
  cells: (LoadoutCell | null)[]
  retired: boolean
}
/** What a pack fits with in none of its set-ups is said once, at the pack. */
function misfitsOf(row: Row): { all: readonly string[]; of: (cell: LoadoutCell) => readonly string[] } {
  const each = row.cells.flatMap(cell => (cell ? [flights.value.get(cell.key)?.misfits ?? []] : []))
  const all = (each[0] ?? []).filter(misfit => each.every(misfits => misfits.includes(misfit)))
  return { all, of: cell => (flights.value.get(cell.key)?.misfits ?? []).filter(misfit => !all.includes(misfit)) }
}
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
const rows = computed<Row[]>(() => {
  const byPack = new Map<string, Row>()
  for (const cell of cells.value) {
    const known = byPack.get(cell.pack.id)
    const estimate = known ? null : store.estimates.of(cell.pack)
    const row = known ?? {
      pack: { source: cell.source, line: cell.pack },
      packG: estimate!.valueG,
      packSpreadG: spreadG(estimate!),
      cells: store.build!.setups.map(() => null),
      retired: textOf(cell.pack, 'packState') === 'retired',
    }
    byPack.set(cell.pack.id, row)
    row.cells[store.build!.setups.findIndex(setup => setup.id === cell.choice.setupId)] = shows(cell) ? cell : null
  }
  return [...byPack.values()]
    .filter(row => (withRetired.value || !row.retired) && (row.cells.some(cell => cell) || !onlyClear.value))
    .sort(compare)
})
function shows(cell: LoadoutCell): boolean {
  return (withNever.value || !cell.never) && (!onlyClear.value || cell.intoReserveG === 0)
}
function valueOf(row: Row): number | string | null {
  const { key } = sort.value
  if (key === 'label') return packLabel(row.pack.line).toLowerCase()
  if (key === 'mah') return row.pack.line.pack?.capacityMah ?? null
  if (key === 'grams') return row.packG
  if (key === 'ratio') return row.packG > 0 && row.pack.line.pack ? row.pack.line.pack.capacityMah / row.packG : null
  const cell = row.cells[store.build!.setups.findIndex(setup => setup.id === key)]
  return cell ? figure.value.of(cell, flights.value.get(cell.key), row.packG) : null
}
function compare(a: Row, b: Row): number {
  if (sort.value.key === '') return 0
  const [x, y] = [valueOf(a), valueOf(b)]
  if (x === null || y === null) return Number(x === null) - Number(y === null)
  return (x < y ? -1 : x > y ? 1 : 0) * (sort.value.down ? -1 : 1)
}
function sortBy(key: string) {
  sort.value =
    sort.value.key === key
      ? { key, down: !sort.value.down }
      : { key, down: store.build!.setups.some(setup => setup.id === key) && figure.value.moreIsBetter }
}
const sorted = (key: string) => (sort.value.key === key ? (sort.value.down ? 'descending' : 'ascending') : 'none')

function figureWords(cell: LoadoutCell, row: Row): string {
  const flight = flights.value.get(cell.key)
  if (figure.value.key === 'minutes')
    return flight?.forecast && flight.forecast.why === null ? minutesWords(flight) : flight ? 'no minutes' : ''
  const value = figure.value.of(cell, flight, row.packG)
  return value === null
    ? ''
    : `${fixed(value, figure.value.digits)}${figure.value.unit.startsWith(':') ? ' ' : ' '}${figure.value.unit}`
}
/** Where the binding card looks at the heaviest loadout allowed, and that is another one: which decides. */
function decidedBy({ binding, choice }: LoadoutCell): string {
  if (!binding?.heaviest || sameLoadout(binding.heaviest, choice)) return ''
  return `by ${loadoutName(store.build!, binding.heaviest)}`
}
const toneOfCell = (cell: LoadoutCell) => (cell.binding?.verdict ? verdictTone[cell.binding.verdict.word] : 'none')
function cellTitle(cell: LoadoutCell, row: Row): string {
  const setup = store.build!.setups.find(s => s.id === cell.choice.setupId)!.name
  const flight = flights.value.get(cell.key)
  const verdict = cell.binding?.verdict
    ? `${cell.binding.verdict.word}, ${headroomTag(cell)} g`
    : cell.binding
      ? judgementWord(cell.binding)
      : 'no limit'
  return `${packLabel(row.pack.line)} ${withSetup(setup)}: ` +
    `${gramsWithSpread(cell.massG, cell.sigmaG * coverageFactor95, cell.binding?.limitG)}, ` +
    `${verdict}${openIn(cell) > 0 ? `, ${openIn(cell)} without grams` : ''}. ` +
    `${minutesWords(flight)}${flight && flight.misfits.length > 0 ? `. Does not fit: ${flight.misfits.join('; ')}` : ''}`
}
const isFlown = (cell: LoadoutCell) =>
  cell.choice.setupId === store.build!.flies.setupId && cell.choice.packLineId === store.build!.flies.packLineId

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
const openIn = (cell: LoadoutCell) => cell.openLines
const stateOf = (row: Row) => textOf(row.pack.line, 'packState')
const sourceWords: Record<SheetPack['source'], string> = {
  'on the build': '',
  'on the list': 'candidate',
  'drawer': 'in the drawer',
  'typical': 'typical, not owned',
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
      v-if="withRetired || rows.some(r => r.retired) || cells.some(c => textOf(c.pack, 'packState') === 'retired')"
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
          <th :aria-sort="sorted('label')">
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
            :aria-sort="sorted('mah')"
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
            :aria-sort="sorted('grams')"
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
            :aria-sort="sorted('ratio')"
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
            :aria-sort="sorted(setup.id)"
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
            <RowGrip v-if="sort.key === '' && row.pack.source === 'on the build'" /><button
              type="button"
              class="pack"
              :data-at="`${r},-1`"
              :title="packNotes(row.pack.line, today).join(' ')"
              @click="emit('pack', row.pack.line.id)"
            >
              <b>{{ packLabel(row.pack.line) }}</b> <span v-if="row.pack.line.pack">{{ row.pack.line.pack.cells }}S
                {{ row.pack.line.pack.chemistry }}</span><span
                v-else
                class="word-close"
              >which pack?</span>
              <small v-if="row.pack.source !== 'on the build'">{{ sourceWords[row.pack.source] }}</small><small
                v-else-if="stateOf(row) && stateOf(row) !== 'fine'"
                class="word-close"
              >{{ stateOf(row) }}</small>
              <small
                v-for="misfit in misfitsOf(row).all.slice(0, 1)"
                :key="misfit"
                class="word-over misfits"
              >Does not fit. {{ misfit }}<template v-if="misfitsOf(row).all.length > 1">, and
                {{ misfitsOf(row).all.length - 1 }} more</template></small>
              <small class="narrow"><template v-if="row.pack.line.pack">{{ row.pack.line.pack.capacityMah }} mAh,
              </template>{{ gramsFigure(row.packG, row.packSpreadG) }} g</small>
            </button>
          </th>
          <td class="right figure side">
            {{ row.pack.line.pack?.capacityMah ?? '' }}
          </td>
          <td class="right figure side">
            {{ row.packG > 0 ? gramsFigure(row.packG, row.packSpreadG) : '–' }} <InOunces :grams="row.packG > 0 ? row.packG : null" />
          </td>
          <td class="right figure side soft">
            {{ row.packG > 0 && row.pack.line.pack ? fixed(row.pack.line.pack.capacityMah / row.packG, 1) : '' }}
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
              :class="[toneOfCell(cell), { selected: cell.key === selectedKey, never: cell.never }]"
              :data-at="`${r},${c}`"
              :data-key="cell.key"
              :title="cellTitle(cell, row)"
              @click="emit('cell', cell)"
            >
              <span class="auw figure">{{ gramsFigure(cell.massG, cell.sigmaG * coverageFactor95, cell.binding?.limitG) }}<small>
                ± {{ spreadFigure(cell.sigmaG * coverageFactor95) }}</small> <InOunces :grams="cell.massG" /></span>
              <span
                v-if="cell.binding?.verdict"
                class="word"
              ><VerdictMark :word="cell.binding.verdict.word" /> <span
                v-if="openIn(cell) === 0"
                class="figure"
              >{{ headroomTag(cell) }}</span><small
                v-if="decidedBy(cell)"
                class="soft"
              >{{ decidedBy(cell) }}</small></span>
              <span
                v-if="openIn(cell) > 0"
                class="open"
              >{{ openIn(cell) === 1 ? 'one line' : `${openIn(cell)} lines` }} without grams</span>
              <span class="more figure">{{ figureWords(cell, row) }}</span>
              <span
                v-if="misfitsOf(row).of(cell).length > 0"
                class="misfit"
              >does not fit</span>
              <span
                v-if="isFlown(cell)"
                class="flown"
              >as I fly it</span><span
                v-if="cell.onPurpose"
                class="flown"
              >over on purpose</span><span
                v-if="cell.never"
                class="flown"
              >never flown</span>
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
.tools .tick {
  align-items: center;
}
.tools select {
  padding: 2px 6px;
  font-size: 12.5px;
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
.pack b {
  font-size: 14px;
}
.pack span {
  color: var(--ink-soft);
  white-space: nowrap;
}
.pack small {
  display: block;
  font-size: 11px;
  color: var(--ink-soft);
}
.pack .word-close {
  color: var(--close);
}
.pack .misfits {
  color: var(--over);
  max-width: 148px;
  line-height: 1.25;
}
.selected .pack {
  background: var(--selection);
}
.narrow {
  display: none !important;
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
.auw {
  font-size: 15px;
  grid-column: 1 / -1;
}
.auw small {
  font-size: 11px;
  color: var(--ink-soft);
}
.word {
  font-size: 11.5px;
  grid-column: 1 / -1;
  display: flex;
  gap: 6px;
  align-items: center;
  color: var(--ink);
}
.word :deep(.mark) {
  color: var(--ink);
}
.word :deep(.mark svg) {
  color: var(--close);
}
.cell.clear .word :deep(svg) {
  color: var(--clear);
}
.cell.over .word :deep(svg) {
  color: var(--over);
}
.more {
  font-size: 11.5px;
}
.open {
  font-size: 11px;
  color: var(--ink-soft);
  grid-column: 1;
}
.misfit {
  font-size: 11px;
  color: var(--over);
  font-weight: 600;
  grid-column: 1;
}
.flown {
  font-size: 11px;
  font-weight: 600;
  grid-column: 1;
}
.cell.selected {
  outline: 2px solid var(--plum-text);
  outline-offset: -2px;
}
.cell.never .auw {
  text-decoration: line-through;
}
.tried .cell {
  border: 1px dashed var(--edge);
}
@media screen and (max-width: 760px) {
  .tools {
    font-size: 15px;
  }
  .pack .misfits {
    max-width: none;
  }
  .tools select {
    font-size: 16px;
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
    position: static;
  }
  .side {
    display: none;
  }
  .narrow {
    display: inline !important;
  }
  .pack {
    min-height: 44px;
    padding: 6px 0;
  }
  .pack .narrow {
    margin-left: 6px;
  }
  .pack small {
    font-size: 14px;
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
  .auw {
    font-size: 18px;
    grid-column: 1;
  }
  .word,
  .more {
    font-size: 14px;
  }
  .more {
    grid-column: 2;
    grid-row: 1;
    align-self: center;
  }
}
</style>
