<script setup lang="ts">
import { scaleLinear } from 'd3'
import { gramsFigure, spreadFigure, fixed, figure } from '#core/text/display'
import { limitG } from '#core/limits/rules'
import type { Overview } from '#core/mass/report'
import type { LineEstimates } from '#core/mass/loadout'
import type { StripBlock } from '~/utils/strip-blocks'

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

const blocks = computed<StripBlock[]>(before =>
  stripBlocks(props.overview.groups, line => props.estimates.of(line), before),
)
const drawn = computed(() => blocks.value.reduce((sum, block) => sum + block.drawn, 0))
const pixelsPerGram = computed(() => x.value(1) - x.value(0))
const holds = ({ lines }: StripBlock, id: string | null) => id !== null && lines.some(line => line.id === id)

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

const hovered = shallowRef<{ title: string; x: number } | null>(null)
const focusIndex = ref(0)
const hoveredX = computed(() => Math.min(Math.max(hovered.value?.x ?? 0, 120), width.value - 120))
function point(at: { title: string; x: number } | null, block: StripBlock) {
  hovered.value = at && { title: at.title, x: x.value(block.fromG) + at.x }
}
function moveFocus(by: number) {
  if (drawn.value === 0) return
  focusIndex.value = Math.min(Math.max(focusIndex.value + by, 0), drawn.value - 1)
  box.value?.querySelectorAll<SVGRectElement>('.segment')[focusIndex.value]?.focus()
}
const tabStop = computed(() => Math.min(focusIndex.value, drawn.value - 1))
/** Which of its segments takes the focus by Tab; -1 where it is in another block. */
const tabStopIn = ({ firstIndex, drawn: here }: StripBlock) =>
  tabStop.value >= firstIndex && tabStop.value < firstIndex + here ? tabStop.value - firstIndex : -1
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
        v-for="(block, n) in blocks"
        :key="n"
        :transform="`translate(${x(block.fromG)})`"
      >
        <StripSegments
          :lines="block.lines"
          :estimates="block.estimates"
          :pixels-per-gram="pixelsPerGram"
          :top="top"
          :height="barHeight"
          :selected-id="holds(block, selectedId) ? selectedId : null"
          :tab-stop="tabStopIn(block)"
          @pick="emit('pick', $event)"
          @point="point($event, block)"
          @focused="focusIndex = block.firstIndex + $event"
        />
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
.over-it {
  pointer-events: none;
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
