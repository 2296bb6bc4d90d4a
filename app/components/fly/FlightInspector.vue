<script setup lang="ts">
import { mostMinutes, type Flight, type WorkedFlight } from '#core/aircraft/flown'
import { styles, type Style } from '#core/aircraft/power'
import { fixed, gramsFigure, minutesBand, minutesFigure, spreadFigure } from '#core/text/display'
import { coverageFactor95 } from '#core/maths/numbers'
import { flightTimeWords, isNotRead, readFlightTime } from '#core/text/units'

/** One flight: what it says, what is known of it, and everything that can still be told. */
const { flight, number, worked, offer } = defineProps<{
  flight: Flight
  number: number
  worked: WorkedFlight | undefined
  /** Held flights that agree with this one. */
  offer: readonly string[] | null
}>()
const emit = defineEmits<{ found: []; gone: []; log: [] }>()
const store = useBuildStore()
const flights = useFlightsStore()
const { put, packs, snapshot } = useFlying()

const problem = shallowRef({ field: '', sentence: '' })
watch(
  () => flight.id,
  () => {
    problem.value = { field: '', sentence: '' }
  },
)
async function set(field: string, fields: Partial<Flight> | { problem: string }) {
  const sentence = 'problem' in fields ? (fields.problem as string) : (await put({ ...flight, ...fields })).problem
  problem.value = { field, sentence }
}
const problemOf = (field: string) => (problem.value.field === field ? problem.value.sentence : '')
const textOf = (event: Event) => (event.target as HTMLInputElement).value
function setNumber(field: 'putBackMah' | 'loggedMah' | 'windMps' | 'airC', event: Event, unit: string) {
  const read = readOptional(textOf(event), unit)
  void set(field, 'problem' in read ? read : { [field]: read.value })
}
function setWarning(event: Event) {
  const text = textOf(event)
  if (text.trim() === '') return void set('firstWarningS', { firstWarningS: null })
  const time = readFlightTime(text, mostMinutes)
  void set('firstWarningS', isNotRead(time) ? time : { firstWarningS: time.seconds })
}
function setLanding(event: Event) {
  const read = readLanding(textOf(event), flight.snapshot.pack?.cells, flight.landing)
  void set('landing', 'problem' in read ? read : { landing: read.value })
}
function setLoad(event: Event) {
  const read = readOptional(textOf(event), 'A')
  void set('load', 'problem' in read ? read : { landing: { ...flight.landing!, loadA: read.value } })
}
function setTime(event: Event) {
  const text = textOf(event).trim()
  void set('flownAt', { flownAt: `${flight.flownAt.slice(0, 11)}${text.padStart(5, '0')}` })
}
/** Another pack is the craft as it would fly with it now. */
const setPack = (id: string) =>
  set('pack', { snapshot: snapshot({ setupId: flight.snapshot.setupId, packLineId: id || null }) })
async function remove() {
  const sentence = await flights.removeFlight(flight.id)
  if (sentence) problem.value = { field: 'remove', sentence }
  else emit('gone')
}
async function takeInAll() {
  const some = offer!.flatMap(id => flights.flightOf(id) ?? []).map(one => ({ ...one, isTakenIn: true }))
  problem.value = { field: 'takeIn', sentence: await flights.putFlights(some) }
}
const headWords = computed(() => {
  const { flownAt, place, style } = flight
  const where = place === '' ? '' : `, ${place}`
  return `${dayOf(flownAt.slice(0, 10))}, ${flightTime(flownAt)}${where}. ${style.charAt(0).toUpperCase() + style.slice(1)}.`
})
const untaughtWords = computed(() => {
  const why = flight.snapshot.pack ? 'the size of the props was not known then' : 'which pack it flew on is not known'
  return `It counts minutes, and teaches nothing: ${why}.`
})
const charge = computed(() => worked?.used ?? null)
/** What nobody had weighed or said is not told as nothing. */
const weightWords = computed(() => {
  const { auwG, sigmaG } = flight.snapshot
  const spread = coverageFactor95 * sigmaG
  return auwG > 0 ? `${gramsFigure(auwG, spread)} g ± ${spreadFigure(spread)}` : 'not known'
})
const isElsewhere = computed(() => !packs.value.some(({ value }) => value === flight.snapshot.packLineId))
</script>

<template>
  <h2>Flight {{ number }}</h2>
  <p class="soft">
    {{ headWords }}
  </p>
  <p class="big figure">
    {{ flightTimeWords(flight.durationS) }} <small>flown{{ flight.snapshot.pack ? ` on ${flight.snapshot.pack.label}` : '' }}</small>
  </p>
  <p v-if="worked?.toReserve != null">
    Comes to <b>{{ minutesFigure(worked.toReserve) }} min</b> with {{ fixed(flight.snapshot.craft!.reservePercent, 0) }} % kept.
    <template v-if="worked.expected">
      The forecast was {{ minutesBand(worked.expected.low, worked.expected.high) }}: it {{ worked.held ? 'does not agree' : 'agrees' }}.
    </template>
  </p>
  <p
    v-else-if="worked && !worked.held"
    class="note"
  >
    {{ untaughtWords }}
  </p>
  <div
    v-if="worked?.held"
    class="note"
    data-test="held"
  >
    <b>Held.</b> {{ heldSentence(worked) }}
    <p
      v-if="offer"
      class="offer"
    >
      {{ offer.length }} held flights agree among themselves: something has changed since.
    </p>
    <div class="acts">
      <el-button
        v-if="worked.held === 'does not agree'"
        size="small"
        @click="set('takeIn', { isTakenIn: true })"
      >
        Take it in
      </el-button><el-button
        v-if="offer"
        size="small"
        @click="takeInAll"
      >
        Take all {{ offer.length }} in
      </el-button>
    </div>
  </div>
  <p v-else-if="flight.isTakenIn">
    Taken in by you. <el-button
      link
      type="primary"
      @click="set('takeIn', { isTakenIn: false })"
    >
      Judge it as the others
    </el-button>
  </p>

  <dl class="facts">
    <dt>Set-up</dt><dd>{{ flight.snapshot.setup || '–' }}</dd>
    <dt>Weighed</dt><dd>{{ weightWords }}</dd>
    <dt>Ledger</dt><dd>revision {{ flight.snapshot.revision }}</dd>
    <template v-if="charge">
      <dt>Used</dt><dd>{{ fixed(charge.mah, 0) }} ± {{ fixed(coverageFactor95 * charge.uMah, 0) }} mAh</dd>
      <dt>known by</dt><dd class="words">
        {{ chargeFromWords(worked!) }}
      </dd>
    </template>
    <template v-if="worked?.powerW != null">
      <dt>Mean power</dt><dd>{{ fixed(worked.powerW, 0) }} W</dd>
    </template>
  </dl>
  <p
    v-if="worked && chargeAgainstWords(worked)"
    class="note"
  >
    {{ chargeAgainstWords(worked) }}
  </p>

  <h3>What is known of it</h3>
  <el-form
    label-position="top"
    class="known"
    @submit.prevent
  >
    <PickOne
      :model-value="isElsewhere ? '' : flight.snapshot.packLineId ?? ''"
      field="Pack"
      :options="packs"
      :placeholder="flight.snapshot.pack?.label ?? 'not known'"
      @update:model-value="setPack($event)"
    />
    <PickOne
      :model-value="flight.style"
      field="Style"
      :options="styles"
      @update:model-value="set('style', { style: $event as Style })"
    />
    <DayField
      :model-value="flight.flownAt.slice(0, 10)"
      field="Day"
      :latest="localDay()"
      @update:model-value="$event && set('flownAt', { flownAt: `${$event}${flight.flownAt.slice(10)}` })"
    />
    <FormField
      label="Taken off at"
      :problem="problemOf('flownAt')"
    >
      <EditField
        :value="flightTime(flight.flownAt)"
        class="figure"
        placeholder="15:42"
        @change="setTime"
      />
    </FormField>
    <FormField
      label="First warning at"
      :problem="problemOf('firstWarningS')"
    >
      <EditField
        :value="flight.firstWarningS === null ? '' : flightTimeWords(flight.firstWarningS)"
        class="figure"
        placeholder="3:05"
        @change="setWarning"
      />
    </FormField>
    <FormField
      label="Landed with, V"
      :problem="problemOf('landing')"
    >
      <EditField
        :value="landingText(flight.landing)"
        class="figure"
        placeholder="15.2, or 3.8 a cell"
        @change="setLanding"
      />
    </FormField>
    <template v-if="flight.landing">
      <FormField
        label="under load, A"
        :problem="problemOf('load')"
      >
        <EditField
          :value="flight.landing.loadA"
          class="figure"
          placeholder="resting"
          @change="setLoad"
        />
      </FormField>
      <el-checkbox
        :model-value="flight.landing.isFresh"
        class="fresh"
        @update:model-value="set('landing', { landing: { ...flight.landing!, isFresh: $event === true } })"
      >
        in the first minute
      </el-checkbox>
    </template>
    <FormField
      label="Put back, mAh"
      :problem="problemOf('putBackMah')"
    >
      <EditField
        :value="flight.putBackMah"
        class="figure"
        @change="setNumber('putBackMah', $event, 'mAh')"
      />
    </FormField>
    <FormField
      label="Counted on board, mAh"
      :problem="problemOf('loggedMah')"
    >
      <EditField
        :value="flight.loggedMah"
        class="figure"
        @change="setNumber('loggedMah', $event, 'mAh')"
      />
    </FormField>
    <FormField
      label="Wind, m/s"
      :problem="problemOf('windMps')"
    >
      <EditField
        :value="flight.windMps"
        class="figure"
        @change="setNumber('windMps', $event, 'm/s')"
      />
    </FormField>
    <FormField
      label="Air, °C"
      :problem="problemOf('airC')"
    >
      <EditField
        :value="flight.airC"
        class="figure"
        @change="setNumber('airC', $event, '°C')"
      />
    </FormField>
    <FormField
      label="Place"
      class="wide"
      :problem="problemOf('place')"
    >
      <EditField
        :value="flight.place"
        @change="set('place', { place: textOf($event) })"
      />
    </FormField>
    <FormField
      label="Note"
      class="wide"
      :problem="problemOf('note')"
    >
      <EditField
        :value="flight.note"
        type="textarea"
        autosize
        @change="set('note', { note: textOf($event) })"
      />
    </FormField>
  </el-form>
  <p
    v-if="problemOf('remove') || problemOf('pack') || problemOf('takeIn') || problemOf('style')"
    class="problem"
    role="alert"
  >
    {{ problem.sentence }}
  </p>
  <p class="soft small">
    Another pack takes {{ store.build!.name }} as it is now, revision {{ store.revision }}.
  </p>
  <div class="acts">
    <el-button @click="emit('log')">
      {{ flight.logId ? 'Open its log' : 'Bring its log in' }}
    </el-button><el-button @click="emit('found')">
      Found something
    </el-button><el-button @click="remove">
      Delete
    </el-button>
  </div>
</template>

<style scoped>
.big {
  font-size: 30px;
  margin: 6px 0;
}
.big small {
  font-size: 14px;
  color: var(--ink-soft);
}
.known {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px 10px;
  align-items: start;
}
.wide {
  grid-column: 1 / -1;
}
.fresh {
  align-self: end;
  white-space: normal;
}
.words {
  text-align: right;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 8px;
}
.acts :deep(.el-button) {
  margin: 0;
}
.offer {
  margin: 6px 0 0;
}
.small {
  font-size: 12px;
}
</style>
