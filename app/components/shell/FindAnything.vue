<script setup lang="ts">
import { promiseTimeout } from '@vueuse/core'
import { stationPath, stations } from '~/stations'
import { findHits, type Hit } from '~/utils/find-hits'
import type { Found } from '#shared/schemas/api'

const { findOpen, keysOpen } = useShell()
const tour = useTour()
const drawer = useDrawerStore()
const shelf = useShelfStore()
const rules = useRulesStore()
const store = useBuildStore()
const text = ref('')
const lines = shallowRef<Found[]>([])
const at = ref(0)
/** What is found by name is still on its way: nothing is offered that the next moment would push away from under the hand. */
const looking = ref(false)
const longestLookMs = 6000
const field = useTemplateRef<HTMLInputElement>('field')
const focusField = useDialogFocus(field)

watch(
  findOpen,
  async open => {
    if (!open) return
    text.value = ''
    looking.value = true
    await Promise.race([
      Promise.allSettled([
        shelf.load(),
        rules.cards.length === 0 ? rules.load() : null,
        drawer.loaded ? null : drawer.load(),
      ]),
      promiseTimeout(longestLookMs),
    ])
    looking.value = false
  },
  { immediate: true },
)
watchDebounced(
  text,
  async wanted => {
    const found = wanted.trim() === '' ? [] : await shelf.searchLines(wanted.trim())
    if (wanted === text.value) lines.value = found
  },
  { debounce: 80 },
)
watch(text, () => {
  at.value = 0
})

const actions = computed(() => [
  { title: 'What the keys do', act: () => (keysOpen.value = true) },
  ...(tour.canBegin.value ? [{ title: 'Take the tour', act: tour.begin }] : []),
  ...(store.steps.undo ? [{ title: `Take back: ${store.steps.undo}`, act: () => store.step('undo') }] : []),
  ...(store.steps.redo ? [{ title: `Do again: ${store.steps.redo}`, act: () => store.step('redo') }] : []),
])
const flown = useFlightsStore()
const flownHits = computed(() =>
  flown.flights.toReversed().map(flight => ({
    id: flight.id,
    title: flightTitle(flight),
    words: `flight ${flight.snapshot.pack?.label ?? ''} ${flight.style} ${flight.place} ${flight.note}`,
    to: `/builds/${flight.buildId}/fly?flight=${flight.id}`,
  })),
)
const hits = computed<Hit[]>(() => {
  if (looking.value) return []
  const { build } = store
  return findHits(text.value, {
    builds: shelf.entries,
    stations: build
      ? stations.map(one => ({ title: one.name, question: one.question, to: stationPath(build.id, one) }))
      : [],
    buildName: build?.name ?? '',
    lines: lines.value,
    parts: drawer.parts,
    cards: rules.cards,
    flights: build && flown.buildId === build.id ? flownHits.value : [],
    actions: actions.value,
  })
})

function go(hit: Hit | undefined) {
  if (!hit) return
  findOpen.value = false
  if (hit.act) hit.act()
  else if (hit.to) navigateTo(hit.to)
}
async function goToChosen() {
  await until(looking).toBe(false)
  go(hits.value[at.value])
}
function move(by: number) {
  if (hits.value.length > 0) at.value = (at.value + by + hits.value.length) % hits.value.length
}
</script>

<template>
  <el-dialog
    v-model="findOpen"
    width="min(600px, 94vw)"
    title="Find"
    @open-auto-focus="focusField"
  >
    <input
      ref="field"
      v-model="text"
      class="find"
      type="search"
      aria-label="Find a build, line, part, bag, card, station or setting"
      placeholder="Build, line, part, bag, card, station or setting"
      role="combobox"
      aria-expanded="true"
      aria-controls="find-hits"
      :aria-activedescendant="hits[at] ? `hit-${at}` : undefined"
      @keydown.down.prevent="move(1)"
      @keydown.up.prevent="move(-1)"
      @keydown.enter.prevent="goToChosen"
    >
    <ul
      id="find-hits"
      role="listbox"
      aria-label="Found"
    >
      <li
        v-for="(hit, i) in hits"
        :id="`hit-${i}`"
        :key="hit.key"
        role="option"
        :aria-selected="i === at"
        @click="go(hit)"
        @mousemove="at = i"
      >
        <b>{{ hit.title }}</b> <span class="soft">{{ hit.detail }}</span>
      </li>
    </ul>
    <p
      v-if="looking"
      class="soft"
    >
      Looking …
    </p>
    <p
      v-else-if="text && hits.length === 0"
      class="soft"
    >
      Nothing of that name. Try a shorter word.
    </p>
  </el-dialog>
</template>

<style scoped>
.find {
  width: 100%;
  font-size: 15px;
  padding: 8px 10px;
}
ul {
  list-style: none;
  margin: 10px 0 0;
  padding: 0;
  max-height: 52vh;
  overflow: auto;
}
li {
  padding: 6px 10px;
  border-radius: 6px;
  cursor: pointer;
}
li[aria-selected='true'] {
  background: var(--selection);
}
</style>
