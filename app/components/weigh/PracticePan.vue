<script setup lang="ts">
import { sigmaG } from '#core/maths/estimate'
import type { Line } from '#core/model/ledger'

/** Puts demo parts on the stand-in's pan. A part's true mass is its own secret: near what is believed, the same every time. */
defineProps<{ lines: readonly Line[]; current: Line | null; pieces: number }>()
const store = useBuildStore()
const scales = useScalesStore()
const available = ref(false)
const problem = ref('')
const lying = ref('')
scales
  .practiceAvailable()
  .then(yes => {
    available.value = yes
  })
  .catch(() => {
    available.value = false
  })

function secretGrams(line: Line): number {
  let hash = 7
  for (const letter of `${store.build!.id}/${line.id}`) hash = (Math.imul(hash, 31) + letter.charCodeAt(0)) >>> 0
  const estimate = store.estimates.before(line)
  return Math.max(
    0.05,
    estimate.valueG + ((hash % 2001) / 1000 - 1) * Math.min(sigmaG(estimate), 0.1 * estimate.valueG),
  )
}
const secrets = new Map<string, number>()
function trueGrams(line: Line): number {
  if (!secrets.has(line.id)) secrets.set(line.id, secretGrams(line))
  return secrets.get(line.id)!
}
async function put(lines: readonly Line[], share = 1) {
  problem.value = ''
  try {
    await scales.putOnPracticePan(lines.map(line => ({ name: line.name, massG: trueGrams(line) * share })))
    lying.value = lines.length === 0 ? '' : lines.length === 1 ? lineTitle(lines[0]!) : `${lines.length} lines`
  } catch (error) {
    problem.value = sentenceOf(error)
  }
}
</script>

<template>
  <details
    v-if="available"
    class="practice"
  >
    <summary>Practice pan <small class="soft">{{ lying ? `on it: ${lying}` : 'empty' }}</small></summary>
    <div class="buttons">
      <el-button
        v-if="current"
        data-test="practice-put"
        @click="put([current], pieces / current.quantity)"
      >
        Put the current part on
      </el-button>
      <el-button
        v-if="lines.length > 0"
        @click="put(lines)"
      >
        Put {{ lines.length }} ticked lines on
      </el-button>
      <el-button
        data-test="practice-clear"
        @click="put([])"
      >
        Take everything off
      </el-button>
    </div>
    <p class="soft">
      A stand-in for a pocket scale, for trying the run out. It reads a little heavy, as real ones do.
    </p>
    <p
      v-if="problem"
      class="problem"
      role="alert"
    >
      {{ problem }}
    </p>
  </details>
</template>

<style scoped>
.practice {
  margin-top: 16px;
  padding: 8px 12px;
  border: 1px dashed var(--edge);
  border-radius: 8px;
}
summary {
  cursor: pointer;
  font-weight: 600;
  color: var(--plum-text);
}
.buttons {
  display: flex;
  gap: 6px;
  flex-wrap: wrap;
  margin: 8px 0 4px;
}
</style>
