<script setup lang="ts">
import { packLabel } from '#core/model/ledger'
import { packLines } from '#core/mass/loadout'
import { flightsCsv, readFlightsCsv, type FlightRows } from '#shared/files/flights-csv'

/** Flights as a list for a spreadsheet, and from one. */
const emit = defineEmits<{ taken: [id: string] }>()
const store = useBuildStore()
const flights = useFlightsStore()
const { snapshot, plan } = useFlying()
const problem = ref('')
const read = shallowRef<FlightRows | null>(null)

function keep() {
  saveFile(`${store.build!.name} flights.csv`, flightsCsv(flights.flights, flights.worked), 'text/csv')
}
async function bring(file: File) {
  problem.value = ''
  read.value = null
  if (file.size > 8_000_000) {
    problem.value = `${file.name} is over 8 MB: that is no list of flights. Nothing was taken in.`
    return
  }
  const build = store.build!
  const rows = readFlightsCsv(await file.text(), {
    buildId: build.id,
    packs: packLines(build).map(line => ({ id: line.id, label: packLabel(line) })),
    setups: build.setups,
    usualSetupId: store.choice.setupId,
    usualStyle: plan.value.style,
    snapshot,
    newId,
  })
  if ('problem' in rows) problem.value = `${file.name}: ${rows.problem} Nothing was taken in.`
  else read.value = rows
}
async function take() {
  const some = read.value!.flights
  problem.value = await flights.putFlights(some)
  if (problem.value !== '') return
  read.value = null
  emit('taken', some.at(-1)!.id)
}
const countWords = (count: number) => (count === 1 ? 'one flight' : `${count} flights`)
</script>

<template>
  <div class="lists no-print">
    <el-button
      v-if="flights.flights.length > 0"
      @click="keep"
    >
      Keep as CSV
    </el-button>
    <FileChoose
      words="From a list (CSV)"
      accept=".csv,.txt,text/csv"
      @file="bring"
    />
  </div>
  <section
    v-if="read"
    class="note"
    aria-label="A list of flights"
  >
    <p>
      {{ read.flights.length === 0 ? 'No row of it can be a flight.' : `It has ${countWords(read.flights.length)}.` }}
      The craft of each is taken as it is now, revision {{ store.revision }}.
    </p>
    <ul v-if="read.refused.length > 0">
      <li
        v-for="{ row, sentence } in read.refused.slice(0, 12)"
        :key="row"
      >
        Row {{ row }}: {{ sentence }}
      </li>
      <li v-if="read.refused.length > 12">
        and {{ read.refused.length - 12 }} more that cannot be flights
      </li>
    </ul>
    <el-button
      v-if="read.flights.length > 0"
      type="primary"
      @click="take"
    >
      Take {{ countWords(read.flights.length) }} in
    </el-button><el-button @click="read = null">
      Leave it
    </el-button>
  </section>
  <p
    v-if="problem"
    class="problem"
    role="alert"
  >
    {{ problem }}
  </p>
</template>

<style scoped>
.lists {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin: 12px 0 8px;
}
</style>
