<script setup lang="ts">
import { groupOf } from '#core/model/ledger'
import type { Drawn, FrameDrawn } from '~/utils/drawn-pieces'

/** The pieces of a drawing; drawn anew only where something of them changed, never while another one is on its way. */
const { drawn, frame, near, selectedKey, tabKey, inTheWay, away } = defineProps<{
  drawn: readonly Drawn[]
  frame: FrameDrawn | null
  near: number
  selectedKey: string | null
  /** The piece the Tab key comes to. */
  tabKey: string | undefined
  inTheWay: ReadonlySet<string>
  /** Keys of pieces that are on their way, and drawn above all others meanwhile. */
  away: ReadonlySet<string>
}>()
const emit = defineEmits<{ take: [event: PointerEvent, key: string]; press: [event: KeyboardEvent, key: string] }>()
const lookOf = ({ piece: { key, isAssumed, shape } }: Drawn) => [
  'piece',
  { assumed: isAssumed, chosen: key === selectedKey, hit: inTheWay.has(key), disc: shape === 'disc', away: away.has(key) },
]
</script>

<template>
  <g
    v-for="one in drawn"
    :key="one.piece.key"
    v-memo="[one, one.piece.key === selectedKey, one.piece.key === tabKey, inTheWay.has(one.piece.key), away, near, frame]"
    :class="lookOf(one)"
    :transform="`translate(${one.x} ${one.y})`"
    :style="{ color: `var(--g-${groupTone[groupOf(one.piece.slot)].name})` }"
    role="button"
    :tabindex="one.piece.key === tabKey ? 0 : -1"
    :aria-label="one.label"
    :aria-pressed="one.piece.key === selectedKey"
    :data-piece="one.piece.key"
    @pointerdown="emit('take', $event, one.piece.key)"
    @keydown="emit('press', $event, one.piece.key)"
  >
    <title>{{ one.label }}</title>
    <PieceShape
      :one="one"
      :frame="frame"
      :near="near"
    />
  </g>
</template>
