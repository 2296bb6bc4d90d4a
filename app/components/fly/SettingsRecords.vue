<script setup lang="ts">
import { diffLines } from 'diff'
import { settingsAt, type FirmwareVersion, type SettingsRecord } from '#core/aircraft/flown'
import { counted } from '#core/text/display'
import { settingsRecordSchema } from '#shared/schemas/flights'

/** Configurations of the craft as they were: kept whole, found again by any word in them, two of them side by side. */
const store = useBuildStore()
const flights = useFlightsStore()

const isAdding = ref(false)
const name = ref('')
const text = ref('')
const firmware = ref<FirmwareVersion[]>([{ device: 'flight controller', version: '' }])
const problem = ref('')
async function takeFile(file: File) {
  if (file.size > 2_000_000) {
    problem.value = `${file.name} is over 2 MB: that is no configuration. Nothing was taken in.`
    return
  }
  isAdding.value = true
  text.value = await file.text()
  if (name.value === '') name.value = file.name.replace(/\.\w+$/, '')
}
async function keep() {
  const record: SettingsRecord = {
    id: newId(),
    buildId: store.build!.id,
    name: name.value.trim(),
    at: localMoment(),
    revision: store.revision,
    firmware: firmware.value.filter(({ device, version }) => device.trim() !== '' && version.trim() !== ''),
    text: text.value,
  }
  if (record.text.trim() === '' && record.firmware.length === 0) {
    problem.value = 'Paste the configuration, or say a version of a firmware.'
    return
  }
  const checked = settingsRecordSchema.safeParse(record)
  problem.value = checked.success ? await flights.addSettings(record) : checked.error.issues[0]!.message
  if (problem.value !== '') return
  texts.value = { ...texts.value, [record.id]: record.text }
  name.value = text.value = ''
  isAdding.value = false
}
const records = computed(() => [...flights.settings].reverse())
const usedBy = computed(() => {
  const counts = new Map<string, number>()
  for (const { flownAt } of flights.flights) {
    const id = settingsAt(flights.settings, flownAt)?.id
    if (id) counts.set(id, (counts.get(id) ?? 0) + 1)
  }
  return counts
})
function usedWords({ id }: SettingsRecord): string {
  const count = usedBy.value.get(id) ?? 0
  return count === 0 ? 'no flight with it' : count === 1 ? 'one flight with it' : `${counted(count)} flights with it`
}

/** Texts come when they are looked at. */
const texts = ref<Readonly<Record<string, string>>>({})
async function textOf(id: string): Promise<string> {
  if (texts.value[id] === undefined) texts.value = { ...texts.value, [id]: await flights.textOfSettings(id) }
  return texts.value[id]!
}
const wanted = ref('')
const found = shallowRef<ReadonlyMap<string, string> | null>(null)
async function search() {
  const word = wanted.value.trim().toLowerCase()
  if (word === '') {
    found.value = null
    return
  }
  const lines = new Map<string, string>()
  for (const { id, name: called } of records.value) {
    const line = `${called}\n${await textOf(id)}`.split('\n').find(one => one.toLowerCase().includes(word))
    if (line !== undefined) lines.set(id, line.trim())
  }
  found.value = lines
}
const shown = computed(() => records.value.filter(({ id }) => !found.value || found.value.has(id)))

const pair = ref<string[]>([])
const before = computed(() => records.value.find(({ id }) => id === pair.value[0]) ?? null)
const after = computed(() => records.value.find(({ id }) => id === pair.value[1]) ?? null)
interface Change {
  readonly kind: 'same' | 'gone' | 'new'
  readonly lines: readonly string[]
}
const changes = shallowRef<readonly Change[]>([])
const comparing = ref('')
watch(pair, async ids => {
  changes.value = []
  comparing.value = ''
  if (ids.length < 2) return
  try {
    const [one, other] = await Promise.all(ids.map(textOf))
    if (pair.value !== ids) return
    changes.value = diffLines(one!, other!).map(({ added, removed, value }) => ({
      kind: added ? 'new' : removed ? 'gone' : 'same',
      lines: value.replace(/\n$/, '').split('\n'),
    }))
    if (changes.value.every(({ kind }) => kind === 'same')) comparing.value = 'The two are the same.'
  } catch (error) {
    comparing.value = sentenceOf(error)
  }
})
/** The older of the two first; a third one takes the place of the older. */
function pick(id: string, isOn: boolean) {
  const next = isOn ? [...pair.value, id].slice(-2) : pair.value.filter(one => one !== id)
  const at = new Map(flights.settings.map(record => [record.id, record.at]))
  pair.value = next.toSorted((a, b) => (at.get(a)! < at.get(b)! ? -1 : 1))
}
const around = 2
/** Of what is the same only the lines next to a change are shown. */
function shownLines({ kind, lines }: Change, i: number): readonly string[] {
  if (kind !== 'same' || lines.length <= 2 * around + 1) return lines
  const head = i === 0 ? [] : lines.slice(0, around)
  const tail = i === changes.value.length - 1 ? [] : lines.slice(-around)
  return [...head, `… ${lines.length - head.length - tail.length} lines the same …`, ...tail]
}
</script>

<template>
  <FileDrop
    words="Let go: it is taken in as a configuration"
    @files="takeFile($event[0]!)"
  />
  <div class="head">
    <p class="soft">
      Configurations as they were, each kept whole with the revision of the ledger. A build file leaves their texts out
      unless you ask for them.
    </p><span class="gap" />
    <FileChoose
      words="From a file"
      accept=".txt,.cfg,.json,text/plain"
      @file="takeFile"
    />
    <el-button
      type="primary"
      @click="isAdding = !isAdding"
    >
      New record
    </el-button>
  </div>
  <el-form
    v-if="isAdding"
    label-position="top"
    aria-label="New record"
    class="new"
    @submit.prevent="keep"
  >
    <FormField label="Name">
      <el-input
        v-model="name"
        placeholder="before filters"
      />
    </FormField>
    <div
      v-for="(one, i) in firmware"
      :key="i"
      class="firmware"
    >
      <FormField label="Device">
        <el-input v-model="one.device" />
      </FormField><FormField label="Version, as it says">
        <el-input
          v-model="one.version"
          class="figure"
        />
      </FormField>
    </div>
    <el-button
      link
      type="primary"
      @click="firmware.push({ device: '', version: '' })"
    >
      Another device
    </el-button>
    <FormField
      label="Configuration"
      :problem="problem"
    >
      <el-input
        v-model="text"
        type="textarea"
        :rows="8"
        class="figure"
        placeholder="paste the whole of it"
      />
    </FormField>
    <div class="acts">
      <el-button
        type="primary"
        native-type="submit"
      >
        Keep it
      </el-button><el-button @click="isAdding = false">
        Leave it
      </el-button>
    </div>
  </el-form>
  <p
    v-else-if="problem"
    class="problem"
    role="alert"
  >
    {{ problem }}
  </p>
  <p
    v-if="records.length === 0"
    class="soft"
  >
    Nothing is kept yet.
  </p>
  <template v-else>
    <el-form
      class="search"
      @submit.prevent="search"
    >
      <el-input
        v-model="wanted"
        placeholder="a word in any of them"
        aria-label="Search the configurations"
        clearable
        @clear="search"
      /><el-button native-type="submit">
        Search
      </el-button>
    </el-form>
    <p
      v-if="shown.length === 0"
      class="soft"
    >
      None of them has it.
    </p>
    <ul class="records">
      <li
        v-for="record in shown"
        :key="record.id"
      >
        <el-checkbox
          :model-value="pair.includes(record.id)"
          @update:model-value="pick(record.id, $event === true)"
        >
          <b>{{ record.name }}</b>
        </el-checkbox>
        <span class="soft">{{ dayOf(record.at.slice(0, 10), 'short') }}, revision {{ record.revision }}, {{ usedWords(record) }}</span>
        <span
          v-for="one in record.firmware"
          :key="one.device"
        >{{ one.device }} <b class="figure">{{ one.version }}</b></span>
        <span
          v-if="found?.get(record.id)"
          class="figure line"
        >{{ found.get(record.id) }}</span>
        <el-button
          link
          type="primary"
          @click="flights.removeSettings(record.id)"
        >
          Delete
        </el-button>
      </li>
    </ul>
    <p
      v-if="pair.length < 2"
      class="soft"
    >
      Tick two to see what differs between them.
    </p>
    <section
      v-else
      aria-labelledby="differs-head"
    >
      <h3 id="differs-head">
        From “{{ before?.name }}” to “{{ after?.name }}”
      </h3>
      <p
        v-if="comparing"
        role="status"
      >
        {{ comparing }}
      </p>
      <pre
        v-else
        class="figure differs"
        tabindex="0"
      ><template
        v-for="(change, i) in changes"
        :key="i"
      ><span
        v-for="(line, k) in shownLines(change, i)"
        :key="k"
        :class="change.kind"
      >{{ change.kind === 'gone' ? '−' : change.kind === 'new' ? '+' : ' ' }} {{ line }}
</span></template></pre>
    </section>
  </template>
</template>

<style scoped>
.head {
  display: flex;
  align-items: center;
  gap: 8px;
}
.gap {
  flex: 1;
}
.new {
  display: grid;
  gap: 8px;
  padding: 12px 14px;
  margin-bottom: 12px;
  border-radius: 8px;
  background: var(--aside);
}
.firmware {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.acts,
.search {
  display: flex;
  gap: 6px;
}
.search {
  max-width: 420px;
}
.acts :deep(.el-button) {
  margin: 0;
}
.records {
  list-style: none;
  padding: 0;
  margin: 8px 0;
}
.records li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 16px;
  padding: 4px 0;
  border-bottom: 1px solid var(--line);
}
.line {
  overflow-wrap: anywhere;
}
.differs {
  margin: 0;
  padding: 10px 12px;
  border: 1px solid var(--line);
  border-radius: 8px;
  max-height: 420px;
  overflow: auto;
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  font-size: 12.5px;
}
.differs span {
  display: block;
}
.gone {
  background: color-mix(in srgb, var(--over) 14%, var(--card));
}
.new:is(span) {
  padding: 0;
  margin: 0;
  border-radius: 0;
  background: color-mix(in srgb, var(--clear) 16%, var(--card));
}
@media screen and (max-width: 760px) {
  .head {
    flex-wrap: wrap;
  }
}
</style>
