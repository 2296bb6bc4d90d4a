<script setup lang="ts">
import { scaleLinear } from 'd3'
import { differingProperties } from '#core/comparing/crafts'
import { farthestFirst, farthestG, namedBy, type ComparedRow, type Comparison } from '#core/comparing/lines'
import { coverageFactor95 } from '#core/maths/numbers'
import { slotFacts } from '#core/model/ledger'
import { centsFigure, fixed, signed, spreadFigure } from '#core/text/display'
import { columnGrams, priceDifference } from '#shared/files/comparison-text'

/** Slot by slot, the greatest difference first; small ones folded, what is the same said in one line. */
const { comparison, names } = defineProps<{ comparison: Comparison; names: readonly string[]; currency: string }>()

const isSame = (row: ComparedRow) => farthestG(row) < 0.005 && row.lines.every(line => line !== null)
const sorted = computed(() => farthestFirst(comparison.rows))
const differing = computed(() => sorted.value.filter(row => !isSame(row)))
const same = computed(() => sorted.value.filter(isSame))
/** Below this a difference is folded: half a hundredth of the heaviest craft. Our choice. */
const smallG = computed(() => Math.max(...comparison.totals.map(({ valueG }) => valueG)) / 200)
const small = computed(() => {
  const rows = differing.value.filter(row => farthestG(row) < smallG.value)
  return rows.length > 2 ? rows : []
})
const isOpen = ref(false)
const showSame = ref(false)
const shown = computed(() => [
  ...differing.value.filter(row => isOpen.value || !small.value.includes(row)),
  ...(showSame.value ? same.value : []),
])
const isPair = computed(() => names.length === 2)
const bar = computed(() =>
  scaleLinear([-1, 1].map(side => side * Math.max(...comparison.rows.map(farthestG), 0.01)) as [number, number], [2, 128]),
)
const tone = (value: number) => (Math.abs(value) < 0.005 ? 'soft' : value < 0 ? 'less' : 'more')
const priceWords = (row: ComparedRow, column: number) => {
  const cents = priceDifference(row, column)
  return cents === null || cents === 0 ? '' : `${cents > 0 ? '+' : '−'}${centsFigure(Math.abs(cents))}`
}
const propertiesOf = (row: ComparedRow) =>
  differingProperties(row.lines).map(({ label, unit, texts }) =>
    texts.length === 0 ? label : `${label} ${texts.map(text => text || 'not said').join(' → ')}${unit ? ` ${unit}` : ''}`,
  )
const smallWords = computed(() => {
  const slots = [...new Set(small.value.map(row => slotFacts[namedBy(row).slot].label.toLowerCase()))]
  return `${slots.slice(0, 5).join(', ')}${slots.length > 5 ? ' and others' : ''}: each at most ${fixed(smallG.value, 1)} g apart`
})
const totalDifference = (column: number) => {
  const { valueG, sigmaG } = comparison.differences[column]!
  return `${signed(valueG, 2)} ± ${spreadFigure(coverageFactor95 * sigmaG)}`
}
const sameWords = computed(() => {
  const some = same.value.slice(0, 4).map(row => lineTitle(namedBy(row)))
  return `${some.join(', ')}${same.value.length > 4 ? ' …' : ''}`
})
const smallG1 = computed(() => small.value.reduce((sum, row) => sum + row.differences[1]!.valueG, 0))
</script>

<template>
  <div
    class="compare-table"
    role="region"
    aria-label="Lines beside each other"
    tabindex="0"
  >
    <table class="answers-table">
      <caption class="visually-hidden">
        Line by line, the greatest difference first
      </caption>
      <thead>
        <tr>
          <th>Slot</th>
          <template
            v-for="name in names"
            :key="name"
          >
            <th>{{ name }}</th><th class="right">
              g
            </th>
          </template>
          <th
            v-if="isPair"
            class="bars"
          >
            greatest difference first, g
          </th><th
            v-if="isPair"
            class="right"
          >
            {{ currency }}
          </th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="row in shown"
          :key="row.lines.map(line => line?.id ?? '').join(' ')"
        >
          <td class="soft">
            {{ slotFacts[namedBy(row).slot].label }}
          </td>
          <template
            v-for="(line, column) in row.lines"
            :key="column"
          >
            <td class="part">
              <template v-if="line">
                <EvidenceSwatch
                  v-if="line.mass"
                  :evidence="line.mass.evidence"
                  :title="line.mass.evidence"
                />{{ lineTitle(line) }}
              </template><span
                v-else
                class="soft"
              >none</span>
              <details
                v-if="column === row.lines.length - 1 && propertiesOf(row).length > 0"
                class="soft properties"
              >
                <summary>differs in {{ propertiesOf(row).length }} more {{ propertiesOf(row).length === 1 ? 'thing' : 'things' }}</summary>
                <span
                  v-for="words in propertiesOf(row)"
                  :key="words"
                >{{ words }}</span>
              </details>
            </td><td class="right figure">
              {{ columnGrams(row, column) }}<small
                v-if="column > 0"
                class="difference"
                :class="[tone(row.differences[column]!.valueG), { pair: isPair }]"
              >{{ signed(row.differences[column]!.valueG, 2) }}</small>
            </td>
          </template>
          <td
            v-if="isPair"
            class="bars"
          >
            <svg
              width="236"
              height="20"
              aria-hidden="true"
            >
              <line
                class="axis"
                :x1="bar(0) + 48"
                :x2="bar(0) + 48"
                y1="-6"
                y2="26"
              /><rect
                :class="tone(row.differences[1]!.valueG)"
                :x="48 + Math.min(bar(0), bar(row.differences[1]!.valueG))"
                y="3"
                :width="Math.abs(bar(row.differences[1]!.valueG) - bar(0))"
                height="14"
              /><text
                :class="tone(row.differences[1]!.valueG)"
                :x="48 + bar(row.differences[1]!.valueG) + (row.differences[1]!.valueG < 0 ? -5 : 5)"
                y="14"
                :text-anchor="row.differences[1]!.valueG < 0 ? 'end' : 'start'"
              >{{ signed(row.differences[1]!.valueG, 2) }}</text>
            </svg><span class="visually-hidden">{{ signed(row.differences[1]!.valueG, 2) }} g</span>
          </td><td
            v-if="isPair"
            class="right figure soft"
          >
            {{ priceWords(row, 1) }}
          </td>
        </tr>
        <tr v-if="small.length > 0">
          <td>
            <el-button
              link
              type="primary"
              :aria-expanded="isOpen"
              @click="isOpen = !isOpen"
            >
              {{ isOpen ? 'Fold' : `${small.length} more` }}
            </el-button>
          </td><td
            :colspan="2 * names.length"
            class="soft"
          >
            {{ smallWords }}
          </td><td
            v-if="isPair"
            class="bars figure sum"
          >
            {{ isOpen ? '' : signed(smallG1, 2) }}
          </td><td v-if="isPair" />
        </tr>
      </tbody>
      <tfoot>
        <tr>
          <th scope="row">
            All-up
          </th>
          <template
            v-for="(total, column) in comparison.totals"
            :key="column"
          >
            <td /><td class="right figure">
              {{ fixed(total.valueG, 2) }}<small
                v-if="column > 0"
                class="difference"
                :class="[tone(comparison.differences[column]!.valueG), { pair: isPair }]"
              >{{ totalDifference(column) }}</small>
            </td>
          </template>
          <td
            v-if="isPair"
            class="bars figure sum"
          >
            {{ totalDifference(1) }}
          </td><td v-if="isPair" />
        </tr>
      </tfoot>
    </table>
    <p v-if="same.length > 0">
      <el-button
        link
        type="primary"
        :aria-expanded="showSame"
        @click="showSame = !showSame"
      >
        The same in {{ names.length === 2 ? 'both' : 'all' }} ({{ same.length }})
      </el-button> <span class="soft">{{ sameWords }}</span>
    </p>
  </div>
</template>

<style scoped>
.compare-table {
  overflow-x: auto;
}
table {
  width: 100%;
}
.part {
  min-width: 130px;
}
.properties {
  font-size: 11.5px;
}
.properties summary {
  cursor: pointer;
}
.properties span {
  display: block;
}
th + th:not(.right),
.part {
  padding-left: 14px;
}
.difference {
  display: block;
  font-size: 11.5px;
}
.less {
  color: var(--clear);
  fill: var(--clear);
}
.more {
  color: var(--over);
  fill: var(--over);
}
.soft {
  fill: var(--ink-soft);
}
.bars {
  width: 236px;
}
.bars svg {
  display: block;
  overflow: visible;
}
.bars rect {
  opacity: 0.75;
}
.bars text {
  font: 600 12px var(--mono);
}
.axis {
  stroke: var(--ink-soft);
}
.sum {
  text-align: center;
  font-weight: 600;
}
tfoot th,
tfoot td {
  font-weight: 600;
}
tfoot th {
  text-align: left;
}
.difference.pair {
  display: none;
}
/* What the bars tell stands below the grams. */
@media screen and (max-width: 760px) {
  .difference.pair {
    display: block;
  }
  .bars,
  .bars + * {
    display: none;
  }
  .part {
    min-width: 0;
    padding-left: 4px;
    overflow-wrap: anywhere;
  }
  th,
  td {
    padding-inline: 3px;
    font-size: 12px;
  }
}
</style>
