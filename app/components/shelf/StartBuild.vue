<script setup lang="ts">
import type { InputInstance } from 'element-plus'
import { craftPresets } from '#core/parts/catalogue'
import { isNotRead, readCents, readGrams, readNumber } from '#core/text/units'
import type { NewBuild } from '#shared/schemas/api'
import { nameSchema } from '#core/text/schemas'

const open = defineModel<boolean>({ required: true })
const shelf = useShelfStore()
const from = ref<NewBuild['from']>('class')
const name = ref('')
const craftClass = ref('3-inch ultralight')
const copyOf = ref('')
const reference = reactive({ mass: '', spread: '0', thrust: '', price: '', minutes: '' })
const problem = ref('')
const busy = ref(false)
const field = useTemplateRef<InputInstance>('field')
const focusField = useDialogFocus(field)
const ways: { value: NewBuild['from']; title: string; what: string }[] = [
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
watch(
  open,
  now => {
    if (!now) return
    problem.value = ''
    name.value = ''
    copyOf.value = shelf.entries[0]?.id ?? ''
  },
  { immediate: true },
)

function optional(text: string): number | null | undefined {
  if (text.trim() === '') return null
  const read = readNumber(text)
  return isNotRead(read) || read.value < 0 ? undefined : read.value
}
function wanted(): NewBuild | string {
  const named = nameSchema('The build’s name').safeParse(name.value.trim())
  if (!named.success) return named.error.issues[0]!.message
  switch (from.value) {
    case 'class':
      return { from: 'class', name: named.data, craftClass: craftClass.value }
    case 'empty':
      return { from: 'empty', name: named.data }
    case 'copy':
      return copyOf.value ? { from: 'copy', name: named.data, buildId: copyOf.value } : 'There is no build to copy yet.'
    case 'reference': {
      const mass = readGrams(reference.mass)
      const spread = readGrams(reference.spread || '0')
      const price = readCents(reference.price)
      const thrustG = optional(reference.thrust)
      const minutes = optional(reference.minutes)
      if (isNotRead(mass)) return `Mass: ${mass.problem}`
      if (isNotRead(spread)) return `Spread: ${spread.problem}`
      if (isNotRead(price)) return price.problem
      if (thrustG === undefined || minutes === undefined) return 'Thrust and minutes are plain numbers, zero or more.'
      return {
        from: 'reference',
        name: named.data,
        reference: { massG: mass.massG, spreadG: spread.massG, thrustG, priceCents: price.cents, minutes },
      }
    }
  }
}
async function start() {
  const asked = wanted()
  problem.value = typeof asked === 'string' ? asked : ''
  if (typeof asked === 'string') return
  busy.value = true
  try {
    const id = await shelf.start(asked)
    open.value = false
    await navigateTo(`/builds/${id}/${asked.from === 'reference' ? 'record' : 'aim'}`)
  } catch (error) {
    problem.value = sentenceOf(error)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <el-dialog
    v-model="open"
    title="Start a build"
    width="min(560px, 94vw)"
    @open-auto-focus="focusField"
  >
    <form
      novalidate
      @submit.prevent="start"
    >
      <label class="field">Name<el-input
        ref="field"
        v-model="name"
        autocomplete="off"
        :aria-invalid="problem !== ''"
      /></label>
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
        <label class="field">Mass, g<el-input
          v-model="reference.mass"
          class="figure"
          inputmode="decimal"
        /></label>
        <label class="field">± (95 %), g<el-input
          v-model="reference.spread"
          class="figure"
          inputmode="decimal"
        /></label>
        <label class="field">Thrust, g<el-input
          v-model="reference.thrust"
          class="figure"
          inputmode="decimal"
        /></label>
        <label class="field">Minutes<el-input
          v-model="reference.minutes"
          class="figure"
          inputmode="decimal"
        /></label>
        <label class="field">Price<el-input
          v-model="reference.price"
          class="figure"
          inputmode="decimal"
        /></label>
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
    </form>
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
