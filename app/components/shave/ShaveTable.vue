<script setup lang="ts">
import { centsFigure, fixed, percentSure, signed } from '#core/text/display'
import {
  effectOf,
  hasGrams,
  isPriced,
  shavedG,
  shaveListOf,
  shavingCents,
  slipFactorOf,
  takesOffG,
  takesTooMuch,
  type PlanStep,
  type Shaving,
  type ShavingGoal,
} from '#core/deciding/shave'

const props = defineProps<{
  steps: readonly PlanStep[]
  /** Shavings of which grams and lines are known. */
  usable: ReadonlySet<string>
  goalKind: ShavingGoal['kind']
  busy: boolean
}>()
const selectedId = defineModel<string | null>('selectedId', { required: true })

const store = useBuildStore()
const { settings } = storeToRefs(useSettingsStore())
const shavings = computed(() => shaveListOf(store.build!).shavings)
const rest = computed(() => {
  const inPlan = new Set(props.steps.map(step => step.shaving.id))
  return shavings.value.filter(s => s.state !== 'done' && s.state !== 'refused' && !inPlan.has(s.id))
})
const done = computed(() => shavings.value.filter(s => s.state === 'done'))
const refused = computed(() => shavings.value.filter(s => s.state === 'refused'))
const shavedWords = computed(() => `${signed(-shavedG(store.build!), 2)} g so far`)
const whatOf = (id: string) => shavings.value.find(shaving => shaving.id === id)

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
const refusing = ref<{ id: string; why: string } | null>(null)
function refuse(shaving: Shaving) {
  put(shaving, { state: 'refused', why: refusing.value?.why.trim() ?? '' })
  refusing.value = null
}
/** What a shaving takes off the loadout looked at, by the ledger. */
function offOf(shaving: Shaving): number {
  const step = props.steps.find(s => s.shaving.id === shaving.id)
  if (step) return step.offG
  return props.usable.has(shaving.id)
    ? takesOffG(store.build!, shaving, store.choice, store.estimates)
    : shaving.gramsG
}
const centsOf = (shaving: Shaving) => shavingCents(store.build!, shaving, slipFactorOf[settings.value.hand])
const priceOf = (shaving: Shaving) => ({
  cents: centsOf(shaving),
  priced: isPriced(store.build!, shaving),
  offG: offOf(shaving),
})
/** What is said below the name: of what kind it is, and what a gram of it costs. */
const saidOf = (shaving: Shaving, price: Parameters<typeof gramPriceWords>[0]) =>
  [shavingWords(shaving), gramPriceWords(price, settings.value.currency)].filter(Boolean).join(' · ')
const { doing, doingProblem, begin, doIt } = useShavingDone(offOf)
/** It is known what it touches, but not what it takes off. */
const isOpen = (shaving: Shaving) =>
  !hasGrams(store.build!, shaving) &&
  shaving.gramsG === 0 &&
  shaving.candidateId === null &&
  shaving.kind !== 'leave off'
/** What must be said before it can be in a plan. */
function missingWords(shaving: Shaving): string {
  if (props.usable.has(shaving.id)) return ''
  return isOpen(shaving) ? ' · say how many grams, or work them out' : ' · say which line it touches'
}
useSingleKeys({
  tick: () => {
    if (props.steps[0]) begin(props.steps[0].shaving)
  },
})
</script>

<template>
  <table>
    <thead>
      <tr>
        <th /><th
          data-test="plan-sentence"
          :data-busy="busy"
        >
          <slot name="sentence" />
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
            <ShavingName
              class="planned"
              :what="step.shaving.what"
              @look="selectedId = step.shaving.id"
            >
              {{ saidOf(step.shaving, step) }}<b v-if="step.enough && !steps[i - 1]?.enough">
                · the last one needed</b><b v-if="step.shaving.state === 'planned'"> · planned</b>
            </ShavingName>
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
      <ShavingsHead v-if="rest.length > 0">
        {{ goalKind === 'put on' ? 'Not in this plan' : 'Not needed for this plan' }}
      </ShavingsHead>
      <tr
        v-for="shaving in rest"
        :key="shaving.id"
        :class="{ selected: selectedId === shaving.id }"
      >
        <td /><td>
          <ShavingName
            :what="shaving.what"
            @look="selectedId = shaving.id"
          >
            {{ saidOf(shaving, priceOf(shaving)) }}{{ missingWords(shaving)
            }}{{ shaving.lock === 'out' ? ' · left out for now' : '' }}{{ leftOutWords(shaving) }}
          </ShavingName>
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
            :label="`Why not “${whatOf(refusing.id)?.what}”?`"
            shown
            words="Refuse it"
            button="main"
            @send="refuse(whatOf(refusing.id)!)"
          >
            <el-button @click="refusing = null">
              Leave it
            </el-button>
          </OneField>
        </td>
      </tr>
      <ShavingsHead v-if="done.length > 0">
        Done, <span class="figure">{{ shavedWords }}</span>
      </ShavingsHead>
      <tr
        v-for="shaving in done"
        :key="shaving.id"
        class="over"
      >
        <td>✓</td><td>
          <ShavingName
            :what="shaving.what"
            @look="selectedId = shaving.id"
          />
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
      <ShavingsHead v-if="refused.length > 0">
        Refused
      </ShavingsHead>
      <tr
        v-for="shaving in refused"
        :key="shaving.id"
        class="over"
      >
        <td /><td>
          <ShavingName
            :what="shaving.what"
            @look="selectedId = shaving.id"
          />
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
</template>

<style scoped>
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
@media screen and (max-width: 760px) {
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
  .doing label {
    flex-wrap: wrap;
  }
}
</style>
