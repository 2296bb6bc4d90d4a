<script setup lang="ts">
import { slotFacts, type Line } from '#core/model/ledger'

const open = defineModel<boolean>({ required: true })
const props = defineProps<{ first: readonly string[] }>()
const store = useBuildStore()
const drawer = useDrawerStore()
const shelf = useShelfStore()
const chosen = ref<ReadonlySet<string>>(new Set())
const to = ref('drawer')
const problem = ref('')
const places = computed(() => [
  { value: 'drawer', label: 'into the drawer' },
  ...shelf.entries
    .filter(entry => entry.id !== store.build!.id && !entry.reference)
    .map(({ id, name }) => ({ value: id, label: `to ${name}` })),
])
const staysWithBuild = (line: Line) => line.slot === 'other' || line.slot === 'coating'
const lines = computed(() => store.build!.lines)
const movable = computed(() => lines.value.filter(line => to.value !== 'drawer' || !staysWithBuild(line)))
watch(
  open,
  now => {
    if (!now) return
    chosen.value = new Set(props.first)
    problem.value = ''
    if (shelf.entries.length === 0) void shelf.load()
  },
  { immediate: true },
)
const ids = computed(() => movable.value.filter(line => chosen.value.has(line.id)).map(line => line.id))
function toggle(id: string) {
  const next = new Set(chosen.value)
  if (!next.delete(id)) next.add(id)
  chosen.value = next
}
async function go() {
  await store.settled()
  const build = store.build!
  const kept = await drawer.handOver(build.id, store.revision, {
    lineIds: ids.value,
    to: to.value === 'drawer' ? { kind: 'drawer' } : { kind: 'build', id: to.value },
  })
  if (!kept) {
    problem.value = drawer.problem
    drawer.problem = ''
    return
  }
  const many = ids.value.length === 1 ? 'The line is' : `${ids.value.length} lines are`
  const where = to.value === 'drawer' ? 'in the drawer' : `on ${shelf.entries.find(one => one.id === to.value)?.name}`
  store.selectedId = null
  await Promise.all([store.open(build.id), drawer.load()])
  open.value = false
  void tell(`${many} ${where} now.`, { words: 'Take back', act: () => store.step('undo') })
}
</script>

<template>
  <el-dialog
    v-model="open"
    title="Take apart or move"
    width="min(640px, 96vw)"
    top="6vh"
  >
    <p>The lines leave this build with their grams, weighings and lead lengths. Undo brings them back on both sides.</p>
    <PickOne
      v-model="to"
      field="Where to"
      :options="places"
    />
    <p class="all">
      <el-button
        link
        type="primary"
        @click="chosen = new Set(movable.map(l => l.id))"
      >
        Choose all
      </el-button><el-button
        link
        type="primary"
        @click="chosen = new Set()"
      >
        none
      </el-button>
    </p>
    <div class="list">
      <el-checkbox
        v-for="line in movable"
        :key="line.id"
        :model-value="chosen.has(line.id)"
        @change="toggle(line.id)"
      >
        <span><span class="soft">{{ slotFacts[line.slot].label }}</span>
          {{ lineTitle(line) }}<template v-if="line.quantity > 1"> × {{ line.quantity }}</template></span>
      </el-checkbox>
    </div>
    <p
      v-if="to === 'drawer' && lines.some(staysWithBuild)"
      class="soft"
    >
      Solder, tape and coating stay: they are nobody’s part.
    </p>
    <p
      v-if="problem"
      class="problem"
      role="alert"
    >
      {{ problem }}
    </p>
    <div class="foot">
      <el-button @click="open = false">
        Leave them
      </el-button><el-button
        type="primary"
        :disabled="ids.length === 0"
        @click="go"
      >
        {{ to === 'drawer' ? 'Put' : 'Move' }} {{ ids.length === 1 ? 'the line' : `${ids.length} lines` }}
      </el-button>
    </div>
  </el-dialog>
</template>

<style scoped>
.list {
  max-height: 46vh;
  overflow: auto;
  border: 1px solid var(--line);
  border-radius: 6px;
  padding: 4px 10px;
}
.foot {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
  margin-top: 12px;
}
.all {
  margin: 8px 0 2px;
}
</style>
