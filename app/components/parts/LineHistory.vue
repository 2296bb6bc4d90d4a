<script setup lang="ts">
import dayjs from 'dayjs'
import { scaleLinear, scalePoint } from 'd3'
import { fixed, gramsWithSpread } from '#core/text/display'
import { spreadG } from '#core/maths/estimate'
import { lineEstimate } from '#core/mass/evidence'
import type { Line } from '#core/model/ledger'
import type { MassVersion } from '#shared/schemas/build-file'

/** The grams of a line from version to version, oldest at the left. */
const props = defineProps<{ line: Line }>()
const store = useBuildStore()
const versions = shallowRef<readonly MassVersion[]>([])
const problem = ref('')
let asked = 0
watch(
  () => [props.line.id, props.line.mass?.versionId],
  async () => {
    const mine = ++asked
    try {
      const found = await store.historyOf(props.line.id)
      if (mine !== asked) return
      versions.value = found
      problem.value = ''
    } catch (error) {
      if (mine === asked) problem.value = `How it became known could not be read: ${sentenceOf(error)}`
    }
  },
  { immediate: true },
)

const width = 248
const height = 74
const points = computed(() =>
  versions.value.slice(-12).map(({ madeAt, mass }) => {
    const { slot, quantity } = props.line
    const estimate = lineEstimate({ slot, quantity, mass }, store.honesty)
    return { id: mass.versionId, at: madeAt, mass, massG: estimate.valueG, spread: spreadG(estimate) }
  }),
)
const x = computed(() =>
  scalePoint(
    points.value.map(p => p.id),
    [14, width - 14],
  ),
)
const y = computed(() => {
  const [low, high] = [
    Math.min(...points.value.map(p => p.massG - p.spread)),
    Math.max(...points.value.map(p => p.massG + p.spread)),
  ]
  return scaleLinear([low, high > low ? high : low + 0.1], [height - 18, 8])
})
const words = (p: (typeof points.value)[number]) =>
  `${`${dayOf(p.at, 'without year')}, ${dayjs(p.at).format('HH:mm')}`}: ${gramsWithSpread(p.massG, p.spread)}, ${p.mass.evidence}`
const chartPoints = computed(() =>
  points.value.map(p => ({ words: words(p), x: x.value(p.id) ?? 0, y: y.value(p.massG) })),
)
const table = computed(() => ({
  heads: ['When', 'Grams', '± 95 %', 'Known by'],
  rows: points.value.map(p => [p.at, Number(p.massG.toFixed(4)), Number(p.spread.toFixed(4)), p.mass.evidence]),
}))
</script>

<template>
  <p
    v-if="problem"
    class="note"
  >
    {{ problem }}
  </p>
  <div v-else-if="points.length > 1">
    <ChartFrame
      title="How it became known"
      :heads="table.heads"
      :rows="table.rows"
      :points="chartPoints"
    >
      <svg
        :width="width"
        :height="height"
        role="img"
        :aria-label="points.map(words).join('; ')"
      >
        <g
          v-for="point in points"
          :key="point.id"
          :class="{ now: point.id === line.mass?.versionId }"
        >
          <title>{{ words(point) }}</title>
          <line
            :x1="x(point.id)"
            :x2="x(point.id)"
            :y1="y(point.massG - point.spread)"
            :y2="y(point.massG + point.spread)"
          />
          <circle
            :cx="x(point.id)"
            :cy="y(point.massG)"
            :r="point.mass.evidence === 'weighed' ? 4 : 3"
            :class="{ hollow: point.mass.evidence !== 'weighed' }"
          />
          <text
            v-if="points.length < 6"
            :x="x(point.id)"
            :y="height - 3"
            text-anchor="middle"
          >{{ fixed(point.massG, 2) }}</text>
        </g>
      </svg>
    </ChartFrame>
  </div>
</template>

<style scoped>
svg {
  display: block;
  max-width: 100%;
}
line {
  stroke: var(--ink-soft);
  stroke-width: 1.5;
}
circle {
  fill: var(--ink-soft);
}
.hollow {
  fill: var(--aside);
  stroke: var(--ink-soft);
  stroke-width: 1.5;
}
.now line {
  stroke: var(--plum-text);
}
.now circle {
  fill: var(--plum-text);
}
.now .hollow {
  fill: var(--aside);
  stroke: var(--plum-text);
}
text {
  font: 500 10px var(--mono);
  fill: var(--ink-soft);
}
</style>
