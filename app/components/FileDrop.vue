<script setup lang="ts">
/** Files that are dropped anywhere on the page; what the page does with them is said while they are held over it. */
defineProps<{ words: string }>()
const emit = defineEmits<{ files: [files: readonly File[]] }>()
const isHeld = ref(false)
/** Held over one element after another, a drag leaves the page only once it has left as many as it came into. */
let over = 0
const bringsFiles = (event: DragEvent) => event.dataTransfer?.types.includes('Files') ?? false

useEventListener(window, 'dragenter', (event: DragEvent) => {
  if (!bringsFiles(event)) return
  over++
  isHeld.value = true
})
useEventListener(window, 'dragleave', (event: DragEvent) => {
  if (!bringsFiles(event)) return
  over = Math.max(0, over - 1)
  isHeld.value = over > 0
})
useEventListener(window, 'dragover', (event: DragEvent) => {
  if (bringsFiles(event)) event.preventDefault()
})
useEventListener(window, 'drop', (event: DragEvent) => {
  if (!bringsFiles(event)) return
  event.preventDefault()
  over = 0
  isHeld.value = false
  const files = [...(event.dataTransfer?.files ?? [])]
  if (files.length > 0) emit('files', files)
})
</script>

<template>
  <div
    v-if="isHeld"
    class="file-drop"
    role="status"
  >
    <p>{{ words }}</p>
  </div>
</template>

<style scoped>
.file-drop {
  position: fixed;
  inset: 0;
  z-index: 3000;
  display: grid;
  place-items: center;
  pointer-events: none;
  background: color-mix(in srgb, var(--paper) 82%, transparent);
}
p {
  padding: 26px 40px;
  border: 2px dashed var(--plum-text);
  border-radius: 12px;
  background: var(--card);
  font: 600 20px var(--serif);
  color: var(--ink);
}
</style>
