<script setup lang="ts">
import { clipped, counted, figure as figureOf, fixed } from '#core/text/display'
import { extent, scaleLinear } from 'd3'
import type { CandidateRow } from '#core/deciding/choosing'

const props = defineProps<{ rows: readonly CandidateRow[]; figure: string; label: string; selectedId: string | null }>()
const emit = defineEmits<{ select: [id: string] }>()
const box = useTemplateRef<HTMLDivElement>('box')
const { width: measured } = useElementSize(box)
const width = computed(() => Math.max(measured.value || 600, 280))
const height = 210
const points = computed(() =>
  props.rows.flatMap(row => {
    const value =
      props.figure === 'price'
        ? row.setPriceCents === null
          ? null
          : row.setPriceCents / 100
        : row.figures.find(f => f.key === props.figure)?.value
    return row.setG !== null && typeof value === 'number' ? [{ row, x: row.setG, y: value }] : []
  }),
)
const pad = ([low, high]: [number, number] | [undefined, undefined]): [number, number] => {
  if (low === undefined) return [0, 1]
  const room = Math.max((high - low) * 0.12, Math.abs(high) * 0.02, 0.5)
  return [low - room, high + room]
}
const x = computed(() => scaleLinear(pad(extent(points.value, p => p.x)), [52, width.value - 14]))
const y = computed(() => scaleLinear(pad(extent(points.value, p => p.y)), [height - 30, 10]))
/** Labels that would lie on one another are left out; the point says its name when it is looked at. */
const labels = computed(() => {
  const taken: [number, number, number][] = []
  return [...points.value]
    .sort((a, b) => rank(a.row) - rank(b.row))
    .flatMap(p => {
      const text = clipped(p.row.line.name.split(',')[0]!, 24)
      const wide = text.length * 6.1
      const left = x.value(p.x) + 8 + wide > width.value - 4
      const at: [number, number, number] = [left ? x.value(p.x) - 10 - wide : x.value(p.x) + 10, y.value(p.y) + 4, wide]
      if (
        taken.some(([tx, ty, tw]) => Math.abs(ty - at[1]) < 13 && at[0] < tx + tw + 4 && tx < at[0] + at[2] + 4) ||
        points.value.some(
          o =>
            o !== p &&
            Math.abs(y.value(o.y) - at[1] + 4) < 8 &&
            x.value(o.x) > at[0] - 4 &&
            x.value(o.x) < at[0] + wide + 4,
        )
      )
        return []
      taken.push(at)
      return [{ id: p.row.line.id, text, x: at[0], y: at[1] }]
    })
})
const rank = (row: CandidateRow) => ['fitted', 'on the list', 'drawer', 'catalogue'].indexOf(row.source)
const tickWords = (tick: number) => (tick >= 1000 ? counted(tick) : figureOf(tick, 2))
const inOrder = computed(() => [...points.value].sort((a, b) => a.x - b.x))
const chartPoints = computed(() =>
  inOrder.value.map(p => ({
    words: `${p.row.line.name}: ${fixed(p.x, 1)} g, ${props.label.toLowerCase()} ${tickWords(p.y)}`,
    x: x.value(p.x),
    y: y.value(p.y),
  })),
)
const table = computed(() => ({
  heads: ['Part', 'Grams of the set', props.label],
  rows: inOrder.value.map(p => [p.row.line.name, Number(p.x.toFixed(4)), p.y]),
}))
</script>

<template>
  <div
    ref="box"
    class="scatter"
  >
    <ChartFrame
      v-if="points.length > 0"
      :title="`${label} against grams of the set`"
      :heads="table.heads"
      :rows="table.rows"
      :points="chartPoints"
    >
      <svg
        :width="width"
        :height="height"
        role="img"
        :aria-label="`Grams of the set against ${label}: ${points.map(p => `${p.row.line.name} ${fixed(p.x, 1)} g, ${p.y}`).join('; ')}`"
      >
        <ChartAxis
          side="left"
          :ticks="y.ticks(4)"
          :at="y"
          :words="tickWords"
          :ends="[52, width - 10]"
          :title="label"
          :title-at="[52, 9]"
        />
        <ChartAxis
          side="bottom"
          :ticks="x.ticks(6)"
          :at="x"
          :words="tick => figureOf(tick, 2)"
          :ends="[52, width - 12]"
          :foot="height + 2"
          title="grams of the set"
        />
        <g
          v-for="p in [...points].sort((a, b) => rank(b.row) - rank(a.row))"
          :key="p.row.line.id"
          class="point"
          :class="[
            p.row.source.replaceAll(' ', '-'),
            { clash: p.row.findings.some(f => f.severity === 'clash'), selected: p.row.line.id === selectedId },
          ]"
          @click="emit('select', p.row.line.id)"
        ><circle
          :cx="x(p.x)"
          :cy="y(p.y)"
          :r="p.row.source === 'fitted' ? 6.5 : 5"
        /><title>{{ p.row.line.name }}</title></g>
        <text
          v-for="label_ in labels"
          :key="label_.id"
          :x="label_.x"
          :y="label_.y"
          class="name"
        >{{ label_.text }}</text>
      </svg>
    </ChartFrame>
    <p
      v-else
      class="soft"
    >
      Nothing to draw: nobody has said the {{ label.toLowerCase() }} of these.
    </p>
  </div>
</template>

<style scoped>
text {
  font: 500 10.5px var(--mono);
  fill: var(--ink-soft);
}
.name {
  font-family: var(--sans);
  font-size: 11px;
  fill: var(--ink);
}
circle {
  fill: var(--card);
  stroke: var(--plum-text);
  stroke-width: 1.8;
}
.fitted circle {
  fill: var(--plum-text);
}
.drawer circle {
  fill: var(--brass);
  stroke: var(--ink);
  stroke-width: 1;
}
.catalogue circle {
  stroke: var(--ink-soft);
  stroke-dasharray: 2 2;
}
.clash circle {
  stroke: var(--over);
  stroke-width: 2.4;
}
.selected circle {
  stroke-width: 3.5;
}
.point {
  cursor: pointer;
}
</style>
