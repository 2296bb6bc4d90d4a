<script setup lang="ts">
import {
  fixed,
  gramsFigure,
  headroomWords,
  minutesBand,
  minutesFigure,
  percentSure,
  reserveWords,
  spreadFigure,
  sureWords,
} from '#core/text/display'
import { balanceOf } from '#core/aircraft/balance'
import { cellResistanceOf, craftOf, type CurrentFrom } from '#core/aircraft/currents'
import { frontierOf, goalChance, landsWeakly, longerBy, withTried, worthOf, type LoadoutCell } from '#core/aircraft/flight'
import { packLabel } from '#core/model/ledger'
import { judgementWord } from '#core/mass/report'
import { countedLines, isOnPurpose, sameLoadout, withSetup } from '#core/mass/loadout'
import { coverageFactor95 } from '#core/maths/numbers'
import { cardName } from '#core/limits/rules'

const props = defineProps<{ cell: LoadoutCell }>()
const emit = defineEmits<{ cell: [cell: LoadoutCell]; take: [cell: LoadoutCell] }>()
const store = useBuildStore()
const { plan, cells, flights } = useLoadouts()

const flight = computed(() => flights.value.get(props.cell.key))
const told = computed(() =>
  flight.value?.forecast && flight.value.forecast.why === null ? flight.value.forecast : null,
)
const build = computed(() =>
  props.cell.source === 'on the build' ? store.build! : withTried(store.build!, props.cell.pack),
)
const setup = computed(() => store.build!.setups.find(s => s.id === props.cell.choice.setupId)!)
const spread = computed(() => props.cell.sigmaG * coverageFactor95)
const verdict = computed(() => props.cell.binding?.verdict ?? null)
const craft = computed(() => {
  const made = craftOf(countedLines(build.value, props.cell.choice), props.cell.pack, plan.value)
  return 'missing' in made ? null : made
})
const gramsOf = (id: string) => {
  const line = build.value.lines.find(l => l.id === id)
  return line ? store.estimates.of(line).valueG : 0
}
/** What is left of full throttle while it flies level, by how this loadout hangs. */
const levelShare = computed(() => {
  const { hover } = balanceOf(build.value, props.cell.choice, store.estimates)
  return hover && !('problem' in hover) ? hover.levelShare : null
})
const worth = computed(() => worthOf(build.value, props.cell.choice, props.cell.massG, plan.value, gramsOf))
const resistance = computed(() => (props.cell.pack.pack ? cellResistanceOf(props.cell.pack) : null))
const isFlown = computed(() => sameLoadout(props.cell.choice, store.build!.flies))
const flownCell = computed(() => cells.value.find(cell => sameLoadout(cell.choice, store.build!.flies)))
const longer = computed(() => {
  const other = flownCell.value && flights.value.get(flownCell.value.key)
  return isFlown.value || !flight.value || !other ? null : longerBy(flight.value, other)
})
const best = computed(() => {
  const own = cells.value.filter(
    cell => cell.source === 'on the build' && cell.choice.setupId === props.cell.choice.setupId,
  )
  const frontier = frontierOf(own, key => flights.value.get(key)?.forecast?.minutes ?? null)
  return frontier.length === 0 ? null : { lightest: frontier[0]!, longest: frontier.at(-1)! }
})
const currentFromWords: Record<CurrentFrom, string> = {
  'said': 'as said at the motor',
  'bench table': 'by the bench table',
  'kV and prop': 'from kV and prop, rough',
}
const restsOnSentence = computed(() => {
  const words = restsOnWords(told.value!.restsOn, told.value!.packFlights)
  return `${words.charAt(0).toUpperCase()}${words.slice(1)}.`
})
/** The chance of the minutes goal with this loadout; null without a goal, or where minutes cannot be told. */
const goalChanceHere = computed(() => {
  const goal = store.build!.aim.goalMinutes
  return goal === null ? null : goalChance(build.value, props.cell.choice, store.estimates, plan.value, goal)
})
const landing = computed(() => told.value !== null && landsWeakly(told.value))

function fly() {
  store.run({ type: 'loadout.fly', choice: props.cell.choice })
}
function never() {
  store.run({ type: 'loadout.never', choice: props.cell.choice, never: !props.cell.never })
}
function purpose() {
  const now = plan.value.overOnPurpose.filter(choice => !sameLoadout(choice, props.cell.choice))
  store.run({
    type: 'flying.set',
    fields: { overOnPurpose: isOnPurpose(store.build!, props.cell.choice) ? now : [...now, props.cell.choice] },
  })
}
const seconds = (value: number) => `${fixed(value, Math.abs(value) < 10 ? 1 : 0)} s`
</script>

<template>
  <h2>{{ packLabel(cell.pack) }} {{ withSetup(setup.name) }}</h2>
  <p class="soft">
    {{ cell.pack.name }}, {{ gramsFigure(gramsOf(cell.pack.id), spread) }} g, {{ cell.pack.mass?.evidence ?? 'no grams yet' }}.
  </p>
  <div
    class="big figure"
    data-test="loadout-auw"
  >
    {{ gramsFigure(cell.massG, spread, cell.binding?.limitG ?? null) }}<small> g ± {{ spreadFigure(spread) }}</small>
  </div>
  <p
    v-if="verdict"
    class="verdict"
  >
    <VerdictMark
      :word="verdict.word"
      filled
    />
    {{
      [
        headroomWords(verdict.headroomG, spread),
        reserveWords(cell.intoReserveG),
        sureWords(verdict, store.build!.aim.confidence),
      ]
        .filter(Boolean)
        .join(', ')
    }}
  </p>
  <ul
    v-if="cell.judgements.length > 1"
    class="under"
  >
    <li
      v-for="judgement in cell.judgements"
      :key="judgement.card.id"
    >
      <VerdictMark
        v-if="judgement.verdict"
        :word="judgement.verdict.word"
      /><span v-else>{{ judgementWord(judgement) }}</span> <span class="soft">{{ cardName(judgement.card) }}</span>
    </li>
  </ul>
  <p
    v-for="misfit in flight?.misfits ?? []"
    :key="misfit"
    class="note"
  >
    <b>Does not fit.</b> {{ misfit }}.
  </p>

  <p
    v-if="flight?.missing"
    class="note"
  >
    {{ flight.missing.missing }}
    <NuxtLink :to="{ path: `/builds/${store.build!.id}/parts`, query: flight.missing.lineId ? { line: flight.missing.lineId } : {} }">Go
      there</NuxtLink>
  </p>
  <p
    v-else-if="flight?.forecast?.why"
    class="note"
    data-test="no-minutes"
  >
    {{ flight.forecast.why }} No minutes with this pack at {{ plan.style }}.
  </p>
  <template v-if="told">
    <dl class="facts">
      <dt>{{ plan.style.charAt(0).toUpperCase() + plan.style.slice(1) }}</dt><dd data-test="minutes">
        {{ minutesBand(told.hardMinutes, told.gentleMinutes) }}
      </dd>
      <dt>middle of it</dt><dd>{{ minutesFigure(told.minutes) }} min</dd>
      <template v-if="goalChanceHere !== null">
        <dt>reaches {{ minutesFigure(store.build!.aim.goalMinutes!) }} min</dt><dd data-test="goal-chance">
          {{ percentSure(goalChanceHere) }}
        </dd>
      </template>
      <template v-if="longer">
        <dt>against {{ packLabel(flownCell!.pack) }}</dt><dd data-test="longer">
          {{ longerWords(longer) }}
        </dd>
      </template>
      <dt><TermTip word="Hover draw" /></dt><dd>{{ fixed(told.hoverA, 1) }} A</dd>
      <template v-if="told.thrustToWeightStart !== null">
        <dt><TermTip word="Thrust to weight" /></dt><dd>
          {{ told.start!.atLeast ? 'at least ' : '' }}{{ fixed(told.thrustToWeightStart, 1) }} :
          1
        </dd><template v-if="levelShare !== null">
          <dt>level, as it hangs</dt><dd data-test="level">
            {{ told.start!.atLeast ? 'at least ' : '' }}{{ fixed(told.thrustToWeightStart * levelShare, 1) }} : 1
          </dd>
        </template><template v-if="told.thrustToWeightEnd !== null">
          <dt>at the end</dt><dd>{{ fixed(told.thrustToWeightEnd, 1) }} : 1</dd>
        </template>
      </template>
      <template v-if="told.weakest">
        <dt>Weakest link</dt><dd :class="{ 'word-over': told.weakest.share > 1 }">
          {{ told.weakest.name }}, {{ told.weakest.atLeast ? 'at least ' : '' }}{{ fixed(told.weakest.share * 100, 0) }} %
        </dd>
      </template>
    </dl>
    <p
      v-if="told.restsOn"
      class="soft"
      data-test="rests-on"
    >
      {{ restsOnSentence }}
    </p>
    <p
      v-if="landing"
      class="note"
    >
      <b>Little left for the landing.</b> At the end of the flight full throttle lifts only
      {{ fixed(told.thrustToWeightEnd!, 1) }} times the weight. Land earlier, or keep more in reserve.
    </p>
    <p
      v-if="told.weakest && told.weakest.share > 1"
      class="note"
    >
      Full throttle asks for
      {{ told.weakest.atLeast ? 'at least ' : '' }}{{ fixed(told.weakest.fullA ?? told.weakest.meanA, 0) }}
      A{{ told.start?.from === 'kV and prop' ? ' (worked out from kV and prop: a third either way)' : '' }}; the
      {{ told.weakest.name }} bears {{ fixed(told.weakest.burstA, 0) }} A in bursts.
    </p>
    <p
      v-if="told.thrustToWeightStart === null && !told.collapses"
      class="soft"
    >
      Thrust to weight is not told: say the kV of the motors, or their bench table, in Parts.
    </p>
    <p
      v-if="told.collapses"
      class="note"
    >
      {{ packLabel(cell.pack) }} cannot hold full throttle {{ told.collapses }}: its volts collapse before they and the motors’ amps meet.
    </p>
  </template>

  <template v-if="worth">
    <h3>What is it worth</h3>
    <dl class="facts">
      <dt>One gram more costs</dt><dd>{{ seconds(worth.secondsPerGram) }}</dd>
      <template v-if="worth.gramsForOneMinute !== null">
        <dt>One minute more asks for</dt><dd>−{{ fixed(worth.gramsForOneMinute, 1) }} g</dd>
      </template>
      <template v-if="worth.lighterFrame">
        <dt>A frame lighter by {{ fixed(worth.lighterFrame.gramsG, 1) }} g</dt><dd>+{{ seconds(worth.lighterFrame.seconds) }}</dd>
      </template>
      <dt>
        A pack bigger by {{ fixed(worth.biggerPack.mah, 0) }} mAh (+{{ fixed(worth.biggerPack.gramsG, 1) }}
        g)
      </dt><dd>{{ worth.biggerPack.seconds < 0 ? '' : '+' }}{{ seconds(worth.biggerPack.seconds) }}</dd>
    </dl>
  </template>

  <template v-if="best">
    <h3>Best under the limit, {{ setup.name }}</h3>
    <dl class="facts">
      <dt>
        Longest: <el-button
          link
          type="primary"
          @click="emit('cell', best.longest)"
        >
          {{ packLabel(best.longest.pack) }}
        </el-button>
      </dt><dd>{{ minutesWords(flights.get(best.longest.key)) }}</dd>
      <dt>
        Most free grams: <el-button
          link
          type="primary"
          @click="emit('cell', best.lightest)"
        >
          {{ packLabel(best.lightest.pack) }}
        </el-button>
      </dt><dd>{{ fixed(best.lightest.binding!.verdict!.headroomG, 1) }} g</dd>
    </dl>
  </template>

  <div class="acts">
    <template v-if="cell.source === 'on the build'">
      <el-button
        v-if="!isFlown"
        type="primary"
        @click="fly"
      >
        Make it the way I fly
      </el-button><span
        v-else
        class="soft"
      >This is the way you fly it.</span>
      <el-button
        v-if="verdict?.word === 'Over' || cell.onPurpose"
        @click="purpose"
      >
        {{ cell.onPurpose ? 'Not on purpose after all' : 'I fly this one over on purpose' }}
      </el-button>
      <el-button
        link
        type="primary"
        @click="never"
      >
        {{ cell.never ? 'It is flown after all' : 'It is never flown' }}
      </el-button>
    </template>
    <el-button
      v-else
      type="primary"
      @click="emit('take', cell)"
    >
      Put this pack on the build
    </el-button>
  </div>
  <p
    v-if="cell.onPurpose"
    class="soft"
  >
    Kept over on purpose: whatever registration and identification the card asks for beyond its limit is yours to see to.
  </p>

  <details
    v-if="craft"
    class="why"
  >
    <summary>Why these minutes?</summary>
    <p>
      No flight has been logged, so the minutes are a band: how gently {{ plan.style }} is flown, and how much of the
      power lifts ({{ fixed(craft.efficiency, 2) }}, {{ craft.efficiencyFrom }}, a quarter either way). What is the same
      for two packs cancels between them, so their difference is surer.
    </p>
    <dl class="facts">
      <dt>Props</dt><dd>
        {{ craft.props }} × {{ fixed(craft.diameterMm, 1) }}
        mm
      </dd><dt>Air</dt><dd>{{ fixed(craft.densityKgM3, 3) }} kg/m³</dd>
      <template v-if="told">
        <dt>Hover</dt><dd>{{ fixed(told.hoverW, 1) }} W</dd><dt>Mean of the flight</dt><dd>{{ fixed(told.meanW, 1) }} W</dd>
      </template>
      <template v-if="resistance">
        <dt>A cell resists, {{ resistance.from }}</dt><dd>{{ fixed(resistance.mohm, 1) }} mΩ</dd>
      </template>
      <template
        v-for="device in craft.devices"
        :key="device.lineId"
      >
        <dt>
          {{ device.name.split(',')[0] }}<span v-if="device.from === 'typical'">
            (typical)</span>
        </dt><dd>{{ fixed(device.watts, 1) }} W</dd>
      </template>
      <template
        v-for="link in told?.links ?? []"
        :key="link.name"
      >
        <dt>
          {{ link.name.charAt(0).toUpperCase() + link.name.slice(1) }}: mean, full
          throttle
        </dt><dd>
          {{ fixed(link.meanA, 1) }}/{{ fixed(link.continuousA, 0) }},
          {{ link.fullA === null ? '–' : `${link.atLeast ? '≥ ' : ''}${fixed(link.fullA, 1)}` }}/{{ fixed(link.burstA, 0) }}
          A
        </dd>
      </template>
      <template v-if="told?.start">
        <dt>Amps of the motors</dt><dd>{{ currentFromWords[told.start.from] }}</dd>
      </template>
    </dl>
    <p
      v-if="told?.start?.rough"
      class="soft"
    >
      Thrust without a bench table is rough: a third either way.
    </p>
  </details>
</template>

<style scoped>
.big {
  font-size: 28px;
  letter-spacing: -1px;
  line-height: 1.15;
}
.big small {
  font-size: 14px;
  letter-spacing: 0;
  color: var(--ink-soft);
}
.verdict {
  display: flex;
  gap: 7px;
  align-items: center;
  flex-wrap: wrap;
}
.under {
  list-style: none;
  margin: 0 0 8px;
  padding: 0;
}
.acts {
  display: flex;
  gap: 6px;
  flex-wrap: wrap;
  margin-top: 12px;
  align-items: center;
}
.why {
  margin-top: 12px;
}
.why summary {
  cursor: pointer;
  color: var(--plum-text);
  font-weight: 600;
}
dt .is-link {
  padding: 0 2px;
  font-size: 12.5px;
  min-height: 0;
}
</style>
