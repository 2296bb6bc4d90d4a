<script setup lang="ts">
import { gramsChangeWords } from '#core/changes/commands'

const store = useBuildStore()
const adding = ref(false)
const bringing = ref(false)
const choosing = ref(false)
const handing = ref(false)
const handed = shallowRef<readonly string[]>([])
function handOver(ids: readonly string[]) {
  handed.value = ids
  handing.value = true
}
const everBrought = ref(false)
const pasted = ref('')
const dropped = shallowRef<File | null>(null)
const whyText = ref('')

useSelectionInAddress('line', toRef(store, 'selectedId'))
watch(
  () => store.lastEntry?.seq,
  () => {
    whyText.value = ''
  },
)
useSingleKeys({
  new: () => {
    adding.value = true
  },
})

/** The inspector of another line comes once the ledger and the strip show the choice. */
const { shown: inspected, late } = useAfterPaint(
  () => store.selected,
  ({ id }) => id,
)
const last = computed(() => (store.lastEntry?.kind === 'do' && store.lastEntry.note === '' ? store.lastEntry : null))
function saveWhy() {
  if (last.value && whyText.value.trim()) store.annotate(last.value.seq, whyText.value.trim())
}
const printLedger = () => window.print()
onMounted(() => {
  const rows = useCarriedRows().takeUp()
  if (rows) bring(rows)
})
function bring(text = '', file: File | null = null) {
  pasted.value = text
  dropped.value = file
  everBrought.value = true
  bringing.value = true
}
</script>

<template>
  <div class="station">
    <FileDrop
      words="Drop a parts list here: its rows are shown before they come in"
      @files="bring('', $event[0]!)"
    />
    <main class="worksheet">
      <div class="station-head">
        <h1>Parts</h1><span class="gap" />
        <el-button
          v-if="store.build!.lines.length > 1"
          :aria-pressed="choosing"
          @click="choosing = !choosing"
        >
          Several
        </el-button>
        <el-button
          class="no-phone"
          :disabled="store.build!.lines.length === 0"
          @click="printLedger"
        >
          Print
        </el-button>
        <el-button @click="bring()">
          Bring in rows
        </el-button>
        <el-button
          type="primary"
          @click="adding = true"
        >
          New line <KeyHint does="new" />
        </el-button>
      </div>
      <StationSays page="parts" />
      <AddLineBar
        v-if="adding"
        @added="store.selectedId = $event"
        @close="adding = false"
      />
      <div
        v-if="store.build!.lines.length === 0"
        class="empty"
      >
        <p>No parts yet. A build with one line already has a total.</p>
        <el-button
          type="primary"
          @click="adding = true"
        >
          Add the first line
        </el-button>
      </div>
      <div
        v-else
        class="sheet"
      >
        <PartsSheet
          v-model:choosing="choosing"
          @rows="bring"
          @hand-over="handOver"
        />
      </div>
      <SameOrAnother class="asking" />
      <OneField
        v-if="last"
        v-model="whyText"
        class="why no-print"
        label="Reason for the last change"
        placeholder="why? (optional)"
        words="Note it"
        @send="saveWhy"
      >
        <template #before>
          <span>{{ last.title }} <span class="figure soft">{{ gramsChangeWords(last.gramsBeforeG, last.gramsAfterG) }}</span></span>
        </template>
      </OneField>
      <LazyHandOver
        v-if="handed.length > 0"
        v-model="handing"
        :first="handed"
      />
      <LazyBringInRows
        v-if="everBrought"
        v-model="bringing"
        :pasted="pasted"
        :dropped="dropped"
      />
    </main>
    <aside
      class="inspector"
      aria-label="Inspector"
      :aria-disabled="late || undefined"
    >
      <LineInspector
        v-if="inspected"
        :key="inspected.id"
        :line="inspected"
      />
      <BuildInspector v-else />
    </aside>
  </div>
</template>

<style scoped>
.empty {
  padding: 40px;
  text-align: center;
}
.asking {
  margin-top: 12px;
}
.why {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-top: 12px;
  padding: 6px 10px;
  background: var(--paper);
  border-radius: 7px;
  font-size: 12.5px;
  flex-wrap: wrap;
}
.why .el-input {
  flex: 1;
  min-width: 140px;
  padding: 3px 8px;
}
.why button {
  padding: 3px 9px;
}
</style>
