<script setup lang="ts">
/** Stands where a page waits for its data; shown only when that takes long enough to be noticed. */
defineProps<{ words: string; rows?: number }>()
const noticedMs = 300
const isLate = ref(false)
onMounted(() => {
  const { stop } = useTimeoutFn(() => {
    isLate.value = true
  }, noticedMs)
  onBeforeUnmount(stop)
})
</script>

<template>
  <div
    v-if="isLate"
    class="waits"
    role="status"
    :aria-label="words"
  >
    <el-skeleton
      animated
      :rows="rows ?? 8"
    />
  </div>
</template>

<style scoped>
.waits {
  padding: 18px;
  flex: 1;
}
</style>
