<script setup lang="ts">
import { sameLoadout } from '#core/mass/loadout'
import { fixed, minutesBand, minutesFigure, percentSure } from '#core/text/display'

/** The loadout on view before it takes off: how long it may fly, what it rests on, its chance of the goal. */
const store = useBuildStore()
const flights = useFlightsStore()
const { next, chance, goal } = useNextFlight()
/** Judged as in Packs: under the cards of the build and of the trip. */
const { ownCells } = useLoadouts()
const cell = computed(() => ownCells.value.find(({ choice }) => sameLoadout(choice, store.choice)) ?? null)
const last = computed(() =>
  flights.flights.findLast(({ snapshot }) => snapshot.packLineId === store.choice.packLineId) ?? null,
)
const lastWords = computed(() => {
  if (!last.value) return 'not flown yet'
  const left = flights.worked.get(last.value.id)?.left
  return `${flightDay(last.value.flownAt)}${left == null ? '' : `, ${fixed(100 * left, 0)} % left`}`
})
</script>

<template>
  <div
    class="next"
    data-test="next-flight"
  >
    <div>
      <span class="soft">Next, {{ next?.style }}</span>
      <b class="figure">{{ next?.band ? minutesBand(next.band.low, next.band.high) : '–' }}</b>
      <small>{{ next?.why || restsOnWords(next?.restsOn ?? null, next?.packFlights) || 'before any flight' }}</small>
    </div>
    <div v-if="goal !== null && chance !== null">
      <span class="soft">Reaches {{ minutesFigure(goal) }} min</span>
      <b class="figure">{{ percentSure(chance) }}</b>
      <small>of flights with this pack</small>
    </div>
    <div>
      <span class="soft">Under the cards</span>
      <b><VerdictMark
        v-if="cell?.binding?.verdict"
        :word="cell.binding.verdict.word"
      /><template v-else>no limit</template></b>
    </div>
    <div v-if="store.choice.packLineId !== null">
      <span class="soft">Last with this pack</span>
      <b>{{ lastWords }}</b>
    </div>
    <NuxtLink
      to="/field"
      class="button field-link no-print"
    >In the field</NuxtLink>
  </div>
</template>

<style scoped>
.next {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 26px;
  padding: 8px 14px;
  margin-bottom: 12px;
  background: var(--aside);
  border-radius: 8px;
  font-size: 13px;
}
.next > div > span,
.next small {
  display: block;
  font-size: 12px;
}
.next small {
  color: var(--ink-soft);
}
.field-link {
  margin-left: auto;
  align-self: center;
}
</style>
