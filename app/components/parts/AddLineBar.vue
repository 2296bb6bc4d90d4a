<script setup lang="ts">
import { saidEvidences, makeLine, makeMass, slotFacts, slots, type Evidence, type Slot } from '#core/model/ledger'
import { isNotRead, readGrams, readQuantity } from '#core/text/units'
import { nameSchema } from '#core/text/schemas'

const emit = defineEmits<{ added: [lineId: string]; close: [] }>()
const store = useBuildStore()
const scales = useScalesStore()
const slot = ref<Slot>('strap')
const name = ref('')
const quantity = ref('1')
const grams = ref('')
const evidence = ref<Evidence>('guess')
const problems = reactive({ name: '', quantity: '', grams: '' })
const first = useTemplateRef<HTMLSelectElement>('first')
onMounted(() => first.value?.focus())
watch(slot, now => {
  quantity.value = String(slotFacts[now].usualCount)
})

function add() {
  const named = nameSchema('The name').safeParse(name.value.trim())
  const many = readQuantity(quantity.value)
  const read = grams.value.trim() === '' ? null : readGrams(grams.value)
  problems.name = named.success ? '' : named.error.issues[0]!.message
  problems.quantity = isNotRead(many) ? many.problem : ''
  problems.grams = read && isNotRead(read) ? read.problem : ''
  if (!named.success || isNotRead(many) || (read && isNotRead(read))) return
  const taken =
    read &&
    scales.typed(
      makeMass({ versionId: newId(), evidence: evidence.value, valueG: read.massG, resolutionG: read.stepG }),
    )
  problems.grams = taken && 'problem' in taken ? taken.problem : ''
  if (taken && 'problem' in taken) return
  const id = newId()
  const line = makeLine({
    id,
    slot: slot.value,
    name: named.data,
    quantity: many.quantity,
    mass: taken?.mass ?? null,
    listing: read && evidence.value === 'listed' ? { valueG: read.massG, resolutionG: read.stepG } : null,
  })
  if (!store.run({ type: 'lines.add', lines: [line], beforeId: null })) return
  name.value = ''
  grams.value = ''
  emit('added', id)
  first.value?.focus()
}
</script>

<template>
  <form
    class="add"
    aria-label="New line"
    novalidate
    @submit.prevent="add"
    @keydown.esc.stop="emit('close')"
  >
    <div class="row">
      <label class="field">Slot<select
        ref="first"
        v-model="slot"
      ><option
        v-for="s in slots"
        :key="s"
        :value="s"
      >{{ slotFacts[s].label }}</option></select></label>
      <label class="field grow">What<el-input
        v-model="name"
        autocomplete="off"
        :aria-invalid="problems.name !== ''"
      /></label>
      <label class="field narrow">Many<el-input
        v-model="quantity"
        inputmode="numeric"
        class="figure"
        :aria-invalid="problems.quantity !== ''"
      /></label>
      <label class="field narrow">Each, g<el-input
        v-model="grams"
        inputmode="decimal"
        class="figure"
        autocomplete="off"
        :aria-invalid="problems.grams !== ''"
      /></label>
      <label class="field">Known by<select v-model="evidence"><option
        v-for="e in saidEvidences"
        :key="e"
        :value="e"
      >{{ e }}</option></select></label>
      <el-button
        type="primary"
        native-type="submit"
      >
        Add
      </el-button>
      <el-button @click="emit('close')">
        Close
      </el-button>
    </div>
    <p
      v-for="(sentence, field) in problems"
      v-show="sentence"
      :key="field"
      class="problem"
      role="alert"
    >
      {{ sentence }}
    </p>
    <p class="soft">
      {{ slotFacts[slot].sentence }}
    </p>
  </form>
</template>

<style scoped>
.add {
  background: var(--paper);
  border: 1px solid var(--line);
  border-radius: 8px;
  padding: 10px 12px 6px;
  margin-bottom: 10px;
}
.row {
  display: flex;
  gap: 8px;
  align-items: end;
  flex-wrap: wrap;
}
.grow {
  flex: 1;
  min-width: 160px;
}
.narrow {
  width: 72px;
}
p {
  font-size: 12.5px;
  margin: 6px 0 2px;
}
</style>
