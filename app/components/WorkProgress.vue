<script setup lang="ts">
import { counted } from '#core/text/display'

/** Work that takes a while: how far it has come, and a way to stop it. It shows itself once the work is felt to take long. */
const { done, of } = defineProps<{ words: string; done: number; of: number }>()
const emit = defineEmits<{ stop: [] }>()

/** From when on waiting is noticed, ms. Our choice. */
const feltMs = 400
const isFelt = ref(false)
useTimeoutFn(() => {
  isFelt.value = true
}, feltMs)
const percent = computed(() => (of === 0 ? 0 : Math.min(100, Math.round((100 * done) / of))))
</script>

<template>
  <div
    v-if="isFelt"
    class="work-progress"
    role="status"
  >
    <span>{{ words }}: {{ counted(done) }} of {{ counted(of) }}</span>
    <el-progress
      :percentage="percent"
      :aria-label="words"
    />
    <el-button @click="emit('stop')">
      Stop
    </el-button>
  </div>
</template>

<style scoped>
.work-progress {
  display: flex;
  align-items: center;
  gap: 10px;
  margin: 8px 0;
}
.el-progress {
  flex: 1;
  max-width: 320px;
}
</style>
