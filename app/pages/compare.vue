<script setup lang="ts">
import { Plus } from '@element-plus/icons-vue'
import { compareLines } from '#core/comparing/lines'
import { comparisonCsv, comparisonMarkdown, type ComparisonTold } from '#shared/files/comparison-text'

const route = useRoute()
const router = useRouter()
const compare = useCompareStore()
const shelf = useShelfStore()
const { settings } = storeToRefs(useSettingsStore())

const keys = computed(() => {
  const of = [route.query.of ?? []].flat().flatMap(one => (one ? [one] : []))
  return [...new Set(of)].slice(0, mostCompared)
})
watch(keys, wanted => void compare.load(wanted), { immediate: true })
shelf.load().catch(() => undefined)
useHead({ title: computed(() => `${compare.crafts.map(({ name }) => name).join(', ') || 'Compare'} · Jolly Gram`) })

/** The craft the others are compared with stands first; one known only as a whole has no lines to compare with. */
const base = computed(() => {
  const wanted = compare.crafts.find(({ key }) => key === route.query.from)
  return wanted ?? compare.crafts.find(({ compared }) => compared !== null) ?? compare.crafts[0] ?? null
})
const crafts = computed(() =>
  base.value ? [base.value, ...compare.crafts.filter(craft => craft !== base.value)] : [],
)
const withLines = computed(() => crafts.value.filter(({ compared }) => compared !== null))
const comparison = computed(() =>
  withLines.value.length > 1 ? compareLines(withLines.value.map(({ compared }) => compared!)) : null,
)
const names = computed(() => crafts.value.map(craft => uniqueName(craft.name, craft.detail)))
const lineNames = computed(() => withLines.value.map(craft => uniqueName(craft.name, craft.detail)))
/** Two loadouts of one build are told apart by what they are. */
function uniqueName(name: string, detail: string) {
  return crafts.value.filter(craft => craft.name === name).length > 1 ? `${name}, ${detail}` : name
}
const sentences = computed(() =>
  comparison.value ? withLines.value.slice(1).map((_, i) => differenceWords(comparison.value!, i + 1, lineNames.value)) : [],
)
const told = computed((): ComparisonTold => ({
  names: names.value,
  comparison: comparison.value,
  columns: crafts.value.map(craft => {
    const column = withLines.value.indexOf(craft)
    return column < 0 ? null : column
  }),
  figures: crafts.value.map(({ figures }) => figures),
  currency: settings.value.currency,
}))
const fileName = computed(() => `Compare ${names.value.join(', ')}`.slice(0, 120))
const markdown = () => saveFile(`${fileName.value}.md`, comparisonMarkdown(told.value), 'text/markdown')
const csv = () => saveFile(`${fileName.value}.csv`, comparisonCsv(told.value), 'text/csv')
const print = () => window.print()

const set = (of: readonly string[], from = route.query.from) =>
  router.replace({ query: { of: [...of], ...(from ? { from } : {}) } })
const offered = computed(() =>
  shelf.entries
    .filter(({ id, archived }) => !archived && !keys.value.includes(id))
    .map(({ id, name, craftClass, reference }) => ({
      value: id,
      label: reference ? `${name} (reference craft)` : `${name}${craftClass ? `, ${craftClass}` : ''}`,
    })),
)
const adding = ref('')
function add(id: string) {
  if (id) void set([...keys.value, id])
  adding.value = ''
}
</script>

<template>
  <main class="page compare">
    <div class="page-head">
      <h1>Compare</h1><span class="soft">{{ crafts.length > 1 ? 'every gram on one scale' : '' }}</span><span class="gap" />
      <template v-if="crafts.length > 1">
        <PickOne
          :model-value="base?.key"
          :options="withLines.map((craft, i) => ({ value: craft.key, label: lineNames[i]! }))"
          field="differences from"
          inline
          class="no-print"
          @update:model-value="set(keys, String($event))"
        />
        <el-button @click="print">
          Print
        </el-button>
        <el-button @click="markdown">
          Markdown
        </el-button>
        <el-button @click="csv">
          CSV
        </el-button>
      </template>
      <PickOne
        v-if="keys.length < mostCompared"
        v-model="adding"
        :options="offered"
        label="Add a craft"
        placeholder="Add a craft"
        class="no-print adding"
        @update:model-value="add"
      />
    </div>
    <p
      v-if="compare.problem"
      class="note"
      role="alert"
    >
      {{ compare.problem }}
    </p>
    <PageWaits
      v-if="compare.loading && crafts.length === 0 && keys.length > 0"
      words="The crafts are on their way"
    />
    <p
      v-else-if="crafts.length < 2"
      class="panel"
    >
      <el-icon><Plus /></el-icon> Choose two to four crafts to hold against each other: builds, a day of one
      (Record, Any day), another loadout of one (Packs), crafts known only as a whole. On the Shelf they can be ticked.
    </p>
    <CompareStrips
      v-if="crafts.length > 0"
      :crafts="crafts"
      :base-key="base!.key"
      @remove="key => set(keys.filter(one => one !== key))"
    />
    <StripTextures />
    <div
      v-if="crafts.length > 1"
      class="both"
      :class="{ many: crafts.length > 2 }"
    >
      <section
        v-if="comparison"
        class="panel"
        aria-label="Line by line"
      >
        <CompareTable
          :comparison="comparison"
          :names="lineNames"
          :currency="settings.currency"
        />
      </section>
      <section
        class="panel whole"
        aria-label="As a whole"
      >
        <CompareWhole
          :crafts="crafts"
          :currency="settings.currency"
        />
        <p
          v-for="sentence in sentences"
          :key="sentence"
          class="explained"
          data-test="explained"
        >
          {{ sentence }}
        </p>
      </section>
    </div>
  </main>
</template>

<style scoped>
.both {
  display: grid;
  grid-template-columns: minmax(0, 2.3fr) minmax(320px, 1fr);
  gap: 12px;
  align-items: start;
  margin-top: 12px;
}
.both.many {
  grid-template-columns: minmax(0, 1fr);
}
.explained {
  background: var(--paper);
  border-radius: 8px;
  padding: 10px 12px;
  margin: 12px 0 0;
}
.adding {
  width: 210px;
}
@media screen and (max-width: 1100px) {
  .both:not(.many) {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
