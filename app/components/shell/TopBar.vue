<script setup lang="ts">
const shell = useShell()
const route = useRoute()
/** What belongs to the open build is loaded with it: the shelf does without. */
const inBuild = computed(() => route.path.startsWith('/builds/'))
/** What of the page is kept outside the builds. */
const onFly = computed(() => inBuild.value && route.path.endsWith('/fly'))
const keptHere = computed(() =>
  onFly.value
    ? 'flights'
    : (['drawer', 'scales', 'rules', 'settings'] as const).find(document => route.path === `/${document}`),
)
/** What waits to be written is looked for once the page stands. */
const stands = ref(false)
onceDrawn(() =>
  whenIdle(() => {
    stands.value = true
  }, 500),
)
</script>

<template>
  <header class="top-bar">
    <NuxtLink
      to="/"
      class="logo"
    >Jolly <i>Gram</i></NuxtLink>
    <LazyBuildName v-if="inBuild" />
    <LazyWaitingEdits v-if="stands" />
    <nav aria-label="Places">
      <NuxtLink to="/">Shelf</NuxtLink>
      <NuxtLink to="/drawer">Drawer</NuxtLink>
      <NuxtLink to="/scales">Scales</NuxtLink>
      <NuxtLink to="/rules">Rules</NuxtLink>
      <NuxtLink to="/settings">Settings</NuxtLink>
      <el-button
        class="find-button"
        @click="shell.findOpen.value = true"
      >
        Find <KeyHint does="find" />
      </el-button>
      <LazyKeptUndo
        v-if="keptHere"
        :document="keptHere"
        :scope="onFly ? String(route.params.id) : ''"
      />
      <LazyUndoButton v-else-if="inBuild" />
      <el-button
        aria-label="Keys"
        title="All keys"
        @click="shell.keysOpen.value = true"
      >
        <KeyHint does="help" />
      </el-button>
    </nav>
  </header>
</template>

<style scoped>
.top-bar {
  height: 44px;
  display: flex;
  align-items: center;
  gap: 18px;
  padding: 0 18px;
  background: var(--bar);
  color: var(--bar-ink);
  flex: none;
}
.logo {
  font: 600 19px var(--serif);
  color: var(--bar-ink);
  text-decoration: none;
  white-space: nowrap;
}
.logo i {
  font-style: normal;
  color: var(--brass);
}
nav {
  margin-left: auto;
  display: flex;
  gap: 4px;
  align-items: center;
}
nav a,
nav button {
  font: 500 13px var(--sans);
  color: var(--bar-ink);
  text-decoration: none;
  background: none;
  border: 0;
  padding: 5px 8px;
  border-bottom: 2px solid transparent;
  border-radius: 0;
  min-height: 0;
}
nav a.router-link-exact-active {
  border-bottom-color: var(--brass);
}
nav :focus-visible,
.logo:focus-visible {
  outline-color: var(--brass);
}
@media screen and (max-width: 760px) {
  .top-bar {
    gap: 0 8px;
    padding: 7px 10px 0;
    height: auto;
    min-height: 44px;
    flex-wrap: wrap;
  }
  nav {
    gap: 0;
  }
  nav kbd {
    display: none;
  }
  nav button:last-child {
    display: none;
  }
}
</style>
