<script setup lang="ts">
import type { UploadFile } from 'element-plus'

/** A button that chooses a file, or several one after another; the same one may be chosen twice. */
withDefaults(defineProps<{ words: string; accept: string; many?: boolean; disabled?: boolean }>(), {
  many: false,
  disabled: false,
})
const emit = defineEmits<{ file: [file: File] }>()
function take({ raw }: UploadFile) {
  if (raw) emit('file', raw)
}
</script>

<template>
  <el-upload
    class="file-choose"
    :accept="accept"
    :multiple="many"
    :disabled="disabled"
    :auto-upload="false"
    :show-file-list="false"
    :on-change="take"
  >
    <span
      class="el-button"
      :class="{ 'is-disabled': disabled }"
    ><span>{{ words }}</span></span>
  </el-upload>
</template>

<style scoped>
.file-choose :deep(.el-upload:focus-visible) {
  outline: 2px solid var(--plum-text);
  outline-offset: 2px;
  border-radius: 7px;
}
</style>
