<script setup lang="ts">
import { fixed, gramsFigure, spreadFigure } from '#core/text/display'
import { isNotRead, readGrams, readNumber } from '#core/text/units'
import type { ReferenceCraft } from '#core/model/ledger'

/** A craft that is known only as a whole: its figures, edited in place. */
const store = useBuildStore()
const { settings } = storeToRefs(useSettingsStore())
const craft = computed(() => store.build!.reference!)
const problem = ref('')

type Field = Exclude<keyof ReferenceCraft, 'note' | 'pictureIds'>
const shelf = useShelfStore()
const spreadWords = computed(() => (craft.value.spreadG > 0 ? `g ± ${spreadFigure(craft.value.spreadG)}` : 'g'))
const accounted = computed(() => accountedWords(craft.value, store.overview!))
const asked = ref(false)
function put(changed: Partial<ReferenceCraft>) {
  store.run({ type: 'build.set', fields: { reference: { ...craft.value, ...changed } } })
}
/** A picture goes to the craft it was chosen for. */
const holdPicture = () =>
  holderInBuild(
    'The craft',
    build => build.reference,
    reference => ({ type: 'build.set', fields: { reference } }),
  )
/** The builds it is taken apart in are builds like any other: the craft itself stays to compare with. */
async function strip() {
  problem.value = ''
  asked.value = true
  try {
    const { id, name } = store.build!
    await navigateTo(`/builds/${await shelf.start({ from: 'strip', name: `${name}, stripped`, buildId: id })}/parts`)
  } catch (error) {
    problem.value = sentenceOf(error)
  } finally {
    asked.value = false
  }
}
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
  put({ [field]: kept })
}
</script>

<template>
  <section
    class="reference"
    aria-label="Reference craft"
  >
    <span class="figure value">{{ gramsFigure(craft.massG, craft.spreadG) }} <small>{{ spreadWords }}</small></span>
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
    <div class="more">
      <label class="field note-field">Notes<EditField
        type="textarea"
        :rows="1"
        :value="craft.note"
        maxlength="2000"
        placeholder="where it came from, how it flies"
        @change="put({ note: ($event.target as HTMLInputElement).value })"
      /></label>
      <PartPictures
        :key="store.build!.id"
        :of="store.build!.name"
        :ids="craft.pictureIds"
        :holder="holdPicture"
        @change="put({ pictureIds: [...$event] })"
      />
      <div class="parts">
        <NuxtLink :to="`/builds/${store.build!.id}/parts`">{{ accounted }}</NuxtLink>
        <el-button
          :disabled="asked"
          @click="strip"
        >
          Strip it: a build part by part
        </el-button>
      </div>
    </div>
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
.value small {
  font-size: 15px;
  letter-spacing: 0;
  color: var(--ink-soft);
}
.more {
  flex-basis: 100%;
  display: flex;
  flex-wrap: wrap;
  gap: 8px 20px;
  align-items: center;
}
.note-field {
  width: 320px;
}
.more :deep(.picture-row) {
  margin: 0;
  align-items: center;
}
.more :deep(.picture-row :is(img, .gone)) {
  width: 76px;
  height: 57px;
}
.parts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
  margin-left: auto;
}
.said {
  flex-basis: 100%;
  margin: 0;
}
@media screen and (max-width: 760px) {
  .reference > .soft,
  .note-field {
    flex-basis: 100%;
  }
}
</style>
