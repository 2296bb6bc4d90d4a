import { balanceOf, type Balance } from '#core/aircraft/balance'
import type { Desk } from '~/stations'

/** How long nothing has to change before the craft is hung anew for the list of stations, ms. */
const restMs = 250

/** How the loadout on view hangs, worked out when an edit is drawn and done with. */
const useHanging = createSharedComposable(() => {
  const store = useBuildStore()
  const hangs = shallowRef<{ readonly buildId: string; readonly balance: Balance } | null>(null)
  watchDebounced(
    () => [store.build, store.choice, store.estimates] as const,
    ([build, choice, estimates]) => {
      hangs.value = build ? { buildId: build.id, balance: balanceOf(build, choice, estimates) } : null
    },
    { debounce: restMs, immediate: true },
  )
  return hangs
})

/** What the stations tell their status from, as it is worked out so far. */
export function useDesk() {
  const store = useBuildStore()
  const flights = useFlightsStore()
  const { report: fit } = useFit()
  const { ownCells } = useLoadouts()
  const hanging = useHanging()
  const desk = computed((): Desk | null => {
    const { build, overview, choice, steps } = store
    if (!build || !overview) return null
    return {
      build,
      overview,
      choice,
      fit: fit.value,
      balance: hanging.value?.buildId === build.id ? hanging.value.balance : null,
      loadouts: ownCells.value,
      flown:
        flights.loaded && flights.buildId === build.id
          ? { flights: flights.flights.length, open: flights.findings.filter(one => one.goneAt === null).length }
          : null,
      lastChange: steps.undo,
    }
  })
  return { desk }
}
