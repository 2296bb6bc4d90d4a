<script setup lang="ts">
import { ouncesFigure } from '#core/text/display'

/** The same mass in ounces, small, where the builder wants them beside grams. */
defineProps<{ grams: number | null }>()
const { settings } = storeToRefs(useSettingsStore())
</script>

<template>
  <small
    v-if="settings.ounces && grams !== null"
    class="in-ounces figure"
  >{{ ouncesFigure(grams) }} oz</small>
</template>

<style scoped>
.in-ounces {
  margin-left: 0.4em;
  color: var(--ink-soft);
  font-size: 11px;
  white-space: nowrap;
}
</style>
