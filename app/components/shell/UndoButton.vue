<script setup lang="ts">
const store = useBuildStore()
</script>

<template>
  <el-button
    v-if="store.build"
    :disabled="!store.steps.undo"
    :title="store.steps.undo ? `Take back: ${store.steps.undo}` : 'Nothing to take back'"
    @click="store.step('undo')"
  >
    Undo <KeyHint does="undo" />
  </el-button>
</template>

<style scoped>
@media screen and (max-width: 760px) {
  :deep(kbd) {
    display: none;
  }
}
</style>
