<script setup lang="ts">
import { clipped } from '#core/text/display'

/** A label to stick on a pack or a bag, drawn in millimetres: what it is, what it weighs, and a code that opens it. */
export interface LabelTold {
  readonly key: string
  readonly name: string
  /** At most three short lines. */
  readonly facts: readonly string[]
  readonly grams: string
  readonly address: string
}
const { label, widthMm, heightMm } = defineProps<{ label: LabelTold; widthMm: number; heightMm: number }>()
const code = computed(() => Math.min(heightMm - 5, 23))
const room = computed(() => widthMm - code.value - 8)
const nameSize = computed(() => Math.min(8, Math.max(3.4, (room.value / Math.max(label.name.length, 2)) * 1.6)))
const within = (text: string, size: number) => clipped(text, Math.floor(room.value / (size * 0.5)))
</script>

<template>
  <svg
    :viewBox="`0 0 ${widthMm} ${heightMm}`"
    class="thing-label"
    :style="{ width: `${widthMm}mm`, height: `${heightMm}mm` }"
    role="img"
    :aria-label="`Label ${label.name}`"
  >
    <rect
      x="0.15"
      y="0.15"
      :width="widthMm - 0.3"
      :height="heightMm - 0.3"
      class="cut"
    />
    <text
      x="3"
      y="9"
      class="name"
      :style="{ fontSize: `${nameSize}px` }"
    >{{ within(label.name, nameSize) }}</text>
    <text
      v-if="label.grams"
      x="3"
      y="15.4"
      class="grams"
    >{{ label.grams }}</text>
    <text
      v-for="(fact, i) in label.facts.slice(0, 3)"
      :key="fact"
      x="3"
      :y="19 + i * 3.2"
      class="fact"
    >{{ within(fact, 2.7) }}</text>
    <QrCode
      :text="label.address"
      :x="widthMm - code - 2.5"
      :y="(heightMm - code) / 2"
      :size="code"
    />
  </svg>
</template>

<style scoped>
.thing-label {
  display: block;
  background: #fff;
  flex: none;
}
.cut {
  fill: #fff;
  stroke: #a3978a;
  stroke-width: 0.2;
  stroke-dasharray: 1 0.8;
}
text {
  fill: #2a2333;
}
.name {
  font-family: var(--serif);
  font-weight: 600;
}
.grams {
  font: 500 4.6px var(--mono);
}
.fact {
  font: 400 2.7px var(--sans);
}
</style>
