<script setup lang="ts">
import { useNow } from '@vueuse/core'
import { gramsWithSpread } from '#core/text/display'
import { spreadG } from '#core/maths/estimate'
import type { AssemblyRun } from '~/composables/useAssembly'

const props = defineProps<{ run: AssemblyRun }>()
const store = useBuildStore()
const { report } = useFit()
const now = useNow({ interval: 10_000 })
const step = computed(() => props.run.step.value!)
const record = computed(() => props.run.record.value!)
const standing = computed(() => props.run.standings.value.get(step.value.id)!)
const parts = computed(() =>
  step.value.parts.flatMap(part => {
    const line = store.lineOf(part.lineId)
    return line
      ? [
          {
            line,
            pieces: part.pieces,
            estimate: store.estimates.of(part.pieces === line.quantity ? line : { ...line, quantity: part.pieces }),
          },
        ]
      : []
  }),
)
/** What Fit has found about the parts of this step and nobody lives with yet. */
const findings = computed(() =>
  (report.value?.findings ?? []).filter(
    f =>
      f.setAside === null &&
      f.severity === 'clash' &&
      f.lineIds.some(id => step.value.parts.some(part => part.lineId === id)),
  ),
)
const past = ref('')
const skipping = ref<string | null>(null)
watch(
  () => step.value.id,
  () => {
    past.value = ''
    skipping.value = null
  },
)

function pass() {
  props.run.put({
    test: 'passed',
    overriddenWhy: '',
    doneAt: record.value.doneAt ?? new Date().toISOString(),
    minutes: props.run.minutesOfClock(record.value),
    skippedWhy: null,
  })
}
function fail() {
  props.run.put({ test: 'failed', overriddenWhy: '', doneAt: null })
}
function goPast() {
  if (
    past.value.trim() !== '' &&
    props.run.put({
      test: 'failed',
      overriddenWhy: past.value.trim(),
      doneAt: record.value.doneAt ?? new Date().toISOString(),
    })
  )
    past.value = ''
}
function skip() {
  if (props.run.put({ skippedWhy: skipping.value!.trim(), doneAt: null })) skipping.value = null
}
const clock = computed(() =>
  record.value.startedAt === null
    ? null
    : Math.max(0, Math.floor((now.value.getTime() - Date.parse(record.value.startedAt)) / 60_000)),
)
</script>

<template>
  <article
    class="card"
    :aria-label="step.title"
  >
    <p class="where soft">
      Step {{ run.at.value + 1 }} of {{ run.steps.value.length }} · {{ step.phase }} · {{ step.minutes }} min
      planned<template v-if="record.doneAt">
        · done{{ record.minutes === null ? '' : ` in ${record.minutes} min` }}
      </template>
    </p>
    <h2>{{ step.title }}</h2>
    <p class="why">
      {{ step.why }}
    </p>
    <p
      v-if="standing.blockedBy.length > 0"
      class="note gate"
      role="status"
    >
      Waits for “{{ standing.blockedBy[0]!.title }}”: its test failed. <el-button
        link
        type="primary"
        @click="run.goTo(standing.blockedBy[0]!.id)"
      >
        Go there
      </el-button>
    </p>
    <p
      v-if="record.skippedWhy !== null"
      class="note"
    >
      Skipped: {{ record.skippedWhy || 'no reason given' }}.<template v-if="parts.length > 0">
        Its parts still count in the ledger: take them off in Parts if they stay off.
      </template> <el-button
        link
        type="primary"
        @click="run.put({ skippedWhy: null })"
      >
        Do it after all
      </el-button>
    </p>
    <p
      v-for="caution in step.cautions"
      :key="caution"
      class="caution"
    >
      <b aria-hidden="true">▲</b> {{ caution }}
    </p>
    <p
      v-for="finding in findings"
      :key="finding.id"
      class="caution"
    >
      <b aria-hidden="true">▲</b> {{ finding.title }}. <NuxtLink :to="`/builds/${store.build!.id}/fit`">See Fit</NuxtLink>
    </p>
    <p
      v-if="step.need.length > 0"
      class="need"
    >
      <span class="soft">At hand:</span> {{ step.need.join(', ') }}
    </p>
    <ul
      v-if="step.facts.length > 0"
      class="facts-list"
    >
      <li
        v-for="fact in step.facts"
        :key="fact"
      >
        {{ fact }}
      </li>
    </ul>
    <table
      v-if="parts.length > 0"
      class="parts"
    >
      <caption class="visually-hidden">
        Comes on board
      </caption>
      <tbody>
        <tr
          v-for="part in parts"
          :key="part.line.id"
        >
          <td>{{ lineTitle(part.line) }}</td><td class="figure right soft">
            × {{ part.pieces }}
          </td><td class="figure right">
            {{ part.line.mass ? gramsWithSpread(part.estimate.valueG, spreadG(part.estimate)) : 'open' }}
          </td>
        </tr>
      </tbody>
    </table>
    <section
      v-if="step.test"
      class="test"
      :class="record.test ?? ''"
      aria-label="Test"
    >
      <p><b>{{ step.test.doThis }}</b></p>
      <p><span class="soft">You should see:</span> {{ step.test.see }}</p>
      <p v-if="record.test === 'failed'">
        <span class="soft">If not:</span> {{ step.test.otherwise }}
      </p>
      <p
        v-if="record.overriddenWhy"
        class="soft"
      >
        Failed, gone past: {{ record.overriddenWhy }}
      </p>
      <div class="answer">
        <el-button
          :type="record.test === 'passed' ? 'default' : 'primary'"
          :disabled="record.test === 'passed' || standing.blockedBy.length > 0"
          @click="pass"
        >
          {{ record.test === 'passed' ? 'It passed' : record.test === 'failed' ? 'Now it passes' : 'It passes' }}
        </el-button><el-button
          :disabled="record.test === 'failed' && !record.overriddenWhy"
          @click="fail"
        >
          It fails
        </el-button>
      </div>
      <OneField
        v-if="record.test === 'failed' && !record.overriddenWhy"
        v-model="past"
        class="past"
        label="Go past it all the same, because"
        shown
        placeholder="a reason: it stays noted"
        words="Go past it"
        needed
        @send="goPast"
      />
    </section>
    <slot />
    <div class="extras">
      <span
        v-if="clock !== null && record.doneAt === null"
        class="soft figure"
      >{{ clock }} min</span>
      <el-button
        v-if="record.startedAt === null && record.doneAt === null"
        link
        type="primary"
        @click="run.put({ startedAt: new Date().toISOString() })"
      >
        Start the clock
      </el-button>
      <el-button
        v-if="record.skippedWhy === null && skipping === null"
        link
        type="primary"
        @click="skipping = ''"
      >
        Skip it …
      </el-button>
      <OneField
        v-if="skipping !== null"
        v-model="skipping"
        class="past"
        label="Why it is left out"
        shown
        words="Skip it"
        @send="skip"
      >
        <el-button @click="skipping = null">
          Keep it
        </el-button>
      </OneField>
    </div>
  </article>
</template>

<style scoped>
.card {
  max-width: 720px;
}
h2 {
  font-size: 26px;
  margin: 2px 0 6px;
}
.where {
  margin: 0;
  font-size: 12.5px;
}
.why {
  font-size: 16px;
  color: var(--ink-soft);
}
.need,
.facts-list {
  font-size: 14.5px;
}
.facts-list {
  padding-left: 20px;
  margin: 6px 0;
}
.facts-list li {
  margin: 3px 0;
}
.caution {
  border-left: 3px solid var(--over);
  background: var(--beyond);
  padding: 8px 12px;
  border-radius: 0 6px 6px 0;
  font-size: 15px;
  font-weight: 600;
  margin: 6px 0;
}
.caution b {
  color: var(--over);
}
.gate {
  font-size: 15px;
  font-weight: 600;
}
.parts {
  width: 100%;
  border-collapse: collapse;
  margin: 8px 0;
  font-size: 14.5px;
}
.parts td {
  padding: 5px 8px 5px 0;
  border-bottom: 1px solid var(--line);
}
.right {
  text-align: right;
  white-space: nowrap;
}
.test {
  border: 1px solid var(--edge);
  border-left: 4px solid var(--plum);
  border-radius: 0 8px 8px 0;
  padding: 8px 14px 12px;
  margin: 12px 0;
  font-size: 15.5px;
}
.test.passed {
  border-left-color: var(--clear);
}
.test.failed {
  border-left-color: var(--over);
}
.answer {
  display: flex;
  gap: 8px;
}
.answer button {
  font-size: 15px;
  padding: 9px 18px;
}
.past {
  margin-top: 8px;
  min-width: 300px;
}
.extras {
  display: flex;
  gap: 14px;
  align-items: center;
  flex-wrap: wrap;
  margin-top: 10px;
}
@media screen and (max-width: 760px) {
  h2 {
    font-size: 24px;
  }
  .why {
    font-size: 17px;
  }
  .answer button,
  .past button,
  .extras button {
    min-height: 48px;
    flex: 1;
    justify-content: center;
  }
}
</style>
