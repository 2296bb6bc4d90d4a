<script setup lang="ts">
import { area, curveStepAfter, line, scaleLinear, scaleTime } from 'd3'
import { coverageFactor95 } from '#core/maths/numbers'
import { fixed, gramsFigure, spreadFigure } from '#core/text/display'
import type { WeightsReply } from '#shared/schemas/api'
import type { DayEvent } from '~/composables/useDayEvents'

type Moment = WeightsReply['moments'][number]

/** All-up and dry weight over the journal with their ±, limits as posts, marks of what happened, and the day that is looked at. */
const { moments, at, limit, events } = defineProps<{
  moments: readonly Moment[]
  /** The entry that is looked at; null today. */
  at: number | null
  limit: { readonly valueG: number; readonly words: string } | null
  events: readonly DayEvent[]
  loadout: string
}>()
const emit = defineEmits<{ look: [seq: number] }>()

const box = useTemplateRef<HTMLElement>('box')
const { width: measured } = useElementSize(box)
const width = computed(() => Math.max(280, measured.value || 760))
const edge = { left: 44, right: 10, top: 22 }
const [allUp, dry, lane] = [
  { top: 22, foot: 190 },
  { top: 224, foot: 276 },
  { top: 286, foot: 304 },
]
const height = 342

const now = Date.now()
const timeOf = (moment: { readonly at: string }) => new Date(moment.at).getTime()
const ends = computed((): [number, number] => {
  const [first, last] = [moments[0], moments.at(-1)]
  const from = first ? timeOf(first) : now - 1
  return [from, Math.max(last ? timeOf(last) : now, now, from + 60_000)]
})
const lengthMs = computed(() => ends.value[1] - ends.value[0])
const x = computed(() => scaleTime(ends.value, [edge.left, width.value - edge.right]))
const xOf = (moment: { readonly at: string }) => x.value(timeOf(moment))
/** Drawn to this day. */
const drawn = computed((): readonly Moment[] => {
  const last = moments.at(-1)
  return last ? [...moments, { ...last, at: new Date(ends.value[1]).toISOString() }] : []
})
function scaleOf(values: readonly number[], { top, foot }: { top: number; foot: number }, ticks: number) {
  const [low, high] = [Math.min(...values), Math.max(...values)]
  const room = Math.max((high - low) * 0.06, 0.4)
  return scaleLinear([Math.max(0, low - room), high + room], [foot, top]).nice(ticks)
}
const spread = (sigmaG: number) => coverageFactor95 * sigmaG
/** Weighings narrow the ± to next to nothing: a plan of guesses does not press them flat. */
const widest = computed(() => {
  const all = moments.map(({ sigmaG }) => spread(sigmaG)).sort((a, b) => a - b)
  return Math.max(1, (all[Math.floor(all.length * 0.6)] ?? 0) * 1.5)
})
const y = computed(() =>
  scaleOf(
    [
      ...moments.flatMap(({ massG, sigmaG }) => {
        const by = Math.min(spread(sigmaG), widest.value)
        return [massG - by, massG + by]
      }),
      ...(limit ? [limit.valueG] : []),
      ...(moments.length === 0 && !limit ? [0, 1] : []),
    ],
    allUp,
    6,
  ),
)
const dryY = computed(() =>
  scaleOf(moments.length === 0 ? [0, 1] : moments.map(({ dryG }) => dryG), dry, 3),
)
const clampTo = (scale: typeof y.value, value: number) => {
  const [foot, top] = scale.range() as [number, number]
  return Math.min(foot, Math.max(top, scale(value)))
}
const paths = computed(() => {
  const band = (scale: typeof y.value, value: (m: Moment) => number, sigma: (m: Moment) => number) =>
    area<Moment>()
      .x(xOf)
      .y0(m => clampTo(scale, value(m) - spread(sigma(m))))
      .y1(m => clampTo(scale, value(m) + spread(sigma(m))))
      .curve(curveStepAfter)(drawn.value) ?? ''
  const steps = (scale: typeof y.value, value: (m: Moment) => number) =>
    line<Moment>()
      .x(xOf)
      .y(m => scale(value(m)))
      .curve(curveStepAfter)(drawn.value) ?? ''
  return {
    band: band(y.value, m => m.massG, m => m.sigmaG),
    line: steps(y.value, m => m.massG),
    dryBand: band(dryY.value, m => m.dryG, m => m.drySigmaG),
    dryLine: steps(dryY.value, m => m.dryG),
  }
})
const limitWide = computed(() => (limit ? limit.words.length * 6.7 + 12 : 0))
/** At the right end, where the line it stands on was drawn last. */
const limitLeft = computed(() => width.value - edge.right - limitWide.value)
const ticks = computed(() => x.value.ticks(Math.max(2, Math.floor(width.value / 110))))
const current = computed(() => (at === null ? null : (moments.findLast(({ seq }) => seq <= at) ?? null)))
const currentX = computed(() => (current.value ? xOf(current.value) : width.value - edge.right))
const weightWords = ({ massG, sigmaG }: Moment) =>
  `${gramsFigure(massG, spread(sigmaG))}${sigmaG > 0 ? ` ± ${spreadFigure(spread(sigmaG))}` : ''} g`
const flag = computed(() => {
  if (!current.value) return null
  const words = weightWords(current.value)
  const wide = words.length * 7 + 14
  const left = currentX.value + 10 + wide > width.value ? currentX.value - 10 - wide : currentX.value + 10
  return { words, wide, left, top: Math.min(Math.max(y.value(current.value.massG) - 30, 2), allUp.foot - 20) }
})
const shownEvents = computed(() => events.filter(event => timeOf(event) >= ends.value[0] && timeOf(event) <= ends.value[1]))

const points = computed(() =>
  moments.map(moment => ({
    words: `${momentWords(moment.at)}: all-up ${weightWords(moment)}, dry ${fixed(moment.dryG, 2)} g`,
    x: xOf(moment),
    y: y.value(moment.massG),
  })),
)
const heads = ['Moment', 'All-up, g', '± 95 %, g', 'Dry, g', 'Dry ± 95 %, g']
const rows = computed(() =>
  moments.map(moment => [
    moment.at,
    ...[moment.massG, spread(moment.sigmaG), moment.dryG, spread(moment.drySigmaG)].map(value => Number(value.toFixed(4))),
  ]),
)

/** The slider runs over the time that is drawn, and stops only where something was written. */
const fineness = 10_000
const place = computed(() =>
  current.value ? Math.round((fineness * (timeOf(current.value) - ends.value[0])) / lengthMs.value) : fineness,
)
const index = computed(() => (current.value ? moments.indexOf(current.value) : moments.length - 1))
function slide(to: number | number[]) {
  if (typeof to !== 'number' || to === place.value) return
  lookAtTime(ends.value[0] + (to / fineness) * lengthMs.value)
}
function lookAtTime(time: number) {
  let best = moments[0]
  for (const moment of moments)
    if (best && Math.abs(timeOf(moment) - time) <= Math.abs(timeOf(best) - time)) best = moment
  if (best) emit('look', best.seq)
}
function lookAtIndex(to: number) {
  const moment = moments[Math.min(Math.max(to, 0), moments.length - 1)]
  if (moment) emit('look', moment.seq)
}
const steps: Readonly<Record<string, () => void>> = {
  ArrowLeft: () => lookAtIndex(index.value - 1),
  ArrowDown: () => lookAtIndex(index.value - 1),
  ArrowRight: () => lookAtIndex(index.value + 1),
  ArrowUp: () => lookAtIndex(index.value + 1),
  PageDown: () => lookAtIndex(index.value - 10),
  PageUp: () => lookAtIndex(index.value + 10),
  Home: () => lookAtIndex(0),
  End: () => lookAtIndex(moments.length - 1),
}
function slideByKey(event: KeyboardEvent) {
  const step = steps[event.key]
  if (!step) return
  event.preventDefault()
  event.stopPropagation()
  step()
}
function pick(event: MouseEvent) {
  const { left } = (event.currentTarget as SVGElement).getBoundingClientRect()
  lookAtTime(x.value.invert(event.clientX - left).getTime())
}
const placeWords = () => (current.value ? `${momentWords(current.value.at)}, ${weightWords(current.value)}` : 'today')
</script>

<template>
  <div
    ref="box"
    class="weight-history"
  >
    <ChartFrame
      title="Weight over the journal"
      :heads
      :rows
      :points
    >
      <template #tools>
        <span class="soft key"><i class="weighed" /> weighed <i class="shaved" /> shaved <i class="flown" /> flown
          <i class="crash" /> crash <i class="repaired" /> mended</span>
      </template>
      <svg
        :width
        :height
        role="img"
        :aria-label="`All-up and dry weight at ${moments.length} moments, with their spread.`"
        @click="pick"
      >
        <rect
          v-if="limit"
          class="over"
          :x="edge.left"
          :width="width - edge.left - edge.right"
          :y="allUp.top"
          :height="Math.max(0, clampTo(y, limit.valueG) - allUp.top)"
        />
        <ChartAxis
          side="left"
          :ticks="y.ticks(5)"
          :at="y"
          :words="tick => fixed(tick, Number.isInteger(tick) ? 0 : 1)"
          :ends="[edge.left, width - edge.right]"
          :title="`all-up weight, ${loadout}, g`"
        />
        <ChartAxis
          side="left"
          :ticks="dryY.ticks(2)"
          :at="dryY"
          :words="tick => fixed(tick, Number.isInteger(tick) ? 0 : 1)"
          :ends="[edge.left, width - edge.right]"
          title="dry, g"
          :title-at="[2, dry.top - 8]"
        />
        <path
          class="band"
          :d="paths.band"
        /><path
          class="line"
          :d="paths.line"
        /><path
          class="dry-band"
          :d="paths.dryBand"
        /><path
          class="dry-line"
          :d="paths.dryLine"
        />
        <g v-if="limit">
          <line
            class="post"
            :x1="edge.left"
            :x2="width - edge.right"
            :y1="y(limit.valueG)"
            :y2="y(limit.valueG)"
          /><rect
            class="flag"
            :x="limitLeft"
            :y="y(limit.valueG) - 8"
            :width="limitWide"
            height="16"
            rx="2"
          /><text
            class="flag-words"
            :x="limitLeft + 6"
            :y="y(limit.valueG) + 4"
          >{{ limit.words }}</text>
        </g>
        <g
          v-for="(event, i) in shownEvents"
          :key="i"
          class="event"
          :class="event.kind"
          :transform="`translate(${xOf(event)},${lane.top + 8})`"
        >
          <title>{{ event.words }}</title>
          <path
            v-if="event.kind === 'weighed'"
            d="M-6,1a6,6 0 0 1 12,0zM-4,3h8"
          /><path
            v-else-if="event.kind === 'shaved'"
            d="M-5,-4h10l-5,8z"
          /><path
            v-else-if="event.kind === 'crash'"
            d="M-4,-4l8,8m0,-8l-8,8"
          /><path
            v-else-if="event.kind === 'repaired'"
            d="M-5,0h10M0,-5v10"
          /><circle
            v-else-if="event.kind === 'flown'"
            r="2.5"
          /><g v-else>
            <path
              class="pole"
              d="M0,-12V14"
            /><path d="M0,-14l14,4l-14,4z" />
            <text
              x="17"
              y="-6"
            >{{ event.words }}</text>
          </g>
        </g>
        <g
          v-if="current"
          class="cursor"
        >
          <line
            :x1="currentX"
            :x2="currentX"
            :y1="allUp.top"
            :y2="lane.foot"
          /><circle
            :cx="currentX"
            :cy="y(current.massG)"
            r="5"
          /><circle
            :cx="currentX"
            :cy="dryY(current.dryG)"
            r="4"
          />
          <g v-if="flag">
            <rect
              class="flag"
              :x="flag.left"
              :y="flag.top"
              :width="flag.wide"
              height="20"
              rx="3"
            /><text
              class="flag-words"
              :x="flag.left + 7"
              :y="flag.top + 14"
            >{{ flag.words }}</text>
          </g>
        </g>
        <ChartAxis
          side="bottom"
          :ticks="ticks.map(Number)"
          :at="value => x(value)"
          :words="value => tickWords(new Date(value), lengthMs)"
          :ends="[edge.left, width - edge.right]"
          :foot="height - 2"
        />
      </svg>
    </ChartFrame>
    <div
      class="slider no-print"
      @keydown.capture="slideByKey"
    >
      <el-slider
        :model-value="place"
        :min="0"
        :max="fineness"
        :show-tooltip="false"
        aria-label="The day that is looked at"
        :format-value-text="placeWords"
        @update:model-value="slide"
      />
    </div>
  </div>
</template>

<style scoped>
.weight-history {
  min-width: 0;
}
svg {
  display: block;
  overflow: visible;
  touch-action: pan-y;
}
.over {
  fill: var(--over);
  opacity: 0.07;
}
.band,
.dry-band {
  fill: var(--plum-text);
  opacity: 0.2;
}
.dry-band {
  fill: var(--ink-soft);
}
.line,
.dry-line {
  fill: none;
  stroke: var(--plum-text);
  stroke-width: 2;
}
.dry-line {
  stroke: var(--ink-soft);
  stroke-width: 1.5;
}
.post {
  stroke: var(--ink);
  stroke-width: 1.5;
}
.flag {
  fill: var(--ink);
}
.flag-words {
  fill: var(--paper);
  font: 600 11px var(--mono);
}
.cursor line {
  stroke: var(--plum-text);
  stroke-width: 1.5;
}
.cursor circle {
  fill: var(--brass);
  stroke: var(--plum-text);
  stroke-width: 1.5;
}
.event path,
.event circle {
  fill: var(--ink-soft);
}
.event.weighed path {
  fill: var(--g-boards);
  stroke: var(--g-boards);
  stroke-width: 1.5;
}
.event.shaved path {
  fill: var(--clear);
}
.event.crash path {
  fill: none;
  stroke: var(--over);
  stroke-width: 2.5;
}
.event.repaired path {
  fill: none;
  stroke: var(--clear);
  stroke-width: 3;
}
.event.mark path {
  fill: var(--brass);
  stroke: var(--ink);
  stroke-width: 1;
}
.event text {
  font-size: 11px;
  fill: var(--ink);
}
.key {
  display: inline-flex;
  align-items: center;
  gap: 5px;
  font-size: 12px;
}
.key i {
  width: 9px;
  height: 9px;
  margin-left: 8px;
  background: var(--ink-soft);
  border-radius: 50%;
}
.key .weighed {
  background: var(--g-boards);
  border-radius: 5px 5px 0 0;
}
.key .shaved {
  background: var(--clear);
  border-radius: 0;
  clip-path: polygon(0 0, 100% 0, 50% 100%);
}
.key .crash {
  background: var(--over);
  border-radius: 0;
  clip-path: polygon(0 20%, 20% 0, 50% 30%, 80% 0, 100% 20%, 70% 50%, 100% 80%, 80% 100%, 50% 70%, 20% 100%, 0 80%, 30% 50%);
}
.key .repaired {
  background: var(--clear);
  border-radius: 0;
  clip-path: polygon(35% 0, 65% 0, 65% 35%, 100% 35%, 100% 65%, 65% 65%, 65% 100%, 35% 100%, 35% 65%, 0 65%, 0 35%, 35% 35%);
}
.slider {
  margin: -4px 10px 0 44px;
}
</style>
