<script setup lang="ts">
import { cardStatuses, countings, countingSentences, type RuleCard } from '#core/limits/rules'
import { isNotRead, massUnits, readNumber, type MassUnit } from '#core/text/units'
import { figure } from '#core/text/display'
import { ownCardSchema } from '#shared/schemas/rule-card'
import type { CardFields } from '../../stores/rules'

const open = defineModel<boolean>({ required: true })
const props = defineProps<{ card: RuleCard | null; id: string | null }>()
const rules = useRulesStore()
const form = reactive({
  place: '',
  purpose: '',
  purposeKind: 'any' as RuleCard['purposeKind'],
  comparator: '<=' as RuleCard['comparator'],
  limit: '',
  unit: 'g' as MassUnit,
  counts: 'take-off' as RuleCard['counts'],
  conditions: '',
  within: '',
  beyond: '',
  always: '',
  source: '',
  status: 'in force' as RuleCard['status'],
  since: '',
})
const lists = [
  ['within', 'Within the limit, one a line'],
  ['beyond', 'Beyond it'],
  ['always', 'Always'],
  ['conditions', 'Also required'],
] as const
const purposes = [
  { value: 'any', label: 'any purpose' },
  { value: 'recreation', label: 'recreation' },
  { value: 'other', label: 'anything else' },
]
const wordings = [
  { value: '<=', label: 'at most' },
  { value: '<', label: 'less than' },
  { value: 'none', label: 'whatever it weighs' },
]

const points = (text: string) =>
  text
    .split('\n')
    .map(line => line.trim())
    .filter(Boolean)

function written(): CardFields {
  const limit = readNumber(form.limit)
  return {
    place: form.place.trim(),
    purpose: form.purpose.trim(),
    purposeKind: form.purposeKind,
    comparator: form.comparator,
    limit: form.comparator === 'none' || isNotRead(limit) ? null : { value: limit.value, unit: form.unit },
    counts: form.counts,
    conditions: points(form.conditions),
    within: points(form.within),
    beyond: points(form.beyond),
    always: points(form.always),
    source: form.source.trim(),
    status: form.status,
    since: form.since || null,
  }
}
function check(): FieldProblems {
  const limit = readNumber(form.limit)
  const problems = problemsOf(ownCardSchema, written())
  return form.comparator !== 'none' && isNotRead(limit) ? { ...problems, limit: limit.problem } : problems
}
const {
  fields,
  rules: rulesOfForm,
  sent,
  problem,
  clear,
  send,
} = useFields(['place', 'purpose', 'limit', 'source', 'since', 'within', 'beyond', 'always', 'conditions'], check)
watch(
  open,
  now => {
    if (!now) return
    clear()
    const card = props.card
    Object.assign(form, {
      place: card?.place ?? '',
      purpose: card?.purpose ?? '',
      purposeKind: card?.purposeKind ?? 'any',
      comparator: card?.comparator ?? '<=',
      limit: card?.limit ? figure(card.limit.value, 6) : '',
      unit: card?.limit?.unit ?? 'g',
      counts: card?.counts ?? 'take-off',
      source: card?.source ?? '',
      status: card?.status ?? 'in force',
      since: card?.since ?? '',
      conditions: card?.conditions.join('\n') ?? '',
      within: card?.within.join('\n') ?? '',
      beyond: card?.beyond.join('\n') ?? '',
      always: card?.always.join('\n') ?? '',
    })
  },
  { immediate: true },
)

const save = () =>
  send(async () => {
    if (props.id) await rules.change(props.id, written())
    else await rules.add(written())
    open.value = false
  })
</script>

<template>
  <el-dialog
    v-model="open"
    :title="id ? 'Edit your card' : 'A card of your own'"
    width="min(640px, 94vw)"
    top="6vh"
  >
    <el-form
      ref="fields"
      :model="form"
      :rules="rulesOfForm"
      @submit.prevent="save"
    >
      <div class="fields">
        <FormField
          label="Place"
          prop="place"
          :problem="sent.place"
        >
          <el-input v-model="form.place" />
        </FormField>
        <FormField
          label="Purpose"
          prop="purpose"
          :problem="sent.purpose"
        >
          <el-input v-model="form.purpose" />
        </FormField>
        <PickOne
          v-model="form.purposeKind"
          field="Applies to"
          :options="purposes"
        />
        <PickOne
          v-model="form.counts"
          field="Counts"
          :options="countings.map((c) => ({ value: c, label: countingSentences[c] }))"
        />
        <div class="limit wide">
          <PickOne
            v-model="form.comparator"
            field="Wording"
            :options="wordings"
          /><FormField
            label="Limit"
            prop="limit"
            :problem="sent.limit"
          >
            <el-input
              v-model="form.limit"
              class="figure"
              inputmode="decimal"
              :disabled="form.comparator === 'none'"
            />
          </FormField><PickOne
            v-model="form.unit"
            field="Unit"
            :options="massUnits"
          />
        </div>
        <PickOne
          v-model="form.status"
          field="Status"
          :options="cardStatuses"
        />
        <DayField
          v-model="form.since"
          field="Since or from"
        />
        <FormField
          v-for="[key, title] in lists"
          :key="key"
          :label="title"
          :prop="key"
          :problem="sent[key]"
        >
          <el-input
            v-model="form[key]"
            type="textarea"
            :rows="3"
          />
        </FormField>
        <FormField
          class="wide"
          label="Source"
          prop="source"
          :problem="sent.source"
        >
          <el-input v-model="form.source" />
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
        >
          Keep it
        </el-button>
      </div>
    </el-form>
  </el-dialog>
</template>

<style scoped>
.limit {
  display: grid;
  grid-template-columns: 2fr 1fr 1fr;
  gap: 10px;
}
.foot {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
  margin-top: 12px;
}
</style>
