import { measures, type CostMeasure } from '../../model/data'
import { CoreInputError, requireFinite, requireNotNegative } from '../../basics/errors'

/** What one shaving costs, in the measures a builder may want to spare. */
export interface ShavingCost {
  /** Whole cents. */
  readonly cents: number
  readonly minutes: number
  /** What is given up, 0 (nothing) to 5, the builder's own judgement. */
  readonly loss: number
  /** Whether it cannot be undone. */
  readonly forGood: boolean
  /** What it brings, 0 to 5; only where something is put on. */
  readonly gain?: number
}

/** One possible change, as the optimiser sees it: grams off and what changes in the causes of the weight, in each loadout looked at. */
export interface ShavingItem extends ShavingCost {
  readonly id: string
  /** Grams taken off, one figure a loadout; negative where it puts grams on. */
  readonly gramsG: readonly number[]
  /** What it changes in the causes of the weight, grams by the key of the cause, one set a loadout. */
  readonly changes: readonly Readonly<Record<string, number>>[]
  /** Must be done, must not, or free. */
  readonly lock: 'in' | 'out' | null
}

/** What one loadout must come down to. */
export interface ShavingTarget {
  /** Weight now, and its causes: independent ones, grams by key (after everything weighed together). */
  readonly massG: number
  readonly contributions: Readonly<Record<string, number>>
  /** Limit less the reserve to keep. */
  readonly goalG: number
  /** Guard factor k = Φ⁻¹(confidence); 0 where only the mean counts. */
  readonly guard: number
}

/** What is to be spared: how much each measure weighs. At least one is above zero. */
export interface ObjectiveWeights {
  readonly cents: number
  readonly minutes: number
  readonly loss: number
  readonly changes: number
  readonly forGood: number
  readonly gain?: number
}

/** The shavings that take grams off one line, what each takes, and what the line weighs. */
export interface LineBudget {
  readonly ids: readonly string[]
  readonly gramsG: readonly number[]
  readonly mostG: number
}

/** A shaving problem: which changes to make so that every loadout comes to its goal, at the least cost. */
export interface ShavingProblem {
  readonly items: readonly ShavingItem[]
  readonly targets: readonly ShavingTarget[]
  /** Groups of ids of which at most one may be done. */
  readonly groups: readonly (readonly string[])[]
  /** Pairs: the first may be done only with the second. */
  readonly needs: readonly (readonly [string, string])[]
  /** What the shavings of one line take off it together is at most what it weighs. None where nothing is said. */
  readonly lines?: readonly LineBudget[]
  readonly caps: { readonly cents?: number; readonly minutes?: number; readonly loss?: number }
  readonly spare: ObjectiveWeights
}

/**
 * Weights that spare one measure first; the others only decide between plans equal in it, and so hardly count.
 */
export function minimiseFirst(measure: CostMeasure): ObjectiveWeights {
  const small = { cents: 1e-6, minutes: 1e-4, loss: 1e-3, changes: 1e-3, forGood: 1e-3 }
  return { ...small, [measure]: 1 }
}

/** Weights that want as much as possible of what is brought, and spare one measure among equals. */
export function maximiseBenefit(measure: CostMeasure): ObjectiveWeights {
  const small = { cents: 1e-6, minutes: 1e-5, loss: 1e-3, changes: 1e-4, forGood: 1e-4 }
  return { ...small, [measure]: 10 * small[measure], gain: 1 }
}

/** What an item costs under the weights, less what it brings. */
export function costOf(item: ShavingCost, spare: ObjectiveWeights): number {
  return (
    spare.cents * item.cents +
    spare.minutes * item.minutes +
    spare.loss * item.loss +
    spare.changes +
    spare.forGood * Number(item.forGood) -
    (spare.gain ?? 0) * (item.gain ?? 0)
  )
}

/** Comparisons of grams are made with this tolerance, as in verdicts. */
export const toleranceG = 1e-9

/**
 * Grams by which a set of changes misses the goal of a loadout; zero or less when it is reached. Causes of one key add
 * before they are squared.
 */
export function shortfallG(target: ShavingTarget, items: readonly ShavingItem[], loadout: number): number {
  let massG = target.massG
  const causes = new Map(Object.entries(target.contributions))
  for (const item of items) {
    massG -= item.gramsG[loadout]!
    const change = item.changes[loadout]!
    for (const key in change) causes.set(key, (causes.get(key) ?? 0) + change[key]!)
  }
  let varianceG2 = 0
  for (const coefficientG of causes.values()) varianceG2 += coefficientG ** 2
  return massG + target.guard * Math.sqrt(varianceG2) - target.goalG
}

/** Whether a set of changes brings every loadout to its goal. */
export function reachesGoals(problem: ShavingProblem, items: readonly ShavingItem[]): boolean {
  return problem.targets.every((target, loadout) => shortfallG(target, items, loadout) <= toleranceG)
}

/** Throws {@link CoreInputError} where a problem cannot be meant: figures not finite, unknown ids, costs below zero. */
export function requireProblem({ items, targets, groups, needs, lines, spare }: ShavingProblem): void {
  const where = 'shaving'
  const ids = new Set(items.map(item => item.id))
  if (ids.size !== items.length)
    throw new CoreInputError(where, 'items', items.length, { is: 'fitting', what: 'all with ids of their own' })
  for (const item of items) {
    if (item.gramsG.length !== targets.length || item.changes.length !== targets.length)
      throw new CoreInputError(where, 'gramsG', item.gramsG.length, {
        is: 'fitting',
        what: `one figure for each of ${targets.length} loadouts`,
      })
    for (const value of [...item.gramsG, ...item.changes.flatMap(change => Object.values(change))])
      requireFinite(where, 'gramsG', value)
    requireNotNegative(where, 'cents', item.cents)
    requireNotNegative(where, 'minutes', item.minutes)
    requireNotNegative(where, 'loss', item.loss)
    requireNotNegative(where, 'gain', item.gain ?? 0)
  }
  for (const { massG, contributions, goalG, guard } of targets) {
    requireFinite(where, 'massG', massG)
    requireFinite(where, 'goalG', goalG)
    for (const coefficientG of Object.values(contributions)) requireFinite(where, 'contributions', coefficientG)
    requireNotNegative(where, 'guard', guard)
  }
  for (const id of [...groups.flat(), ...needs.flat(), ...(lines ?? []).flatMap(line => line.ids)])
    if (!ids.has(id)) throw new CoreInputError(where, 'id', id, { is: 'one of', what: 'one of the shavings' })
  for (const measure of measures) requireNotNegative(where, measure, spare[measure])
  if (measures.every(measure => spare[measure] === 0))
    throw new CoreInputError(where, 'spare', 0, { is: 'fitting', what: 'something to spare' })
}
