<script setup lang="ts">
import { groupOf, slotFacts, type Line } from '#core/model/ledger'
import { spreadG, type Estimate } from '#core/maths/estimate'
import { gramsWithSpread } from '#core/text/display'

/** The segments of some lines that stand side by side on the mass strip, from 0 on. */
const props = defineProps<{
  lines: readonly Line[]
  estimates: readonly Estimate[]
  pixelsPerGram: number
  top: number
  height: number
  selectedId: string | null
  /** The segment that takes the focus by Tab, counted from the first of these; -1 where it is none of them. */
  tabStop: number
}>()
const emit = defineEmits<{
  pick: [lineId: string]
  /** Pointed at: what it says and where its middle is. */
  point: [at: { title: string; x: number } | null]
  focused: [index: number]
}>()

interface Segment {
  line: Line
  x: number
  width: number
  colour: string
  texture: string | null
  label: string
  dark: boolean
  title: string
}
const segments = computed<Segment[]>(() => {
  let fromG = 0
  return props.lines.flatMap((line, i) => {
    const estimate = props.estimates[i]!
    const x = fromG * props.pixelsPerGram
    fromG += estimate.valueG
    if (!isDrawn(line, estimate) || !line.mass) return []
    const tone = groupTone[groupOf(line.slot)]
    const name = slotFacts[line.slot].label
    const width = Math.max(estimate.valueG * props.pixelsPerGram - 1, 0.6)
    return [
      {
        line,
        x,
        width,
        colour: `var(--g-${tone.name})`,
        dark: tone.darkLabel,
        texture: line.mass.evidence === 'weighed' ? null : `url(#texture-${evidenceTexture[line.mass.evidence]})`,
        label: width > name.length * 7 + 14 ? name : '',
        title: `${lineTitle(line)}: ${gramsWithSpread(estimate.valueG, spreadG(estimate))}, ${line.mass.evidence}`,
      },
    ]
  })
})
const point = ({ title, x, width }: Segment) => emit('point', { title, x: x + width / 2 })
function focused(segment: Segment, index: number) {
  point(segment)
  emit('focused', index)
}
</script>

<template>
  <g
    v-for="(segment, i) in segments"
    :key="segment.line.id"
  >
    <rect
      class="segment"
      :class="{ selected: segment.line.id === selectedId }"
      :x="segment.x"
      :y="top"
      :width="segment.width"
      :height="height"
      rx="1.5"
      :fill="segment.colour"
      role="button"
      :tabindex="i === tabStop ? 0 : -1"
      :aria-label="segment.title"
      @mouseenter="point(segment)"
      @focus="focused(segment, i)"
      @blur="emit('point', null)"
      @click="emit('pick', segment.line.id)"
      @keydown.enter.prevent="emit('pick', segment.line.id)"
    />
    <rect
      v-if="segment.texture"
      :x="segment.x"
      :y="top"
      :width="segment.width"
      :height="height"
      rx="1.5"
      :fill="segment.texture"
      class="over-it"
    />
    <text
      v-if="segment.label"
      :x="segment.x + 7"
      :y="top + 17"
      class="label"
      :class="{ dark: segment.dark }"
    >
      {{ segment.label }}
    </text>
  </g>
</template>

<style scoped>
.segment {
  cursor: pointer;
  outline: none;
}
.segment.selected {
  stroke: var(--ink);
  stroke-width: 2;
}
.segment:focus-visible {
  stroke: var(--plum-text);
  stroke-width: 3;
}
.over-it {
  pointer-events: none;
}
.label {
  font: 600 11px var(--sans);
  fill: var(--on-dark);
  pointer-events: none;
  paint-order: stroke;
}
.label.dark {
  fill: var(--on-light);
}
</style>
