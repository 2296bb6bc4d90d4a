<script setup lang="ts">
import { FullScreen, ZoomIn, ZoomOut } from '@element-plus/icons-vue'
import { ellipse95, halfReachMm, type Balance, type Piece, type Vec3 } from '#core/aircraft/balance'
import { groupOf } from '#core/model/ledger'
import { fixed } from '#core/text/display'

/** The craft to scale from one side, its nose to the left; pieces are chosen, dragged and nudged in it. */
const props = defineProps<{
  balance: Balance
  from: 'above' | 'side' | 'front'
  selectedKey: string | null
  /** Keys of pieces that are in the way of others. */
  inTheWay: ReadonlySet<string>
  title: string
}>()
const emit = defineEmits<{
  select: [key: string]
  drag: [piece: Piece, atMm: Vec3]
  drop: []
  nudge: [piece: Piece, by: Vec3]
}>()

/** Which coordinates run across and down in the drawing, and which way. */
const frames = {
  above: { across: 0, acrossSign: -1, down: 1, downSign: 1 },
  side: { across: 0, acrossSign: -1, down: 2, downSign: -1 },
  front: { across: 1, acrossSign: 1, down: 2, downSign: -1 },
} as const
const frame = computed(() => frames[props.from])
const flat = (at: Vec3): readonly [number, number] => [
  frame.value.acrossSign * at[frame.value.across],
  frame.value.downSign * at[frame.value.down],
]

interface Drawn {
  piece: Piece
  x: number
  y: number
  width: number
  height: number
  turn: number
  round: boolean
  label: string
}
/** From below to above, or from far to near, so that what is nearer lies on top. */
const drawn = computed((): Drawn[] => {
  const depth = (piece: Piece) => {
    // What turns covers what stands under it, and is seen through: it lies lowest, so that a hand gets at the rest.
    if (props.from === 'above') return piece.shape === 'disc' ? -Infinity : piece.atMm[2]
    return props.from === 'side' ? piece.atMm[1] : piece.atMm[0]
  }
  return [...props.balance.layout.pieces]
    .sort((a, b) => depth(a) - depth(b))
    .map(piece => {
      const [x, y] = flat(piece.atMm)
      const [long, wide, high] = turnedSize(piece)
      const across = props.from === 'front' ? wide : long
      const down = props.from === 'above' ? wide : high
      return {
        piece,
        x,
        y,
        width: across,
        height: down,
        turn: props.from === 'above' && piece.shape === 'box' ? piece.turnDeg : 0,
        round: props.from === 'above' && piece.shape !== 'box',
        label: `${piece.name}: ${placeWords(piece)}`,
      }
    })
})
/** What a piece measures along the axes, turned as it is; from above it is drawn turned instead. */
function turnedSize(piece: Piece): Vec3 {
  if (props.from === 'above') return piece.sizeMm
  const [long, wide, high] = halfReachMm(piece)
  return [2 * long, 2 * wide, 2 * high]
}
function placeWords({ atMm: [x, y, z], isAssumed }: Piece): string {
  return `${fixed(x, 1)} mm forward, ${fixed(y, 1)} left, ${fixed(z, 1)} up${isAssumed ? ', where it usually sits' : ''}`
}

const lookOf = ({ key, isAssumed, shape }: Piece) => [
  'piece',
  { assumed: isAssumed, chosen: key === props.selectedKey, hit: props.inTheWay.has(key), disc: shape === 'disc' },
]

/** All pieces with some air; it does not follow a drag, so that the drawing stands still under the hand. */
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
watch([drawn, () => props.from], () => {
  if (dragged.value === null) box.value = bounds()
})

const bob = computed(() => (props.balance.centre ? flat(props.balance.centre.atMm) : null))
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
function armsOf({ x, y }: Drawn): string[] {
  return props.balance.layout.rotors.map(({ xMm, yMm }) => {
    const long = Math.hypot(xMm, yMm) || 1
    const [beside, ahead] = [(yMm / long) * armMm, (xMm / long) * armMm]
    const [toX, toY] = [x - xMm, y + yMm]
    return `M${x + beside} ${y + ahead}L${toX + beside} ${toY + ahead}L${toX - beside} ${toY - ahead}L${x - beside} ${y - ahead}Z`
  })
}
const bodyMm = computed(() => {
  const { forwardMm, sidewaysMm } = props.balance.layout.arms
  return { long: forwardMm * 0.9, wide: Math.min(20, sidewaysMm * 0.4) }
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
function take(event: PointerEvent, piece: Piece) {
  if (event.button !== 0) return
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
    const piece = props.balance.layout.pieces.find(one => one.key === key)
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
function onKey(event: KeyboardEvent, piece: Piece) {
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
        <g
          v-for="one in drawn"
          :key="one.piece.key"
          :class="lookOf(one.piece)"
          :style="{ color: `var(--g-${groupTone[groupOf(one.piece.slot)].name})` }"
          role="button"
          :tabindex="one.piece.key === tabStop ? 0 : -1"
          :aria-label="one.label"
          :aria-pressed="one.piece.key === selectedKey"
          :data-piece="one.piece.key"
          @pointerdown="take($event, one.piece)"
          @keydown="onKey($event, one.piece)"
        >
          <title>{{ one.label }}</title>
          <template v-if="one.piece.slot === 'frame' && from === 'above'">
            <path
              v-for="(arm, i) in armsOf(one)"
              :key="i"
              class="arms"
              :d="arm"
            />
            <rect
              class="arms"
              :x="one.x - bodyMm.long"
              :y="one.y - bodyMm.wide"
              :width="2 * bodyMm.long"
              :height="2 * bodyMm.wide"
              rx="3"
            />
          </template>
          <ellipse
            v-else-if="one.round"
            :cx="one.x"
            :cy="one.y"
            :rx="one.width / 2"
            :ry="one.height / 2"
          />
          <rect
            v-else
            :x="one.x - one.width / 2"
            :y="one.y - one.height / 2"
            :width="one.width"
            :height="one.height"
            rx="1"
            :transform="one.turn ? `rotate(${one.turn} ${one.x} ${one.y})` : undefined"
          />
          <text
            v-if="one.piece.slot === 'pack'"
            class="name"
            :style="{ fontSize: `${6.5 / at.k}px` }"
            :x="one.x - one.width / 2 + 3"
            :y="one.y - one.height / 2 + 8"
          >{{ one.piece.name }}</text>
        </g>
        <line
          v-if="propPlane !== null"
          class="prop-plane"
          :x1="box.x"
          :x2="box.x + box.width"
          :y1="-propPlane"
          :y2="-propPlane"
        />
        <g
          v-if="bob"
          class="bob"
          aria-hidden="true"
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
        <g
          class="loads"
          aria-hidden="true"
        >
          <text
            v-for="load in loads"
            :key="`${load.x},${load.y}`"
            :style="{ fontSize: `${6 / at.k}px` }"
            :x="load.x"
            :y="load.y - 13"
          >{{ load.words }}</text>
        </g>
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
.piece {
  cursor: grab;
  outline: none;
  touch-action: none;
}
.piece rect,
.piece path,
.piece ellipse {
  fill: currentcolor;
  fill-opacity: 0.55;
  stroke: currentcolor;
  stroke-width: 1;
  vector-effect: non-scaling-stroke;
}
.disc rect,
.disc ellipse {
  fill-opacity: 0.1;
}
.assumed rect,
.assumed path,
.assumed ellipse {
  stroke-dasharray: 3 2;
}
.hit rect,
.hit path,
.hit ellipse {
  stroke: var(--over);
  stroke-width: 2;
  stroke-dasharray: none;
}
.chosen rect,
.chosen path,
.chosen ellipse,
.piece:focus-visible rect,
.piece:focus-visible path,
.piece:focus-visible ellipse {
  stroke: var(--plum-text);
  stroke-width: 2.5;
  stroke-dasharray: none;
}
.piece .arms {
  fill-opacity: 0.4;
}
.name {
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
