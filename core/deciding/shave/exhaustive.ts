import { costOf, reachesGoals, toleranceG, type ShavingItem, type ShavingProblem } from './problem'

/** Every plan the rules of a problem allow, by looking at all subsets: for small problems, and to hold the optimiser against. */
export function* allowedPlans({
  items,
  groups,
  needs,
  lines,
  caps,
}: ShavingProblem): Generator<readonly ShavingItem[]> {
  for (let bits = 0; bits < 2 ** items.length; bits++) {
    const chosen = items.filter((_, i) => bits & (1 << i))
    const ids = new Set(chosen.map(item => item.id))
    if (items.some(item => (item.lock === 'in' && !ids.has(item.id)) || (item.lock === 'out' && ids.has(item.id))))
      continue
    if (groups.some(group => group.filter(id => ids.has(id)).length > 1)) continue
    if (needs.some(([first, second]) => ids.has(first) && !ids.has(second))) continue
    if (
      (lines ?? []).some(
        line =>
          line.ids.reduce((off, id, i) => (ids.has(id) ? off + line.gramsG[i]! : off), 0) > line.mostG + toleranceG,
      )
    )
      continue
    const sum = (of: (item: ShavingItem) => number) => chosen.reduce((total, item) => total + of(item), 0)
    if (
      sum(item => item.cents) > (caps.cents ?? Infinity) ||
      sum(item => item.minutes) > (caps.minutes ?? Infinity) ||
      sum(item => item.loss) > (caps.loss ?? Infinity)
    )
      continue
    yield chosen
  }
}

/** The cheapest plan by looking at all of them; null when none reaches the goals. */
export function cheapestOfAll(
  problem: ShavingProblem,
): { readonly items: readonly ShavingItem[]; readonly cost: number } | null {
  let best: { items: readonly ShavingItem[]; cost: number } | null = null
  for (const items of allowedPlans(problem)) {
    if (!reachesGoals(problem, items)) continue
    const cost = items.reduce((total, item) => total + costOf(item, problem.spare), 0)
    if (!best || cost < best.cost) best = { items, cost }
  }
  return best
}
