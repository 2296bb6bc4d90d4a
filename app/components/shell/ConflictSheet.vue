<script setup lang="ts">
import { diffBuilds } from '#core/commands'
import type { Build, Line } from '#core/ledger'
import { lineGrams } from '#core/evidence'
import { fixed } from '#core/display'

const store = useBuildStore()
const open = computed({ get: () => store.conflict !== null, set: () => undefined })

function words(line: Line | undefined): string {
  if (!line) return 'not there'
  const grams = line.mass ? `${fixed(lineGrams(line.mass, line.quantity), 2)} g ${line.mass.evidence}` : 'no grams'
  return `${line.name} × ${line.quantity}, ${grams}, ${line.state}`
}
function byId(build: Build, id: string): Line | undefined {
  return build.lines.find(line => line.id === id)
}
/** Structural equality is right here: the two sides come from different places and share no objects. */
const differences = computed(() => {
  const met = store.conflict
  if (!met) return []
  const ids = new Set([...met.mine.lines, ...met.theirs.build.lines].map(line => line.id))
  const lines = [...ids].map(id => ({ key: id, mine: words(byId(met.mine, id)), theirs: words(byId(met.theirs.build, id)) })).filter(d => d.mine !== d.theirs)
  const head = diffBuilds({ ...met.mine, lines: [], setups: [] }, { ...met.theirs.build, lines: [], setups: [] }).head
  const fields = head ? Object.keys(head.after).filter(k => JSON.stringify(head.before[k as never]) !== JSON.stringify(head.after[k as never])) : []
  return [...lines, ...fields.map(k => ({ key: k, mine: `${k}: ${JSON.stringify(head!.before[k as never])}`, theirs: `${k}: ${JSON.stringify(head!.after[k as never])}` }))]
})
</script>

<template>
  <el-dialog v-model="open" title="This build was changed in another window" width="min(760px, 94vw)" :show-close="false" :close-on-click-modal="false" :close-on-press-escape="false">
    <p>Your last change has not been written. Both versions are here; nothing is lost until you choose.</p>
    <table>
      <thead><tr><th>Yours</th><th>There now</th></tr></thead>
      <tbody>
        <tr v-for="difference in differences" :key="difference.key"><td>{{ difference.mine }}</td><td>{{ difference.theirs }}</td></tr>
        <tr v-if="differences.length === 0"><td colspan="2" class="soft">Both came to the same.</td></tr>
      </tbody>
    </table>
    <template #footer>
      <button type="button" @click="store.settleConflict(false)">Keep what is there</button>
      <button type="button" class="first" @click="store.settleConflict(true)">Put my change on top</button>
    </template>
  </el-dialog>
</template>

<style scoped>
table { width: 100%; border-collapse: collapse; } th { text-align: left; font-size: 12px; color: var(--ink-soft); font-weight: 500; }
td, th { padding: 6px 8px; border-bottom: 1px solid var(--line); width: 50%; vertical-align: top; }
button + button { margin-left: 8px; }
</style>
