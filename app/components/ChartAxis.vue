<script setup lang="ts">
/** An axis of a chart: its figures and its title; the left one with lines across. All places in px of the drawing. */
const { titleAt = [2, 11] } = defineProps<{
  side: 'left' | 'bottom'
  ticks: readonly number[]
  /** Where a figure stands along the axis. */
  at: (value: number) => number
  words: (value: number) => string
  /** Left and right end of what is drawn. */
  ends: readonly [number, number]
  /** Foot of the drawing: the lower axis stands on it. */
  foot?: number
  /** Marks the line of nothing, where figures lie on both sides of it. */
  zero?: boolean
  title?: string
  /** Where the title of the left axis stands. */
  titleAt?: readonly [number, number]
}>()
</script>

<template>
  <g class="chart-axis">
    <template v-if="side === 'left'">
      <g
        v-for="tick in ticks"
        :key="tick"
      >
        <line
          :x1="ends[0]"
          :x2="ends[1]"
          :y1="at(tick)"
          :y2="at(tick)"
          :class="{ zero: zero && tick === 0 }"
        /><text
          :x="ends[0] - 6"
          :y="at(tick) + 4"
          text-anchor="end"
        >
          {{ words(tick) }}
        </text>
      </g>
      <text
        v-if="title"
        :x="titleAt[0]"
        :y="titleAt[1]"
        class="title"
      >
        {{ title }}
      </text>
    </template>
    <template v-else>
      <text
        v-for="tick in ticks"
        :key="tick"
        :x="at(tick)"
        :y="foot! - 18"
        text-anchor="middle"
      >
        {{ words(tick) }}
      </text>
      <text
        v-if="title"
        :x="ends[1]"
        :y="foot! - 4"
        text-anchor="end"
        class="title"
      >
        {{ title }}
      </text>
    </template>
  </g>
</template>

<style scoped>
line {
  stroke: var(--line);
}
line.zero {
  stroke: var(--ink-soft);
  stroke-dasharray: 3 3;
}
text {
  font: 500 10.5px var(--mono);
  fill: var(--ink-soft);
}
.title {
  font-family: var(--sans);
  font-size: 11px;
}
</style>
