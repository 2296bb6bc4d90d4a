<script setup lang="ts">
import { figure } from '#core/text/display'
import { isNotRead, readGrams } from '#core/text/units'
import { referenceFieldsSchema, scaleFieldsSchema } from '#shared/schemas/scales'

const scales = useScalesStore()
const problem = ref('')
useHead({ title: 'Scales · Jolly Gram' })
scales.load().catch((error: unknown) => {
  problem.value = sentenceOf(error)
})

const adding = ref(false)
const draft = reactive({ name: '', step: '0.01', capacity: '200', days: '30' })
const draftProblem = ref('')
const reference = reactive({ name: '', mass: '', tolerance: '', coin: false })
const referenceProblem = ref('')

function grams(text: string, what: string): number {
  const read = readGrams(text)
  if (isNotRead(read)) throw new Error(`${what}: ${read.problem}`)
  return read.massG
}
async function addScale() {
  try {
    const fields = scaleFieldsSchema.safeParse({
      name: draft.name.trim(),
      resolutionG: grams(draft.step, 'Step'),
      capacityG: grams(draft.capacity, 'Capacity'),
      repeatabilityG: null,
      checkIntervalDays: Number(draft.days),
    })
    if (!fields.success) throw new Error(fields.error.issues[0]!.message)
    const id = newId()
    await scales.putScale(id, fields.data)
    scales.currentId = id
    draftProblem.value = ''
    draft.name = ''
    adding.value = false
  } catch (error) {
    draftProblem.value = sentenceOf(error)
  }
}
async function addReference() {
  try {
    const fields = referenceFieldsSchema.safeParse({
      name: reference.name.trim(),
      massG: grams(reference.mass, 'Mass'),
      toleranceG: grams(reference.tolerance || '0', 'Tolerance'),
      coin: reference.coin,
    })
    if (!fields.success) throw new Error(fields.error.issues[0]!.message)
    // The next one may be typed while this one is being written; refused, it comes back where nothing new was typed.
    const typed = { ...reference }
    Object.assign(reference, { name: '', mass: '', tolerance: '', coin: false })
    referenceProblem.value = ''
    await scales.putReference(newId(), fields.data).catch((error: unknown) => {
      if (reference.name === '') Object.assign(reference, typed)
      throw error
    })
  } catch (error) {
    referenceProblem.value = sentenceOf(error)
  }
}
async function removeReference(id: string) {
  try {
    await scales.removeReference(id)
  } catch (error) {
    referenceProblem.value = sentenceOf(error)
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
    <form
      v-if="adding || (scales.loaded && scales.scales.length === 0)"
      class="panel"
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
        <label class="field">Name<el-input
          v-model="draft.name"
          placeholder="blue pocket scale"
          maxlength="120"
        /></label>
        <label class="field">Step, g<el-input
          v-model="draft.step"
          class="figure"
          inputmode="decimal"
        /></label>
        <label class="field">Carries at most, g<el-input
          v-model="draft.capacity"
          class="figure"
          inputmode="decimal"
        /></label>
        <label class="field">Check every, days<el-input
          v-model="draft.days"
          class="figure"
          inputmode="numeric"
        /></label>
      </div>
      <p
        v-if="draftProblem"
        class="problem"
        role="alert"
      >
        {{ draftProblem }}
      </p>
      <el-button
        type="primary"
        native-type="submit"
      >
        Keep this scale
      </el-button>
    </form>
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
      <form
        class="reference"
        @submit.prevent="addReference"
      >
        <label class="field">Name<el-input
          v-model="reference.name"
          placeholder="brass 50 g"
          maxlength="120"
        /></label>
        <label class="field">Mass, g<el-input
          v-model="reference.mass"
          class="figure"
          inputmode="decimal"
        /></label>
        <label class="field">Tolerance ±, g<el-input
          v-model="reference.tolerance"
          class="figure"
          inputmode="decimal"
        /></label>
        <el-checkbox v-model="reference.coin">
          a coin
        </el-checkbox>
        <el-button native-type="submit">
          Add
        </el-button>
      </form>
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
  align-items: end;
  margin-top: 12px;
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
