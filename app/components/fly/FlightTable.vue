<script setup lang="ts">
import { mostMinutes, type FlightFinding, type Flight, type WorkedFlight } from '#core/aircraft/flown'
import { minutesBand, minutesFigure } from '#core/text/display'
import { flightTimeWords, isNotRead, readFlightTime } from '#core/text/units'

/** Flights as rows, newest first: what is known of each can be typed where it stands. */
const { flights, worked, findings, selectedId } = defineProps<{
  flights: readonly Flight[]
  worked: ReadonlyMap<string, WorkedFlight>
  findings: readonly FlightFinding[]
  selectedId: string | null
}>()
const emit = defineEmits<{ select: [id: string] }>()
const { put } = useFlying()

/** So many rows stand at once; older ones are asked for. */
const page = 40
const shownCount = ref(page)
const numbered = computed(() => flights.map((flight, i) => ({ flight, number: i + 1 })).reverse())
const rows = computed(() => numbered.value.slice(0, shownCount.value))
const foundOn = computed(() => {
  const found = new Map<string, FlightFinding>()
  for (const finding of findings) {
    const before = finding.flightId === null ? undefined : found.get(finding.flightId)
    if (finding.flightId !== null && (!before || finding.severity > before.severity)) found.set(finding.flightId, finding)
  }
  return found
})

const problem = shallowRef<{ id: string; field: string; sentence: string } | null>(null)
const problemOf = (id: string, field: string) =>
  problem.value?.id === id && problem.value.field === field ? problem.value.sentence : ''
async function change(flight: Flight, field: string, fields: Partial<Flight> | { problem: string }) {
  const sentence = 'problem' in fields ? (fields.problem as string) : (await put({ ...flight, ...fields })).problem
  problem.value = sentence === '' ? null : { id: flight.id, field, sentence }
}
const textOf = (event: Event) => (event.target as HTMLInputElement).value
function changeTime(flight: Flight, event: Event) {
  const time = readFlightTime(textOf(event), mostMinutes)
  void change(flight, 'time', isNotRead(time) ? time : { durationS: time.seconds, stepS: time.stepS })
}
function changeLanding(flight: Flight, event: Event) {
  const read = readLanding(textOf(event), flight.snapshot.pack?.cells, flight.landing)
  void change(flight, 'landing', 'problem' in read ? read : { landing: read.value })
}
function changePutBack(flight: Flight, event: Event) {
  const read = readOptional(textOf(event), 'mAh')
  void change(flight, 'putBack', 'problem' in read ? read : { putBackMah: read.value })
}

/** Up and down go to the same field of the next row. */
const table = useTemplateRef<HTMLElement>('table')
function step(event: KeyboardEvent, by: number) {
  const field = event.target as HTMLInputElement
  const cell = field.closest('td')
  const row = cell?.parentElement
  if (!cell || !row || !table.value) return
  const all = [...table.value.querySelectorAll('tbody tr')]
  const next = all[all.indexOf(row) + by]?.children[cell.cellIndex]?.querySelector('input')
  if (!next) return
  event.preventDefault()
  next.focus()
  next.select()
}
</script>

<template>
  <table
    ref="table"
    v-stacks
    class="flights answers-table"
    aria-label="Flights"
    @keydown.up="step($event, -1)"
    @keydown.down="step($event, 1)"
  >
    <thead>
      <tr>
        <th
          scope="col"
          class="right"
        >
          <span class="visually-hidden">Number</span>
        </th>
        <th scope="col">
          Day
        </th>
        <th scope="col">
          Pack
        </th>
        <th scope="col">
          Flown
        </th>
        <th scope="col">
          Landed, V
        </th>
        <th scope="col">
          mAh back
        </th>
        <th
          scope="col"
          class="right"
        >
          <TermTip word="Reserve kept" />
        </th>
        <th
          scope="col"
          class="right"
        >
          Forecast
        </th>
        <th scope="col">
          Says
        </th>
        <th scope="col">
          Found
        </th>
      </tr>
    </thead>
    <tbody>
      <tr
        v-for="{ flight, number } in rows"
        :key="flight.id"
        :class="{ selected: flight.id === selectedId }"
        @click="emit('select', flight.id)"
        @focusin="emit('select', flight.id)"
      >
        <td class="right figure soft">
          {{ number }}
        </td>
        <td class="day">
          {{ flightDay(flight.flownAt) }}
        </td>
        <td class="pack">
          {{ flight.snapshot.pack?.label ?? '–' }}
        </td>
        <td>
          <EditField
            :value="flightTimeWords(flight.durationS)"
            class="figure"
            :aria-label="`Flight ${number}: flown`"
            :aria-invalid="problemOf(flight.id, 'time') !== ''"
            @change="changeTime(flight, $event)"
          />
        </td>
        <td>
          <EditField
            :value="landingText(flight.landing)"
            class="figure"
            :aria-label="`Flight ${number}: landed with, V`"
            :aria-invalid="problemOf(flight.id, 'landing') !== ''"
            @change="changeLanding(flight, $event)"
          />
        </td>
        <td>
          <EditField
            :value="flight.putBackMah"
            class="figure"
            :aria-label="`Flight ${number}: put back, mAh`"
            :aria-invalid="problemOf(flight.id, 'putBack') !== ''"
            @change="changePutBack(flight, $event)"
          />
        </td>
        <td class="right figure">
          {{ worked.get(flight.id)?.toReserve == null ? '–' : minutesFigure(worked.get(flight.id)!.toReserve!) }}
        </td>
        <td class="right figure soft">
          <template v-if="worked.get(flight.id)?.expected">
            {{ minutesBand(worked.get(flight.id)!.expected!.low, worked.get(flight.id)!.expected!.high).replace(' min', '') }}
          </template>
          <template v-else>
            –
          </template>
        </td>
        <td>
          <el-button
            link
            :class="`says-${agreement(worked.get(flight.id)).tone}`"
            :aria-label="`Flight ${number}: ${agreement(worked.get(flight.id)).word}`"
            @click="emit('select', flight.id)"
          >
            {{ agreement(worked.get(flight.id)).word }}
          </el-button>
        </td>
        <td class="found">
          <template v-if="foundOn.get(flight.id)">
            <SeverityDots :severity="foundOn.get(flight.id)!.severity" />
            {{ foundOn.get(flight.id)!.kind }}{{ foundOn.get(flight.id)!.goneAt ? ', gone' : '' }}
          </template>
        </td>
      </tr>
    </tbody>
  </table>
  <p
    v-if="problem"
    class="problem"
    role="alert"
  >
    {{ problem.sentence }} Nothing was changed.
  </p>
  <el-button
    v-if="numbered.length > shownCount"
    link
    type="primary"
    @click="shownCount += page"
  >
    {{ numbered.length - shownCount }} earlier
  </el-button>
</template>

<style scoped>
.flights :deep(.el-input) {
  width: 74px;
  height: 26px;
}
.flights :deep(.el-input__wrapper) {
  padding: 0 6px;
  box-shadow: 0 0 0 1px transparent inset;
  background: transparent;
}
.flights :deep(.el-input__wrapper:hover) {
  box-shadow: 0 0 0 1px var(--line) inset;
}
.flights :deep(.el-input__wrapper.is-focus) {
  box-shadow: 0 0 0 1.5px var(--plum-text) inset;
  background: var(--card);
}
.flights :deep([aria-invalid='true'] .el-input__wrapper) {
  box-shadow: 0 0 0 1.5px var(--over) inset;
}
tr.selected {
  background: var(--selection);
  box-shadow: inset 3px 0 var(--plum-text);
}
.day,
.pack {
  white-space: nowrap;
}
.found {
  font-size: 12px;
  color: var(--ink-soft);
}
.says-clear {
  color: var(--clear);
}
.says-over {
  color: var(--over);
}
.says-none {
  color: var(--ink-soft);
}
@media screen and (max-width: 760px) {
  .flights :deep(.el-input) {
    width: 110px;
    height: 44px;
  }
}
</style>
