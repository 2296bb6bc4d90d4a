<script setup lang="ts">
import { compareLines, namedBy, type ComparedRow } from '#core/comparing/lines'
import { coverageFactor95 } from '#core/maths/numbers'
import { sigmaG } from '#core/maths/estimate'
import { figure, fixed, gramsFigure, signed, spreadFigure } from '#core/text/display'
import { loadoutName } from '#core/mass/loadout'
import { slotFacts } from '#core/model/ledger'
import type { TouchedReply } from '#shared/schemas/api'

/** The craft as it was on any day, and what changed from that day on. */
const store = useBuildStore()
const looking = useLookingBackStore()
const route = useRoute()
const router = useRouter()
const events = useDayEvents()

/** Before anything was put in there is nothing to draw. */
const drawn = computed(() => looking.moments.filter(({ massG, openLines }) => massG > 0 || openLines > 0))

const isLedgerOpen = ref(false)
const loading = ref(true)
const problem = ref('')
async function load() {
  problem.value = ''
  try {
    await looking.loadWeights()
  } catch (error) {
    problem.value = sentenceOf(error)
  } finally {
    loading.value = false
  }
}
watch(() => [store.build?.id, store.revision, looking.weightsOf], load, { immediate: true })
/** What this page has put into the address itself: where it comes back while keys go on, it is the past and moves nothing. */
let written: string | null = null
watch(
  () => route.query.at,
  at => {
    const seq = Number(at)
    if (at === undefined || at === written || !Number.isSafeInteger(seq) || seq < 0) return
    if (seq !== looking.wanted) void looking.look(seq)
  },
  { immediate: true },
)
onUnmounted(looking.leave)
const remember = useDebounceFn(() => {
  if (looking.wanted === null || String(looking.wanted) === route.query.at) return
  written = String(looking.wanted)
  void router.replace({ query: { ...route.query, at: written } })
}, 250)
function look(seq: number) {
  void looking.look(seq)
  void remember()
}

const limit = computed(() => {
  const card = looking.todayOverview?.binding?.card
  const valueG = looking.todayOverview?.binding?.limitG
  if (!card?.limit || valueG == null) return null
  const { value, unit } = card.limit
  return { valueG, words: unit === 'g' ? `${figure(value, 4)} g` : `${fixed(valueG, 2)} g · ${figure(value, 4)} ${unit}` }
})

const thisYear = localDay().slice(0, 4)
const shortDay = (at: string) => dayOf(at, localDay(at).startsWith(thisYear) ? 'without year' : 'short')

/** What is compared: the day that is looked at with today, or with the day that is held; the earlier one first. */
const sides = computed(() => {
  if (!looking.state || !looking.compared) return null
  const seen = { ...looking.compared, at: looking.state.at, seq: looking.state.seq, words: shortDay(looking.state.at) }
  if (!looking.held || !looking.heldCompared) {
    const today = { ...looking.today!, at: '', seq: Number.POSITIVE_INFINITY, words: 'today' }
    return [seen, today] as const
  }
  const held = { ...looking.heldCompared, at: looking.held.at, seq: looking.held.seq, words: shortDay(looking.held.at) }
  return held.seq <= seen.seq ? ([held, seen] as const) : ([seen, held] as const)
})
/** Two days of the same name are told apart by their time. */
const names = computed(() => {
  if (!sides.value) return ['', '']
  const [from, to] = sides.value
  return from.words === to.words ? [momentWords(from.at), momentWords(to.at)] : [from.words, to.words]
})
const comparison = computed(() => (sides.value ? compareLines(sides.value) : null))
const lastSeq = computed(() => looking.moments.at(-1)?.seq ?? 0)
const touched = shallowRef<ReadonlyMap<string, TouchedReply['lines'][number]>>(new Map())
watch(
  () => (sides.value ? `${sides.value[0].seq} ${Math.min(sides.value[1].seq, lastSeq.value)}` : ''),
  async key => {
    if (!key) return
    const [from, to] = key.split(' ').map(Number) as [number, number]
    if (from > to) return
    const lines = await looking.touched(from, to).catch(() => [])
    if (sides.value?.[0].seq === from) touched.value = new Map(lines.map(line => [line.lineId, line]))
  },
  { immediate: true },
)
/** Grams differ as they are shown. */
const differs = (value: number) => Math.abs(value) >= 0.005
interface Told {
  readonly row: ComparedRow
  readonly why: TouchedReply['lines'][number] | null
}
const told = computed(() => {
  if (!comparison.value) return null
  const rows = comparison.value.rows.map((row): Told => {
    const ids = row.lines.flatMap(line => (line ? [line.id] : []))
    const found = ids.flatMap(id => touched.value.get(id) ?? []).sort((a, b) => b.seq - a.seq)[0]
    return { row, why: found ?? null }
  })
  const isReplaced = ({ lines: [was, is] }: ComparedRow) => (was === null) !== (is === null) || was?.id !== is?.id
  const byHand = rows.filter(({ row, why }) => isReplaced(row) || (why !== null && differs(row.differences[1]!.valueG)))
  const rest = rows.filter(one => !byHand.includes(one))
  /** Lines nobody touched, which are better known because of weighings together. */
  const better = rest.filter(({ row }) => differs(row.differences[1]!.valueG))
  return {
    rows: byHand.sort((a, b) => Math.abs(b.row.differences[1]!.valueG) - Math.abs(a.row.differences[1]!.valueG)),
    betterG: better.reduce((sum, { row }) => sum + row.differences[1]!.valueG, 0),
    better: better.length,
    same: rest.length - better.length,
  }
})
const gramsOf = (row: ComparedRow, column: 0 | 1) => {
  const [line, estimate] = [row.lines[column], row.grams[column]]
  if (!line || !estimate) return column === 1 ? 'off' : 'none'
  return line.mass ? gramsFigure(estimate.valueG, coverageFactor95 * sigmaG(estimate)) : 'open'
}
const totalWords = computed(() => {
  if (!comparison.value) return null
  const [from, to] = comparison.value.totals.map(total => gramsFigure(total.valueG, coverageFactor95 * sigmaG(total)))
  const change = comparison.value.differences[1]!
  return {
    from,
    to,
    change: signed(change.valueG, 2),
    spread: spreadFigure(coverageFactor95 * change.sigmaG),
  }
})
const nameOf = (row: ComparedRow) => {
  const [was, is] = row.lines
  if (was && is && was.name !== is.name) return `${lineTitle(is)}, before ${lineTitle(was)}`
  return lineTitle(namedBy(row))
}
/** Why a line changed: what somebody said, else what the journal says of it without the names of the lines. */
const whyWords = ({ note, title }: TouchedReply['lines'][number]) => note || title.slice(title.lastIndexOf(': ') + 1).trim()
const heading = computed(() => {
  const count = told.value?.rows.length ?? 0
  const lines = count === 0 ? 'no line changed' : count === 1 ? 'one line changed' : `${count} lines changed`
  return `${lines}, ${told.value?.same ?? 0} the same`
})
</script>

<template>
  <div class="any-day">
    <p
      v-if="problem || looking.problem"
      class="problem"
      role="alert"
    >
      {{ problem || looking.problem }}
    </p>
    <PageWaits
      v-if="loading && looking.moments.length === 0"
      words="The weights of every day are worked out"
    />
    <p
      v-else-if="drawn.length < 2"
      class="soft"
    >
      Nothing has been changed yet: every day will stand here from the first change on.
    </p>
    <template v-else>
      <WeightHistory
        :moments="drawn"
        :at="looking.wanted"
        :limit="limit"
        :events="events"
        :loadout="loadoutName(store.build!, looking.today!.choice)"
        @look="look"
      />
      <p
        v-if="!sides"
        class="soft"
      >
        Pull the slider, press ← and → on it, or click into the chart: the strip above, the figures and the table show the
        craft as it was then. Looking changes nothing.
      </p>
      <div
        v-else-if="told && totalWords"
        class="between"
      >
        <table class="answers-table">
          <caption><b>{{ names[0] }} to {{ names[1] }}:</b> {{ heading }}</caption>
          <thead>
            <tr>
              <th>Slot</th><th>Line</th><th class="right">
                {{ names[0] }}, g
              </th><th class="right">
                {{ names[1] }}, g
              </th><th class="right">
                Change
              </th><th>Day</th><th>Why</th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="{ row, why } in told.rows"
              :key="row.lines.map(line => line?.id).join()"
            >
              <td class="soft">
                {{ slotFacts[namedBy(row).slot].label }}
              </td><td>{{ nameOf(row) }}</td>
              <td class="right figure">
                {{ gramsOf(row, 0) }}
              </td><td class="right figure">
                {{ gramsOf(row, 1) }}
              </td><td
                class="right figure change"
                :class="row.differences[1]!.valueG < 0 ? 'less' : 'more'"
              >
                {{ signed(row.differences[1]!.valueG, 2) }}
              </td><td class="soft day">
                {{ why ? dayOf(why.at, 'without year') : '' }}
              </td><td class="soft">
                {{ why ? whyWords(why) : '' }}
              </td>
            </tr>
            <tr v-if="told.better > 0">
              <td class="soft">
                Other lines
              </td><td>{{ told.better === 1 ? 'one' : told.better }} better known by weighings</td>
              <td /><td /><td class="right figure change">
                {{ signed(told.betterG, 2) }}
              </td><td /><td />
            </tr>
          </tbody>
          <tfoot>
            <tr>
              <th
                colspan="2"
                scope="row"
              >
                All-up weight
              </th><td class="right figure">
                {{ totalWords.from }}
              </td><td class="right figure">
                {{ totalWords.to }}
              </td><td class="right figure change">
                {{ totalWords.change }}
              </td><td
                colspan="2"
                class="soft"
              >
                ± {{ totalWords.spread }} g
              </td>
            </tr>
          </tfoot>
        </table>
        <details
          class="whole-ledger"
          @toggle="isLedgerOpen = ($event.target as HTMLDetailsElement).open"
        >
          <summary>The whole ledger and every way to fly it, {{ shortDay(looking.state!.at) }}</summary>
          <LazyDayLedger v-if="isLedgerOpen" />
        </details>
      </div>
    </template>
  </div>
</template>

<style scoped>
.between {
  margin-top: 14px;
  overflow-x: auto;
}
table {
  width: 100%;
}
caption {
  text-align: left;
  padding-bottom: 4px;
  font-size: 13px;
}
.change {
  font-weight: 600;
}
.less {
  color: var(--clear);
}
.more {
  color: var(--over);
}
.whole-ledger {
  margin-top: 14px;
}
summary {
  cursor: pointer;
  color: var(--plum-text);
  font-weight: 600;
}
.day {
  white-space: nowrap;
}
tfoot th,
tfoot td {
  font-weight: 600;
  text-align: left;
}
tfoot .right {
  text-align: right;
}
@media screen and (max-width: 760px) {
  thead th:nth-child(n + 6),
  tbody td:nth-child(n + 6),
  tfoot td:last-child {
    display: none;
  }
  th,
  td {
    padding-inline: 3px;
    font-size: 12px;
  }
}
</style>
