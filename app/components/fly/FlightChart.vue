<script setup lang="ts">
import { scaleBand, scaleLinear } from 'd3'
import type { Flight, MinutesBand, WorkedFlight } from '#core/aircraft/flown'
import { fixed, minutesBand, minutesFigure } from '#core/text/display'

/** Minutes as they were flown, with the reserve kept, against what was to be expected of each flight; what the next one may be. */
const { flights, worked, next, goal, selectedId } = defineProps<{
  flights: readonly Flight[]
  worked: ReadonlyMap<string, WorkedFlight>
  /** The loadout on view as it would be flown next. */
  next: Pick<MinutesBand, 'low' | 'high'> | null
  nextWords: string
  goal: number | null
  selectedId: string | null
}>()
const emit = defineEmits<{ select: [id: string] }>()

/** So many flights stand side by side and can still be told apart. */
const most = 30
const height = 214
const edge = { left: 34, right: 74, top: 22, foot: 36 }
const box = useTemplateRef<HTMLElement>('box')
const { width: measured } = useElementSize(box)
const width = computed(() => Math.max(280, measured.value || 520))

interface Bar {
  readonly flight: Flight
  readonly number: number
  readonly worked: WorkedFlight
}
const bars = computed(() =>
  flights
    .map((flight, i) => ({ flight, number: i + 1, worked: worked.get(flight.id) }))
    .filter((bar): bar is Bar => bar.worked !== undefined && bar.worked.toReserve !== null)
    .slice(-most),
)
const left = computed(() => flights.length - bars.value.length)
const leftWords = computed(() => {
  const are = left.value === 1 ? 'One flight is' : `${left.value} flights are`
  return `${are} not drawn: ${bars.value.length === most ? 'earlier ones, or ' : ''}pack or props were not known.`
})
const x = computed(() =>
  scaleBand<number>(
    bars.value.map(({ number }) => number),
    [edge.left, width.value - edge.right],
  ),
)
const span = computed(() => {
  const values = bars.value.flatMap(({ worked: { toReserve, expected } }) => [
    toReserve!,
    ...(expected ? [expected.low, expected.high] : []),
  ])
  const all = [...values, ...(next ? [next.low, next.high] : []), ...(goal === null ? [] : [goal])]
  return all.length === 0 ? [0, 1] : [Math.max(0, Math.min(...all) * 0.9), Math.max(...all) * 1.04]
})
const y = computed(() => scaleLinear(span.value as [number, number], [height - edge.foot, edge.top]).nice(5))
const centre = (number: number) => x.value(number)! + x.value.bandwidth() / 2
/** Numbers under the chart, thinned so that they stand apart. */
const ticks = computed(() => {
  const each = Math.ceil((bars.value.length * 22) / Math.max(1, width.value - edge.left - edge.right))
  return bars.value.map(({ number }) => number).filter((_, i, all) => (all.length - 1 - i) % each === 0)
})
const wordsOf = ({ number, flight, worked: one }: Bar) =>
  `Flight ${number}, ${flightDay(flight.flownAt)}: ${minutesFigure(one.toReserve!)} min with the reserve kept` +
  (one.expected ? `, expected ${minutesBand(one.expected.low, one.expected.high)}` : '') +
  (one.held ? ', held' : '')
const points = computed(() =>
  bars.value.map(bar => ({ words: wordsOf(bar), x: centre(bar.number), y: y.value(bar.worked.toReserve!) })),
)
const rows = computed(() =>
  bars.value.map(({ number, flight, worked: one }) => [
    number,
    flight.flownAt.replace('T', ' '),
    flight.snapshot.pack?.label ?? '',
    flight.style,
    ...[one.toReserve, one.expected?.low, one.expected?.middle, one.expected?.high].map(value =>
      value == null ? null : Number(value.toFixed(3)),
    ),
    one.held ? 'held' : '',
  ]),
)
const heads = ['Flight', 'Flown at', 'Pack', 'Style', 'Minutes, reserve kept', 'Expected from', 'Expected', 'Expected to', 'Held']
</script>

<template>
  <div ref="box">
    <ChartFrame
      v-if="bars.length > 0"
      title="Forecast against flown"
      :heads
      :rows
      :points
    >
      <template #tools>
        <span class="soft key"><i class="dot" /> flown <i class="band" /> expected, 95 %</span>
      </template>
      <svg
        :width
        :height
        role="img"
        :aria-label="`Minutes of ${bars.length} flights with the reserve kept, each against what was expected of it.`"
      >
        <ChartAxis
          side="left"
          :ticks="y.ticks(5)"
          :at="y"
          :words="tick => fixed(tick, Number.isInteger(tick) ? 0 : 1)"
          :ends="[edge.left, width - edge.right]"
          title="minutes"
        />
        <g
          v-for="bar in bars"
          :key="bar.flight.id"
        >
          <template v-if="bar.worked.expected">
            <rect
              class="expected"
              :x="x(bar.number)"
              :width="x.bandwidth()"
              :y="y(bar.worked.expected.high)"
              :height="y(bar.worked.expected.low) - y(bar.worked.expected.high)"
            /><rect
              class="sure"
              :x="x(bar.number)"
              :width="x.bandwidth()"
              :y="y(bar.worked.expected.sureHigh)"
              :height="y(bar.worked.expected.sureLow) - y(bar.worked.expected.sureHigh)"
            />
          </template>
        </g>
        <g v-if="goal !== null">
          <line
            class="goal"
            :x1="edge.left"
            :x2="width - edge.right + 4"
            :y1="y(goal)"
            :y2="y(goal)"
          /><rect
            class="flag"
            :x="width - edge.right + 8"
            :y="y(goal) - 8"
            width="62"
            height="16"
            rx="2"
          /><text
            class="flag-words"
            :x="width - edge.right + 39"
            :y="y(goal) + 4"
            text-anchor="middle"
          >goal {{ minutesFigure(goal) }}</text>
        </g>
        <g
          v-for="bar in bars"
          :key="`${bar.flight.id} flown`"
          class="flown"
          :class="{ selected: bar.flight.id === selectedId }"
          @click="emit('select', bar.flight.id)"
        >
          <title>{{ wordsOf(bar) }}</title>
          <circle
            v-if="bar.flight.id === selectedId"
            class="halo"
            :cx="centre(bar.number)"
            :cy="y(bar.worked.toReserve!)"
            r="9"
          />
          <path
            v-if="bar.worked.held"
            class="cross"
            :d="`M${centre(bar.number) - 4},${y(bar.worked.toReserve!) - 4}l8,8m0,-8l-8,8`"
          /><circle
            v-else
            :cx="centre(bar.number)"
            :cy="y(bar.worked.toReserve!)"
            r="4"
          />
        </g>
        <g
          v-if="next"
          class="next"
        >
          <path :d="`M${width - edge.right + 2},${y(next.high)}h5V${y(next.low)}h-5`" />
          <text
            :x="width - edge.right + 2"
            :y="Math.max(11, y(next.high) - 6)"
          >{{ minutesBand(next.low, next.high).replace(' min', '') }}</text>
        </g>
        <ChartAxis
          side="bottom"
          :ticks="ticks"
          :at="centre"
          :words="String"
          :ends="[edge.left, width - edge.right]"
          :foot="height - 3"
          title="flight"
        />
      </svg>
    </ChartFrame>
    <p class="soft under">
      <template v-if="next && bars.length > 0">
        The bracket is the next flight: {{ nextWords }}.
      </template>
      <template v-if="left > 0">
        {{ leftWords }}
      </template>
    </p>
  </div>
</template>

<style scoped>
.expected {
  fill: color-mix(in srgb, var(--g-pack) 16%, var(--card));
}
.sure {
  fill: color-mix(in srgb, var(--g-pack) 38%, var(--card));
}
.goal {
  stroke: var(--ink);
  stroke-width: 1.5;
}
.flag {
  fill: var(--ink);
}
.flag-words {
  font: 500 10.5px var(--mono);
  fill: var(--card);
}
.flown {
  cursor: pointer;
}
.flown circle {
  fill: var(--ink);
}
.flown .halo {
  fill: none;
  stroke: var(--plum-text);
  stroke-width: 2;
}
.cross {
  stroke: var(--over);
  stroke-width: 2.5;
  fill: none;
}
.next path {
  fill: none;
  stroke: var(--plum-text);
  stroke-width: 1.5;
}
.next text {
  font: 600 11px var(--mono);
  fill: var(--plum-text);
}
.key {
  display: inline-flex;
  align-items: center;
  gap: 5px;
  font-size: 12px;
}
.dot {
  width: 8px;
  height: 8px;
  border-radius: 50%;
  background: var(--ink);
}
.band {
  width: 14px;
  height: 9px;
  margin-left: 8px;
  background: color-mix(in srgb, var(--g-pack) 38%, var(--card));
  outline: 3px solid color-mix(in srgb, var(--g-pack) 16%, var(--card));
}
.under {
  margin: 2px 0 0;
  font-size: 12px;
}
</style>
