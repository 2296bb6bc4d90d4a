<script setup lang="ts">
import { Close } from '@element-plus/icons-vue'
import { candidateRows, choosingOrder, type CandidateRow } from '#core/deciding/choosing'
import {
  centsFigure,
  counted,
  figure as figureOf,
  fixed,
  gramsFigure,
  headroomWords,
  minutesFigure,
  signed,
  spreadFigure,
} from '#core/text/display'
import { slotFacts, type Line } from '#core/model/ledger'
import { blankFit } from '#core/aircraft/fit'

const store = useBuildStore()
const flown = useFlightsStore()
const rules = useRulesStore()
const drawer = useDrawerStore()
const { settings } = storeToRefs(useSettingsStore())
const route = useRoute()
const router = useRouter()
const drawerProblem = ref('')
onMounted(() =>
  drawer.load().catch(error => {
    drawerProblem.value = `The drawer could not be read, so its parts are missing here: ${sentenceOf(error)}`
  }),
)
const bobMoves = useBobMoves()
const optional = computed(() => store.build!.lines.filter(line => line.state === 'fitted' && line.slot !== 'other'))
const lineId = computed(
  () => optional.value.find(line => line.id === route.query.line)?.id ?? optional.value[0]?.id ?? '',
)
const fitted = computed(() => store.lineOf(lineId.value) ?? null)
const withCatalogue = ref(false)
const rows = computed(() =>
  candidateRows({
    build: store.build!,
    fittedId: lineId.value,
    parts: drawer.parts,
    choice: store.choice,
    cards: rules.cards,
    estimates: store.estimates,
    gear: settings.value.gear,
    lessons: lessonsFor(flown, store.build!.id),
  }).filter(row => withCatalogue.value || row.source !== 'catalogue'),
)
const order = computed(() =>
  store.overview
    ? choosingOrder({
        build: store.build!,
        overview: store.overview,
        estimates: store.estimates,
        gear: settings.value.gear,
      })
    : [],
)
const figures = computed(() => rows.value.find(r => r.figures.length > 0)?.figures ?? [])
const heads = computed(() => [
  ['name', 'What'] as const,
  ['set', fitted.value && fitted.value.quantity > 1 ? `Set of ${fitted.value.quantity}, g` : 'Grams'] as const,
  ['delta', 'Change'] as const,
  ['auw', 'All-up'] as const,
  ['minutes', 'Minutes'] as const,
])
const sort = ref<{ key: string; down: boolean }>({ key: 'delta', down: false })
const figure = ref('')
const numeric = computed(() => [
  ...figures.value
    .filter(f => rows.value.some(r => typeof r.figures.find(x => x.key === f.key)?.value === 'number'))
    .map(f => ({ key: f.key, label: f.unit ? `${f.label}, ${f.unit}` : f.label })),
  { key: 'price', label: `Price, ${settings.value.currency}` },
])
const shownFigure = computed(
  () =>
    numeric.value.find(f => f.key === figure.value) ?? numeric.value.find(f => f.key === 'thrust') ?? numeric.value[0]!,
)
function keyOf(row: CandidateRow): number | string {
  const { key } = sort.value
  if (key === 'name') return row.line.name.toLowerCase()
  if (key === 'set') return row.setG ?? Infinity
  if (key === 'delta') return row.deltaG ?? Infinity
  if (key === 'auw') return row.auwG
  if (key === 'minutes') return row.minutes?.minutes ?? (sort.value.down ? -Infinity : Infinity)
  if (key === 'price') return row.setPriceCents ?? Infinity
  if (key === 'fit') return row.findings.length
  return row.figures.find(f => f.key === key)?.value ?? (sort.value.down ? -Infinity : Infinity)
}
const sorted = computed(() =>
  [...rows.value].sort((a, b) => {
    const [p, q] = [keyOf(a), keyOf(b)]
    return (p < q ? -1 : p > q ? 1 : 0) * (sort.value.down ? -1 : 1)
  }),
)
function sortBy(key: string) {
  sort.value = sort.value.key === key ? { key, down: !sort.value.down } : { key, down: false }
}
const selectedId = ref<string | null>(null)
const selected = computed(() => rows.value.find(row => row.line.id === selectedId.value) ?? null)
const considered = computed(() => (store.build!.fit ?? blankFit).considered.filter(c => c.slot === fitted.value?.slot))
const why = ref('')
watch(lineId, () => {
  selectedId.value = null
})

/** Fits a candidate; one from the drawer or the catalogue becomes a line of the build first, so that both can be compared later. */
function take(row: CandidateRow, fit: boolean) {
  const id = row.source === 'on the list' ? row.line.id : newId()
  if (row.source !== 'on the list') {
    const mass = row.line.mass && row.source === 'catalogue' ? { ...row.line.mass, versionId: newId() } : row.line.mass
    const line: Line = {
      ...row.line,
      id,
      mass,
      state: 'candidate',
      insteadOf: lineId.value,
      role: fitted.value!.role,
      tie: fitted.value!.tie,
      feed: fitted.value!.feed,
    }
    if (!store.run({ type: 'lines.add', lines: [line], beforeId: null })) return
  }
  if (fit && store.run({ type: 'line.fit', id })) router.replace({ query: { ...route.query, line: id } })
  else selectedId.value = id
}
function reject(row: CandidateRow) {
  store.run({
    type: 'fit.set',
    fields: {
      considered: [
        ...(store.build!.fit ?? blankFit).considered,
        {
          id: newId(),
          slot: row.line.slot,
          name: row.line.name,
          grams: row.setG === null ? null : Number(row.setG.toFixed(3)),
          why: why.value.trim(),
          on: localDay(),
        },
      ],
    },
  })
  why.value = ''
}
function forget(id: string) {
  store.run({
    type: 'fit.set',
    fields: { considered: (store.build!.fit ?? blankFit).considered.filter(c => c.id !== id) },
  })
}
/** What is wrong, without the name that stands in the row already. */
function shortFinding(row: CandidateRow): string {
  const said = row.findings[0]!.title.replace(`${row.line.name} `, '')
  return said.charAt(0).toUpperCase() + said.slice(1)
}
/** Minutes of the fitted part, and the difference of the others. */
function minutesCell({ minutes, source }: CandidateRow): string {
  if (!minutes) return 'not known'
  if (source === 'fitted') return minutesFigure(minutes.minutes)
  return `${signed(minutes.deltaMin, 2)} ± ${fixed(minutes.spreadMin, 2)}`
}
const text = (value: number | string | null, digits: number) =>
  value === null
    ? '–'
    : typeof value === 'string'
      ? value
      : value >= 10_000
        ? counted(Math.round(value))
        : figureOf(value, digits)
</script>

<template>
  <div class="station">
    <main class="worksheet">
      <div class="station-head">
        <h1>Choosing</h1>
        <PickOne
          v-if="fitted"
          class="which"
          inline
          field="what could go where"
          :model-value="lineId"
          label="The line to compare"
          :options="optional.map((line) => ({ value: line.id, label: `${slotFacts[line.slot].label}: ${lineTitle(line)}` }))"
          @update:model-value="router.replace({ query: { ...route.query, line: $event } })"
        />
        <span class="gap" /><el-checkbox
          v-if="fitted"
          v-model="withCatalogue"
        >
          typical classes too
        </el-checkbox>
      </div>
      <p
        v-if="drawerProblem"
        class="note"
        role="alert"
      >
        {{ drawerProblem }}
      </p>
      <ChoosingOrder
        v-if="store.build!.lines.length > 0"
        :steps="order"
        :line-id="lineId"
        :build-id="store.build!.id"
        @go="router.replace({ query: { ...route.query, line: $event } })"
      />
      <div
        v-if="fitted"
        class="chart"
      >
        <PickOne
          class="soft"
          inline
          field="grams against"
          :model-value="shownFigure.key"
          label="Figure to draw"
          :options="numeric.map((f) => ({ value: f.key, label: f.label }))"
          @update:model-value="figure = $event"
        /><CandidateScatter
          :rows="rows"
          :figure="shownFigure.key"
          :label="shownFigure.label"
          :selected-id="selectedId"
          @select="selectedId = $event"
        />
      </div>
      <div class="scroll">
        <table
          v-if="fitted"
          v-stacks
        >
          <thead>
            <tr>
              <th
                v-for="[key, title] in heads"
                :key="key"
                :class="{ right: key !== 'name' }"
                :aria-sort="sort.key === key ? (sort.down ? 'descending' : 'ascending') : 'none'"
              >
                <el-button
                  link
                  type="primary"
                  @click="sortBy(key)"
                >
                  {{ title }}
                </el-button>
              </th>
              <th><TermTip word="Verdict" /></th><th :aria-sort="sort.key === 'fit' ? (sort.down ? 'descending' : 'ascending') : 'none'">
                <el-button
                  link
                  type="primary"
                  @click="sortBy('fit')"
                >
                  Fits
                </el-button>
              </th><th
                class="right"
                :aria-sort="sort.key === 'price' ? (sort.down ? 'descending' : 'ascending') : 'none'"
              >
                <el-button
                  link
                  type="primary"
                  @click="sortBy('price')"
                >
                  Price
                </el-button>
              </th><th
                v-for="f in figures"
                :key="f.key"
                class="right"
                :aria-sort="sort.key === f.key ? (sort.down ? 'descending' : 'ascending') : 'none'"
              >
                <el-button
                  link
                  type="primary"
                  @click="sortBy(f.key)"
                >
                  {{ f.unit ? `${f.label}, ${f.unit}` : f.label }}
                </el-button>
              </th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="row in sorted"
              :key="row.line.id"
              :class="{ fitted: row.source === 'fitted', selected: row.line.id === selectedId }"
              :data-candidate="row.line.name"
            >
              <td>
                <el-button
                  link
                  type="primary"
                  class="name"
                  @click="selectedId = row.line.id"
                >
                  {{ row.line.name }}
                </el-button><small class="soft">{{ row.source }}</small>
              </td>
              <td class="right figure">
                {{ row.setG === null ? '–' : gramsFigure(row.setG, row.spreadG) }}
              </td>
              <td
                class="right figure"
                :class="row.source === 'fitted' || row.deltaG === null ? '' : row.deltaG <= 0 ? 'word-clear' : 'word-over'"
              >
                {{ row.source === 'fitted' ? '' : row.deltaG === null ? '–' : signed(row.deltaG, 1) }}
              </td>
              <td class="right figure">
                {{ fixed(row.auwG, 1) }}
              </td><td
                class="right figure"
                data-test="minutes"
              >
                {{ minutesCell(row) }}
              </td><td>
                <VerdictMark
                  v-if="row.verdict"
                  :word="row.verdict.word"
                />
              </td>
              <td class="fits">
                <span
                  v-if="row.findings.length > 0"
                  :class="row.findings.some(f => f.severity === 'clash') ? 'word-over' : 'word-close'"
                >{{ shortFinding(row) }}</span><span
                  v-else-if="row.line.properties"
                  class="word-clear"
                >yes</span><span
                  v-else
                  class="soft"
                >not known</span>
              </td>
              <td class="right figure">
                {{ row.setPriceCents === null ? '' : centsFigure(row.setPriceCents) }}
              </td>
              <td
                v-for="f in row.figures"
                :key="f.key"
                class="right figure soft"
                :class="{ told: typeof f.value === 'string' }"
              >
                {{ text(f.value, f.digits) }}
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <div
        v-if="!fitted"
        class="empty"
      >
        <p>Choosing compares what could go where a part is. Add a line first, a typical one will do.</p><NuxtLink
          class="button first"
          :to="`/builds/${store.build!.id}/parts`"
        >Add parts</NuxtLink>
      </div>
      <p
        v-else-if="rows.length <= 1"
        class="soft"
      >
        Nothing else of this kind on the list or in the drawer. Tick the typical classes, or
        <NuxtLink to="/drawer">put parts into the drawer</NuxtLink>.
      </p>
    </main>
    <aside
      class="inspector"
      aria-label="Inspector"
    >
      <template v-if="selected && fitted">
        <h2>{{ selected.line.name }}</h2>
        <p class="soft">
          {{ selected.source === 'fitted' ? 'fitted now' : `from: ${selected.source}` }}
        </p>
        <dl class="facts">
          <dt>The set</dt>
          <dd>
            {{
              selected.setG === null
                ? '–'
                : `${gramsFigure(selected.setG, selected.spreadG)} ± ${spreadFigure(selected.spreadG)} g`
            }}
          </dd>
          <template v-if="selected.deltaG !== null && selected.source !== 'fitted'">
            <dt>Against {{ fitted.name.split(',')[0] }}</dt><dd>{{ signed(selected.deltaG, 2) }} g</dd>
          </template>
          <dt>All-up with it</dt><dd>{{ fixed(selected.auwG, 2) }} g</dd>
          <dt>Minutes with it</dt><dd data-test="minutes-with-it">
            {{ selected.minutes ? minutesFigure(selected.minutes.minutes) : 'not known' }}
          </dd>
        </dl>
        <p
          v-if="bobMoves(fitted.id, selected.deltaG === null ? null : -selected.deltaG)"
          class="soft"
          data-test="bob"
        >
          {{ bobMoves(fitted.id, -selected.deltaG!) }}
        </p>
        <p
          v-if="selected.minutes && selected.source !== 'fitted'"
          class="soft"
          data-test="minutes-against"
        >
          {{ minutesAgainstWords(selected.minutes) }}
        </p>
        <p v-if="selected.verdict">
          <VerdictMark :word="selected.verdict.word" />
          {{ ' ' }}<span class="soft">{{ headroomWords(selected.verdict.headroomG, selected.spreadG) }}</span>
        </p>
        <p
          v-for="finding in selected.findings"
          :key="finding.id"
          class="note"
        >
          <b>{{ finding.title }}</b><br>{{ finding.sentence }}
        </p>
        <div
          v-if="selected.source !== 'fitted'"
          class="acts"
        >
          <el-button
            type="primary"
            @click="take(selected, true)"
          >
            Fit this
          </el-button><el-button
            v-if="selected.source !== 'on the list'"
            @click="take(selected, false)"
          >
            Keep on the list
          </el-button>
        </div>
        <template v-if="selected.source !== 'fitted'">
          <h3>Or say why not</h3>
          <OneField
            v-model="why"
            label="Why not"
            placeholder="too hot without a fan"
            tall
            words="Keep the reason"
            @send="reject(selected)"
          />
        </template>
      </template>
      <template v-else>
        <h2>{{ fitted ? slotFacts[fitted.slot].label : 'Choosing' }}</h2>
        <p>{{ fitted ? slotFacts[fitted.slot].sentence : '' }}</p>
        <p class="soft">
          Each row is tried in this build: its total, verdict and fit are those it would have. Filled point: fitted
          now; brass: in the drawer; dashed: a typical class; red ring: clashes.
        </p>
      </template>
      <template v-if="considered.length > 0">
        <h3>Considered before</h3><div
          v-for="c in considered"
          :key="c.id"
          class="considered"
        >
          <b>{{ c.name }}</b><span
            v-if="c.grams !== null"
            class="figure soft"
          > {{ fixed(c.grams, 1) }} g</span><p>
            {{ c.why || 'no reason kept' }} <span class="soft">{{ c.on }}</span> <IconButton
              :icon="Close"
              :label="`Forget ${c.name}`"
              @click="forget(c.id)"
            />
          </p>
        </div>
      </template>
    </aside>
  </div>
</template>

<style scoped>
.empty {
  padding: 40px;
  text-align: center;
}
.which select {
  max-width: 330px;
}
.chart {
  border-bottom: 1px solid var(--line);
  margin-bottom: 4px;
}
.chart select {
  padding: 2px 6px;
  font-size: 12.5px;
}
/* A fact in words may take several lines; so no column is cut off. */
.told {
  white-space: normal;
  min-width: 74px;
}
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  width: 100%;
  font-size: 12.5px;
}
th,
td {
  padding: 3px 5px;
  border-bottom: 1px solid var(--line);
  text-align: left;
  white-space: nowrap;
}
.right {
  text-align: right;
}
th .is-link {
  color: var(--ink-soft);
  font-weight: 500;
  font-size: 11.5px;
  padding: 0;
  white-space: normal;
}
th[aria-sort='ascending'] .is-link::after {
  content: ' ▴';
}
th[aria-sort='descending'] .is-link::after {
  content: ' ▾';
}
.name {
  padding: 0;
  color: var(--ink);
  white-space: normal;
  text-align: left;
  font-size: 12.5px;
}
td:first-child {
  white-space: normal;
  min-width: 158px;
}
.fits {
  white-space: normal;
  min-width: 96px;
  line-height: 1.2;
}
thead th {
  font-weight: 500;
  font-size: 11.5px;
  color: var(--ink-soft);
}
td small {
  display: block;
  font-size: 11px;
}
tr.fitted td {
  background: var(--paper);
}
tr.selected td {
  background: var(--selection);
}
.acts {
  display: flex;
  gap: 6px;
  flex-wrap: wrap;
}
.considered {
  border-top: 1px solid var(--line);
  padding: 4px 0;
}
.considered p {
  margin: 0;
}
</style>
