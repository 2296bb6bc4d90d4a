<script setup lang="ts">
import { styles, type Style } from '#core/aircraft/power'
import { makeFlight, type FlightFinding, type Flight } from '#core/aircraft/flown'
import { minutesBand } from '#core/text/display'
import { flightTimeWords } from '#core/text/units'
import type { FieldReply } from '#shared/schemas/field'
import type { QueuedKeptChanges } from '~/queue/overlay'

useHead({ title: 'In the field · Jolly Gram' })

const edits = useEditsStore()
const kit = shallowRef<FieldReply | null>(null)
const problem = ref('')
async function load() {
  problem.value = ''
  try {
    kit.value = await askServer<FieldReply>('/api/field')
  } catch (error) {
    // What was loaded before goes on serving.
    if (!kit.value) problem.value = sentenceOf(error)
  }
}
onMounted(load)

const buildId = useLocalStorage('field-build', '')
const loadoutKeys = useLocalStorage<Record<string, string>>('field-loadouts', {})
const styleOf = useLocalStorage<Record<string, Style>>('field-styles', {})
/** Those with a pack to fly on: what has none cannot be noted there. */
const flyable = computed(() => kit.value?.builds.filter(({ loadouts }) => loadouts.length > 0) ?? [])
const build = computed(() => flyable.value.find(({ id }) => id === buildId.value) ?? flyable.value[0] ?? null)
const loadout = computed(() => {
  if (!build.value) return null
  const { loadouts, flies, id } = build.value
  const wanted = loadoutKeys.value[id] ?? flies
  return loadouts.find(({ key }) => key === wanted) ?? loadouts[0] ?? null
})
const style = computed<Style>(() => (build.value ? (styleOf.value[build.value.id] ?? build.value.style) : 'cruise'))
const minutes = computed(() => loadout.value?.minutes[style.value] ?? null)

const kept = useLocalStorage('field-clock', '')
const clock = computed(() => readClock(kept.value))
/** Seconds go on by the machine's own clock: a screen that slept shows the right time when it wakes. */
const nowMs = useTimestamp({ interval: 200 })
const seconds = computed(() => secondsOf(clock.value, nowMs.value))
function press(what: FieldPress) {
  kept.value = JSON.stringify(pressed(clock.value, what, Date.now()))
}
const warnedS = computed(() =>
  clock.value.phase !== 'before' && clock.value.warnedMs !== null
    ? (clock.value.warnedMs - clock.value.startedMs) / 1000
    : null,
)

const waiting = computed(() => edits.states.find(({ document }) => document === 'flights')?.waiting ?? 0)
const footWords = computed(() => {
  if (waiting.value === 1) return 'One flight waits on this phone and is sent when the server answers.'
  if (waiting.value > 1) return `${waiting.value} flights wait on this phone and are sent when the server answers.`
  return (
    'Ready for the field: flights of every build can be noted without the server. ' +
    'Opened anew, the page needs it; what was noted stays.'
  )
})

/** Flights of a build that wait here: they are counted on top of those the server has. */
function waitingOf(id: string): number {
  return edits.queue
    .pending('flights')
    .flatMap(edit => (edit.payload as QueuedKeptChanges).changes)
    .filter(({ kind, set }) => kind === 'flight' && set?.buildId === id).length
}
const number = computed(() => {
  void edits.states
  return build.value ? build.value.flights + waitingOf(build.value.id) + 1 : 1
})
// What has arrived counts among those the server has.
onBeforeUnmount(
  edits.listen({
    accepted(document) {
      if (document === 'flights') void load()
    },
  }),
)
const told = ref('')
async function keep(more: Partial<Flight>, finding: FlightFinding | null): Promise<string> {
  const { value: now } = clock
  if (now.phase !== 'landed' || !build.value || !loadout.value) return 'Nothing has landed yet.'
  const flight = makeFlight({
    id: newId(),
    buildId: build.value.id,
    flownAt: localMoment(new Date(now.startedMs)),
    style: style.value,
    durationS: Math.round(seconds.value),
    stepS: 1,
    firstWarningS: warnedS.value === null ? null : Math.round(warnedS.value),
    snapshot: loadout.value.snapshot,
    ...more,
  })
  const words = `Flight ${number.value} of ${build.value.name} is noted: ${flightTimeWords(flight.durationS)}.`
  const sentence = await keepFieldFlight(edits, flight, finding)
  if (sentence !== '') return sentence
  told.value = words
  press('done')
  return ''
}
const restWords = computed(() => {
  if (!minutes.value) return ''
  const rests = build.value!.restsOn
  const says = rests === 0 ? 'Before any flight' : rests === 1 ? 'One flight says' : `${rests} flights say`
  return `${says} ${minutesBand(minutes.value.low, minutes.value.high)}. Go by the warning.`
})
</script>

<template>
  <main class="field-page">
    <p
      v-if="problem"
      class="note"
      role="alert"
    >
      {{ problem }} <el-button @click="load">
        Try again
      </el-button>
    </p>
    <PageWaits
      v-else-if="!kit"
      words="What the field needs is on its way"
    />
    <p
      v-else-if="!build || !loadout"
      class="empty"
    >
      {{ kit.builds.length === 0 ? 'There is no build to fly yet.' : 'No build has a pack to fly on: add one in Packs.' }}
      <NuxtLink to="/">Shelf</NuxtLink>
    </p>
    <template v-else>
      <FieldBefore
        v-if="clock.phase === 'before'"
        :builds="flyable"
        :build
        :loadout
        :style
        :styles
        :told
        :minutes
        @build="buildId = $event"
        @loadout="loadoutKeys = { ...loadoutKeys, [build!.id]: $event }"
        @style="styleOf = { ...styleOf, [build!.id]: $event }"
        @go="press('go')"
      />
      <FieldAir
        v-else-if="clock.phase === 'air'"
        :seconds
        :warned-s="warnedS"
        :minutes
        :reserve="loadout.snapshot.craft?.reservePercent ?? null"
        :words="restWords"
        :title="`${build.name}, ${loadout.setup} · ${loadout.pack}`"
        @press="press"
      />
      <FieldLanded
        v-else
        :seconds
        :warned-s="warnedS"
        :minutes
        :number
        :build-id="build.id"
        :cells="loadout.snapshot.pack?.cells ?? null"
        :landed-at="localMoment(new Date(clock.startedMs))"
        :keep
        @press="press"
      />
      <p
        class="foot"
        :class="{ waits: waiting > 0 }"
        role="status"
      >
        {{ footWords }}
      </p>
    </template>
  </main>
</template>

<style scoped>
.field-page {
  width: 100%;
  max-width: 520px;
  margin: 0 auto;
  padding: 14px 18px calc(18px + env(safe-area-inset-bottom));
  display: flex;
  flex-direction: column;
  gap: 12px;
  min-height: calc(100dvh - 60px);
  font-size: 16px;
}
.foot {
  margin: auto 0 0;
  padding-left: 22px;
  position: relative;
  font-size: 14px;
  color: var(--ink-soft);
}
.foot::before {
  content: '';
  position: absolute;
  left: 0;
  top: 4px;
  width: 10px;
  height: 10px;
  border-radius: 50%;
  background: var(--clear);
}
.waits::before {
  border-radius: 0;
  background: none;
  border: 2px solid var(--close);
}
.empty {
  padding: 40px 0;
  text-align: center;
}
</style>
