<script setup lang="ts">
import type { CandidateRow } from '#core/deciding/choosing'
import { sortPressed, sortedBy, sortOf, type ColumnSort } from '#shared/sheet/sorted-by'
import { centsFigure, fixed, gramsFigure, signed } from '#core/text/display'

/**
 * Everything that could go where a part is, each as it would be in this build: how many pieces make the set, and the key
 * of the figure that has a column before all others.
 */
const props = defineProps<{
  rows: readonly CandidateRow[]
  pieces: number
  figure: string
  selectedId: string | null
}>()
const emit = defineEmits<{ select: [id: string] }>()

/** What the columns that always stand take, and what one more takes, px; measured with the widest words there are. */
const always = 720
const oneMore = 70
const { width } = useElementSize(useTemplateRef('place'))
/** Figures with a column of their own: as many as there is room for. The others stand in words below their row. */
const columns = computed(() => {
  const all = drawableFigures(props.rows)
  const chosen = all.filter(({ key }) => key === props.figure)
  return [...chosen, ...all.filter(({ key }) => key !== props.figure)].slice(
    0,
    Math.max(chosen.length, Math.floor((width.value - always) / oneMore)),
  )
})
const heads = computed(() => [
  { key: 'name', title: 'What', left: true },
  { key: 'set', title: props.pieces > 1 ? `Set of ${props.pieces}, g` : 'Grams' },
  { key: 'delta', title: 'Change' },
  { key: 'auw', title: 'All-up' },
  { key: 'minutes', title: 'Minutes' },
  { key: 'verdict', title: 'Verdict', left: true },
  { key: 'fit', title: 'Fits', left: true },
  { key: 'price', title: 'Price' },
  ...columns.value.map(({ key, label }) => ({ key, title: label })),
])
const sort = ref<ColumnSort | undefined>({ column: 'delta', down: false })
const sorted = computed(() => sortedBy(props.rows, sort.value ? [sort.value] : [], candidateValue))

function figureOf({ figures }: CandidateRow, key: string): string {
  const one = figures.find(f => f.key === key)
  return one ? candidateFigure(one.value, one.digits) : '–'
}
const wordsOf = (row: CandidateRow) =>
  candidateWords(
    row,
    columns.value.map(({ key }) => key),
  )

function fitsTone(row: CandidateRow): string {
  if (row.findings.length > 0) return row.findings.some(f => f.severity === 'clash') ? 'word-over' : 'word-close'
  return row.line.properties ? 'word-clear' : 'soft'
}
</script>

<template>
  <div
    ref="place"
    class="scroll"
  >
    <table v-stacks>
      <thead>
        <tr>
          <template
            v-for="head in heads"
            :key="head.key"
          >
            <th v-if="head.key === 'verdict'">
              <TermTip word="Verdict" />
            </th>
            <th
              v-else
              :class="{ right: !head.left }"
              :aria-sort="sortOf(sort, head.key)"
            >
              <el-button
                link
                type="primary"
                @click="sort = sortPressed(sort, head.key)"
              >
                {{ head.title }}
              </el-button>
            </th>
          </template>
        </tr>
      </thead>
      <tbody>
        <template
          v-for="row in sorted"
          :key="row.line.id"
        >
          <tr
            :class="{ fitted: row.source === 'fitted', selected: row.line.id === selectedId }"
            :data-candidate="row.line.name"
          >
            <td>
              <el-button
                link
                type="primary"
                class="name"
                @click="emit('select', row.line.id)"
              >
                {{ row.line.name }}
              </el-button><small class="soft">{{ row.source }}</small>
            </td>
            <td class="right figure">
              {{ row.setG === null ? '–' : gramsFigure(row.setG, row.spreadG) }}
            </td>
            <td
              class="right figure"
              :class="row.source === 'fitted' || row.deltaG === null ? '' : row.deltaG <= 0 ? 'word-clear' : 'word-over'"
            >
              {{ row.source === 'fitted' ? '' : row.deltaG === null ? '–' : signed(row.deltaG, 1) }}
            </td>
            <td class="right figure">
              {{ fixed(row.auwG, 1) }}
            </td><td
              class="right figure"
              data-test="minutes"
            >
              {{ candidateMinutes(row) }}
            </td><td>
              <VerdictMark
                v-if="row.verdict"
                :word="row.verdict.word"
              />
            </td>
            <td class="fits">
              <span :class="fitsTone(row)">{{ fitsWords(row) }}</span>
            </td>
            <td class="right figure">
              {{ row.setPriceCents === null ? '' : centsFigure(row.setPriceCents) }}
            </td>
            <td
              v-for="{ key } in columns"
              :key
              class="right figure soft"
            >
              {{ figureOf(row, key) }}
            </td>
          </tr>
          <tr
            v-if="wordsOf(row)"
            :class="{ fitted: row.source === 'fitted', selected: row.line.id === selectedId }"
          >
            <td
              :colspan="heads.length"
              class="told soft"
            >
              {{ wordsOf(row) }}
            </td>
          </tr>
        </template>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
.told {
  white-space: normal;
  padding-top: 0;
  font-size: 12px;
}
tr:has(+ tr > .told) td {
  border-bottom: 0;
}
table {
  border-collapse: collapse;
  width: 100%;
  font-size: 12.5px;
}
th,
td {
  padding: 3px 5px;
  border-bottom: 1px solid var(--line);
  text-align: left;
  white-space: nowrap;
}
.right {
  text-align: right;
}
th .is-link {
  color: var(--ink-soft);
  font-weight: 500;
  font-size: 11.5px;
  padding: 0;
  white-space: normal;
}
th[aria-sort='ascending'] .is-link::after {
  content: ' ▴';
}
th[aria-sort='descending'] .is-link::after {
  content: ' ▾';
}
.name {
  padding: 0;
  color: var(--ink);
  white-space: normal;
  text-align: left;
  font-size: 12.5px;
}
td:first-child {
  white-space: normal;
  min-width: 158px;
}
.fits {
  white-space: normal;
  min-width: 96px;
  line-height: 1.2;
}
thead th {
  font-weight: 500;
  font-size: 11.5px;
  color: var(--ink-soft);
}
td small {
  display: block;
  font-size: 11px;
}
tr.fitted {
  background: var(--paper);
}
tr.selected {
  background: var(--selection);
}
@media screen and (max-width: 760px) {
  tr:has(+ tr > .told) {
    border-bottom: 0;
    padding-bottom: 0;
  }
  .told {
    font-size: 14px;
  }
}
</style>
