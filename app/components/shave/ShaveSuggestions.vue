<script setup lang="ts">
import { suggestShavings, type ShavingGoal, type Suggestion } from '#core/deciding/shave'
import { signed } from '#core/text/display'

/** What the ledger and the drawer suggest, beside the list: each change of either makes it anew. */
const { goalKind } = defineProps<{ goalKind: ShavingGoal['kind'] }>()
const store = useBuildStore()
const flown = useFlightsStore()
const drawer = useDrawerStore()
const { settings } = storeToRefs(useSettingsStore())
const problem = ref('')
onMounted(() => {
  if (!drawer.loaded)
    drawer.load().catch(() => {
      problem.value = 'The drawer could not be looked at: only the build itself suggests.'
    })
})
const suggestions = shallowRef<readonly Suggestion[] | null>(null)
watchDebounced(
  [
    () => store.build?.lines,
    () => store.build?.shave,
    () => store.build?.fit,
    () => store.choice,
    () => goalKind,
    () => drawer.parts,
    () => drawer.placements,
  ],
  () => {
    suggestions.value = suggestShavings({
      build: store.build!,
      choice: store.choice,
      estimates: store.estimates,
      gear: settings.value.gear,
      parts: drawer.parts,
      placements: drawer.placements,
      puttingOn: goalKind === 'put on',
      lessons: lessonsFor(flown, store.build!.id),
      newId,
    })
  },
  { debounce: 60, immediate: true },
)
function takeUp({ candidate, shaving }: Suggestion) {
  if (candidate && !store.run({ type: 'lines.add', lines: [candidate], beforeId: null })) return
  store.run({ type: 'shaving.put', shaving })
}
</script>

<template>
  <section
    v-if="suggestions"
    class="suggest"
    aria-label="Suggestions"
  >
    <p
      v-if="problem"
      class="problem"
      role="alert"
    >
      {{ problem }}
    </p>
    <p
      v-if="suggestions.length === 0"
      class="soft"
    >
      {{
        goalKind === 'put on'
          ? 'The ledger suggests nothing to put on: no line that is off, no heavier candidate or pack.'
          : 'The ledger suggests nothing more: no lighter candidate or pack, no fitting, no lead longer than its way.'
      }}
    </p>
    <p
      v-for="s in suggestions"
      :key="s.shaving.id"
    >
      <el-button
        link
        type="primary"
        @click="takeUp(s)"
      >
        Put on the list
      </el-button> {{ s.shaving.what }}
      <b class="figure">{{ signed(-s.shaving.gramsG, 2) }}</b> <span class="soft">{{ s.because }}</span>
    </p>
  </section>
</template>

<style scoped>
.suggest {
  background: var(--paper);
  border-radius: 8px;
  padding: 6px 12px;
  margin-bottom: 8px;
}
.suggest p {
  margin: 2px 0;
}
</style>
