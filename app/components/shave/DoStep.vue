<script setup lang="ts">
import type { InputInstance } from 'element-plus'
import { fixed } from '#core/text/display'
import { isNotRead, readNumber, withoutUnit } from '#core/text/units'
import { planWires } from '#core/aircraft/fit'
import type { Shaving } from '#core/deciding/shave'

/** Asks what a step really took off: typed, lying on the pan, or as the difference of the part before and after. */
const props = defineProps<{
  shaving: Shaving
  forecastG: number
  /** Why what was said last cannot be done. */ refusal: string
}>()
const emit = defineEmits<{ done: [real: { grams: number; stepG: number } | null, leadMm: number | null]; close: [] }>()
const store = useBuildStore()
const line = computed(() => store.build!.lines.find(one => one.id === props.shaving.lineId))
/** Leads that are cut have a length afterwards: that of the plan, where there is one. */
const cutsLeads = computed(
  () =>
    (props.shaving.kind === 'trim leads' || props.shaving.kind === 'shorter lead') &&
    (line.value?.slot === 'motor' || line.value?.slot === 'power lead'),
)
const planned = planWires(store.build!.fit?.wires ?? []).rows.find(({ wire }) =>
  [wire.from, wire.to].some(
    end => end === line.value?.id || end === line.value?.name || (end === 'motors' && line.value?.slot === 'motor'),
  ),
)
const leadMm = ref(planned ? String(planned.lengthMm) : '')
const bench = useBenchScale()
const real = ref('')
const beforeG = ref<number | null>(null)
const problems = ref<FieldProblems>({})
const field = useTemplateRef<InputInstance>('field')
const putsOn = computed(() => props.shaving.kind === 'put on')
const panG = computed(() => (bench.live.value && bench.rest.value.steady ? bench.rest.value.displayG : null))
const figure = (grams: number) => fixed(grams, 2).replace('−', '-')

function takePan() {
  real.value = figure(panG.value!)
}
function takeAfter() {
  real.value = figure(putsOn.value ? panG.value! - beforeG.value! : beforeG.value! - panG.value!)
  beforeG.value = null
}
function done() {
  problems.value = {}
  const text = real.value.trim()
  const lead = !cutsLeads.value || leadMm.value.trim() === '' ? null : readNumber(withoutUnit(leadMm.value, 'mm'))
  if (lead && (isNotRead(lead) || lead.value < 0 || lead.value > 500)) {
    problems.value = { leadMm: isNotRead(lead) ? lead.problem : 'A lead is from 0 to 500 mm long.' }
    return
  }
  const length = lead && !isNotRead(lead) ? lead.value : null
  if (text === '') {
    emit('done', null, length)
    return
  }
  const read = readNumber(withoutUnit(text, 'g').replace('−', '-'))
  if (isNotRead(read)) problems.value = { real: read.problem }
  else if (Math.abs(read.value) > 1000) problems.value = { real: 'Grams off are from −1000 to 1000.' }
  else emit('done', { grams: putsOn.value ? -Math.abs(read.value) : read.value, stepG: read.step }, length)
}
onMounted(() => field.value?.focus())
</script>

<template>
  <el-form
    @submit.prevent="done"
    @keydown.esc="emit('close')"
  >
    <FormField
      :label="`What came ${putsOn ? 'on' : 'off'} by the scale, g`"
      :problem="problems.real"
    >
      <el-input
        ref="field"
        v-model="real"
        class="figure"
        inputmode="decimal"
        :placeholder="`forecast ${fixed(forecastG, 2)}`"
      />
    </FormField>
    <FormField
      v-if="cutsLeads"
      label="Length of the leads now, mm"
      :problem="problems.leadMm"
    >
      <el-input
        v-model="leadMm"
        class="figure"
        inputmode="decimal"
      />
    </FormField>
    <el-button
      type="primary"
      native-type="submit"
    >
      Done
    </el-button><el-button @click="emit('close')">
      Not yet
    </el-button>
    <span class="soft">Empty: the forecast stands until you weigh.</span>
    <p
      v-if="bench.live.value"
      class="pan"
    >
      <span class="soft">{{ panG === null ? bench.rest.value.reason : `On the pan ${fixed(panG, 2)} g.` }}</span>
      <el-button
        :disabled="panG === null || panG <= 0"
        @click="takePan"
      >
        {{ putsOn ? 'That goes on' : 'That came off' }}
      </el-button>
      <el-button
        v-if="beforeG === null"
        :disabled="panG === null"
        @click="beforeG = panG"
      >
        That is it before
      </el-button>
      <el-button
        v-else
        :disabled="panG === null"
        @click="takeAfter"
      >
        {{ fixed(beforeG, 2) }} g before: that is it after
      </el-button>
    </p>
    <p
      v-if="refusal"
      class="problem"
      role="alert"
    >
      {{ refusal }}
    </p>
  </el-form>
</template>

<style scoped>
form {
  display: flex;
  gap: 8px;
  align-items: end;
  flex-wrap: wrap;
}
.figure {
  width: 140px;
}
.pan {
  flex-basis: 100%;
  display: flex;
  gap: 8px;
  align-items: center;
  flex-wrap: wrap;
  margin: 0;
}
.problem {
  flex-basis: 100%;
  margin: 0;
}
@media screen and (max-width: 760px) {
  label {
    flex-wrap: wrap;
  }
}
</style>
