<script setup lang="ts">
import { centsFigure, fixed, percentSure, signed } from '#core/text/display'
import {
  effectOf,
  hasGrams,
  isPriced,
  openShavings,
  shavedG,
  shaveListOf,
  shavingCents,
  slipFactorOf,
  takesOffG,
  takesTooMuch,
  type PlanStep,
  type Shaving,
} from '#core/deciding/shave'
import { loadoutName } from '#core/mass/loadout'
import type { FrontierPoint } from '~/workers/shave.worker'

const store = useBuildStore()
const { settings } = storeToRefs(useSettingsStore())
const { goal, withFrontier, plan, others, frontier, turned, busy, progress, failure, askTurned, goOn, stop } =
  useShavePlan()
const list = computed(() => shaveListOf(store.build!))
const selectedId = ref<string | null>(null)
const selected = computed(() => list.value.shavings.find(s => s.id === selectedId.value) ?? null)
/** A point of the frontier somebody looks at in place of the plan. */
const chosen = shallowRef<FrontierPoint | null>(null)
watch([plan, goal], () => {
  chosen.value = null
})
const shown = computed(() => chosen.value?.plan ?? plan.value)
const steps = computed<readonly PlanStep[]>(() =>
  (shown.value?.steps ?? []).filter(step =>
    list.value.shavings.some(s => s.id === step.shaving.id && s.state !== 'done'),
  ),
)
const inPlan = computed(() => new Set(steps.value.map(step => step.shaving.id)))
const usable = computed(
  () => new Set([...openShavings(store.build!), ...openShavings(store.build!, 'put on')].map(s => s.id)),
)
const rest = computed(() =>
  list.value.shavings.filter(s => s.state !== 'done' && s.state !== 'refused' && !inPlan.value.has(s.id)),
)
const done = computed(() => list.value.shavings.filter(s => s.state === 'done'))
const refused = computed(() => list.value.shavings.filter(s => s.state === 'refused'))

const neededG = computed(() => {
  const binding = store.overview?.binding?.verdict
  if (goal.value.kind === 'dry') return Math.max(0, store.overview!.dry.valueG - goal.value.gramsG)
  return goal.value.kind === 'grams'
    ? Math.max(0, goal.value.gramsG - shavedG(store.build!))
    : binding
      ? Math.max(0, store.build!.aim.reserveG + binding.guardG - binding.headroomG)
      : null
})
const shavedWords = computed(() => (done.value.length === 0 ? '' : `${signed(-shavedG(store.build!), 2)} g so far`))
const aimedAt = computed(() =>
  goalWords(goal.value, store.build!.aim.confidence, done.value.length > 0 ? shavedG(store.build!) : null),
)
const limit = computed(() =>
  neededG.value !== null ? 'there' : store.overview?.binding ? 'nothing flies' : 'none chosen',
)
const sentence = computed(() => {
  if (failure.value) return failure.value
  if (!plan.value) return busy.value ? 'working it out…' : ''
  const { currency } = settings.value
  return chosen.value
    ? `another point: ${stepsWords(steps.value.length)}, ${costWords(chosen.value.plan, currency)}`
    : planSentence({
        plan: plan.value,
        steps: steps.value,
        goal: goal.value,
        spare: list.value.spare,
        limit: limit.value,
        currency,
      })
})

/** Suggestions stay beside the list while they are wanted: each change of the ledger or the list makes them anew. */
const route = useRoute()
const router = useRouter()
const suggesting = computed(() => route.query.suggest !== undefined)
function toggleSuggestions() {
  void router.replace({ query: { ...route.query, suggest: suggesting.value ? undefined : '1' } })
}
/** What turning one shaving would cost against the plan shown, in words. */
const canBeTurned = computed(
  () =>
    selected.value &&
    usable.value.has(selected.value.id) &&
    selected.value.lock === null &&
    selected.value.state === 'idea' &&
    plan.value?.status === 'best' &&
    !chosen.value &&
    (inPlan.value.has(selected.value.id) || (selected.value.kind === 'put on') === (goal.value.kind === 'put on')),
)
const turnedWords = computed(() => {
  if (!plan.value || turned.value?.id !== selectedId.value) return busy.value ? 'working it out…' : ''
  return turnedSentence(turned.value!.plan, plan.value, settings.value.currency)
})
const canDecide = computed(
  () =>
    steps.value.length > 0 &&
    !failure.value &&
    plan.value?.status === 'best' &&
    steps.value.some(step => step.shaving.state !== 'planned'),
)
function put(shaving: Shaving, fields: Partial<Shaving>) {
  store.run({ type: 'shaving.put', shaving: { ...shaving, ...fields } })
}

/** Why a shaving is in no plan although it touches a line. */
function leftOutWords(shaving: Shaving): string {
  const over =
    effectOf(store.build!, shaving).kind === 'grams' &&
    takesTooMuch(store.build!, shaving, line => store.estimates.before(line), shaving.gramsG)
  return over ? ` · left out: ${tooMuchWords(over, shaving.gramsG)}` : ''
}
/** Decides on the plan shown: its steps stay in every plan from now on. */
function decide() {
  store.run({ type: 'shavings.plan', ids: steps.value.map(step => step.shaving.id) })
}
const refusing = ref<{ id: string; why: string } | null>(null)
function refuse(shaving: Shaving) {
  put(shaving, { state: 'refused', why: refusing.value?.why.trim() ?? '' })
  refusing.value = null
}
/** What a shaving takes off the loadout looked at, by the ledger. */
function offOf(shaving: Shaving): number {
  const step = steps.value.find(s => s.shaving.id === shaving.id)
  if (step) return step.offG
  return usable.value.has(shaving.id) ? takesOffG(store.build!, shaving, store.choice, store.estimates) : shaving.gramsG
}
const centsOf = (shaving: Shaving) => shavingCents(store.build!, shaving, slipFactorOf[settings.value.hand])
const priceOf = (shaving: Shaving) => ({
  cents: centsOf(shaving),
  priced: isPriced(store.build!, shaving),
  offG: offOf(shaving),
})
const { doing, doingProblem, begin, doIt } = useShavingDone(offOf)
/** It is known what it touches, but not what it takes off. */
const isOpen = (shaving: Shaving) =>
  !hasGrams(store.build!, shaving) &&
  shaving.gramsG === 0 &&
  shaving.candidateId === null &&
  shaving.kind !== 'leave off'
useSingleKeys({
  tick: () => {
    if (steps.value[0]) begin(steps.value[0].shaving)
  },
})
</script>

<template>
  <div class="station">
    <main class="worksheet">
      <div class="station-head">
        <h1>Shave</h1><span class="soft say">{{ aimedAt }},
          {{ list.everyLoadout ? 'every loadout flown' : loadoutName(store.build!, store.choice) }}, sparing
          {{ measureNames[list.spare] }} first</span><span class="gap" /><el-button
          :aria-pressed="suggesting"
          @click="toggleSuggestions"
        >
          Suggest from the ledger
        </el-button>
      </div>
      <StationSays page="shave" />
      <NewShaving @made="selectedId = $event" />
      <ShaveSuggestions
        v-if="suggesting"
        :goal-kind="goal.kind"
      />
      <p
        v-if="list.shavings.length === 0"
        class="empty"
      >
        Write down what could come off: its grams can be worked out, the rest can wait. The cheapest way back under
        the limit is worked out from the list.
      </p>
      <div
        v-else
        class="scroll"
      >
        <table>
          <thead>
            <tr>
              <th /><th
                data-test="plan-sentence"
                :data-busy="busy"
              >
                {{ sentence }} <el-button
                  v-if="busy"
                  link
                  type="primary"
                  @click="stop('Stopped. The list is as it was.')"
                >
                  Stop
                </el-button><el-button
                  v-else-if="canDecide"
                  link
                  type="primary"
                  @click="decide"
                >
                  Decide on it
                </el-button><el-button
                  v-else-if="failure || plan?.status === 'given up' || plan?.status === 'unproven'"
                  link
                  type="primary"
                  @click="goOn"
                >
                  Go on longer
                </el-button>
              </th><th class="right">
                Grams
              </th><th class="right">
                <TermTip word="Spread">
                  ±
                </TermTip>
              </th><th class="right">
                Money
              </th><th class="right">
                Time
              </th><th class="right">
                <TermTip word="AUW">
                  AUW then
                </TermTip>
              </th><th class="right">
                <TermTip word="Sure" />
              </th><th />
            </tr>
          </thead>
          <tbody>
            <template
              v-for="(step, i) in steps"
              :key="step.shaving.id"
            >
              <tr
                class="step"
                :class="{ selected: selectedId === step.shaving.id }"
                :data-step="i + 1"
              >
                <td><em>{{ i + 1 }}</em></td>
                <td>
                  <el-button
                    link
                    type="primary"
                    class="name"
                    @click="selectedId = step.shaving.id"
                  >
                    {{ step.shaving.what }}
                  </el-button><small>{{
                    [shavingWords(step.shaving), gramPriceWords(step, settings.currency)]
                      .filter(Boolean)
                      .join(' · ')
                  }}<b v-if="step.enough && !steps[i - 1]?.enough">
                    · the last one needed</b><b v-if="step.shaving.state === 'planned'"> · planned</b></small>
                </td>
                <td
                  class="right figure"
                  :class="step.offG >= 0 ? 'word-clear' : 'word-over'"
                >
                  {{ signed(-step.offG, 2) }}
                </td><td class="right figure soft">
                  {{ fixed(step.shaving.spreadG, 2) }}
                </td><td
                  class="right figure"
                  :title="step.priced ? '' : 'Nobody has said the price.'"
                >
                  {{ step.priced ? centsFigure(step.cents) : 'unknown' }}
                </td><td class="right figure">
                  {{ fixed(step.shaving.minutes, 0) }} min
                </td>
                <td class="right figure">
                  <b>{{ fixed(step.massG, 1) }}</b>
                </td><td class="right">
                  {{ step.probability === null ? '' : percentSure(step.probability) }}
                </td>
                <td class="acts">
                  <el-button @click="begin(step.shaving)">
                    Do it<KeyHint
                      v-if="i === 0"
                      does="tick"
                    />
                  </el-button>
                </td>
              </tr>
              <tr
                v-if="doing === step.shaving.id"
                class="doing"
              >
                <td /><td colspan="8">
                  <DoStep
                    :key="step.shaving.id"
                    :shaving="step.shaving"
                    :refusal="doingProblem"
                    :forecast-g="step.offG"
                    @done="(real, leadMm) => doIt(step.shaving, real, leadMm)"
                    @close="doing = null"
                  />
                </td>
              </tr>
            </template>
            <tr
              v-if="rest.length > 0"
              class="head"
            >
              <th
                colspan="9"
                scope="rowgroup"
              >
                {{ goal.kind === 'put on' ? 'Not in this plan' : 'Not needed for this plan' }}
              </th>
            </tr>
            <tr
              v-for="shaving in rest"
              :key="shaving.id"
              :class="{ selected: selectedId === shaving.id }"
            >
              <td /><td>
                <el-button
                  link
                  type="primary"
                  class="name"
                  @click="selectedId = shaving.id"
                >
                  {{ shaving.what }}
                </el-button><small>{{
                  [
                    shavingWords(shaving),
                    gramPriceWords(priceOf(shaving), settings.currency),
                  ]
                    .filter(Boolean)
                    .join(' · ')
                }}{{
                  usable.has(shaving.id)
                    ? ''
                    : isOpen(shaving)
                      ? ' · say how many grams, or work them out'
                      : ' · say which line it touches'
                }}{{ shaving.lock === 'out' ? ' · left out for now' : '' }}{{ leftOutWords(shaving) }}</small>
              </td>
              <td class="right figure">
                {{ isOpen(shaving) ? 'not said' : signed(-offOf(shaving), 2) }}
              </td><td class="right figure soft">
                {{ fixed(shaving.spreadG, 2) }}
              </td><td class="right figure">
                {{ isPriced(store.build!, shaving) ? centsFigure(centsOf(shaving)) : 'unknown' }}
              </td><td class="right figure">
                {{ fixed(shaving.minutes, 0) }} min
              </td>
              <td
                colspan="3"
                class="acts"
              >
                <el-button
                  v-if="shaving.lock !== 'in'"
                  link
                  type="primary"
                  @click="put(shaving, { lock: 'in' })"
                >
                  Force it in
                </el-button><el-button
                  link
                  type="primary"
                  @click="refusing = { id: shaving.id, why: '' }"
                >
                  Refuse
                </el-button>
              </td>
            </tr>
            <tr
              v-if="refusing"
              class="doing"
            >
              <td /><td colspan="8">
                <OneField
                  v-model="refusing.why"
                  :label="`Why not “${list.shavings.find(s => s.id === refusing!.id)?.what}”?`"
                  shown
                  words="Refuse it"
                  button="main"
                  @send="refuse(list.shavings.find(s => s.id === refusing!.id)!)"
                >
                  <el-button @click="refusing = null">
                    Leave it
                  </el-button>
                </OneField>
              </td>
            </tr>
            <tr
              v-if="done.length > 0"
              class="head"
            >
              <th
                colspan="9"
                scope="rowgroup"
              >
                Done, <span class="figure">{{ shavedWords }}</span>
              </th>
            </tr>
            <tr
              v-for="shaving in done"
              :key="shaving.id"
              class="over"
            >
              <td>✓</td><td>
                <el-button
                  link
                  type="primary"
                  class="name"
                  @click="selectedId = shaving.id"
                >
                  {{ shaving.what }}
                </el-button>
              </td><td
                colspan="7"
                class="soft"
              >
                forecast {{ signed(-shaving.gramsG, 2) }} ±
                {{ fixed(shaving.spreadG, 2) }}{{
                  shaving.realG === null ? ', not weighed yet' : `, weighed ${signed(-shaving.realG, 2)}`
                }},
                {{ shaving.doneOn }}
              </td>
            </tr>
            <tr
              v-if="refused.length > 0"
              class="head"
            >
              <th
                colspan="9"
                scope="rowgroup"
              >
                Refused
              </th>
            </tr>
            <tr
              v-for="shaving in refused"
              :key="shaving.id"
              class="over"
            >
              <td /><td>
                <el-button
                  link
                  type="primary"
                  class="name"
                  @click="selectedId = shaving.id"
                >
                  {{ shaving.what }}
                </el-button>
              </td><td
                colspan="5"
                class="soft"
              >
                {{ shaving.why || 'no reason kept' }}
              </td><td
                colspan="2"
                class="acts"
              >
                <el-button
                  link
                  type="primary"
                  @click="put(shaving, { state: 'idea' })"
                >
                  Bring back
                </el-button>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <TwoSchools />
    </main>
    <aside
      class="inspector"
      aria-label="Inspector"
    >
      <template v-if="selected">
        <h2>{{ selected.what }}</h2>
        <ShavingFields
          :key="selected.id"
          :shaving="selected"
        />
        <template v-if="canBeTurned">
          <h3>{{ inPlan.has(selected.id) ? 'Without it' : 'Why not this one?' }}</h3>
          <p data-test="turned">
            {{ turnedWords }} <el-button
              v-if="!busy && turned?.id !== selected.id"
              link
              type="primary"
              @click="askTurned(selected.id, inPlan.has(selected.id) ? 'out' : 'in')"
            >
              Work it out
            </el-button>
          </p>
        </template>
        <p v-if="selected.state === 'planned'">
          <el-button
            link
            type="primary"
            @click="put(selected, { state: 'idea' })"
          >
            Not planned any more
          </el-button>
        </p>
        <p class="foot">
          <el-button @click="selectedId = null">
            Back to the plan
          </el-button> <el-button
            link
            type="primary"
            @click="store.run({ type: 'shaving.delete', id: selected.id })"
          >
            Delete
          </el-button>
        </p>
      </template>
      <template v-else>
        <ShaveGoals v-model:goal="goal" />
        <template v-if="others.length > 0">
          <h3>What else nearly works</h3><p
            v-for="(other, i) in others"
            :key="i"
          >
            {{ costWords(other, settings.currency) }}: <span class="soft">{{ other.steps.map(s => s.shaving.what).join(', ') }}</span>
          </p>
        </template>
        <h3>What each gram costs</h3>
        <el-checkbox v-model="withFrontier">
          draw the cheapest way to every weight
        </el-checkbox>
        <template v-if="withFrontier">
          <FrontierChart
            v-if="frontier.length > 0"
            :points="frontier"
            :needed-g="neededG"
            :measure="list.spare"
            :label="measureNames[list.spare]"
            :chosen-g="chosen?.gramsG ?? null"
            @choose="chosen = $event"
          /><p
            v-if="progress"
            class="soft"
            role="status"
          >
            {{ progress.done }} of {{ progress.of }} points <el-button
              link
              type="primary"
              @click="stop('Stopped. The list is as it was.')"
            >
              Stop
            </el-button>
          </p><p v-if="chosen">
            <el-button
              link
              type="primary"
              @click="chosen = null"
            >
              Back to the plan
            </el-button>
          </p>
        </template>
      </template>
    </aside>
  </div>
</template>

<style scoped>
.say {
  font-size: 12.5px;
}
.empty {
  padding: 30px 10px;
}
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  width: 100%;
}
th,
td {
  padding: 6px 8px 6px 0;
  text-align: left;
  vertical-align: top;
}
thead th {
  font-weight: 500;
  font-size: 11.5px;
  color: var(--ink-soft);
  border-bottom: 1px solid var(--edge);
}
thead th:nth-child(2) {
  color: var(--ink);
  font-size: 12.5px;
  font-weight: 600;
}
.right {
  text-align: right;
  white-space: nowrap;
}
.name {
  padding: 0;
  color: var(--ink);
  text-align: left;
  white-space: normal;
  font-size: 13.5px;
}
.step .name {
  font-weight: 700;
}
tr:not(.step) .name {
  font-weight: 500;
}
small {
  display: block;
  font-size: 11.5px;
  color: var(--ink-soft);
}
em {
  font: 500 11px/20px var(--mono);
  width: 22px;
  height: 22px;
  border-radius: 50%;
  text-align: center;
  display: inline-block;
  background: var(--plum);
  color: var(--plum-ink);
}
.step td {
  border-bottom: 1px solid var(--line);
}
.head th {
  background: var(--paper);
  font-size: 12px;
  padding: 5px 8px;
}
.selected td {
  background: var(--selection);
}
.acts {
  white-space: nowrap;
  text-align: right;
}
.acts button {
  margin-left: 4px;
}
.doing td {
  background: var(--note);
}
.doing label {
  display: inline-flex;
  gap: 6px;
  align-items: center;
}
.over td {
  color: var(--ink-soft);
}
.foot {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-top: 12px;
}
@media screen and (max-width: 760px) {
  .station-head .gap,
  kbd {
    display: none;
  }
  th:nth-child(4),
  td:nth-child(4),
  th:nth-child(5),
  td:nth-child(5),
  th:nth-child(6),
  td:nth-child(6),
  th:nth-child(8),
  tr.step td:nth-child(8) {
    display: none;
  }
  .name {
    font-size: 16px;
    min-height: 32px;
  }
  small {
    font-size: 14px;
  }
  .doing label {
    flex-wrap: wrap;
  }
}
</style>
