<script setup lang="ts">
import type { FlightFinding } from '#core/aircraft/flown'

const flights = useFlightsStore()
const route = useRoute()
const router = useRouter()

const views = [
  ['flights', 'Flights'],
  ['findings', 'Findings'],
  ['charts', 'Charts'],
  ['lives', 'Lives'],
  ['log', 'Log'],
  ['settings', 'Settings'],
] as const
const view = computed(() => views.find(([key]) => key === route.query.view)?.[0] ?? 'flights')
const show = (key: string) => router.replace({ query: { ...route.query, view: key === 'flights' ? undefined : key } })

const isNoting = ref(false)
/** Something is being noted that was found: on a flight, or at the bench. */
const finding = shallowRef<{ readonly flightId: string | null } | null>(null)
const selectedId = ref<string | null>(null)
watch(
  () => route.query.flight,
  id => {
    if (typeof id === 'string') selectedId.value = id
  },
  { immediate: true },
)
const selected = computed(() => flights.flights.find(({ id }) => id === selectedId.value) ?? flights.flights.at(-1) ?? null)
const numberOf = (id: string | null) => flights.flights.findIndex(flight => flight.id === id) + 1
const offer = computed(() => flights.offered.find(ids => selected.value && ids.includes(selected.value.id)) ?? null)
const { next, goal } = useNextFlight()

function select(id: string) {
  selectedId.value = id
  finding.value = null
}
function noted(id: string) {
  selectedId.value = id
}
function found({ kind }: FlightFinding) {
  finding.value = null
  if (kind === 'crash') void show('findings')
}
useSingleKeys({
  new: () => {
    isNoting.value = true
    if (view.value !== 'flights') void show('flights')
  },
})
const sentence = computed(() => (flights.loaded ? flownWords(flights.flights) : ''))
const openCount = computed(() => flights.findings.filter(({ goneAt }) => goneAt === null).length)
const nextWords = computed(() => {
  const flight = next.value
  if (!flight?.band) return ''
  return `${flight.style}, ${restsOnWords(flight.restsOn, flight.packFlights) || 'before any flight'}`
})
</script>

<template>
  <div class="station">
    <main class="worksheet">
      <div class="station-head">
        <h1>Fly</h1><span class="soft say">{{ sentence }}</span><span class="gap" />
        <ViewTabs
          :views="views"
          :view="view"
          label="Views of Fly"
          class="no-print"
          @show="show"
        />
        <el-button
          type="primary"
          class="no-print"
          @click="isNoting = true"
        >
          New flight <KeyHint does="new" />
        </el-button>
      </div>
      <StationSays page="fly" />
      <PageWaits
        v-if="!flights.loaded"
        words="The flights are on their way"
      />
      <template v-else>
        <p
          v-if="flights.unreadable > 0"
          class="note"
        >
          {{ flights.unreadable === 1 ? 'One flight' : `${flights.unreadable} flights` }} of this build cannot be read and
          {{ flights.unreadable === 1 ? 'is' : 'are' }} left out, as a newer version may have written
          {{ flights.unreadable === 1 ? 'it' : 'them' }}.
        </p>
        <NewFlight
          v-if="isNoting"
          @noted="noted"
          @close="isNoting = false"
        />
        <NextFlight v-if="flights.flights.length > 0 && view === 'flights'" />
        <template v-if="view === 'flights'">
          <div
            v-if="flights.flights.length === 0 && !isNoting"
            class="empty"
          >
            <p>
              Fly keeps what was flown: how long, on which pack, with how many volts left. From then on the minutes of
              Packs rest on it.
            </p>
            <p>
              <el-button
                type="primary"
                @click="isNoting = true"
              >
                Note a flight
              </el-button> <NuxtLink
                to="/field"
                class="button"
              >Open the page for the field</NuxtLink>
            </p>
            <FlightLists @taken="select" />
          </div>
          <template v-else>
            <div class="board">
              <FlightChart
                :flights="flights.flights"
                :worked="flights.worked"
                :next="next?.band ?? null"
                :next-words="nextWords"
                :goal="goal"
                :selected-id="selected?.id ?? null"
                @select="select"
              />
              <section aria-labelledby="open-head">
                <div class="open-head">
                  <h3 id="open-head">
                    Open findings
                  </h3><el-button
                    link
                    type="primary"
                    @click="finding = { flightId: null }"
                  >
                    Add one
                  </el-button>
                </div>
                <FindingsBoard
                  :findings="flights.findings"
                  :flights="flights.flights"
                />
                <PartLives over-only />
              </section>
            </div>
            <FlightTable
              :flights="flights.flights"
              :worked="flights.worked"
              :findings="flights.findings"
              :selected-id="selected?.id ?? null"
              @select="select"
            />
            <FlightLists @taken="select" />
            <el-switch
              v-model="flights.isWithout"
              active-text="Forecasts without flights"
              aria-label="Forecasts without flights"
              class="no-print"
            />
          </template>
        </template>
        <template v-else-if="view === 'log'">
          <LogView
            v-if="selected"
            :key="selected.id"
            :flight="selected"
            :number="numberOf(selected.id)"
          />
          <p
            v-else
            class="empty"
          >
            A log belongs to a flight: note the flight first, its minutes are enough.
          </p>
        </template>
        <FlownCharts
          v-else-if="view === 'charts'"
          @select="select"
        />
        <SettingsRecords v-else-if="view === 'settings'" />
        <template v-else-if="view === 'lives'">
          <p class="soft">
            Flights and minutes of every part since it was fitted, on whichever build it flew.
          </p>
          <PartLives is-all />
        </template>
        <template v-else>
          <p class="soft">
            {{ openCount === 0 ? 'Nothing is open.' : `${openCount} open.` }}
            What was found, what was tried for it, and whether it came back.
          </p>
          <FindingsBoard
            is-all
            :findings="flights.findings"
            :flights="flights.flights"
          />
          <el-button @click="finding = { flightId: null }">
            Found something
          </el-button>
        </template>
      </template>
    </main>
    <aside
      class="inspector"
      aria-label="Inspector"
    >
      <FindingForm
        v-if="finding"
        :key="String(finding.flightId)"
        :flight="finding.flightId === null ? null : flights.flightOf(finding.flightId)"
        :number="numberOf(finding.flightId)"
        @noted="found"
        @close="finding = null"
      />
      <template v-else-if="selected">
        <FlightInspector
          :flight="selected"
          :number="numberOf(selected.id)"
          :worked="flights.worked.get(selected.id)"
          :offer
          @log="show('log')"
          @found="finding = { flightId: selected.id }"
          @gone="selectedId = null"
        />
        <GoalChances />
      </template>
      <template v-else>
        <h2>Fly</h2><p class="soft">
          Only the minutes must be said. Volts after landing, or the mAh the charger put back, make a flight teach ten
          times as much.
        </p>
      </template>
    </aside>
  </div>
</template>

<style scoped>
.board {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 250px;
  gap: 20px;
  margin-bottom: 12px;
}
.open-head {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
}
.open-head h3 {
  margin: 0 0 8px;
}
.empty {
  padding: 40px;
  text-align: center;
}
.say {
  font-size: 12.5px;
}
@media screen and (max-width: 760px) {
  .board {
    grid-template-columns: minmax(0, 1fr);
  }
  .station-head .gap,
  .station-head kbd {
    display: none;
  }
  .say {
    flex-basis: 100%;
  }
}
</style>
