<script setup lang="ts">
import type { InputInstance } from 'element-plus'
import { fixed, signed, figure, counted } from '#core/text/display'
import { coverageFactor95 } from '#core/maths/numbers'
import { repeatabilityFrom, type Scale } from '#core/mass/scale'
import { isNotRead, readGrams, readNumber } from '#core/text/units'
import { scaleFieldsSchema, type ScaleFields } from '#shared/schemas/scales'

const props = defineProps<{ scale: Scale }>()
const scales = useScalesStore()
const standing = computed(() => scales.standings.get(props.scale.id)!)
const open = ref<'' | 'check' | 'ten' | 'facts'>('')
const problem = ref('')
const displays = ref<string[]>(Array<string>(10).fill(''))
/** What cannot be read of each of them. */
const unread = ref<string[]>([])
const tenField = useTemplateRef<InputInstance[]>('tenField')

const reads = computed(() => {
  const { result } = standing.value
  if (!result) return `never checked: ${uncheckedWords()} is assumed`
  const off = 100 * (result.gain - 1)
  const spread = 100 * coverageFactor95 * result.gainSigma
  return `${Math.abs(off) < 0.005 ? 'true' : `${fixed(Math.abs(off), 2)} % ${off > 0 ? 'heavy' : 'light'}`}, ± ${fixed(spread, 3)} %`
})
const mine = computed(() => scales.checks.filter(check => check.scaleId === props.scale.id))

async function save(fields: Partial<ScaleFields>) {
  problem.value = ''
  const { id, ...kept } = props.scale
  const parsed = scaleFieldsSchema.safeParse({ ...kept, ...fields })
  if (!parsed.success) {
    problem.value = parsed.error.issues[0]!.message
    return
  }
  try {
    await scales.putScale(id, parsed.data)
  } catch (error) {
    problem.value = sentenceOf(error)
  }
}
function change(field: 'name' | 'resolutionG' | 'capacityG' | 'checkIntervalDays', event: Event) {
  const text = (event.target as HTMLInputElement).value.trim()
  if (field === 'name') return save({ name: text })
  if (field === 'checkIntervalDays') {
    const read = readNumber(text)
    if (isNotRead(read)) {
      problem.value = read.problem
      return
    }
    return save({ checkIntervalDays: read.value })
  }
  const read = readGrams(text)
  if (isNotRead(read)) {
    problem.value = read.problem
    return
  }
  return save({ [field]: read.massG })
}
async function keepTen() {
  problem.value = ''
  const reads = displays.value.map(text => (text.trim() === '' ? null : readGrams(text)))
  unread.value = reads.map(one => (one && isNotRead(one) ? one.problem : ''))
  if (unread.value.some(said => said !== '')) return
  const read = reads.filter(one => one !== null)
  if (read.length < 2) {
    problem.value = 'At least two placings; ten tell more, and few are widened for it.'
    return
  }
  await save({
    repeatabilityG: Number(
      repeatabilityFrom(
        read.map(r => (isNotRead(r) ? 0 : r.massG)),
        props.scale.resolutionG,
      ).toFixed(5),
    ),
  })
  if (!problem.value) {
    open.value = ''
    displays.value = Array<string>(10).fill('')
  }
}
async function remove() {
  problem.value = ''
  try {
    await scales.removeScale(props.scale.id)
  } catch (error) {
    problem.value = sentenceOf(error)
  }
}
function next(index: number) {
  tenField.value?.[index + 1]?.focus()
}
const { rest, live } = useBenchScale()
function takeLive(index: number) {
  if (live.value && rest.value.steady) {
    displays.value[index] = rest.value.displayG!.toFixed(3)
    next(index)
  }
}
</script>

<template>
  <section
    class="panel scale"
    :aria-label="scale.name"
  >
    <div class="head">
      <div>
        <h2>
          {{ scale.name }}<small
            v-if="scales.current?.id === scale.id"
            class="at-hand"
          >at hand</small>
        </h2>
        <span class="soft">{{ figure(scale.resolutionG, 4) }} g steps, {{ counted(scale.capacityG) }} g at most</span>
      </div>
      <span class="gap" />
      <el-button
        v-if="scales.current?.id !== scale.id"
        @click="scales.currentId = scale.id"
      >
        Use this one
      </el-button>
      <el-button
        type="primary"
        @click="open = open === 'check' ? '' : 'check'"
      >
        Check it
      </el-button>
    </div>
    <div class="columns">
      <dl class="facts">
        <dt>Reads</dt><dd>{{ reads }}</dd>
        <dt>Last check</dt><dd>
          {{
            standing.check
              ? `${dayOf(standing.check.takenAt, 'short')}, ${standing.ageDays} days ago`
              : 'never'
          }}
        </dd>
        <dt>
          One placing repeats
          to
        </dt><dd>{{ scale.repeatabilityG === null ? 'not measured: one step assumed' : `${fixed(scale.repeatabilityG, 4)} g` }}</dd>
        <template v-if="standing.result && standing.result.linearityG > 0">
          <dt>Not straight by</dt><dd>{{ fixed(standing.result.linearityG, 3) }} g</dd>
        </template>
      </dl>
      <GainChart
        v-if="mine.length > 0"
        :scale="scale"
        :checks="mine"
      />
      <p
        v-else
        class="soft none"
      >
        One check with a mass you trust shows here how far it is off, and later how it drifts.
      </p>
    </div>
    <p
      v-if="standing.drift?.flagged"
      class="note"
    >
      It has drifted {{ signed(100 * standing.drift.change, 2) }} % since the check before: more than both checks
      allow. What was weighed in between may be off by as much.
    </p>
    <p
      v-else-if="standing.check && standing.overdue"
      class="note"
    >
      Overdue: it was to be checked every {{ scale.checkIntervalDays }} days.
    </p>
    <CheckForm
      v-if="open === 'check'"
      :scale="scale"
      @done="open = ''"
    />
    <div
      v-if="open === 'ten'"
      class="ten"
    >
      <h3>The same thing ten times</h3>
      <p class="soft">
        Take any part, put it on, note the display, take it off; ten times. Enter takes the next; an empty field with
        a connected scale takes the steady reading.
      </p>
      <el-form
        class="displays"
        @submit.prevent="keepTen"
      >
        <FormField
          v-for="(text, i) in displays"
          :key="i"
          label=""
          :problem="unread[i]"
        >
          <el-input
            ref="tenField"
            v-model="displays[i]"
            class="figure"
            inputmode="decimal"
            :aria-label="`Placing ${i + 1}`"
            @keydown.enter.prevent="text === '' ? takeLive(i) : next(i)"
          />
        </FormField>
        <el-button
          type="primary"
          native-type="submit"
        >
          Keep
        </el-button>
      </el-form>
    </div>
    <div
      v-if="open === 'facts'"
      class="fields four"
    >
      <label class="field">Name<EditField
        :value="scale.name"
        @change="change('name', $event)"
      /></label>
      <label class="field">Step, g<EditField
        :value="scale.resolutionG"
        class="figure"
        @change="change('resolutionG', $event)"
      /></label>
      <label class="field">Carries at most, g<EditField
        :value="scale.capacityG"
        class="figure"
        @change="change('capacityG', $event)"
      /></label>
      <label class="field">Check every, days<EditField
        :value="scale.checkIntervalDays"
        class="figure"
        @change="change('checkIntervalDays', $event)"
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
      <el-button
        link
        type="primary"
        @click="open = open === 'ten' ? '' : 'ten'"
      >
        Measure how it repeats
      </el-button>
      <el-button
        link
        type="primary"
        @click="open = open === 'facts' ? '' : 'facts'"
      >
        Change its facts
      </el-button>
      <SureButton
        v-if="mine.length === 0"
        words="Take it off the list"
        :question="`Take “${scale.name}” off the list? It does not come back.`"
        @sure="remove"
      />
    </div>
  </section>
</template>

<style scoped>
.head {
  display: flex;
  gap: 10px;
  align-items: flex-start;
}
.gap {
  flex: 1;
}
.at-hand {
  font: 600 11px var(--sans);
  color: var(--plum-text);
  margin-left: 8px;
}
.columns {
  display: grid;
  grid-template-columns: minmax(280px, 420px) minmax(0, 1fr);
  gap: 28px;
  margin-top: 8px;
  align-items: start;
}
.none {
  align-self: center;
}
.displays {
  display: flex;
  gap: 6px;
  flex-wrap: wrap;
}
.displays .form-field {
  width: 82px;
}
.fields.four {
  grid-template-columns: 2fr 1fr 1fr 1fr;
  margin: 10px 0;
}
.foot {
  display: flex;
  gap: 12px;
  margin-top: 8px;
  flex-wrap: wrap;
}
@media screen and (max-width: 760px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
  .fields.four {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
