<script setup lang="ts">
import { candidateRows, choosingOrder, type CandidateRow } from '#core/deciding/choosing'
import { slotFacts, type Line } from '#core/model/ledger'

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
const figure = ref('')
const numeric = computed(() => [
  ...drawableFigures(rows.value),
  { key: 'price', label: `Price, ${settings.value.currency}` },
])
const shownFigure = computed(
  () =>
    numeric.value.find(f => f.key === figure.value) ?? numeric.value.find(f => f.key === 'thrust') ?? numeric.value[0]!,
)
const selectedId = ref<string | null>(null)
const selected = computed(() => rows.value.find(row => row.line.id === selectedId.value) ?? null)
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
      <CandidateTable
        v-if="fitted"
        :rows="rows"
        :pieces="fitted.quantity"
        :figure="shownFigure.key"
        :selected-id="selectedId"
        @select="selectedId = $event"
      />
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
    <CandidateInspector
      :fitted="fitted"
      :selected="selected"
      @take="take"
    />
  </div>
</template>

<style scoped>
.which :deep(.el-select) {
  min-width: min(330px, 56vw);
}
.empty {
  padding: 40px;
  text-align: center;
}
.chart {
  border-bottom: 1px solid var(--line);
  margin-bottom: 4px;
}
</style>
