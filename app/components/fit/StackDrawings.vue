<script setup lang="ts">
import { outlineMm, type Discs, type Layer, type StackUp } from '#core/aircraft/fit'
import { figure } from '#core/text/display'
import { scaleLinear } from 'd3'

/** The stack to scale, from the side and from above. */
const { up, layers, discs } = defineProps<{ up: StackUp; layers: readonly Layer[]; discs: Discs | null }>()
const chosen = defineModel<string | null>('chosen', { required: true })

const boxed = computed(() => up.placed.filter(p => p.layer.kind !== 'aerial'))
const aerial = computed(() => up.placed.find(p => p.layer.kind === 'aerial') ?? null)
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
      ...layers.filter(l => l.kind === 'board').map(l => Math.hypot(l.widthMm ?? 0, l.lengthMm ?? 0) * 0.75),
      discs ? Math.abs(discs.centresMm[0]![0]) * 0.98 : 0,
    ),
)
/** Seen from above, nose up: forward is up, left is left. */
const seen = ([x, z]: readonly [number, number]) =>
  `${topSize / 2 - z * topPerMm.value},${topSize / 2 - x * topPerMm.value}`
const seenFromAbove = computed(() =>
  layers.filter(l => l.kind === 'board' && l.widthMm !== null && l.lengthMm !== null),
)
const portTurn: Record<NonNullable<Layer['port']>, number> = { front: 0, left: 90, back: 180, right: 270 }
function portPath(layer: Layer): string {
  const turn = ((portTurn[layer.port!] + layer.turnDeg) * Math.PI) / 180
  const reach = (layer.port === 'front' || layer.port === 'back' ? layer.lengthMm! : layer.widthMm!) / 2
  const at = (r: number) => seen([r * Math.cos(turn), r * Math.sin(turn)])
  return `M${at(reach + 9)}L${at(reach + 1)}`
}
const touchingIds = computed(() => new Set(up.touching.flatMap(t => [t.below.id, t.above.id])))
const scaleBarMm = computed(() => (perMm.value * 20 > 150 ? 10 : 20))
</script>

<template>
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
</template>

<style scoped>
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
</style>
