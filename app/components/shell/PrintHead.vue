<script setup lang="ts">
import { gramsWithSpread, headroomWords } from '#core/text/display'
import { cardName } from '#core/limits/rules'
import { loadoutName } from '#core/mass/loadout'
import { judgementWord } from '#core/mass/report'

/** What stands above every printed page of a build: which build, on which day, and its verdict. */
const store = useBuildStore()
const overview = computed(() => store.overview)
const verdict = computed(() => {
  const binding = overview.value?.binding
  if (!binding) return 'no rule card chosen'
  const room = binding.verdict ? `, ${headroomWords(binding.verdict.headroomG, overview.value!.spreadG)}` : ''
  return `${judgementWord(binding)}${room} under ${cardName(binding.card)}`
})
</script>

<template>
  <header
    v-if="store.build && overview"
    class="print-head"
    aria-hidden="true"
  >
    <b>{{ store.build.name }}</b>
    <span>{{ dayOf(new Date()) }}</span>
    <span>{{ gramsWithSpread(overview.massG, overview.spreadG, overview.binding?.limitG) }}<InOunces :grams="overview.massG" />,
      {{ loadoutName(store.build, overview.choice) }}</span>
    <span>{{ verdict }}</span>
  </header>
</template>

<style scoped>
.print-head {
  display: none;
}
@media print {
  .print-head {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 18px;
    align-items: baseline;
    padding-bottom: 5px;
    margin-bottom: 10px;
    border-bottom: 1.5px solid #000;
    font-size: 12px;
  }
  b {
    font: 700 16px var(--serif);
  }
}
</style>
