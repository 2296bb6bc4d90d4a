<script setup lang="ts">
const store = useBuildStore()
const edits = useEditsStore()
const saveWords = computed(() => {
  const line = store.build ? edits.stateOf(documentOfBuild(store.build.id)) : null
  if (!line) return 'Saved'
  const why = whyWaiting(line)
  return why === '' ? 'Saving …' : `Not saved yet: ${why}`
})
</script>

<template>
  <div
    v-if="store.build"
    class="where"
  >
    <b>{{ store.build.name }}</b> <small>{{ store.build.craftClass }}</small>
    <small
      class="saved"
      role="status"
    >{{ saveWords }}</small>
  </div>
</template>

<style scoped>
.where {
  display: flex;
  gap: 8px;
  align-items: baseline;
  min-width: 0;
  white-space: nowrap;
  overflow: hidden;
}
b {
  font: 600 15px var(--serif);
}
small {
  font-size: 12px;
  opacity: 0.8;
  overflow: hidden;
  text-overflow: ellipsis;
}
.saved {
  opacity: 0.65;
  margin-left: 6px;
}
@media screen and (max-width: 760px) {
  small {
    display: none;
  }
  .saved {
    display: inline;
  }
}
</style>
