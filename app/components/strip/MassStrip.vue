<script setup lang="ts">
import { scaleLinear } from 'd3'
import { groupOf, slotFacts, type Line } from '#core/model/ledger'
import { spreadG } from '#core/maths/estimate'
import { gramsFigure, gramsWithSpread, spreadFigure, fixed, figure } from '#core/text/display'
import { limitG } from '#core/limits/rules'
import type { Overview } from '#core/mass/report'
import type { LineEstimates } from '#core/mass/loadout'

const props = defineProps<{ overview: Overview; estimates: LineEstimates; selectedId: string | null }>()
const emit = defineEmits<{ pick: [lineId: string] }>()

const top = 20
const barHeight = 26
const box = useTemplateRef<HTMLDivElement>('box')
const { width: measured } = useElementSize(box)
const width = computed(() => Math.max(measured.value || 1046, 200))

const limit = computed(() => (props.overview.binding ? limitG(props.overview.binding.card) : null))
/** A card that does not count everything has its own mass: its post is drawn where that mass would pass. */
const setAsideG = computed(() => (props.overview.binding ? props.overview.massG - props.overview.binding.massG : 0))
const reach = computed(() => props.overview.massG + props.overview.spreadG)
const x = computed(() =>
  scaleLinear(
    [0, Math.max((limit.value ?? 0) * 1.05, reach.value * (limit.value === null ? 1.08 : 1.03), 1)],
    [0, width.value],
  ),
)
const postX = computed(() => (limit.value === null ? null : x.value(limit.value)))
const guardG = computed(() => props.overview.binding?.verdict?.guardG ?? 0)

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
  let from = 0
  const out: Segment[] = []
  for (const group of props.overview.groups) {
    for (const line of group.lines) {
      const estimate = props.estimates.of(line)
      const start = x.value(from)
      from += estimate.valueG
      const end = x.value(from)
      if (!line.mass || end <= start) continue
      const tone = groupTone[groupOf(line.slot)]
      const name = slotFacts[line.slot].label
      const segmentWidth = Math.max(end - start - 1, 0.6)
      out.push({
        line,
        x: start,
        width: segmentWidth,
        colour: `var(--g-${tone.name})`,
        dark: tone.darkLabel,
        texture: line.mass.evidence === 'weighed' ? null : `url(#texture-${evidenceTexture[line.mass.evidence]})`,
        label: segmentWidth > name.length * 7 + 14 ? name : '',
        title: `${lineTitle(line)}: ${gramsWithSpread(estimate.valueG, spreadG(estimate))}, ${line.mass.evidence}`,
      })
    }
  }
  return out
})

const ticks = computed(() => {
  const step = x.value.domain()[1]! > 120 ? 10 : x.value.domain()[1]! > 40 ? 5 : 1
  const labelled = step * 5
  return x.value
    .ticks(Math.ceil(x.value.domain()[1]! / step))
    .filter(t => t % step === 0)
    .map(t => ({ value: t, x: x.value(t), long: t % labelled === 0 }))
})
const flag = computed(() => {
  const card = props.overview.binding?.card
  if (!card?.limit || postX.value === null || limit.value === null) return null
  const text =
    card.limit.unit === 'g'
      ? `${figure(card.limit.value, 4)} g`
      : `${fixed(limit.value, 2)} g · ${figure(card.limit.value, 4)} ${card.limit.unit}`
  const flagWidth = text.length * 6.4 + 12
  return { text, width: flagWidth, x: Math.min(Math.max(postX.value - flagWidth, 0), width.value - flagWidth) }
})
const whisker = computed(() => {
  const { massG, spreadG: spread } = props.overview
  return spread > 0 ? { from: x.value(Math.max(massG - spread, 0)), to: x.value(massG + spread) } : null
})

const hovered = ref<Segment | null>(null)
const focusIndex = ref(0)
const hoveredX = computed(() =>
  hovered.value ? Math.min(Math.max(hovered.value.x + hovered.value.width / 2, 120), width.value - 120) : 0,
)
function moveFocus(by: number) {
  if (segments.value.length === 0) return
  focusIndex.value = Math.min(Math.max(focusIndex.value + by, 0), segments.value.length - 1)
  box.value?.querySelectorAll<SVGRectElement>('.segment')[focusIndex.value]?.focus()
}
const tabStop = computed(() => Math.min(focusIndex.value, segments.value.length - 1))
</script>

<template>
  <div
    ref="box"
    class="strip"
    @mouseleave="hovered = null"
  >
    <p class="visually-hidden">
      {{ overviewSentence(overview) }}
    </p>
    <svg
      :width="width"
      height="66"
      role="group"
      aria-label="Mass strip: every gram to scale"
      @keydown.right.prevent="moveFocus(1)"
      @keydown.left.prevent="moveFocus(-1)"
    >
      <rect
        class="free"
        x="0"
        :y="top"
        :width="postX ?? width"
        :height="barHeight"
        rx="2"
      />
      <template v-if="postX !== null">
        <rect
          class="beyond"
          :x="postX"
          :y="top"
          :width="Math.max(width - postX, 0)"
          :height="barHeight"
        />
        <rect
          v-if="guardG > 0"
          :x="Math.max(postX - x(guardG), 0)"
          :y="top"
          :width="Math.min(x(guardG), postX)"
          :height="barHeight"
          fill="url(#texture-guard)"
        />
      </template>
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
          :height="barHeight"
          rx="1.5"
          :fill="segment.colour"
          role="button"
          :tabindex="i === tabStop ? 0 : -1"
          :aria-label="segment.title"
          @mouseenter="hovered = segment"
          @focus="hovered = segment; focusIndex = i"
          @blur="hovered = null"
          @click="emit('pick', segment.line.id)"
          @keydown.enter.prevent="emit('pick', segment.line.id)"
        />
        <rect
          v-if="segment.texture"
          :x="segment.x"
          :y="top"
          :width="segment.width"
          :height="barHeight"
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
        >{{ segment.label }}</text>
      </g>
      <rect
        v-if="postX !== null && guardG > 0 && overview.massG > (limit ?? 0) - guardG"
        class="over-it"
        :x="Math.max(postX - x(guardG), 0)"
        :y="top"
        :width="Math.min(x(guardG), postX)"
        height="5"
        fill="url(#texture-guard)"
      />
      <g
        v-if="whisker"
        class="whisker"
      >
        <line
          class="halo"
          :x1="whisker.from"
          :x2="whisker.to"
          :y1="top + 13"
          :y2="top + 13"
        />
        <line
          :x1="whisker.from"
          :x2="whisker.to"
          :y1="top + 13"
          :y2="top + 13"
        />
        <line
          :x1="whisker.from"
          :x2="whisker.from"
          :y1="top + 8"
          :y2="top + 18"
        />
        <line
          :x1="whisker.to"
          :x2="whisker.to"
          :y1="top + 8"
          :y2="top + 18"
        />
      </g>
      <g
        v-for="tick in ticks"
        :key="tick.value"
        class="tick"
      >
        <line
          :x1="tick.x"
          :x2="tick.x"
          :y1="top + barHeight + 2"
          :y2="top + barHeight + (tick.long ? 8 : 5)"
        />
        <text
          v-if="tick.long && tick.x < width - 12"
          :x="Math.max(tick.x, 4)"
          :y="top + barHeight + 18"
        >{{ tick.value }}</text>
      </g>
      <g
        v-if="flag && postX !== null"
        class="post"
      >
        <line
          :x1="postX"
          :x2="postX"
          y1="6"
          :y2="top + barHeight + 8"
        />
        <rect
          :x="flag.x"
          y="0"
          :width="flag.width"
          height="15"
          rx="2"
        />
        <text
          :x="flag.x + flag.width / 2"
          y="11"
        >{{ flag.text }}</text>
      </g>
    </svg>
    <div
      v-if="hovered"
      class="tip"
      :style="{ left: `${hoveredX}px` }"
    >
      {{ hovered.title }}
    </div>
    <span
      v-if="setAsideG > 0.005"
      class="visually-hidden"
    >The binding card leaves out {{ gramsFigure(setAsideG, 0) }} g. Spread {{ spreadFigure(overview.spreadG) }} g.</span>
  </div>
</template>

<style scoped>
.strip {
  position: relative;
  min-width: 0;
  flex: 1;
}
svg {
  display: block;
  overflow: visible;
}
.free {
  fill: var(--free);
}
.beyond {
  fill: var(--beyond);
}
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
}
.label.dark {
  fill: var(--on-light);
}
.label {
  paint-order: stroke;
}
.whisker line {
  stroke: var(--ink);
  stroke-width: 2;
  pointer-events: none;
}
.whisker .halo {
  stroke: var(--card);
  stroke-width: 5;
  opacity: 0.75;
}
.tick line {
  stroke: var(--ink-soft);
  opacity: 0.7;
}
.tick text {
  font: 500 10px var(--mono);
  fill: var(--ink-soft);
  text-anchor: middle;
}
.post line {
  stroke: var(--ink);
  stroke-width: 2;
}
.post rect {
  fill: var(--ink);
}
.post text {
  font: 500 10.5px var(--mono);
  fill: var(--card);
  text-anchor: middle;
}
.tip {
  position: absolute;
  top: 50px;
  transform: translateX(-50%);
  background: var(--ink);
  color: var(--card);
  font-size: 12px;
  padding: 4px 9px;
  border-radius: 5px;
  white-space: nowrap;
  max-width: 420px;
  overflow: hidden;
  text-overflow: ellipsis;
  z-index: 20;
  pointer-events: none;
}
</style>
