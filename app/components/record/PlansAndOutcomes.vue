<script setup lang="ts">
import { scaleLinear } from 'd3'
import { makeFinding } from '#core/aircraft/flown'
import { coverageFactor95 } from '#core/maths/numbers'
import { totalsApart, wholeTotals, type TotalsApart } from '#core/comparing/outcomes'
import { slotFacts } from '#core/model/ledger'
import { fixed, gramsFigure, signed, spreadFigure } from '#core/text/display'

/** How plans came out, of this build and of all: the whole against its weighing, lines against the scale, what plans leave out. */
const store = useBuildStore()
const outcomes = useOutcomesStore()
const problem = ref('')
outcomes.load().catch(error => {
  problem.value = sentenceOf(error)
})

const all = computed(() => outcomes.told?.builds ?? [])
const mine = computed(() => all.value.find(({ id }) => id === store.build?.id) ?? null)
const totals = computed(() => (store.build ? wholeTotals(store.build) : []))
const apart = computed(() => (store.build ? totalsApart(store.build, store.honesty) : []))
const apartWords = ({ from, to, differenceG, changed, remainsG, spreadG, isFinding }: TotalsApart) => {
  const named = changed
    .filter(({ changeG }) => Math.abs(changeG) >= 0.005)
    .slice(0, 4)
    .map(({ lineId, slot, changeG }) => `${store.lineOf(lineId)?.name ?? slotFacts[slot].label} ${signed(changeG, 2)}`)
  const head = `${dayOf(from.takenAt, 'short')} to ${dayOf(to.takenAt, 'short')}, ${to.of}: ${signed(differenceG, 2)} g`
  const by = named.length === 0 ? 'no line was changed between' : `of which ${named.join(', ')}`
  const rest = `${signed(remainsG, 2)} ± ${spreadFigure(spreadG)} g ${remainsG < 0 ? 'remain' : 'remains'}`
  const found = ': more than its ±. Something was changed and not written down, or one of the two is wrong.'
  return `${head}, ${by}; ${rest}${isFinding ? found : ', within its ±.'}`
}
const flights = useFlightsStore()
const isKept = (one: TotalsApart) => flights.findings.some(({ note }) => note === apartWords(one))
async function keepFinding(one: TotalsApart) {
  const given = { id: newId(), buildId: store.build!.id, foundAt: localMoment(), kind: 'other', severity: 1 } as const
  problem.value = await flights.putFinding(makeFinding({ ...given, note: apartWords(one) }))
}
const onlyMine = ref(true)
const lines = computed(() =>
  (onlyMine.value ? (mine.value ? [mine.value] : []) : all.value)
    .flatMap(build => build.lines.map(line => ({ ...line, build: build.name })))
    .sort((a, b) => Math.abs(b.weighedG - b.forecastG) - Math.abs(a.weighedG - a.forecastG)),
)
const finished = computed(() => all.value.filter(({ outcome }) => outcome !== null))
const within = computed(() => lines.value.filter(({ isWithin }) => isWithin).length)
const sum = computed(() => ({
  forecast: lines.value.reduce((total, { forecastG }) => total + forecastG, 0),
  weighed: lines.value.reduce((total, { weighedG }) => total + weighedG, 0),
}))
const spread = (sigma: number) => coverageFactor95 * sigma
const sumWords = computed(() => {
  const parts = lines.value.length === 1 ? 'One part was' : `${lines.value.length} parts were`
  const grams = `${fixed(sum.value.forecast, 2)} g became ${fixed(sum.value.weighed, 2)} g`
  return `${parts} planned and then weighed: ${grams}, ${within.value} of ${lines.value.length} within the ± of the plan.`
})
const shareWords = computed(() => {
  const { mu, sigma } = mine.value!.learnt
  return `${fixed(100 * mu, 1)} ± ${fixed(100 * spread(sigma), 1)} %`
})
const restsWords = computed(() => {
  const { builds } = mine.value!.learnt
  if (builds === 0) return 'by its class; no finished build has taught anything yet.'
  return `learnt from ${builds === 1 ? 'one finished build' : `${builds} finished builds`}. New plans start with it.`
})
/** By kind of part: how far plans were off, and how many. */
const bySlot = computed(() => {
  const groups = new Map<string, { label: string; count: number; forecast: number; weighed: number }>()
  for (const { slot, forecastG, weighedG } of lines.value) {
    const group = groups.get(slot) ?? { label: slotFacts[slot].label, count: 0, forecast: 0, weighed: 0 }
    groups.set(slot, {
      ...group,
      count: group.count + 1,
      forecast: group.forecast + forecastG,
      weighed: group.weighed + weighedG,
    })
  }
  return [...groups.values()].sort(
    (a, b) => Math.abs(b.weighed - b.forecast) - Math.abs(a.weighed - a.forecast),
  )
})

const box = useTemplateRef<HTMLElement>('box')
const { width: measured } = useElementSize(box)
const width = computed(() => Math.max(280, measured.value || 700))
const edge = { left: 150, right: 70 }
/** For the figure beside a bar that goes all the way to the left. */
const room = 60
const rowHeight = 24
const height = computed(() => bySlot.value.length * rowHeight + 34)
const offPercent = (group: { forecast: number; weighed: number }) =>
  group.forecast > 0 ? (100 * (group.weighed - group.forecast)) / group.forecast : 0
const x = computed(() => {
  const most = Math.max(2, ...bySlot.value.map(group => Math.abs(offPercent(group))))
  return scaleLinear([-most, most], [edge.left + room, width.value - edge.right]).nice()
})
const rowY = (i: number) => 8 + i * rowHeight
const wordsOf = (group: { label: string; count: number; forecast: number; weighed: number }) =>
  `${group.label}: planned ${fixed(group.forecast, 2)} g, weighed ${fixed(group.weighed, 2)} g, ${signed(offPercent(group), 1)} %`
const points = computed(() =>
  bySlot.value.map((group, i) => ({ words: wordsOf(group), x: x.value(offPercent(group)), y: rowY(i) + rowHeight / 2 })),
)
const rows = computed(() =>
  bySlot.value.map(({ label, count, forecast, weighed }) => [
    label,
    count,
    Number(forecast.toFixed(3)),
    Number(weighed.toFixed(3)),
  ]),
)
const heads = ['Kind of part', 'Lines', 'Planned, g', 'Weighed, g']
</script>

<template>
  <div
    ref="box"
    class="outcomes"
  >
    <p
      v-if="problem"
      class="problem"
      role="alert"
    >
      {{ problem }}
    </p>
    <PageWaits
      v-else-if="!outcomes.told"
      words="The plans of all builds are looked through"
    />
    <template v-else>
      <h2>The whole, against the scale</h2>
      <p
        v-if="finished.length === 0"
        class="soft"
      >
        No build has been weighed whole yet: dry, or ready to fly with everything on the pan (Weigh). From the first one on
        it stands here how far its plan was off, and how much solder, heat-shrink, tape and glue plans leave out.
      </p>
      <table
        v-else
        class="answers-table"
      >
        <thead>
          <tr>
            <th>Build</th><th class="right wide">
              Planned dry, g
            </th><th class="right">
              Weighed, g
            </th><th class="right">
              Off by
            </th><th class="right">
              Beside what is booked
            </th><th class="wide" />
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="build in finished"
            :key="build.id"
          >
            <td>{{ build.name }}</td><td class="right figure wide">
              {{ gramsFigure(build.outcome!.forecastG, spread(build.outcome!.forecastSigmaG)) }} ±
              {{ spreadFigure(spread(build.outcome!.forecastSigmaG)) }}
            </td><td class="right figure">
              {{ gramsFigure(build.outcome!.weighedG, spread(build.outcome!.weighedSigmaG)) }}
            </td><td class="right figure">
              {{ signed(build.outcome!.weighedG - build.outcome!.forecastG, 2) }}
            </td><td class="right figure">
              {{ fixed(100 * build.outcome!.share, 1) }} %
            </td><td class="soft wide">
              {{ build.outcome!.teaches ? '' : 'teaches nothing of sundries: too little of it was weighed' }}
            </td>
          </tr>
        </tbody>
      </table>
      <p
        v-if="mine"
        class="explained"
        data-test="sundries"
      >
        Solder, heat-shrink, tape and glue: <b>{{ shareWords }}</b> of a dry craft like this one, {{ restsWords }}
      </p>
      <template v-if="totals.length > 0">
        <h2>Totals of this craft</h2>
        <table class="answers-table">
          <thead>
            <tr>
              <th>Day</th><th>What</th><th>Of</th><th class="right">
                g
              </th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="total in totals"
              :key="total.id"
            >
              <td>{{ dayOf(total.takenAt, 'short') }}</td><td>
                {{ total.title }}<span
                  v-if="total.state !== 'taken in'"
                  class="soft"
                > · {{ total.state }}</span>
              </td><td class="soft">
                {{ total.of }}, {{ total.pieces }} lines
              </td><td class="right figure">
                {{ gramsFigure(total.valueG, spread(total.sigmaG)) }} ± {{ spreadFigure(spread(total.sigmaG)) }}
              </td>
            </tr>
          </tbody>
        </table>
        <p
          v-for="one in apart"
          :key="`${one.from.id} ${one.to.id}`"
          class="explained"
          :class="{ finding: one.isFinding }"
        >
          {{ apartWords(one) }}
          <template v-if="one.isFinding">
            <NuxtLink
              v-if="isKept(one)"
              :to="`/builds/${store.build!.id}/fly?view=findings`"
            >
              Kept among the findings
            </NuxtLink><el-button
              v-else
              link
              type="primary"
              @click="keepFinding(one)"
            >
              Keep it among the findings
            </el-button>
          </template>
        </p>
      </template>
      <h2>Part by part</h2>
      <p class="buttons no-print">
        <el-checkbox v-model="onlyMine">
          only {{ store.build?.name }}
        </el-checkbox>
        <NuxtLink to="/scales">How honest listings are, by kind and by words of the name</NuxtLink>
      </p>
      <p
        v-if="lines.length === 0"
        class="soft"
      >
        Nothing was planned first and weighed later{{ onlyMine ? ' in this build' : '' }}.
      </p>
      <template v-else>
        <p>
          {{ sumWords }}
        </p>
        <ChartFrame
          title="How far plans were off, by kind of part"
          :heads
          :rows
          :points
        >
          <svg
            :width
            :height
            role="img"
            :aria-label="`How far plans were off, for ${bySlot.length} kinds of parts, in per cent.`"
          >
            <line
              class="zero"
              :x1="x(0)"
              :x2="x(0)"
              y1="0"
              :y2="height - 26"
            />
            <g
              v-for="(group, i) in bySlot"
              :key="group.label"
            >
              <title>{{ wordsOf(group) }}</title>
              <text
                :x="edge.left - 10"
                :y="rowY(i) + 16"
                text-anchor="end"
              >{{ group.label }}<tspan
                v-if="group.count > 1"
                class="count"
              > × {{ group.count }}</tspan></text>
              <rect
                :class="offPercent(group) > 0 ? 'heavier' : 'lighter'"
                :x="Math.min(x(0), x(offPercent(group)))"
                :y="rowY(i) + 4"
                :width="Math.max(1, Math.abs(x(offPercent(group)) - x(0)))"
                :height="rowHeight - 9"
              />
              <text
                class="figure"
                :x="x(offPercent(group)) + (offPercent(group) < 0 ? -6 : 6)"
                :y="rowY(i) + 16"
                :text-anchor="offPercent(group) < 0 ? 'end' : 'start'"
              >{{ signed(offPercent(group), 1) }} %</text>
            </g>
            <ChartAxis
              side="bottom"
              :ticks="x.ticks(6)"
              :at="value => x(value)"
              :words="value => `${signed(value, 0)} %`"
              :ends="[edge.left + room, width - edge.right]"
              :foot="height + 8"
            />
          </svg>
        </ChartFrame>
        <table class="answers-table">
          <thead>
            <tr>
              <th v-if="!onlyMine">
                Build
              </th><th class="wide">
                Kind
              </th><th>Part</th><th class="wide">
                Known first
              </th><th class="right">
                Planned, g
              </th><th class="right">
                Weighed, g
              </th><th class="right">
                Off by
              </th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="line in lines.slice(0, 60)"
              :key="`${line.build} ${line.lineId}`"
            >
              <td v-if="!onlyMine">
                {{ line.build }}
              </td><td class="soft wide">
                {{ slotFacts[line.slot].label }}
              </td><td>{{ line.name }}</td><td class="soft wide">
                {{ line.evidence }}
              </td><td class="right figure">
                {{ gramsFigure(line.forecastG, line.spreadG) }} ± {{ spreadFigure(line.spreadG) }}
              </td><td class="right figure">
                {{ fixed(line.weighedG, 2) }}
              </td><td
                class="right figure"
                :class="{ off: !line.isWithin }"
              >
                {{ signed(line.weighedG - line.forecastG, 2) }}
              </td>
            </tr>
          </tbody>
        </table>
      </template>
    </template>
  </div>
</template>

<style scoped>
h2 {
  font-size: 15px;
  margin: 14px 0 6px;
}
h2:first-of-type {
  margin-top: 0;
}
table {
  width: 100%;
}
.explained {
  background: var(--paper);
  border-radius: 8px;
  padding: 9px 12px;
}
.finding {
  border-left: 3px solid var(--over);
}
.buttons {
  display: flex;
  gap: 18px;
  align-items: center;
}
.heavier {
  fill: var(--over);
  opacity: 0.75;
}
.lighter {
  fill: var(--clear);
  opacity: 0.75;
}
.zero {
  stroke: var(--ink-soft);
}
text {
  font-size: 12px;
  fill: var(--ink);
}
text.figure {
  font: 500 11px var(--mono);
}
.count {
  fill: var(--ink-soft);
}
@media screen and (max-width: 760px) {
  .wide {
    display: none;
  }
  td,
  th {
    padding-inline: 3px;
    overflow-wrap: anywhere;
  }
}
.off {
  color: var(--over);
  font-weight: 600;
}
</style>
