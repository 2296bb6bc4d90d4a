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
const valueOf = (event: Event) => (event.target as HTMLInputElement | HTMLSelectElement).value

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
function choose(key: 'holds' | 'head' | 'material' | 'beyond', event: Event) {
  change({ [key]: valueOf(event) || null })
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
    <label class="field">Holds<select
      :value="joint.holds ?? ''"
      @change="choose('holds', $event)"
    ><option value="">not said</option><option
      v-for="h in heldThings"
      :key="h"
    >{{ h }}</option></select></label>
    <label class="field">Screws<EditField
      :value="joint.count"
      class="figure"
      inputmode="numeric"
      @change="measure('count', $event)"
    /></label>
    <label class="field">Thread<select
      :value="joint.thread ?? ''"
      @change="chooseThread(valueOf($event) || null)"
    ><option value="">not said</option><option
      v-for="t in threads"
      :key="t"
    >{{ t }}</option></select></label>
    <label class="field">Head<select
      :value="joint.head ?? ''"
      @change="choose('head', $event)"
    ><option value="">not said</option><option
      v-for="h in heads"
      :key="h"
    >{{ h }}</option></select></label>
    <label class="field">Material<select
      :value="joint.material ?? ''"
      @change="choose('material', $event)"
    ><option value="">not said</option><option
      v-for="m in materials"
      :key="m"
    >{{ m }}</option></select></label>
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
    <label class="field">Beyond it<select
      :value="joint.beyond ?? ''"
      @change="choose('beyond', $event)"
    ><option value="">not said</option><option
      v-for="b in beyondThings"
      :key="b"
    >{{ b }}</option></select></label>
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
    <label class="field">Screws of line<select
      :value="joint.lineId ?? ''"
      @change="takeLine(valueOf($event))"
    ><option value="">none</option><option
      v-for="line in screwLines"
      :key="line.id"
      :value="line.id"
    >{{ line.name }}</option></select></label>
  </div>
</template>

<style scoped>
.six {
  grid-template-columns: repeat(6, 1fr);
}
.six .two {
  grid-column: span 2;
}
@media (max-width: 760px) {
  .six {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
