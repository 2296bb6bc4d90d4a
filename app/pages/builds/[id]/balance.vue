<script setup lang="ts">
import { cameraViews } from '#core/aircraft/balance'
import type { LoadoutChoice } from '#core/model/ledger'

const store = useBuildStore()
const route = useRoute()
const router = useRouter()
const { balance, put, free } = provideBalance()
const pieceOf = (key: string) => balance.value?.layout.pieces.find(piece => piece.key === key) ?? null

const selectedKey = computed(() => (typeof route.query.piece === 'string' ? route.query.piece : null))
const isSelected = computed(() => selectedKey.value !== null && pieceOf(selectedKey.value) !== null)
/** What is chosen here is chosen on the strip too. */
function select(key: string | null) {
  if (key !== selectedKey.value) void router.replace({ query: { ...route.query, piece: key ?? undefined } })
  store.selectedId = key === null ? null : (pieceOf(key)?.lineId ?? null)
}
watch(
  () => store.selectedId,
  id => {
    if (id === null || (selectedKey.value !== null && pieceOf(selectedKey.value)?.lineId === id)) return
    const piece = balance.value?.layout.pieces.find(one => one.lineId === id)
    if (piece) select(piece.key)
  },
)
onBeforeUnmount(() => {
  store.selectedId = null
})
const choose = (choice: LoadoutChoice) =>
  router.replace({ query: { ...route.query, with: `${choice.setupId}.${choice.packLineId ?? ''}` } })

const weighs = computed(() => Boolean(balance.value?.centre))
const hasPack = computed(() => Boolean(balance.value?.pack))
const placedWords = computed(() => {
  const count = balance.value?.layout.pieces.length ?? 0
  const own = count - (balance.value?.assumed ?? 0)
  return `${count} pieces, ${own === 0 ? 'none' : own} placed by you`
})
const packSides = [
  { value: 'above', label: 'Pack above' },
  { value: 'below', label: 'Pack below' },
]
const packSide = computed({
  get: () => store.build!.places?.packSide ?? 'above',
  set: side => void store.run({ type: 'places.pack', side }),
})
const stationViews = [
  ['layout', 'Layout'],
  ['camera', 'Camera view'],
] as const
const view = computed(() => (route.query.view === 'camera' ? 'camera' : 'layout'))
const show = (key: string) => router.replace({ query: { ...route.query, view: key === 'layout' ? undefined : key } })
const cameras = computed(() =>
  view.value === 'camera' && balance.value ? cameraViews(store.build!, balance.value.layout) : [],
)
</script>

<template>
  <div class="station">
    <main class="worksheet">
      <div class="station-head">
        <h1>Balance</h1><span class="soft say">{{ placedWords }}; dashed: as usual</span><span class="gap" />
        <el-segmented
          v-if="hasPack && view === 'layout'"
          v-model="packSide"
          :options="packSides"
          aria-label="Where the pack sits"
        />
        <ViewTabs
          :views="stationViews"
          :view="view"
          label="Views of Balance"
          class="no-print"
          @show="show"
        />
      </div>
      <StationSays page="balance" />
      <p
        v-if="!weighs"
        class="empty"
      >
        {{ nothingHangsSentence(store.build!) }}
        <NuxtLink
          class="button"
          :to="`/builds/${store.build!.id}/parts`"
        >
          Add parts
        </NuxtLink>
      </p>
      <template v-else-if="view === 'camera'">
        <CameraPicture
          v-for="one in cameras"
          :key="one.piece.key"
          :view="one"
          @keep="put(one.piece, one.piece.atMm, { tiltDeg: $event })"
        />
        <p
          v-if="cameras.length === 0"
          class="empty"
        >
          No camera flies in this loadout. A payload is looked through too, once its field of view is said.
        </p>
      </template>
      <div
        v-else
        class="desk"
      >
        <CraftDrawings
          :selected-key="selectedKey"
          @select="select"
        />
        <HowItHangs
          class="answers"
          :pack-side="packSide"
          @select="select"
          @choose="choose"
        />
      </div>
    </main>
    <aside
      class="inspector"
      aria-label="Inspector"
    >
      <PieceInspector
        v-if="isSelected"
        :piece-key="selectedKey!"
        @put="put"
        @free="free"
        @close="select(null)"
      />
      <PieceList
        v-else
        @select="select"
      />
    </aside>
  </div>
</template>

<style scoped>
.say {
  font-size: 12.5px;
}
.empty {
  padding: 40px;
  text-align: center;
}
.desk {
  display: grid;
  grid-template-columns: minmax(260px, 5fr) 7fr;
  gap: 18px;
  align-items: start;
}
@media screen and (max-width: 760px) {
  .desk {
    grid-template-columns: minmax(0, 1fr);
  }
  .answers {
    order: -1;
  }
  .station-head .gap {
    display: none;
  }
  .say {
    flex-basis: 100%;
  }
}
</style>
