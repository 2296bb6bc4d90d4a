<script setup lang="ts">
import { line as lineShape, scaleLinear } from 'd3'
import { spreadG, type Estimate } from '#core/maths/estimate'
import { gramsWithSpread } from '#core/text/display'
import type { TimedReading } from '#core/mass/readings'

const props = defineProps<{ readings: readonly TimedReading[]; expected: Estimate | null; capacityG: number }>()

const height = 132
const floor = height - 16
const box = useTemplateRef<HTMLDivElement>('box')
const { width: measured } = useElementSize(box)
const width = computed(() => Math.max(measured.value || 480, 160))
const shown = computed(() => props.readings.filter((r): r is TimedReading & { massG: number } => r.massG !== null))
const newestMs = computed(() => props.readings.at(-1)?.atMs ?? 0)
const band = computed(() =>
  props.expected
    ? {
        low: Math.max(0, props.expected.valueG - spreadG(props.expected)),
        high: props.expected.valueG + spreadG(props.expected),
      }
    : null,
)
const y = computed(() => {
  const top = Math.max(band.value?.high ?? 0, ...shown.value.map(r => r.massG), props.capacityG / 200) * 1.12
  const low = Math.min(0, ...shown.value.map(r => r.massG))
  return scaleLinear([low, top], [floor, 14])
})
const x = computed(() => scaleLinear([newestMs.value - traceMs, newestMs.value], [0, width.value]))
const path = computed(
  () =>
    lineShape<TimedReading & { massG: number }>(
      r => x.value(r.atMs),
      r => y.value(r.massG),
    )(shown.value) ?? '',
)
const bandBox = computed(() => {
  if (!band.value) return null
  const from = y.value(band.value.high)
  return { from, height: Math.max(y.value(band.value.low) - from, 3) }
})
</script>

<template>
  <div
    ref="box"
    class="trace"
  >
    <svg
      :width="width"
      :height="height"
      role="img"
      :aria-label="
        'The last ten seconds' + (expected ? `; expected ${gramsWithSpread(expected.valueG, spreadG(expected))}` : '')
      "
    >
      <rect
        v-if="bandBox"
        class="band"
        x="0"
        :y="bandBox.from"
        :width="width"
        :height="bandBox.height"
        rx="2"
      />
      <line
        class="axis"
        x1="0"
        :x2="width"
        :y1="floor"
        :y2="floor"
      />
      <path :d="path" />
      <text
        v-if="expected && bandBox"
        x="4"
        :y="Math.max(bandBox.from - 4, 10)"
      >expected {{ gramsWithSpread(expected.valueG, spreadG(expected)) }}</text>
      <text
        x="4"
        :y="height - 3"
      >10 s ago</text><text
        :x="width - 4"
        :y="height - 3"
        text-anchor="end"
      >now</text>
    </svg>
  </div>
</template>

<style scoped>
.trace {
  width: 100%;
  min-width: 0;
}
svg {
  display: block;
  overflow: visible;
}
.band {
  fill: var(--brass);
  opacity: 0.28;
}
.axis {
  stroke: var(--line);
  stroke-width: 1.5;
}
path {
  fill: none;
  stroke: var(--plum-text);
  stroke-width: 2;
  stroke-linejoin: round;
}
text {
  font: 500 11px var(--sans);
  fill: var(--ink-soft);
  paint-order: stroke;
  stroke: var(--card);
  stroke-width: 4px;
  stroke-linejoin: round;
}
</style>
