<script setup lang="ts">
import { makeLine, slotFacts, type Line } from '#core/model/ledger'
import { signed } from '#core/text/display'

/** What could go in the place of a line: candidates on the list with the grams between, and ways to more. */
const props = defineProps<{ line: Line }>()
const store = useBuildStore()
const grams = (line: Line) => store.estimates.of(line).valueG
const candidates = computed(() =>
  store
    .build!.lines.filter(line => line.state === 'candidate' && line.insteadOf === props.line.id)
    .map(line => ({ line, moreG: grams(line) - grams(props.line) })),
)
/** Of another part nothing is known but the place it would take. */
function addCandidate() {
  const { id: insteadOf, slot, quantity, role, removable, feed } = props.line
  const name = `Another ${slotFacts[slot].label.toLowerCase()}`
  const line = makeLine({ id: newId(), slot, name, quantity, role, removable, feed, state: 'candidate', insteadOf })
  if (store.run({ type: 'lines.add', lines: [line], beforeId: null })) store.selectedId = line.id
}
</script>

<template>
  <h3>Could go here instead</h3>
  <div
    v-for="{ line: candidate, moreG } in candidates"
    :key="candidate.id"
    class="candidate"
  >
    <el-button
      link
      type="primary"
      @click="store.selectedId = candidate.id"
    >
      {{ candidate.name }}
    </el-button>
    <b
      v-if="candidate.mass"
      class="figure"
      :class="moreG <= 0 ? 'word-clear' : 'word-over'"
    >{{ signed(moreG, 1) }} g</b>
    <el-button
      :aria-label="`Fit ${candidate.name} instead`"
      @click="store.run({ type: 'line.fit', id: candidate.id })"
    >
      Fit
    </el-button>
  </div>
  <el-button
    link
    type="primary"
    @click="addCandidate"
  >
    Add a candidate
  </el-button>
  <NuxtLink
    class="compare"
    :to="{ path: `/builds/${store.build!.id}/choosing`, query: { line: line.id } }"
  >Compare all that could go here</NuxtLink>
</template>

<style scoped>
.candidate {
  display: grid;
  grid-template-columns: 1fr auto auto;
  gap: 8px;
  align-items: center;
  border-top: 1px solid var(--line);
  padding: 4px 0;
}
.candidate .is-link {
  text-align: left;
  white-space: normal;
  font-weight: 500;
  color: var(--ink);
  padding-left: 0;
  font-size: 12.5px;
}
.candidate button:last-child {
  padding: 2px 9px;
  font-size: 12px;
}
.compare {
  display: block;
  margin: 4px 0 0 4px;
  font-weight: 600;
}
</style>
