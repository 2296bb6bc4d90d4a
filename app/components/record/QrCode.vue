<script setup lang="ts">
import type { QrPath } from '~/utils/qr-path'

/** A code within a drawing, in the drawing’s units. */
const { text, x, y, size } = defineProps<{ text: string; x: number; y: number; size: number }>()
const code = shallowRef<QrPath | null>(null)
watch(
  () => text,
  async wanted => {
    const made = await qrPath(wanted)
    if (wanted === text) code.value = made
  },
  { immediate: true },
)
</script>

<template>
  <g
    v-if="code"
    :transform="`translate(${x},${y}) scale(${size / code.size})`"
    data-test="qr"
    :data-text="text"
  >
    <rect
      :width="code.size"
      :height="code.size"
      fill="#fff"
    /><path
      :d="code.path"
      fill="#000"
      shape-rendering="crispEdges"
    />
  </g>
</template>
