import { lpRelaxation, type LinearSolver } from './linear-program'
import { xName, PlanProgram } from './program'
import { costOf, reachesGoals, requireProblem, type ShavingItem, type ShavingProblem } from './problem'

/** A plan: the changes to make, what they cost under the weights, and how far it is proven to be the best. */
export interface ShavingPlan {
  readonly status: 'best'
  readonly items: readonly ShavingItem[]
  readonly cost: number
}
/** The best plan found before the time ran out; nothing can cost less than `bound`. */
export interface UnprovenPlan {
  readonly status: 'unproven'
  readonly items: readonly ShavingItem[]
  readonly cost: number
  readonly bound: number
}
/** No plan reaches the goals; the nearest falls short by so many grams. */
export interface NoPlan {
  readonly status: 'none'
  readonly shortfallG: number
  readonly nearest: readonly ShavingItem[]
}
/** What is locked, excluded and needed cannot be had together; or it can, but not under the caps. */
export interface Contradiction {
  readonly status: 'contradiction'
  readonly between: 'locks' | 'caps'
}
/** The time ran out before any plan was found. */
export interface GivenUp {
  readonly status: 'given up'
}
export type PlanAnswer = ShavingPlan | UnprovenPlan | NoPlan | Contradiction | GivenUp

export interface PlanOptions {
  readonly seconds: number
  /** Seconds that have passed since the start; the core has no clock of its own. */
  readonly elapsed: () => number
  /** Plans that may not come again, by the ids of their changes. */
  readonly notAgain?: readonly (readonly string[])[]
  /** A last word on a plan by the whole ledger; one that fails it is set aside and the search goes on. */
  readonly isClear?: (items: readonly ShavingItem[]) => boolean
}
type Time = Pick<PlanOptions, 'seconds' | 'elapsed'>

/** After so many rounds of cuts the guards are held by chords as well: where prices run with grams, cuts alone take many rounds. */
const roundsBeforeChords = 1
/** The least of the greatest shortfalls is known to this, grams. */
const shortfallToleranceG = 1e-7

/**
 * The search for the cheapest plan that brings every loadout to its goal, exactly. It can be run again with more time, and then
 * goes on where it was.
 *
 * A plan is Clear when m(x) + k·√W(x) lies under its goal, and √W is convex in x: any tangent of it lies under it. The cheapest
 * plan of a program with some tangents in place of the guard costs no more than the best; where it is truly Clear it is the
 * best, otherwise its own tangent removes it, and no Clear plan, and the program is solved again.
 */
export class PlanSearch {
  private readonly program: PlanProgram
  private readonly met = new Set<string>()
  private incumbent: ShavingPlan | null = null
  private bound = 0
  private rounds = 0
  /** Once no plan is known to reach the goals: whether the rules can be kept at all, and the nearest met so far. */
  private nothingDoes = false
  private rulesAreKept = false
  private nearest: { readonly plan: readonly number[]; readonly shortfallG: number } | null = null

  constructor(
    private readonly problem: ShavingProblem,
    private readonly solve: LinearSolver,
    private readonly options: Pick<PlanOptions, 'notAgain' | 'isClear'> = {},
  ) {
    requireProblem(problem)
    this.program = new PlanProgram(problem)
    const nothing = new Float64Array(problem.items.length)
    problem.targets.forEach(({ guard }, t) => {
      if (guard > 0) this.program.cutAt(t, nothing)
    })
    const index = new Map(problem.items.map((item, i) => [item.id, i]))
    for (const plan of options.notAgain ?? []) this.program.ruleOut(plan.map(id => index.get(id)!))
  }

  /** Searches until the best plan is proven or the time is over. */
  run(time: Time): PlanAnswer {
    if (this.nothingDoes) return this.minimiseShortfall(time)
    for (;;) {
      const left = time.seconds - time.elapsed()
      if (left <= 0) return this.bestKnown()
      const program = this.program.program('least cost')
      const answer = this.solve(program, left)
      if (answer.status === 'infeasible') return this.incumbent ?? this.minimiseShortfall(time)
      const plan = answer.values ? chosen(this.problem, answer.values) : null
      if (answer.status === 'stopped') {
        const relaxation = this.solve(lpRelaxation(program), 5)
        if (relaxation.status === 'optimal') this.bound = Math.max(this.bound, relaxation.objective)
        if (plan && this.isFeasible(plan)) this.updateIncumbent(plan)
        return this.bestKnown()
      }
      this.bound = Math.max(this.bound, answer.objective)
      if (this.incumbent && this.incumbent.cost <= answer.objective + 1e-9) return this.incumbent
      if (this.isFeasible(plan!)) {
        this.updateIncumbent(plan!)
        return this.incumbent!
      }
      this.cutOff(plan!)
    }
  }

  /** Removes a plan that is not truly Clear, with as much else as can be said. */
  private cutOff(plan: readonly number[]) {
    const shares = sharesOf(this.problem, plan)
    const signature = plan.join()
    let isCut = false
    if (!this.met.has(signature)) {
      this.problem.targets.forEach(({ guard }, t) => {
        if (guard > 0 && this.program.shortfallG(t, shares) > 1e-9) isCut = this.program.cutAt(t, shares) || isCut
      })
    }
    this.met.add(signature)
    // Clear by the sums but not by the whole ledger, come again, or without a slope: this one plan is ruled out.
    if (!isCut) this.program.ruleOut(plan)
    if (++this.rounds >= roundsBeforeChords && !this.program.hasChords) {
      const nodeRelaxation = this.solve(lpRelaxation(this.program.program('least cost')), 5)
      this.program.useChords(
        nodeRelaxation.status === 'optimal'
          ? this.problem.items.map((_, i) => nodeRelaxation.values.get(xName(i)) ?? 0)
          : shares,
      )
    }
  }

  /** What is known when the time is over. */
  private bestKnown(): UnprovenPlan | GivenUp {
    if (!this.incumbent) return { status: 'given up' }
    const { items, cost } = this.incumbent
    return { status: 'unproven', items, cost, bound: Math.min(cost, Math.max(0, this.bound)) }
  }

  private updateIncumbent(plan: readonly number[]) {
    const items = plan.map(i => this.problem.items[i]!)
    const cost = items.reduce((sum, item) => sum + costOf(item, this.problem.spare), 0)
    if (!this.incumbent || cost < this.incumbent.cost) this.incumbent = { status: 'best', items, cost }
  }

  private isFeasible(plan: readonly number[]): boolean {
    const items = plan.map(i => this.problem.items[i]!)
    return reachesGoals(this.problem, items) && (this.options.isClear?.(items) ?? true)
  }

  /** The least of the greatest shortfalls where no plan reaches the goals; or that the rules cannot be kept at all. */
  private minimiseShortfall(time: Time): NoPlan | Contradiction | GivenUp {
    this.nothingDoes = true
    const left = () => Math.max(0.05, time.seconds - time.elapsed())
    if (!this.rulesAreKept) {
      const any = this.solve(this.program.program('any plan'), left())
      if (any.status === 'infeasible')
        return {
          status: 'contradiction',
          between: this.solve(this.program.program('any plan', {}), left()).status === 'infeasible' ? 'locks' : 'caps',
        }
      this.rulesAreKept = any.status === 'optimal'
    }
    const met = new Set<string>()
    while (time.elapsed() <= time.seconds) {
      const answer = this.solve(this.program.program('least shortfall'), left())
      if (answer.status === 'infeasible' || !answer.values) break
      const plan = chosen(this.problem, answer.values)
      const shares = sharesOf(this.problem, plan)
      const shortfalls = this.problem.targets.map((_, t) => this.program.shortfallG(t, shares))
      const shortfallG = Math.max(...shortfalls)
      if (!this.nearest || shortfallG < this.nearest.shortfallG) this.nearest = { plan, shortfallG }
      if (
        answer.status === 'stopped' ||
        this.nearest.shortfallG <= answer.objective + shortfallToleranceG ||
        met.has(plan.join())
      )
        break
      met.add(plan.join())
      shortfalls.forEach((shortfall, t) => {
        if (shortfall > answer.objective && this.problem.targets[t]!.guard > 0) this.program.cutAt(t, shares)
      })
    }
    return this.nearest
      ? {
          status: 'none',
          shortfallG: this.nearest.shortfallG,
          nearest: this.nearest.plan.map(i => this.problem.items[i]!),
        }
      : { status: 'given up' }
  }
}

/** The cheapest plan that brings every loadout to its goal, as far as the time allows. */
export function bestPlan(problem: ShavingProblem, solve: LinearSolver, options: PlanOptions): PlanAnswer {
  return new PlanSearch(problem, solve, options).run(options)
}

function chosen({ items }: ShavingProblem, values: ReadonlyMap<string, number>): number[] {
  return items.flatMap((_, i) => ((values.get(xName(i)) ?? 0) > 0.5 ? [i] : []))
}
function sharesOf({ items }: ShavingProblem, plan: readonly number[]): Float64Array {
  const shares = new Float64Array(items.length)
  for (const i of plan) shares[i] = 1
  return shares
}
