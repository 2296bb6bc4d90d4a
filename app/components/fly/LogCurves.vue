<script setup lang="ts">
import { area, brushX, line as lineOf, pointer, scaleLinear, select, type D3BrushEvent } from 'd3'
import type { Stretch } from '#core/aircraft/telemetry'
import { figure, fixed } from '#core/text/display'
import { flightTimeWords } from '#core/text/units'
import type { CurveKey, SampledPoint, Curves } from '~/workers/telemetry.worker'

/** Volts, amps and charge of a log over time, with one cursor through all; the whole log below, to look closer at a part. */
const { curves, whole, view, endS, stretch, gaps, warnedS } = defineProps<{
  curves: Curves
  whole: Curves
  view: Stretch
  endS: number
  /** The stretch that was flown. */
  stretch: Stretch | null
  gaps: readonly Stretch[]
  /** First warning, seconds after take-off. */
  warnedS: number | null
  title: string
}>()
const emit = defineEmits<{ look: [at: Stretch] }>()

const box = useTemplateRef<HTMLElement>('box')
const { width: measured } = useElementSize(box)
const width = computed(() => Math.max(280, measured.value || 700))
const edge = { left: 40, right: 14 }
const panelHeight = 128
const gap = 22
const names: Record<CurveKey, { label: string; unit: string; digits: number }> = {
  volts: { label: 'volts', unit: 'V', digits: 2 },
  amps: { label: 'amps', unit: 'A', digits: 1 },
  mah: { label: 'charge used', unit: 'mAh', digits: 0 },
}
const keys = computed(() => (['volts', 'amps', 'mah'] as const).filter(key => (curves[key]?.length ?? 0) > 0))
const x = computed(() => scaleLinear([view.fromS, view.toS], [edge.left, width.value - edge.right]))
const topOf = (i: number) => 16 + i * (panelHeight + gap)
const height = computed(() => topOf(keys.value.length) + 18)
function yOf(key: CurveKey, i: number) {
  const values = curves[key]!.map(({ value }) => value)
  const [least, most] = [Math.min(...values), Math.max(...values)]
  const pad = (most - least || 1) * 0.06
  const from = key === 'volts' ? least - pad : Math.min(0, least)
  return scaleLinear([from, most + pad], [topOf(i) + panelHeight, topOf(i)])
}
/** Each drawing with its scale and line, made once for what is looked at. */
const panels = computed(() =>
  keys.value.map((key, i) => {
    const y = yOf(key, i)
    const path = lineOf<SampledPoint>(
      point => x.value(point.timeS),
      point => y(point.value),
    )(curves[key]!)
    return { key, i, y, path: path ?? '' }
  }),
)
/** Time on the axes counts from take-off. */
const zeroS = computed(() => stretch?.fromS ?? 0)
const timeWords = (s: number) => (s < 0 ? '−' : '') + flightTimeWords(Math.abs(s))
const ticks = computed(() => {
  const steps = [1, 2, 5, 10, 15, 30, 60, 120, 300, 600]
  const span = view.toS - view.fromS
  const step = steps.find(one => span / one <= 9) ?? 1200
  const first = Math.ceil((view.fromS - zeroS.value) / step) * step
  return Array.from({ length: 12 }, (_, i) => first + i * step).filter(tick => tick + zeroS.value <= view.toS)
})

const cursorS = ref<number | null>(null)
function valueAt(key: CurveKey, s: number): SampledPoint | null {
  const points = curves[key]!
  let [low, high] = [0, points.length - 1]
  while (low < high) {
    const middle = (low + high) >> 1
    if (points[middle]!.timeS < s) low = middle + 1
    else high = middle
  }
  const [before, after] = [points[low - 1], points[low]]
  if (!before || !after) return after ?? before ?? null
  return s - before.timeS < after.timeS - s ? before : after
}
const read = computed(() => {
  const s = cursorS.value
  return s === null
    ? []
    : panels.value.flatMap(({ key, y }) => {
        const point = valueAt(key, s)
        if (!point) return []
        const { unit, digits } = names[key]
        return [{ key, x: x.value(s), y: y(point.value), words: `${fixed(point.value, digits)} ${unit}` }]
      })
})
function follow(event: PointerEvent) {
  const [at] = pointer(event, event.currentTarget)
  cursorS.value = Math.min(view.toS, Math.max(view.fromS, x.value.invert(at)))
}
const points = computed(() => {
  const [first] = keys.value
  if (!first) return []
  const count = 40
  return Array.from({ length: count + 1 }, (_, i) => {
    const s = view.fromS + ((view.toS - view.fromS) * i) / count
    const told = keys.value.map(key => {
      const point = valueAt(key, s)
      return point ? `${fixed(point.value, names[key].digits)} ${names[key].unit}` : ''
    })
    return {
      words: `${timeWords(s - zeroS.value)} after take-off: ${told.filter(Boolean).join(', ')}`,
      x: x.value(s),
      y: topOf(0) + panelHeight / 2,
    }
  })
})
const rows = computed(() => {
  const [first] = keys.value
  return (first ? curves[first]! : []).map(({ timeS }) => [
    Number((timeS - zeroS.value).toFixed(3)),
    ...keys.value.map(key => Number((valueAt(key, timeS)?.value ?? 0).toFixed(4))),
  ])
})
const heads = computed(() => ['Seconds after take-off', ...keys.value.map(key => `${names[key].label}, ${names[key].unit}`)])
const words = computed(() => keys.value.map(key => names[key].label).join(', '))

/** The whole log, and the part of it that is looked at. */
const overHeight = 42
const brushed = useTemplateRef<SVGGElement>('brushed')
const xWhole = computed(() => scaleLinear([0, endS], [edge.left, width.value - edge.right]))
const overview = computed(() => {
  const amps = whole.amps ?? whole.volts ?? []
  const most = Math.max(1e-9, ...amps.map(({ value }) => value))
  return (
    area<SampledPoint>(
      point => xWhole.value(point.timeS),
      overHeight - 2,
      point => overHeight - 2 - ((overHeight - 6) * Math.max(0, point.value)) / most,
    )(amps) ?? ''
  )
})
watchPostEffect(() => {
  if (!brushed.value) return
  const brush = brushX<unknown>()
    .extent([
      [edge.left, 0],
      [width.value - edge.right, overHeight],
    ])
    .on('end', ({ selection, sourceEvent }: D3BrushEvent<unknown>) => {
      if (!sourceEvent) return
      const [from, to] = (selection as [number, number] | null) ?? [edge.left, width.value - edge.right]
      const [fromS, toS] = [xWhole.value.invert(from), xWhole.value.invert(to)]
      emit('look', toS - fromS < 0.5 ? { fromS: 0, toS: endS } : { fromS, toS })
    })
  const group = select<SVGGElement, unknown>(brushed.value)
  group.call(brush)
  group.call(brush.move, [xWhole.value(view.fromS), xWhole.value(view.toS)])
})
const grounds = computed(() =>
  stretch
    ? [
        { fromS: view.fromS, toS: Math.min(view.toS, stretch.fromS) },
        { fromS: Math.max(view.fromS, stretch.toS), toS: view.toS },
      ].filter(({ fromS, toS }) => toS > fromS)
    : [],
)
const shownGaps = computed(() => gaps.filter(({ fromS, toS }) => toS > view.fromS && fromS < view.toS))
const clamped = (s: number) => x.value(Math.min(view.toS, Math.max(view.fromS, s)))
</script>

<template>
  <div ref="box">
    <ChartFrame
      :title
      :heads
      :rows
      :points
    >
      <svg
        :width
        :height
        role="img"
        :aria-label="`${words} of the log over time.`"
        @pointermove="follow"
        @pointerleave="cursorS = null"
      >
        <template
          v-for="{ key, i, y, path } in panels"
          :key
        >
          <ChartAxis
            side="left"
            :ticks="y.ticks(4)"
            :at="y"
            :words="tick => figure(tick, 2)"
            :ends="[edge.left, width - edge.right]"
            :title="names[key].unit === 'mAh' ? 'charge used, mAh' : names[key].label"
            :title-at="[2, topOf(i) - 5]"
          />
          <rect
            v-for="ground in grounds"
            :key="ground.fromS"
            class="ground"
            :x="x(ground.fromS)"
            :width="x(ground.toS) - x(ground.fromS)"
            :y="topOf(i)"
            :height="panelHeight"
          />
          <rect
            v-for="hole in shownGaps"
            :key="`gap ${hole.fromS}`"
            class="gap"
            :x="clamped(hole.fromS)"
            :width="clamped(hole.toS) - clamped(hole.fromS)"
            :y="topOf(i)"
            :height="panelHeight"
          />
          <path
            :d="path"
            class="curve"
            :class="key"
          />
        </template>
        <g
          v-if="warnedS !== null && warnedS + zeroS > view.fromS && warnedS + zeroS < view.toS"
          class="warned"
        >
          <line
            :x1="x(warnedS + zeroS)"
            :x2="x(warnedS + zeroS)"
            :y1="topOf(0)"
            :y2="height - 36"
          /><text
            :x="x(warnedS + zeroS) + 5"
            :y="topOf(0) + 10"
          >first warning</text>
        </g>
        <g v-if="cursorS !== null">
          <line
            class="cursor"
            :x1="x(cursorS)"
            :x2="x(cursorS)"
            :y1="topOf(0)"
            :y2="height - 36"
          />
          <g
            v-for="at in read"
            :key="at.key"
          >
            <circle
              class="at"
              :cx="at.x"
              :cy="at.y"
              r="4"
            /><text
              class="told"
              :x="at.x + (at.x > width - 120 ? -8 : 8)"
              :y="at.y - 7"
              :text-anchor="at.x > width - 120 ? 'end' : 'start'"
            >{{ at.words }}</text>
          </g>
          <text
            class="told"
            :x="x(cursorS)"
            :y="height - 24"
            text-anchor="middle"
          >{{ timeWords(cursorS - zeroS) }}</text>
        </g>
        <ChartAxis
          side="bottom"
          :ticks="ticks"
          :at="tick => x(tick + zeroS)"
          :words="timeWords"
          :ends="[edge.left, width - edge.right]"
          :foot="height - 2"
          title="after take-off"
        />
      </svg>
    </ChartFrame>
    <svg
      :width
      :height="overHeight"
      class="overview"
      role="img"
      aria-label="The whole log; drag over it to look closer at a part."
    >
      <path :d="overview" />
      <g ref="brushed" />
    </svg>
  </div>
</template>

<style scoped>
.curve {
  fill: none;
  stroke-width: 1.4;
}
.volts {
  stroke: var(--plum-text);
}
.amps {
  stroke: var(--g-drive);
}
.mah {
  stroke: var(--g-boards);
}
.ground {
  fill: var(--ink-soft);
  opacity: 0.1;
}
.gap {
  fill: var(--brass);
  opacity: 0.35;
}
.warned line {
  stroke: var(--close);
  stroke-dasharray: 4 3;
}
.warned text {
  font: 500 11px var(--sans);
  fill: var(--close);
}
.cursor {
  stroke: var(--plum-text);
}
.at {
  fill: var(--brass);
  stroke: var(--ink);
}
.told {
  font: 600 11.5px var(--mono);
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--card);
  stroke-width: 4px;
}
.overview {
  display: block;
  background: var(--aside);
  border-radius: 6px;
}
.overview path {
  fill: color-mix(in srgb, var(--g-pack) 45%, var(--card));
}
.overview :deep(.selection) {
  fill: var(--plum);
  fill-opacity: 0.14;
  stroke: var(--plum-text);
}
</style>
