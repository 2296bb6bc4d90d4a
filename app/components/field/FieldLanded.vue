<script setup lang="ts">
import { makeFinding, type FlightFinding, type FindingKind, type Flight } from '#core/aircraft/flown'
import { fixed, minutesBand } from '#core/text/display'
import { flightTimeWords } from '#core/text/units'
import { landingProblem } from '#shared/schemas/flights'

/** Landed: volts, what was found, and the button that keeps it. All of it can wait but the time. */
const { keep, cells, buildId, landedAt } = defineProps<{
  seconds: number
  warnedS: number | null
  minutes: { readonly low: number; readonly high: number } | null
  number: number
  buildId: string
  cells: number | null
  landedAt: string
  keep: (more: Partial<Flight>, finding: FlightFinding | null) => Promise<string>
}>()
const emit = defineEmits<{ press: [press: FieldPress] }>()

const volts = ref('')
const note = ref('')
const found = ref<FindingKind | ''>('')
const severity = ref(1)
const problems = reactive({ volts: '', all: '' })
const isKeeping = ref(false)
const kinds: { value: FindingKind | ''; label: string }[] = [
  { value: '', label: 'Nothing' },
  { value: 'vibration in the picture', label: 'Vibration' },
  { value: 'wash-out', label: 'Wash-out' },
  { value: 'motor heat', label: 'Warm motor' },
  { value: 'picture breaks up', label: 'Picture' },
  { value: 'crash', label: 'Crash' },
]
const severities = severityWords.map((label, value) => ({ label, value }))
/** Small steps from where a pack usually lands, for thumbs. */
const usualCellV = 3.7
function step(by: number) {
  const now = readLanding(volts.value, cells ?? undefined, null)
  const value = 'problem' in now || now.value === null ? usualCellV * (cells ?? 1) : now.value.volts
  volts.value = fixed(value + by, 2)
}
const cellWords = computed(() => {
  const read = readLanding(volts.value, cells ?? undefined, null)
  if ('problem' in read || read.value === null || cells === null || read.value.of === 'cell') return ''
  return `${fixed(read.value.volts / cells, 2)} V a cell`
})
async function send() {
  const landing = readLanding(volts.value, cells ?? undefined, null)
  problems.volts = 'problem' in landing ? landing.problem : ''
  if ('problem' in landing) return
  const wrong = landingProblem(landing.value, cells ?? undefined)
  problems.volts = wrong ?? ''
  if (wrong) return
  const finding =
    found.value === ''
      ? null
      : makeFinding({ id: newId(), buildId, foundAt: landedAt, kind: found.value, severity: severity.value })
  isKeeping.value = true
  problems.all = await keep({ landing: landing.value && { ...landing.value, isFresh: true }, note: note.value.trim() }, finding)
  isKeeping.value = false
}
</script>

<template>
  <div class="head">
    <div>
      <h1>Landed</h1>
      <p class="clock figure">
        {{ flightTimeWords(seconds) }}
      </p>
    </div><el-button
      class="again"
      @click="emit('press', 'still flying')"
    >
      Still flying
    </el-button>
  </div>
  <dl class="told">
    <div>
      <dt>warned at</dt><dd class="figure">
        {{ warnedS === null ? '–' : flightTimeWords(warnedS) }}
      </dd>
    </div>
    <div>
      <dt>forecast</dt><dd class="figure">
        {{ minutes ? minutesBand(minutes.low, minutes.high) : '–' }}
      </dd>
    </div>
    <div>
      <dt>flight</dt><dd class="figure">
        {{ number }}
      </dd>
    </div>
  </dl>
  <div class="volts">
    <label
      id="volts-label"
      for="landing-volts"
    >Volts now, resting</label><span class="soft">can wait</span>
    <el-button
      aria-label="A little less"
      @click="step(-0.01 * (cells ?? 1))"
    >
      −
    </el-button><el-input
      id="landing-volts"
      v-model="volts"
      inputmode="decimal"
      class="figure"
      :placeholder="fixed(usualCellV * (cells ?? 1), 2)"
      :aria-invalid="problems.volts !== ''"
      aria-describedby="volts-problem"
    /><el-button
      aria-label="A little more"
      @click="step(0.01 * (cells ?? 1))"
    >
      +
    </el-button>
    <p
      id="volts-problem"
      :class="problems.volts ? 'problem' : 'soft'"
      :role="problems.volts ? 'alert' : undefined"
    >
      {{ problems.volts || cellWords }}
    </p>
  </div>
  <p class="ask">
    Anything found?
  </p>
  <el-radio-group
    v-model="found"
    class="found"
    aria-label="Anything found?"
  >
    <el-radio-button
      v-for="kind in kinds"
      :key="kind.label"
      :value="kind.value"
    >
      {{ kind.label }}
    </el-radio-button>
  </el-radio-group>
  <el-segmented
    v-if="found !== ''"
    v-model="severity"
    :options="severities"
    block
    aria-label="How bad"
  />
  <el-input
    v-model="note"
    type="textarea"
    autosize
    maxlength="2000"
    placeholder="How it was"
    aria-label="How it was"
  />
  <p
    v-if="problems.all"
    class="problem"
    role="alert"
  >
    {{ problems.all }}
  </p>
  <el-button
    type="primary"
    class="keep"
    :disabled="isKeeping"
    @click="send"
  >
    Keep flight {{ number }}
  </el-button>
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
  align-items: end;
}
h1 {
  margin: 0;
  color: var(--clear);
}
.clock {
  margin: 0;
  font-size: 64px;
  line-height: 1;
}
.again {
  min-height: 52px;
}
.told {
  display: flex;
  justify-content: space-between;
  margin: 0;
  padding: 8px 14px;
  border-radius: 8px;
  background: var(--aside);
}
.told dt {
  font-size: 13px;
  color: var(--ink-soft);
}
.told dd {
  margin: 0;
}
.volts {
  display: grid;
  grid-template-columns: 76px 1fr 76px;
  gap: 6px 10px;
}
.volts label {
  grid-column: 1 / 3;
  font-weight: 600;
}
.volts > span {
  text-align: right;
}
.volts > :deep(.el-button) {
  min-height: 76px;
  font-size: 30px;
  margin: 0;
}
.volts > :deep(.el-input) {
  height: 76px;
  font-size: 34px;
}
.volts > :deep(.el-input input) {
  text-align: center;
}
.volts p {
  grid-column: 1 / -1;
  margin: 0;
  text-align: center;
  min-height: 20px;
  font-size: 14px;
}
.ask {
  margin: 0;
  font-weight: 600;
}
.found {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.found :deep(.el-radio-button__inner) {
  width: 100%;
  min-height: 52px;
  display: grid;
  place-items: center;
  border: 1.5px solid var(--edge);
  border-radius: 10px;
  font-size: 16px;
}
.keep {
  min-height: 84px;
  border-radius: 16px;
  font: 600 28px var(--serif);
  width: 100%;
}
</style>
