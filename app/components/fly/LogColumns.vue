<script setup lang="ts">
import { quantities, unitFactors, type Columns, type HeadsRead, type Quantity } from '#core/aircraft/telemetry'

/** Which column of a log is what, in which unit: as it was understood, to be corrected. */
const { heads } = defineProps<{ heads: HeadsRead }>()
const emit = defineEmits<{ columns: [columns: Columns] }>()
const all = Object.keys(quantities) as Quantity[]
const chosen = shallowRef<Partial<Record<Quantity, { index: number; unit: string }>>>({ ...heads.columns })
watch(
  () => heads,
  now => {
    chosen.value = { ...now.columns }
  },
)
const columnChoices = computed(() => heads.heads.map((head, index) => ({ value: String(index), label: head || `column ${index + 1}` })))
const unitsOf = (quantity: Quantity) => Object.keys(unitFactors[quantity])
function setColumn(quantity: Quantity, index: string) {
  const { [quantity]: before, ...others } = chosen.value
  chosen.value =
    index === '' ? others : { ...others, [quantity]: { index: Number(index), unit: before?.unit ?? unitsOf(quantity)[0]! } }
}
function setUnit(quantity: Quantity, unit: string) {
  const before = chosen.value[quantity]
  if (before) chosen.value = { ...chosen.value, [quantity]: { ...before, unit } }
}
</script>

<template>
  <div class="columns">
    <div
      v-for="quantity in all"
      :key="quantity"
      class="one"
    >
      <PickOne
        :model-value="chosen[quantity] ? String(chosen[quantity]!.index) : ''"
        :field="quantities[quantity].name"
        :options="columnChoices"
        none="not in it"
        @update:model-value="setColumn(quantity, $event)"
      /><PickOne
        v-if="chosen[quantity]"
        :model-value="chosen[quantity]!.unit"
        field="in"
        :options="unitsOf(quantity)"
        :class="{ judged: heads.judged.includes(quantity) }"
        @update:model-value="setUnit(quantity, $event)"
      />
    </div>
  </div>
  <p
    v-if="heads.judged.length > 0"
    class="soft"
  >
    No head says the unit of {{ heads.judged.map((one) => quantities[one].name.toLowerCase()).join(', ') }}: judged by the figures.
  </p>
  <el-button
    type="primary"
    :disabled="!chosen.time"
    @click="emit('columns', chosen)"
  >
    Read it so
  </el-button>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(260px, 1fr));
  gap: 8px 16px;
}
.one {
  display: grid;
  grid-template-columns: 1fr 84px;
  gap: 6px;
}
</style>
