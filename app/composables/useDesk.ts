import type { Desk } from '~/stations'

/** What the stations tell their status from, as it is worked out so far. */
export function useDesk() {
  const store = useBuildStore()
  const { report: fit } = useFit()
  const { ownCells } = useLoadouts()
  const desk = computed((): Desk | null => {
    const { build, overview, choice, steps } = store
    if (!build || !overview) return null
    return { build, overview, choice, fit: fit.value, loadouts: ownCells.value, lastChange: steps.undo }
  })
  return { desk }
}
