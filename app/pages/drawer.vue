<script setup lang="ts">
import { counted, withPoint } from '#core/text/display'
import { filterParts, readFilter, type Part, makePart } from '#core/parts/drawer'
import { slots, slotFacts, type Slot } from '#core/model/ledger'
import { readLayout } from '#shared/sheet/column-layout'
import { drawerCsv } from '#shared/files/drawer-csv'

const drawer = useDrawerStore()
const route = useRoute()
useHead({ title: 'Drawer · Jolly Gram' })
onMounted(() =>
  drawer.load().catch(error => {
    drawer.problem = sentenceOf(error)
  }),
)
// Grams typed as weighed are read on the scale at hand; without the list they stay as typed.
onMounted(() =>
  useScalesStore()
    .load()
    .catch(() => undefined),
)

const text = ref(typeof route.query.filter === 'string' ? route.query.filter : '')
watch(
  () => route.query.filter,
  filter => {
    if (typeof filter === 'string') text.value = filter
  },
)
const kind = ref<Slot | ''>('')
const place = ref<'anywhere' | 'in the drawer' | 'on a build' | 'not owned'>('anywhere')
const terms = computed(() => readFilter(text.value))
const shown = computed(() => {
  const kept = filterParts(drawer.indexed, terms.value)
  if (kind.value === '' && place.value === 'anywhere') return kept
  return kept.filter(
    part =>
      (kind.value === '' || part.slot === kind.value) &&
      (place.value === 'anywhere' ||
        (place.value === 'in the drawer' && drawer.left(part) > 0) ||
        (place.value === 'on a build' && drawer.out(part) > 0) ||
        (place.value === 'not owned' && part.owned === 0)),
  )
})
const kinds = computed(() => slots.filter(slot => drawer.parts.some(part => part.slot === slot)))
const selection = ref<ReadonlySet<string>>(new Set())
const selectedId = ref(typeof route.query.part === 'string' ? route.query.part : null)
useSelectionInAddress('part', selectedId)
const selected = computed(() => (selectedId.value ? (drawer.partOf(selectedId.value) ?? null) : null))
const bringing = ref(false)
const kitting = ref(false)
const dropped = shallowRef<File | null>(null)
function takeDropped(files: readonly File[]) {
  dropped.value = files[0]!
  everBrought.value = bringing.value = true
}
const everBrought = ref(false)
const everKit = ref(false)
const removed = shallowRef<readonly Part[]>([])

async function add() {
  const part = makePart({
    id: newId(),
    slot: kind.value || 'motor',
    name: `New ${slotFacts[kind.value || 'motor'].label.toLowerCase()}`,
    owned: 1,
  })
  if (await drawer.put([part])) selectedId.value = part.id
}
/** Kept in this browser: another screen may want other columns. */
const keptLayout = useLocalStorage<unknown>('drawer-columns', null, {
  serializer: { read: text => JSON.parse(text) as unknown, write: value => JSON.stringify(value) },
})
const layout = computed({
  get: () => readLayout(keptLayout.value),
  set: next => {
    keptLayout.value = next
  },
})
const chosenParts = () => [...selection.value].flatMap(id => drawer.partOf(id) ?? [])
async function remove(parts: readonly Part[]) {
  if (!(await drawer.remove(parts.map(p => p.id)))) return
  removed.value = parts
  selection.value = new Set()
  selectedId.value = null
}
async function bringBack() {
  if (await drawer.put(removed.value)) removed.value = []
}
function setAll(fields: Partial<Part>) {
  return drawer.put(chosenParts().map(part => ({ ...part, ...fields })))
}
const tag = ref('')
async function tagAll() {
  const word = tag.value.trim()
  if (word === '') return
  const kept = await drawer.put(
    chosenParts().map(part => ({ ...part, tags: part.tags.includes(word) ? part.tags : [...part.tags, word] })),
  )
  if (kept) tag.value = ''
}
function save() {
  saveFile('drawer.csv', withPoint(() => drawerCsv(shown.value)), 'text/csv')
}
useSingleKeys({
  new: () => {
    void add()
  },
})
</script>

<template>
  <div class="drawer-page">
    <FileDrop
      words="Drop a list of parts here: you see what is in it before it comes in"
      @files="takeDropped"
    />
    <main class="worksheet">
      <div class="station-head">
        <h1>Drawer</h1><span
          class="soft"
          role="status"
        >{{
          shown.length === drawer.parts.length
            ? `${counted(drawer.parts.length)} kinds of parts`
            : `${counted(shown.length)} of ${counted(drawer.parts.length)}`
        }}</span><span class="gap" />
        <el-button @click="everKit = kitting = true">
          A kit came
        </el-button>
        <el-button @click="everBrought = bringing = true">
          Bring parts in
        </el-button>
        <span class="no-phone"><ColumnChooser v-model="layout" /></span>
        <el-button
          :disabled="shown.length === 0"
          @click="save"
        >
          As CSV
        </el-button>
        <el-button
          type="primary"
          @click="add"
        >
          New part <KeyHint does="new" />
        </el-button>
      </div>
      <div class="filter">
        <el-input
          v-model="text"
          type="search"
          aria-label="Filter the drawer"
          placeholder="1404–1505, 3000–4000 kV, ≤ 11 g"
        />
        <PickOne
          v-model="kind"
          label="Kind"
          :options="kinds.map((slot) => ({ value: slot, label: slotFacts[slot].label.toLowerCase() }))"
          none="every kind"
        />
        <PickOne
          v-model="place"
          label="Where"
          :options="['anywhere', 'in the drawer', 'on a build', 'not owned']"
        />
        <span
          v-if="terms.length > 0"
          class="soft understood"
        >{{ terms.map(t => t.understood).join(' · ') }}</span>
      </div>
      <p
        v-if="drawer.problem"
        class="problem"
        role="alert"
      >
        {{ drawer.problem }} <el-button
          link
          type="primary"
          @click="drawer.problem = ''"
        >
          Close
        </el-button>
      </p>
      <p
        v-if="removed.length > 0"
        class="note"
      >
        {{ removed.length === 1 ? `“${removed[0]!.name}” is deleted.` : `${removed.length} parts are deleted.` }} <el-button
          link
          type="primary"
          @click="bringBack"
        >
          Bring back
        </el-button>
      </p>
      <div
        v-if="selection.size > 1"
        class="many"
      >
        <b>{{ selection.size }} chosen</b>
        <OneField
          v-model="tag"
          class="tag"
          label="Tag for all chosen"
          placeholder="tag"
          :maxlength="40"
          words="Tag"
          @send="tagAll"
        />
        <PickOne
          label="Kind for all chosen"
          :options="slotChoices"
          placeholder="kind …"
          @update:model-value="setAll({ slot: $event as Slot, properties: null })"
        />
        <el-button @click="remove(chosenParts())">
          Delete
        </el-button><el-button
          link
          type="primary"
          @click="selection = new Set()"
        >
          Choose none
        </el-button>
      </div>
      <div
        v-if="drawer.loaded && drawer.parts.length === 0"
        class="empty"
      >
        <p>Nothing in the drawer yet. Put in what you own, or take a build apart into it.</p><el-button
          type="primary"
          @click="add"
        >
          Put in the first part
        </el-button>
      </div>
      <DrawerSheet
        v-else-if="drawer.loaded"
        v-model:selection="selection"
        v-model:layout="layout"
        :parts="shown"
        :selected-id="selectedId"
        @select="selectedId = $event"
        @remove="remove([$event])"
      />
      <PageWaits
        v-else-if="!drawer.problem"
        words="The drawer is on its way"
        :rows="12"
      />
    </main>
    <aside
      class="inspector"
      aria-label="Inspector"
    >
      <PartInspector
        v-if="selected"
        :key="selected.id"
        :part="selected"
        @close="selectedId = null"
        @remove="remove([$event])"
      />
      <template v-else>
        <h2>What you own</h2>
        <p>
          Each row is one kind of thing, so many pieces. A part moved into a build stays the same part: weigh it on
          either side and both know.
        </p>
        <h3>Filter by figures</h3>
        <p class="soft">
          Terms with commas between: a range or a bound with its unit (<span class="figure">≤ 11 g</span>,
          <span class="figure">3000–4000 kV</span>, <span class="figure">&gt; 400 mW</span>), four digits for a stator
          (<span class="figure">1404–1505</span>), a kind, or any word.
        </p>
        <template v-if="drawer.kits.length > 0">
          <h3>Kits and sets</h3><KitRow
            v-for="kit in drawer.kits"
            :key="kit.id"
            :kit="kit"
          />
        </template>
      </template>
    </aside>
    <LazyImportParts
      v-if="everBrought"
      v-model="bringing"
      :dropped="dropped"
    />
    <LazyKitSheet
      v-if="everKit"
      v-model="kitting"
    />
  </div>
</template>

<style scoped>
.drawer-page {
  display: flex;
  flex: 1;
  min-height: 0;
}
.worksheet {
  flex: 1;
  min-width: 0;
  background: var(--card);
  padding: 12px 16px 12px;
  display: flex;
  flex-direction: column;
}
.inspector {
  width: 320px;
  flex: none;
  background: var(--aside);
  border-left: 1px solid var(--line);
  padding: 14px 16px 24px;
  overflow: auto;
  font-size: 12.5px;
}
.filter {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-bottom: 8px;
  flex-wrap: wrap;
}
.filter .el-input {
  flex: 1;
  min-width: 220px;
  max-width: 420px;
  font-family: var(--mono);
}
.understood {
  font-size: 12px;
}
.many {
  display: flex;
  gap: 10px;
  align-items: center;
  background: var(--selection);
  border-radius: 7px;
  padding: 5px 10px;
  margin-bottom: 6px;
  flex-wrap: wrap;
}
.tag {
  width: 170px;
}
.many button,
.many select {
  padding: 3px 9px;
}
.empty {
  padding: 50px;
  text-align: center;
}
@media screen and (max-width: 760px) {
  .drawer-page {
    display: block;
  }
  .inspector {
    width: auto;
    border-left: 0;
    border-top: 1px solid var(--line);
    font-size: 15px;
  }
  .worksheet {
    padding: 12px;
    height: auto;
  }
}
</style>
