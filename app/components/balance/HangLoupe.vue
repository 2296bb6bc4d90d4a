<script setup lang="ts">
import { ellipse95, type Balance } from '#core/aircraft/balance'

/** The middle of the motors under a magnifying glass, with the bob in it: nose left. */
const props = defineProps<{ balance: Balance }>()
const clipId = useId()
const centre = computed(() => props.balance.centre!)
const ellipse = computed(() => ellipse95(centre.value))
/** How far the glass reaches, mm: the bob and its doubt are in it. */
const reach = computed(() => {
  const [x, y] = centre.value.atMm
  return [2, 4, 8, 16, 32, 64, 128, 256].find(mm => mm * 0.95 > Math.hypot(x, y) + ellipse.value.longMm) ?? 512
})
const scale = computed(() => 74 / reach.value)
const bob = computed(() => ({ x: -centre.value.atMm[0] * scale.value, y: centre.value.atMm[1] * scale.value }))
</script>

<template>
  <svg
    class="loupe"
    viewBox="-84 -84 178 178"
    aria-hidden="true"
  >
    <line
      class="handle"
      x1="58"
      y1="58"
      x2="86"
      y2="86"
    />
    <circle
      class="glass"
      r="78"
    />
    <circle
      v-for="ring in 4"
      :key="ring"
      class="ring"
      :r="(74 * ring) / 4"
    />
    <path
      class="cross"
      d="M-6 0H6M0 -6V6"
    />
    <clipPath :id="clipId"><circle r="76" /></clipPath>
    <g :clip-path="`url(#${clipId})`">
      <ellipse
        class="doubt"
        :cx="bob.x"
        :cy="bob.y"
        :rx="ellipse.longMm * scale"
        :ry="ellipse.shortMm * scale"
        :transform="`rotate(${-ellipse.turnDeg} ${bob.x} ${bob.y})`"
      />
    </g>
    <text
      class="mm"
      x="0"
      :y="-(74 * 2) / 4 - 2"
    >{{ reach / 2 }} mm</text>
    <text
      class="nose"
      x="-72"
      y="-4"
    >nose</text>
    <circle
      class="bob"
      :cx="bob.x"
      :cy="bob.y"
      r="8"
    />
    <circle
      :cx="bob.x"
      :cy="bob.y"
      r="2.4"
    />
  </svg>
</template>

<style scoped>
.loupe {
  display: block;
  width: 168px;
  flex: none;
  overflow: hidden;
}
.glass {
  fill: var(--card);
  stroke: var(--ink);
  stroke-width: 2.5;
}
.handle {
  stroke: var(--brass);
  stroke-width: 8;
  stroke-linecap: round;
}
.ring {
  fill: none;
  stroke: var(--line);
}
.cross {
  stroke: var(--clear);
  stroke-width: 2;
}
.doubt {
  fill: color-mix(in srgb, var(--brass) 18%, transparent);
  stroke: var(--ink-soft);
  stroke-dasharray: 3 2;
}
.bob {
  fill: var(--brass);
  stroke: var(--ink);
  stroke-width: 1.5;
}
text {
  font: 10px var(--sans);
  fill: var(--ink-soft);
}
.mm {
  text-anchor: middle;
}
circle:last-child {
  fill: var(--ink);
}
</style>
