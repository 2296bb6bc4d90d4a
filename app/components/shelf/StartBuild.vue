<script setup lang="ts">
import type { InputInstance } from 'element-plus'
import { craftPresets } from '#core/parts/catalogue'
import { isNotRead, readCents, readGrams, readNumber } from '#core/text/units'
import type { NewBuild } from '#shared/schemas/api'
import { nameSchema } from '#core/text/schemas'

const open = defineModel<boolean>({ required: true })
const shelf = useShelfStore()
type Way = Exclude<NewBuild['from'], 'strip'>
const from = ref<Way>('class')
const form = reactive({ name: '', mass: '', spread: '0', thrust: '', price: '', minutes: '' })
const craftClass = ref('3-inch ultralight')
const copyOf = ref('')
const field = useTemplateRef<InputInstance>('field')
const focusField = useDialogFocus(field)
const ways: { value: Way; title: string; what: string }[] = [
  {
    value: 'class',
    title: 'From a craft class',
    what: 'the usual slots with typical masses: a total from the first minute',
  },
  { value: 'empty', title: 'Empty', what: 'no lines yet' },
  { value: 'copy', title: 'A copy', what: 'of a build on the shelf' },
  {
    value: 'reference',
    title: 'A reference craft',
    what: 'ready-made or older, known only as a whole, to compare with',
  },
]
function plain(text: string): number | null {
  const read = readNumber(text)
  return text.trim() === '' || isNotRead(read) ? null : read.value
}
const plainProblem = (text: string): string | undefined => {
  const read = readNumber(text)
  if (text.trim() === '') return undefined
  return isNotRead(read) ? read.problem : read.value < 0 ? 'A plain number, zero or more.' : undefined
}
const problemOf = (read: object): string | undefined =>
  'problem' in read && typeof read.problem === 'string' ? read.problem : undefined
/** What is wrong with the form as it stands, by field. */
function check(): FieldProblems {
  const named = problemsOf(nameSchema('The build’s name'), form.name.trim(), 'name')
  if (from.value === 'copy' && !copyOf.value) return { ...named, copyOf: 'There is no build to copy yet.' }
  if (from.value !== 'reference') return named
  return {
    ...named,
    mass: problemOf(readGrams(form.mass)),
    spread: problemOf(readGrams(form.spread || '0')),
    price: problemOf(readCents(form.price)),
    thrust: plainProblem(form.thrust),
    minutes: plainProblem(form.minutes),
  }
}
const { fields, rules, sent, problem, busy, clear, send } = useFields(
  ['name', 'mass', 'spread', 'thrust', 'minutes', 'price'],
  check,
)
watch(
  open,
  now => {
    if (!now) return
    form.name = ''
    clear()
    copyOf.value = shelf.entries[0]?.id ?? ''
  },
  { immediate: true },
)

/** What is asked for, of a form nothing is wrong with. */
function wanted(): Exclude<NewBuild, { from: 'strip' }> {
  const name = form.name.trim()
  switch (from.value) {
    case 'class':
      return { from: 'class', name, craftClass: craftClass.value }
    case 'empty':
      return { from: 'empty', name }
    case 'copy':
      return { from: 'copy', name, buildId: copyOf.value }
    case 'reference': {
      const [mass, spread, price] = [readGrams(form.mass), readGrams(form.spread || '0'), readCents(form.price)]
      const [massG, spreadG] = [isNotRead(mass) ? 0 : mass.massG, isNotRead(spread) ? 0 : spread.massG]
      const priceCents = isNotRead(price) ? null : price.cents
      return {
        from: 'reference',
        name,
        reference: {
          ...{ massG, spreadG, thrustG: plain(form.thrust), priceCents, minutes: plain(form.minutes) },
          ...{ note: '', pictureIds: [] },
        },
      }
    }
  }
}
const start = () =>
  send(async () => {
    const asked = wanted()
    const id = await shelf.start(asked)
    open.value = false
    await navigateTo(`/builds/${id}/${asked.from === 'reference' ? 'record' : 'aim'}`)
  })
</script>

<template>
  <el-dialog
    v-model="open"
    title="Start a build"
    width="min(560px, 94vw)"
    @open-auto-focus="focusField"
  >
    <el-form
      ref="fields"
      :model="form"
      :rules="rules"
      @submit.prevent="start"
    >
      <FormField
        label="Name"
        prop="name"
        :problem="sent.name"
      >
        <el-input
          ref="field"
          v-model="form.name"
          autocomplete="off"
        />
      </FormField>
      <el-radio-group
        v-model="from"
        class="ways"
        aria-label="Start from"
      >
        <el-radio
          v-for="way in ways"
          :key="way.value"
          :value="way.value"
          class="way"
        >
          <b>{{ way.title }}</b><br><span class="soft">{{ way.what }}</span>
        </el-radio>
      </el-radio-group>
      <PickOne
        v-if="from === 'class'"
        v-model="craftClass"
        field="Craft class"
        :options="craftPresets.map(preset => preset.name)"
      />
      <PickOne
        v-if="from === 'copy'"
        v-model="copyOf"
        field="Copy of"
        :options="shelf.entries.map((entry) => ({ value: entry.id, label: entry.name }))"
      />
      <div
        v-if="from === 'reference'"
        class="fields"
      >
        <FormField
          label="Mass, g"
          prop="mass"
          :problem="sent.mass"
        >
          <el-input
            v-model="form.mass"
            class="figure"
            inputmode="decimal"
          />
        </FormField>
        <FormField
          label="± (95 %), g"
          prop="spread"
          :problem="sent.spread"
        >
          <el-input
            v-model="form.spread"
            class="figure"
            inputmode="decimal"
          />
        </FormField>
        <FormField
          label="Thrust, g"
          prop="thrust"
          :problem="sent.thrust"
        >
          <el-input
            v-model="form.thrust"
            class="figure"
            inputmode="decimal"
          />
        </FormField>
        <FormField
          label="Minutes"
          prop="minutes"
          :problem="sent.minutes"
        >
          <el-input
            v-model="form.minutes"
            class="figure"
            inputmode="decimal"
          />
        </FormField>
        <FormField
          label="Price"
          prop="price"
          :problem="sent.price"
        >
          <el-input
            v-model="form.price"
            class="figure"
            inputmode="decimal"
          />
        </FormField>
      </div>
      <p
        v-if="problem"
        class="problem"
        role="alert"
      >
        {{ problem }}
      </p>
      <div class="foot">
        <el-button @click="open = false">
          Not now
        </el-button><el-button
          type="primary"
          native-type="submit"
          :disabled="busy"
        >
          Start it
        </el-button>
      </div>
    </el-form>
  </el-dialog>
</template>

<style scoped>
.ways {
  margin: 12px 0;
  display: grid;
  gap: 6px;
}
.way {
  display: flex;
  align-items: baseline;
  gap: 6px;
  cursor: pointer;
}
.foot {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
  margin-top: 14px;
}
</style>
