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
const problem = ref('')

const reason = fromBefore
  ? 'It was saved as 1S 300 mAh LiPo, which every new pack once came as. If that is what it is, say ' +
    'so; otherwise write what is printed on it.'
  : 'Cells, chemistry and capacity are printed on it. Until they are said, its grams count, but there are no minutes and no amps.'

function say() {
  problem.value = ''
  const read = { cells: readNumber(cells.value), capacityMah: readNumber(withoutUnit(capacity.value, 'mah')) }
  if (isNotRead(read.cells)) {
    problem.value = 'How many cells? A whole number, as in the 4 of 4S.'
    return
  }
  if (chemistry.value === '') {
    problem.value = 'Which chemistry? It stands on the pack.'
    return
  }
  if (isNotRead(read.capacityMah)) {
    problem.value = 'What capacity, in mAh?'
    return
  }
  const parsed = packFactsSchema.safeParse({
    ...props.soFar,
    label: label.value.trim(),
    cells: read.cells.value,
    chemistry: chemistry.value,
    capacityMah: read.capacityMah.value,
    cRating: props.soFar?.cRating ?? null,
    plug: props.soFar?.plug ?? '',
  })
  if (parsed.success) emit('said', parsed.data)
  else problem.value = parsed.error.issues[0]!.message
}
</script>

<template>
  <form
    class="question"
    aria-label="Which pack is it?"
    novalidate
    @submit.prevent="say"
  >
    <h3>Which pack is it?</h3>
    <p class="soft">
      {{ reason }}
    </p>
    <div class="fields">
      <label class="field">Label<el-input
        v-model="label"
        autocomplete="off"
      /></label>
      <PickOne
        v-model="chemistry"
        field="Chemistry"
        :options="chemistries"
        placeholder="not said"
      />
      <label class="field">Cells<el-input
        v-model="cells"
        inputmode="numeric"
        class="figure"
        placeholder="4"
        autocomplete="off"
      /></label>
      <label class="field">mAh<el-input
        v-model="capacity"
        inputmode="decimal"
        class="figure"
        placeholder="650"
        autocomplete="off"
      /></label>
    </div>
    <p
      v-if="problem"
      class="problem"
      role="alert"
    >
      {{ problem }}
    </p>
    <el-button
      type="primary"
      native-type="submit"
    >
      That is the pack
    </el-button>
  </form>
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
