import { addEstimates, estimateOf, type Estimate } from '../estimate'
import { lineEstimate } from '../evidence'
import type { Observation } from '../ledger'
import type { HonestyTable } from '../listings'
import { factorise, solve, type Factor } from './cholesky'

/** What an observation weighs: the estimates of what was on the pan, and the display corrected, with the weighing's own causes. */
export interface ObservedSum {
  readonly id: string
  readonly parts: readonly Estimate[]
  /** `display = Σ parts + Σ dₖzₖ`. */
  readonly observed: Estimate
}

/** The estimates of what was on the pan, as the lines were when it was weighed. */
export function observedSum(observation: Observation, honesty: HonestyTable): ObservedSum {
  return {
    id: observation.id,
    parts: observation.subjects.map(subject => lineEstimate(subject, honesty)),
    observed: { valueG: observation.valueG, contributions: observation.contributions },
  }
}

/** Row of A: how the prediction of the display departs with each cause. Its value is the prediction. */
function rowOf({ parts, observed }: ObservedSum): Estimate {
  return addEstimates([...parts, { valueG: 0, contributions: observed.contributions }])
}

function dot(a: Estimate, b: Estimate): number {
  let sum = 0
  for (const key in a.contributions) {
    const other = b.contributions[key]
    if (other !== undefined) sum += a.contributions[key]! * other
  }
  return sum
}

/**
 * What weighings of several lines together say of every cause in them (conditioning of a normal vector on linear
 * observations). `of` turns an estimate made before into one made after: its value moves by what was learnt of its
 * causes, and its coefficients are those of the same independent causes after projection, so that estimates go on being
 * added key by key. What shares no cause with any observation is given back as it is. Source: GUM supplement 2 (JCGM 102:2011), 6;
 * Kalman update written on standard causes.
 */
export class Conditioning {
  private readonly rows: readonly Estimate[]
  private readonly factor: Factor
  private readonly learnt = new Map<string, number>()
  private readonly keptRows: readonly Estimate[]
  /** Ids of observations that contradict the others exactly: they were left out. */
  readonly contradictions: readonly string[]

  constructor(sums: readonly ObservedSum[]) {
    this.rows = sums.map(rowOf)
    this.factor = factorise(sums.length, (i, j) => dot(this.rows[i]!, this.rows[j]!))
    this.keptRows = this.factor.kept.map(i => this.rows[i]!)
    const residuals = this.factor.kept.map(i => sums[i]!.observed.valueG - this.rows[i]!.valueG)
    const weights = solve(this.factor, residuals)
    this.keptRows.forEach((row, i) => {
      for (const key in row.contributions) this.learnt.set(key, (this.learnt.get(key) ?? 0) + row.contributions[key]! * weights[i]!)
    })
    this.contradictions = sums.flatMap((sum, i) => {
      if (this.factor.kept.includes(i)) return []
      return Math.abs(sum.observed.valueG - this.of(this.rows[i]!).valueG) > 1e-6 ? [sum.id] : []
    })
  }

  /** Whether a cause stands in an observation: such causes are shared between lines afterwards. */
  touches(key: string): boolean {
    return this.learnt.has(key)
  }

  /** The estimate after the observations. */
  of(before: Estimate): Estimate {
    let touched = false
    let valueG = before.valueG
    for (const key in before.contributions) {
      const mean = this.learnt.get(key)
      if (mean === undefined) continue
      touched = true
      valueG += before.contributions[key]! * mean
    }
    if (!touched) return before
    const gains = solve(this.factor, this.keptRows.map(row => dot(before, row)))
    const contributions: Record<string, number> = { ...before.contributions }
    this.keptRows.forEach((row, i) => {
      for (const key in row.contributions) contributions[key] = (contributions[key] ?? 0) - row.contributions[key]! * gains[i]!
    })
    return estimateOf(valueG, contributions)
  }
}
