<script setup lang="ts">
import { keyLabel, type Does } from '~/keys/registry'

defineProps<{ does: Does }>()
</script>

<template>
  <kbd>{{ keyLabel(does) }}</kbd>
</template>
