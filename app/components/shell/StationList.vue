<script setup lang="ts">
import { stationPath, stations, type StationStatus } from '~/stations'

const store = useBuildStore()
const route = useRoute()
const { desk } = useDesk()
const statuses = computed((): Readonly<Record<string, StationStatus | undefined>> => {
  const at = desk.value
  return at ? Object.fromEntries(stations.map(station => [station.page, station.status(at)])) : {}
})

/** Stations with nothing to say for a build are folded away until they are called back. */
const unfolded = ref(false)
const folded = computed(() => stations.filter(station => store.build && station.foldsAway(store.build)))
const shown = computed(() =>
  unfolded.value
    ? stations
    : stations.filter(station => !folded.value.includes(station) || route.path.endsWith(`/${station.page}`)),
)
</script>

<template>
  <nav
    v-if="store.build"
    class="stations"
    aria-label="Stations"
  >
    <NuxtLink
      v-for="station in shown"
      :key="station.page"
      :to="{
        path: stationPath(store.build.id, station),
        query: route.query.with ? { with: route.query.with } : {},
      }"
      :class="statuses[station.page]?.tone"
      :title="station.question"
    >
      <em>{{ station.number }}</em>
      <span><b>{{ station.name }}</b><small>{{ statuses[station.page]?.line }}</small></span>
    </NuxtLink>
    <el-button
      v-if="folded.length > 0"
      link
      type="primary"
      :aria-expanded="unfolded"
      title="Stations that have nothing to say of a craft known only as a whole"
      @click="unfolded = !unfolded"
    >
      {{ unfolded ? 'Fewer stations' : `${folded.length} more stations` }}
    </el-button>
  </nav>
</template>

<style scoped>
.stations {
  width: 168px;
  padding: 12px 0 0 10px;
  flex: none;
  overflow-y: auto;
}
a {
  display: flex;
  gap: 9px;
  padding: 7px 8px;
  border-radius: 7px 0 0 7px;
  align-items: flex-start;
  margin-bottom: 2px;
  color: var(--ink);
  text-decoration: none;
}
em {
  font: 500 11px/18px var(--mono);
  font-style: normal;
  width: 22px;
  height: 22px;
  border-radius: 50%;
  text-align: center;
  flex: none;
  margin-top: 1px;
  border: 1.5px solid var(--edge);
  color: var(--ink-soft);
  background: var(--card);
}
b {
  display: block;
  font-weight: 600;
}
span {
  min-width: 0;
}
small {
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  overflow: hidden;
  color: var(--ink-soft);
  font-size: 11.5px;
  line-height: 1.3;
}
a.router-link-active {
  background: var(--card);
  box-shadow: inset 3px 0 var(--plum-text);
}
.good em {
  border-color: var(--clear);
  color: var(--clear);
}
.mid em {
  border-color: var(--close);
  color: var(--close);
}
.bad em {
  background: var(--over);
  border-color: var(--over);
  color: var(--verdict-ink);
}
a.router-link-active em {
  background: var(--plum);
  border-color: var(--plum);
  color: var(--plum-ink);
}
.stations > button {
  margin: 8px 8px 0;
  color: var(--ink-soft);
}

/* On the phone the stations lie under the thumb, side by side at the foot of the screen. */
@media screen and (max-width: 760px) {
  .stations {
    position: fixed;
    inset: auto 0 0 0;
    z-index: 30;
    width: auto;
    padding: 0 2px env(safe-area-inset-bottom);
    display: grid;
    grid-template-columns: repeat(5, minmax(0, 1fr));
    background: var(--card);
    border-top: 1px solid var(--edge);
    overflow: visible;
  }
  a {
    align-items: center;
    justify-content: center;
    gap: 4px;
    min-height: 46px;
    padding: 2px 0;
    margin: 0;
    border-radius: 0;
  }
  a.router-link-active {
    box-shadow: inset 0 3px var(--plum-text);
    background: var(--selection);
  }
  em {
    margin: 0;
  }
  span {
    max-width: 100%;
  }
  b {
    font-size: 11px;
    letter-spacing: -0.02em;
  }
  small {
    display: none;
  }
  .stations > button {
    margin: 0;
    font-size: 10.5px;
    white-space: normal;
  }
}
@media print {
  .stations {
    display: none;
  }
}
</style>
