<script setup lang="ts">
import { polarisations } from '#core/model/properties'
import type { GroundGear } from '#core/aircraft/fit'
import { isNotRead, readNumber } from '#core/text/units'

const props = defineProps<{ gear: GroundGear }>()
const emit = defineEmits<{ change: [gear: GroundGear] }>()
const problem = ref('')
const textOf = (event: Event) => (event.target as HTMLInputElement).value.trim()
function set(fields: Partial<GroundGear>) {
  problem.value = ''
  emit('change', { ...props.gear, ...fields })
}
function cells(event: Event) {
  if (textOf(event) === '') {
    set({ chargerCells: null })
    return
  }
  const read = readNumber(textOf(event))
  if (isNotRead(read) || !Number.isInteger(read.value)) problem.value = 'Cells are a whole number.'
  else set({ chargerCells: read.value })
}
</script>

<template>
  <section class="panel">
    <h2>On the ground</h2>
    <p class="soft">
      Fit holds each build against these. Several families or plugs: a semicolon between.
    </p>
    <div class="fields">
      <label class="field">Hand controller, radio family<EditField
        :value="gear.radioFamily"
        placeholder="2.4 GHz, wide"
        maxlength="80"
        @change="set({ radioFamily: textOf($event) })"
      /></label>
      <label class="field">Goggles, video family<EditField
        :value="gear.videoFamily"
        placeholder="digital"
        maxlength="80"
        @change="set({ videoFamily: textOf($event) })"
      /></label>
      <PickOne
        field="Goggles, hand of polarisation"
        :model-value="gear.polarisation"
        :options="polarisations"
        none="not said"
        @update:model-value="set({ polarisation: $event as GroundGear['polarisation'] })"
      />
      <label class="field">Charger, most cells<EditField
        :value="gear.chargerCells"
        class="figure"
        inputmode="numeric"
        @change="cells"
      /></label>
      <label class="field wide">Charger, plugs<EditField
        :value="gear.chargerPlugs"
        placeholder="two bullets 2 mm, 30 A class; two round pins 1.0 mm"
        maxlength="200"
        @change="set({ chargerPlugs: textOf($event) })"
      /></label>
    </div>
    <p
      v-if="problem"
      class="problem"
      role="alert"
    >
      {{ problem }}
    </p>
  </section>
</template>
