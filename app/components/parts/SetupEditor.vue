<script setup lang="ts">
import { isOptional } from '#core/mass/loadout'
import { nameSchema } from '#core/text/schemas'
import type { Setup } from '#core/model/ledger'

const store = useBuildStore()
const newName = ref('')
const problem = ref('')
const optional = computed(() => store.build!.lines.filter(line => line.state === 'fitted' && isOptional(line)))

function put(setup: Setup) {
  const named = nameSchema('The set-up’s name').safeParse(setup.name.trim())
  problem.value = named.success ? '' : named.error.issues[0]!.message
  if (named.success) store.run({ type: 'setup.put', setup: { ...setup, name: named.data } })
  return named.success
}
function add() {
  if (put({ id: newId(), name: newName.value, lineIds: [] })) newName.value = ''
}
const list = useTemplateRef<HTMLElement>('list')
function moveTo(from: number, to: number) {
  const { setups } = store.build!
  const beforeId = (to > from ? setups[to + 1]?.id : setups[to]?.id) ?? null
  store.run({ type: 'setup.move', id: setups[from]!.id, beforeId })
}
useReorder(list, { handle: '.grip', rows: '.setup', moved: moveTo })
function contents(setup: Setup): string {
  const names = optional.value.filter(line => setup.lineIds.includes(line.id)).map(line => line.name)
  return names.length > 0 ? names.join(', ') : 'nothing optional'
}
</script>

<template>
  <h3>Set-ups</h3>
  <p class="soft">
    A set-up says which fittings and payload fly.
    {{ optional.length === 0 ? 'Give a line the role fitting or payload first.' : 'Tick them at each such line, under “Flies in”.' }}
  </p>
  <div ref="list">
    <div
      v-for="(setup, i) in store.build!.setups"
      :key="setup.id"
      class="setup"
      @keydown.alt.up.prevent="i > 0 && moveTo(i, i - 1)"
      @keydown.alt.down.prevent="i < store.build!.setups.length - 1 && moveTo(i, i + 1)"
    >
      <RowGrip /><EditField
        :value="setup.name"
        :aria-label="`Name of set-up ${setup.name}`"
        @change="put({ ...setup, name: ($event.target as HTMLInputElement).value })"
      />
      <el-button
        link
        type="primary"
        :disabled="store.build!.setups.length === 1"
        :aria-label="`Delete set-up ${setup.name}`"
        @click="store.run({ type: 'setup.delete', id: setup.id })"
      >
        Delete
      </el-button>
      <span class="soft">{{ contents(setup) }}</span>
    </div>
  </div>
  <OneField
    v-model="newName"
    class="new"
    label="Name of the new set-up"
    placeholder="New set-up"
    words="Add"
    button="link"
    :problem="problem"
    @send="add"
  />
</template>

<style scoped>
.new {
  padding: 4px 0 4px 22px;
}
.setup {
  display: grid;
  grid-template-columns: 14px 1fr auto;
  gap: 2px 8px;
  align-items: center;
  padding: 4px 0;
}
.setup .soft {
  grid-column: 2 / -1;
}
.setup .el-input {
  padding: 3px 7px;
  font-size: 12.5px;
}
</style>
