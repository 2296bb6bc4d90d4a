<script setup lang="ts">
import { signed, fixed } from '#core/text/display'
import type { Finding, FitReport, GroundGear, WayOut } from '#core/aircraft/fit'
import { drawAt, feedNodeOf, feedOf, feedsOnOffer, nodesOf, shortName, type ElectricalTree } from '#core/aircraft/wiring'
import type { FitView } from '~/utils/fit-views'
import type { Feed, Line } from '#core/model/ledger'

const props = defineProps<{
  tree: ElectricalTree
  lines: readonly Line[]
  report: FitReport
  nodeId: string | null
  finding: Finding | null
  /** The view it stands beside. */
  view: FitView
}>()
const hints: Record<FitView, string> = {
  power:
    'Drag a device to another output, or select it and press the arrow keys. Fit counts again at once. Props off for ' +
    'every bench test; first power-up through a current limiter.',
  stack:
    'Drag a layer by its grip, or press Alt and an arrow key in its row. Measure heights with a calliper; where a field ' +
    'shows a grey figure it is the part’s own, and “?” is not known. Bare metal wants air or tape between.',
  fixings:
    'A screw that is too long touches the windings of a motor or a cell; one that is too short pulls out. Say what it ' +
    'goes through and how deep the thread is free: the lengths that are safe follow.',
  leads:
    'Measure the way along the arm, not through the air, and leave slack where something moves. Cut a lead short once ' +
    'it is soldered at one end; a lead that is too short wants a splice, which weighs.',
  buy: 'What the builds want and the drawer does not have. Ticked things are bought; they come into the drawer by a kit or a new part.',
}
const emit = defineEmits<{ feed: [lineId: string, feed: Feed]; way: [way: WayOut] }>()
const store = useBuildStore()
const { settings } = storeToRefs(useSettingsStore())
const node = computed(() => nodesOf(props.tree.root).find(n => n.id === props.nodeId) ?? null)
const line = computed(() =>
  node.value?.kind === 'output' ? null : (props.lines.find(l => l.id === node.value?.lineId) ?? null),
)
const feed = computed(() => (line.value ? feedNodeOf(props.tree, line.value.id) : null))
const offers = computed(() => (line.value ? feedsOnOffer(props.lines, line.value) : []))
const offerIndex = computed(() => {
  const now = line.value ? feedOf(line.value, props.lines) : null
  return offers.value.findIndex(o => o.feed.from === now?.from && o.feed.output === now.output)
})
const mine = computed(() =>
  props.finding
    ? [props.finding]
    : props.report.findings.filter(
        f =>
          f.setAside === null &&
          (f.id.endsWith(`:${props.nodeId}`) || (line.value !== null && f.lineIds.includes(line.value.id))),
      ),
)
const share = computed(() => (node.value?.capacityA ? Math.min(1, node.value.demandA / node.value.capacityA) : 0))
const tooMuch = computed(() => node.value?.capacityA != null && node.value.demandA > node.value.capacityA)
const gearLines = computed(() => {
  const gear: GroundGear = settings.value.gear
  return [
    ['Hand controller', gear.radioFamily],
    ['Goggles', [gear.videoFamily, gear.polarisation].filter(t => t).join(', ')],
    [
      'Charger',
      [gear.chargerCells ? `up to ${gear.chargerCells} cells` : '', gear.chargerPlugs].filter(t => t).join(', '),
    ],
  ] as const
})
</script>

<template>
  <div>
    <template v-if="finding">
      <h2>{{ finding.title }}</h2>
      <p>{{ finding.sentence }}</p>
    </template>
    <template v-else-if="node">
      <h2>{{ line ? shortName(line) : node.name }}</h2>
      <p
        v-if="node.kind === 'output'"
        class="soft"
      >
        A regulated output. Everything on it together may draw {{ node.capacityA ?? 'an unknown number of' }} A.
      </p>
      <div
        v-if="node.kind !== 'device' || node.demandA > 0"
        class="value figure"
        :class="{ 'word-over': tooMuch }"
      >
        <small v-if="node.unknownDraws > 0">at least </small>{{ fixed(node.demandA, 2) }}<small>
          {{ node.capacityA === null ? 'A' : `of ${fixed(node.capacityA, 2)} A` }}</small>
      </div>
      <div
        v-if="node.capacityA !== null"
        class="bar"
        aria-hidden="true"
      >
        <i
          :class="{ over: tooMuch }"
          :style="{ width: `${100 * share}%` }"
        />
      </div>
      <dl class="facts">
        <template
          v-for="child in node.children"
          :key="child.id"
        >
          <dt>{{ child.name.split(',')[0] }}</dt><dd>{{ fixed(child.demandA, 2) }} A</dd>
        </template>
        <template v-if="line && feed">
          <dt>Fed by</dt><dd>{{ feed.name.split(',')[0] }}</dd>
        </template>
        <template v-if="line && node.volts">
          <dt>Volts there</dt><dd>
            {{
              node.volts.lowV === node.volts.highV
                ? fixed(node.volts.highV, 1)
                : `${fixed(node.volts.lowV, 1)}–${fixed(node.volts.highV, 1)}`
            }}
            V
          </dd>
        </template>
        <template v-if="line && drawAt(line, node.volts?.lowV ?? 5) === null">
          <dt>Draw</dt><dd>not known</dd>
        </template>
      </dl>
      <PickOne
        v-if="line && feed && feed.kind !== 'supplier' || line?.slot === 'payload'"
        field="Feed"
        :model-value="offerIndex < 0 ? null : offerIndex"
        :label="`Feed of ${line!.name}`"
        :options="offers.map((offer, i) => ({ value: i, label: `${offer.name}, ${offer.volts}` }))"
        placeholder="not known"
        @update:model-value="emit('feed', line!.id, offers[Number($event)]!.feed)"
      />
      <p v-if="line">
        <NuxtLink :to="{ path: `/builds/${store.build!.id}/parts`, query: { line: line.id } }">Its properties in Parts</NuxtLink>
      </p>
    </template>
    <template v-else>
      <h2>How it goes together</h2>
      <p>
        {{ report.clashes === 0 ? 'No clash among what is known.' : report.clashes === 1 ? 'One clash.' : `${report.clashes} clashes.` }}
        Select a row or a box to see its figures and ways out.
      </p>
      <h3>On the ground</h3>
      <dl class="facts">
        <template
          v-for="[what, value] in gearLines"
          :key="what"
        >
          <dt>{{ what }}</dt><dd class="text">
            {{ value || 'not said' }}
          </dd>
        </template>
      </dl>
      <p><NuxtLink to="/settings">Change in Settings</NuxtLink></p>
    </template>
    <template v-if="mine.some(f => f.ways.length > 0)">
      <h3>Ways out</h3>
      <div
        v-for="(way, i) in mine.flatMap(f => f.ways)"
        :key="i"
        class="way"
      >
        <el-button
          v-if="way.move"
          link
          type="primary"
          @click="emit('way', way)"
        >
          {{ way.words }}
        </el-button><span v-else>{{ way.words }}</span>
        <b
          v-if="way.gramsG !== null"
          class="figure"
          :class="{ 'word-over': way.gramsG > 0 }"
        >{{ way.gramsG === 0 ? '±0' : signed(way.gramsG, 1) }} g</b>
      </div>
    </template>
    <p class="note">
      {{ hints[view] }}
    </p>
  </div>
</template>

<style scoped>
.value {
  font-size: 28px;
  line-height: 1;
  letter-spacing: -1px;
  margin: 8px 0 6px;
}
.value small {
  margin-left: 6px;
  font-size: 13px;
  letter-spacing: 0;
  color: var(--ink-soft);
}
.bar {
  height: 8px;
  border-radius: 4px;
  background: var(--free);
  overflow: hidden;
}
.bar i {
  display: block;
  height: 100%;
  background: var(--clear);
}
.bar i.over {
  background: var(--over);
}
.way {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  padding: 5px 0;
  border-top: 1px solid var(--line);
}
.way .is-link {
  text-align: left;
  white-space: normal;
  padding-left: 0;
  font-weight: 500;
}
.way b {
  white-space: nowrap;
}
.text {
  font-family: var(--sans) !important;
  max-width: 150px;
}
.note {
  margin-top: 16px;
}
</style>
