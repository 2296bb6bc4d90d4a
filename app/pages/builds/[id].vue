<script setup lang="ts">
import type { LoadoutChoice } from '#core/model/ledger'
import { stationPath, stations, type Station } from '~/stations'

const route = useRoute()
const store = useBuildStore()
const rules = useRulesStore()
const looking = useLookingBackStore()
const problem = ref('')
const id = computed(() => String(route.params.id))

watch(
  id,
  async wanted => {
    problem.value = ''
    try {
      await Promise.all([store.open(wanted), rules.load()])
    } catch (error) {
      if (wanted === id.value) problem.value = sentenceOf(error)
    }
  },
  { immediate: true },
)

// What weighing would bring is told for the scale at hand; until it is known, and where it cannot be read, for a usual one.
useScalesStore()
  .load()
  .catch(() => undefined)

watch(
  () => route.query.with,
  text => {
    const [setupId = '', packLineId = ''] = String(text ?? '').split('.')
    store.viewed = text ? ({ setupId, packLineId: packLineId || null } satisfies LoadoutChoice) : null
  },
  { immediate: true },
)

// Minutes rest on what was flown: flights come a moment after the build, and never keep it waiting.
const flights = useFlightsStore()
const loadFlights = (of: string) => flights.load(of).catch(() => undefined)
watch(
  () => store.build?.id,
  of => {
    if (of && of === id.value) void loadFlights(of)
  },
  { immediate: true },
)

useFrameChange()

// Another window or the phone at the bench may change the build: it is followed here.
useEventStream(() => `/api/builds/${id.value}/stream`, {
  deleted() {
    problem.value =
      'This build was deleted for good in another window. What still waited for it is listed above as not written.'
  },
  flights() {
    if (store.build?.id === id.value) void loadFlights(id.value)
  },
  revision(data) {
    void store.follow(id.value, (JSON.parse(data) as { revision: number }).revision)
  },
})

useHead({ title: computed(() => (store.build ? `${store.build.name} · Jolly Gram` : 'Jolly Gram')) })

const stationAt = (station: Station) =>
  navigateTo({
    path: stationPath(id.value, station),
    query: route.query.with ? { with: route.query.with } : {},
  })
whenKeyIsFree(({ key }) => {
  const station = stations.find(one => one.key === key)
  return station ? () => stationAt(station) : null
})
useSingleKeys({ weigh: () => navigateTo(`/builds/${id.value}/weigh`) })
// On Fly the last change of a flight is taken back, not that of the build.
useSingleKeys({ undo: () => store.step('undo'), redo: () => store.step('redo') }, () => !route.path.endsWith('/fly'))
</script>

<template>
  <div class="build-page">
    <div
      v-if="problem"
      class="page"
    >
      <p class="panel">
        {{ problem }} <NuxtLink to="/">Back to the Shelf</NuxtLink>
      </p>
    </div>
    <template v-else-if="store.build && store.overview">
      <PrintHead />
      <SampleNote />
      <ReferenceHead v-if="store.build.reference" />
      <LazyDayHead v-else-if="looking.state && looking.overview" />
      <StripHead v-else />
      <p
        v-if="store.refusal"
        class="refusal"
        role="alert"
      >
        {{ store.refusal }} <el-button
          link
          type="primary"
          @click="store.refusal = ''"
        >
          Close
        </el-button>
      </p>
      <div
        class="build-body"
        :class="{ past: looking.state }"
      >
        <StationList />
        <NuxtPage />
      </div>
      <LazyConflictSheet v-if="store.conflict" />
    </template>
    <PageWaits
      v-else
      words="The build is on its way"
    />
  </div>
</template>

<style scoped>
.build-page {
  display: flex;
  flex-direction: column;
  flex: 1;
  min-height: 0;
}
.build-body {
  display: flex;
  flex: 1;
  min-height: 0;
}
.refusal {
  margin: 0;
  padding: 7px 18px;
  background: var(--note);
  border-bottom: 1px solid var(--line);
  font-weight: 600;
}
.past :deep(.stations a:not(.router-link-active)) {
  filter: grayscale(1);
}
:deep(.worksheet) {
  flex: 1;
  min-width: 0;
  background: var(--card);
  padding: 12px 16px 24px;
  overflow: auto;
  border-left: 1px solid var(--line);
}
:deep(.inspector) {
  width: 284px;
  flex: none;
  background: var(--aside);
  border-left: 1px solid var(--line);
  padding: 14px 16px 24px;
  overflow: auto;
  font-size: 12.5px;
}
@media screen and (max-width: 760px) {
  .build-page {
    display: block;
    --bottom-bar: calc(93px + env(safe-area-inset-bottom));
    padding-bottom: var(--bottom-bar);
  }
  .build-body {
    display: block;
  }
  :deep(.inspector) {
    width: auto;
    border-left: 0;
    border-top: 1px solid var(--line);
    font-size: 15px;
  }
  :deep(.worksheet) {
    padding: 12px;
    border: 0;
  }
}
</style>
