<script setup lang="ts">
const store = useBuildStore()
const open = computed({ get: () => store.conflict !== null, set: () => undefined })
</script>

<template>
  <el-dialog
    v-model="open"
    title="This build was changed in another window"
    width="min(760px, 94vw)"
    :show-close="false"
    :close-on-click-modal="false"
    :close-on-press-escape="false"
  >
    <template v-if="store.conflict">
      <p><b>{{ store.conflict.edit.words }}</b> has not been written. Nothing is lost until you choose; what you typed after it waits.</p>
      <table v-if="store.conflict.meetings.length > 0">
        <thead><tr><th>What</th><th>You</th><th>Meanwhile</th></tr></thead>
        <tbody>
          <tr
            v-for="meeting in store.conflict.meetings"
            :key="meeting.what"
          >
            <td>{{ meeting.what }}</td><td>{{ meeting.mine }}</td><td>{{ meeting.theirs }}</td>
          </tr>
        </tbody>
      </table>
      <p v-else>
        {{ store.conflict.sentence }}
      </p>
    </template>
    <template #footer>
      <el-button @click="store.settleConflict(false)">
        Keep what is there
      </el-button>
      <el-button
        type="primary"
        @click="store.settleConflict(true)"
      >
        Put my change on top
      </el-button>
    </template>
  </el-dialog>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  text-align: left;
  font-size: 12px;
  color: var(--ink-soft);
  font-weight: 500;
}
td,
th {
  padding: 6px 8px;
  border-bottom: 1px solid var(--line);
  width: 33%;
  vertical-align: top;
}
button + button {
  margin-left: 8px;
}
</style>
