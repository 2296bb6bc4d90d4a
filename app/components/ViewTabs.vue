<script setup lang="ts">
/** The views of a station, as pills in its head; what is shown stands below it on the page. */
defineProps<{ views: readonly (readonly [key: string, name: string])[]; view: string; label: string }>()
const emit = defineEmits<{ show: [key: string] }>()
</script>

<template>
  <el-tabs
    :model-value="view"
    :aria-label="label"
    class="views"
    @update:model-value="emit('show', String($event))"
  >
    <el-tab-pane
      v-for="[key, name] in views"
      :key="key"
      :name="key"
      :label="name"
    />
  </el-tabs>
</template>
