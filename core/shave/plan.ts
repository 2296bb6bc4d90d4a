import { withoutWholeNumbers, type LinearProgram, type LinearRow, type LinearSolver } from './linear'
import { costOf, missG, reachesGoals, requireProblem, type ShavingItem, type ShavingProblem } from './problem'

/** A plan: the changes to make, what they cost under the weights, and how far it is proven to be the best. */
export interface ShavingPlan {
  readonly status: 'best'
  readonly items: readonly ShavingItem[]
  readonly cost: number
}
/** The best plan found before the time ran out; nothing can cost less than `bound`. */
export interface UnprovenPlan { readonly status: 'unproven', readonly items: readonly ShavingItem[], readonly cost: number, readonly bound: number }
/** No plan reaches the goals; the nearest misses by so many grams. */
export interface NoPlan { readonly status: 'none', readonly missG: number, readonly nearest: readonly ShavingItem[] }
/** The time ran out before any plan was found. */
export interface GivenUp { readonly status: 'given up' }
export type PlanAnswer = ShavingPlan | UnprovenPlan | NoPlan | GivenUp

export interface PlanOptions {
  readonly seconds: number
  /** Seconds that have passed since the start; the core has no clock of its own. */
  readonly elapsed: () => number
  /** Plans that may not come again, by the ids of their changes. */
  readonly notAgain?: readonly (readonly string[])[]
  /** A last word on a plan by the whole ledger; one that fails it is set aside and the search goes on. */
  readonly isClear?: (items: readonly ShavingItem[]) => boolean
}

/** The reachable variances of one loadout, g². */
interface Range { readonly from: number, readonly to: number }
/** A piece of the search: for every loadout a range of variances, and the best relaxed plan in it. */
interface Piece { readonly ranges: readonly Range[], readonly cost: number, readonly items: readonly ShavingItem[] }
/** A piece whose time ran out before it was solved; no plan in it costs less than its floor. */
interface OpenPiece { readonly ranges: readonly Range[], readonly floor: number }

const leastVarianceG2 = 1e-12

/**
 * The search for the cheapest plan that brings every loadout to its goal, exactly. It can be run again with more time, and then
 * goes on where it was.
 *
 * The guard k·√W is concave in the variance W, so on any range of W the chord under it is a relaxation: no true plan is
 * cut off. The cheapest relaxed plan is the best there is as soon as it is truly feasible; where it is not, the range is split
 * at its own W, where both new chords touch the root, so that it cannot come back. Sooner or later the cheapest piece is
 * true: that is the optimum, by whatever exact linear solver is used. A handful of pieces is usual.
 */
export class PlanSearch {
  private readonly cuts: (readonly string[])[]
  private readonly pieces: Piece[] = []
  private open: OpenPiece[]
  private found: ShavingPlan | null = null

  constructor(private readonly problem: ShavingProblem, private readonly solve: LinearSolver, private readonly options: Pick<PlanOptions, 'notAgain' | 'isClear'> = {}) {
    requireProblem(problem)
    this.cuts = [...options.notAgain ?? []]
    this.open = [{ ranges: wholeRanges(problem), floor: 0 }]
  }

  /** Searches until the best plan is proven or the time is over. */
  run(time: Pick<PlanOptions, 'seconds' | 'elapsed'>): PlanAnswer {
    const again = this.open
    this.open = []
    for (const { ranges } of again) this.look(ranges, time)
    for (;;) {
      this.pieces.sort((a, b) => b.cost - a.cost)
      const best = this.pieces.pop()
      if (!best || (this.found && this.found.cost <= best.cost)) {
        const stillOpen = this.open.some(({ floor }) => !this.found || floor < this.found.cost)
        return stillOpen ? this.soFar(best?.cost ?? Infinity) : this.found ?? nearest(this.problem, this.solve, time)
      }
      if (time.elapsed() > time.seconds) {
        this.pieces.push(best)
        return this.soFar(best.cost)
      }
      this.settle(best, time)
    }
  }

  /** What is known when the time is over. */
  private soFar(leastPiece: number): UnprovenPlan | GivenUp {
    if (!this.found) return { status: 'given up' }
    const { items, cost } = this.found
    return { status: 'unproven', items, cost, bound: Math.min(cost, leastPiece, ...this.open.map(piece => piece.floor)) }
  }

  private look(ranges: readonly Range[], { seconds, elapsed }: Pick<PlanOptions, 'seconds' | 'elapsed'>) {
    const left = seconds - elapsed()
    if (left <= 0) { this.open.push({ ranges, floor: 0 }); return }
    const program = relaxed(this.problem, ranges, this.cuts, 'least cost')
    const answer = this.solve(program, left)
    if (answer.status === 'infeasible') return
    const items = answer.values ? chosen(this.problem, answer.values) : []
    if (answer.status === 'optimal') { this.pieces.push({ ranges, cost: answer.objective, items }); return }
    const floor = this.solve(withoutWholeNumbers(program), 5)
    this.open.push({ ranges, floor: floor.status === 'optimal' ? floor.objective : 0 })
    if (answer.values && this.isTrue(items)) this.keep(items)
  }

  /** Keeps a piece's plan where it is a true one; otherwise splits the piece, or rules that one plan out. */
  private settle(best: Piece, time: Pick<PlanOptions, 'seconds' | 'elapsed'>) {
    if (this.isTrue(best.items)) { this.keep(best.items); return }
    const worst = worstLoadout(this.problem, best.items)
    if (worst !== null) {
      const at = varianceOf(this.problem, best.items, worst)
      const { from, to } = best.ranges[worst]!
      if (at > from + leastVarianceG2 && at < to - leastVarianceG2) {
        this.look(best.ranges.map((range, i) => i === worst ? { from, to: at } : range), time)
        this.look(best.ranges.map((range, i) => i === worst ? { from: at, to } : range), time)
        return
      }
    }
    // Feasible by the sums but not by the whole ledger, or at the very end of its range: this one plan is ruled out.
    this.cuts.push(best.items.map(item => item.id))
    this.look(best.ranges, time)
  }

  private keep(items: readonly ShavingItem[]) {
    const cost = items.reduce((sum, item) => sum + costOf(item, this.problem.spare), 0)
    if (!this.found || cost < this.found.cost) this.found = { status: 'best', items, cost }
  }

  private isTrue(items: readonly ShavingItem[]): boolean {
    return reachesGoals(this.problem, items) && (this.options.isClear?.(items) ?? true)
  }
}

/** The cheapest plan that brings every loadout to its goal, as far as the time allows. */
export function bestPlan(problem: ShavingProblem, solve: LinearSolver, options: PlanOptions): PlanAnswer {
  return new PlanSearch(problem, solve, options).run(options)
}

/** The loadout whose goal the plan misses most; null when it reaches all. */
function worstLoadout(problem: ShavingProblem, items: readonly ShavingItem[]): number | null {
  let [worst, most] = [null as number | null, 1e-9]
  problem.targets.forEach((target, i) => {
    const miss = missG(target, items, i)
    if (miss > most) { worst = i; most = miss }
  })
  return worst
}
function varianceOf(problem: ShavingProblem, items: readonly ShavingItem[], loadout: number): number {
  return Math.max(0, items.reduce((sum, item) => sum + item.varianceG2[loadout]!, problem.targets[loadout]!.varianceG2))
}
function wholeRanges({ items, targets }: ShavingProblem): Range[] {
  return targets.map(({ varianceG2 }, i) => {
    let [from, to] = [varianceG2, varianceG2]
    for (const item of items) {
      from += Math.min(0, item.varianceG2[i]!)
      to += Math.max(0, item.varianceG2[i]!)
    }
    return { from: Math.max(0, from), to: Math.max(0, to) }
  })
}
const nameOf = (index: number) => `x${index}`
function chosen({ items }: ShavingProblem, values: ReadonlyMap<string, number>): ShavingItem[] {
  return items.filter((_, i) => (values.get(nameOf(i)) ?? 0) > 0.5)
}

/** The linear program of one piece: true costs and rules, the guard replaced by its chord over the range of each variance. */
function relaxed(problem: ShavingProblem, ranges: readonly Range[], cuts: readonly (readonly string[])[], goal: 'least cost' | 'least miss'): LinearProgram {
  const { items, targets, groups, needs, caps, spare } = problem
  const index = new Map(items.map((item, i) => [item.id, nameOf(i)]))
  const each = (value: (item: ShavingItem) => number) => new Map(items.map((item, i) => [nameOf(i), value(item)]))
  const rows: LinearRow[] = []
  targets.forEach(({ massG, varianceG2, goalG, guard }, t) => {
    const { from, to } = ranges[t]!
    const [low, high] = [Math.sqrt(from), Math.sqrt(to)]
    const slope = guard === 0 || to - from < leastVarianceG2 ? 0 : guard * (high - low) / (to - from)
    const least = guard * low - slope * from
    const coefficients = each(item => item.gramsG[t]! - slope * item.varianceG2[t]!)
    if (goal === 'least miss') coefficients.set('miss', 1)
    // A billionth of a gram of room, so that what is true by decimals is not refused by binary dust.
    rows.push({ coefficients, least: massG + least + slope * varianceG2 - goalG - 1e-9 })
    // Below nothing there is no variance: a sum that falls under 0 counts as 0, and the chord there is lower still.
    if (guard > 0 && items.some(item => item.varianceG2[t] !== 0)) rows.push({ coefficients: each(item => item.varianceG2[t]!), ...(from > 0 ? { least: from - varianceG2 - leastVarianceG2 } : {}), most: to - varianceG2 + leastVarianceG2 })
  })
  for (const group of groups) if (group.length > 1) rows.push({ coefficients: new Map(group.map(id => [index.get(id)!, 1])), most: 1 })
  for (const [first, second] of needs) rows.push({ coefficients: new Map([[index.get(first)!, 1], [index.get(second)!, -1]]), most: 0 })
  items.forEach((item, i) => { if (item.lock) rows.push({ coefficients: new Map([[nameOf(i), 1]]), ...(item.lock === 'in' ? { least: 1 } : { most: 0 }) }) })
  if (caps.cents !== undefined) rows.push({ coefficients: each(item => item.cents), most: caps.cents })
  if (caps.minutes !== undefined) rows.push({ coefficients: each(item => item.minutes), most: caps.minutes })
  if (caps.loss !== undefined) rows.push({ coefficients: each(item => item.loss), most: caps.loss })
  for (const cut of cuts) {
    const inside = new Set(cut)
    rows.push({ coefficients: each(item => inside.has(item.id) ? -1 : 1), least: 1 - inside.size })
  }
  const objective = goal === 'least cost' ? each(item => costOf(item, spare)) : new Map([['miss', 1]])
  return { goal: 'least', objective, rows, binaries: items.map((_, i) => nameOf(i)), continuous: goal === 'least miss' ? [{ name: 'miss', least: -1e5, most: 1e5 }] : [] }
}

/**
 * The plan that comes nearest where none reaches the goals: the least of the greatest misses, exactly, by the same splitting
 * of ranges.
 */
function nearest(problem: ShavingProblem, solve: LinearSolver, options: Pick<PlanOptions, 'seconds' | 'elapsed'>): NoPlan | GivenUp {
  interface Near { readonly ranges: readonly Range[], readonly bound: number, readonly items: readonly ShavingItem[] }
  const pieces: Near[] = []
  const trueMiss = (items: readonly ShavingItem[]) => Math.max(...problem.targets.map((target, i) => missG(target, items, i)))
  let best: { readonly items: readonly ShavingItem[], readonly missG: number } | null = null
  const look = (ranges: readonly Range[]) => {
    const left = options.seconds - options.elapsed()
    const answer = left > 0 ? solve(relaxed(problem, ranges, [], 'least miss'), left) : null
    if (!answer || answer.status === 'infeasible' || (answer.status === 'stopped' && !answer.values)) return
    const items = chosen(problem, answer.values!)
    pieces.push({ ranges, bound: answer.status === 'optimal' ? answer.objective : -Infinity, items })
    const miss = trueMiss(items)
    if (!best || miss < best.missG) best = { items, missG: miss }
  }
  look(wholeRanges(problem))
  for (;;) {
    pieces.sort((a, b) => b.bound - a.bound)
    const piece = pieces.pop()
    const known = best as { readonly items: readonly ShavingItem[], readonly missG: number } | null
    if (!piece || !known || known.missG <= piece.bound + 1e-7 || options.elapsed() > options.seconds) {
      return known ? { status: 'none', missG: known.missG, nearest: known.items } : { status: 'given up' }
    }
    const misses = problem.targets.map((target, i) => missG(target, piece.items, i))
    const worst = misses.indexOf(Math.max(...misses))
    const at = varianceOf(problem, piece.items, worst)
    const { from, to } = piece.ranges[worst]!
    if (at <= from + leastVarianceG2 || at >= to - leastVarianceG2) continue
    look(piece.ranges.map((range, i) => i === worst ? { from, to: at } : range))
    look(piece.ranges.map((range, i) => i === worst ? { from: at, to } : range))
  }
}
