<script setup lang="ts">
import { promiseTimeout } from '@vueuse/core'
import type { ShelfOrder } from '~/utils/shelf-order'
import { mostFileBytes, overLargest } from '#shared/files/largest'

const shelf = useShelfStore()
const starting = ref(false)
const everStarted = ref(false)
watch(starting, () => {
  everStarted.value = true
})
const showArchived = ref(false)
const problem = ref('')
const file = useTemplateRef<HTMLInputElement>('file')

useHead({ title: 'Shelf · Jolly Gram' })
const loading = shelf.load().catch(error => {
  problem.value = sentenceOf(error)
})
useSingleKeys({
  new: () => {
    starting.value = true
  },
})

const numberWords = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten']
const spoken = (n: number) => numberWords[n] ?? String(n)
const present = computed(() => shelf.entries.filter(entry => !entry.archived))
const words = ref('')
const tag = ref('')
const order = ref<ShelfOrder | ''>('')
const tags = computed(() => tagsInUse(present.value))
const wanted = computed(() => shelfShown(present.value, { words: words.value, tag: tag.value, order: order.value }))
/** A handful of builds is looked over at a glance. */
const hasFilters = computed(() => present.value.length > 4 || tags.value.length > 0)
/** Their place is there from the first picture on; they come when that stands. */
const isDrawn = ref(false)
onceDrawn(() =>
  whenIdle(() => {
    isDrawn.value = true
  }, 500),
)
const tagging = shallowRef<{ readonly id: string; readonly name: string; readonly tags: readonly string[] } | null>(null)
const archived = computed(() => shelf.entries.filter(entry => entry.archived))
const summary = computed(() => {
  const count = (word: string) => present.value.filter(entry => entry.word === word).length
  const clear = present.value.filter(entry => entry.intoReserveG === 0).length
  const parts = [
    [clear, 'clear as you fly them'],
    [count('Clear') - clear, 'clear, but into the reserve'],
    [count('Too close to call'), 'to settle'],
    [count('Over'), 'over'],
  ] as const
  return [
    `${spoken(present.value.length)} ${present.value.length === 1 ? 'build' : 'builds'}`,
    parts
      .filter(([n]) => n > 0)
      .map(([n, words]) => `${spoken(n)} ${words}`)
      .join(', '),
  ]
    .filter(Boolean)
    .join(' · ')
})

/** The first screenful is painted at once; a long shelf grows below it when that is done, a few cards a frame. */
const shown = ref(window.innerWidth > 1400 ? 12 : 8)
function grow() {
  if (shown.value >= present.value.length) return
  shown.value += 12
  requestAnimationFrame(grow)
}
watch(
  () => present.value.length,
  () => requestAnimationFrame(() => whenIdle(grow, 300)),
  { immediate: true },
)

/** Crafts that shall be held against each other. */
const ticked = ref<string[]>([])
const tick = (id: string, isTicked: boolean) => {
  ticked.value = isTicked ? [...ticked.value, id] : ticked.value.filter(one => one !== id)
}

async function bringIn(event: Event) {
  const input = event.target as HTMLInputElement
  const chosen = input.files?.[0]
  if (chosen) await takeFile(chosen)
  input.value = ''
}
async function takeFile(chosen: File) {
  problem.value = ''
  try {
    if (chosen.size > mostFileBytes) throw new Error(`${overLargest} Nothing was taken in.`)
    const text = await chosen.text()
    if (looksLikeRows(text)) await beginFrom(text, chosen.name.replace(/\.[^.]*$/, ''))
    else await take(text)
  } catch (error) {
    problem.value = sentenceOf(error)
  }
}
/** A parts list begins with words or figures; a build file with a brace. */
const looksLikeRows = (text: string) => /^\s*[^\s{[]/.test(text.replace(/^\uFEFF/, ''))
/** Rows begin a build of their own; they are looked at there before they come in. */
async function beginFrom(text: string, name: string) {
  const id = await shelf.start({ from: 'empty', name: name.trim().slice(0, 120) || 'New build' })
  useCarriedRows().carry(text)
  await navigateTo(`/builds/${id}/parts`)
}
useEventListener(document, 'paste', (event: ClipboardEvent) => {
  const text = event.clipboardData?.getData('text/plain') ?? ''
  const isTyping = event.target instanceof Element && event.target.closest('input, textarea, [role=dialog]')
  if (isTyping || !looksLikeRows(text) || !/[\n\t;,]/.test(text)) return
  event.preventDefault()
  beginFrom(text, 'Pasted parts').catch((error: unknown) => {
    problem.value = sentenceOf(error)
  })
})
/** How many of several files have been looked at; null when none is coming. */
const coming = shallowRef<{ done: number; of: number } | null>(null)
let isStopped = false
/** One file that is dropped is opened; of several each comes onto the shelf, and what is wrong with one is said of it. */
async function takeDropped(files: readonly File[]) {
  if (files.length === 1) {
    await takeFile(files[0]!)
    return
  }
  const wrong: string[] = []
  isStopped = false
  let came = 0
  for (const [done, file] of files.entries()) {
    coming.value = { done, of: files.length }
    if (isStopped) break
    try {
      if (file.size > mostFileBytes) throw new Error(`${overLargest} Nothing was taken in.`)
      await shelf.bringIn(await file.text())
      came++
    } catch (error) {
      wrong.push(`${file.name}: ${sentenceOf(error)}`)
    }
  }
  coming.value = null
  await shelf.load()
  problem.value = wrong.join(' ')
  if (came > 0) void tell(`${came === 1 ? 'One build' : `${came} builds`} came onto the shelf.`)
}
/** A file whose history does not lead to its build: it may come in without it. */
const withoutHistory = ref<string | null>(null)
async function take(text: string, without = false) {
  problem.value = ''
  withoutHistory.value = null
  try {
    const id = await shelf.bringIn(text, without)
    await navigateTo(`/builds/${id}/parts`)
  } catch (error) {
    problem.value = sentenceOf(error)
    if (error instanceof ApiProblem && error.problem.code === 'journal-forged') withoutHistory.value = text
  }
}
async function attempt(work: () => Promise<unknown>) {
  problem.value = ''
  try {
    await work()
  } catch (error) {
    problem.value = sentenceOf(error)
  }
}
async function keepTags(of: string[]) {
  const going = tagging.value!
  tagging.value = null
  await attempt(() => shelf.tag(going.id, of))
}
/** The build about to be deleted for good. */
const deleting = shallowRef<{ id: string; name: string } | null>(null)
async function removeForGood() {
  const going = deleting.value!
  deleting.value = null
  await attempt(() => shelf.remove(going.id))
}
async function putAway(id: string, away: boolean) {
  problem.value = ''
  try {
    await shelf.putAway(id, away)
    const name = shelf.entries.find(entry => entry.id === id)?.name ?? 'The build'
    void tell(`${name} is ${away ? 'put away' : 'back on the shelf'}.`, {
      words: 'Take back',
      act: () => attempt(() => shelf.putAway(id, !away)),
    })
  } catch (error) {
    problem.value = sentenceOf(error)
  }
}
/** The builds were asked for before this page was: for so long it waits, to come whole, ms. Our choice. */
const waitsForBuildsMs = 150
await Promise.race([loading, promiseTimeout(waitsForBuildsMs)])
</script>

<template>
  <main class="page">
    <FileDrop
      words="Drop build files here: they come onto the shelf"
      @files="takeDropped"
    />
    <div class="page-head">
      <h1>Shelf</h1><span class="soft">{{ shelf.loaded ? summary : '' }}</span><span class="gap" />
      <input
        ref="file"
        type="file"
        accept=".json,.csv,.tsv,.txt,application/json,text/csv,text/plain"
        class="visually-hidden"
        aria-label="Build file"
        tabindex="-1"
        @change="bringIn"
      >
      <el-button
        v-if="ticked.length > 0"
        :disabled="ticked.length < 2"
        @click="navigateTo(comparePath(ticked))"
      >
        {{ ticked.length < 2 ? 'Tick another to compare' : `Compare ${ticked.length} crafts` }}
      </el-button>
      <a
        v-if="present.length > 0"
        href="/api/archive"
        class="button"
        download
        title="Every build with its journal, drawer, scales, flights and photos, in one file"
      >Keep all in a file</a>
      <el-button @click="file?.click()">
        Bring in a file
      </el-button>
      <el-button
        type="primary"
        @click="starting = true"
      >
        Start a build <KeyHint does="new" />
      </el-button>
    </div>
    <LazyWorkProgress
      v-if="coming"
      words="Files taken in"
      v-bind="coming"
      @stop="isStopped = true"
    />
    <p
      v-if="problem"
      class="note"
      role="alert"
    >
      {{ problem }} <el-button
        v-if="withoutHistory !== null"
        @click="take(withoutHistory, true)"
      >
        Bring it in without its history
      </el-button>
    </p>
    <WaysIn
      v-if="shelf.loaded && present.length === 0 && shelf.unreadable.length === 0"
      @start="starting = true"
      @file="file?.click()"
    />
    <div
      v-if="hasFilters"
      class="filters-place"
    >
      <LazyShelfFilters
        v-if="isDrawn"
        v-model:words="words"
        v-model:tag="tag"
        v-model:order="order"
        :orders="shelfOrders"
        :tags="tags"
        :shown="wanted.length"
        :of="present.length"
      />
    </div>
    <p
      v-if="present.length > 0 && wanted.length === 0"
      class="soft"
    >
      No build is like that.
    </p>
    <BuildCard
      v-for="entry in wanted.slice(0, shown)"
      :key="entry.id"
      :entry="entry"
      :ticked="ticked.includes(entry.id)"
      :is-full="ticked.length >= mostCompared"
      @update:ticked="tick(entry.id, $event)"
      @pin="attempt(() => shelf.pin(entry.id, $event))"
      @tag="tagging = entry"
      @put-away="putAway(entry.id, $event)"
    />
    <p v-if="archived.length > 0">
      <el-button
        link
        type="primary"
        :aria-expanded="showArchived"
        @click="showArchived = !showArchived"
      >
        {{ showArchived ? 'Hide' : 'Show' }} what was put away ({{ archived.length }})
      </el-button>
    </p>
    <template v-if="showArchived">
      <BuildCard
        v-for="entry in archived"
        :key="entry.id"
        :entry="entry"
        @put-away="putAway(entry.id, $event)"
        @remove="deleting = { id: entry.id, name: entry.name }"
      />
    </template>
    <article
      v-for="bad in shelf.unreadable"
      :key="bad.id"
      class="panel unreadable"
      data-test="unreadable"
    >
      <h2>
        {{ bad.name }}<small
          v-if="bad.archived"
          class="soft"
        > put away</small>
      </h2>
      <p>{{ bad.sentence }} The other builds are not touched by it.</p>
      <p class="ways">
        <a
          :href="`/api/builds/${bad.id}/export/rows.json`"
          class="button"
          download
        >Save what lies there</a>
        <el-button @click="attempt(() => shelf.rescue(bad.id, 'take back'))">
          Take its last entry back
        </el-button>
        <el-button @click="attempt(() => shelf.rescue(bad.id, bad.archived ? 'bring back' : 'put away'))">
          {{ bad.archived ? 'Bring back' : 'Put away' }}
        </el-button>
        <el-button
          v-if="bad.archived"
          @click="deleting = bad"
        >
          Delete for good
        </el-button>
      </p>
    </article>
    <LazyDeleteBuild
      v-if="deleting"
      :build="deleting"
      :unreadable="shelf.unreadable.some(b => b.id === deleting!.id)"
      @close="deleting = null"
      @remove="removeForGood"
    />
    <LazyTagBuild
      v-if="tagging"
      :build="tagging"
      :known="tags"
      @close="tagging = null"
      @keep="keepTags"
    />
    <LazyStartBuild
      v-if="everStarted"
      v-model="starting"
    />
  </main>
</template>

<style scoped>
.empty {
  text-align: center;
  padding: 48px;
}
.filters-place {
  min-height: 42px;
}
.unreadable {
  border-left: 4px solid var(--over);
}
.unreadable h2 {
  margin-top: 0;
}
.ways {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
}
@media screen and (max-width: 760px) {
  .filters-place {
    min-height: 108px;
  }
}
</style>
