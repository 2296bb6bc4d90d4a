<script setup lang="ts">
import { fixed } from '#core/text/display'
import { CoreInputError } from '#core/basics/errors'
import { coverageFactor95 } from '#core/maths/numbers'
import { admitCheck, evaluateCheck, type Placing, type Scale } from '#core/mass/scale'
import { isNotRead, readNumber } from '#core/text/units'

const props = defineProps<{ scale: Scale }>()
const emit = defineEmits<{ done: [] }>()
const scales = useScalesStore()
const bench = useBenchScale()
const problem = ref('')
interface Row {
  referenceId: string
  display: string
  problem?: string
}
const rows = ref<Row[]>([
  { referenceId: '', display: '0' },
  { referenceId: scales.references.findLast(r => r.massG <= props.scale.capacityG)?.id ?? '', display: '' },
])

function placings(): Placing[] {
  return rows.value
    .filter(row => row.display.trim() !== '')
    .map(({ referenceId, display }) => {
      const read = readNumber(display)
      if (isNotRead(read)) throw new Error(read.problem)
      const reference = scales.references.find(r => r.id === referenceId)
      return {
        displayG: read.value,
        references: reference ? [{ id: reference.id, massG: reference.massG, toleranceG: reference.toleranceG }] : [],
      }
    })
}
/** The core's refusal in the builder's words. */
function sentence(error: unknown): string {
  if (!(error instanceof CoreInputError)) return sentenceOf(error)
  if (error.code === 'fitting') return 'That is no scale’s reading: is each display beside the mass it belongs to?'
  if (error.code === 'in range' && error.field === 'placings')
    return `That reference is heavier than the ${props.scale.capacityG} g this scale carries.`
  return 'A check needs two different masses: the empty pan and one reference will do.'
}
const outcome = computed(() => {
  try {
    return evaluateCheck(props.scale, placings())
  } catch {
    return null
  }
})
/** Says under each display what cannot be read of it; true where all can. */
function allRead(): boolean {
  for (const row of rows.value) {
    const read = row.display.trim() === '' ? null : readNumber(row.display)
    row.problem = read && isNotRead(read) ? read.problem : ''
  }
  return rows.value.every(row => !row.problem)
}
async function keep() {
  problem.value = ''
  if (!allRead()) return
  try {
    const wanted = placings()
    admitCheck(props.scale, wanted)
    await scales.addCheck(props.scale.id, wanted)
    emit('done')
  } catch (error) {
    problem.value = sentence(error)
  }
}
function takeLive(row: Row) {
  if (bench.live.value && bench.rest.value.steady) row.display = bench.rest.value.displayG!.toFixed(3)
  else problem.value = bench.rest.value.reason || bench.state.value.sentence
}
</script>

<template>
  <el-form
    class="check"
    @submit.prevent="keep"
  >
    <h3>Check with reference masses</h3>
    <p
      v-if="scales.references.length === 0"
      class="note"
    >
      Add a reference mass below first: a calibration weight, or a coin whose mass you know.
    </p>
    <div
      v-for="(row, i) in rows"
      :key="i"
      class="row"
    >
      <PickOne
        v-model="row.referenceId"
        :label="`On the pan, placing ${i + 1}`"
        :options="scales.references.map((mass) => ({ value: mass.id, label: `${mass.name}, ${mass.massG} g` }))"
        none="empty pan"
      />
      <FormField
        label=""
        :problem="row.problem"
      >
        <el-input
          v-model="row.display"
          class="figure"
          inputmode="decimal"
          placeholder="display, g"
          :aria-label="`Display, placing ${i + 1}`"
        />
      </FormField>
      <el-button
        v-if="bench.live.value"
        @click="takeLive(row)"
      >
        Take the reading
      </el-button>
    </div>
    <el-button
      link
      type="primary"
      @click="rows.push({ referenceId: scales.references[0]?.id ?? '', display: '' })"
    >
      Another placing
    </el-button>
    <p
      v-if="outcome"
      class="soft"
    >
      Gain <span class="figure">{{ fixed(outcome.gain, 5) }}</span> ±
      <span class="figure">{{ fixed(coverageFactor95 * outcome.gainSigma, 5) }}</span>: 100 g would be shown as
      <span class="figure">{{ fixed(outcome.levelG + 100 * outcome.gain, 2) }}</span> g.
    </p>
    <p
      v-if="problem"
      class="problem"
      role="alert"
    >
      {{ problem }}
    </p>
    <p class="soft">
      Past weighings stay as they are; a build offers to correct its own by this check.
    </p>
    <el-button
      type="primary"
      native-type="submit"
    >
      Keep this check
    </el-button> <el-button @click="emit('done')">
      Leave it
    </el-button>
  </el-form>
</template>

<style scoped>
.check {
  border-top: 1px solid var(--line);
  margin-top: 10px;
}
.row {
  display: flex;
  gap: 8px;
  margin: 6px 0;
  align-items: center;
}
.row select {
  width: 240px;
}
.row .el-input {
  width: 120px;
}
</style>
