<script setup lang="ts">
import { beyondThings, heldThings, type JointPlan } from '#core/aircraft/fit'
import { measureOf, textOf } from '#core/model/properties'
import { isNotRead, readNumber } from '#core/text/units'
import { screwForms, materialsFor } from '#core/mass/mass-calculators'
import { jointSchema } from '#core/slices/fit'

const props = defineProps<{ joint: JointPlan }>()
const emit = defineEmits<{ change: [joint: JointPlan] }>()
const store = useBuildStore()
const problem = ref('')
const screwLines = computed(() => store.build!.lines.filter(line => line.slot === 'screw'))
const threads = [...new Set(screwForms.map(form => form.thread))]
const headsOf = (thread: string | null) =>
  screwForms.filter(form => thread === null || form.thread === thread).map(form => form.head)
const heads = computed(() => [...new Set(headsOf(props.joint.thread))])
const materials = materialsFor('screw').map(m => m.name)
const valueOf = (event: Event) => (event.target as HTMLInputElement).value

function change(fields: Partial<JointPlan>) {
  const parsed = jointSchema.safeParse({ ...props.joint, ...fields, said: true })
  problem.value = parsed.success ? '' : parsed.error.issues[0]!.message
  if (parsed.success) emit('change', parsed.data)
}
function measure(key: 'count' | 'clampedMm' | 'engagementMm' | 'freeDepthMm' | 'lengthMm', event: Event) {
  const text = valueOf(event)
  if (text.trim() === '') {
    change({ [key]: null })
    return
  }
  const read = readNumber(text)
  if (isNotRead(read)) problem.value = read.problem
  else change({ [key]: read.value })
}
function choose(key: 'holds' | 'head' | 'material' | 'beyond', value: string) {
  change({ [key]: value || null })
}
function chooseThread(thread: string | null) {
  const { head } = props.joint
  change({ thread, head: head !== null && headsOf(thread).includes(head) ? head : null })
}
function takeLine(id: string) {
  const line = store.lineOf(id)
  const { joint } = props
  change({
    lineId: line?.id ?? null,
    ...(line
      ? {
          lengthMm: measureOf(line, 'lengthMm') ?? joint.lengthMm,
          thread: textOf(line, 'thread') ?? joint.thread,
          head: textOf(line, 'head') ?? joint.head,
          material: textOf(line, 'material') ?? joint.material,
        }
      : {}),
  })
}
</script>

<template>
  <p
    v-if="problem"
    class="problem"
    role="alert"
  >
    {{ problem }}
  </p>
  <div class="fields six">
    <label class="field two">Joint<EditField
      :value="joint.name"
      @change="change({ name: valueOf($event) })"
    /></label>
    <PickOne
      field="Holds"
      :model-value="joint.holds ?? ''"
      :options="heldThings"
      none="not said"
      @update:model-value="choose('holds', $event)"
    />
    <label class="field">Screws<EditField
      :value="joint.count"
      class="figure"
      inputmode="numeric"
      @change="measure('count', $event)"
    /></label>
    <PickOne
      field="Thread"
      :model-value="joint.thread ?? ''"
      :options="threads"
      none="not said"
      @update:model-value="chooseThread($event || null)"
    />
    <PickOne
      field="Head"
      :model-value="joint.head ?? ''"
      :options="heads"
      none="not said"
      @update:model-value="choose('head', $event)"
    />
    <PickOne
      field="Material"
      :model-value="joint.material ?? ''"
      :options="materials"
      none="not said"
      @update:model-value="choose('material', $event)"
    />
    <label class="field">Clamped, mm<EditField
      :value="joint.clampedMm"
      class="figure"
      inputmode="decimal"
      @change="measure('clampedMm', $event)"
    /></label>
    <label class="field">Thread to hold, mm<EditField
      :value="joint.engagementMm"
      class="figure"
      inputmode="decimal"
      @change="measure('engagementMm', $event)"
    /></label>
    <label class="field">Free depth, mm<EditField
      :value="joint.freeDepthMm"
      class="figure"
      inputmode="decimal"
      @change="measure('freeDepthMm', $event)"
    /></label>
    <PickOne
      field="Beyond it"
      :model-value="joint.beyond ?? ''"
      :options="beyondThings"
      none="not said"
      @update:model-value="choose('beyond', $event)"
    />
    <label class="field">Bites into<EditField
      :value="joint.into"
      @change="change({ into: valueOf($event) })"
    /></label>
    <label class="field">Screw length, mm<EditField
      :value="joint.lengthMm"
      class="figure"
      inputmode="decimal"
      @change="measure('lengthMm', $event)"
    /></label>
    <PickOne
      field="Screws of line"
      :model-value="joint.lineId ?? ''"
      :options="screwLines.map((line) => ({ value: line.id, label: line.name }))"
      none="none"
      @update:model-value="takeLine($event)"
    />
  </div>
</template>

<style scoped>
.six {
  grid-template-columns: repeat(6, 1fr);
}
.six .two {
  grid-column: span 2;
}
@media screen and (max-width: 760px) {
  .six {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
