<script setup lang="ts">
import { shaveListOf, type CostMeasure, type ShavingGoal } from '#core/deciding/shave'
import { centsFigure, fixed } from '#core/text/display'
import { isNotRead, readCents, readNumber, withoutUnit } from '#core/text/units'

/** What a plan shall spare first, where it shall come to, and what it may cost at most. */
const goal = defineModel<ShavingGoal>('goal', { required: true })
const store = useBuildStore()
const list = computed(() => shaveListOf(store.build!))
const problem = ref('')
function spare(measure: CostMeasure) {
  store.run({ type: 'shave.set', fields: { spare: measure } })
}
function cap(key: 'cents' | 'minutes' | 'loss', event: Event) {
  const text = (event.target as HTMLInputElement).value.trim()
  const read = text === '' ? { value: null } : key === 'cents' ? readCents(text) : readNumber(text)
  if ('problem' in read) {
    problem.value = read.problem
    return
  }
  const value = 'cents' in read ? read.cents : read.value
  if (value !== null && value < 0) {
    problem.value = 'A cap is zero or more.'
    return
  }
  problem.value = ''
  store.run({ type: 'shave.set', fields: { caps: { ...list.value.caps, [key]: value } } })
}
function aimAt(kind: 'clear' | 'dry' | 'put on') {
  goal.value = kind === 'dry' ? { kind, gramsG: store.build!.aim.goalDryG! } : { kind }
}
function setGoal(event: Event) {
  const text = (event.target as HTMLInputElement).value.trim()
  const read = text === '' ? null : readNumber(withoutUnit(text, 'g'))
  if (read && (isNotRead(read) || read.value < 0 || read.value > 1000)) {
    problem.value = isNotRead(read) ? read.problem : 'Grams to take off are from 0 to 1000.'
    return
  }
  problem.value = ''
  goal.value = read && !isNotRead(read) ? { kind: 'grams', gramsG: read.value } : { kind: 'clear' }
}
</script>

<template>
  <div>
    <h2>What to spare</h2>
    <el-radio-group
      class="stacked"
      :model-value="list.spare"
      aria-label="What to spare"
      @change="spare($event as typeof list.spare)"
    >
      <el-radio
        v-for="(name, measure) in measureNames"
        :key="measure"
        :value="measure"
      >
        {{ name }}
      </el-radio>
    </el-radio-group>
    <h3>The goal</h3>
    <el-radio-group
      class="stacked"
      :model-value="goal.kind === 'grams' ? 'clear' : goal.kind"
      aria-label="The goal"
      @change="aimAt($event as 'clear' | 'dry' | 'put on')"
    >
      <el-radio value="clear">
        take off what is too much
      </el-radio>
      <el-radio
        v-if="store.build!.aim.goalDryG !== null"
        value="dry"
      >
        the dry mass aimed at, {{ fixed(store.build!.aim.goalDryG, 1) }} g
      </el-radio>
      <el-radio value="put on">
        put on what is worth it
      </el-radio>
    </el-radio-group>
    <el-checkbox
      :model-value="list.everyLoadout"
      @change="store.run({ type: 'shave.set', fields: { everyLoadout: !list.everyLoadout } })"
    >
      every loadout that is flown
    </el-checkbox>
    <label
      v-if="goal.kind === 'clear' || goal.kind === 'grams'"
      class="field"
    >Or just so many grams<EditField
      :value="goal.kind === 'grams' ? goal.gramsG : ''"
      placeholder="until Clear"
      inputmode="decimal"
      class="figure"
      aria-label="Grams to take off"
      @change="setGoal"
    /></label>
    <h3>At most</h3>
    <div class="fields">
      <label class="field">Money<EditField
        :value="list.caps.cents === null ? '' : centsFigure(list.caps.cents)"
        class="figure"
        inputmode="decimal"
        aria-label="Most money"
        @change="cap('cents', $event)"
      /></label><label class="field">Minutes<EditField
        :value="list.caps.minutes ?? ''"
        class="figure"
        inputmode="decimal"
        aria-label="Most minutes"
        @change="cap('minutes', $event)"
      /></label><label class="field">Given up, in all<EditField
        :value="list.caps.loss ?? ''"
        class="figure"
        inputmode="decimal"
        aria-label="Most given up"
        @change="cap('loss', $event)"
      /></label>
    </div>
    <p
      v-if="problem"
      class="problem"
      role="alert"
    >
      {{ problem }}
    </p>
  </div>
</template>
