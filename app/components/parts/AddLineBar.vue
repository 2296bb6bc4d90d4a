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
const problems = reactive({ name: '', quantity: '', grams: '' })
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

function add() {
  const named = nameSchema('The name').safeParse(name.value.trim())
  const count = readQuantity(quantity.value)
  const read = grams.value.trim() === '' ? null : readGrams(grams.value)
  problems.name = named.success ? '' : named.error.issues[0]!.message
  problems.quantity = isNotRead(count) ? count.problem : ''
  problems.grams = read && isNotRead(read) ? read.problem : ''
  if (!named.success || isNotRead(count) || (read && isNotRead(read))) return
  const id = newId()
  const asWas = asPicked(id, count.quantity)
  const taken =
    read &&
    !asWas &&
    scales.typed(
      makeMass({ versionId: newId(), evidence: evidence.value, valueG: read.massG, resolutionG: read.stepG }),
    )
  problems.grams = taken && 'problem' in taken ? taken.problem : ''
  if (taken && 'problem' in taken) return
  const line = asWas ?? makeLine({
    id,
    slot: slot.value,
    name: named.data,
    quantity: count.quantity,
    mass: taken ? taken.mass : null,
    listing: read && evidence.value === 'listed' ? { valueG: read.massG, resolutionG: read.stepG } : null,
  })
  if (!store.run({ type: 'lines.add', lines: [line], beforeId: null })) return
  name.value = ''
  grams.value = ''
  picked.value = null
  if (!isSaid(evidence.value)) evidence.value = 'guess'
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
      <PickOne
        ref="first"
        v-model="slot"
        class="slot"
        field="Slot"
        :options="slotChoices"
      />
      <label class="field grow">What<NameField
        v-model="name"
        :slot-name="slot"
        :invalid="problems.name !== ''"
        eager
        @pick="take"
        @keydown.enter.prevent="add"
      /></label>
      <label class="field narrow">Many<el-input
        ref="many"
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
      v-for="(sentence, field) in problems"
      v-show="sentence"
      :key="field"
      class="problem"
      role="alert"
    >
      {{ sentence }}
    </p>
    <p class="soft">
      {{ isPicked ? pickedWords : slotFacts[slot].sentence }}
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
  min-width: 130px;
}
.narrow {
  width: 60px;
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
</style>
