<script setup lang="ts">
import { cameMadeUp, chemistries, packInWords, type PackFacts, type PackSoFar } from '#core/model/ledger'
import { isNotRead, readNumber, withoutUnit } from '#core/text/units'
import { packFactsSchema } from '#shared/schemas/build'

const props = defineProps<{ name: string; soFar: PackSoFar | null }>()
const emit = defineEmits<{ said: [pack: PackFacts] }>()

const offered = { ...packInWords(props.name), ...props.soFar }
const fromBefore = cameMadeUp(props.soFar)
const label = ref(offered.label ?? props.name.slice(0, 40))
const cells = ref(offered.cells === undefined ? '' : String(offered.cells))
const chemistry = ref<string>(offered.chemistry ?? '')
const capacity = ref(offered.capacityMah === undefined ? '' : String(offered.capacityMah))
const problems = ref<FieldProblems>({})

const reason = fromBefore
  ? 'It was saved as 1S 300 mAh LiPo, which every new pack once came as. If that is what it is, say ' +
    'so; otherwise write what is printed on it.'
  : 'Cells, chemistry and capacity are printed on it. Until they are said, its grams count, but there are no minutes and no amps.'

const numberOr = (text: string, question: string) => {
  const read = readNumber(text)
  return isNotRead(read) ? { problem: question } : read.value
}
function say() {
  const read = fieldsBy(packFactsSchema, {
    ...props.soFar,
    label: label.value.trim(),
    cells: numberOr(cells.value, 'How many cells? A whole number, as in the 4 of 4S.'),
    chemistry: chemistry.value === '' ? { problem: 'Which chemistry? It stands on the pack.' } : chemistry.value,
    capacityMah: numberOr(withoutUnit(capacity.value, 'mah'), 'What capacity, in mAh?'),
    cRating: props.soFar?.cRating ?? null,
    plug: props.soFar?.plug ?? '',
  })
  problems.value = 'problems' in read ? read.problems : {}
  if ('value' in read) emit('said', read.value)
}
</script>

<template>
  <el-form
    class="question"
    aria-label="Which pack is it?"
    @submit.prevent="say"
  >
    <h3>Which pack is it?</h3>
    <p class="soft">
      {{ reason }}
    </p>
    <div class="fields">
      <FormField
        label="Label"
        :problem="problems.label"
      >
        <el-input
          v-model="label"
          autocomplete="off"
        />
      </FormField>
      <FormField
        label=""
        :problem="problems.chemistry"
      >
        <PickOne
          v-model="chemistry"
          field="Chemistry"
          :options="chemistries"
          placeholder="not said"
        />
      </FormField>
      <FormField
        label="Cells"
        :problem="problems.cells"
      >
        <el-input
          v-model="cells"
          inputmode="numeric"
          class="figure"
          placeholder="4"
          autocomplete="off"
        />
      </FormField>
      <FormField
        label="mAh"
        :problem="problems.capacityMah"
      >
        <el-input
          v-model="capacity"
          inputmode="decimal"
          class="figure"
          placeholder="650"
          autocomplete="off"
        />
      </FormField>
    </div>
    <el-button
      type="primary"
      native-type="submit"
    >
      That is the pack
    </el-button>
  </el-form>
</template>

<style scoped>
.question {
  border: 1px dashed var(--edge);
  border-radius: 8px;
  padding: 4px 12px 12px;
  margin: 10px 0;
}
.question h3 {
  margin-top: 8px;
}
.question button {
  margin-top: 8px;
}
</style>
