<script setup lang="ts">
import { figure } from '#core/text/display'
import { isNotRead, readGrams, readNumber, type NotRead } from '#core/text/units'
import { referenceFieldsSchema, scaleFieldsSchema } from '#shared/schemas/scales'

const scales = useScalesStore()
const problem = ref('')
useHead({ title: 'Scales · Jolly Gram' })
scales.load().catch((error: unknown) => {
  problem.value = sentenceOf(error)
})

const adding = ref(false)
const draft = reactive({ name: '', resolutionG: '0.01', capacityG: '200', checkIntervalDays: '30' })
const reference = reactive({ name: '', massG: '', toleranceG: '', coin: false })

function gramsOf(text: string): number | NotRead {
  const read = readGrams(text)
  return isNotRead(read) ? read : read.massG
}
function daysOf(text: string): number | NotRead {
  const read = readNumber(text)
  return isNotRead(read) ? read : read.value
}
const problemsIn = (read: { value: unknown } | { problems: FieldProblems }) => ('problems' in read ? read.problems : {})

const asFigure = { class: 'figure', inputmode: 'decimal' } as const
const scaleAsks = [
  { key: 'name', label: 'Name', placeholder: 'blue pocket scale', maxlength: 120 },
  { key: 'resolutionG', label: 'Step, g', ...asFigure },
  { key: 'capacityG', label: 'Carries at most, g', ...asFigure },
  { key: 'checkIntervalDays', label: 'Check every, days', class: 'figure', inputmode: 'numeric' },
] as const
const referenceAsks = [
  { key: 'name', label: 'Name', placeholder: 'brass 50 g', maxlength: 120 },
  { key: 'massG', label: 'Mass, g', ...asFigure },
  { key: 'toleranceG', label: 'Tolerance ±, g', ...asFigure },
] as const

const readScale = () =>
  fieldsBy(scaleFieldsSchema, {
    name: draft.name.trim(),
    resolutionG: gramsOf(draft.resolutionG),
    capacityG: gramsOf(draft.capacityG),
    repeatabilityG: null,
    checkIntervalDays: daysOf(draft.checkIntervalDays),
  })
const newScale = useFields(['name', 'resolutionG', 'capacityG', 'checkIntervalDays'], () => problemsIn(readScale()))
const { fields: scaleFields, problem: scaleProblem } = newScale
const addScale = () =>
  newScale.send(async () => {
    const read = readScale()
    if ('problems' in read) return
    const id = newId()
    await scales.putScale(id, read.value)
    scales.currentId = id
    draft.name = ''
    adding.value = false
  })

const readReference = () =>
  fieldsBy(referenceFieldsSchema, {
    name: reference.name.trim(),
    massG: gramsOf(reference.massG),
    toleranceG: gramsOf(reference.toleranceG || '0'),
    coin: reference.coin,
  })
const newReference = useFields(['name', 'massG', 'toleranceG'], () => problemsIn(readReference()))
const { fields: referenceFields, problem: referenceProblem } = newReference
const addReference = () =>
  newReference.send(async () => {
    const read = readReference()
    if ('problems' in read) return
    // The next one may be typed while this one is being written; refused, it comes back where nothing new was typed.
    const typed = { ...reference }
    Object.assign(reference, { name: '', massG: '', toleranceG: '', coin: false })
    await nextTick()
    newReference.clear()
    await scales.putReference(newId(), read.value).catch((error: unknown) => {
      if (reference.name === '') Object.assign(reference, typed)
      throw error
    })
  })
async function removeReference(id: string) {
  try {
    await scales.removeReference(id)
  } catch (error) {
    problem.value = sentenceOf(error)
  }
}
</script>

<template>
  <main class="page">
    <div class="page-head">
      <h1>Scales</h1><span class="soft">what weighs, how well, and since when that is known</span><span class="gap" /><el-button
        type="primary"
        @click="adding = !adding"
      >
        Add a scale
      </el-button>
    </div>
    <p
      v-if="problem"
      class="problem"
      role="alert"
    >
      {{ problem }}
    </p>
    <el-form
      v-if="adding || (scales.loaded && scales.scales.length === 0)"
      ref="scaleFields"
      class="panel"
      :model="draft"
      :rules="newScale.rules"
      aria-label="A scale to add"
      @submit.prevent="addScale"
    >
      <h2>{{ scales.scales.length === 0 ? 'Your first scale' : 'Another scale' }}</h2>
      <p
        v-if="scales.scales.length === 0"
        class="soft"
      >
        A weighing is worth what its scale is worth. Say what it shows and carries; a check with one mass you trust makes it honest.
      </p>
      <div class="fields four">
        <FormField
          v-for="{ key, label, ...about } in scaleAsks"
          :key="key"
          :label="label"
          :prop="key"
          :problem="newScale.sent.value[key]"
        >
          <el-input
            v-model="draft[key]"
            v-bind="about"
          />
        </FormField>
      </div>
      <p
        v-if="scaleProblem"
        class="problem"
        role="alert"
      >
        {{ scaleProblem }}
      </p>
      <el-button
        type="primary"
        native-type="submit"
        :loading="newScale.busy.value"
      >
        Keep this scale
      </el-button>
    </el-form>
    <ScalePanel
      v-for="scale in scales.scales"
      :key="scale.id"
      :scale="scale"
    />
    <TwoScales v-if="scales.scales.length > 1" />
    <section
      class="panel"
      aria-label="Reference masses"
    >
      <h2>Reference masses</h2>
      <p class="soft">
        What scales are checked with, and how far each may be off. A coin of known mass is a poor man’s reference:
        worn ones are lighter, so give it an honest tolerance.
      </p>
      <table
        v-if="scales.references.length > 0"
        v-stacks
      >
        <tbody>
          <tr
            v-for="mass in scales.references"
            :key="mass.id"
          >
            <td>
              {{ mass.name }}<small
                v-if="mass.coin"
                class="soft"
              > · a coin</small>
            </td><td class="figure right">
              {{ figure(mass.massG, 4) }} g
            </td><td class="figure right">
              ± {{ figure(mass.toleranceG, 4) }} g
            </td><td class="right">
              <SureButton
                words="Take off the list"
                :aria-label="`Take ${mass.name} off the list`"
                :question="`Take “${mass.name}” off the list? It does not come back.`"
                @sure="removeReference(mass.id)"
              />
            </td>
          </tr>
        </tbody>
      </table>
      <el-form
        ref="referenceFields"
        class="reference"
        :model="reference"
        :rules="newReference.rules"
        aria-label="A reference mass to add"
        @submit.prevent="addReference"
      >
        <FormField
          v-for="{ key, label, ...about } in referenceAsks"
          :key="key"
          :label="label"
          :prop="key"
          :problem="newReference.sent.value[key]"
        >
          <el-input
            v-model="reference[key]"
            v-bind="about"
          />
        </FormField>
        <el-checkbox v-model="reference.coin">
          a coin
        </el-checkbox>
        <el-button native-type="submit">
          Add
        </el-button>
      </el-form>
      <p
        v-if="referenceProblem"
        class="problem"
        role="alert"
      >
        {{ referenceProblem }}
      </p>
    </section>
    <ListingHonesty />
  </main>
</template>

<style scoped>
.fields.four {
  grid-template-columns: 2fr 1fr 1fr 1fr;
  margin-bottom: 12px;
}
table {
  width: 100%;
  border-collapse: collapse;
}
td {
  padding: 6px 8px;
  border-bottom: 1px solid var(--line);
}
.right {
  text-align: right;
}
.reference {
  display: grid;
  grid-template-columns: 2fr 1fr 1fr auto auto;
  gap: 10px;
  align-items: start;
  margin-top: 12px;
}
/* What belongs to the row stands beside the fields, whatever is said under one of them. */
.reference > .el-checkbox,
.reference > .el-button {
  margin-top: 22px;
}
h2 {
  margin-bottom: 4px;
}
@media screen and (max-width: 760px) {
  .fields.four,
  .reference {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  }
}
</style>
