<script setup lang="ts">
import type { KeptDocument } from '#shared/schemas/kept'

/** Takes back the last change of what the page keeps outside the builds. */
const props = defineProps<{ document: KeptDocument }>()
const edits = useEditsStore()
const problem = ref('')
const steps = computed(() => edits.steps[props.document] ?? { undo: null, redo: null })
watch(() => props.document, (document) => { edits.loadSteps(document).catch(() => undefined) }, { immediate: true })

const reload: Record<KeptDocument, () => Promise<unknown>> = {
  drawer: () => useDrawerStore().load(), rules: () => useRulesStore().load(), scales: () => useScalesStore().load(), settings: () => useSettingsStore().load(), templates: () => useAssemblyStore().load(),
}
async function step(kind: 'undo' | 'redo') {
  problem.value = ''
  try { await edits.step(props.document, kind) }
  catch (error) { problem.value = sentenceOf(error) }
  await reload[props.document]().catch(() => undefined)
  await edits.loadSteps(props.document).catch(() => undefined)
}
useSingleKeys({ z: () => step('undo'), Z: () => step('redo') })
</script>

<template>
  <button type="button" :disabled="!steps.undo" :title="steps.undo ? `Take back: ${steps.undo}` : 'Nothing to take back'" @click="step('undo')">Undo <kbd>Z</kbd></button>
  <p v-if="problem" class="said" role="alert">{{ problem }} <button type="button" class="plain" @click="problem = ''">Close</button></p>
</template>

<style scoped>
.said { position: fixed; top: 52px; right: 18px; z-index: 30; margin: 0; max-width: min(420px, 90vw); padding: 8px 12px; background: var(--note); color: var(--ink); border-radius: 7px; font-weight: 600; }
@media (max-width: 760px) { kbd { display: none; } }
</style>
