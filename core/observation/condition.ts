import { addEstimates, estimateOf, type Estimate } from '../estimate'
import { asObserved } from '../scale'
import { lineEstimate } from '../evidence'
import { isPresentPiece, type Build, type Line, type Observation, type Subject, type Weighed } from '../ledger'
import type { HonestyTable } from '../listings'
import { factorise, solve, type Factor } from './cholesky'

/** What an observation weighs: the estimates of what was on the pan, and the display corrected, with the weighing's own causes. */
export interface ObservedSum {
  readonly id: string
  readonly parts: readonly Estimate[]
  /** `display = Σ parts + Σ dₖzₖ`. */
  readonly observed: Estimate
}

/** What was on the pan as it is known by now: while the line is still the same piece, as the line is. */
export function asKnownNow(subject: Subject, lines: ReadonlyMap<string, Line>): Weighed {
  const line = lines.get(subject.id)
  if (!line?.mass || line.mass === subject.mass || !isPresentPiece(subject, line)) return subject
  return { slot: line.slot, quantity: subject.quantity, mass: line.mass }
}

/** The estimates of what was on the pan, as far as it is known by now. What has no grams yet counts as exactly 0 g. */
export function observedSum(observation: Observation, lines: ReadonlyMap<string, Line>, honesty: HonestyTable): ObservedSum {
  return {
    id: observation.id,
    parts: observation.subjects.map(subject => lineEstimate(asKnownNow(subject, lines), honesty)),
    observed: { valueG: observation.valueG, contributions: observation.contributions },
  }
}

/** A weighing of one line beside its estimate, as an observation of it. */
function furtherSums(line: Line, honesty: HonestyTable): ObservedSum[] {
  return line.further.flatMap(({ mass, of }) => {
    const known = of ?? (line.mass && { quantity: line.quantity, mass: line.mass })
    if (!known) return []
    const { slot } = line
    const observed = lineEstimate({ slot, quantity: known.quantity, mass }, honesty)
    return [{ id: mass.versionId, parts: [lineEstimate({ slot, ...known }, honesty)], observed: asObserved(observed) }]
  })
}

/**
 * Everything the weighings of a build say: those of several lines that are taken in, and those of single lines beside their
 * estimates. A weighing with something on the pan that nobody has said the grams of says nothing until somebody has.
 */
export function observedSums(build: Pick<Build, 'lines' | 'observations'>, honesty: HonestyTable): ObservedSum[] {
  const lines = new Map(build.lines.map(line => [line.id, line]))
  const together = build.observations
    .filter(o => o.state === 'taken in' && o.subjects.every(subject => asKnownNow(subject, lines).mass !== null))
    .map(o => observedSum(o, lines, honesty))
  return [...together, ...build.lines.flatMap(line => line.further.length === 0 ? [] : furtherSums(line, honesty))]
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
  private readonly weights: ArrayLike<number>
  private readonly ids: readonly string[]
  /** Ids of observations that contradict the others exactly: they were left out. */
  readonly contradictions: readonly string[]

  constructor(sums: readonly ObservedSum[]) {
    this.rows = sums.map(rowOf)
    this.factor = factorise(sums.length, (i, j) => dot(this.rows[i]!, this.rows[j]!))
    this.keptRows = this.factor.kept.map(i => this.rows[i]!)
    const residuals = this.factor.kept.map(i => sums[i]!.observed.valueG - this.rows[i]!.valueG)
    const weights = solve(this.factor, residuals)
    this.weights = weights
    this.ids = this.factor.kept.map(i => sums[i]!.id)
    this.keptRows.forEach((row, i) => {
      for (const key in row.contributions) this.learnt.set(key, (this.learnt.get(key) ?? 0) + row.contributions[key]! * weights[i]!)
    })
    this.contradictions = sums.flatMap((sum, i) => {
      if (this.factor.kept.includes(i)) return []
      return Math.abs(sum.observed.valueG - this.of(this.rows[i]!).valueG) > 1e-6 ? [sum.id] : []
    })
  }

  /** How much each observation moves an estimate, grams, largest first; those that leave it alone are left out. */
  shiftsOf(before: Estimate): { readonly id: string, readonly shiftG: number }[] {
    return this.keptRows.map((row, i) => ({ id: this.ids[i]!, shiftG: dot(before, row) * this.weights[i]! }))
      .filter(({ shiftG }) => shiftG !== 0).sort((a, b) => Math.abs(b.shiftG) - Math.abs(a.shiftG))
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
