<script setup lang="ts">
import type { FlightFinding, Flight } from '#core/aircraft/flown'

/** What was found and is not gone yet: since when, what was tried, and whether it came back. */
const { findings, flights, isAll } = defineProps<{
  findings: readonly FlightFinding[]
  flights: readonly Flight[]
  /** Also those that are gone. */
  isAll?: boolean
}>()
const store = useBuildStore()
const kept = useFlightsStore()
const problem = ref('')

const numberOf = computed(() => new Map(flights.map(({ id }, i) => [id, i + 1])))
const shown = computed(() =>
  findings
    .filter(finding => isAll || finding.goneAt === null)
    .toSorted((a, b) => Number(a.goneAt !== null) - Number(b.goneAt !== null) || b.severity - a.severity),
)
/** Flights since the last change made for it, or since it was found. */
function flownSince({ foundAt, tried }: FlightFinding): number {
  const since = tried.at(-1)?.at ?? foundAt
  return flights.filter(({ flownAt }) => flownAt > since).length
}
function sentenceOfFinding(finding: FlightFinding): string {
  const number = finding.flightId === null ? undefined : numberOf.value.get(finding.flightId)
  const count = flownSince(finding)
  const since = count === 0 ? 'not flown since' : count === 1 ? 'one flight since' : `${count} flights since`
  const tried = finding.tried.map(
    ({ at, what: done, revision }) => `${flightDay(at)}: ${done}${revision === null ? '' : ` (entry ${revision})`}.`,
  )
  const untouched = finding.tried.length === 0 ? 'Nothing changed for it yet; ' : ''
  return [
    number === undefined ? `Found on ${flightDay(finding.foundAt)}.` : `Flight ${number}.`,
    finding.distanceM === null ? '' : `At ${finding.distanceM} m.`,
    finding.suspect === '' ? '' : `Suspected: ${finding.suspect}.`,
    ...tried,
    finding.goneAt === null ? `${untouched}${since}.` : `Gone since ${flightDay(finding.goneAt)}.`,
  ]
    .filter(Boolean)
    .join(' ')
}
async function put(finding: FlightFinding) {
  problem.value = await kept.putFinding(finding)
}
/** A picture goes to the finding it was chosen for, however late it comes. */
function holdPicture(id: string) {
  return async (pictureId: string) => {
    const finding = kept.findingOf(id)
    if (!finding) throw new Error('The finding is no longer there. The picture was not kept.')
    const sentence = await kept.putFinding({ ...finding, pictureIds: [...finding.pictureIds, pictureId] })
    if (sentence !== '') throw new Error(sentence)
  }
}
const gone = (finding: FlightFinding) => put({ ...finding, goneAt: localMoment() })
const back = (finding: FlightFinding) => put({ ...finding, goneAt: null })

/** What was changed for a finding: told in words, or one of the last entries of the build's journal. */
const changingId = ref<string | null>(null)
const what = ref('')
const entry = ref<number | ''>('')
const entries = computed(() =>
  store.journal
    .filter(one => one.undone === 'in force' && one.kind === 'do')
    .slice(0, 30)
    .map(({ seq, title, at }) => ({ value: seq, label: `${dayOf(at, 'short')}: ${title}` })),
)
async function openChange({ id }: FlightFinding) {
  changingId.value = changingId.value === id ? null : id
  what.value = ''
  entry.value = ''
  if (store.journal.length === 0) await store.loadJournal().catch(() => undefined)
}
async function keepChange(finding: FlightFinding) {
  const chosen = store.journal.find(({ seq }) => seq === entry.value)
  const words = what.value.trim() || chosen?.title.slice(0, 120) || ''
  if (words === '') {
    problem.value = 'Say what was changed, or choose the change.'
    return
  }
  const tried = { id: newId(), at: localMoment(), what: words, revision: chosen?.seq ?? null }
  await put({ ...finding, goneAt: null, tried: [...finding.tried, tried] })
  if (problem.value === '') changingId.value = null
}
async function remove(finding: FlightFinding) {
  problem.value = await kept.removeFinding(finding.id)
}
/** Repair, with the part that was hurt. */
const repairOf = (broken: string) => ({
  path: `/builds/${store.build!.id}/assemble`,
  query: { view: 'repair', broken },
})
</script>

<template>
  <p
    v-if="problem"
    class="problem"
    role="alert"
  >
    {{ problem }}
  </p>
  <p
    v-if="shown.length === 0"
    class="soft"
  >
    {{ findings.length === 0 ? 'Nothing was found yet.' : 'Nothing is open.' }}
  </p>
  <article
    v-for="finding in shown"
    :key="finding.id"
    class="finding"
    :class="{ gone: finding.goneAt !== null }"
    :aria-label="findingTitle(finding.kind)"
  >
    <p class="head">
      <SeverityDots :severity="finding.severity" /> <b>{{ findingTitle(finding.kind) }}</b>
    </p>
    <p>{{ sentenceOfFinding(finding) }}</p>
    <p v-if="finding.note">
      {{ finding.note }}
    </p>
    <p v-if="finding.lesson">
      <b>What it taught.</b> {{ finding.lesson }}
    </p>
    <ul v-if="finding.damagedLineIds.length > 0">
      <li
        v-for="id in finding.damagedLineIds"
        :key="id"
      >
        <NuxtLink
          v-if="store.lineOf(id)"
          :to="repairOf(id)"
        >Repair {{ lineTitle(store.lineOf(id)!) }}</NuxtLink><template v-else>
          a part no longer on the ledger
        </template>
      </li>
    </ul>
    <PartPictures
      v-if="isAll"
      :of="findingTitle(finding.kind)"
      :ids="finding.pictureIds"
      :holder="() => holdPicture(finding.id)"
      @change="put({ ...finding, pictureIds: [...$event] })"
    />
    <div class="acts">
      <el-button
        v-if="finding.goneAt === null"
        link
        type="primary"
        @click="gone(finding)"
      >
        It is gone
      </el-button><el-button
        v-else
        link
        type="primary"
        @click="back(finding)"
      >
        It is back
      </el-button><el-button
        v-if="finding.goneAt === null"
        link
        type="primary"
        :aria-expanded="changingId === finding.id"
        @click="openChange(finding)"
      >
        What I changed
      </el-button><el-button
        v-if="isAll"
        link
        type="primary"
        @click="remove(finding)"
      >
        Delete
      </el-button>
    </div>
    <el-form
      v-if="changingId === finding.id"
      label-position="top"
      class="change"
      @submit.prevent="keepChange(finding)"
    >
      <PickOne
        v-model="entry"
        field="The change of the ledger"
        :options="entries"
        none="none"
      />
      <FormField label="In your words">
        <el-input
          v-model="what"
          placeholder="new set of props"
        />
      </FormField>
      <el-button
        type="primary"
        native-type="submit"
      >
        Keep
      </el-button>
    </el-form>
  </article>
</template>

<style scoped>
.finding {
  border: 1px solid var(--line);
  border-left: 3px solid var(--close);
  border-radius: 6px;
  padding: 8px 12px;
  margin-bottom: 8px;
  font-size: 13px;
}
.finding p {
  margin: 0 0 3px;
}
.finding ul {
  margin: 0 0 3px;
  padding-left: 18px;
}
.gone {
  border-left-color: var(--clear);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  align-items: center;
}
.acts :deep(.el-button) {
  margin: 0;
}
.acts a {
  font-weight: 600;
}
.change {
  margin-top: 8px;
}
</style>
