<script setup lang="ts">
import { writeFiguresBy } from '#core/text/display'

const settings = useSettingsStore()
writeFiguresBy(() => settings.settings)
const shell = useShell()
const systemDark = usePreferredDark()
const look = computed(() => {
  const { theme } = settings.settings
  return theme === 'system' ? (systemDark.value ? 'dark' : 'light') : theme
})
useHead({ htmlAttrs: { class: look } })
onMounted(() => {
  // As a rule they came with the page.
  if (settings.loaded) return
  settings.load().catch(() => {
    settings.problem = 'The server does not answer. Is it still running?'
  })
})
// Dialogs are loaded when they are first asked for: most visits never do.
const everFound = ref(false)
const everKeys = ref(false)
const everToured = ref(false)
watch(shell.touring, () => {
  everToured.value = true
})
watch(shell.findOpen, () => {
  everFound.value = true
})
watch(shell.keysOpen, () => {
  everKeys.value = true
})
useSingleKeys({
  find: () => {
    shell.findOpen.value = true
  },
  help: () => {
    shell.keysOpen.value = true
  },
})
</script>

<template>
  <div class="application">
    <TopBar />
    <StripTextures />
    <p
      v-if="settings.problem"
      class="server-problem"
      role="alert"
    >
      {{ settings.problem }}
    </p>
    <p
      v-if="shell.said.value"
      class="server-problem"
      role="alert"
    >
      {{ shell.said.value }} <el-button
        link
        type="primary"
        @click="shell.said.value = ''"
      >
        Close
      </el-button>
    </p>
    <div class="below">
      <NuxtPage />
    </div>
    <LazyFindAnything v-if="everFound" />
    <LazyKeyList v-if="everKeys" />
    <LazyFirstTour v-if="everToured" />
  </div>
</template>

<style scoped>
.application {
  height: 100%;
  display: flex;
  flex-direction: column;
}
.below {
  flex: 1;
  min-height: 0;
  overflow: auto;
  display: flex;
  flex-direction: column;
}
.server-problem {
  margin: 0;
  padding: 8px 18px;
  background: var(--note);
  font-weight: 600;
}
@media print {
  .application,
  .below {
    display: block;
    overflow: visible;
  }
}
</style>
