<script setup lang="ts">
import { fixed, gramsWithSpread } from '#core/text/display'
import { isNotRead, readGrams, readNumber } from '#core/text/units'
import type { ReferenceCraft } from '#core/model/ledger'

/** A craft that is known only as a whole: its figures, edited in place. */
const store = useBuildStore()
const { settings } = storeToRefs(useSettingsStore())
const craft = computed(() => store.build!.reference!)
const problem = ref('')

type Field = keyof ReferenceCraft
/** What is written in a field; cents as money. */
const shown = (field: Field) => {
  const value = craft.value[field]
  if (value === null) return ''
  return field === 'priceCents' ? fixed(value / 100, 2) : String(value)
}
const fields = computed((): readonly { key: Field; label: string; unit: string }[] => [
  { key: 'massG', label: 'Weighs', unit: 'g' },
  { key: 'spreadG', label: '±', unit: 'g' },
  { key: 'thrustG', label: 'Thrust', unit: 'g' },
  { key: 'minutes', label: 'Flies', unit: 'min' },
  { key: 'priceCents', label: 'Cost', unit: settings.value.currency },
])
/** A figure, or the sentence why it is none. */
function gramsOf(text: string): number | string {
  const read = readGrams(text)
  return isNotRead(read) ? read.problem : read.massG
}
function numberOf(text: string): number | string {
  const read = readNumber(text)
  return isNotRead(read) ? read.problem : read.value
}
function change(field: Field, text: string) {
  problem.value = ''
  const isEmpty = text.trim() === '' && field !== 'massG' && field !== 'spreadG'
  const isGrams = field === 'massG' || field === 'spreadG' || field === 'thrustG'
  const value = isEmpty ? null : isGrams ? gramsOf(text) : numberOf(text)
  if (typeof value === 'string') {
    problem.value = value
    return
  }
  const kept = field === 'priceCents' && value !== null ? Math.round(value * 100) : value
  store.run({ type: 'build.set', fields: { reference: { ...craft.value, [field]: kept } as ReferenceCraft } })
}
</script>

<template>
  <section
    class="reference"
    aria-label="Reference craft"
  >
    <span class="figure value">{{ gramsWithSpread(craft.massG, craft.spreadG) }}</span>
    <span class="soft">reference craft<template v-if="craft.thrustG !== null">,
      {{ fixed(craft.thrustG / craft.massG, 1) }} : 1</template></span>
    <label
      v-for="field in fields"
      :key="field.key"
      class="field"
    >{{ field.label }}, {{ field.unit }}<EditField
      :value="shown(field.key)"
      class="figure"
      inputmode="decimal"
      placeholder="not known"
      @change="change(field.key, ($event.target as HTMLInputElement).value)"
    /></label>
    <p
      v-if="problem"
      class="problem said"
      role="alert"
    >
      {{ problem }}
    </p>
  </section>
</template>

<style scoped>
.reference {
  background: var(--card);
  border-bottom: 1px solid var(--line);
  padding: 12px 18px;
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: end;
}
.value {
  font-size: 30px;
  letter-spacing: -1px;
  line-height: 1.1;
}
.field {
  width: 108px;
}
.said {
  flex-basis: 100%;
  margin: 0;
}
</style>
