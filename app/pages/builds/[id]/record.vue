<script setup lang="ts">
import dayjs from 'dayjs'
import { gramsChangeWords } from '#core/changes/commands'
import { fixed, signed } from '#core/text/display'
import type { JournalEntry } from '#shared/schemas/journal'

const store = useBuildStore()
store.loadJournal()
watch(
  () => store.build?.id,
  () => store.loadJournal(),
)

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

const days = computed(() => {
  const groups = new Map<string, JournalEntry[]>()
  for (const entry of store.journal) {
    const day = dayOf(entry.at)
    groups.set(day, [...(groups.get(day) ?? []), entry])
  }
  return [...groups]
})
const standing = (entry: JournalEntry) => (entry.kind !== 'do' ? '' : entry.undone === 'in force' ? '' : entry.undone)
const flights = useFlightsStore()
/** Where it was flown, and the texts of its settings, go with the build file only when somebody says so. */
const isPrivate = ref(false)
const hasPrivate = computed(
  () => flights.settings.length > 0 || flights.flights.some(({ place }) => place !== ''),
)
/** What crashes and damage have taught. */
const taught = computed(() => flights.findings.filter(({ lesson }) => lesson.trim() !== ''))
const files = computed(() => [
  {
    title: 'Build file',
    what: 'everything of this build, to keep or to bring in elsewhere',
    href: `/api/builds/${store.build!.id}/export/build.json${isPrivate.value ? '?private=1' : ''}`,
  },
  { title: 'Parts list', what: 'CSV for a spreadsheet', href: `/api/builds/${store.build!.id}/export/parts.csv` },
  { title: 'Build sheet', what: 'Markdown, to read and to share', href: `/api/builds/${store.build!.id}/export/sheet.md` },
])
</script>

<template>
  <div class="station">
    <main class="worksheet">
      <div class="station-head">
        <h1>Record</h1><span class="gap" />
        <el-button
          :disabled="!store.steps.undo"
          @click="store.step('undo')"
        >
          Take back <KeyHint does="undo" />
        </el-button>
        <el-button
          :disabled="!store.steps.redo"
          @click="store.step('redo')"
        >
          Do again <KeyHint does="redo" />
        </el-button>
      </div>
      <StationSays page="record" />
      <p
        v-if="store.journal.length === 0"
        class="soft"
      >
        Nothing has been changed yet. Every change of grams will stand here with its reason.
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
            </th><th>Reason</th>
          </tr>
        </thead>
        <tbody
          v-for="[day, entries] in days"
          :key="day"
        >
          <tr class="day">
            <th
              colspan="6"
              scope="rowgroup"
            >
              {{ day }}
            </th>
          </tr>
          <tr
            v-for="entry in entries"
            :key="entry.seq"
            :class="{ undone: standing(entry) !== '' }"
          >
            <td class="figure soft">
              {{ dayjs(entry.at).format('HH:mm') }}
            </td>
            <td>
              {{ entry.title }}<small
                v-if="standing(entry)"
                class="soft"
              > · {{ standing(entry) }}</small>
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
    </main>
    <aside
      class="inspector"
      aria-label="Files"
    >
      <h2>Files</h2>
      <div
        v-for="file in files"
        :key="file.href"
        class="file"
      >
        <a
          :href="file.href"
          download
        >{{ file.title }}</a><span class="soft">{{ file.what }}</span>
      </div>
      <el-checkbox
        v-if="hasPrivate"
        v-model="isPrivate"
      >
        with places of flights and texts of settings
      </el-checkbox>
      <p class="soft">
        The build file keeps every version of the grams and this journal: bringing it in gives the same build.
      </p>
      <template v-if="taught.length > 0">
        <h3>What was learnt</h3>
        <p
          v-for="finding in taught"
          :key="finding.id"
        >
          <b>{{ findingTitle(finding.kind) }}, {{ flightDay(finding.foundAt) }}.</b> {{ finding.lesson }}
        </p>
      </template>
    </aside>
  </div>
</template>

<style scoped>
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
.undone td:nth-child(2) {
  text-decoration: line-through;
  color: var(--ink-soft);
}
.undone small {
  text-decoration: none;
  display: inline-block;
}
td:last-child {
  width: 26%;
}
/* As high as the reason is long. */
.reason :deep(textarea) {
  field-sizing: content;
  resize: none;
  min-height: 30px;
}
.file {
  display: grid;
  padding: 6px 0;
  border-top: 1px solid var(--line);
}
.file a {
  font-weight: 600;
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
  td:nth-child(2) {
    grid-column: 2 / -1;
  }
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
  td:last-child {
    grid-column: 2 / -1;
    width: auto;
  }
}
</style>
