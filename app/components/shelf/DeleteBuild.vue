<script setup lang="ts">
/** Asks before a build is deleted for good, and offers its file first. Loaded when it is first asked for. */
defineProps<{ build: { id: string; name: string }; unreadable: boolean }>()
const emit = defineEmits<{ close: []; remove: [] }>()
</script>

<template>
  <el-dialog
    model-value
    title="Delete for good"
    width="min(460px, 94vw)"
    @update:model-value="emit('close')"
  >
    <p>
      <b>{{ build.name }}</b> goes with its weighings, its journal and its photos. Its parts of the drawer lie in the
      drawer again. This cannot be taken back.
    </p>
    <p>
      Keep its file first, if you may want it again: <a
        :href="`/api/builds/${build.id}/export/${unreadable ? 'rows.json' : 'build.json'}`"
        class="button"
        download
      >Save the build file</a> <a
        href="/api/archive"
        class="button"
        download
      >Keep everything in a file</a>
    </p>
    <template #footer>
      <el-button @click="emit('close')">
        Keep it
      </el-button> <el-button
        type="primary"
        @click="emit('remove')"
      >
        Delete for good
      </el-button>
    </template>
  </el-dialog>
</template>

<style scoped>
.el-dialog__footer button + button {
  margin-left: 8px;
}
</style>
