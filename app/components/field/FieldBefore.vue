<script setup lang="ts">
import type { FieldReply } from '#shared/schemas/field'
import type { Style } from '#core/aircraft/power'
import { minutesBand } from '#core/text/display'

/** Before take-off: build, pack and style, what changes between flights, and the button that starts the clock. */
const { builds, build, loadout, minutes } = defineProps<{
  builds: FieldReply['builds']
  build: FieldReply['builds'][number]
  loadout: FieldReply['builds'][number]['loadouts'][number]
  style: Style
  styles: readonly Style[]
  minutes: { readonly low: number; readonly high: number } | null
  /** What was noted last. */
  told: string
}>()
const emit = defineEmits<{ build: [id: string]; loadout: [key: string]; style: [style: Style]; go: [] }>()
const ticked = ref<string[]>([])
watch(
  () => [build.id, loadout.key],
  () => {
    ticked.value = []
  },
)
const loadoutChoices = computed(() =>
  build.loadouts.map(({ key, pack, setup }) => ({ value: key, label: `${pack}, ${setup}` })),
)
</script>

<template>
  <p
    v-if="told"
    class="told"
    role="status"
  >
    {{ told }}
  </p>
  <h1>In the field</h1>
  <PickOne
    :model-value="build.id"
    field="Build"
    :options="builds.map(({ id, name }) => ({ value: id, label: name }))"
    @update:model-value="emit('build', $event)"
  />
  <PickOne
    :model-value="loadout.key"
    field="Pack and set-up"
    :options="loadoutChoices"
    @update:model-value="emit('loadout', $event)"
  />
  <PickOne
    :model-value="style"
    field="Style"
    :options="styles"
    @update:model-value="emit('style', $event as Style)"
  />
  <p class="line">
    <VerdictMark
      v-if="loadout.word"
      :word="loadout.word"
    />
    <span v-if="loadout.chargedOn">charged {{ flightDay(loadout.chargedOn) }}</span>
    <span v-if="minutes">{{ minutesBand(minutes.low, minutes.high) }}</span>
  </p>
  <p
    v-if="build.open.length > 0"
    class="note"
  >
    Found and not gone: {{ build.open.join(', ') }}.
  </p>
  <el-checkbox-group
    v-model="ticked"
    class="checks"
    aria-label="Before take-off"
  >
    <el-checkbox
      v-for="check in loadout.checks"
      :key="check.words"
      :value="check.words"
      :class="{ open: check.open }"
    >
      {{ check.words }}
    </el-checkbox>
  </el-checkbox-group>
  <el-button
    type="primary"
    class="go"
    @click="emit('go')"
  >
    <b>Go</b><span>press as it takes off</span>
  </el-button>
</template>

<style scoped>
h1 {
  margin: 0;
}
.told {
  margin: 0;
  color: var(--clear);
  font-weight: 600;
}
.line {
  margin: 0;
  display: flex;
  justify-content: space-between;
}
.checks {
  display: grid;
}
.checks :deep(.el-checkbox) {
  height: auto;
  min-height: 48px;
  width: 100%;
  margin: 0;
  white-space: normal;
  border-bottom: 1px solid var(--line);
}
.open {
  --el-checkbox-text-color: var(--over);
  font-weight: 700;
}
.go {
  min-height: 132px;
  border-radius: 16px;
  width: 100%;
}
.go :deep(span) {
  flex-direction: column;
  gap: 6px;
}
.go b {
  font: 600 32px var(--serif);
}
</style>
