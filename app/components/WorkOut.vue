<script setup lang="ts">
import { CoreInputError } from '#core/basics/errors'
import { fixed, inputSentence } from '#core/text/display'
import type { Line } from '#core/model/ledger'
import { answersOf, calculators, calculatorsFor } from '#core/mass/mass-calculators'
import { isNotRead, readNumber } from '#core/text/units'

/**
 * Grams nobody lists, from their dimensions. `use` is what the button says, `first` the calculator it opens with;
 * `saved` takes what a saving
 * comes to as well. The grams are of one piece where `each` is true.
 */
const props = defineProps<{ line: Line; use: string; first?: string; saved?: boolean }>()
const emit = defineEmits<{ close: []; worked: [worked: { grams: number; words: string; each: boolean }] }>()

/** For a saving anything may be worked out; for a part's own grams only what suits its kind. */
const offered = computed(() => (props.saved ? calculators : calculatorsFor(props.line.slot)))
const key = ref(props.first ?? offered.value[0]!.key)
const calculator = computed(() => calculators.find(c => c.key === key.value)!)
const typed = ref<Record<string, string>>({})
watch(
  key,
  () => {
    typed.value = {
      ...Object.fromEntries(calculator.value.asks.map(asked => [asked.key, ''])),
      ...answersOf(calculator.value, props.line),
    }
  },
  { immediate: true },
)

const wordsOf = ({ label, unit }: { label: string; unit?: string }) => (unit ? `${label}, ${unit}` : label)
const outcome = computed(() => {
  const values: Record<string, string | number> = {}
  const open = calculator.value.asks.filter(asked => (typed.value[asked.key] ?? '').trim() === '')
  if (open.length > 0)
    return {
      open: `Still to say: ${open.map(asked => asked.label.charAt(0).toLowerCase() + asked.label.slice(1)).join(', ')}.`,
    }
  for (const asked of calculator.value.asks) {
    const text = typed.value[asked.key] ?? ''
    if (asked.choices) {
      values[asked.key] = text
      continue
    }
    const read = readNumber(text)
    if (isNotRead(read)) return { problem: `${asked.label}: ${read.problem}` }
    values[asked.key] = read.value
  }
  try {
    return { worked: calculator.value.work(values) }
  } catch (error) {
    if (!(error instanceof CoreInputError)) throw error
    const asked = calculator.value.asks.find(a => a.key === error.field)
    return {
      problem:
        error.field === 'thread' && calculator.value.key === 'screw'
          ? 'There is no such screw in the list: choose another head for this thread.'
          : inputSentence(error, asked?.label ?? 'This', asked?.unit),
    }
  }
})
const usable = computed(
  () => calculator.value.gives !== 'advice' || (props.saved === true && worked.value?.grams != null),
)
const worked = computed(() => ('worked' in outcome.value ? outcome.value.worked : null))

function take() {
  const grams = worked.value?.grams
  if (grams == null || !usable.value) return
  emit('worked', {
    grams: Number(grams.toFixed(6)),
    words: worked.value!.words,
    each: calculator.value.gives === 'each',
  })
}
</script>

<template>
  <section
    class="work"
    aria-label="Work it out"
  >
    <PickOne
      v-model="key"
      field="What"
      :options="offered.map((one) => ({ value: one.key, label: one.title }))"
    />
    <div class="asks">
      <template
        v-for="asked in calculator.asks"
        :key="asked.key"
      >
        <PickOne
          v-if="asked.choices"
          v-model="typed[asked.key]"
          :field="wordsOf(asked)"
          :options="asked.choices"
          none="not said"
        />
        <label
          v-else
          class="field"
        >{{ wordsOf(asked) }}<el-input
          v-model="typed[asked.key]"
          class="figure"
          inputmode="decimal"
          :placeholder="`as in ${asked.example}`"
        /></label>
      </template>
    </div>
    <p
      v-if="calculator.caution"
      class="note"
    >
      {{ calculator.caution }}
    </p>
    <p
      v-if="'problem' in outcome"
      class="problem"
      role="alert"
    >
      {{ outcome.problem }}
    </p>
    <p
      v-else-if="'open' in outcome"
      class="soft"
      data-test="still"
    >
      {{ outcome.open }}
    </p>
    <template v-else-if="worked">
      <p data-test="worked">
        <b
          v-if="worked.grams !== null"
          class="figure"
        >{{ fixed(worked.grams, 3) }} g
        </b>{{ worked.words }}<span v-if="calculator.gives === 'each' && line.quantity > 1">, × {{ line.quantity }} in
          this line</span>
      </p>
      <p
        v-if="worked.caution"
        class="note"
      >
        {{ worked.caution }}
      </p>
    </template>
    <el-button
      v-if="usable"
      type="primary"
      :disabled="worked?.grams == null"
      @click="take"
    >
      {{ use }}
    </el-button>
    <el-button @click="emit('close')">
      Leave it
    </el-button>
  </section>
</template>

<style scoped>
.work {
  margin: 10px 0;
  padding: 10px 12px;
  border: 1px solid var(--line);
  border-radius: 8px;
  background: var(--card);
}
.asks {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  margin: 8px 0;
}
.asks .field {
  align-content: end;
}
button {
  margin-right: 6px;
}
</style>
