<script setup lang="ts">
import { chemistries, type Chemistry, type PackFacts } from '#core/model/ledger'
import { isNotRead, readNumber } from '#core/text/units'
import { packFactsSchema } from '#shared/schemas/build'

const props = defineProps<{ pack: PackFacts }>()
const emit = defineEmits<{ change: [pack: PackFacts] }>()
const problem = ref('')

function change(key: keyof PackFacts, text: string) {
  let value: unknown = text.trim()
  if (key === 'cells' || key === 'capacityMah' || key === 'cRating') {
    const read = readNumber(text)
    if (isNotRead(read) && !(key === 'cRating' && text.trim() === '')) {
      problem.value = read.problem
      return
    }
    value = isNotRead(read) ? null : read.value
  }
  const parsed = packFactsSchema.safeParse({ ...props.pack, [key]: value })
  problem.value = parsed.success ? '' : parsed.error.issues[0]!.message
  if (parsed.success) emit('change', parsed.data)
}
const textOf = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <h3>Pack</h3>
  <div class="fields">
    <label class="field">Label<EditField
      :value="pack.label"
      @change="change('label', textOf($event))"
    /></label>
    <PickOne
      field="Chemistry"
      :model-value="pack.chemistry"
      :options="chemistries"
      @update:model-value="change('chemistry', $event as Chemistry)"
    />
    <label class="field">Cells<EditField
      :value="pack.cells"
      inputmode="numeric"
      class="figure"
      @change="change('cells', textOf($event))"
    /></label>
    <label class="field">mAh<EditField
      :value="pack.capacityMah"
      inputmode="decimal"
      class="figure"
      @change="change('capacityMah', textOf($event))"
    /></label>
    <label class="field">C rating<EditField
      :value="pack.cRating ?? ''"
      inputmode="decimal"
      class="figure"
      @change="change('cRating', textOf($event))"
    /></label>
    <PlugField
      field="Plug"
      :value="pack.plug"
      @change="change('plug', $event)"
    />
  </div>
  <p
    v-if="problem"
    class="problem"
    role="alert"
  >
    {{ problem }}
  </p>
  <p class="soft">
    Charge attended, on a fire-safe surface, at the cell count and rate printed on the pack. Never fly or charge a swollen or damaged one.
  </p>
</template>
