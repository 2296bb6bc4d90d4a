<script setup lang="ts">
const store = useBuildStore()
const route = useRoute()
const router = useRouter()
store.loadJournal()
watch(
  () => store.build?.id,
  () => store.loadJournal(),
)

const allViews = [
  ['journal', 'Journal'],
  ['day', 'Any day'],
  ['outcomes', 'Plans and outcomes'],
  ['card', 'Card and labels'],
] as const
/** A craft known only as a whole has no lines to look back at, to plan or to put on a card. */
const views = computed(() => (store.build?.reference ? allViews.slice(0, 1) : allViews))
const view = computed(() => views.value.find(([key]) => key === route.query.view)?.[0] ?? 'journal')
const show = (key: string) =>
  router.replace({ query: { ...route.query, view: key === 'journal' ? undefined : key, at: undefined } })
const look = (seq: number) => router.replace({ query: { ...route.query, view: 'day', at: String(seq) } })

const flights = useFlightsStore()
/** Where it was flown, and the texts of its settings, go with the build file only when somebody says so. */
const isPrivate = ref(false)
const hasPrivate = computed(
  () => flights.settings.length > 0 || flights.flights.some(({ place }) => place !== ''),
)
/** What crashes and damage have taught. */
const taught = computed(() => flights.findings.filter(({ lesson }) => lesson.trim() !== ''))
const files = computed(() => [
  {
    title: 'Build file',
    what: 'everything of this build, to keep or to bring in elsewhere',
    href: `/api/builds/${store.build!.id}/export/build.json${isPrivate.value ? '?private=1' : ''}`,
  },
  { title: 'Parts list', what: 'CSV for a spreadsheet', href: `/api/builds/${store.build!.id}/export/parts.csv` },
  { title: 'Build sheet', what: 'Markdown, to read and to share', href: `/api/builds/${store.build!.id}/export/sheet.md` },
  {
    title: 'Build sheet as a page',
    what: 'one file with strip and drawings, without scripts: any browser reads it, in ten years too',
    href: `/api/builds/${store.build!.id}/export/sheet.html`,
  },
])
</script>

<template>
  <div class="station">
    <CardAndLabels v-if="view === 'card'">
      <template #head>
        <h1>Record</h1><span class="soft say">as it lies on paper</span><span class="gap" />
        <ViewTabs
          :views="views"
          :view="view"
          label="Views of Record"
          @show="show"
        />
      </template>
    </CardAndLabels>
    <main
      v-else
      class="worksheet"
    >
      <div class="station-head">
        <h1>Record</h1><span class="soft say">{{ view === 'day' ? 'what it was on any day' : '' }}</span><span class="gap" />
        <ViewTabs
          :views="views"
          :view="view"
          label="Views of Record"
          class="no-print"
          @show="show"
        />
        <template v-if="view === 'journal'">
          <el-button
            :disabled="!store.steps.undo"
            @click="store.step('undo')"
          >
            Take back <KeyHint does="undo" />
          </el-button>
          <el-button
            :disabled="!store.steps.redo"
            @click="store.step('redo')"
          >
            Do again <KeyHint does="redo" />
          </el-button>
        </template>
      </div>
      <StationSays
        v-if="view === 'journal'"
        page="record"
      />
      <JournalList
        v-if="view === 'journal'"
        @look="look"
      />
      <AnyDay v-else-if="view === 'day'" />
      <PlansAndOutcomes v-else />
    </main>
    <DayInspector v-if="view === 'day'" />
    <aside
      v-else-if="view === 'journal'"
      class="inspector"
      aria-label="Files"
    >
      <h2>Files</h2>
      <div
        v-for="file in files"
        :key="file.href"
        class="file"
      >
        <a
          :href="file.href"
          download
        >{{ file.title }}</a><span class="soft">{{ file.what }}</span>
      </div>
      <el-checkbox
        v-if="hasPrivate"
        v-model="isPrivate"
      >
        with places of flights and texts of settings
      </el-checkbox>
      <p class="soft">
        The build file keeps every version of the grams and this journal: bringing it in gives the same build.
      </p>
      <p>
        <NuxtLink :to="comparePath([store.build!.id])">Hold it against another craft</NuxtLink>
      </p>
      <template v-if="taught.length > 0">
        <h3>What was learnt</h3>
        <p
          v-for="finding in taught"
          :key="finding.id"
        >
          <b>{{ findingTitle(finding.kind) }}, {{ flightDay(finding.foundAt) }}.</b> {{ finding.lesson }}
        </p>
      </template>
    </aside>
  </div>
</template>

<style scoped>
.say {
  font-size: 12.5px;
}
.file {
  display: grid;
  padding: 6px 0;
  border-top: 1px solid var(--line);
}
.file a {
  font-weight: 600;
}
</style>
