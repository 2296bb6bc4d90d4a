<script setup lang="ts">
import { openShavings, shavedG, shaveListOf, type PlanStep } from '#core/deciding/shave'
import { loadoutName } from '#core/mass/loadout'
import type { FrontierPoint } from '~/workers/shave.worker'

const store = useBuildStore()
const { settings } = storeToRefs(useSettingsStore())
const { goal, withFrontier, plan, others, frontier, turned, busy, progress, failure, askTurned, goOn, stop } =
  useShavePlan()
/** What is said where working out was ended. */
const stopped = 'Stopped. The list is as it was.'
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

const neededG = computed(() => {
  const binding = store.overview?.binding?.verdict
  if (goal.value.kind === 'dry') return Math.max(0, store.overview!.dry.valueG - goal.value.gramsG)
  return goal.value.kind === 'grams'
    ? Math.max(0, goal.value.gramsG - shavedG(store.build!))
    : binding
      ? Math.max(0, store.build!.aim.reserveG + binding.guardG - binding.headroomG)
      : null
})
const isAnyDone = computed(() => list.value.shavings.some(s => s.state === 'done'))
const aimedAt = computed(() =>
  goalWords(goal.value, store.build!.aim.confidence, isAnyDone.value ? shavedG(store.build!) : null),
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
    selected.value !== null &&
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
/** Decides on the plan shown: its steps stay in every plan from now on. */
function decide() {
  store.run({ type: 'shavings.plan', ids: steps.value.map(step => step.shaving.id) })
}
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
        <ShaveTable
          v-model:selected-id="selectedId"
          :steps="steps"
          :usable="usable"
          :goal-kind="goal.kind"
          :busy="busy"
        >
          <template #sentence>
            {{ sentence }} <el-button
              v-if="busy"
              link
              type="primary"
              @click="stop(stopped)"
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
          </template>
        </ShaveTable>
      </div>
      <TwoSchools />
    </main>
    <aside
      class="inspector"
      aria-label="Inspector"
    >
      <ShavingInspector
        v-if="selected"
        :shaving="selected"
        :is-in-plan="inPlan.has(selected.id)"
        :can-be-turned="canBeTurned"
        :is-turned="turned?.id === selected.id"
        :turned-words="turnedWords"
        :busy="busy"
        @ask="askTurned(selected.id, $event)"
        @close="selectedId = null"
      />
      <template v-else>
        <ShaveGoals v-model:goal="goal" />
        <PlanBeside
          v-model:with-frontier="withFrontier"
          v-model:chosen="chosen"
          :others="others"
          :frontier="frontier"
          :needed-g="neededG"
          :measure="list.spare"
          :progress="progress"
          :currency="settings.currency"
          @stop="stop(stopped)"
        />
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
@media screen and (max-width: 760px) {
  .station-head .gap {
    display: none;
  }
}
</style>
