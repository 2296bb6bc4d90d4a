<script setup lang="ts">
/** How bad a finding is, as dots of three, and read out in a word. */
const { severity } = defineProps<{ severity: number }>()
const words = computed(() => severityWords[severity] ?? '')
</script>

<template>
  <span
    class="dots"
    role="img"
    :aria-label="words"
    :title="words"
  ><i
    v-for="n in 3"
    :key="n"
    :class="{ on: n <= severity }"
  /></span>
</template>

<style scoped>
.dots {
  display: inline-flex;
  gap: 2px;
  margin-right: 5px;
  vertical-align: 1px;
}
i {
  width: 7px;
  height: 7px;
  border-radius: 50%;
  border: 1.5px solid var(--close);
}
.on {
  background: var(--close);
}
</style>
