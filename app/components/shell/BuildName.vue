<script setup lang="ts">
const store = useBuildStore()
const saveWords = computed(() => ({ 'saved': 'Saved', 'saving': 'Saving …', 'waiting for the server': 'Not saved yet: the server does not answer' })[store.saveState])
</script>

<template>
  <div v-if="store.build" class="where">
    <b>{{ store.build.name }}</b> <small>{{ store.build.craftClass }}</small>
    <small class="saved" role="status">{{ saveWords }}</small>
  </div>
</template>

<style scoped>
.where { display: flex; gap: 8px; align-items: baseline; min-width: 0; white-space: nowrap; overflow: hidden; }
b { font: 600 15px var(--serif); } small { font-size: 12px; opacity: .8; overflow: hidden; text-overflow: ellipsis; } .saved { opacity: .65; margin-left: 6px; }
@media (max-width: 760px) { small { display: none; } .saved { display: inline; } }
</style>
