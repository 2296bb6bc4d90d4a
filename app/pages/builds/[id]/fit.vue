<script setup lang="ts">
import { blankFit, type Finding, type Mounting, type WayOut } from '#core/aircraft/fit'
import { electricalTree, nodesOf } from '#core/aircraft/wiring'
import type { Feed } from '#core/model/ledger'

const store = useBuildStore()
const route = useRoute()
const router = useRouter()
const { report } = useFit()
const views = fitViews
const view = computed(() => views.find(([key]) => key === route.query.view)?.[0] ?? 'power')
const nodeId = ref<string | null>(null)
const findingId = ref<string | null>(null)
const finding = computed(() => report.value?.findings.find(f => f.id === findingId.value) ?? null)
/** Everything fitted that any set-up flies: feeds are wired once for all of them. */
const lines = computed(() => {
  const { build, choice } = store
  const pack = choice.packLineId
  return build!.lines.filter(line => line.state === 'fitted' && (line.slot !== 'pack' || line.id === pack))
})
const tree = computed(() => electricalTree(lines.value, lines.value.find(line => line.slot === 'pack') ?? null))
const troubled = computed(
  () =>
    new Set(
      report.value?.findings
        .filter(
          f =>
            f.severity === 'clash' &&
            f.setAside === null &&
            ['feed-volts', 'output-amps', 'capacitor-volts', 'feed-known', 'cells'].includes(f.check),
        )
        .flatMap(f => {
          if (f.check !== 'output-amps') return f.lineIds.filter(id => store.lineOf(id)?.slot !== 'pack')
          const outputId = f.id.slice('output-amps:'.length)
          return [
            outputId,
            ...(nodesOf(tree.value.root)
              .find(n => n.id === outputId)
              ?.children.map(n => n.id) ?? []),
          ]
        }),
    ),
)
const mounting = computed(() => store.build!.fit?.mounting ?? blankFit.mounting)

function feed(lineId: string, to: Feed) {
  if (store.run({ type: 'lines.change', changes: [{ id: lineId, fields: { feed: to } }] })) {
    nodeId.value = lineId
    findingId.value = null
  }
}
function take(way: WayOut) {
  if (way.move) feed(way.move.lineId, way.move.feed)
}
function setAside(of: Finding, why: string) {
  const others = (store.build!.fit ?? blankFit).setAside.filter(s => s.finding !== of.id)
  store.run({ type: 'fit.set', fields: { setAside: why === '\u0000' ? others : [...others, { finding: of.id, why }] } })
}
function select(of: Finding) {
  findingId.value = of.id
  nodeId.value = null
}
function mount(fields: Partial<Mounting>) {
  store.run({ type: 'fit.set', fields: { mounting: { ...mounting.value, ...fields } } })
}
const isEmpty = computed(() => store.build!.lines.length === 0)
const summary = computed(() => (isEmpty.value ? 'nothing to fit yet' : report.value ? fitWords(report.value) : ''))
</script>

<template>
  <div class="station">
    <main class="worksheet">
      <div class="station-head">
        <h1>Fit</h1><span
          class="soft"
          role="status"
        >{{ summary }}</span><span class="gap" />
        <ViewTabs
          :views="views"
          :view="view"
          label="What to look at"
          @show="router.replace({ query: { ...route.query, view: $event } })"
        />
      </div>
      <StationSays page="fit" />
      <div
        v-if="isEmpty"
        class="empty"
      >
        <p>Fit holds the parts against one another: holes, heights, volts, amps, plugs. It needs parts first.</p><NuxtLink
          class="button first"
          :to="`/builds/${store.build!.id}/parts`"
        >Add parts</NuxtLink>
      </div>
      <template v-else-if="view === 'power'">
        <FindingList
          v-if="report"
          :report="report"
          :selected-id="findingId"
          @select="select"
          @way="take"
          @aside="setAside"
        />
        <PowerTree
          :tree="tree"
          :lines="lines"
          :troubled="troubled"
          :selected-id="nodeId"
          @select="nodeId = $event; findingId = null"
          @feed="feed"
        />
        <details class="mounting">
          <summary>How things are mounted</summary>
          <el-checkbox
            :model-value="mounting.motorsUpsideDown"
            @change="mount({ motorsUpsideDown: !mounting.motorsUpsideDown })"
          >
            motors hang under the arms
          </el-checkbox>
          <el-checkbox
            :model-value="mounting.pushedProps"
            @change="mount({ pushedProps: !mounting.pushedProps })"
          >
            props push
          </el-checkbox>
          <el-checkbox
            :model-value="mounting.boardUpsideDown"
            @change="mount({ boardUpsideDown: !mounting.boardUpsideDown })"
          >
            board upside down
          </el-checkbox>
          <PickOne
            class="tick"
            inline
            field="board turned by"
            :model-value="mounting.boardTurnDeg"
            :options="[0, 45, 90, 135, 180, 225, 270, 315].map((deg) => ({ value: deg, label: `${deg}°` }))"
            @update:model-value="mount({ boardTurnDeg: Number($event) })"
          />
        </details>
      </template>
      <StackView v-else-if="view === 'stack'" />
      <FixingsView v-else-if="view === 'fixings'" />
      <WiresView v-else-if="view === 'leads'" />
      <BuyView v-else />
    </main>
    <aside
      class="inspector"
      aria-label="Inspector"
    >
      <FitInspector
        v-if="report"
        :tree="tree"
        :lines="lines"
        :report="report"
        :node-id="nodeId"
        :finding="finding"
        :view="view"
        @feed="feed"
        @way="take"
      />
    </aside>
  </div>
</template>

<style scoped>
.empty {
  padding: 40px;
  text-align: center;
}
.mounting {
  margin-top: 12px;
}
.mounting summary {
  cursor: pointer;
  color: var(--ink-soft);
}
.mounting select {
  margin-left: 6px;
  padding: 2px 6px;
}
</style>
