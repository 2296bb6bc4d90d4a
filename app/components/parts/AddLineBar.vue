<script setup lang="ts">
import type { InputInstance } from 'element-plus'
import type { Offer } from '#core/deciding/choosing'
import {
  saidEvidences,
  makeLine,
  makeMass,
  slotFacts,
  type Evidence,
  type Line,
  type Mass,
  type Slot,
} from '#core/model/ledger'
import { fixed } from '#core/text/display'
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
const many = useTemplateRef<InputInstance>('many')
const first = useTemplateRef<{ focus(): void }>('first')
onMounted(() => first.value?.focus())
const isSaid = (how: Evidence) => (saidEvidences as readonly Evidence[]).includes(how)
const decimalsOf = ({ resolutionG }: Mass) => (resolutionG > 0 ? Math.max(0, Math.round(-Math.log10(resolutionG))) : 2)
watch(slot, now => {
  quantity.value = String(slotFacts[now].usualCount)
})

/** The part that was meant: it is put on with all that is known of it, unless its name or grams are typed over. */
const picked = shallowRef<{ line: Line; detail: string; grams: string; evidence: Evidence } | null>(null)
async function take(line: Line, offer: Offer) {
  slot.value = line.slot
  await nextTick()
  const { mass } = line
  name.value = line.name
  grams.value = mass ? fixed(mass.valueG / mass.valueCount, decimalsOf(mass)) : ''
  if (mass) evidence.value = mass.evidence
  picked.value = { line, detail: offer.detail, grams: grams.value, evidence: evidence.value }
  many.value?.focus()
}
/** A twin is only known as one while its grams are left as they were. */
const evidences = computed((): readonly Evidence[] =>
  isSaid(evidence.value) ? saidEvidences : [...saidEvidences, evidence.value],
)
watch(grams, now => {
  if (picked.value?.grams !== now && !isSaid(evidence.value)) evidence.value = 'guess'
})
const isPicked = computed(() => picked.value !== null && name.value.trim() === picked.value.line.name)
const pickedWords = computed(() => {
  const { line, detail } = picked.value!
  const what = line.partId ? 'It becomes this part of the drawer' : 'It comes with what is known of it'
  return `${what}: ${detail}. Another name or other grams make it a part of its own.`
})
/** The line that was picked, if its grams were left as they were. */
function asPicked(id: string, quantity: number): Line | null {
  const { line, grams: was, evidence: how } = picked.value ?? {}
  const stands = isPicked.value && line?.slot === slot.value && grams.value === was && evidence.value === how
  return stands ? { ...line, id, quantity } : null
}

/** The grams as they were typed, with how they are known. */
function massTyped() {
  const read = grams.value.trim() === '' ? null : readGrams(grams.value)
  if (!read || isNotRead(read)) return read
  return scales.typed(
    makeMass({ versionId: newId(), evidence: evidence.value, valueG: read.massG, resolutionG: read.stepG }),
  )
}
function listingTyped() {
  const read = readGrams(grams.value)
  return evidence.value === 'listed' && !isNotRead(read) ? { valueG: read.massG, resolutionG: read.stepG } : null
}
const form = computed(() => ({ name: name.value, quantity: quantity.value, grams: grams.value }))
const { fields, rules, sent, problem, send } = useFields(['name', 'quantity', 'grams'], () => {
  const count = readQuantity(quantity.value)
  // The part that was picked comes with its own grams, whatever scale they were read on.
  const mass = asPicked('', 1) ? null : massTyped()
  return {
    ...problemsOf(nameSchema('The name'), name.value.trim(), 'name'),
    quantity: isNotRead(count) ? count.problem : undefined,
    grams: mass && 'problem' in mass ? mass.problem : undefined,
  }
})
/** Escape closes an open list first, then the bar; a list that is closed would keep it to itself. */
function escape(event: KeyboardEvent) {
  if ((event.target as HTMLElement).getAttribute('aria-expanded') === 'true') return
  event.stopPropagation()
  emit('close')
}
/** Sent without a name: its sentence is not hidden behind offers, until something is typed. */
const missed = ref(false)
watch(name, () => {
  missed.value = false
})
async function add() {
  missed.value = name.value.trim() === ''
  await send(async () => {
    const count = readQuantity(quantity.value)
    if (isNotRead(count)) return
    const id = newId()
    const asWas = asPicked(id, count.quantity)
    const typed = asWas ? null : massTyped()
    if (typed && 'problem' in typed) return
    const line =
      asWas ??
      makeLine({
        id,
        slot: slot.value,
        name: name.value.trim(),
        quantity: count.quantity,
        mass: typed?.mass ?? null,
        listing: listingTyped(),
      })
    if (!store.run({ type: 'lines.add', lines: [line], beforeId: null })) throw new Error(store.refusal)
    name.value = ''
    grams.value = ''
    picked.value = null
    if (!isSaid(evidence.value)) evidence.value = 'guess'
    await nextTick()
    fields.value?.clearValidate()
    emit('added', id)
    first.value?.focus()
  })
}
</script>

<template>
  <el-form
    ref="fields"
    class="add"
    :model="form"
    :rules="rules"
    aria-label="New line"
    @submit.prevent="add"
    @keydown.esc.capture="escape"
  >
    <div class="row">
      <PickOne
        ref="first"
        v-model="slot"
        class="slot"
        field="Slot"
        :options="slotChoices"
      />
      <FormField
        class="grow"
        label="What"
        prop="name"
        :problem="sent.name"
      >
        <NameField
          v-model="name"
          :slot-name="slot"
          :eager="!missed"
          @pick="take"
          @keydown.enter.prevent="add"
        />
      </FormField>
      <FormField
        class="narrow"
        label="Many"
        prop="quantity"
        :problem="sent.quantity"
      >
        <el-input
          ref="many"
          v-model="quantity"
          inputmode="numeric"
          class="figure"
        />
      </FormField>
      <FormField
        class="narrow"
        label="Each, g"
        prop="grams"
        :problem="sent.grams"
      >
        <el-input
          v-model="grams"
          inputmode="decimal"
          class="figure"
          autocomplete="off"
        />
      </FormField>
      <PickOne
        v-model="evidence"
        class="known"
        field="Known by"
        :options="evidences"
      />
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
      v-if="problem"
      class="problem"
      role="alert"
    >
      {{ problem }}
    </p>
    <p class="soft">
      {{ isPicked ? pickedWords : slotFacts[slot].sentence }}
    </p>
  </el-form>
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
  align-items: start;
  flex-wrap: wrap;
}
.grow {
  flex: 1;
  min-width: 130px;
}
.narrow {
  width: 64px;
}
.narrow:has(.problem) {
  width: 180px;
}
.grow :deep(.name-field) {
  flex: 1;
}
.known {
  width: 112px;
}
p {
  font-size: 12.5px;
  margin: 6px 0 2px;
}
.slot {
  width: 132px;
}
.row > .el-button {
  margin-top: 20px;
}
</style>
