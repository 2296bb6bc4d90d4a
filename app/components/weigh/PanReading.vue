<script setup lang="ts">
import { fixed } from '#core/text/display'
import type { WeighRun } from '~/composables/useWeighRun'

const props = defineProps<{ run: WeighRun }>()
const bench = useBenchScale()
const scales = useScalesStore()
const line = computed(() => props.run.line.value!)
const decimals = computed(() => Math.max(0, Math.min(3, Math.round(-Math.log10(scales.current?.resolutionG ?? 0.01)))))
const last = computed(() => bench.readings.value.at(-1) ?? null)
const figure = computed(() => {
  const hand = props.run.typed.value.trim() !== '' ? props.run.display.value.massG : null
  if (hand !== null) return fixed(hand, decimals.value)
  if (last.value?.overload) return 'over'
  return last.value?.massG === null || last.value === null
    ? '–'
    : fixed(last.value.massG, decimals.value)
})
const shownG = computed(() => {
  if (props.run.typed.value.trim() !== '') return props.run.display.value.massG
  return last.value?.overload ? null : (last.value?.massG ?? null)
})
const tone = computed(() =>
  props.run.display.value.reason === '' && props.run.display.value.massG !== null ? 'steady' : 'moving',
)
const words = computed(() => {
  if (props.run.typed.value.trim() !== '') return props.run.display.value.reason || 'typed by hand'
  return props.run.display.value.reason || `steady for ${fixed(bench.rest.value.forS, 1)} s`
})
const onPan = computed(() => {
  const { mode, collected, piecesOnPan } = props.run
  const n = collected.value.length
  switch (mode.value) {
    case 'all together':
      return `all ${piecesOnPan.value} pieces together`
    case 'one after another':
      return `piece ${n + 1} of ${line.value.quantity}`
    case 'before and after':
      return n === 0 ? 'before the change' : 'after the change'
    case 'in lifts':
      return `lift ${n + 1}`
    default:
      return line.value.quantity > 1 ? `one of ${line.value.quantity}` : ''
  }
})
</script>

<template>
  <div class="pan">
    <h2>On the pan: {{ lineTitle(line) }}<small v-if="onPan">, {{ onPan }}</small></h2>
    <div
      class="reading figure"
      data-test="pan"
    >
      <span>{{ figure }}</span><small>g</small>
    </div>
    <div class="ounces">
      <InOunces :grams="shownG" />
    </div>
    <p
      class="rest"
      :class="tone"
      role="status"
      data-test="steadiness"
    >
      {{ words }}
    </p>
    <p
      v-if="run.collected.value.length > 0"
      class="collected figure"
    >
      so far {{ run.collected.value.map(g => fixed(g, decimals)).join(' · ') }}
    </p>
  </div>
</template>

<style scoped>
.pan {
  text-align: center;
}
h2 {
  font-size: 17px;
}
h2 small {
  font: 500 13px var(--sans);
  color: var(--ink-soft);
}
.reading {
  font-size: 92px;
  line-height: 1.05;
  letter-spacing: -4px;
  white-space: nowrap;
}
.reading small {
  font-size: 30px;
  letter-spacing: 0;
  color: var(--ink-soft);
  margin-left: 12px;
}
.rest {
  font-weight: 600;
  margin: 2px 0 0;
  min-height: 20px;
}
.rest.steady {
  color: var(--clear);
}
.rest.moving {
  color: var(--ink-soft);
  font-weight: 500;
}
.collected {
  color: var(--ink-soft);
  margin: 4px 0 0;
}
@media screen and (max-width: 760px) {
  .reading {
    font-size: 76px;
  }
  h2 {
    font-size: 18px;
  }
}
</style>
