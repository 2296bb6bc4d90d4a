<script setup lang="ts">
import type { InputInstance } from 'element-plus'
import { differenceSpreadG } from '#core/deciding/weigh'
import { centsFigure, fixed, headroomWords, percentSure, signed } from '#core/text/display'
import {
  effectOf,
  hasGrams,
  isPriced,
  makeShaving,
  massAfter,
  openShavings,
  shavedG,
  shaveListOf,
  shavingCents,
  shavingKinds,
  slipFactorOf,
  suggestShavings,
  takesOffG,
  takesTooMuch,
  type CostMeasure,
  type PlanStep,
  type Shaving,
  type ShavingKind,
  type Suggestion,
} from '#core/deciding/shave'
import type { Line } from '#core/model/ledger'
import { loadoutName } from '#core/mass/loadout'
import { coverageFactor95 } from '#core/maths/numbers'
import { isNotRead, readCents, readNumber, withoutUnit } from '#core/text/units'
import { nameSchema } from '#core/text/schemas'
import type { FrontierPoint } from '~/workers/shave.worker'

const store = useBuildStore()
const flown = useFlightsStore()
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

const measureNames: Record<CostMeasure, string> = {
  cents: 'money',
  minutes: 'minutes',
  loss: 'what is given up',
  changes: 'the number of changes',
  forGood: 'what cannot be undone',
}
const neededG = computed(() => {
  const binding = store.overview?.binding?.verdict
  if (goal.value.kind === 'dry') return Math.max(0, store.overview!.dry.valueG - goal.value.gramsG)
  return goal.value.kind === 'grams'
    ? Math.max(0, goal.value.gramsG - shavedG(store.build!))
    : binding
      ? Math.max(0, store.build!.aim.reserveG + binding.guardG - binding.headroomG)
      : null
})
const pricesWords = (count: number) => `${count === 1 ? 'one price' : `${count} prices`} not said`
const costWords = (of: { cents: number; unpriced: number; minutes: number }) =>
  `${of.unpriced > 0 ? 'at least ' : ''}${centsFigure(of.cents)} ` +
    `${settings.value.currency}${of.unpriced > 0 ? ` (${pricesWords(of.unpriced)})` : ''} and ` +
    `${fixed(of.minutes, 0)} minutes`
/** What a gram costs of what has a price and takes something off. */
function gramPriceWords(cents: number, priced: boolean, offG: number): string {
  return priced && cents > 0 && offG > 0.005
    ? `${centsFigure(Math.round(cents / offG))} ${settings.value.currency} a gram`
    : ''
}
const shavedWords = computed(() => (done.value.length === 0 ? '' : `${signed(-shavedG(store.build!), 2)} g so far`))
/** Where the best there is leaves the craft, while no plan gets there. */
const bestWords = computed(() => {
  const last = steps.value.at(-1)
  const binding = last?.binding
  return binding
    ? `It comes to ${fixed(last.massG, 2)} g: ` +
      `${headroomWords(binding.headroomG, coverageFactor95 * last.sigmaG)}, where ` +
      `${fixed(binding.guardG, 2)} g are wanted to be sure.`
    : ''
})
const stepsWords = (count: number) =>
  `${['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'][count] ?? count} ${count === 1 ? 'step' : 'steps'}`
const sentence = computed(() => {
  if (failure.value) return failure.value
  if (!plan.value) return busy.value ? 'working it out…' : ''
  const { status, shortfallG, dearerBy } = plan.value
  if (chosen.value) return `another point: ${stepsWords(steps.value.length)}, ${costWords(chosen.value.plan)}`
  if (status === 'given up') return 'No plan was found in the time given.'
  if (status === 'contradiction')
    return plan.value.between === 'caps'
      ? 'What is planned or locked in goes beyond the caps: loosen a cap, or let one go.'
      : 'What is planned or locked in, needed and excluded contradicts itself: let one of them go.'
  if (status === 'open lines')
    return `No plan is clear while nobody has said what ${(plan.value.openLines ?? []).join(', ')} ` +
      `${plan.value.openLines?.length === 1 ? 'weighs' : 'weigh'}. Type it in Parts.`
  if (status === 'nothing to do' && goal.value.kind === 'clear' && neededG.value === null)
    return store.overview?.binding
      ? 'Nothing that flies yet: put the parts in, or say how many grams.'
      : 'No limit is chosen: choose one in Aim, or say how many grams.'
  if (status === 'nothing to do')
    return goal.value.kind === 'put on'
      ? 'Nothing on the list could be put on and stay clear.'
      : 'Nothing has to come off.'
  if (status === 'none' && goal.value.kind === 'put on')
    return `It misses being clear by ${fixed(shortfallG, 2)} g as it is: nothing can be put on.`
  if (status === 'none')
    return `Everything on the list still misses by ${fixed(shortfallG, 2)} g. This comes nearest. ${bestWords.value}`.trim()
  const words = `The plan: ${stepsWords(steps.value.length)}, ${costWords(plan.value)}.`
  return status === 'unproven'
    ? `${words} At most ${fixed(list.value.spare === 'cents' ? dearerBy / 100 : dearerBy, 2)} dearer than the best possible.`
    : words
})

const draft = reactive({ what: '', grams: '', kind: 'other' as ShavingKind })
const draftProblems = ref<FieldProblems>({})
const problem = ref('')
const what = useTemplateRef<InputInstance>('what')
function add() {
  const named = nameSchema('What is done').safeParse(draft.what.trim())
  const grams = draft.grams.trim() === '' ? { value: 0 } : readNumber(withoutUnit(draft.grams, 'g'))
  const wrongGrams = isNotRead(grams)
    ? `Grams off: ${grams.problem}`
    : Math.abs(grams.value) > 1000
      ? 'Grams off are from −1000 to 1000.'
      : undefined
  draftProblems.value = { what: named.success ? undefined : named.error.issues[0]!.message, grams: wrongGrams }
  if (wrongGrams !== undefined || !named.success || isNotRead(grams)) return
  const shaving = makeShaving({
    id: newId(),
    what: named.data,
    kind: draft.kind,
    gramsG: draft.kind === 'put on' ? -Math.abs(grams.value) : grams.value,
  })
  if (!store.run({ type: 'shaving.put', shaving })) return
  Object.assign(draft, { what: '', grams: '' })
  selectedId.value = shaving.id
}
/** Suggestions stay beside the list while they are wanted: each change of the ledger or the list makes them anew. */
const route = useRoute()
const router = useRouter()
const drawer = useDrawerStore()
const scales = useScalesStore()
onMounted(() => {
  if (!scales.loaded) scales.load().catch(() => undefined)
})
const suggesting = computed(() => route.query.suggest !== undefined)
const suggestions = shallowRef<readonly Suggestion[] | null>(null)
function toggleSuggestions() {
  void router.replace({ query: { ...route.query, suggest: suggesting.value ? undefined : '1' } })
}
watch(
  suggesting,
  wanted => {
    if (wanted && !drawer.loaded)
      drawer.load().catch(() => {
        problem.value = 'The drawer could not be looked at: only the build itself suggests.'
      })
  },
  { immediate: true },
)
watchDebounced(
  [
    suggesting,
    () => store.build?.lines,
    () => store.build?.shave,
    () => store.build?.fit,
    () => store.choice,
    () => goal.value.kind,
    () => drawer.parts,
    () => drawer.placements,
  ],
  () => {
    suggestions.value = suggesting.value
      ? suggestShavings({
          build: store.build!,
          choice: store.choice,
          estimates: store.estimates,
          gear: settings.value.gear,
          parts: drawer.parts,
          placements: drawer.placements,
          puttingOn: goal.value.kind === 'put on',
          lessons: lessonsFor(flown, store.build!.id),
          newId,
        })
      : null
  },
  { debounce: 60, immediate: true },
)
function takeUp({ candidate, shaving }: Suggestion) {
  if (candidate && !store.run({ type: 'lines.add', lines: [candidate], beforeId: null })) return
  store.run({ type: 'shaving.put', shaving })
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
  const now = plan.value
  if (!now || turned.value?.id !== selectedId.value) return busy.value ? 'working it out…' : ''
  const { plan: then } = turned.value!
  if (then.status === 'none') return `No plan then: it would miss by ${fixed(then.shortfallG, 2)} g.`
  if (then.status === 'contradiction') return 'No plan then: it contradicts what is planned, locked, needed or capped.'
  if (then.status === 'given up') return 'No plan was found in the time given.'
  const against = [
    [`${signed((then.cents - now.cents) / 100, 2)} ${settings.value.currency}`, then.cents - now.cents],
    [`${signed(then.minutes - now.minutes, 0)} minutes`, then.minutes - now.minutes],
    [`${signed(then.loss - now.loss, 0)} given up`, then.loss - now.loss],
  ] as const
  const differs = against.filter(([, by]) => by !== 0).map(([words]) => words)
  return `${stepsWords(then.steps.length)}: ${then.steps.map(step => step.shaving.what).join(', ')}. ` +
    `${differs.length > 0 ? `${differs.join(', ')} against the plan.` : 'It costs the same.'}`
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

/** The step whose real grams are asked for; the forecast stands until it is weighed. */
const doing = ref<string | null>(null)
const doingProblem = ref('')
function begin(shaving: Shaving) {
  doing.value = shaving.id
  doingProblem.value = ''
}
const overWords = ({ line, lineG }: { line: Line; lineG: number }, gramsG: number) =>
  `${fixed(gramsG, 2)} g cannot come off ${lineTitle(line)}: it weighs ${fixed(lineG, 2)} g.`
/** Why a shaving is in no plan although it touches a line. */
function leftOutWords(shaving: Shaving): string {
  const over =
    effectOf(store.build!, shaving).kind === 'grams' &&
    takesTooMuch(store.build!, shaving, line => store.estimates.before(line), shaving.gramsG)
  return over ? ` · left out: ${overWords(over, shaving.gramsG)}` : ''
}
const today = () => localDay()
/** By the scale at hand where what was typed has its steps; else by two of its last digits, from a scale nobody knows. */
function realSpreadG(shaving: Shaving, { grams, stepG }: { grams: number; stepG: number }): number {
  const line = store.build!.lines.find(l => l.id === shaving.lineId)
  const { ready } = scales
  if (!ready || !line?.mass || Math.abs(stepG - ready.scale.resolutionG) > 1e-9) return Math.max(0.03, 2 * stepG)
  return Number(differenceSpreadG(ready, store.estimates.before(line).valueG, grams).toFixed(3))
}
function doIt(shaving: Shaving, real: { grams: number; stepG: number } | null, leadMm: number | null) {
  const off =
    real === null
      ? { gramsG: shaving.gramsG, spreadG: shaving.spreadG, weighed: false, on: today() }
      : { gramsG: real.grams, spreadG: realSpreadG(shaving, real), weighed: true, on: today() }
  const over =
    real && takesTooMuch(store.build!, shaving, line => store.estimates.before(line), real.grams, off.spreadG)
  doingProblem.value = over ? overWords(over, real.grams) : ''
  if (over) return
  const mass = massAfter(
    store.build!,
    shaving,
    line => store.estimates.before(line),
    off,
    () => newId(),
  )
  if (
    store.run({
      type: 'shaving.do',
      id: shaving.id,
      mass,
      realG: real?.grams ?? null,
      on: today(),
      gramsG: Number(offOf(shaving).toFixed(3)),
      ...(leadMm === null ? {} : { leadMm }),
    })
  )
    doing.value = null
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
function spare(measure: CostMeasure) {
  store.run({ type: 'shave.set', fields: { spare: measure } })
}
function cap(key: 'cents' | 'minutes' | 'loss', event: Event) {
  const text = (event.target as HTMLInputElement).value.trim()
  const read = text === '' ? { value: null } : key === 'cents' ? readCents(text) : readNumber(text)
  if ('problem' in read) {
    problem.value = read.problem
    return
  }
  const value = 'cents' in read ? read.cents : read.value
  if (value !== null && value < 0) {
    problem.value = 'A cap is zero or more.'
    return
  }
  problem.value = ''
  store.run({ type: 'shave.set', fields: { caps: { ...list.value.caps, [key]: value } } })
}
function aimAt(kind: 'clear' | 'dry' | 'put on') {
  goal.value = kind === 'dry' ? { kind, gramsG: store.build!.aim.goalDryG! } : { kind }
}
function setGoal(event: Event) {
  const text = (event.target as HTMLInputElement).value.trim()
  const read = text === '' ? null : readNumber(withoutUnit(text, 'g'))
  if (read && (isNotRead(read) || read.value < 0 || read.value > 1000)) {
    problem.value = isNotRead(read) ? read.problem : 'Grams to take off are from 0 to 1000.'
    return
  }
  problem.value = ''
  goal.value = read && !isNotRead(read) ? { kind: 'grams', gramsG: read.value } : { kind: 'clear' }
}
/** What a shaving takes off the loadout looked at, by the ledger. */
function offOf(shaving: Shaving): number {
  const step = steps.value.find(s => s.shaving.id === shaving.id)
  if (step) return step.offG
  return usable.value.has(shaving.id) ? takesOffG(store.build!, shaving, store.choice, store.estimates) : shaving.gramsG
}
const centsOf = (shaving: Shaving) => shavingCents(store.build!, shaving, slipFactorOf[settings.value.hand])
/** It is known what it touches, but not what it takes off. */
const isOpen = (shaving: Shaving) =>
  !hasGrams(store.build!, shaving) &&
  shaving.gramsG === 0 &&
  shaving.candidateId === null &&
  shaving.kind !== 'leave off'
const loses = (shaving: Shaving) =>
  [
    shaving.kind === 'put on' ? `brings ${shaving.gain} of 5` : '',
    shaving.loss > 0 ? `gives up: ${shaving.lossWord}` : '',
    shaving.forGood ? 'cannot be undone' : '',
  ]
    .filter(Boolean)
    .join(' · ')
useSingleKeys({
  new: () => what.value?.focus(),
  tick: () => {
    if (steps.value[0]) begin(steps.value[0].shaving)
  },
})
</script>

<template>
  <div class="station">
    <main class="worksheet">
      <div class="station-head">
        <h1>Shave</h1><span class="soft say">{{
          goal.kind === 'put on'
            ? 'what is worth putting on while it stays clear'
            : goal.kind === 'clear'
              ? `to Clear at ${fixed(store.build!.aim.confidence * 100, 0)} %`
              : goal.kind === 'dry'
                ? `to ${fixed(goal.gramsG, 1)} g dry`
                : `${fixed(goal.gramsG, 1)} g off${done.length > 0 ? `, ${fixed(shavedG(store.build!), 2)} of them done` : ''}`
        }},
          {{ list.everyLoadout ? 'every loadout flown' : loadoutName(store.build!, store.choice) }}, sparing
          {{ measureNames[list.spare] }} first</span><span class="gap" /><el-button
          :aria-pressed="suggesting"
          @click="toggleSuggestions"
        >
          Suggest from the ledger
        </el-button>
      </div>
      <StationSays page="shave" />
      <el-form
        class="new"
        @submit.prevent="add"
      >
        <FormField
          class="what"
          label=""
          :problem="draftProblems.what"
        >
          <el-input
            ref="what"
            v-model="draft.what"
            placeholder="What could be shaved?"
            aria-label="What is done"
          />
        </FormField><PickOne
          v-model="draft.kind"
          label="Kind"
          :options="shavingKinds"
        /><FormField
          class="grams"
          label=""
          :problem="draftProblems.grams"
        >
          <el-input
            v-model="draft.grams"
            class="figure"
            inputmode="decimal"
            :placeholder="draft.kind === 'put on' ? 'grams on' : 'grams off'"
            aria-label="Grams off"
          />
        </FormField><el-button
          type="primary"
          native-type="submit"
        >
          New shaving <KeyHint does="new" />
        </el-button>
      </el-form>
      <p
        v-if="problem"
        class="problem"
        role="alert"
      >
        {{ problem }}
      </p>
      <section
        v-if="suggestions"
        class="suggest"
        aria-label="Suggestions"
      >
        <p
          v-if="suggestions.length === 0"
          class="soft"
        >
          {{
            goal.kind === 'put on'
              ? 'The ledger suggests nothing to put on: no line that is off, no heavier candidate or pack.'
              : 'The ledger suggests nothing more: no lighter candidate or pack, no fitting, no lead longer than its way.'
          }}
        </p>
        <p
          v-for="s in suggestions"
          :key="s.shaving.id"
        >
          <el-button
            link
            type="primary"
            @click="takeUp(s)"
          >
            Put on the list
          </el-button> {{ s.shaving.what }}
          <b class="figure">{{ signed(-s.shaving.gramsG, 2) }}</b> <span class="soft">{{ s.because }}</span>
        </p>
      </section>

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
                    [loses(step.shaving), gramPriceWords(step.cents, step.priced, step.offG)]
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
                    loses(shaving),
                    gramPriceWords(centsOf(shaving), isPriced(store.build!, shaving), offOf(shaving)),
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
        <h2>What to spare</h2>
        <el-radio-group
          class="stacked"
          :model-value="list.spare"
          aria-label="What to spare"
          @change="spare($event as typeof list.spare)"
        >
          <el-radio
            v-for="(name, measure) in measureNames"
            :key="measure"
            :value="measure"
          >
            {{ name }}
          </el-radio>
        </el-radio-group>
        <h3>The goal</h3>
        <el-radio-group
          class="stacked"
          :model-value="goal.kind === 'grams' ? 'clear' : goal.kind"
          aria-label="The goal"
          @change="aimAt($event as 'clear' | 'dry' | 'put on')"
        >
          <el-radio value="clear">
            take off what is too much
          </el-radio>
          <el-radio
            v-if="store.build!.aim.goalDryG !== null"
            value="dry"
          >
            the dry mass aimed at, {{ fixed(store.build!.aim.goalDryG, 1) }} g
          </el-radio>
          <el-radio value="put on">
            put on what is worth it
          </el-radio>
        </el-radio-group>
        <el-checkbox
          :model-value="list.everyLoadout"
          @change="store.run({ type: 'shave.set', fields: { everyLoadout: !list.everyLoadout } })"
        >
          every loadout that is flown
        </el-checkbox>
        <label
          v-if="goal.kind === 'clear' || goal.kind === 'grams'"
          class="field"
        >Or just so many grams<EditField
          :value="goal.kind === 'grams' ? goal.gramsG : ''"
          placeholder="until Clear"
          inputmode="decimal"
          class="figure"
          aria-label="Grams to take off"
          @change="setGoal"
        /></label>
        <h3>At most</h3>
        <div class="fields">
          <label class="field">Money<EditField
            :value="list.caps.cents === null ? '' : centsFigure(list.caps.cents)"
            class="figure"
            inputmode="decimal"
            aria-label="Most money"
            @change="cap('cents', $event)"
          /></label><label class="field">Minutes<EditField
            :value="list.caps.minutes ?? ''"
            class="figure"
            inputmode="decimal"
            aria-label="Most minutes"
            @change="cap('minutes', $event)"
          /></label><label class="field">Given up, in all<EditField
            :value="list.caps.loss ?? ''"
            class="figure"
            inputmode="decimal"
            aria-label="Most given up"
            @change="cap('loss', $event)"
          /></label>
        </div>
        <template v-if="others.length > 0">
          <h3>What else nearly works</h3><p
            v-for="(other, i) in others"
            :key="i"
          >
            {{ costWords(other) }}: <span class="soft">{{ other.steps.map(s => s.shaving.what).join(', ') }}</span>
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
.new {
  display: flex;
  align-items: start;
  gap: 6px;
  margin-bottom: 8px;
  flex-wrap: wrap;
}
.new .what {
  flex: 1;
  min-width: 200px;
}
.grams {
  width: 104px;
}
.grams.is-error {
  width: 230px;
}
.suggest {
  background: var(--paper);
  border-radius: 8px;
  padding: 6px 12px;
  margin-bottom: 8px;
}
.suggest p {
  margin: 2px 0;
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
  .new .what {
    flex-basis: 100%;
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
