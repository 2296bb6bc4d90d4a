<script setup lang="ts">
import type { Drawn, FrameDrawn } from '~/utils/drawn-pieces'

/** One piece about its own middle; a frame from above by its arms and its body. */
const { one, frame, near } = defineProps<{
  one: Drawn
  /** The frame from above, where that is what is drawn. */
  frame: FrameDrawn | null
  /** How many times nearer than the whole. */
  near: number
}>()
</script>

<template>
  <template v-if="one.piece.slot === 'frame' && frame">
    <path
      class="arms"
      :d="frame.arms"
    />
    <rect
      class="arms"
      :x="-frame.long"
      :y="-frame.wide"
      :width="2 * frame.long"
      :height="2 * frame.wide"
      rx="3"
    />
  </template>
  <ellipse
    v-else-if="one.round"
    :rx="one.width / 2"
    :ry="one.height / 2"
  />
  <rect
    v-else
    :x="-one.width / 2"
    :y="-one.height / 2"
    :width="one.width"
    :height="one.height"
    rx="1"
    :transform="one.turn ? `rotate(${one.turn})` : undefined"
  />
  <text
    v-if="one.piece.slot === 'pack'"
    class="name"
    :style="{ fontSize: `${6.5 / near}px` }"
    :x="3 - one.width / 2"
    :y="8 - one.height / 2"
  >
    {{ one.piece.name }}
  </text>
</template>
