<script setup lang="ts">
import { connectors } from '#core/aircraft/power'

/** A plug: one of those the facts know, or the builder's own word for another, of which Fit then knows nothing. */
const props = defineProps<{ value: string | null; field: string }>()
const emit = defineEmits<{ change: [value: string] }>()

const known = connectors.map(({ connector, continuousA, burstA }) => ({
  value: connector,
  label: `${connector}, bears ${continuousA} A, ${burstA} A in bursts`,
}))
const isUnknown = computed(() => Boolean(props.value) && !known.some(one => one.value === props.value))
</script>

<template>
  <div>
    <PickOne
      :model-value="value ?? ''"
      :field
      :options="known"
      none="not said"
      own-words
      @update:model-value="emit('change', $event)"
    />
    <span
      v-if="isUnknown"
      class="hint"
    >Fit does not know what this one bears.</span>
  </div>
</template>

<style scoped>
.hint {
  font-size: 12px;
  color: var(--ink-soft);
}
</style>
