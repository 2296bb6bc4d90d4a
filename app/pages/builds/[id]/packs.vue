<script setup lang="ts">
import type { LoadoutCell } from '#core/aircraft/flight'
import { makeLine, packLabel } from '#core/model/ledger'
import { packLines, sameLoadout } from '#core/mass/loadout'

const store = useBuildStore()
const drawer = useDrawerStore()
const route = useRoute()
const router = useRouter()
const { cells, ownCells, watched, withDrawer } = useLoadouts()
onMounted(() => {
  watched.value = true
})
onBeforeUnmount(() => {
  watched.value = false
})
watch(withDrawer, wanted => {
  if (wanted && !drawer.loaded)
    drawer.load().catch(() => {
      withDrawer.value = false
    })
})

const views = [
  ['sheet', 'Sheet'],
  ['discharge', 'Discharge'],
  ['setups', 'Set-ups'],
  ['go', 'Go list'],
] as const
const view = computed(() => views.find(([key]) => key === route.query.view)?.[0] ?? 'sheet')
const show = (key: string) => router.replace({ query: { ...route.query, view: key === 'sheet' ? undefined : key } })
const figureKey = ref('minutes')
const packId = ref<string | null>(null)
const cellKey = ref<string | null>(null)
const viewedCell = computed(
  () => cells.value.find(cell => sameLoadout(cell.choice, store.choice)) ?? cells.value[0] ?? null,
)
const cell = computed(() => cells.value.find(c => c.key === cellKey.value) ?? viewedCell.value)
const pack = computed(() => store.build!.lines.find(line => line.id === packId.value && line.slot === 'pack') ?? null)

/** A loadout of the build is also the one the strip shows; one with a pack that is only tried is not. */
function select(of: LoadoutCell) {
  cellKey.value = of.key
  packId.value = null
  if (of.source === 'on the build')
    router.replace({ query: { ...route.query, with: `${of.choice.setupId}.${of.choice.packLineId ?? ''}` } })
}
watch(
  () => store.choice,
  choice => {
    if (cell.value?.source === 'on the build' && !sameLoadout(cell.value.choice, choice)) cellKey.value = null
  },
)
function selectPack(id: string) {
  const own = store.build!.lines.some(line => line.id === id)
  if (own) packId.value = id
  else {
    const first = cells.value.find(c => c.pack.id === id)
    if (first) select(first)
  }
}

function freeLabel(): string {
  const taken = new Set(store.build!.lines.map(line => (line.pack ?? line.packSoFar)?.label))
  const letter = store.build!.name.trim().charAt(0).toUpperCase() || 'P'
  for (let n = 1; ; n++) if (!taken.has(`${letter}${n}`)) return `${letter}${n}`
}
function addPack() {
  const id = newId()
  if (
    store.run({
      type: 'lines.add',
      lines: [makeLine({ id, slot: 'pack', name: 'New pack', packSoFar: { label: freeLabel() } })],
      beforeId: null,
    })
  )
    packId.value = id
}
function takeOnBuild(of: LoadoutCell) {
  const known = store.build!.lines.find(line => line.id === of.pack.id)
  if (known) {
    if (store.run({ type: 'lines.change', changes: [{ id: known.id, fields: { state: 'fitted' } }] }))
      packId.value = known.id
    return
  }
  const id = newId()
  const mass = of.pack.mass && of.source === 'typical' ? { ...of.pack.mass, versionId: newId() } : of.pack.mass
  if (store.run({ type: 'lines.add', lines: [{ ...of.pack, id, mass }], beforeId: null })) packId.value = id
}
useSingleKeys({ new: addPack })

const sentence = computed(() => {
  const packs = packLines(store.build!).length
  const { setups } = store.build!
  return packs === 0
    ? ''
    : `every way to fly it: ${packs} ${packs === 1 ? 'pack' : 'packs'} × ${setups.length} ` +
      `${setups.length === 1 ? 'set-up' : 'set-ups'}, ${loadoutsWords(ownCells.value)}`
})
</script>

<template>
  <div class="station">
    <main class="worksheet">
      <div class="station-head">
        <h1>Packs</h1><span class="soft say">{{ sentence }}</span><span class="gap" />
        <ViewTabs
          :views="views"
          :view="view"
          label="Views of Packs"
          class="no-print"
          @show="show"
        />
        <el-button
          type="primary"
          class="no-print"
          @click="addPack"
        >
          New pack <KeyHint does="new" />
        </el-button>
      </div>
      <StationSays page="packs" />
      <div
        v-if="cells.length === 0 && view !== 'setups'"
        class="empty"
      >
        <p>Packs says for every pack and set-up what the craft weighs, whether that is clear, and how long it flies. Add a pack first.</p>
        <p class="soft">
          Not bought one yet? Look at typical ones.
        </p>
        <div class="acts">
          <el-button
            type="primary"
            @click="addPack"
          >
            Add a pack
          </el-button><NuxtLink
            class="button"
            :to="`/builds/${store.build!.id}/parts`"
          >Add parts</NuxtLink>
        </div>
      </div>
      <template v-else>
        <FlyingAssumptions v-if="view !== 'setups'" />
        <template v-if="view === 'sheet'">
          <LoadoutSheet
            :selected-key="packId ? null : cell?.key ?? null"
            :selected-pack-id="packId"
            :figure-key="figureKey"
            @cell="select"
            @pack="selectPack"
            @figure="figureKey = $event"
          />
          <LoadoutChart
            :selected-key="cell?.key ?? null"
            :y-key="figureKey"
            @cell="select"
            @y="figureKey = $event"
          />
        </template>
        <DischargeView
          v-else-if="view === 'discharge' && cell?.pack.pack"
          :cell="cell"
        />
        <p
          v-else-if="view === 'discharge' && cell"
          class="empty"
        >
          Nobody has said which pack {{ packLabel(cell.pack) }} is: without cells, chemistry and capacity there is no
          discharge to draw. <el-button @click="selectPack(cell.pack.id)">
            Say which pack it is
          </el-button>
        </p>
        <SetupTicks v-else-if="view === 'setups'" />
        <GoList v-else-if="view === 'go'" />
      </template>
    </main>
    <aside
      class="inspector"
      aria-label="Inspector"
    >
      <PackInspector
        v-if="pack"
        :key="pack.id"
        :pack="pack"
      />
      <template v-else-if="cell">
        <LoadoutInspector
          :cell="cell"
          @cell="select"
          @take="takeOnBuild"
        /><CarryPanel
          :choice="cell.choice"
          @cell="select"
        />
      </template>
      <template v-else>
        <h2>Packs</h2><p class="soft">
          The pack is the heaviest part and the last decision. Packs of one capacity differ by a tenth and more: weigh
          each and give it a label.
        </p>
      </template>
    </aside>
  </div>
</template>

<style scoped>
.empty {
  padding: 40px;
  text-align: center;
}
.acts {
  display: flex;
  gap: 8px;
  justify-content: center;
}
.say {
  font-size: 12.5px;
}
@media screen and (max-width: 760px) {
  .station-head .gap,
  .station-head kbd {
    display: none;
  }
  .say {
    flex-basis: 100%;
  }
}
</style>
