<script setup lang="ts">
import { centsFigure, gramsWithSpread, fixed } from '#core/text/display'

const store = useBuildStore()
const { settings } = storeToRefs(useSettingsStore())
const craft = computed(() => store.build!.reference!)
</script>

<template>
  <section
    class="reference"
    aria-label="Reference craft"
  >
    <span class="figure value">{{ gramsWithSpread(craft.massG, craft.spreadG) }}</span>
    <span class="soft">reference craft<template v-if="craft.thrustG !== null">, {{ craft.thrustG }} g thrust
      ({{ fixed(craft.thrustG / craft.massG, 1) }} : 1)</template><template v-if="craft.minutes !== null">,
      {{ craft.minutes }} min</template><template v-if="craft.priceCents !== null">, {{ centsFigure(craft.priceCents) }}
      {{ settings.currency }}</template></span>
  </section>
</template>

<style scoped>
.reference {
  background: var(--card);
  border-bottom: 1px solid var(--line);
  padding: 16px 18px;
  display: flex;
  gap: 16px;
  align-items: baseline;
}
.value {
  font-size: 30px;
  letter-spacing: -1px;
}
</style>
