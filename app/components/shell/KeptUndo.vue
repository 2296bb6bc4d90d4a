<script setup lang="ts">
import type { KeptDocument } from '#shared/schemas/kept'

/** Takes back the last change of what the page keeps outside the builds. */
const props = defineProps<{ document: KeptDocument; scope?: string }>()
const edits = useEditsStore()
const { said } = useShell()
const steps = computed(() => edits.steps[stepsKey(props.document, props.scope)] ?? { undo: null, redo: null })
watch(
  () => [props.document, props.scope ?? ''] as const,
  ([document, scope]) => {
    edits.loadSteps(document, scope).catch(() => undefined)
  },
  { immediate: true },
)

const reload: Record<KeptDocument, () => Promise<unknown>> = {
  drawer: () => useDrawerStore().load(),
  rules: () => useRulesStore().load(),
  scales: () => useScalesStore().load(),
  settings: () => useSettingsStore().load(),
  templates: () => useAssemblyStore().load(),
  flights: () => useFlightsStore().load(props.scope ?? ''),
}
async function step(kind: 'undo' | 'redo') {
  said.value = ''
  try {
    await edits.step(props.document, kind, props.scope)
  } catch (error) {
    said.value = sentenceOf(error)
  }
  await reload[props.document]().catch(() => undefined)
  await edits.loadSteps(props.document, props.scope).catch(() => undefined)
}
useSingleKeys({ undo: () => step('undo'), redo: () => step('redo') })
</script>

<template>
  <el-button
    :disabled="!steps.undo"
    :title="steps.undo ? `Take back: ${steps.undo}` : 'Nothing to take back'"
    @click="step('undo')"
  >
    Undo <KeyHint does="undo" />
  </el-button>
</template>

<style scoped>
@media screen and (max-width: 760px) {
  kbd {
    display: none;
  }
}
</style>
