<script setup lang="ts">
import type { InputInstance } from 'element-plus'
import { lineGrams } from '#core/mass/evidence'
import { makeLine, makeMass, saidEvidences, type Evidence, type Line, type Slot } from '#core/model/ledger'
import { fixed } from '#core/text/display'
import { nameSchema } from '#core/text/schemas'
import { isNotRead, readGrams, readQuantity } from '#core/text/units'

/** Names a part of a line that stands for several: it gets a line of its own, and the rest weighs as much less. */
const open = defineModel<boolean>({ required: true })
const { whole } = defineProps<{ whole: Line }>()
const store = useBuildStore()
const scales = useScalesStore()
const form = reactive({ slot: 'motor' as Slot, name: '', quantity: '1', grams: '', evidence: 'weighed' as Evidence })
const field = useTemplateRef<InputInstance>('field')
const focusField = useDialogFocus(field)
const leftG = computed(() => store.estimates.of(whole).valueG)
/** The grams as they were typed, with how they are known. */
function massTyped() {
  const read = readGrams(form.grams)
  if (isNotRead(read)) return read
  return scales.typed(
    makeMass({ versionId: newId(), evidence: form.evidence, valueG: read.massG, resolutionG: read.stepG }),
  )
}

/** What stands in for a part of a craft: packs and payload come on by themselves, and would leave the total. */
const partSlots = slotChoices.filter(({ value }) => value !== 'pack' && value !== 'payload')

function check(): FieldProblems {
  const [count, typed] = [readQuantity(form.quantity), massTyped()]
  const isMore = 'mass' in typed && !isNotRead(count) && lineGrams(typed.mass, count.quantity) > leftG.value
  return {
    ...problemsOf(nameSchema('The name'), form.name.trim(), 'name'),
    quantity: isNotRead(count) ? count.problem : undefined,
    grams: 'problem' in typed ? typed.problem : isMore ? `Only ${fixed(leftG.value, 2)} g of it are left.` : undefined,
  }
}
const { fields, rules, problem, clear, send } = useFields(['name', 'quantity', 'grams'], check)
watch(
  open,
  () => {
    clear()
    Object.assign(form, { name: '', quantity: '1', grams: '' })
  },
  { immediate: true },
)
const take = () =>
  send(async () => {
    const [count, typed] = [readQuantity(form.quantity), massTyped()]
    if (isNotRead(count) || 'problem' in typed) return
    const { slot, name } = form
    const line = makeLine({ id: newId(), slot, name: name.trim(), quantity: count.quantity, mass: typed.mass })
    if (!store.run({ type: 'line.takeOut', id: whole.id, line, versionId: newId() })) throw new Error(store.refusal)
    open.value = false
  })
</script>

<template>
  <el-dialog
    v-model="open"
    title="Name a part of it"
    width="min(520px, 94vw)"
    @open-auto-focus="focusField"
  >
    <p class="soft">
      Of “{{ whole.name }}” {{ fixed(leftG, 2) }} g are left. What is named gets a line of its own, and the total stays as it is.
    </p>
    <el-form
      ref="fields"
      :model="form"
      :rules="rules"
      @submit.prevent="take"
    >
      <div class="slot-choice">
        <PickOne
          v-model="form.slot"
          field="What it is"
          :options="partSlots"
        />
      </div>
      <FormField
        label="Name"
        prop="name"
      >
        <el-input
          ref="field"
          v-model="form.name"
          maxlength="120"
        />
      </FormField>
      <div class="grams">
        <FormField
          label="Pieces"
          prop="quantity"
        >
          <el-input
            v-model="form.quantity"
            class="figure"
            inputmode="numeric"
          />
        </FormField>
        <FormField
          label="Each, g"
          prop="grams"
        >
          <el-input
            v-model="form.grams"
            class="figure"
            inputmode="decimal"
          />
        </FormField>
        <PickOne
          v-model="form.evidence"
          field="Known by"
          :options="saidEvidences"
        />
      </div>
      <p
        v-if="problem"
        class="problem"
        role="alert"
      >
        {{ problem }}
      </p>
      <el-button
        native-type="submit"
        type="primary"
      >
        Take it out
      </el-button>
    </el-form>
  </el-dialog>
</template>

<style scoped>
.slot-choice {
  width: 260px;
  max-width: 100%;
}
.el-form {
  display: grid;
  gap: 12px;
  justify-items: start;
}
.form-field,
.grams {
  width: 100%;
  margin: 0;
}
.grams {
  display: grid;
  grid-template-columns: 1fr 1fr 1.4fr;
  gap: 12px;
  align-items: start;
}
</style>
