<script setup lang="ts">
import type { ShelfEntry } from '#core/deciding/shelf'
import { fixed, gramsFigure, withMark } from '#core/text/display'
import { coverageFactor95 } from '#core/maths/numbers'

const props = defineProps<{ entry: ShelfEntry }>()
const width = 470
const spread = computed(() => props.entry.sigmaG * coverageFactor95)
/** Grams across the strip. Two lines of arithmetic: the first page does without a library of charts. */
const most = computed(() => Math.max((props.entry.limitG ?? 0) * 1.05, (props.entry.massG + spread.value) * 1.02, 1))
const x = (grams: number) => (grams / most.value) * width
const segments = computed(() => {
  let from = 0
  return props.entry.segments.map(({ group, massG }) => {
    const start = x(from)
    from += massG
    return {
      group,
      x: start,
      width: Math.max(x(from) - start - 1, 0.5),
      colour: `var(--g-${groupTone[group].name})`,
    }
  })
})
const post = computed(() => (props.entry.limitG === null ? null : x(props.entry.limitG)))
const label = computed(() => {
  const { limitG, limitWritten } = props.entry
  if (limitG === null) return ''
  const written = withMark(limitWritten)
  return limitWritten.endsWith('g') ? written : `${fixed(limitG, 2)} g · ${written}`
})
</script>

<template>
  <svg
    :viewBox="`0 0 ${width} 52`"
    role="img"
    :aria-label="`${entry.name}: ${gramsFigure(entry.massG, spread)} g${label ? `, limit ${label}` : ''}`"
  >
    <rect
      class="free"
      x="0"
      y="8"
      :width="post ?? width"
      height="20"
      rx="2"
    />
    <rect
      v-if="post !== null"
      class="beyond"
      :x="post"
      y="8"
      :width="Math.max(width - post, 0)"
      height="20"
    />
    <rect
      v-for="segment in segments"
      :key="segment.group"
      :x="segment.x"
      y="8"
      :width="segment.width"
      height="20"
      rx="1.5"
      :fill="segment.colour"
    />
    <template v-if="spread > 0">
      <line
        class="halo"
        :x1="x(Math.max(entry.massG - spread, 0))"
        :x2="x(entry.massG + spread)"
        y1="18"
        y2="18"
      />
      <line
        class="whisker"
        :x1="x(Math.max(entry.massG - spread, 0))"
        :x2="x(entry.massG + spread)"
        y1="18"
        y2="18"
      />
    </template>
    <template v-if="post !== null"><line
      class="post"
      :x1="post"
      :x2="post"
      y1="2"
      y2="34"
    /><text
      :x="post"
      y="46"
    >{{ label }}</text></template>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  height: auto;
  max-height: 60px;
}
.free {
  fill: var(--free);
}
.beyond {
  fill: var(--beyond);
}
.whisker,
.post {
  stroke: var(--ink);
  stroke-width: 2;
}
.halo {
  stroke: var(--card);
  stroke-width: 5;
  opacity: 0.75;
}
text {
  font: 500 11px var(--mono);
  fill: var(--ink);
  text-anchor: end;
}
</style>
