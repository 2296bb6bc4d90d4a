<script setup lang="ts">
import { scaleLinear, scaleTime } from 'd3'
import type { FlightFinding, Flight } from '#core/aircraft/flown'
import { quantile } from '#core/maths/numbers'
import { fixed, minutesFigure } from '#core/text/display'

/** What was flown in pictures: minutes by pack and style, watt-hours a minute by build, findings over time. */
const emit = defineEmits<{ select: [id: string] }>()
const flights = useFlightsStore()
const box = useTemplateRef<HTMLElement>('box')
const { width: measured } = useElementSize(box)
const width = computed(() => Math.max(280, measured.value || 640))
const edge = { left: 156, right: 62 }
const rowHeight = 30
const foot = 34

interface Dot {
  readonly flight: Flight
  readonly number: number
  readonly minutes: number
  readonly isHeld: boolean
}
/** Flights by pack and style, those flown most first. */
const groups = computed(() => {
  const byKey = new Map<string, { label: string; dots: Dot[] }>()
  flights.flights.forEach((flight, i) => {
    const worked = flights.worked.get(flight.id)
    if (worked?.toReserve == null) return
    const label = `${flight.snapshot.pack!.label}, ${flight.style}`
    const group = byKey.get(label) ?? { label, dots: [] }
    group.dots.push({ flight, number: i + 1, minutes: worked.toReserve, isHeld: worked.held !== null })
    byKey.set(label, group)
  })
  return [...byKey.values()]
    .map(group => {
      const told = group.dots.filter(({ isHeld }) => !isHeld).map(({ minutes }) => minutes)
      return { ...group, middle: told.length === 0 ? null : quantile(told.sort((a, b) => a - b), 0.5) }
    })
    .sort((a, b) => b.dots.length - a.dots.length)
})
const xMinutes = computed(() => {
  const all = groups.value.flatMap(({ dots }) => dots.map(({ minutes }) => minutes))
  return scaleLinear([0, Math.max(1, ...all) * 1.05], [edge.left, width.value - edge.right]).nice(6)
})
const rowY = (i: number) => 14 + i * rowHeight
const minutesHeight = computed(() => 14 + groups.value.length * rowHeight + foot)
const minutesPoints = computed(() =>
  groups.value.flatMap(({ label, dots }, i) =>
    dots.map(({ number, minutes, isHeld }) => ({
      words: `${label}, flight ${number}: ${minutesFigure(minutes)} min with the reserve kept${isHeld ? ', held' : ''}`,
      x: xMinutes.value(minutes),
      y: rowY(i) + rowHeight / 2,
    })),
  ),
)
const minutesRows = computed(() =>
  groups.value.flatMap(({ label, dots }) =>
    dots.map(({ number, minutes, isHeld }) => [label, number, Number(minutes.toFixed(3)), isHeld ? 'held' : '']),
  ),
)

/** Watt-hours a minute: the middle of a build's flights, and where half of them lie. */
const powers = computed(() =>
  flights.powers
    .map(({ buildId, name, medianW, lowW, highW, flights: count }) => ({
      ...{ buildId, name, count },
      ...{ middle: medianW / 60, low: lowW / 60, high: highW / 60 },
    }))
    .toSorted((a, b) => a.middle - b.middle),
)
const xPower = computed(() =>
  scaleLinear([0, Math.max(0.1, ...powers.value.map(({ high }) => high)) * 1.1], [edge.left, width.value - edge.right]).nice(6),
)
const powerHeight = computed(() => 14 + powers.value.length * rowHeight + foot)
const powerPoints = computed(() =>
  powers.value.map(({ name, middle, count }, i) => ({
    words: `${name}: ${fixed(middle, 2)} Wh a minute, ${count} flights`,
    x: xPower.value(middle),
    y: rowY(i) + rowHeight / 2,
  })),
)

const powerRows = computed(() =>
  powers.value.map(({ name, middle, low, high, count }) => [
    name,
    ...[middle, low, high].map(value => Number(value.toFixed(4))),
    count,
  ]),
)

/** Findings along the days they were open. */
const found = computed(() => flights.findings.toSorted((a, b) => (a.foundAt < b.foundAt ? -1 : 1)))
const dayOfMoment = (moment: string) => new Date(moment)
const xDays = computed(() => {
  const moments = [...flights.flights.map(({ flownAt }) => flownAt), ...found.value.map(({ foundAt }) => foundAt)].sort()
  const [first, last] = [moments[0], moments.at(-1)]
  const from = first ? dayOfMoment(first) : new Date()
  const to = last ? dayOfMoment(last) : new Date()
  return scaleTime([from, new Date(Math.max(to.getTime(), from.getTime() + 86_400_000))], [edge.left, width.value - edge.right])
})
const timeHeight = computed(() => 14 + (found.value.length + 1) * rowHeight + foot)
const endOf = ({ goneAt }: FlightFinding) => (goneAt === null ? width.value - edge.right : xDays.value(dayOfMoment(goneAt)))
const findingWords = (finding: FlightFinding) =>
  `${findingTitle(finding.kind)}, ${severityWords[finding.severity]}, found ${flightDay(finding.foundAt)}, ` +
  (finding.goneAt === null ? 'open' : `gone ${flightDay(finding.goneAt)}`)
const timePoints = computed(() =>
  found.value.map((finding, i) => ({
    words: findingWords(finding),
    x: xDays.value(dayOfMoment(finding.foundAt)),
    y: rowY(i + 1) + rowHeight / 2,
  })),
)
const dayTicks = computed(() => xDays.value.ticks(5))
</script>

<template>
  <div ref="box">
    <p
      v-if="groups.length === 0"
      class="soft"
    >
      No flight has minutes to draw yet: say which pack it flew on.
    </p>
    <template v-else>
      <ChartFrame
        title="Minutes by pack and style"
        :heads="['Pack and style', 'Flight', 'Minutes, reserve kept', 'Held']"
        :rows="minutesRows"
        :points="minutesPoints"
      >
        <svg
          :width
          :height="minutesHeight"
          role="img"
          aria-label="Minutes of every flight with the reserve kept, by pack and style; the bar is the middle."
        >
          <g
            v-for="(group, i) in groups"
            :key="group.label"
          >
            <line
              class="row"
              :x1="edge.left"
              :x2="width - edge.right"
              :y1="rowY(i) + rowHeight / 2"
              :y2="rowY(i) + rowHeight / 2"
            />
            <text
              class="name"
              :x="edge.left - 8"
              :y="rowY(i) + rowHeight / 2 + 4"
              text-anchor="end"
            >{{ group.label }}</text>
            <line
              v-if="group.middle !== null"
              class="middle"
              :x1="xMinutes(group.middle)"
              :x2="xMinutes(group.middle)"
              :y1="rowY(i) + 4"
              :y2="rowY(i) + rowHeight - 4"
            />
            <text
              v-if="group.middle !== null"
              class="value"
              :x="width - edge.right + 8"
              :y="rowY(i) + rowHeight / 2 + 4"
            >{{ minutesFigure(group.middle) }} min</text>
            <circle
              v-for="dot in group.dots"
              :key="dot.flight.id"
              :class="{ held: dot.isHeld }"
              :cx="xMinutes(dot.minutes)"
              :cy="rowY(i) + rowHeight / 2"
              r="4.5"
              @click="emit('select', dot.flight.id)"
            ><title>Flight {{ dot.number }}, {{ minutesFigure(dot.minutes) }} min{{ dot.isHeld ? ', held' : '' }}</title></circle>
          </g>
          <ChartAxis
            side="bottom"
            :ticks="xMinutes.ticks(6)"
            :at="xMinutes"
            :words="tick => fixed(tick, 0)"
            :ends="[edge.left, width - edge.right]"
            :foot="minutesHeight - 2"
            title="minutes"
          />
        </svg>
      </ChartFrame>
      <ChartFrame
        title="Watt-hours a minute by build"
        :heads="['Build', 'Wh a minute, middle', 'Half of the flights from', 'to', 'Flights']"
        :rows="powerRows"
        :points="powerPoints"
      >
        <svg
          :width
          :height="powerHeight"
          role="img"
          aria-label="Watt-hours a minute of every build that has flown."
        >
          <g
            v-for="(power, i) in powers"
            :key="power.buildId"
          >
            <text
              class="name"
              :class="{ own: power.buildId === flights.buildId }"
              :x="edge.left - 8"
              :y="rowY(i) + rowHeight / 2 + 4"
              text-anchor="end"
            >{{ power.name }}</text>
            <rect
              class="bar"
              :x="edge.left"
              :width="Math.max(0, xPower(power.middle) - edge.left)"
              :y="rowY(i) + 8"
              :height="rowHeight - 16"
            />
            <line
              class="half"
              :x1="xPower(power.low)"
              :x2="xPower(power.high)"
              :y1="rowY(i) + rowHeight / 2"
              :y2="rowY(i) + rowHeight / 2"
            />
            <text
              class="value"
              :x="width - edge.right + 8"
              :y="rowY(i) + rowHeight / 2 + 4"
            >{{ fixed(power.middle, 2) }}</text>
          </g>
          <ChartAxis
            side="bottom"
            :ticks="xPower.ticks(6)"
            :at="xPower"
            :words="tick => fixed(tick, 1)"
            :ends="[edge.left, width - edge.right]"
            :foot="powerHeight - 2"
            title="Wh a minute; the line is half of the flights"
          />
        </svg>
      </ChartFrame>
      <ChartFrame
        v-if="found.length > 0"
        title="Findings over time"
        :heads="['Finding', 'How bad', 'Found', 'Gone']"
        :rows="found.map(({ kind, severity, foundAt, goneAt }) => [kind, severity, foundAt, goneAt ?? ''])"
        :points="timePoints"
      >
        <svg
          :width
          :height="timeHeight"
          role="img"
          aria-label="Findings from the day they were found to the day they were gone, under the flights."
        >
          <text
            class="name"
            :x="edge.left - 8"
            :y="rowY(0) + rowHeight / 2 + 4"
            text-anchor="end"
          >flights</text>
          <line
            v-for="flight in flights.flights"
            :key="flight.id"
            class="flight"
            :x1="xDays(dayOfMoment(flight.flownAt))"
            :x2="xDays(dayOfMoment(flight.flownAt))"
            :y1="rowY(0) + 6"
            :y2="rowY(0) + rowHeight - 6"
          />
          <g
            v-for="(finding, i) in found"
            :key="finding.id"
          >
            <text
              class="name"
              :x="edge.left - 8"
              :y="rowY(i + 1) + rowHeight / 2 + 4"
              text-anchor="end"
            >{{ finding.kind }}</text>
            <line
              class="span"
              :class="{ open: finding.goneAt === null }"
              :x1="xDays(dayOfMoment(finding.foundAt))"
              :x2="endOf(finding)"
              :y1="rowY(i + 1) + rowHeight / 2"
              :y2="rowY(i + 1) + rowHeight / 2"
            ><title>{{ findingWords(finding) }}</title></line>
            <circle
              class="found"
              :cx="xDays(dayOfMoment(finding.foundAt))"
              :cy="rowY(i + 1) + rowHeight / 2"
              :r="3.5 + finding.severity"
            />
            <text
              class="value"
              :x="width - edge.right + 8"
              :y="rowY(i + 1) + rowHeight / 2 + 4"
            >{{ finding.goneAt === null ? 'open' : 'gone' }}</text>
          </g>
          <g>
            <text
              v-for="tick in dayTicks"
              :key="tick.getTime()"
              class="day"
              :x="xDays(tick)"
              :y="timeHeight - 20"
              text-anchor="middle"
            >{{ flightDay(localMoment(tick)) }}</text>
          </g>
        </svg>
      </ChartFrame>
    </template>
  </div>
</template>

<style scoped>
.row {
  stroke: var(--line);
}
.name,
.value,
.day {
  font: 500 11.5px var(--sans);
  fill: var(--ink);
}
.value,
.day {
  font-family: var(--mono);
  font-size: 11px;
  fill: var(--ink-soft);
}
.own {
  font-weight: 700;
}
.middle {
  stroke: var(--plum-text);
  stroke-width: 3;
}
circle {
  fill: var(--ink);
  cursor: pointer;
  opacity: 0.75;
}
.held {
  fill: none;
  stroke: var(--over);
  stroke-width: 2;
}
.bar {
  fill: color-mix(in srgb, var(--g-pack) 45%, var(--card));
}
.half {
  stroke: var(--ink);
  stroke-width: 2;
}
.flight {
  stroke: var(--ink-soft);
  stroke-width: 1.5;
}
.span {
  stroke: var(--clear);
  stroke-width: 4;
}
.span.open {
  stroke: var(--close);
}
.found {
  fill: var(--close);
  cursor: default;
  opacity: 1;
}
</style>
