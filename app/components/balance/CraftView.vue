<script setup lang="ts">
import { FullScreen, ZoomIn, ZoomOut } from '@element-plus/icons-vue'
import { ellipse95, type Balance, type Piece, type Vec3 } from '#core/aircraft/balance'
import { groupOf } from '#core/model/ledger'
import { fixed } from '#core/text/display'
import type { Drawn, DrawnFrom, FrameDrawn } from '~/utils/drawn-pieces'

/**
 * The craft to scale from one side, its nose to the left; pieces are chosen, dragged and nudged in it. What is on its
 * way is drawn on a sheet of its own above the others, which rest meanwhile.
 */
const props = defineProps<{
  balance: Balance
  from: DrawnFrom
  selectedKey: string | null
  /** Keys of pieces that are in the way of others. */
  inTheWay: ReadonlySet<string>
  /** Keys of pieces on their way: no drawing is fitted anew under them. */
  moving: ReadonlySet<string>
  title: string
}>()
const emit = defineEmits<{
  select: [key: string]
  drag: [piece: Piece, atMm: Vec3]
  drop: []
  nudge: [piece: Piece, by: Vec3]
}>()
const frame = computed(() => drawnFrames[props.from])

/** As each piece was drawn when it rested last. */
const rested = new Map<string, Drawn>()
function restOf(piece: Piece): Drawn {
  const last = rested.get(piece.key)
  if (last && (props.moving.has(piece.key) || isDrawnAlike(last.piece, piece))) return last
  const now = drawnFrom(props.from, piece)
  rested.set(piece.key, now)
  return now
}
/** From below to above, or from far to near; the same list as long as nothing but what is on its way has changed. */
const drawn = computed((before?: readonly Drawn[]) => {
  const { from } = props
  const now = props.balance.layout.pieces.map(restOf)
  return sameList(before, now.sort((a, b) => drawnDepth(from, a.piece) - drawnDepth(from, b.piece)))
})
/** What is on its way, where it is now. */
const onTheWay = computed(() =>
  props.moving.size === 0
    ? []
    : props.balance.layout.pieces
        .filter(({ key }) => props.moving.has(key))
        .map(piece => drawnFrom(props.from, piece)),
)

/** All pieces with some air; it does not follow a drag, so that the drawings stand still under the hand. */
const dragged = ref<string | null>(null)
function bounds() {
  const sides = drawn.value.flatMap(({ x, y, width, height }) => [
    [x - width / 2, y - height / 2],
    [x + width / 2, y + height / 2],
  ])
  const [xs, ys] = [sides.map(([x]) => x!), sides.map(([, y]) => y!)]
  const reach = Math.max(50, ...xs.map(Math.abs)) + 6
  const [top, bottom] = [Math.min(-12, ...ys) - 6, Math.max(12, ...ys) + 6]
  return { x: -reach, y: top, width: 2 * reach, height: bottom - top }
}
const box = shallowRef(bounds())
watch([drawn, () => props.moving.size], ([, moves]) => {
  if (dragged.value === null && moves === 0) box.value = bounds()
})

const bob = computed(() => (props.balance.centre ? flatFrom(props.from, props.balance.centre.atMm) : null))
const ellipse = computed(() => (props.from === 'above' && props.balance.centre ? ellipse95(props.balance.centre) : null))
const propPlane = computed(() => (props.from === 'above' ? null : props.balance.layout.propPlaneMm))
const loads = computed(() => {
  const { hover, layout } = props.balance
  return props.from !== 'above' || !hover || 'problem' in hover
    ? []
    : layout.rotors.map(({ xMm, yMm }, i) => ({ x: -xMm, y: yMm, words: `${fixed(hover.loadsG[i]!, 1)} g` }))
})

/** A frame from above: its arms out to the motors, and a body along the middle. */
const armMm = 4
const arms = computed(() =>
  props.balance.layout.rotors
    .map(({ xMm, yMm }) => {
      const long = Math.hypot(xMm, yMm) || 1
      const [beside, ahead] = [(yMm / long) * armMm, (xMm / long) * armMm]
      return `M${beside} ${ahead}L${beside - xMm} ${yMm + ahead}L${-beside - xMm} ${yMm - ahead}L${-beside} ${-ahead}Z`
    })
    .join(''),
)
const frameDrawn = computed((before?: FrameDrawn | null): FrameDrawn | null => {
  const { forwardMm, sidewaysMm } = props.balance.layout.arms
  if (props.from !== 'above') return null
  const now = { arms: arms.value, long: forwardMm * 0.9, wide: Math.min(20, sidewaysMm * 0.4) }
  return before?.arms === now.arms && before.long === now.long && before.wide === now.wide ? before : now
})

const svg = useTemplateRef<SVGSVGElement>('svg')
/** A point of the screen in the drawing, mm. */
function toDrawing(event: PointerEvent): readonly [number, number] {
  const matrix = svg.value!.getScreenCTM()!.inverse()
  const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix)
  return at.value.invert([point.x, point.y])
}
/** The frame lies under everything: it is chosen before it can be moved, so that a hand on it moves the drawing. */
const isGround = ({ slot, key }: Piece) => slot === 'frame' && key !== props.selectedKey
let held: { piece: Piece; fromX: number; fromY: number } | null = null
const pieceOf = (key: string) => props.balance.layout.pieces.find(piece => piece.key === key)
function take(event: PointerEvent, key: string) {
  const piece = pieceOf(key)
  if (event.button !== 0 || !piece) return
  emit('select', piece.key)
  if (isGround(piece)) return
  const [x, y] = toDrawing(event)
  held = { piece, fromX: x, fromY: y }
  svg.value!.setPointerCapture(event.pointerId)
}
function move(event: PointerEvent) {
  if (!held) return
  const [x, y] = toDrawing(event)
  const [across, down] = [x - held.fromX, y - held.fromY]
  if (dragged.value === null && Math.hypot(across, down) < 0.8) return
  dragged.value = held.piece.key
  emit('drag', held.piece, withMoved(held.piece.atMm, across, down))
}
function withMoved(at: Vec3, across: number, down: number): Vec3 {
  const next: [number, number, number] = [...at]
  next[frame.value.across] += frame.value.acrossSign * across
  next[frame.value.down] += frame.value.downSign * down
  return next
}
function letGo() {
  if (dragged.value !== null) emit('drop')
  held = null
  dragged.value = null
  box.value = bounds()
}
const { at, bar, nearer, farther, whole } = useDrawingZoom(
  svg,
  box,
  target => {
    const key = target.closest<SVGGElement>('[data-piece]')?.dataset.piece
    const piece = key === undefined ? undefined : pieceOf(key)
    return piece !== undefined && !isGround(piece)
  },
  letGo,
)
const steps: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}
function onKey(event: KeyboardEvent, key: string) {
  const piece = pieceOf(key)
  if (!piece) return
  const step = steps[event.key]
  if (step && !event.ctrlKey && !event.metaKey && !event.altKey) {
    const mm = event.shiftKey ? 5 : 0.5
    emit('nudge', piece, withMoved([0, 0, 0], step[0] * mm, step[1] * mm))
  } else if (event.key === 'PageDown' || event.key === 'PageUp') {
    const list = props.balance.layout.pieces
    const at = list.findIndex(one => one.key === piece.key)
    const next = list[(at + (event.key === 'PageDown' ? 1 : list.length - 1)) % list.length]!
    emit('select', next.key)
    void nextTick(() => svg.value?.querySelector<SVGGElement>(`[data-piece="${CSS.escape(next.key)}"]`)?.focus())
  } else if (event.key === 'Enter' || event.key === ' ') emit('select', piece.key)
  else if (event.key === '+') nearer()
  else if (event.key === '-') farther()
  else return
  event.preventDefault()
  event.stopPropagation()
}
const tabStop = computed(
  () =>
    props.balance.layout.pieces.find(piece => piece.key === props.selectedKey)?.key ??
    props.balance.pack?.key ??
    props.balance.layout.pieces[0]?.key,
)
</script>

<template>
  <div class="view">
    <svg
      ref="svg"
      :class="['craft', { near: at.k > 1 }]"
      role="group"
      :aria-label="title"
      :viewBox="`${box.x} ${box.y} ${box.width} ${box.height}`"
      preserveAspectRatio="xMidYMid meet"
      @pointermove="move"
      @pointerup="letGo"
      @pointercancel="letGo"
    >
      <g :transform="at.toString()">
        <line
          class="middle"
          :x1="box.x"
          :x2="box.x + box.width"
          y1="0"
          y2="0"
        />
        <line
          class="middle"
          x1="0"
          x2="0"
          :y1="box.y"
          :y2="box.y + box.height"
        />
        <CraftPieces
          :drawn="drawn"
          :frame="frameDrawn"
          :near="at.k"
          :selected-key="selectedKey"
          :tab-key="tabStop"
          :in-the-way="inTheWay"
          :away="moving"
          @take="take"
          @press="onKey"
        />
        <line
          v-if="propPlane !== null"
          class="prop-plane"
          :x1="box.x"
          :x2="box.x + box.width"
          :y1="-propPlane"
          :y2="-propPlane"
        />
      </g>
      <g
        class="bar"
        aria-hidden="true"
        :transform="`translate(${box.x + 4} ${box.y + box.height - 3})`"
      >
        <path :d="`M0 -2V0H${bar.drawn}V-2`" />
        <text :x="bar.drawn + 2">{{ bar.mm }} mm</text>
      </g>
    </svg>
    <svg
      class="over"
      aria-hidden="true"
      :viewBox="`${box.x} ${box.y} ${box.width} ${box.height}`"
      preserveAspectRatio="xMidYMid meet"
    >
      <g :transform="at.toString()">
        <g
          v-for="one in onTheWay"
          :key="one.piece.key"
          :class="['piece chosen', { hit: inTheWay.has(one.piece.key), disc: one.piece.shape === 'disc' }]"
          :transform="`translate(${one.x} ${one.y})`"
          :style="{ color: `var(--g-${groupTone[groupOf(one.piece.slot)].name})` }"
        >
          <PieceShape
            :one="one"
            :frame="frameDrawn"
            :near="at.k"
          />
        </g>
        <g
          v-if="bob"
          class="bob"
        >
          <ellipse
            v-if="ellipse"
            class="doubt"
            :cx="bob[0]"
            :cy="bob[1]"
            :rx="ellipse.longMm"
            :ry="ellipse.shortMm"
            :transform="`rotate(${-ellipse.turnDeg} ${bob[0]} ${bob[1]})`"
          />
          <circle
            :cx="bob[0]"
            :cy="bob[1]"
            r="2.6"
          />
          <circle
            class="eye"
            :cx="bob[0]"
            :cy="bob[1]"
            r="0.8"
          />
        </g>
        <g class="loads">
          <text
            v-for="load in loads"
            :key="`${load.x},${load.y}`"
            :style="{ fontSize: `${6 / at.k}px` }"
            :x="load.x"
            :y="load.y - 13"
          >{{ load.words }}</text>
        </g>
      </g>
    </svg>
    <div class="nearer no-print">
      <IconButton
        :icon="ZoomIn"
        :label="`${title}: come nearer`"
        @click="nearer"
      />
      <IconButton
        v-if="at.k > 1"
        :icon="ZoomOut"
        :label="`${title}: go farther away`"
        @click="farther"
      />
      <IconButton
        v-if="at.k > 1"
        :icon="FullScreen"
        :label="`${title}: show all of it`"
        @click="whole"
      />
    </div>
  </div>
</template>

<style scoped>
.view {
  position: relative;
  overflow: hidden;
  contain: content;
}
.nearer {
  position: absolute;
  top: 0;
  right: 0;
  display: grid;
  gap: 2px;
  justify-items: end;
}
.nearer :deep(.el-button) {
  margin: 0;
  font-size: 17px;
}
.bar {
  pointer-events: none;
}
.bar path {
  fill: none;
  stroke: var(--ink-soft);
  stroke-width: 1.2;
  vector-effect: non-scaling-stroke;
}
.bar text {
  font: 500 5px var(--mono);
  fill: var(--ink-soft);
}
/* Its own layer, so that the resting drawing below is not painted anew with it. */
.over {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
  will-change: transform;
}
.craft.near {
  touch-action: none;
}
.craft {
  display: block;
  width: 100%;
  height: 100%;
  touch-action: pan-y;
}
.middle {
  stroke: var(--edge);
  stroke-width: 1;
  stroke-dasharray: 2 4;
  vector-effect: non-scaling-stroke;
}
.view :deep(.piece) {
  cursor: grab;
  outline: none;
  touch-action: none;
}
.view :deep(.piece) rect,
.view :deep(.piece) path,
.view :deep(.piece) ellipse {
  fill: currentcolor;
  fill-opacity: 0.55;
  stroke: currentcolor;
  stroke-width: 1;
  vector-effect: non-scaling-stroke;
}
.view :deep(.disc) rect,
.view :deep(.disc) ellipse {
  fill-opacity: 0.1;
}
.view :deep(.assumed) rect,
.view :deep(.assumed) path,
.view :deep(.assumed) ellipse {
  stroke-dasharray: 3 2;
}
.view :deep(.hit) rect,
.view :deep(.hit) path,
.view :deep(.hit) ellipse {
  stroke: var(--over);
  stroke-width: 2;
  stroke-dasharray: none;
}
.view :deep(.chosen) rect,
.view :deep(.chosen) path,
.view :deep(.chosen) ellipse,
.view :deep(.piece:focus-visible) rect,
.view :deep(.piece:focus-visible) path,
.view :deep(.piece:focus-visible) ellipse {
  stroke: var(--plum-text);
  stroke-width: 2.5;
  stroke-dasharray: none;
}
.view :deep(.piece) .arms {
  fill-opacity: 0.4;
}
/* Drawn above, where it is now. */
.view :deep(.away) {
  opacity: 0;
}
.view :deep(.name) {
  font: 600 6.5px var(--sans);
  fill: var(--ink);
  pointer-events: none;
}
.prop-plane {
  stroke: var(--over);
  stroke-width: 1;
  stroke-dasharray: 8 3 2 3;
  vector-effect: non-scaling-stroke;
  pointer-events: none;
}
.bob {
  pointer-events: none;
}
.bob circle {
  fill: var(--brass);
  stroke: var(--ink);
  stroke-width: 1.2;
  vector-effect: non-scaling-stroke;
}
.bob .eye {
  fill: var(--ink);
  stroke: none;
}
.doubt {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1;
  stroke-dasharray: 3 2;
  vector-effect: non-scaling-stroke;
}
.loads text {
  font: 600 6px var(--mono);
  fill: var(--ink);
  text-anchor: middle;
  pointer-events: none;
}
</style>
