<script setup lang="ts">
import dayjs from 'dayjs'
import { coverageFactor95 } from '#core/maths/numbers'
import { sigmaG } from '#core/maths/estimate'
import { fixed, gramsFigure, headroomWords, spreadFigure } from '#core/text/display'
import { countedLines, loadoutName } from '#core/mass/loadout'
import type { ToldEntry } from '#shared/schemas/journal'

/** The day that is looked at: its figures, what was done then, and ways to bring something of it back. */
const store = useBuildStore()
const looking = useLookingBackStore()
const state = computed(() => looking.state)
const overview = computed(() => looking.overview)
const verdict = computed(() => overview.value?.binding?.verdict ?? null)
const dry = computed(() => overview.value?.dry ?? null)

const sheetPath = (kind: 'md' | 'html') =>
  `/api/builds/${encodeURIComponent(store.build!.id)}/export/sheet.${kind}?at=${state.value!.seq}`
const weighed = computed(() => {
  const { weighedWhole, weighedLines, counted, openLines } = overview.value!
  const words = weighedWhole ? 'as a whole' : `${weighedLines} of ${counted.length}`
  return openLines > 0 ? `${words}, ${openLines} without grams` : words
})
/** What the journal kept is another figure where builds that taught about listings then are not here. */
const otherwise = computed(() => {
  const entry = state.value?.entry
  if (!entry || !overview.value || Math.abs(entry.auwAfterG - overview.value.massG) < 0.05) return ''
  return ` The journal kept ${fixed(entry.auwAfterG, 2)} g: what it knew then of other builds is not all here.`
})

/** What was written that day, up to the entry that is looked at. */
const thatDay = shallowRef<readonly ToldEntry[]>([])
watch(
  state,
  async looked => {
    if (!looked) return
    const entries = await looking.dayEntries(looked).catch(() => [])
    if (state.value === looked) thatDay.value = entries
  },
  { immediate: true },
)

const markWords = ref('')
watch(state, looked => (markWords.value = looked?.entry?.mark ?? ''), { immediate: true })
const problem = ref('')
async function keepMark() {
  const entry = state.value?.entry
  if (!entry) return
  problem.value = ''
  try {
    await looking.mark(entry.seq, markWords.value.trim())
  } catch (error) {
    problem.value = sentenceOf(error)
  }
}

const lineIds = ref<string[]>([])
const lines = computed(() =>
  (state.value ? countedLines(state.value.build, looking.compared!.choice) : []).map(line => ({
    value: line.id,
    label: lineTitle(line),
  })),
)
watch(state, () => (lineIds.value = []))
const busy = ref(false)
async function goBack(ids: readonly string[] | null) {
  if (!state.value) return
  busy.value = true
  await store.goBack(state.value.seq, ids)
  busy.value = false
}
const name = ref('')
watch(
  state,
  looked => (name.value = looked ? `${looked.build.name}, ${dayOf(looked.at, 'short')}` : ''),
  { immediate: true },
)
const shelf = useShelfStore()
async function begin() {
  if (!state.value || name.value.trim() === '') return
  problem.value = ''
  try {
    const id = await shelf.start({ from: 'copy', name: name.value.trim(), buildId: store.build!.id, seq: state.value.seq })
    await navigateTo(`/builds/${id}/parts`)
  } catch (error) {
    problem.value = sentenceOf(error)
  }
}
</script>

<template>
  <aside
    class="inspector"
    aria-label="The day that is looked at"
  >
    <template v-if="!state || !overview">
      <h2>Today</h2>
      <p class="soft">
        Choose a day in the chart. Nothing is changed by looking.
      </p>
      <template v-if="looking.marks.length > 0">
        <h3>Your marks</h3>
        <p
          v-for="entry in looking.marks"
          :key="entry.seq"
        >
          <el-button
            link
            type="primary"
            @click="looking.look(entry.seq)"
          >
            {{ entry.mark }}
          </el-button> <span class="soft">{{ dayOf(entry.at, 'short') }}</span>
        </p>
      </template>
    </template>
    <template v-else>
      <h2>{{ dayOf(state.at) }}</h2>
      <p class="soft">
        {{ state.entry ? `after the entry of ${dayjs(state.at).format('HH:mm')}` : 'before the first entry' }}
      </p>
      <p class="big figure">
        {{ gramsFigure(overview.massG, overview.spreadG) }}<small> g<template v-if="overview.spreadG > 0"> ±
          {{ spreadFigure(overview.spreadG) }}</template></small>
      </p>
      <p
        v-if="verdict"
        class="verdict"
      >
        <VerdictMark
          :word="verdict.word"
          filled
        /> {{ headroomWords(verdict.headroomG, overview.spreadG) }}
      </p>
      <dl>
        <dt>Dry mass</dt><dd class="figure">
          {{ gramsFigure(dry!.valueG, coverageFactor95 * sigmaG(dry!)) }} g
        </dd>
        <dt>Weighed</dt><dd>{{ weighed }}</dd>
        <dt>Flown as</dt><dd>{{ loadoutName(state.build, overview.choice) }}</dd>
        <dt>Entry</dt><dd class="figure">
          {{ state.seq }}
        </dd>
      </dl>
      <p class="soft small">
        Judged by the rule cards as they stand today, with what was known of listings then.{{ otherwise }}
      </p>
      <template v-if="thatDay.length > 0">
        <h3>That day</h3>
        <ol class="that-day">
          <li
            v-for="entry in thatDay"
            :key="entry.seq"
          >
            <span class="figure soft">{{ dayjs(entry.at).format('HH:mm') }}</span> {{ entry.title }}
          </li>
        </ol>
      </template>
      <OneField
        v-if="state.entry"
        v-model="markWords"
        label="Your mark on this moment"
        shown
        words="Keep"
        placeholder="maiden, before the ridge"
        :maxlength="60"
        @send="keepMark"
      />
      <h3>Compare</h3>
      <p>
        <NuxtLink :to="comparePath([`${store.build!.id}@${state.seq}`, store.build!.id])">This day beside today, line by line</NuxtLink>
      </p>
      <p>
        Build sheet of this day: <a
          :href="sheetPath('md')"
          download
        >Markdown</a>, <a
          :href="sheetPath('html')"
          download
        >as a page</a>
      </p>
      <p class="buttons">
        <el-button
          v-if="!looking.held"
          @click="looking.held = state"
        >
          Hold this day
        </el-button>
        <template v-else>
          <span>Held: {{ dayOf(looking.held.at, 'short') }}</span>
          <el-button @click="looking.held = null">
            Let it go
          </el-button>
        </template>
      </p>
      <h3>Bring something back</h3>
      <p class="soft small">
        What comes back is one new entry and can be taken back. A part that went into the drawer since stays there, too.
      </p>
      <p class="buttons">
        <el-button
          :loading="busy"
          @click="goBack(null)"
        >
          Go back to this day
        </el-button>
      </p>
      <p class="buttons">
        <el-select
          v-model="lineIds"
          multiple
          filterable
          collapse-tags
          aria-label="Lines to bring back"
          placeholder="Lines as they were"
        >
          <el-option
            v-for="line in lines"
            :key="line.value"
            :value="line.value"
            :label="line.label"
          />
        </el-select>
        <el-button
          :disabled="lineIds.length === 0 || busy"
          @click="goBack(lineIds)"
        >
          Bring back
        </el-button>
      </p>
      <OneField
        v-model="name"
        label="A new build from this day"
        shown
        words="Begin"
        needed
        :maxlength="120"
        :problem="problem"
        @send="begin"
      />
    </template>
  </aside>
</template>

<style scoped>
.big {
  font-size: 30px;
  margin: 8px 0 4px;
  line-height: 1;
  letter-spacing: -1px;
}
.big small {
  font-size: 14px;
  letter-spacing: 0;
  color: var(--ink-soft);
}
.verdict {
  margin: 0 0 8px;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 4px 10px;
  margin: 0 0 8px;
}
dt {
  color: var(--ink-soft);
}
dd {
  margin: 0;
  text-align: right;
}
.small {
  font-size: 12px;
}
.that-day {
  list-style: none;
  margin: 0 0 10px;
  padding: 0;
}
.that-day li {
  padding: 5px 0;
  border-top: 1px solid var(--line);
}
.buttons {
  display: flex;
  gap: 8px;
  align-items: center;
}
</style>
