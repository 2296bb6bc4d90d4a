<script setup lang="ts">
import type { Slot } from '#core/model/ledger'
import { isNotRead } from '#core/text/units'
import { propertiesOf, propertyText, readProperty, type Properties, type Property } from '#core/model/properties'
import { propertyProblem } from '#core/model/properties'

const props = defineProps<{ slotName: Slot; properties: Properties | null; asked?: readonly string[] }>()
const emit = defineEmits<{ change: [properties: Properties | null] }>()
const problems = ref<Record<string, string>>({})
const all = computed(() => propertiesOf(props.slotName))

function change(property: Property, event: Event) {
  take(property, (event.target as HTMLInputElement | HTMLTextAreaElement).value.trim())
}
function take(property: Property, text: string) {
  const { [property.key]: _gone, ...others } = props.properties ?? {}
  const { [property.key]: _was, ...otherProblems } = problems.value
  const read = text === '' ? null : readProperty(property, text)
  if (read && isNotRead(read)) {
    problems.value = { ...otherProblems, [property.key]: read.problem }
    return
  }
  const next = read ? { ...others, [property.key]: read.value } : others
  const wrong = propertyProblem(props.slotName, next)
  problems.value = wrong ? { ...otherProblems, [property.key]: wrong.message } : otherProblems
  if (!wrong) emit('change', Object.keys(next).length === 0 ? null : next)
}
/** A table somebody measured comes in as a file; it is read as if it were typed. */
async function fromFile(property: Property, file: File) {
  const text = file.size > 100_000 ? '' : await file.text()
  if (text === '') {
    problems.value = { ...problems.value, [property.key]: 'That file is empty, or far too long for a bench table.' }
    return
  }
  take(property, text.replace(/^\uFEFF/, '').trim())
}
const hints: Record<string, string> = {
  patterns: '12×12 M2; 9×9 M2',
  outputs: '5 V 2 A; 9 V 1.5 A',
  provides: 'receiver, sounder',
  bench: '40, 16.3, 2.1, 86',
}
const wideKinds: ReadonlySet<Property['kind']> = new Set(['patterns', 'outputs', 'bench', 'provides'])
function wordsOf(property: Property): string {
  const hasUnit = property.kind !== 'outputs' && property.kind !== 'patterns' && property.unit
  return hasUnit ? `${property.label}, ${property.unit}` : property.label
}
/** What a rule of fit waits for is brought into view. */
const fields = useTemplateRef<HTMLDivElement>('fields')
onMounted(() => {
  if (props.asked?.length) fields.value?.querySelector('.asked')?.scrollIntoView({ block: 'center' })
})
</script>

<template>
  <div
    ref="fields"
    class="fields"
  >
    <div
      v-for="property in all"
      :key="property.key"
      class="property"
      :class="{ wide: wideKinds.has(property.kind), asked: asked?.includes(property.key) }"
    >
      <PickOne
        v-if="property.kind === 'choice' || property.kind === 'yes'"
        :model-value="propertyText(properties?.[property.key])"
        :field="wordsOf(property)"
        :options="property.kind === 'choice' ? property.choices : ['yes', 'no']"
        none="not known"
        :data-property="property.key"
        @update:model-value="take(property, String($event))"
      />
      <PlugField
        v-else-if="property.key === 'plug'"
        :value="propertyText(properties?.plug)"
        :field="wordsOf(property)"
        data-property="plug"
        @change="take(property, $event)"
      />
      <DayField
        v-else-if="property.kind === 'day'"
        :model-value="propertyText(properties?.[property.key])"
        :field="wordsOf(property)"
        :data-property="property.key"
        @update:model-value="take(property, $event)"
      />
      <label
        v-else
        class="field"
      >{{ wordsOf(property) }}
        <EditField
          v-if="property.kind === 'bench'"
          type="textarea"
          :rows="4"
          class="figure"
          :value="propertyText(properties?.[property.key])"
          placeholder="throttle %, volts, amps, grams"
          @change="change(property, $event)"
        />
        <EditField
          v-else
          :value="propertyText(properties?.[property.key])"
          :class="{ figure: property.kind === 'measure' }"
          :placeholder="hints[property.kind] ?? ''"
          :aria-invalid="property.key in problems"
          :data-property="property.key"
          @change="change(property, $event)"
        /></label>
      <FileChoose
        v-if="property.kind === 'bench'"
        accept=".csv,text/csv"
        :words="`${property.label} from a CSV file`"
        @file="fromFile(property, $event)"
      />
      <span
        v-if="problems[property.key]"
        class="problem"
        role="alert"
      >{{ problems[property.key] }}</span>
    </div>
  </div>
</template>

<style scoped>
.asked {
  background: var(--note);
  border-radius: 5px;
  outline: 4px solid var(--note);
}
</style>
