<script setup lang="ts">
import type { Evidence } from '#core/model/ledger'

defineProps<{ evidence: Evidence }>()
</script>

<template>
  <i
    class="swatch"
    :class="evidenceTexture[evidence]"
    aria-hidden="true"
  />
</template>

<style scoped>
.swatch {
  display: inline-block;
  width: 18px;
  height: 10px;
  border-radius: 2px;
  margin-right: 6px;
  flex: none;
  background: var(--swatch);
}
.worked {
  background: repeating-linear-gradient(0deg, var(--swatch) 0 2px, var(--swatch-gap) 2px 4px);
}
.listed {
  background: repeating-linear-gradient(45deg, var(--swatch) 0 2px, var(--swatch-gap) 2px 4px);
}
.typical {
  background:
    repeating-linear-gradient(45deg, var(--swatch) 0 1px, transparent 1px 4px),
    repeating-linear-gradient(-45deg, var(--swatch) 0 1px, var(--swatch-gap) 1px 4px);
}
.twin {
  background: radial-gradient(circle, var(--swatch-gap) 0 1.3px, var(--swatch) 1.5px 2.3px, var(--swatch-gap) 2.5px);
  background-size: 6px 5px;
}
.guess {
  background: radial-gradient(var(--swatch) 1.2px, var(--swatch-gap) 1.4px);
  background-size: 5px 5px;
}
</style>
