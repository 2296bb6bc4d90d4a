<script setup lang="ts">
import dayjs from 'dayjs'
import { Flag } from '@element-plus/icons-vue'
import { foldRuns } from '#core/comparing/history'
import { gramsChangeWords, topics, type Topic } from '#core/changes/commands'
import { fixed, signed } from '#core/text/display'
import type { ToldEntry } from '#shared/schemas/journal'

/** The journal: what was changed, why, and what it weighed after; by kind and words, small runs folded. */
const store = useBuildStore()
const looking = useLookingBackStore()
const emit = defineEmits<{ look: [seq: number] }>()

const fetching = ref(false)
const problem = ref('')
async function earlier() {
  fetching.value = true
  problem.value = ''
  try {
    await store.loadEarlier()
  } catch (error) {
    problem.value = sentenceOf(error)
  } finally {
    fetching.value = false
  }
}

const topic = ref<Topic | ''>(store.journalOf.topic)
const words = ref(store.journalOf.words)
const nothingYet = 'Nothing has been changed yet. Every change of grams will stand here with its reason.'
const isFiltered = computed(() => topic.value !== '' || words.value.trim() !== '')
const search = useDebounceFn(async () => {
  problem.value = ''
  try {
    await store.searchJournal(topic.value, words.value.trim())
  } catch (error) {
    problem.value = sentenceOf(error)
  }
}, 200)
watch([topic, words], () => void search())
const topicWords: Readonly<Record<Topic, string>> = {
  grams: 'Grams',
  weighings: 'Weighings together',
  parts: 'Parts',
  loadouts: 'Set-ups and packs',
  aim: 'Name and aim',
  fit: 'Fit',
  flying: 'Flying',
  shaving: 'Shaving',
  assembly: 'Assembly',
  balance: 'Balance',
}
const choices = topics.map(value => ({ value, label: topicWords[value] }))

const opened = ref(new Set<number>())
interface Row {
  readonly entry: ToldEntry
  /** More entries of this run, which are folded away. */
  readonly more: readonly ToldEntry[]
  readonly isOpened: boolean
}
const days = computed(() => {
  const groups = new Map<string, ToldEntry[]>()
  for (const entry of store.journal) {
    const day = dayOf(entry.at)
    groups.set(day, [...(groups.get(day) ?? []), entry])
  }
  return [...groups].map(([day, entries]) => {
    const rows = foldRuns(entries).flatMap(([entry, ...more]): Row[] => {
      const isOpened = opened.value.has(entry!.seq)
      const own = { entry: entry!, more, isOpened }
      return isOpened ? [own, ...more.map(one => ({ entry: one, more: [], isOpened: false }))] : [own]
    })
    return [day, rows] as const
  })
})
function toggle(seq: number) {
  const next = new Set(opened.value)
  if (!next.delete(seq)) next.add(seq)
  opened.value = next
}
const standing = (entry: ToldEntry) => (entry.kind !== 'do' ? '' : entry.undone === 'in force' ? '' : entry.undone)

const marking = ref<number | null>(null)
const markWords = ref('')
const markProblem = ref('')
function beginMark(entry: ToldEntry) {
  marking.value = entry.seq
  markWords.value = entry.mark
  markProblem.value = ''
}
async function keepMark() {
  if (marking.value === null) return
  try {
    await looking.mark(marking.value, markWords.value.trim())
    marking.value = null
  } catch (error) {
    markProblem.value = sentenceOf(error)
  }
}
</script>

<template>
  <div class="journal-list">
    <div class="filters no-print">
      <el-input
        v-model="words"
        clearable
        placeholder="Search titles, reasons, marks"
        aria-label="Search the journal"
        maxlength="200"
      /><PickOne
        v-model="topic"
        :options="choices"
        label="What it is about"
        none="Everything"
      />
    </div>
    <p
      v-if="store.journal.length === 0"
      class="soft"
    >
      {{ isFiltered ? 'Nothing in the journal is like that.' : nothingYet }}
    </p>
    <table
      v-else
      class="cells"
    >
      <thead>
        <tr>
          <th>Time</th><th>What</th><th class="right">
            Grams
          </th><th class="right">
            All-up after
          </th><th class="right">
            Change
          </th><th>Reason</th><th class="no-print">
            <span class="visually-hidden">Mark and look</span>
          </th>
        </tr>
      </thead>
      <tbody
        v-for="[day, rows] in days"
        :key="day"
      >
        <tr class="day">
          <th
            colspan="7"
            scope="rowgroup"
          >
            {{ day }}
          </th>
        </tr>
        <tr
          v-for="{ entry, more, isOpened } in rows"
          :key="entry.seq"
          :class="{ undone: standing(entry) !== '' }"
        >
          <td class="figure soft">
            {{ dayjs(entry.at).format('HH:mm') }}
          </td>
          <td>
            <el-tag
              v-if="entry.mark"
              size="small"
              class="mark"
            >
              {{ entry.mark }}
            </el-tag><span class="title">{{ entry.title }}</span><small
              v-if="standing(entry)"
              class="soft"
            > · {{ standing(entry) }}</small>
            <el-button
              v-if="more.length > 0"
              link
              type="primary"
              size="small"
              :aria-expanded="isOpened"
              @click="toggle(entry.seq)"
            >
              {{ isOpened ? 'Fold' : `and ${more.length} more like it` }}
            </el-button>
            <OneField
              v-if="marking === entry.seq"
              v-model="markWords"
              label="Your mark on this moment"
              words="Keep"
              placeholder="maiden, before the ridge"
              :maxlength="60"
              :problem="markProblem"
              @send="keepMark"
            />
          </td>
          <td class="right figure">
            {{ gramsChangeWords(entry.gramsBeforeG, entry.gramsAfterG) }}
          </td>
          <td class="right figure">
            {{ fixed(entry.auwAfterG, 2) }}
          </td>
          <td class="right figure soft">
            {{ Math.abs(entry.auwAfterG - entry.auwBeforeG) > 0.004 ? signed(entry.auwAfterG - entry.auwBeforeG, 2) : '' }}
          </td>
          <td>
            <EditField
              :value="entry.note"
              :aria-label="`Reason for: ${entry.title}`"
              class="reason"
              type="textarea"
              :rows="1"
              placeholder="–"
              maxlength="2000"
              @keydown.enter.exact.prevent="($event.target as HTMLElement).blur()"
              @change="store.annotate(entry.seq, ($event.target as HTMLInputElement).value.trim())"
            />
          </td>
          <td class="acts no-print">
            <IconButton
              :icon="Flag"
              :label="`Mark: ${entry.title}`"
              :aria-expanded="marking === entry.seq"
              @click="marking === entry.seq ? (marking = null) : beginMark(entry)"
            /><el-button
              link
              type="primary"
              size="small"
              :aria-label="`Look at the craft after: ${entry.title}`"
              @click="emit('look', entry.seq)"
            >
              Look
            </el-button>
          </td>
        </tr>
      </tbody>
    </table>
    <p
      v-if="store.hasEarlier"
      class="earlier"
    >
      <el-button
        :disabled="fetching"
        @click="earlier"
      >
        Show earlier changes
      </el-button>
    </p>
    <p
      v-if="problem"
      class="problem"
      role="alert"
    >
      {{ problem }}
    </p>
  </div>
</template>

<style scoped>
.filters {
  display: flex;
  gap: 10px;
  margin-bottom: 8px;
  max-width: 560px;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  font-weight: 500;
  font-size: 11.5px;
  color: var(--ink-soft);
  text-align: left;
}
td,
th {
  padding: 5px 8px;
  border-bottom: 1px solid var(--line);
  vertical-align: top;
}
td {
  line-height: 1.45;
}
.right {
  text-align: right;
  white-space: nowrap;
}
.day th {
  background: var(--paper);
  color: var(--ink);
  font-weight: 600;
  font-size: 12px;
  padding: 4px 8px;
}
.undone .title {
  text-decoration: line-through;
  color: var(--ink-soft);
}
.mark {
  margin-right: 6px;
}
th:nth-child(2) {
  width: 38%;
}
th:nth-child(6) {
  width: 24%;
}
.acts {
  white-space: nowrap;
}
/* As high as the reason is long. */
.reason :deep(textarea) {
  field-sizing: content;
  resize: none;
  min-height: 30px;
}
@media screen and (max-width: 760px) {
  table,
  tbody {
    display: block;
  }
  thead {
    display: none;
  }
  .day,
  .day th {
    display: block;
    font-size: 14px;
  }
  tbody tr:not(.day) {
    display: grid;
    grid-template-columns: 56px 1fr auto;
    column-gap: 8px;
    padding: 8px 0;
    border-bottom: 1px solid var(--line);
  }
  tbody tr:not(.day) td {
    border: 0;
    padding: 2px 4px;
    text-align: left;
    white-space: normal;
  }
  td:nth-child(2),
  td:nth-child(3) {
    grid-column: 2 / -1;
  }
  td:nth-child(4) {
    grid-column: 2;
  }
  td:nth-child(4)::before {
    content: 'all-up\a0';
    font-family: var(--sans);
    color: var(--ink-soft);
  }
  td:nth-child(6) {
    grid-column: 2 / -1;
    width: auto;
  }
  .acts {
    grid-column: 2 / -1;
  }
}
</style>
