<script setup lang="ts">
import { extent, scaleLinear, scaleTime } from 'd3'
import { fixed, signed } from '#core/text/display'
import { coverageFactor95 } from '#core/maths/numbers'
import { evaluateCheck, type Scale, type ScaleCheck } from '#core/mass/scale'

const props = defineProps<{ scale: Scale; checks: readonly ScaleCheck[] }>()
const height = 128
const box = useTemplateRef<HTMLDivElement>('box')
const { width: measured } = useElementSize(box)
const width = computed(() => Math.max(measured.value || 480, 200))
const points = computed(() =>
  props.checks.map(check => {
    const { gain, gainSigma } = evaluateCheck(props.scale, check.placings)
    return {
      id: check.id,
      at: new Date(check.takenAt),
      percent: 100 * (gain - 1),
      spread: 100 * coverageFactor95 * gainSigma,
    }
  }),
)
const x = computed(() => {
  const [from, to] = extent(points.value, p => p.at) as [Date, Date]
  const pad = Math.max((to.getTime() - from.getTime()) * 0.08, 86_400_000)
  return scaleTime([new Date(from.getTime() - pad), new Date(to.getTime() + pad)], [40, width.value - 12])
})
const y = computed(() => {
  const [low, high] = [
    Math.min(0, ...points.value.map(p => p.percent - p.spread)),
    Math.max(0, ...points.value.map(p => p.percent + p.spread)),
  ]
  const pad = Math.max((high - low) * 0.2, 0.02)
  return scaleLinear([low - pad, high + pad], [height - 20, 8])
})
const ticks = computed(() => y.value.ticks(4))
const path = computed(() =>
  points.value.map((p, i) => `${i === 0 ? 'M' : 'L'}${x.value(p.at)},${y.value(p.percent)}`).join(''),
)
const summary = computed(() =>
  points.value.map(p => `${dayOf(p.at, 'without year')} ${signed(p.percent, 2)} % ± ${fixed(p.spread, 2)}`).join('; '),
)
const chartPoints = computed(() =>
  points.value.map(p => ({
    words: `${dayOf(p.at)}: reads ${signed(p.percent, 2)} % ± ${fixed(p.spread, 2)}`,
    x: x.value(p.at),
    y: y.value(p.percent),
  })),
)
const table = computed(() => ({
  heads: ['Day', 'Reads heavy, %', '± 95 %'],
  rows: points.value.map(p => [localDay(p.at), Number(p.percent.toFixed(4)), Number(p.spread.toFixed(4))]),
}))
</script>

<template>
  <div
    ref="box"
    class="gain"
  >
    <ChartFrame
      :title="`How heavy ${scale.name} reads`"
      :heads="table.heads"
      :rows="table.rows"
      :points="chartPoints"
    >
      <svg
        :width="width"
        :height="height"
        role="img"
        :aria-label="`How heavy it reads, check by check: ${summary}`"
      >
        <ChartAxis
          side="left"
          :ticks="ticks"
          :at="y"
          :words="tick => signed(tick, 2)"
          :ends="[40, width]"
          zero
        />
        <path :d="path" />
        <g
          v-for="point in points"
          :key="point.id"
        >
          <line
            class="whisker"
            :x1="x(point.at)"
            :x2="x(point.at)"
            :y1="y(point.percent - point.spread)"
            :y2="y(point.percent + point.spread)"
          />
          <circle
            :cx="x(point.at)"
            :cy="y(point.percent)"
            r="3.5"
          />
          <text
            :x="x(point.at)"
            :y="height - 4"
            text-anchor="middle"
          >{{ dayOf(point.at, 'without year') }}</text>
        </g>
      </svg>
    </ChartFrame>
    <small class="soft">reads heavy, %, with its 95 % interval</small>
  </div>
</template>

<style scoped>
.gain {
  min-width: 0;
}
svg {
  display: block;
  overflow: visible;
}
path {
  fill: none;
  stroke: var(--plum-text);
  stroke-width: 1.5;
}
circle {
  fill: var(--plum-text);
}
.whisker {
  stroke: var(--plum-text);
  stroke-width: 1.5;
}
text {
  font: 500 10.5px var(--mono);
  fill: var(--ink-soft);
}
</style>
