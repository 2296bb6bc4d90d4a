<script setup lang="ts">
import type { SheetCell } from '#core/aircraft/flight'
import { scaleWeighings, type Build } from '#core/model/ledger'
import type { Overview } from '#core/mass/report'
import { cardName, limitG } from '#core/limits/rules'
import { progressOf, sequenceOf } from '#core/making/assembly'
import { openShavings, shaveListOf } from '#core/deciding/shave'

const store = useBuildStore()
const route = useRoute()
const { report: fit } = useFit()
const { ownCells } = useLoadouts()

interface Status {
  line: string
  tone: 'good' | 'mid' | 'bad' | 'quiet'
}

const statuses = computed((): Partial<Record<string, Status | undefined>> => {
  const { build, overview } = store
  if (!build || !overview) return {}
  const card = overview.binding?.card
  const limit = card ? limitG(card) : null
  const open = overview.openLines
  const tone = toneOf(overview.binding)
  return {
    aim:
      card && limit !== null
        ? { line: `${limit.toFixed(2).replace(/\.00$/, '')} g, ${cardName(card)}`, tone: 'good' }
        : { line: 'no limit chosen', tone: 'mid' },
    parts: {
      line: `${weighedWords(overview, overview.counted.length)}${open > 0 ? ` · ${open} open` : ''}`,
      tone: tone === 'over' ? 'bad' : tone === 'close' || open > 0 ? 'mid' : tone === 'clear' ? 'good' : 'quiet',
    },
    fit:
      build.lines.length === 0
        ? { line: 'nothing to fit yet', tone: 'quiet' }
        : fit.value
          ? {
              line: fitWords(fit.value),
              tone: fit.value.clashes > 0 ? 'bad' : fit.value.toCheck + fit.value.asked.length > 0 ? 'mid' : 'good',
            }
          : undefined,
    weigh: {
      line: weighWords(build, overview),
      tone: overview.weighedLines === overview.counted.length ? 'good' : 'mid',
    },
    shave: shaveStatus(build),
    packs: { line: loadoutsWords(ownCells.value), tone: packsTone(ownCells.value) },
    assemble: assembleStatus(build),
    record: { line: store.steps.undo ? `last: ${store.steps.undo}` : 'nothing to take back', tone: 'quiet' },
  }
})
function assembleStatus(build: Build): Status {
  if (!build.assembly) return { line: 'not begun', tone: 'quiet' }
  const order = sequenceOf(build, store.choice)
  if ('cycle' in order) return { line: 'steps wait in a circle', tone: 'bad' }
  const { done, of, failed } = progressOf(order.steps, build.assembly)
  return {
    line: failed > 0 ? `${failed} ${failed === 1 ? 'test' : 'tests'} failed` : `${done} of ${of} steps`,
    tone: failed > 0 ? 'bad' : done === of ? 'good' : 'mid',
  }
}
function shaveStatus(build: Build): Status {
  const open = [...openShavings(build), ...openShavings(build, 'put on')]
  const finished = shaveListOf(build).shavings.filter(s => s.state === 'done').length
  const planned = open.filter(s => s.state === 'planned').length
  if (open.length + finished === 0) return { line: 'nothing on the list', tone: 'quiet' }
  return {
    line: `${open.length} on the list${planned > 0 ? ` · ${planned} planned` : ''}${finished > 0 ? ` · ${finished} done` : ''}`,
    tone: 'good',
  }
}
/** Red only where something is over that nobody has decided to fly so. */
function packsTone(cells: readonly SheetCell[]): Status['tone'] {
  const judged = cells.filter(cell => !cell.never && cell.binding?.verdict)
  if (judged.length === 0) return 'quiet'
  if (judged.every(cell => cell.intoReserveG === 0 || cell.onPurpose)) return 'good'
  return judged.some(cell => cell.intoReserveG === 0) ? 'mid' : 'bad'
}
/** What is weighed, and how much of it on a scale of the list: the rest was typed. */
function weighWords(build: Build, overview: Overview): string {
  const here = overview.counted.filter(
    line => line.mass?.evidence === 'weighed' && scaleWeighings(line).length > 0,
  ).length
  const typed = overview.weighedLines - here
  const words =
    overview.weighedLines === 0
      ? 'no part weighed yet'
      : [here > 0 ? `${here} on a scale` : '', typed > 0 ? `${typed} typed as weighed` : ''].filter(Boolean).join(' · ')
  return `${words}${together(build)}`
}
function together({ observations }: Build): string {
  const [taken, held] = ['taken in', 'held'].map(state => observations.filter(o => o.state === state).length)
  return `${taken ? ` · ${taken} together` : ''}${held ? ` · ${held} held` : ''}`
}
const places = computed(() => (store.build ? stationPlaces(store.build.id) : []))
</script>

<template>
  <nav
    class="stations"
    aria-label="Stations"
  >
    <NuxtLink
      v-for="station in places"
      :key="station.page"
      :to="{ path: station.to, query: route.query.with ? { with: route.query.with } : {} }"
      :class="statuses[station.page]?.tone"
      :title="station.question"
    >
      <em>{{ station.number }}</em>
      <span><b>{{ station.name }}</b><small>{{ statuses[station.page]?.line }}</small></span>
    </NuxtLink>
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
@media (max-width: 760px) {
  .stations {
    width: auto;
    padding: 6px 8px;
    display: flex;
    gap: 4px;
    overflow-x: auto;
  }
  a {
    border-radius: 7px;
    padding: 8px 12px;
    min-height: 44px;
    flex: 1;
  }
  a.router-link-active {
    box-shadow: inset 0 -3px var(--plum-text);
  }
  small {
    -webkit-line-clamp: 1;
  }
}
</style>
