<script setup lang="ts">
import type { Slot } from '#core/model/ledger'
import { gramsWithSpread, fixed } from '#core/text/display'
import {
  guessHeadlessMapping,
  guessMapping,
  mostBytes,
  partsColumnKeys,
  partsColumns,
  readRows,
  readTable,
  type ColumnMapping,
  type ReadRow,
  type ReadTable,
} from '#shared/files/parts-csv'

const open = defineModel<boolean>({ required: true })
const props = defineProps<{ pasted: string; dropped: File | null }>()
const store = useBuildStore()
const text = ref('')
const problem = ref('')
const table = shallowRef<ReadTable | null>(null)
const mapping = ref<ColumnMapping | null>(null)
/** Slots picked by hand, by the place of the row. */
const chosen = ref(new Map<number, Slot>())

watch(
  open,
  now => {
    if (!now) return
    text.value = ''
    table.value = null
    problem.value = ''
    if (props.pasted) take(props.pasted)
    else if (props.dropped) void takeFile(props.dropped)
  },
  { immediate: true },
)
function take(raw: string) {
  const read = readTable(raw)
  table.value = null
  problem.value = ''
  if ('problem' in read) {
    problem.value = read.problem
    return
  }
  table.value = read
  chosen.value = new Map()
  mapping.value = read.hasHeader ? guessMapping(read.header).mapping : guessHeadlessMapping(read.rows)
}
async function takeFile(file: File) {
  if (file.size > mostBytes) {
    problem.value = `This file has ${fixed(file.size / 1e6, 1)} MB; a parts list has at most ${mostBytes / 1e6} ` +
      `MB. Nothing was taken in.`
    return
  }
  take(await file.text())
}
const rows = computed(() =>
  table.value && mapping.value ? readRows(table.value, mapping.value, newId, chosen.value) : [],
)
const withoutGrams = computed(() => good.value.filter(row => row.line!.mass === null).length)
function choose(row: ReadRow, slot: Slot) {
  chosen.value = new Map(chosen.value).set(placeOf(row), slot)
}
const placeOf = (row: ReadRow) => row.row - (table.value!.hasHeader ? 2 : 1)
const good = computed(() => rows.value.filter(row => row.line !== null))
const bad = computed(() => rows.value.length - good.value.length)
const shown = computed(() => [...rows.value.filter(r => !r.line), ...good.value].slice(0, 200))

function accept() {
  if (store.run({ type: 'lines.add', lines: good.value.map(row => row.line!), beforeId: null })) open.value = false
  else problem.value = store.refusal
}
</script>

<template>
  <el-dialog
    v-model="open"
    title="Bring in rows"
    width="min(920px, 96vw)"
    top="6vh"
  >
    <template v-if="!table">
      <p>Paste rows from a spreadsheet, or choose a CSV file. You see every row before anything is taken in.</p>
      <el-input
        v-model="text"
        type="textarea"
        :rows="7"
        aria-label="Rows"
        placeholder="Strap&#9;Fabric strap 12 mm&#9;1&#9;2,2"
        @paste.prevent="take($event.clipboardData?.getData('text/plain') ?? '')"
      />
      <div class="foot">
        <FileChoose
          accept=".csv,.tsv,.txt,text/csv"
          words="Choose a CSV file"
          @file="takeFile"
        /><el-button
          type="primary"
          :disabled="text.trim() === ''"
          @click="take(text)"
        >
          Look at the rows
        </el-button>
      </div>
    </template>
    <p
      v-if="problem"
      class="problem"
      role="alert"
    >
      {{ problem }}
    </p>
    <template v-if="table && mapping">
      <div class="columns">
        <PickOne
          v-for="key in partsColumnKeys"
          :key="key"
          :model-value="mapping[key] ?? ''"
          :field="partsColumns[key].title"
          :options="table.header.map((title, i) => ({ value: i, label: title || `Column ${i + 1}` }))"
          none="–"
          @update:model-value="mapping[key] = $event === '' ? null : $event"
        />
      </div>
      <div class="preview">
        <table>
          <thead>
            <tr>
              <th>Row</th><th>Slot</th><th>What</th><th>Many</th><th>Each</th><th>Known by</th><th>
                What is
                wrong with it
              </th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="row in shown"
              :key="row.row"
              :class="{ bad: !row.line }"
            >
              <td class="figure">
                {{ row.row }}
              </td>
              <template v-if="row.line">
                <td>
                  <PickOne
                    :model-value="row.line.slot"
                    :label="`Slot of row ${row.row}`"
                    :options="slotChoices"
                    @update:model-value="choose(row, $event as Slot)"
                  />
                </td><td>{{ row.line.name }}</td><td class="figure">
                  {{ row.line.quantity }}
                </td><td class="figure">
                  {{ row.line.mass ? gramsWithSpread(row.line.mass.valueG, 0) : '–' }}
                </td><td>{{ row.line.mass?.evidence ?? '' }}</td><td class="soft">
                  {{ row.line.mass ? '' : 'no grams: the line stays open' }}
                </td>
              </template>
              <template v-else>
                <td>
                  <PickOne
                    :model-value="chosen.get(placeOf(row)) ?? ''"
                    :label="`Slot of row ${row.row}`"
                    :options="slotChoices"
                    placeholder="which"
                    @update:model-value="choose(row, $event as Slot)"
                  />
                </td><td
                  colspan="4"
                  class="soft"
                >
                  {{ row.cells.join(' · ').slice(0, 90) }}
                </td><td class="problem">
                  {{ row.problems.join(' ') }}
                </td>
              </template>
            </tr>
          </tbody>
        </table>
      </div>
      <div class="foot">
        <span>{{ good.length }} good {{ good.length === 1 ? 'row' : 'rows' }}<template v-if="bad">, {{ bad }} with a
          mistake</template><template v-if="withoutGrams">, {{ withoutGrams }} without
          grams</template><template v-if="rows.length > shown.length">; {{ shown.length }} shown</template></span>
        <span><el-button @click="open = false">Take none</el-button> <el-button
          type="primary"
          :disabled="good.length === 0"
          @click="accept"
        >{{
          bad
            ? `Take the ${good.length} good ${good.length === 1 ? 'row' : 'rows'}`
            : `Take ${good.length === 1 ? 'the row' : `all ${good.length} rows`}`
        }}</el-button></span>
      </div>
    </template>
  </el-dialog>
</template>

<style scoped>
.el-textarea {
  width: 100%;
  font-family: var(--mono);
  font-size: 12.5px;
}
.columns {
  display: grid;
  grid-template-columns: repeat(5, 1fr);
  gap: 8px;
  margin-bottom: 10px;
}
.preview {
  max-height: 46vh;
  overflow: auto;
  border: 1px solid var(--line);
  border-radius: 6px;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 12.5px;
}
th {
  text-align: left;
  font-weight: 500;
  color: var(--ink-soft);
  position: sticky;
  top: 0;
  background: var(--card);
}
td,
th {
  padding: 4px 8px;
  border-bottom: 1px solid var(--line);
}
.bad td {
  background: var(--note);
}
td select {
  padding: 1px 4px;
  font-size: 12.5px;
  max-width: 140px;
}
.foot {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
  margin-top: 12px;
  flex-wrap: wrap;
}
@media screen and (max-width: 760px) {
  .columns {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
