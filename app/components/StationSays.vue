<script setup lang="ts">
import { stations } from '~/stations'

/** What a station is for, in one sentence, and what is still missing there. */
const props = defineProps<{ page: string }>()
const { desk } = useDesk()
const station = computed(() => stations.find(one => one.page === props.page)!)
const missing = computed(() => (desk.value ? station.value.missing(desk.value) : []))
</script>

<template>
  <p class="station-says no-print">
    {{ station.purpose }}
    <template v-if="missing.length > 0">
      <b>Still missing:</b> {{ missing.join(', ') }}.
    </template>
  </p>
</template>

<style scoped>
.station-says {
  margin: -4px 0 10px;
  font-size: 12.5px;
  color: var(--ink-soft);
  max-width: 78ch;
}
b {
  color: var(--ink);
}
</style>
