<script setup lang="ts">
import type { Overview } from '#core/mass/report'
import { gramsFigure, spreadFigure } from '#core/text/display'

/** The head of a build: its weight large, its verdict, and the strip; the same for today and for another day. */
defineProps<{
  overview: Overview
  /** The limit the weight stands beside. */
  besideG: number | null
  /** It is not today: the ground is another one. */
  past?: boolean
  test: string
}>()
</script>

<template>
  <section
    class="strip-head"
    :class="{ past }"
  >
    <div class="block">
      <div
        class="value figure"
        :data-test="test"
      >
        {{ gramsFigure(overview.massG, overview.spreadG, besideG) }}<small> g<template v-if="overview.spreadG > 0"> ±
          {{ spreadFigure(overview.spreadG) }}</template></small>
      </div>
      <div class="verdict">
        <slot name="verdict" />
      </div>
      <slot name="loadout" />
    </div>
    <div class="chart">
      <slot />
    </div>
    <slot name="over" />
  </section>
</template>

<style scoped>
.strip-head {
  position: relative;
  background: var(--card);
  border-bottom: 1px solid var(--line);
  padding: 10px 18px 6px;
  display: flex;
  gap: 22px;
  min-height: 112px;
  flex: none;
}
.past {
  background: var(--note);
  border-bottom: 3px solid var(--brass);
}
.block {
  width: 192px;
  flex: none;
}
.value {
  font-size: 34px;
  line-height: 1;
  letter-spacing: -1.5px;
  white-space: nowrap;
}
.value small {
  font-size: 15px;
  letter-spacing: 0;
  color: var(--ink-soft);
}
.verdict {
  margin-top: 7px;
  font-size: 13px;
  display: flex;
  gap: 7px;
  align-items: center;
  white-space: nowrap;
}
.chart {
  flex: 1;
  min-width: 0;
  padding-top: 2px;
}
:slotted(.under) {
  margin: 4px 0 0;
  min-height: 19px;
  font-size: 12.5px;
  display: flex;
  gap: 14px;
  align-items: center;
  flex-wrap: wrap;
}
@media screen and (max-width: 760px) {
  .strip-head {
    flex-direction: column;
    gap: 8px;
    padding: 10px 14px;
  }
  .block {
    width: auto;
  }
}
</style>
