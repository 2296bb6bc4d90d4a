<script setup lang="ts">
import type { VerdictWord } from '#core/limits/verdict'

const props = defineProps<{ word: VerdictWord; filled?: boolean }>()
const tone = computed(() => verdictTone[props.word])
</script>

<template>
  <span
    class="mark"
    :class="[tone, { filled }]"
  >
    <svg
      v-if="!filled"
      viewBox="0 0 12 12"
      width="11"
      height="11"
      aria-hidden="true"
    >
      <circle
        v-if="tone === 'clear'"
        cx="6"
        cy="6"
        r="5.4"
      />
      <rect
        v-else-if="tone === 'close'"
        x="1.2"
        y="1.2"
        width="9.6"
        height="9.6"
        class="outline"
      />
      <path
        v-else
        d="M2 2 L10 10 M10 2 L2 10"
        class="outline"
      />
    </svg>{{ word }}
  </span>
</template>

<style scoped>
.mark {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  font-weight: 600;
  white-space: nowrap;
}
.clear {
  color: var(--clear);
}
.close {
  color: var(--close);
}
.over {
  color: var(--over);
}
svg {
  fill: currentColor;
  flex: none;
}
.outline {
  fill: none;
  stroke: currentColor;
  stroke-width: 2.2;
}
.filled {
  padding: 1px 8px;
  border-radius: 3px;
  font-size: 12px;
  color: var(--verdict-ink);
}
.filled.clear {
  background: var(--clear);
}
.filled.close {
  background: var(--close);
}
.filled.over {
  background: var(--over);
}
</style>
