<script setup lang="ts">
import { figure, fixed } from '#core/text/display'
import { Bottom, Close, Plus, Top } from '@element-plus/icons-vue'
import { scaleLinear } from 'd3'
import {
  discsOf,
  frameWith,
  layerKinds,
  outlineMm,
  stackOf,
  stackUp,
  suggestStack,
  bareSides,
  boardSides,
  type Layer,
  type Stack,
} from '#core/aircraft/fit'
import { isNotRead, readNumber } from '#core/text/units'
import { measureOf } from '#core/model/properties'
import { layerSchema } from '#core/slices/fit'

const store = useBuildStore()
const problem = ref('')
const lines = computed(() => store.overview?.counted ?? [])
const stack = computed<Stack | null>(() => store.build!.fit?.stack ?? null)
const frame = computed(() => frameWith(lines.value, 'freeHeightMm'))
const discs = computed(() => discsOf(lines.value))
const sized = computed(() => (stack.value ? stackOf(stack.value, lines.value) : null))
const up = computed(() =>
  sized.value
    ? stackUp(sized.value, frame.value ? (measureOf(frame.value, 'freeHeightMm') ?? null) : null, discs.value)
    : null,
)
const chosen = ref<string | null>(null)

function save(layers: readonly Layer[]) {
  store.run({ type: 'fit.set', fields: { stack: { layers } } })
}
function begin() {
  save(suggestStack(lines.value, newId).layers)
}
const layers = computed(() => stack.value?.layers ?? [])
const sizedLayers = computed(() => sized.value?.layers ?? [])
const sizeOf = (layer: Layer, key: 'heightMm' | 'widthMm' | 'lengthMm') =>
  sizedLayers.value.find(one => one.id === layer.id)?.[key] ?? null
const foundWords = (layer: Layer, key: 'heightMm' | 'widthMm' | 'lengthMm') => {
  const size = sizeOf(layer, key)
  return size === null ? '?' : figure(size, 2)
}
function change(layer: Layer, fields: Partial<Layer>) {
  const parsed = layerSchema.safeParse({ ...layer, ...fields })
  problem.value = parsed.success ? '' : parsed.error.issues[0]!.message
  if (parsed.success) save(layers.value.map(one => (one.id === layer.id ? parsed.data : one)))
}
function measure(layer: Layer, key: 'heightMm' | 'widthMm' | 'lengthMm' | 'turnDeg', event: Event) {
  const text = (event.target as HTMLInputElement).value
  if (text.trim() === '' && key !== 'turnDeg') {
    change(layer, { [key]: null })
    return
  }
  const read = readNumber(text)
  if (isNotRead(read)) problem.value = read.problem
  else change(layer, { [key]: read.value })
}
const isUsed = (kind: Layer['kind']) => kind !== 'aerial'
function add(after: number) {
  const layer: Layer = {
    id: newId(),
    name: 'Spacers',
    kind: 'spacer',
    lineId: null,
    heightMm: null,
    widthMm: null,
    lengthMm: null,
    turnDeg: 0,
    bare: 'none',
    port: null,
  }
  save([...layers.value.slice(0, after + 1), layer, ...layers.value.slice(after + 1)])
}
const layerRows = useTemplateRef<HTMLElement>('layerRows')
useReorder(layerRows, {
  handle: '.grip',
  rows: 'tr',
  moved: (from, to) => move(layers.value.length - 1 - from, from - to),
})
function move(at: number, by: number) {
  const next = [...layers.value]
  const [layer] = next.splice(at, 1)
  next.splice(at + by, 0, layer!)
  save(next)
}

const boxed = computed(() => up.value?.placed.filter(p => isUsed(p.layer.kind)) ?? [])
const aerial = computed(() => up.value?.placed.find(p => p.layer.kind === 'aerial') ?? null)
const bodyMm = computed(() => boxed.value.at(-1)?.toMm ?? 10)
const sideWidth = 400
const perMm = computed(() => Math.min(7, 250 / Math.max(bodyMm.value, 1)))
const y = computed(() => scaleLinear([0, bodyMm.value], [bodyMm.value * perMm.value + 44, 44]))
const sideHeight = computed(() => bodyMm.value * perMm.value + 68)
const half = (layer: Layer) => {
  const [w, l] = [layer.widthMm, layer.lengthMm]
  if (w !== null && l !== null)
    return Math.min(110, perMm.value * Math.max(...outlineMm(layer).map(([x]) => Math.abs(x))))
  return layer.kind === 'plate'
    ? 118
    : layer.kind === 'grommet' || layer.kind === 'spacer' || layer.kind === 'screw head'
      ? 10
      : 90
}
const cornered = (kind: Layer['kind']) => kind === 'grommet' || kind === 'spacer' || kind === 'screw head'
const heightWords = (layer: Layer) => (layer.heightMm === null ? '?' : `${figure(layer.heightMm, 2)} mm`)
const labels = computed(() => {
  const wanted = boxed.value.map(p => ({
    id: p.layer.id,
    text: `${p.layer.name} ${heightWords(p.layer)}`,
    at: (y.value(p.fromMm) + y.value(p.toMm)) / 2,
  }))
  for (let i = wanted.length - 2; i >= 0; i--) wanted[i]!.at = Math.max(wanted[i]!.at, wanted[i + 1]!.at + 14)
  return wanted
})
const topSize = 250
const topPerMm = computed(
  () =>
    topSize /
    2 /
    Math.max(
      30,
      ...sizedLayers.value.filter(l => l.kind === 'board').map(l => Math.hypot(l.widthMm ?? 0, l.lengthMm ?? 0) * 0.75),
      discs.value ? Math.abs(discs.value.centresMm[0]![0]) * 0.98 : 0,
    ),
)
/** Seen from above, nose up: forward is up, left is left. */
const seen = ([x, z]: readonly [number, number]) =>
  `${topSize / 2 - z * topPerMm.value},${topSize / 2 - x * topPerMm.value}`
const seenFromAbove = computed(() =>
  sizedLayers.value.filter(l => l.kind === 'board' && l.widthMm !== null && l.lengthMm !== null),
)
const portTurn: Record<NonNullable<Layer['port']>, number> = { front: 0, left: 90, back: 180, right: 270 }
function portPath(layer: Layer): string {
  const turn = ((portTurn[layer.port!] + layer.turnDeg) * Math.PI) / 180
  const reach = (layer.port === 'front' || layer.port === 'back' ? layer.lengthMm! : layer.widthMm!) / 2
  const at = (r: number) => seen([r * Math.cos(turn), r * Math.sin(turn)])
  return `M${at(reach + 9)}L${at(reach + 1)}`
}
const touchingIds = computed(() => new Set(up.value?.touching.flatMap(t => [t.below.id, t.above.id])))
const scaleBarMm = computed(() => (perMm.value * 20 > 150 ? 10 : 20))
</script>

<template>
  <div class="stack">
    <div
      v-if="!stack || layers.length === 0"
      class="empty"
    >
      <p>Nothing stacked yet. Begin with the boards of this build, then set what lies between them.</p><el-button
        type="primary"
        @click="begin"
      >
        Begin with the boards
      </el-button>
    </div>
    <template v-else-if="up">
      <div class="sums">
        <div>
          <small>Between the
            plates</small><b class="figure">{{ up.unknownBetween.length > 0 ? 'at least ' : '' }}{{ figure(up.neededMm, 2) }}
            mm</b>
        </div>
        <div>
          <small>Standoffs</small><b class="figure">{{
            up.standoffMm === null
              ? up.unknownBetween.length > 0
                ? 'not known yet'
                : 'none sold'
              : `${figure(up.standoffMm, 2)} mm`
          }}</b>
        </div>
        <div>
          <small>Free height still allows</small><b
            class="figure"
            :class="up.leftMm !== null && up.leftMm < 0 ? 'word-over' : ''"
          >{{
            up.leftMm === null
              ? 'not known'
              : `${up.unknownBetween.length > 0 && up.leftMm >= 0 ? 'at most ' : ''}${figure(up.leftMm, 2)} mm`
          }}</b>
        </div>
        <div>
          <small>Overall<template v-if="aerial"> with
            aerial</template></small><b class="figure">{{ up.unknown.length > 0 ? 'at least ' : '' }}{{ figure(up.overallMm, 1) }}
            mm</b>
        </div>
      </div>
      <p
        v-if="up.unknown.length > 0"
        class="soft"
        data-test="unknown-heights"
      >
        Nobody has said how high these are: {{ [...new Set(up.unknown.map(layer => layer.name))].join(', ') }}. They
        stand at no height until it is said, here or at the part itself.
      </p>
      <p
        v-for="t in up.touching"
        :key="t.below.id"
        class="problem"
      >
        {{ t.below.name }} and {{ t.above.name }} could touch: {{ figure(t.gapMm, 2) }} mm between bare metal.
      </p>
      <p
        v-for="c in up.crowded"
        :key="c.layer.id"
        class="problem"
      >
        {{ c.layer.name }} is {{ fixed(Math.abs(c.clearanceMm), 1) }} mm {{ c.clearanceMm < 0 ? 'inside' : 'from' }}
        the nearest prop or duct.
      </p>
      <div class="drawings">
        <svg
          :viewBox="`0 0 ${sideWidth} ${sideHeight}`"
          :style="{ width: `${sideWidth}px` }"
          role="img"
          :aria-label="`Side view to scale: ${boxed.map(p => `${p.layer.name} ${heightWords(p.layer)}`).join(', ')}`"
          data-test="side-view"
          :data-per-mm="perMm"
        >
          <text
            x="4"
            y="12"
            class="caption"
          >from the side</text>
          <g
            v-for="p in boxed"
            :key="p.layer.id"
            :class="[p.layer.kind.replace(' ', '-'), { bad: touchingIds.has(p.layer.id), chosen: chosen === p.layer.id }]"
            @click="chosen = p.layer.id"
          >
            <template v-if="cornered(p.layer.kind)"><rect
              v-for="side in [-1, 1]"
              :key="side"
              :x="132 + side * 62 - half(p.layer)"
              :y="y(p.toMm)"
              :width="2 * half(p.layer)"
              :height="Math.max(1, y(p.fromMm) - y(p.toMm))"
              rx="2"
              :data-layer="side < 0 ? p.layer.id : undefined"
            /></template>
            <rect
              v-else-if="p.layer.kind !== 'gap'"
              :x="132 - half(p.layer)"
              :y="y(p.toMm)"
              :width="2 * half(p.layer)"
              :height="Math.max(1, y(p.fromMm) - y(p.toMm))"
              rx="2"
              :data-layer="p.layer.id"
            />
            <line
              v-if="(p.layer.bare === 'above' || p.layer.bare === 'both') && p.layer.kind === 'board'"
              :x1="132 - half(p.layer)"
              :x2="132 + half(p.layer)"
              :y1="y(p.toMm)"
              :y2="y(p.toMm)"
              class="metal"
            /><line
              v-if="(p.layer.bare === 'below' || p.layer.bare === 'both') && p.layer.kind === 'board'"
              :x1="132 - half(p.layer)"
              :x2="132 + half(p.layer)"
              :y1="y(p.fromMm)"
              :y2="y(p.fromMm)"
              class="metal"
            />
          </g>
          <g
            v-for="(label, i) in labels"
            :key="label.id"
            class="label"
          ><path :d="`M256,${(y(boxed[i]!.fromMm) + y(boxed[i]!.toMm)) / 2}L264,${label.at}`" /><text
            x="267"
            :y="label.at + 3.5"
          >{{
            label.text.length > 21
              ? `${boxed[i]!.layer.name.slice(0, 12).trimEnd()}… ${heightWords(boxed[i]!.layer)}`
              : label.text
          }}</text></g>
          <g
            v-if="aerial"
            class="mast"
          ><line
            x1="200"
            x2="200"
            :y1="y(bodyMm)"
            y2="20"
          /><text
            x="206"
            y="28"
          >{{ aerial.layer.name }} + {{ heightWords(aerial.layer) }}</text></g>
          <g
            class="scale-bar"
            :transform="`translate(8,${sideHeight - 8})`"
          ><path :d="`M0,-4V0H${scaleBarMm * perMm}V-4`" /><text
            :x="scaleBarMm * perMm + 6"
            y="2"
          >{{ scaleBarMm }} mm</text></g>
        </svg>
        <svg
          :viewBox="`0 0 ${topSize} ${topSize + 22}`"
          :style="{ width: `${topSize}px` }"
          role="img"
          aria-label="Seen from above, nose up, to scale"
        >
          <g transform="translate(0,20)">
            <text
              x="4"
              y="-8"
              class="caption"
            >from above, nose up</text>
            <clipPath id="stack-top"><rect
              :width="topSize"
              :height="topSize"
              rx="8"
            /></clipPath>
            <g clip-path="url(#stack-top)">
              <rect
                :width="topSize"
                :height="topSize"
                class="ground"
              />
              <template v-if="discs"><circle
                v-for="(c, i) in discs.centresMm"
                :key="i"
                :cx="topSize / 2 - c[1] * topPerMm"
                :cy="topSize / 2 - c[0] * topPerMm"
                :r="discs.radiusMm * topPerMm"
                class="disc"
              /></template>
              <g
                v-for="layer in seenFromAbove"
                :key="layer.id"
                class="board"
                :class="{ chosen: chosen === layer.id }"
              ><polygon
                :points="outlineMm(layer).map(seen).join(' ')"
                @click="chosen = layer.id"
              /><path
                v-if="layer.port"
                :d="portPath(layer)"
                class="port"
                marker-end="url(#port-arrow)"
              /></g>
            </g>
            <path
              :d="`M${topSize / 2},8l-5,9h10z`"
              class="nose"
            />
            <g
              class="scale-bar"
              :transform="`translate(10,${topSize - 10})`"
            ><path :d="`M0,-4V0H${20 * topPerMm}V-4`" /><text
              :x="20 * topPerMm + 6"
              y="2"
            >20 mm</text></g>
            <defs><marker
              id="port-arrow"
              viewBox="0 0 6 6"
              refX="5"
              refY="3"
              markerWidth="6"
              markerHeight="6"
              orient="auto"
            ><path
              d="M0,0L6,3L0,6z"
              class="arrow"
            /></marker></defs>
          </g>
        </svg>
      </div>
      <p
        v-if="problem"
        class="problem"
        role="alert"
      >
        {{ problem }}
      </p>
      <table class="cells layers">
        <colgroup>
          <col><col class="c-kind"><col
            v-for="size in 4"
            :key="size"
            class="c-size"
          ><col class="c-bare"><col class="c-port"><col class="c-acts">
        </colgroup>
        <thead>
          <tr>
            <th>From the top down, mm</th><th>Kind</th><th class="right">
              Height
            </th><th class="right">
              Wide
            </th><th class="right">
              Long
            </th><th class="right">
              Turned, °
            </th><th>Bare metal</th><th>Plug at</th><th />
          </tr>
        </thead>
        <tbody ref="layerRows">
          <tr
            v-for="(layer, i) in [...layers].reverse()"
            :key="layer.id"
            :class="{ chosen: chosen === layer.id }"
            @focusin="chosen = layer.id"
            @keydown.alt.up.prevent="i > 0 && move(layers.length - 1 - i, 1)"
            @keydown.alt.down.prevent="i < layers.length - 1 && move(layers.length - 1 - i, -1)"
          >
            <td>
              <span class="layer-name"><RowGrip /><EditField
                :value="layer.name"
                :aria-label="`Name of layer ${layer.name}`"
                @change="change(layer, { name: ($event.target as HTMLInputElement).value })"
              /></span>
            </td>
            <td>
              <PickOne
                :model-value="layer.kind"
                :label="`Kind of ${layer.name}`"
                :options="layerKinds"
                @update:model-value="change(layer, { kind: $event as Layer['kind'] })"
              />
            </td>
            <td>
              <EditField
                :value="layer.heightMm"
                class="figure short"
                :placeholder="foundWords(layer, 'heightMm')"
                inputmode="decimal"
                :aria-label="`Height of ${layer.name}`"
                @change="measure(layer, 'heightMm', $event)"
              />
            </td>
            <template v-if="layer.kind === 'board'">
              <td>
                <EditField
                  :value="layer.widthMm"
                  class="figure short"
                  :placeholder="foundWords(layer, 'widthMm')"
                  :aria-label="`Width of ${layer.name}`"
                  @change="measure(layer, 'widthMm', $event)"
                />
              </td>
              <td>
                <EditField
                  :value="layer.lengthMm"
                  class="figure short"
                  :placeholder="foundWords(layer, 'lengthMm')"
                  :aria-label="`Length of ${layer.name}`"
                  @change="measure(layer, 'lengthMm', $event)"
                />
              </td>
              <td>
                <EditField
                  :value="layer.turnDeg"
                  class="figure short"
                  :aria-label="`Turn of ${layer.name}`"
                  @change="measure(layer, 'turnDeg', $event)"
                />
              </td>
            </template>
            <td
              v-else
              colspan="3"
            />
            <td>
              <PickOne
                v-if="layer.kind === 'board' || layer.kind === 'plate'"
                :model-value="layer.bare"
                :label="`Bare metal of ${layer.name}`"
                :options="bareSides"
                @update:model-value="change(layer, { bare: $event as Layer['bare'] })"
              />
            </td>
            <td>
              <PickOne
                v-if="layer.kind === 'board'"
                :model-value="layer.port ?? ''"
                :label="`Plug of ${layer.name}`"
                :options="boardSides"
                none="–"
                @update:model-value="change(layer, { port: ($event || null) as Layer['port'] })"
              />
            </td>
            <td class="acts">
              <IconButton
                :icon="Top"
                :disabled="i === 0"
                :label="`${layer.name} one up`"
                @click="move(layers.length - 1 - i, 1)"
              /><IconButton
                :icon="Bottom"
                :disabled="i === layers.length - 1"
                :label="`${layer.name} one down`"
                @click="move(layers.length - 1 - i, -1)"
              /><IconButton
                :icon="Plus"
                :label="`Spacers above ${layer.name}`"
                @click="add(layers.length - 1 - i)"
              /><IconButton
                :icon="Close"
                :label="`Take ${layer.name} out`"
                @click="save(layers.filter(l => l.id !== layer.id))"
              />
            </td>
          </tr>
        </tbody>
      </table>
      <p class="soft">
        Outlines against
        {{ discs ? 'the props or ducts of this build' : 'props: say the frame’s diagonal and the prop’s diameter' }}.
        Carbon plates conduct: boards want at least 1 mm of air or tape between.
      </p>
    </template>
  </div>
</template>

<style scoped>
.layers {
  table-layout: fixed;
}
.c-kind {
  width: 118px;
}
.c-size {
  width: 60px;
}
.c-bare {
  width: 88px;
}
.c-port {
  width: 80px;
}
.c-acts {
  width: 112px;
}
@media screen and (max-width: 760px) {
  .layers,
  .layers tbody {
    display: block;
  }
  .layers thead,
  .layers colgroup {
    display: none;
  }
  .layers tr {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 2px 6px;
    padding: 8px 0;
    border-bottom: 1px solid var(--line);
  }
  .layers td {
    border: 0;
    flex: 1 0 62px;
  }
  .layers td[colspan],
  .layers td:empty {
    display: none;
  }
  .layers td:first-child,
  .layers .acts {
    flex-basis: 100%;
  }
  .layers td:nth-child(2) {
    flex-basis: 130px;
  }
}
.layer-name {
  display: flex;
  align-items: center;
  gap: 4px;
}
.sums {
  display: flex;
  gap: 12px;
  flex-wrap: wrap;
  margin: 8px 0 4px;
}
.sums div {
  background: var(--paper);
  border-radius: 7px;
  padding: 6px 12px;
  min-width: 130px;
}
.sums small {
  display: block;
  color: var(--ink-soft);
}
.sums b {
  font-size: 17px;
}
.drawings {
  display: flex;
  gap: 22px;
  flex-wrap: wrap;
  align-items: flex-end;
  padding: 8px 0;
}
.drawings svg {
  max-width: 100%;
  height: auto;
}
rect {
  stroke: var(--ink-soft);
  stroke-width: 1;
  fill: var(--paper);
}
.plate rect {
  fill: var(--g-frame);
  stroke: none;
}
.board rect {
  fill: var(--g-boards);
  stroke: none;
}
.grommet rect,
.spacer rect {
  fill: var(--g-fixings);
  stroke: none;
}
.screw-head rect {
  fill: var(--ink-soft);
  stroke: none;
}
.ribbon rect {
  fill: var(--g-video);
  fill-opacity: 0.45;
  stroke: none;
}
.chosen rect {
  stroke: var(--plum-text);
  stroke-width: 2;
}
.bad rect {
  fill: var(--over);
}
.metal {
  stroke: var(--brass);
  stroke-width: 2;
}
.label path,
.scale-bar path,
.mast line {
  stroke: var(--ink-soft);
  fill: none;
}
.mast line {
  stroke-width: 2;
  stroke-dasharray: 5 3;
}
text {
  font: 500 11px var(--sans);
  fill: var(--ink);
}
.caption {
  fill: var(--ink-soft);
}
.ground {
  fill: var(--paper);
  stroke: var(--line);
}
.disc {
  fill: var(--free);
  stroke: var(--edge);
}
.board polygon {
  fill: var(--g-boards);
  fill-opacity: 0.35;
  stroke: var(--g-boards);
  stroke-width: 1.5;
}
.board.chosen polygon {
  stroke: var(--plum-text);
  stroke-width: 2.5;
}
.port {
  stroke: var(--ink);
  stroke-width: 2;
}
.arrow {
  fill: var(--ink);
}
.nose {
  fill: var(--plum-text);
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 12.5px;
  margin-top: 6px;
}
th {
  text-align: left;
  font-weight: 500;
  color: var(--ink-soft);
  font-size: 11.5px;
}
th,
td {
  padding: 2px 4px;
  border-bottom: 1px solid var(--line);
}
.right {
  text-align: right;
}
td select {
  padding: 2px 5px;
  font-size: 12.5px;
  border-color: transparent;
  background: transparent;
}
td select:hover,
td select:focus {
  border-color: var(--edge);
  background: var(--card);
}
.short {
  width: 62px;
  text-align: right;
}
tr.chosen td {
  background: var(--selection);
}
.acts {
  white-space: nowrap;
  text-align: right;
}
.empty {
  padding: 30px;
  text-align: center;
}
</style>
