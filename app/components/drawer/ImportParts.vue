<script setup lang="ts">
import { counted, fixed } from '#core/text/display'
import {
  drawerFileColumns,
  everyProperty,
  mostDrawerBytes,
  type DrawerMapping,
  type DrawerRows,
} from '#shared/files/drawer-csv'
import type { ReadReply } from '../../workers/read-drawer.worker'

const open = defineModel<boolean>({ required: true })
/** A file that was dropped on the page. */
const props = defineProps<{ dropped: File | null }>()
const drawer = useDrawerStore()
const problem = ref('')
const heads = ref<readonly string[]>([])
const count = ref(0)
const mapping = ref<Record<string, string>>({})
const read = shallowRef<DrawerRows | null>(null)
const progress = ref<{ words: string; done: number; of: number } | null>(null)
const remembered = ref(false)
let worker: Worker | null = null
let stopped = false

function start(): Worker {
  worker?.terminate()
  worker = new Worker(new URL('../../workers/read-drawer.worker.ts', import.meta.url), { type: 'module' })
  worker.onmessage = ({ data }: MessageEvent<ReadReply>) => {
    void hear(data)
  }
  return worker
}
async function hear(reply: ReadReply) {
  if (reply.kind === 'problem') {
    problem.value = reply.problem
    progress.value = null
  } else if (reply.kind === 'progress') progress.value = { words: 'Reading rows', done: reply.done, of: count.value }
  else if (reply.kind === 'rows') {
    read.value = reply.read
    progress.value = null
  } else {
    heads.value = reply.heads
    count.value = reply.rows
    const known = await drawer.knownMapping(headsKey(reply.heads)).catch(() => null)
    remembered.value = known !== null
    mapping.value = { ...reply.mapping, ...known }
    look()
  }
}
const headsKey = (of: readonly string[]) => of.join('\u001F').slice(0, 4000)
async function takeFile(file: File) {
  reset()
  if (file.size > mostDrawerBytes) {
    problem.value = `This file has ${fixed(file.size / 1e6, 1)} MB; at most ${mostDrawerBytes / 1e6} MB. Nothing was taken in.`
    return
  }
  start().postMessage({ kind: 'heads', text: await file.text() })
}
function look() {
  token = newId()
  read.value = null
  progress.value = { words: 'Reading rows', done: 0, of: count.value }
  worker?.postMessage({ kind: 'rows', mapping: { ...mapping.value } satisfies DrawerMapping })
}
function reset() {
  worker?.terminate()
  worker = null
  heads.value = []
  read.value = null
  problem.value = ''
  progress.value = null
}
watch(
  () => props.dropped,
  file => {
    if (file) void takeFile(file)
  },
  { immediate: true },
)
/** The same file looked at once is brought in once, however often it is asked for. */
let token = newId()
async function accept() {
  const parts = read.value!.parts
  stopped = false
  progress.value = { words: 'Putting away', done: 0, of: parts.length }
  try {
    await drawer.knownMapping(headsKey(heads.value), mapping.value)
    const kept = await drawer.bringIn(parts, token, done => {
      progress.value = { words: 'Putting away', done, of: parts.length }
      return !stopped
    })
    if (kept === parts.length) open.value = false
    else
      problem.value = `Stopped: ${counted(kept)} of ${counted(parts.length)} are in the drawer.`
  } catch (error) {
    problem.value = sentenceOf(error)
  }
  progress.value = null
  if (problem.value) await drawer.load()
}
function cancel() {
  stopped = true
  if (progress.value?.words === 'Reading rows') reset()
}
watch(open, now => {
  if (!now) reset()
})
onBeforeUnmount(() => worker?.terminate())
const targets = [
  ...Object.entries(drawerFileColumns).map(([key, { title }]) => [key, title] as const),
  ...[...everyProperty.values()].map(p => [`property:${p.key}`, `${p.label}${p.unit ? `, ${p.unit}` : ''}`] as const),
]
</script>

<template>
  <el-dialog
    v-model="open"
    title="Bring parts in"
    width="min(980px, 96vw)"
    top="6vh"
  >
    <p>
      A CSV file with heads: commas, semicolons or tabs; grams or ounces; decimal points or commas. You see what is
      wrong with each row before anything is taken in.
    </p>
    <FileChoose
      accept=".csv,.tsv,.txt,text/csv"
      words="Choose a file"
      @file="takeFile"
    />
    <p
      v-if="problem"
      class="problem"
      role="alert"
    >
      {{ problem }}
    </p>
    <WorkProgress
      v-if="progress"
      v-bind="progress"
      @stop="cancel"
    />
    <template v-if="heads.length > 0">
      <h3>
        What the columns are <span
          v-if="remembered"
          class="soft"
        >as you said for these heads before</span>
      </h3>
      <div class="columns">
        <PickOne
          v-for="head in heads"
          :key="head"
          v-model="mapping[head]"
          :field="head"
          :label="`What the column “${head}” is`"
          :options="targets.map(([key, title]) => ({ value: key, label: title }))"
          none="left out"
          @update:model-value="look"
        />
      </div>
      <template v-if="read && !progress">
        <div
          v-if="read.bad.length > 0"
          class="bad-rows"
        >
          <table>
            <thead><tr><th>Row</th><th>What stands there</th><th>What is wrong with it</th></tr></thead><tbody>
              <tr
                v-for="row in read.bad.slice(0, 100)"
                :key="row.row"
              >
                <td class="figure">
                  {{ row.row }}
                </td><td class="soft">
                  {{ row.cells.join(' · ').slice(0, 80) }}
                </td><td class="problem">
                  {{ row.problems.join(' ') }}
                </td>
              </tr>
            </tbody>
          </table>
        </div>
        <div class="foot">
          <span>{{ counted(read.parts.length) }} good
            {{ read.parts.length === 1 ? 'row' : 'rows' }}<template v-if="read.bad.length">,
              {{ counted(read.bad.length) }} with a
              mistake{{ read.bad.length > 100 ? '; the first 100 shown' : '' }}</template></span><span><el-button @click="open = false">
            Take none
          </el-button> <el-button
            type="primary"
            :disabled="read.parts.length === 0"
            @click="accept"
          >Take the {{ counted(read.parts.length) }} good</el-button></span>
        </div>
      </template>
    </template>
  </el-dialog>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: repeat(5, 1fr);
  gap: 8px;
  margin-bottom: 10px;
}
.bad-rows {
  max-height: 34vh;
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
}
td,
th {
  padding: 3px 8px;
  border-bottom: 1px solid var(--line);
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
