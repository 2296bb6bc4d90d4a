<script setup lang="ts">
import { fixed, gramsWithSpread, signed } from '#core/text/display'
import { spreadG, type Estimate } from '#core/maths/estimate'
import type { Line } from '#core/model/ledger'

/** The growing thing on the scale: what it should weigh after this step, what it does, and what could explain a difference. */
const props = defineProps<{ lines: readonly Line[]; expected: Estimate; open: number; stepTitle: string }>()
const store = useBuildStore()
const scales = useScalesStore()
const pan = usePan()
const title = ref('')
watch(
  () => props.stepTitle,
  to => {
    title.value = `after: ${to}`.slice(0, 120)
  },
  { immediate: true },
)
const weighed = computed(() => props.lines.filter(line => line.mass))
/** Next to nothing on the pan: there is nothing to compare yet. */
const emptyG = 0.05
const { lifts, message, draft, compared, suspectWords, addLift, keep, enter, bookDifference } = useStageWeighing(
  pan,
  weighed,
  title,
)
watch(
  () => props.stepTitle,
  () => {
    message.value = ''
    lifts.value = []
    pan.type('')
  },
)
scales.load().catch(() => {
  message.value = 'The scales could not be read.'
})
const lies = computed(() => (draft.value?.valueG ?? 0) > emptyG)
/** Nothing is kept from a pan that still moves. */
const moving = computed(() => pan.display.value.reason !== '' && lifts.value.length === 0)
const kept = computed(() => store.build!.observations.filter(o => o.title === title.value).at(-1) ?? null)
</script>

<template>
  <section
    class="weighing"
    aria-label="Weigh now"
  >
    <div class="line">
      <span>Should weigh <b
        class="figure"
        data-test="expected"
      >{{ gramsWithSpread(expected.valueG, spreadG(expected)) }}</b></span>
      <span>on the pan <b
        class="figure"
        data-test="pan"
      >{{ draft ? `${fixed(draft.valueG, 2)} g` : '–' }}</b></span>
      <label class="hand">or type it<el-input
        :model-value="pan.typed.value"
        class="figure"
        inputmode="decimal"
        aria-label="Type what the scale shows"
        placeholder="g"
        @update:model-value="pan.type($event)"
        @keydown.enter.prevent="enter"
      /></label>
    </div>
    <p
      v-if="!pan.ready.value"
      class="soft"
    >
      Type what the scale shows, or say under Scales which one this is.
    </p>
    <p
      v-else-if="pan.display.value.reason && lifts.length === 0"
      class="soft"
    >
      {{ pan.display.value.reason }}
    </p>
    <p
      v-if="lifts.length > 0"
      class="soft"
    >
      {{ lifts.length }} {{ lifts.length === 1 ? 'lift' : 'lifts' }}: {{ lifts.map(g => fixed(g, 2)).join(' + ') }}
    </p>
    <p
      v-if="open > 0"
      class="soft"
    >
      {{ open }} {{ open === 1 ? 'line has' : 'lines have' }} no grams yet: the scale will show more.
    </p>
    <div
      v-if="compared && lies"
      class="verdict"
      :class="compared.agrees ? 'agrees' : 'differs'"
      data-test="reconciled"
      role="status"
    >
      <b>{{
        compared.agrees
          ? 'Agrees'
          : compared.differenceG > 0
            ? 'More on the pan than is booked'
            : 'Less on the pan than is booked'
      }}</b> <span class="figure">{{ signed(compared.differenceG, 2) }}
        g</span>
      <span class="soft">{{
        compared.agrees
          ? 'within what ledger and scale allow'
          : compared.differenceG > 0
            ? 'solder, tape or glue not booked?'
            : 'a part not on the pan yet, or booked twice?'
      }}</span>
      <ul v-if="!compared.agrees && suspectWords.length > 0">
        <li
          v-for="suspect in suspectWords"
          :key="suspect.name + suspect.words"
        >
          <b>{{ suspect.name }}</b> {{ suspect.words }}
        </li>
      </ul>
    </div>
    <p
      v-if="message"
      role="status"
    >
      <b>{{ message }}</b>
    </p>
    <p
      v-else-if="kept"
      class="soft"
    >
      Weighed {{ fixed(kept.valueG, 2) }} g, {{ kept.state }}.
    </p>
    <div
      v-if="draft && lies"
      class="actions"
    >
      <el-button
        :disabled="moving"
        @click="keep(compared && !compared.agrees ? 'held' : 'taken in')"
      >
        {{ compared && !compared.agrees ? 'Hold it' : 'Take it in' }}
      </el-button>
      <el-button
        v-if="compared && !compared.agrees && compared.differenceG > 0"
        :disabled="moving"
        @click="bookDifference"
      >
        Book the difference as a line
      </el-button>
      <el-button
        v-if="compared && !compared.agrees"
        :disabled="moving"
        @click="keep('taken in')"
      >
        Take it in all the same
      </el-button>
      <el-button
        link
        type="primary"
        @click="addLift"
      >
        Add as a lift
      </el-button>
    </div>
  </section>
</template>

<style scoped>
.weighing {
  border-top: 1px solid var(--line);
  margin-top: 14px;
  padding-top: 10px;
  font-size: 14.5px;
}
.line {
  display: flex;
  gap: 22px;
  align-items: center;
  flex-wrap: wrap;
}
.line b {
  font-size: 19px;
}
.hand {
  display: flex;
  gap: 6px;
  align-items: center;
  color: var(--ink-soft);
  font-size: 12.5px;
}
.hand .el-input {
  width: 90px;
}
.verdict {
  border-left: 3px solid;
  padding: 8px 12px;
  background: var(--paper);
  border-radius: 0 7px 7px 0;
  margin: 8px 0;
}
.agrees {
  border-color: var(--clear);
}
.agrees > b {
  color: var(--clear);
}
.differs {
  border-color: var(--close);
}
ul {
  margin: 4px 0 0;
  padding-left: 18px;
}
.actions {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
  margin-top: 8px;
}
@media screen and (max-width: 760px) {
  .actions button {
    min-height: 48px;
    flex: 1;
    justify-content: center;
  }
  .line b {
    font-size: 24px;
  }
}
</style>
