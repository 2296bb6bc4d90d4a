<script setup lang="ts">
import { curveStepBefore, line as lineOf, max, scaleLinear } from 'd3'
import { fixed, figure } from '#core/text/display'
import type { CostMeasure, ShownPlan } from '#core/deciding/shave'
import type { FrontierPoint } from '~/workers/shave.worker'

const props = defineProps<{
  points: readonly FrontierPoint[]
  neededG: number | null
  measure: CostMeasure
  label: string
  chosenG: number | null
}>()
const emit = defineEmits<{ choose: [point: FrontierPoint] }>()
const [width, height] = [250, 168]
const edge = { left: 38, right: 10, top: 18, bottom: 32 }
const costOf = (plan: ShownPlan) =>
  props.measure === 'cents'
    ? plan.cents / 100
    : props.measure === 'minutes'
      ? plan.minutes
      : props.measure === 'loss'
        ? plan.loss
        : props.measure === 'changes'
          ? plan.steps.length
          : plan.steps.filter(s => s.shaving.forGood).length
const offOf = (plan: ShownPlan) => plan.steps.reduce((sum, step) => sum + step.offG, 0)
const drawn = computed(() =>
  props.points.map(point => ({ point, x: offOf(point.plan), y: costOf(point.plan) })).sort((a, b) => a.x - b.x),
)
const x = computed(() =>
  scaleLinear(
    [0, Math.max(max(drawn.value, d => d.x) ?? 1, props.neededG ?? 0) * 1.05],
    [edge.left, width - edge.right],
  ),
)
const y = computed(() =>
  scaleLinear([0, Math.max(max(drawn.value, d => d.y) ?? 1, 1) * 1.08], [height - edge.bottom, edge.top]),
)
const path = computed(
  () =>
    lineOf<{ x: number; y: number }>(
      d => x.value(d.x),
      d => y.value(d.y),
    ).curve(curveStepBefore)([{ x: 0, y: 0 }, ...drawn.value]) ?? '',
)
const chartPoints = computed(() =>
  drawn.value.map(d => ({
    words: `${fixed(d.x, 1)} g off, ${props.label} ${fixed(d.y, 2)}`,
    x: x.value(d.x),
    y: y.value(d.y),
  })),
)
const table = computed(() => ({
  heads: ['Grams off', props.label],
  rows: drawn.value.map(d => [Number(d.x.toFixed(4)), Number(d.y.toFixed(4))]),
}))
</script>

<template>
  <ChartFrame
    title="What each gram costs"
    :heads="table.heads"
    :rows="table.rows"
    :points="chartPoints"
    untitled
  >
    <svg
      :width="width"
      :height="height"
      role="group"
      :aria-label="`What each gram costs: ${drawn.map(d => `${fixed(d.x, 1)} g off for ${fixed(d.y, 2)}`).join('; ')}`"
    >
      <ChartAxis
        side="left"
        :ticks="y.ticks(3)"
        :at="y"
        :words="tick => figure(tick, 2)"
        :ends="[edge.left, width - edge.right]"
        :title="label"
        :title-at="[0, 10]"
      />
      <ChartAxis
        side="bottom"
        :ticks="x.ticks(5)"
        :at="x"
        :words="tick => figure(tick, 2)"
        :ends="[edge.left, width - edge.right]"
        :foot="height"
        title="grams off"
      />
      <path
        :d="path"
        class="line"
      />
      <g v-if="neededG !== null && neededG > 0"><line
        :x1="x(neededG)"
        :x2="x(neededG)"
        :y1="edge.top - 4"
        :y2="height - edge.bottom"
        class="post"
      /><text
        :x="x(neededG) - 4"
        y="12"
        text-anchor="end"
        class="axis"
      >needed</text></g>
      <circle
        v-for="d in drawn"
        :key="d.point.gramsG"
        :cx="x(d.x)"
        :cy="y(d.y)"
        :r="chosenG === d.point.gramsG ? 5.5 : 3.6"
        class="point"
        :class="{ chosen: chosenG === d.point.gramsG }"
        role="button"
        tabindex="0"
        :aria-label="`${fixed(d.x, 1)} g off, ${label} ${fixed(d.y, 2)}`"
        @click="emit('choose', d.point)"
        @keydown.enter="emit('choose', d.point)"
        @keydown.space.prevent="emit('choose', d.point)"
      ><title>{{ fixed(d.x, 1) }} g off, {{ label }} {{ fixed(d.y, 2) }}</title></circle>
    </svg>
  </ChartFrame>
</template>

<style scoped>
text {
  font: 500 10px var(--mono);
  fill: var(--ink-soft);
}
.line {
  fill: none;
  stroke: var(--plum-text);
  stroke-width: 2;
}
.post {
  stroke: var(--ink);
  stroke-width: 2;
}
.point {
  fill: var(--plum-text);
  stroke: var(--card);
  cursor: pointer;
}
.chosen {
  fill: var(--brass);
  stroke: var(--ink);
}
</style>
