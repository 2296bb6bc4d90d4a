<script setup lang="ts">
import { stationPath, stations } from '~/stations'
import { slotFacts } from '#core/model/ledger'
import { cardName, limitInWords } from '#core/limits/rules'
import type { Found } from '#shared/schemas/api'

interface Hit {
  key: string
  title: string
  detail: string
  to: string
}

const { findOpen } = useShell()
const shelf = useShelfStore()
const rules = useRulesStore()
const store = useBuildStore()
const text = ref('')
const lines = shallowRef<Found[]>([])
const at = ref(0)
const field = useTemplateRef<HTMLInputElement>('field')
const focusField = useDialogFocus(field)

watch(
  findOpen,
  async open => {
    if (!open) return
    text.value = ''
    await Promise.all([shelf.load(), rules.cards.length === 0 ? rules.load() : null])
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

const hits = computed<Hit[]>(() => {
  const wanted = text.value.trim().toLowerCase()
  const matches = (...texts: string[]) => texts.some(t => t.toLowerCase().includes(wanted))
  const { build } = store
  const atStations = build
    ? stations
        .filter(s => matches(s.name, s.question))
        .map(s => ({ name: s.name, to: stationPath(build.id, s) }))
        .map(({ name, to }) => ({ key: to, title: name, detail: `station of ${build.name}`, to }))
    : []
  const places = [
    ['Shelf', '/'],
    ['Drawer', '/drawer'],
    ['Scales', '/scales'],
    ['Rules', '/rules'],
    ['Settings', '/settings'],
  ]
    .filter(([name]) => matches(name!))
    .map(([name, to]) => ({ key: to!, title: name!, detail: 'place', to: to! }))
  const builds = shelf.entries
    .filter(b => matches(b.name, b.craftClass))
    .map(b => ({ key: b.id, title: b.name, detail: b.craftClass || 'build', to: `/builds/${b.id}/parts` }))
  const cards = rules.cards
    .filter(c => matches(c.place, c.purpose))
    .map(c => ({ key: `card-${c.id}`, title: cardName(c), detail: limitInWords(c), to: `/rules#${c.id}` }))
  const found = lines.value.map(l => ({
    key: `${l.buildId}/${l.lineId}`,
    title: l.name,
    detail: `${slotFacts[l.slot].label.toLowerCase()} in ${l.buildName}${l.state === 'fitted' ? '' : `, ${l.state}`}`,
    to: `/builds/${l.buildId}/parts?line=${l.lineId}`,
  }))
  return wanted === ''
    ? [...builds, ...atStations, ...places].slice(0, 12)
    : [...builds, ...atStations, ...found, ...cards, ...places].slice(0, 30)
})

function go(hit: Hit | undefined) {
  if (!hit) return
  findOpen.value = false
  navigateTo(hit.to)
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
      aria-label="Find a build, line, pack, card or station"
      placeholder="Build, line, pack, card or station"
      role="combobox"
      aria-expanded="true"
      aria-controls="find-hits"
      :aria-activedescendant="hits[at] ? `hit-${at}` : undefined"
      @keydown.down.prevent="move(1)"
      @keydown.up.prevent="move(-1)"
      @keydown.enter.prevent="go(hits[at])"
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
      v-if="text && hits.length === 0"
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
