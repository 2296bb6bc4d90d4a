<script setup lang="ts">
import { line as lineOf, scaleLinear } from 'd3'
import { fixed, minutesFigure, figure } from '#core/text/display'
import { craftOf } from '#core/aircraft/currents'
import { taughtPackModel } from '#core/aircraft/flown'
import { dischargeAsked, landsWeakly, withTried, type LoadoutCell } from '#core/aircraft/flight'
import { packLabel } from '#core/model/ledger'
import { countedLines, withSetup } from '#core/mass/loadout'
import {
  chargeAtV,
  dischargePoints,
  fullCellV,
  emptyCellV,
  openCircuitV,
  warningAfterS,
  type DischargePoint,
} from '#core/aircraft/power'
import { isNotRead, readNumber, withoutUnit } from '#core/text/units'

const props = defineProps<{ cell: LoadoutCell }>()
const store = useBuildStore()
const { plan, flights } = useLoadouts()
/** Volts a cell the pack was charged to today; null: by its own policy. */
const chargedToV = ref<number | null>(null)
const problem = ref('')
function charge(event: Event) {
  const text = withoutUnit((event.target as HTMLInputElement).value, 'V').trim()
  const read = text === '' ? null : readNumber(text)
  const full = fullCellV(props.cell.pack.pack!.chemistry)
  const empty = emptyCellV(props.cell.pack.pack!.chemistry)
  if (read && (isNotRead(read) || read.value < empty || read.value > full)) {
    problem.value = `A cell of ${props.cell.pack.pack!.chemistry} rests between ${empty} and ${full} V.`
    return
  }
  problem.value = ''
  chargedToV.value = read && !isNotRead(read) ? read.value : null
}
watch(
  () => props.cell.pack.id,
  () => {
    chargedToV.value = null
    problem.value = ''
  },
)

const flight = computed(() => flights.value.get(props.cell.key))
const forecastOf = computed(() => flight.value?.forecast ?? null)
const build = computed(() =>
  props.cell.source === 'on the build' ? store.build! : withTried(store.build!, props.cell.pack),
)
const asked = computed(() => {
  const craft = craftOf(countedLines(build.value, props.cell.choice), props.cell.pack, plan.value)
  if ('missing' in craft) return null
  const own = dischargeAsked(craft, props.cell.pack, props.cell.massG, plan.value)
  return chargedToV.value === null
    ? own
    : { ...own, startCharge: chargeAtV(props.cell.pack.pack!.chemistry, chargedToV.value) }
})
const points = computed(() => (asked.value ? dischargePoints(taughtPackModel(props.cell.pack, plan.value), asked.value) : []))
const endS = computed(() => points.value.at(-1)?.timeS ?? 0)
const warnS = computed(() =>
  plan.value.warnCellV === null ? null : warningAfterS(points.value, props.cell.pack.pack!.cells, plan.value.warnCellV),
)
const endedWords = computed(() => {
  const end = points.value.at(-1)
  if (!end || !asked.value) return ''
  const left = `${fixed(end.charge * 100, 0)} % left`
  const cellV = end.packV / props.cell.pack.pack!.cells
  if (Math.abs(end.charge - asked.value.reserve) < 1e-9 && asked.value.reserve > 0) return `reserve reached, ${left}`
  if (cellV <= asked.value.cutOffCellV + 1e-6)
    return `${fixed(asked.value.cutOffCellV, 2)} V a cell under load, ${left}`
  return end.charge < 1e-9 ? 'empty' : `volts collapse, ${left}`
})

const box = useTemplateRef<HTMLDivElement>('box')
const { width: measured } = useElementSize(box)
const width = computed(() => Math.max(measured.value || 700, 280))
const edge = { left: 50, right: 60 }
const panelHeight = 112
const gap = 32
const x = computed(() => scaleLinear([0, Math.max(endS.value / 60, 0.1)], [edge.left, width.value - edge.right]))
interface Panel {
  key: string
  label: string
  unit: string
  digits: number
  of: (point: DischargePoint) => number
  from: number
  to: number
}
const panels = computed<Panel[]>(() => {
  const all = points.value
  if (all.length === 0) return []
  const { cells } = props.cell.pack.pack!
  const volts = all.map(p => p.packV / cells)
  const amps = all.map(p => p.currentA)
  return [
    {
      key: 'volts',
      label: 'volts a cell under load',
      unit: 'V',
      digits: 2,
      of: p => p.packV / cells,
      from: Math.min(...volts, plan.value.warnCellV ?? 9) - 0.05,
      to: Math.max(...volts) + 0.05,
    },
    {
      key: 'amps',
      label: 'amps',
      unit: 'A',
      digits: 1,
      of: p => p.currentA,
      from: Math.min(...amps) * 0.93,
      to: Math.max(...amps) * 1.04,
    },
    { key: 'charge', label: 'charge left', unit: '%', digits: 0, of: p => p.charge * 100, from: 0, to: 100 },
  ]
})
const yOf = (panel: Panel, i: number) =>
  scaleLinear([panel.from, panel.to], [24 + i * (panelHeight + gap) + panelHeight, 24 + i * (panelHeight + gap)])
const height = computed(() => 24 + panels.value.length * (panelHeight + gap) + 18)
const path = (panel: Panel, i: number) =>
  lineOf<DischargePoint>(
    p => x.value(p.timeS / 60),
    p => yOf(panel, i)(panel.of(p)),
  )(points.value) ?? ''
const restV = computed(() => (asked.value ? openCircuitV(props.cell.pack.pack!.chemistry, asked.value.startCharge) : 0))
const words = computed(() =>
  panels.value
    .map(
      panel =>
        `${panel.label} from ${fixed(panel.of(points.value[0]!), panel.digits)} to ` +
          `${fixed(panel.of(points.value.at(-1)!), panel.digits)} ${panel.unit}`,
    )
    .join(', '),
)
const landing = computed(() => forecastOf.value !== null && landsWeakly(forecastOf.value))
/** Enough points to read the curve by, of the many it is drawn from. */
const readAt = 12
const chartPoints = computed(() => {
  const all = points.value
  const each = Math.max(1, Math.floor(all.length / readAt))
  return all
    .filter((_, i) => i % each === 0 || i === all.length - 1)
    .map(p => ({
      words: `${figure(p.timeS / 60, 1)} min: ${panels.value
        .map(panel => `${fixed(panel.of(p), panel.digits)} ${panel.unit} ${panel.label}`)
        .join(', ')}`,
      x: x.value(p.timeS / 60),
      y: panels.value[0] ? yOf(panels.value[0], 0)(panels.value[0].of(p)) : 0,
    }))
})
const table = computed(() => ({
  heads: ['Minutes', ...panels.value.map(panel => `${panel.label}, ${panel.unit}`)],
  rows: points.value.map(p => [
    Number((p.timeS / 60).toFixed(4)),
    ...panels.value.map(panel => Number(panel.of(p).toFixed(4))),
  ]),
}))
</script>

<template>
  <section
    class="discharge"
    aria-label="Discharge"
  >
    <p class="lead">
      <b>{{ packLabel(cell.pack) }}
        {{ withSetup(store.build!.setups.find(s => s.id === cell.choice.setupId)!.name) }}</b>, flown as
      {{ plan.style }}<template v-if="asked">
        {{ ` at a steady ${fixed(asked.powerW, 0)} W` }}
      </template>.
      <label
        v-if="asked"
        class="no-print"
      >charged to <EditField
        :value="chargedToV"
        :placeholder="fixed(restV, 2)"
        inputmode="decimal"
        class="figure short"
        aria-label="Charged to, V a cell"
        @change="charge"
      /> V a cell</label>
    </p>
    <p
      v-if="problem"
      class="problem"
      role="alert"
    >
      {{ problem }}
    </p>
    <p
      v-if="!asked"
      class="note"
    >
      {{ flight?.missing?.missing ?? 'Minutes cannot be told yet.' }}
    </p>
    <p
      v-else-if="endS === 0"
      class="note"
      data-test="no-minutes"
    >
      {{ forecastOf?.why ?? 'This pack cannot give that power.' }}
    </p>
    <div
      v-show="endS > 0"
      ref="box"
    >
      <ChartFrame
        :title="`Discharge of ${packLabel(cell.pack)}`"
        :heads="table.heads"
        :rows="table.rows"
        :points="chartPoints"
      >
        <svg
          :width="width"
          :height="height"
          role="img"
          :aria-label="`Discharge over ${minutesFigure(endS / 60)} minutes: ${words}. Ends by ${endedWords}.`"
        >
          <g
            v-for="(panel, i) in panels"
            :key="panel.key"
          >
            <ChartAxis
              side="left"
              :ticks="yOf(panel, i).ticks(3)"
              :at="yOf(panel, i)"
              :words="tick => figure(tick, 2)"
              :ends="[edge.left, width - edge.right]"
              :title="panel.label"
              :title-at="[2, 14 + i * (panelHeight + gap)]"
            />
            <template v-if="panel.key === 'volts' && asked"><line
              v-if="asked.cutOffCellV >= panel.from"
              :x1="edge.left"
              :x2="width - edge.right"
              :y1="yOf(panel, i)(asked.cutOffCellV)"
              :y2="yOf(panel, i)(asked.cutOffCellV)"
              class="cut"
            /></template>
            <path
              :d="path(panel, i)"
              class="line"
              :class="panel.key"
            />
            <circle
              :cx="x(endS / 60)"
              :cy="yOf(panel, i)(panel.of(points.at(-1)!))"
              r="3.5"
              class="end"
            /><text
              :x="x(endS / 60) + 7"
              :y="yOf(panel, i)(panel.of(points.at(-1)!)) + 4"
              class="value"
            >{{ fixed(panel.of(points.at(-1)!), panel.digits) }} {{ panel.unit }}</text>
          </g>
          <g
            v-if="warnS !== null"
            class="warn"
          ><line
            :x1="x(warnS / 60)"
            :x2="x(warnS / 60)"
            y1="18"
            :y2="height - 40"
          /><text
            :x="x(warnS / 60) - 5"
            y="14"
            text-anchor="end"
          >first warning, {{ minutesFigure(warnS / 60) }} min</text></g>
          <ChartAxis
            side="bottom"
            :ticks="x.ticks(6)"
            :at="x"
            :words="tick => figure(tick, 2)"
            :ends="[edge.left, width - edge.right]"
            :foot="height - 3"
            title="minutes"
          />
        </svg>
      </ChartFrame>
    </div>
    <dl
      v-if="endS > 0"
      class="facts wide"
    >
      <div>
        <dt>Ends after</dt><dd>
          {{ minutesFigure(endS / 60) }}
          min
        </dd>
      </div><div><dt>by</dt><dd>{{ endedWords }}</dd></div><div>
        <dt>
          Taken
          out
        </dt><dd>{{ fixed(points.at(-1)!.consumedMah, 0) }} mAh</dd>
      </div>
      <template v-if="forecastOf?.thrustToWeightStart != null && chargedToV === null">
        <div>
          <dt>Thrust to weight at the start</dt><dd>
            {{ fixed(forecastOf.thrustToWeightStart, 1) }} :
            1
          </dd>
        </div><div v-if="forecastOf.thrustToWeightEnd !== null">
          <dt>and at the end</dt><dd>{{ fixed(forecastOf.thrustToWeightEnd, 1) }} : 1</dd>
        </div>
      </template>
    </dl>
    <p
      v-if="landing && endS > 0"
      class="note"
    >
      <b>Little left for the landing.</b> At the end full throttle lifts only
      {{ fixed(forecastOf!.thrustToWeightEnd!, 1) }} times the weight: land earlier, or keep more in reserve.
    </p>
    <p class="soft">
      A flight at constant mean power in the middle of the band. Real flights rise and fall around it. Land by the
      warning, not by the clock.
    </p>
  </section>
</template>

<style scoped>
.lead label {
  margin-left: 10px;
  display: inline-flex;
  gap: 5px;
  align-items: center;
  color: var(--ink-soft);
}
.short {
  width: 60px;
  padding: 2px 6px;
  text-align: right;
}
text {
  font: 500 10.5px var(--mono);
  fill: var(--ink-soft);
}
.value {
  fill: var(--ink);
}
.line {
  fill: none;
  stroke-width: 2;
  stroke: var(--plum-text);
}
.amps {
  stroke: var(--g-drive);
}
.charge {
  stroke: var(--g-boards);
}
.end {
  fill: var(--ink);
}
.cut {
  stroke: var(--over);
  stroke-width: 1.4;
  stroke-dasharray: 5 3;
}
.warn line {
  stroke: var(--close);
  stroke-width: 1.4;
  stroke-dasharray: 2 3;
}
.warn text {
  fill: var(--close);
  font-family: var(--sans);
  font-size: 11px;
  font-weight: 600;
}
.wide {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 26px;
}
.wide div {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
</style>
