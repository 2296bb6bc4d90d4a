import type { LinearProgram, LinearRow } from './linear-program'
import { costOf, type ShavingProblem } from './problem'
import { dot, restOf, SpreadOfPlan, type LinearParts } from './spread-of-plan'

/** Room of a row, grams: what is true by decimals is not refused by binary dust. */
const slackG = 1e-8
/** Below this the root of the variance has no slope to cut along, g². */
const leastVarianceG2 = 1e-12
/** Chords the root is replaced by, of equal width in the root. */
const chords = 24

export const xName = (index: number) => `x${index}`

/** A condition `Σ coefficients·x ≥ least` that every plan reaching the goal of a loadout keeps. */
interface Cut {
  readonly loadout: number
  readonly coefficients: readonly number[]
  readonly least: number
}

/** One loadout with its guard by chords instead of cuts alone. */
interface Chorded {
  readonly loadout: number
  readonly parts: LinearParts
  readonly tangents: Float64Array[]
}

/**
 * The rows a plan has to keep, growing while it is searched: the rules of the problem, cuts along the slope of the guard where
 * plans were found that are not truly clear, plans ruled out one by one, and, where cuts alone take too many rounds, the guard
 * by chords.
 */
export class PlanProgram {
  readonly spreads: readonly SpreadOfPlan[]
  private readonly cuts: Cut[] = []
  private readonly ruledOut: (readonly number[])[] = []
  private chorded: Chorded[] | null = null

  constructor(private readonly problem: ShavingProblem) {
    this.spreads = problem.targets.map((target, t) => new SpreadOfPlan(target, problem.items, t))
  }

  /** Grams by which a plan misses the goal of a loadout. */
  shortfallG(loadout: number, shares: ArrayLike<number>): number {
    const { massG, goalG, guard } = this.problem.targets[loadout]!
    const spread = this.spreads[loadout]!
    let grams = massG - goalG
    this.problem.items.forEach((item, i) => {
      grams -= item.gramsG[loadout]! * shares[i]!
    })
    return guard === 0 ? grams : grams + guard * Math.sqrt(spread.varianceG2(spread.at(shares)))
  }

  /**
   * Adds the tangent of the guard at a point (a plan, or a point between plans): it lies under the guard everywhere, so it
   * removes no plan that reaches the goal, and removes the plan it was made at where that does not. False where there is no slope.
   */
  cutAt(loadout: number, shares: ArrayLike<number>): boolean {
    const { massG, goalG, guard } = this.problem.targets[loadout]!
    const spread = this.spreads[loadout]!
    const coefficients = spread.at(shares)
    const variance = spread.varianceG2(coefficients)
    if (variance < leastVarianceG2) return false
    const sigma = Math.sqrt(variance)
    const slopes = spread.gradient(coefficients, sigma)
    const atPoint = slopes.reduce((sum, slope, i) => sum + slope * shares[i]!, 0)
    this.cuts.push({
      loadout,
      coefficients: this.problem.items.map((item, i) => item.gramsG[loadout]! - guard * slopes[i]!),
      least: massG + guard * (sigma - atPoint) - goalG,
    })
    for (const one of this.chorded ?? []) if (one.loadout === loadout) one.tangents.push(restOf(one.parts, shares))
    return true
  }

  /** This very plan does not come again. */
  ruleOut(plan: readonly number[]): void {
    this.ruledOut.push(plan)
  }

  get hasChords(): boolean {
    return this.chorded !== null
  }

  /** From now on the guards are also held by chords; the first tangents are taken at a point between plans. */
  useChords(between: ArrayLike<number>): void {
    const groupsOf = this.problem.items.map(
      item => new Set(this.problem.groups.flatMap((group, g) => (group.includes(item.id) ? [g] : []))),
    )
    const exclusive = (i: number, j: number) => [...groupsOf[i]!].some(g => groupsOf[j]!.has(g))
    this.chorded = this.problem.targets.flatMap(({ guard }, loadout) => {
      if (guard === 0 || !this.spreads[loadout]!.isMoved) return []
      const parts = this.spreads[loadout]!.parts(exclusive)
      return [{ loadout, parts, tangents: [restOf(parts, between)] }]
    })
  }

  /** The program as it stands. `goal`: the least cost, the least of the greatest misses, or any plan the rules allow at all. */
  program(goal: 'least cost' | 'least shortfall' | 'any plan', caps = this.problem.caps): LinearProgram {
    const { items, targets, groups, needs, lines, spare } = this.problem
    const index = new Map(items.map((item, i) => [item.id, xName(i)]))
    const each = (values: readonly number[]) => new Map(items.map((_, i) => [xName(i), values[i]!]))
    const rows: LinearRow[] = []
    const extra: { binaries: string[]; continuous: LinearProgram['continuous'][number][] } = {
      binaries: [],
      continuous: [],
    }
    if (goal !== 'any plan') {
      const reach = (coefficients: Map<string, number>, least: number) => {
        if (goal === 'least shortfall') coefficients.set('miss', 1)
        rows.push({ coefficients, least: least - slackG })
      }
      targets.forEach(({ massG, goalG }, t) => reach(each(items.map(item => item.gramsG[t]!)), massG - goalG))
      for (const cut of this.cuts) reach(each(cut.coefficients), cut.least)
      for (const one of this.chorded ?? []) this.chordRows(one, rows, extra, reach, each)
    }
    for (const group of groups)
      if (group.length > 1) rows.push({ coefficients: new Map(group.map(id => [index.get(id)!, 1])), most: 1 })
    for (const { ids, gramsG, mostG } of lines ?? [])
      rows.push({ coefficients: new Map(ids.map((id, i) => [index.get(id)!, gramsG[i]!])), most: mostG + slackG })
    for (const [first, second] of needs)
      rows.push({
        coefficients: new Map([
          [index.get(first)!, 1],
          [index.get(second)!, -1],
        ]),
        most: 0,
      })
    items.forEach((item, i) => {
      if (item.lock)
        rows.push({ coefficients: new Map([[xName(i), 1]]), ...(item.lock === 'in' ? { least: 1 } : { most: 0 }) })
    })
    for (const measure of ['cents', 'minutes', 'loss'] as const)
      if (caps[measure] !== undefined)
        rows.push({ coefficients: each(items.map(item => item[measure])), most: caps[measure] })
    for (const plan of goal === 'least cost' ? this.ruledOut : []) {
      const inside = new Set(plan)
      rows.push({ coefficients: each(items.map((_, i) => (inside.has(i) ? -1 : 1))), least: 1 - inside.size })
    }
    const objective =
      goal === 'least shortfall'
        ? new Map([['miss', 1]])
        : goal === 'any plan'
          ? new Map<string, number>()
          : each(items.map(item => costOf(item, spare)))
    return {
      goal: 'least',
      objective,
      rows,
      binaries: [...items.map((_, i) => xName(i)), ...extra.binaries],
      continuous: [
        ...(goal === 'least shortfall' ? [{ name: 'miss', least: -1e5, most: 1e5 }] : []),
        ...extra.continuous,
      ],
    }
  }

  /**
   * √W under its chords: W at least start + Σ slopes·x + s (more would only ask for more) with s at least every tangent
   * of the part that is not linear, W in one
   * segment, and there the root at least its chord.
   */
  private chordRows(
    { loadout, parts, tangents }: Chorded,
    rows: LinearRow[],
    extra: { binaries: string[]; continuous: LinearProgram['continuous'][number][] },
    reach: (coefficients: Map<string, number>, least: number) => void,
    each: (values: readonly number[]) => Map<string, number>,
  ) {
    const { items, targets } = this.problem
    const { massG, goalG, guard } = targets[loadout]!
    const { slopes, rest, startG2 } = parts
    const norms = rest.map(({ byG }) => Math.hypot(...byG))
    const mostRest = norms.reduce((sum, norm) => sum + norm, 0) ** 2
    const [low, high] = [
      Math.sqrt(Math.max(0, startG2 + slopes.reduce((sum, slope) => sum + Math.min(0, slope), 0))),
      Math.sqrt(Math.max(0, startG2 + slopes.reduce((sum, slope) => sum + Math.max(0, slope), 0) + mostRest)) + 1e-9,
    ]
    const s = `s${loadout}`
    extra.continuous.push({ name: s, least: 0, most: mostRest + 1 })
    for (const tangent of tangents) {
      const row = each(rest.map(one => -2 * dot(one, tangent)))
      row.set(s, 1)
      rows.push({ coefficients: row, least: -tangent.reduce((sum, c) => sum + c * c, 0) })
    }
    const whole = each(slopes.map(slope => -slope))
    whole.set(s, -1)
    const guarded = each(items.map(item => item.gramsG[loadout]!))
    const one = new Map<string, number>()
    for (let j = 0; j < chords; j++) {
      const [from, to] = [low + ((high - low) * j) / chords, low + ((high - low) * (j + 1)) / chords]
      const [z, w] = [`z${loadout}.${j}`, `w${loadout}.${j}`]
      extra.binaries.push(z)
      extra.continuous.push({ name: w, least: 0, most: high ** 2 })
      rows.push(
        {
          coefficients: new Map([
            [w, 1],
            [z, -(from ** 2)],
          ]),
          least: 0,
        },
        {
          coefficients: new Map([
            [w, 1],
            [z, -(to ** 2)],
          ]),
          most: 0,
        },
      )
      one.set(z, 1)
      whole.set(w, 1)
      const slope = 1 / (from + to)
      guarded.set(z, -guard * (from - slope * from ** 2))
      guarded.set(w, -guard * slope)
    }
    rows.push({ coefficients: one, least: 1, most: 1 }, { coefficients: whole, least: startG2 - 1e-9 })
    reach(guarded, massG - goalG)
  }
}
