import { balanceOf, centreMovesMm } from '#core/aircraft/balance'

/** What fewer grams of a line (or more, below zero) would do to how the loadout on view hangs; '' where nobody can tell. */
export function useBobMoves() {
  const store = useBuildStore()
  const balance = computed(() => (store.build ? balanceOf(store.build, store.choice, store.estimates) : null))
  return (lineId: string | null, gramsOff: number | null): string => {
    if (!balance.value || lineId === null || gramsOff === null || gramsOff === 0) return ''
    const moves = centreMovesMm(balance.value, lineId, gramsOff)
    return moves === null ? '' : bobMovesWords(balance.value.centre!.atMm[0], moves)
  }
}
