<script setup lang="ts">
import { roles, saidEvidences, type Line, type Slot } from '#core/model/ledger'
import { editCellAt } from '#shared/sheet/edit-cell'
import { nameSchema } from '#core/text/schemas'
import type { LineFields } from '#core/changes/commands'

/** Changes several lines at once: one entry of the record, one step back. */
const props = defineProps<{ lines: readonly Line[] }>()
const emit = defineEmits<{ done: []; all: []; handOver: [] }>()
const store = useBuildStore()
const scales = useScalesStore()
const problem = ref('')
const tie = ref('')

/** Every line gets its fields, or none does. */
function changeAll(fieldsOf: (line: Line) => { readonly fields: LineFields } | { readonly problem: string } | null) {
  problem.value = ''
  const changes: { id: string; fields: LineFields }[] = []
  for (const line of props.lines) {
    const edited = fieldsOf(line)
    if (edited && 'problem' in edited) {
      problem.value = `${lineTitle(line)}: ${edited.problem} Nothing was changed.`
      return
    }
    if (edited) changes.push({ id: line.id, fields: edited.fields })
  }
  if (changes.length > 0 && !store.run({ type: 'lines.change', changes })) problem.value = store.refusal
}
const setState = (state: string) =>
  changeAll(line =>
    line.state === 'candidate'
      ? { problem: 'it is a candidate, fit it by itself.' }
      : { fields: { state: state as Line['state'] } },
  )
const setEvidence = (text: string) =>
  changeAll(line => (line.mass?.evidence === text ? null : editCellAt(line, 'known', text, newId(), scales.typed)))
const setSlot = (slot: string) => changeAll(() => ({ fields: { slot: slot as Slot } }))
const setRole = (role: string) => changeAll(() => ({ fields: { role: role as Line['role'] } }))
function setTie() {
  const text = tie.value.trim()
  const named = nameSchema('The tie').safeParse(text)
  if (text !== '' && !named.success) problem.value = named.error.issues[0]!.message
  else changeAll(() => ({ fields: { tie: text === '' ? null : text } }))
}
function remove() {
  const ids = props.lines.map(line => line.id)
  store.selectedId = null
  if (!store.run({ type: 'lines.delete', ids })) {
    problem.value = store.refusal
    return
  }
  emit('done')
  void tell(`${ids.length} lines are deleted.`, { words: 'Take back', act: () => store.step('undo') })
}
</script>

<template>
  <section
    class="many-lines no-print"
    aria-label="Change the chosen lines"
  >
    <b>{{ lines.length }} {{ lines.length === 1 ? 'line' : 'lines' }} chosen</b>
    <PickOne
      label="State of all chosen"
      placeholder="state …"
      :options="[{ value: 'fitted', label: 'fitted' }, { value: 'off', label: 'taken off' }]"
      @update:model-value="setState"
    />
    <PickOne
      label="How the grams of all chosen are known"
      placeholder="known by …"
      :options="saidEvidences"
      @update:model-value="setEvidence"
    />
    <PickOne
      label="Slot of all chosen"
      placeholder="slot …"
      :options="slotChoices"
      @update:model-value="setSlot"
    />
    <PickOne
      label="Role of all chosen"
      placeholder="role …"
      :options="roles"
      @update:model-value="setRole"
    />
    <OneField
      v-model="tie"
      class="tie"
      label="Tie all chosen together as"
      placeholder="tie …"
      :maxlength="120"
      :words="tie.trim() === '' ? 'Untie' : 'Tie'"
      @send="setTie"
    />
    <el-button @click="emit('handOver')">
      Move …
    </el-button>
    <el-button @click="remove">
      Delete
    </el-button>
    <span class="gap" />
    <el-button
      link
      type="primary"
      @click="emit('all')"
    >
      All
    </el-button>
    <el-button
      link
      type="primary"
      @click="emit('done')"
    >
      Done
    </el-button>
    <p
      v-if="problem"
      class="problem"
      role="alert"
    >
      {{ problem }}
    </p>
  </section>
</template>

<style scoped>
.many-lines {
  position: sticky;
  bottom: 6px;
  z-index: 6;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  padding: 8px 10px;
  margin-top: 8px;
  background: var(--note);
  box-shadow: 0 2px 12px rgb(0 0 0 / 16%);
  border-radius: 7px;
  font-size: 13px;
}
@media screen and (max-width: 760px) {
  .many-lines {
    bottom: 66px;
  }
}
.many-lines .gap {
  flex: 1;
}
.many-lines > :deep(.pick-one) {
  width: 116px;
}
.tie {
  width: 160px;
}
.problem {
  flex-basis: 100%;
  margin: 0;
}
</style>
