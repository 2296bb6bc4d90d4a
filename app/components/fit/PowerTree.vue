<script setup lang="ts">
import { clipped, fixed, figure } from '#core/text/display'
import { drag, hierarchy, select, tree as treeLayout, type D3DragEvent, type HierarchyPointNode } from 'd3'
import { feedOf, feedsOnOffer, shortName, type ElectricalTree, type PowerNode } from '#core/aircraft/wiring'
import type { Feed, Line } from '#core/model/ledger'
import { measureOf, outputsOf } from '#core/model/properties'

const props = defineProps<{
  tree: ElectricalTree
  lines: readonly Line[]
  troubled: ReadonlySet<string>
  selectedId: string | null
}>()
const emit = defineEmits<{ select: [nodeId: string]; feed: [lineId: string, feed: Feed] }>()
const box = useTemplateRef<HTMLDivElement>('box')
const { width: measured } = useElementSize(box)
const said = ref('')
const over = ref<string | null>(null)
const dragged = ref<{ id: string; x: number; y: number } | null>(null)

const nodeHeight = 40
const rowStep = 47

/** A unit that feeds one thing through one output of its own is drawn with that thing right behind it. */
function drawn(node: PowerNode): PowerNode {
  const children = node.children
    .flatMap(child => {
      const only =
        child.kind === 'output' && child.children.length === 1 && node.kind === 'supplier' && node.children.length === 1
      return only ? child.children : [child]
    })
    .filter(child => child.kind !== 'output' || child.children.length > 0 || child.capacityA !== null)
  return { ...node, children: children.map(drawn) }
}
const layout = computed(() => {
  const root = hierarchy(drawn(props.tree.root), node => node.children as PowerNode[])
  const columns = root.height + 1
  const width = Math.max(measured.value || 760, 560)
  const nodeWidth = Math.min(152, (width - 26 * (columns - 1) - 6) / columns)
  const step = columns > 1 ? (width - nodeWidth - 6) / (columns - 1) : 0
  const placed = treeLayout<PowerNode>()
    .nodeSize([rowStep, step])
    .separation(() => 1)(root)
  const nodes = placed.descendants()
  const top = Math.min(...nodes.map(n => n.x))
  const bottom = Math.max(...nodes.map(n => n.x))
  return {
    nodes,
    links: placed.links(),
    width,
    nodeWidth,
    height: bottom - top + nodeHeight + 8,
    left: (n: HierarchyPointNode<PowerNode>) => n.y + 3,
    top: (n: HierarchyPointNode<PowerNode>) => n.x - top + 4,
  }
})
const lineOf = (id: string | null) => props.lines.find(line => line.id === id)
const amps = (value: number) => fixed(value, 2)
/** What is asked for where some draws are not known is at least this. */
const asked = (node: PowerNode) => `${node.unknownDraws > 0 && node.demandA > 0 ? '≥ ' : ''}${amps(node.demandA)}`
const volts = (node: PowerNode) =>
  node.volts === null
    ? ''
    : node.volts.lowV === node.volts.highV
      ? `${figure(node.volts.highV, 2)} V`
      : `${fixed(node.volts.lowV, 1)}–${fixed(node.volts.highV, 1)} V`

function title(node: PowerNode): string {
  const line = lineOf(node.lineId)
  return node.kind === 'output' || node.kind === 'pack' || node.kind === 'balance' || !line
    ? node.name
    : shortName(line)
}
const boundOf = (value: number | undefined) => (value === undefined ? '?' : figure(value, 2))
function detail(node: PowerNode): string {
  const line = lineOf(node.lineId)
  if (node.kind === 'output')
    return node.capacityA === null ? `${asked(node)} A asked` : `${asked(node)} of ${amps(node.capacityA)} A`
  if (node.kind === 'pack' || node.kind === 'balance') return volts(node)
  if (line?.slot === 'capacitor')
    return measureOf(line, 'ratedV') === undefined ? 'rating not known' : `rated ${measureOf(line, 'ratedV')} V`
  const [fewest, most] = line ? [measureOf(line, 'cellsMin'), measureOf(line, 'cellsMax')] : []
  if (most !== undefined) return `takes ${fewest ?? 1}–${most} cells`
  const [low, high] = line ? [measureOf(line, 'voltsMin'), measureOf(line, 'voltsMax')] : []
  return [
    low === undefined && high === undefined ? '' : `${boundOf(low)}–${boundOf(high)} V`,
    node.unknownDraws > 0 && node.demandA === 0 ? 'draw ?' : `${asked(node)} A`,
  ]
    .filter(t => t)
    .join(' · ')
}
/** On a narrow screen the tree is an outline; what feeds a device is chosen beside it. */
const isPhone = useMediaQuery('(max-width: 760px)')
const outline = computed(() => {
  const nodes: HierarchyPointNode<PowerNode>[] = []
  layout.value.nodes[0]?.eachBefore(node => nodes.push(node))
  return nodes
})
const letters = computed(() => Math.floor((layout.value.nodeWidth - 12) / 6.4))
const isTroubled = (node: PowerNode) =>
  props.troubled.has(node.id) || (node.lineId !== null && node.kind !== 'output' && props.troubled.has(node.lineId))
const spoken = (node: PowerNode): string =>
  `${title(node)}, ${detail(node)}` +
  (isTroubled(node) ? ', clash' : '') +
  (movable(node) ? '. Arrow keys change its feed.' : '')
const movable = (node: PowerNode) =>
  node.lineId !== null &&
  node.kind !== 'output' &&
  !['board', 'speed controller', 'power distribution', 'capacitor'].includes(lineOf(node.lineId)?.slot ?? 'board')

const elbow = ({
  source,
  target,
}: {
  source: HierarchyPointNode<PowerNode>
  target: HierarchyPointNode<PowerNode>
}) => {
  const { left, top, nodeWidth } = layout.value
  const [x1, y1, x2, y2] = [
    left(source) + nodeWidth,
    top(source) + nodeHeight / 2,
    left(target),
    top(target) + nodeHeight / 2,
  ]
  const middle = x1 + (x2 - x1) / 2
  return `M${x1},${y1}H${middle}V${y2}H${x2}`
}

/** Up and down go through the feeds on offer; what is chosen is counted at once. */
function move(line: Line, by: number) {
  const offers = feedsOnOffer(props.lines, line)
  const now = feedOf(line, props.lines)
  const at = offers.findIndex(o => o.feed.from === now?.from && o.feed.output === now.output)
  const next = offers[(at + by + offers.length) % offers.length]
  if (!next) return
  said.value = `${shortName(line)} is now on ${next.name}.`
  emit('feed', line.id, next.feed)
}
function onKey(event: KeyboardEvent, node: PowerNode) {
  const line = lineOf(node.lineId)
  if (event.key === 'Enter' || event.key === ' ') emit('select', node.id)
  else if (line && movable(node) && (event.key === 'ArrowUp' || event.key === 'ArrowDown'))
    move(line, event.key === 'ArrowUp' ? -1 : 1)
  else return
  event.preventDefault()
  event.stopPropagation()
}

/** Devices are dragged onto an output, the pack or a unit with outputs of its own. */
const svg = useTemplateRef<SVGSVGElement>('svg')
function placeUnder(x: number, y: number, except: string): HierarchyPointNode<PowerNode> | undefined {
  const { nodes, left, top, nodeWidth } = layout.value
  return nodes.find(
    n =>
      n.data.id !== except &&
      (n.data.kind === 'output' || n.data.kind === 'pack' || n.data.kind === 'balance') &&
      x >= left(n) &&
      x <= left(n) + nodeWidth &&
      y >= top(n) &&
      y <= top(n) + nodeHeight,
  )
}
const feedAt = (node: PowerNode): Feed =>
  node.kind === 'output'
    ? {
        from: node.lineId!,
        output: outputsOf(lineOf(node.lineId)!).find(o => node.id === `${node.lineId}/${o.name}`)!.name,
      }
    : { from: node.id, output: '' }
watch(
  [svg, layout],
  async () => {
    await nextTick()
    if (!svg.value) return
    select(svg.value)
      .selectAll<SVGGElement, unknown>('g.movable')
      .call(
        drag<SVGGElement, unknown>()
          .clickDistance(5)
          .container(() => svg.value!)
          .on('drag', function (event: D3DragEvent<SVGGElement, unknown, unknown>) {
            dragged.value = { id: this.dataset.node!, x: event.x, y: event.y }
            over.value = placeUnder(event.x, event.y, this.dataset.node!)?.data.id ?? null
          })
          .on('end', function (event: D3DragEvent<SVGGElement, unknown, unknown>) {
            const target = dragged.value ? placeUnder(event.x, event.y, this.dataset.node!) : undefined
            dragged.value = null
            over.value = null
            if (target) emit('feed', this.dataset.line!, feedAt(target.data))
          }),
      )
  },
  { immediate: true, flush: 'post' },
)
const shift = (node: HierarchyPointNode<PowerNode>) => {
  const { left, top, nodeWidth } = layout.value
  return dragged.value?.id === node.data.id
    ? `translate(${dragged.value.x - nodeWidth / 2},${dragged.value.y - nodeHeight / 2})`
    : `translate(${left(node)},${top(node)})`
}
</script>

<template>
  <div
    ref="box"
    class="power"
  >
    <ul
      v-if="isPhone"
      class="outline"
    >
      <li
        v-for="node in outline"
        :key="node.data.id"
        :style="{ paddingLeft: `${node.depth * 16}px` }"
      >
        <el-button
          text
          :class="{ troubled: isTroubled(node.data), selected: node.data.id === selectedId }"
          :aria-pressed="node.data.id === selectedId"
          @click="emit('select', node.data.id)"
        >
          <b>{{ title(node.data) }}</b> <span class="soft">{{ detail(node.data) }}</span>
        </el-button>
      </li>
    </ul>
    <svg
      v-else
      ref="svg"
      :width="layout.width"
      :height="layout.height"
      role="group"
      aria-label="How the pack’s power reaches each device"
    >
      <path
        v-for="link in layout.links"
        :key="link.target.data.id"
        :d="elbow(link)"
        class="link"
        :class="{ main: link.source.data.kind === 'pack', bad: isTroubled(link.target.data) && isTroubled(link.source.data) }"
      />
      <g
        v-for="node in layout.nodes"
        :key="node.data.id"
        :transform="shift(node)"
        class="node"
        :class="[
          node.data.kind,
          {
            movable: movable(node.data),
            bad: isTroubled(node.data),
            selected: selectedId === node.data.id,
            over: over === node.data.id,
            dragged: dragged?.id === node.data.id,
          },
        ]"
        :data-node="node.data.id"
        :data-line="node.data.lineId"
        tabindex="0"
        role="button"
        :aria-label="spoken(node.data)"
        @click="emit('select', node.data.id)"
        @keydown="onKey($event, node.data)"
      >
        <rect
          :width="layout.nodeWidth"
          :height="nodeHeight"
          rx="6"
        />
        <text
          class="name"
          x="8"
          y="16"
        >{{ clipped(title(node.data), letters) }}</text>
        <text
          class="detail"
          x="8"
          y="31"
        >{{ clipped(detail(node.data), letters) }}</text>
        <title>{{ node.data.name }}</title>
      </g>
    </svg>
    <p
      class="visually-hidden"
      role="status"
    >
      {{ said }}
    </p>
    <div
      v-if="tree.unwired.length > 0"
      class="loose"
    >
      <span class="soft">Not on any feed yet:</span>
      <PickOne
        v-for="line in tree.unwired"
        :key="line.id"
        inline
        :field="shortName(line)"
        :label="`Feed of ${line.name}`"
        :options="feedsOnOffer(lines, line).map((offer, i) => ({ value: i, label: `${offer.name}, ${offer.volts}` }))"
        placeholder="choose"
        @update:model-value="emit('feed', line.id, feedsOnOffer(lines, line)[Number($event)]!.feed)"
      />
    </div>
  </div>
</template>

<style scoped>
.power {
  margin-top: 14px;
}
.outline {
  list-style: none;
  margin: 0;
  padding: 0;
}
.outline li {
  border-bottom: 1px solid var(--line);
}
.outline .el-button {
  width: 100%;
  min-height: 44px;
  height: auto;
  justify-content: flex-start;
  text-align: left;
  white-space: normal;
  line-height: 1.35;
}
.outline .el-button :deep(> span) {
  display: block;
}
.outline .selected {
  background: var(--selection);
}
.outline .troubled b {
  color: var(--over);
}
svg {
  display: block;
  touch-action: none;
}
.link {
  fill: none;
  stroke: var(--ink-soft);
  stroke-width: 1.3;
}
.link.main {
  stroke: var(--plum-text);
  stroke-width: 3;
}
.link.bad {
  stroke: var(--over);
  stroke-width: 2.2;
}
rect {
  fill: var(--card);
  stroke: var(--edge);
  stroke-width: 1.2;
}
.node {
  cursor: pointer;
  outline: none;
}
.node.movable {
  cursor: grab;
}
.node.pack rect {
  fill: var(--selection);
  stroke: var(--plum-text);
}
.node.output rect {
  fill: var(--paper);
}
.node.bad rect {
  fill: var(--beyond);
  stroke: var(--over);
  stroke-width: 1.8;
}
.node.selected rect,
.node:focus-visible rect {
  stroke: var(--plum-text);
  stroke-width: 2.6;
}
.node.over rect {
  fill: var(--selection);
  stroke-dasharray: 4 3;
  stroke: var(--plum-text);
}
.dragged {
  opacity: 0.8;
  pointer-events: none;
}
.name {
  font: 600 12px var(--sans);
  fill: var(--ink);
}
.detail {
  font: 500 10.5px var(--mono);
  fill: var(--ink-soft);
}
.bad .detail {
  fill: var(--ink);
}
text {
  pointer-events: none;
}
.loose {
  display: flex;
  gap: 14px;
  flex-wrap: wrap;
  margin-top: 10px;
  align-items: center;
}
.loose select {
  font-size: 12.5px;
  padding: 2px 6px;
}
</style>
