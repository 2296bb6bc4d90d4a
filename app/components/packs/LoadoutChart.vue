<script setup lang="ts">
import { extent, line as lineOf, scaleLinear, curveStepAfter } from 'd3'
import { fixed, figure } from '#core/text/display'
import { frontierOf, loadoutFigure, loadoutFigures, type LoadoutCell } from '#core/aircraft/flight'
import { packLabel } from '#core/model/ledger'
import { loadoutName, withSetup } from '#core/mass/loadout'
import { toGrams } from '#core/text/units'

const props = defineProps<{ selectedKey: string | null; yKey: string }>()
const emit = defineEmits<{ cell: [cell: LoadoutCell]; y: [key: string] }>()
const store = useBuildStore()
const { cells, flights } = useLoadouts()
const xKey = ref('auw')
const [xFigure, yFigure] = [computed(() => loadoutFigure(xKey.value)), computed(() => loadoutFigure(props.yKey))]
const box = useTemplateRef<HTMLDivElement>('box')
const { width: measured } = useElementSize(box)
const width = computed(() => Math.max(measured.value || 620, 280))
const height = 248
const edge = { left: 46, right: 16, top: 24, bottom: 34 }

const packG = (cell: LoadoutCell) => store.estimates.of(cell.pack).valueG
const points = computed(() =>
  cells.value
    .filter(cell => !cell.never)
    .flatMap(cell => {
      const [x, y] = [
        xFigure.value.of(cell, flights.value.get(cell.key), packG(cell)),
        yFigure.value.of(cell, flights.value.get(cell.key), packG(cell)),
      ]
      return x === null || y === null
        ? []
        : [{ cell, x, y, tone: cell.binding?.verdict ? verdictTone[cell.binding.verdict.word] : ('none' as const) }]
    }),
)
/** The tightest limit, where weight is drawn and everything on board counts. */
const post = computed(() => {
  if (xKey.value !== 'auw') return null
  const judged = cells.value
    .flatMap(cell => cell.judgements)
    .filter(j => j.limitG !== null && j.card.counts === 'take-off' && j.verdict)
  return judged.reduce<(typeof judged)[number] | null>(
    (tightest, j) => (tightest && tightest.limitG! <= j.limitG! ? tightest : j),
    null,
  )
})
const span = (values: number[], also: number | null): [number, number] => {
  const [low = 0, high = 1] = extent(also === null ? values : [...values, also]) as [number, number]
  const room = Math.max((high - low) * 0.09, Math.abs(high) * 0.02, 0.3)
  return [low - room, high + room]
}
const x = computed(() =>
  scaleLinear(
    span(
      points.value.map(p => p.x),
      post.value?.limitG ?? null,
    ),
    [edge.left, width.value - edge.right],
  ),
)
const y = computed(() =>
  scaleLinear(
    span(
      points.value.map(p => p.y),
      null,
    ),
    [height - edge.bottom, edge.top],
  ).nice(4),
)
/** Where the limit lies far left its flag stands on its right, clear of what the axis says. */
const flagRight = computed(() => post.value !== null && x.value(post.value.limitG!) < 230)
/** The best under the limit, lightest first; nothing where there is only one. */
const best = computed(() => {
  if (xKey.value !== 'auw' || !yFigure.value.moreIsBetter) return null
  const found = frontierOf(
    points.value.map(p => p.cell),
    key => points.value.find(p => p.cell.key === key)?.y ?? null,
  ).map(cell => points.value.find(p => p.cell.key === cell.key)!)
  return found.length < 2 ? null : found
})
const frontier = computed(
  () =>
    best.value &&
    lineOf<(typeof points.value)[number]>(
      p => x.value(p.x),
      p => y.value(p.y),
    ).curve(curveStepAfter)(best.value),
)
const flag = computed(() => {
  const limit = post.value?.card.limit
  if (!limit) return ''
  return limit.unit === 'g'
    ? `${figure(limit.value, 4)} g`
    : `${fixed(toGrams(limit.value, limit.unit), 2)} g · ${figure(limit.value, 4)} ${limit.unit}`
})

/** A label goes to the first free place around its point; where all are taken it is left to the point's own words. */
const labels = computed(() => {
  const many = new Set(points.value.map(p => p.cell.choice.setupId)).size > 1
  const setups = store.build!.setups
  const taken: { x: number; y: number; w: number; h: number }[] = points.value.map(p => ({
    x: x.value(p.x) - 6,
    y: y.value(p.y) - 6,
    w: 12,
    h: 12,
  }))
  if (post.value) taken.push({ x: x.value(post.value.limitG!) - 2, y: 0, w: 4, h: height })
  for (const [i, p] of (best.value ?? []).entries()) {
    const next = best.value![i + 1]
    if (next)
      taken.push(
        { x: x.value(p.x), y: y.value(p.y) - 2, w: x.value(next.x) - x.value(p.x), h: 4 },
        { x: x.value(next.x) - 2, y: y.value(next.y), w: 4, h: y.value(p.y) - y.value(next.y) },
      )
  }
  const order = [...points.value].sort(
    (a, b) => Number(b.cell.key === props.selectedKey) - Number(a.cell.key === props.selectedKey) || a.x - b.x,
  )
  return order.flatMap(p => {
    const number = setups.findIndex(s => s.id === p.cell.choice.setupId) + 1
    const text = `${packLabel(p.cell.pack)}${many ? ` · ${number}` : ''}`
    const [w, h] = [text.length * 6.4 + 2, 12]
    const [px, py] = [x.value(p.x), y.value(p.y)]
    const spots = [
      [px + 11, py - 6],
      [px - w / 2, py - 22],
      [px - 11 - w, py - 6],
      [px - w / 2, py + 8],
      [px + 7, py - 18],
      [px + 7, py + 6],
      [px - 7 - w, py - 18],
      [px - 7 - w, py + 6],
      [px + 14, py - 26],
      [px - 14 - w, py - 26],
    ] as const
    const free = spots.find(
      ([sx, sy]) =>
        sx >= edge.left &&
        sx + w <= width.value - 2 &&
        sy >= 0 &&
        sy + h <= height - edge.bottom &&
        !taken.some(t => sx < t.x + t.w && t.x < sx + w && sy < t.y + t.h && t.y < sy + h),
    )
    if (!free) return []
    taken.push({ x: free[0], y: free[1], w, h })
    return [{ key: p.cell.key, text, x: free[0] + 1, y: free[1] + 10 }]
  })
})
const words = computed(() =>
  points.value
    .map(
      p =>
        `${packLabel(p.cell.pack)} ` +
          `${withSetup(store.build!.setups.find(s => s.id === p.cell.choice.setupId)!.name)}: ` +
          `${fixed(p.x, xFigure.value.digits)} ${xFigure.value.unit}, ${fixed(p.y, yFigure.value.digits)} ` +
          `${yFigure.value.unit}`,
    )
    .join('; '),
)
const inOrder = computed(() => [...points.value].sort((a, b) => a.x - b.x))
const chartPoints = computed(() =>
  inOrder.value.map(p => ({
    words:
      `${loadoutName(store.build!, p.cell.choice)}: ${xFigure.value.label.toLowerCase()} ${figure(p.x, 2)} ` +
      `${xFigure.value.unit}, ${yFigure.value.label.toLowerCase()} ${figure(p.y, 2)} ${yFigure.value.unit}` +
      `${p.cell.binding?.verdict ? `, ${p.cell.binding.verdict.word}` : ''}`,
    x: x.value(p.x),
    y: y.value(p.y),
  })),
)
const table = computed(() => ({
  heads: [
    'Loadout',
    `${xFigure.value.label}, ${xFigure.value.unit}`,
    `${yFigure.value.label}, ${yFigure.value.unit}`,
    'Verdict',
  ],
  rows: inOrder.value.map(p => [
    loadoutName(store.build!, p.cell.choice),
    Number(p.x.toFixed(4)),
    Number(p.y.toFixed(4)),
    p.cell.binding?.verdict?.word ?? '',
  ]),
}))
</script>

<template>
  <section
    class="chart"
    aria-label="Chart"
  >
    <div class="pick no-print">
      <PickOne
        :model-value="yKey"
        label="Drawn upwards"
        :options="loadoutFigures.filter(f => f.key !== 'auw').map((f) => ({ value: f.key, label: f.label.toLowerCase() }))"
        @update:model-value="emit('y', $event)"
      /> against
      <PickOne
        v-model="xKey"
        label="Drawn to the right"
        :options="loadoutFigures.map((f) => ({ value: f.key, label: f.label.toLowerCase() }))"
      />
      <span
        v-if="new Set(points.map(p => p.cell.choice.setupId)).size > 1"
        class="soft setups"
      ><span
        v-for="(setup, i) in store.build!.setups"
        :key="setup.id"
      >{{ i + 1 }} {{ setup.name }}</span></span>
    </div>
    <div ref="box">
      <ChartFrame
        v-if="points.length > 0"
        :title="`${yFigure.label} against ${xFigure.label.toLowerCase()}`"
        :heads="table.heads"
        :rows="table.rows"
        :points="chartPoints"
      >
        <svg
          :width="width"
          :height="height"
          role="img"
          :aria-label="`${yFigure.label} against ${xFigure.label}. ${words}`"
        >
          <rect
            v-if="post && x(post.limitG!) < width - edge.right"
            :x="x(post.limitG!)"
            :y="edge.top"
            :width="width - edge.right - x(post.limitG!)"
            :height="height - edge.bottom - edge.top"
            class="beyond"
          />
          <ChartAxis
            side="left"
            :ticks="y.ticks(4)"
            :at="y"
            :words="tick => figure(tick, 2)"
            :ends="[edge.left, width - edge.right]"
            :title="yFigure.label.toLowerCase() + (yFigure.key === 'minutes' ? '' : `, ${yFigure.unit}`)"
          />
          <ChartAxis
            side="bottom"
            :ticks="x.ticks(6)"
            :at="x"
            :words="tick => figure(tick, 2)"
            :ends="[edge.left, width - edge.right]"
            :foot="height"
            :title="`${xFigure.label.toLowerCase()}, ${xFigure.unit}`"
          />
          <path
            v-if="frontier"
            :d="frontier"
            class="frontier"
          />
          <g v-if="post"><line
            :x1="x(post.limitG!)"
            :x2="x(post.limitG!)"
            :y1="edge.top - 6"
            :y2="height - edge.bottom"
            class="post"
          /><text
            :x="x(post.limitG!) + (flagRight ? 5 : -5)"
            :y="12"
            :text-anchor="flagRight ? 'start' : 'end'"
            class="flag"
          >{{ flag }}</text></g>
          <g
            v-for="p in points"
            :key="p.cell.key"
            class="point"
            :class="[p.tone, { tried: p.cell.source !== 'on the build', selected: p.cell.key === selectedKey }]"
            @click="emit('cell', p.cell)"
          >
            <circle
              :cx="x(p.x)"
              :cy="y(p.y)"
              r="9"
              class="reach"
            />
            <circle
              v-if="p.tone === 'clear' || p.tone === 'none'"
              :cx="x(p.x)"
              :cy="y(p.y)"
              r="5"
              class="mark"
            />
            <rect
              v-else-if="p.tone === 'close'"
              :x="x(p.x) - 4.5"
              :y="y(p.y) - 4.5"
              width="9"
              height="9"
              class="mark hollow"
            />
            <path
              v-else
              :d="`M${x(p.x) - 5} ${y(p.y) - 5} l10 10 m0 -10 l-10 10`"
              class="mark hollow"
            />
            <title>{{ packLabel(p.cell.pack) }}
              {{ withSetup(store.build!.setups.find(s => s.id === p.cell.choice.setupId)!.name) }}:
              {{ fixed(p.x, xFigure.digits) }} {{ xFigure.unit }}, {{ fixed(p.y, yFigure.digits) }}
              {{ yFigure.unit }}</title>
          </g>
          <text
            v-for="label in labels"
            :key="label.key"
            :x="label.x"
            :y="label.y"
            class="name"
            :class="{ selected: label.key === selectedKey }"
          >{{ label.text }}</text>
        </svg>
      </ChartFrame>
      <p
        v-else
        class="soft"
      >
        Nothing to draw yet: {{ yFigure.label.toLowerCase() }} cannot be told for these loadouts.
      </p>
    </div>
  </section>
</template>

<style scoped>
.chart {
  margin-top: 14px;
  border-top: 1px solid var(--line);
  padding-top: 8px;
}
.pick {
  font-size: 12.5px;
  display: flex;
  gap: 6px;
  align-items: center;
  flex-wrap: wrap;
  color: var(--ink-soft);
}
.pick select {
  padding: 2px 6px;
  font-size: 12.5px;
}
.setups {
  display: flex;
  gap: 10px;
  flex-wrap: wrap;
  margin-left: auto;
}
text {
  font: 500 10.5px var(--mono);
  fill: var(--ink-soft);
}
.name {
  font-family: var(--sans);
  font-size: 11px;
  fill: var(--ink);
}
.name.selected {
  font-weight: 700;
}
.beyond {
  fill: var(--beyond);
  opacity: 0.55;
}
.post {
  stroke: var(--ink);
  stroke-width: 2.2;
}
.flag {
  fill: var(--ink);
}
.frontier {
  fill: none;
  stroke: var(--clear);
  stroke-width: 1.6;
  opacity: 0.7;
}
.point {
  cursor: pointer;
  color: var(--plum-text);
}
.clear {
  color: var(--clear);
}
.close {
  color: var(--close);
}
.over {
  color: var(--over);
}
.mark {
  fill: currentColor;
  stroke: currentColor;
  stroke-width: 1.6;
}
.hollow {
  fill: none;
  stroke-width: 2.2;
}
.tried .mark {
  fill: var(--card);
  stroke-dasharray: 2.5 1.8;
}
.tried .hollow {
  fill: none;
}
.reach {
  fill: transparent;
}
.selected .reach {
  fill: none;
  stroke: var(--plum-text);
  stroke-width: 1.6;
}
</style>
