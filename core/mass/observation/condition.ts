import { addEstimates, contributionsOf, estimateOf, varianceG2, type Estimate } from '../../maths/estimate'
import { asObserved } from '../scale'
import { lineEstimate } from '../evidence'
import { isPresentPiece, type Build, type Line, type Observation, type Subject, type Weighed } from '../../model/ledger'
import type { ListingBiasTable } from '../listings'
import { factorise, solve, type Factor } from '../../maths/matrix'

/** What an observation weighs: the estimates of what was on the pan, and the display corrected, with the weighing's own causes. */
export interface LinearObservation {
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
export function linearObservation(
  observation: Observation,
  lines: ReadonlyMap<string, Line>,
  honesty: ListingBiasTable,
  estimateOfPart: (part: Weighed) => Estimate = part => lineEstimate(part, honesty),
): LinearObservation {
  return {
    id: observation.id,
    parts: observation.subjects.map(subject => estimateOfPart(asKnownNow(subject, lines))),
    observed: { valueG: observation.valueG, contributions: observation.contributions },
  }
}

/** Estimates of parts, each made once for the same grams of as many pieces: many weighings are of the same parts. */
function rememberedEstimates(honesty: ListingBiasTable): (part: Weighed) => Estimate {
  const made = new Map<Weighed['mass'], { readonly part: Weighed; readonly estimate: Estimate }[]>()
  return part => {
    const known = made.get(part.mass) ?? []
    const same = known.find(one => one.part.slot === part.slot && one.part.quantity === part.quantity)
    if (same) return same.estimate
    const estimate = lineEstimate(part, honesty)
    made.set(part.mass, [...known, { part, estimate }])
    return estimate
  }
}

/** Weighings one after another of the very same parts name one list of them. */
function withPartsShared(sums: readonly LinearObservation[]): LinearObservation[] {
  let last: readonly Estimate[] = []
  return sums.map(sum => {
    const isSame = sum.parts.length === last.length && sum.parts.every((part, i) => part === last[i])
    if (!isSame) last = sum.parts
    return isSame ? { ...sum, parts: last } : sum
  })
}

/** A weighing of one line beside its estimate, as an observation of it. */
function furtherSums(line: Line, honesty: ListingBiasTable): LinearObservation[] {
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
export function linearObservations(
  build: Pick<Build, 'lines' | 'observations'>,
  honesty: ListingBiasTable,
): LinearObservation[] {
  const lines = new Map(build.lines.map(line => [line.id, line]))
  const estimateOfPart = rememberedEstimates(honesty)
  const together = build.observations
    .filter(o => o.state === 'taken in' && o.subjects.every(subject => asKnownNow(subject, lines).mass !== null))
    .map(o => linearObservation(o, lines, honesty, estimateOfPart))
  return [
    ...withPartsShared(together),
    ...build.lines.flatMap(line => (line.further.length === 0 ? [] : furtherSums(line, honesty))),
  ]
}

/** Rows of A: how the prediction of each display departs with each cause. Their values are the predictions. */
function rowsOf(sums: readonly LinearObservation[]): Estimate[] {
  const onPan = new Map<readonly Estimate[], Estimate>()
  return sums.map(({ parts, observed }) => {
    const together = onPan.get(parts) ?? addEstimates(parts)
    onPan.set(parts, together)
    return addEstimates([together, { valueG: 0, contributions: observed.contributions }])
  })
}

/** An estimate after observations: value and variance at once, the coefficients only when they are asked for. */
class Conditioned implements Estimate {
  private expanded: Readonly<Record<string, number>> | null = null
  constructor(
    readonly valueG: number,
    readonly knownVarianceG2: number,
    private readonly expand: () => Readonly<Record<string, number>>,
  ) {}

  get contributions(): Readonly<Record<string, number>> {
    return (this.expanded ??= this.expand())
  }
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
  private readonly weights: ArrayLike<number>
  private readonly ids: readonly string[]
  /** The coefficients of each cause in the observations that count, by cause. */
  private readonly byKey = new Map<string, { readonly rows: number[]; readonly coefficientsG: number[] }>()
  /** Ids of observations that contradict the others exactly: they were left out. */
  readonly contradictions: readonly string[]

  constructor(sums: readonly LinearObservation[]) {
    const all = rowsOf(sums)
    this.factor = factorise(sums.length, productsOf(all))
    this.rows = this.factor.kept.map(i => all[i]!)
    this.ids = this.factor.kept.map(i => sums[i]!.id)
    this.rows.forEach((row, r) => {
      for (const key in row.contributions) {
        const met = this.byKey.get(key)
        if (met) {
          met.rows.push(r)
          met.coefficientsG.push(row.contributions[key]!)
        } else {
          this.byKey.set(key, { rows: [r], coefficientsG: [row.contributions[key]!] })
        }
      }
    })
    this.weights = solve(
      this.factor,
      this.factor.kept.map(i => sums[i]!.observed.valueG - all[i]!.valueG),
    )
    this.contradictions = sums.flatMap((sum, i) => {
      if (this.factor.kept.includes(i)) return []
      return Math.abs(sum.observed.valueG - this.of(all[i]!).valueG) > 1e-6 ? [sum.id] : []
    })
  }

  /** How many observations count. */
  get size(): number {
    return this.rows.length
  }

  /** What an estimate has in common with each observation, g²; null where it has nothing. Sums of estimates have the sums of these. */
  inCommon(before: Estimate): Float64Array | null {
    let common: Float64Array | null = null
    for (const key in before.contributions) {
      const met = this.byKey.get(key)
      if (!met) continue
      common ??= new Float64Array(this.rows.length)
      for (let i = 0; i < met.rows.length; i++)
        common[met.rows[i]!]! += met.coefficientsG[i]! * before.contributions[key]!
    }
    return common
  }

  /** How far something moves by what was learnt, grams, from what it has in common with the observations. */
  shiftG(common: Float64Array): number {
    let shift = 0
    for (let i = 0; i < common.length; i++) shift += common[i]! * this.weights[i]!
    return shift
  }

  /** By how much a variance falls, or a covariance, g². */
  knownG2(a: Float64Array, b: Float64Array = a): number {
    const gains = solve(this.factor, b)
    let known = 0
    for (let i = 0; i < a.length; i++) known += a[i]! * gains[i]!
    return known
  }

  /** How much each observation moves an estimate, grams, largest first; those that leave it alone are left out. */
  shiftsOf(before: Estimate): { readonly id: string; readonly shiftG: number }[] {
    const common = this.inCommon(before)
    if (!common) return []
    return this.ids
      .map((id, i) => ({ id, shiftG: common[i]! * this.weights[i]! }))
      .filter(({ shiftG }) => shiftG !== 0)
      .sort((a, b) => Math.abs(b.shiftG) - Math.abs(a.shiftG))
  }

  /** Covariance of two estimates after the observations, g²; both as they were before. */
  covarianceG2(a: Estimate, b: Estimate, commonB = this.inCommon(b)): number {
    const commonA = this.inCommon(a)
    return dot(a, b) - (commonA && commonB ? this.knownG2(commonA, commonB) : 0)
  }

  /** The estimate after the observations. */
  of(before: Estimate): Estimate {
    const common = this.inCommon(before)
    if (!common) return before
    const variance = Math.max(0, varianceG2(before) - this.knownG2(common))
    return new Conditioned(before.valueG + this.shiftG(common), variance, () => this.projected(before, common))
  }

  private projected(before: Estimate, common: Float64Array): Readonly<Record<string, number>> {
    const gains = solve(this.factor, common)
    const contributions = contributionsOf(...Object.entries(before.contributions))
    for (const [key, { rows, coefficientsG }] of this.byKey) {
      let contribution = contributions[key] ?? 0
      for (let i = 0; i < rows.length; i++) contribution -= coefficientsG[i]! * gains[rows[i]!]!
      contributions[key] = contribution
    }
    return estimateOf(0, contributions).contributions
  }
}

/** Up to so many coefficients of causes that rows share are held side by side; beyond it products look causes up by name. */
const mostHeld = 5_000_000

/**
 * The products of any two rows. Causes that only one row has count in its own product alone, so that all others are made of
 * the few causes rows share. The order of the sums is that of the first row's causes, as in {@link dot}.
 */
function productsOf(rows: readonly Estimate[]): (i: number, j: number) => number {
  const met = new Map<string, number>()
  for (const { contributions } of rows) for (const key in contributions) met.set(key, (met.get(key) ?? 0) + 1)
  const places = new Map([...met].flatMap(([key, count]) => (count > 1 ? [key] : [])).map((key, at) => [key, at]))
  if (rows.length * places.size > mostHeld) return (i, j) => dot(rows[i]!, rows[j]!)
  const shared = rows.map(({ contributions }) =>
    Int32Array.from(Object.keys(contributions).flatMap(key => places.get(key) ?? [])),
  )
  const held = rows.map(({ contributions }) => {
    const row = new Float64Array(places.size)
    for (const key in contributions) {
      const at = places.get(key)
      if (at !== undefined) row[at] = contributions[key]!
    }
    return row
  })
  return (i, j) => {
    if (i === j) return dot(rows[i]!, rows[i]!)
    const [at, a, b] = [shared[i]!, held[i]!, held[j]!]
    let sum = 0
    for (let k = 0; k < at.length; k++) sum += a[at[k]!]! * b[at[k]!]!
    return sum
  }
}

function dot(a: Estimate, b: Estimate): number {
  let sum = 0
  for (const key in a.contributions) {
    const other = b.contributions[key]
    if (other !== undefined) sum += a.contributions[key]! * other
  }
  return sum
}
