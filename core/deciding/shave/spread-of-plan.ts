import type { ShavingItem, ShavingTarget } from './problem'

/** A change's part in the causes of a loadout: which, and by how much, grams. */
interface Sparse {
  readonly at: Int32Array
  readonly byG: Float64Array
}

/**
 * The variance of one loadout's weight as a function of the changes made: `W(x) = ‖a₀ + Σxᵢaᵢ‖²` over the conditioned causes,
 * where a₀ are the loadout's coefficients and aᵢ what change i makes of them. Its root is a norm of an affine map, so convex
 * in x. Causes no change touches are only a constant.
 */
export class SpreadOfPlan {
  /** Coefficients of the causes that some change touches, as they are without any change. */
  readonly startG: Float64Array
  readonly changes: readonly Sparse[]
  private readonly untouchedG2: number

  constructor(target: Pick<ShavingTarget, 'contributions'>, items: readonly ShavingItem[], loadout: number) {
    const index = new Map<string, number>()
    this.changes = items.map(({ changes }) => {
      const at: number[] = []
      const byG: number[] = []
      const mine = changes[loadout]!
      for (const key in mine) {
        if (mine[key] === 0) continue
        let number = index.get(key)
        if (number === undefined) {
          number = index.size
          index.set(key, number)
        }
        at.push(number)
        byG.push(mine[key]!)
      }
      return { at: Int32Array.from(at), byG: Float64Array.from(byG) }
    })
    this.startG = new Float64Array(index.size)
    let untouched = 0
    for (const key in target.contributions) {
      const coefficient = target.contributions[key]!
      const number = index.get(key)
      if (number === undefined) untouched += coefficient * coefficient
      else this.startG[number] = coefficient
    }
    this.untouchedG2 = untouched
  }

  /** Whether any change moves the spread at all. */
  get isMoved(): boolean {
    return this.startG.length > 0
  }

  /** Coefficients of the touched causes under changes taken so far each (0 to 1). */
  at(shares: ArrayLike<number>): Float64Array {
    const coefficients = Float64Array.from(this.startG)
    this.changes.forEach(({ at, byG }, i) => {
      const share = shares[i]!
      if (share === 0) return
      for (let k = 0; k < at.length; k++) coefficients[at[k]!]! += share * byG[k]!
    })
    return coefficients
  }

  varianceG2(coefficients: Float64Array): number {
    let sum = this.untouchedG2
    for (const c of coefficients) sum += c * c
    return sum
  }

  /** ∂√W/∂xᵢ at these coefficients, grams, for each change. */
  gradient(coefficients: Float64Array, sigmaG: number): number[] {
    return this.changes.map(change => dot(change, coefficients) / sigmaG)
  }

  /** W without any change, and what of it is exactly linear in whole plans and what is not: see {@link LinearParts}. */
  parts(exclusive: (i: number, j: number) => boolean): LinearParts {
    const touchedBy = Array.from(this.startG, () => [] as number[])
    this.changes.forEach(({ at }, i) => {
      for (const k of at) touchedBy[k]!.push(i)
    })
    const isOwn = touchedBy.map(items => items.every((i, n) => items.slice(n + 1).every(j => exclusive(i, j))))
    const slopes = this.changes.map(({ at, byG }) => {
      let slope = 0
      for (let k = 0; k < at.length; k++)
        slope += 2 * this.startG[at[k]!]! * byG[k]! + (isOwn[at[k]!] ? byG[k]! ** 2 : 0)
      return slope
    })
    const rest = this.changes.map(({ at, byG }): Sparse => {
      const kept = [...at.keys()].filter(k => !isOwn[at[k]!])
      return { at: Int32Array.from(kept, k => at[k]!), byG: Float64Array.from(kept, k => byG[k]!) }
    })
    return { startG2: this.varianceG2(this.startG), slopes, rest, size: this.startG.length }
  }
}

export function dot({ at, byG }: Sparse, coefficients: Float64Array): number {
  let sum = 0
  for (let k = 0; k < at.length; k++) sum += byG[k]! * coefficients[at[k]!]!
  return sum
}

/**
 * The variance taken apart: `W = startG2 + Σ slopesᵢxᵢ + ‖Σ xᵢ·restᵢ‖²` for whole plans. Causes that only one change
 * touches, or only changes of which at most one is made, are in the slopes, since x² = x.
 */
export interface LinearParts {
  readonly startG2: number
  readonly slopes: readonly number[]
  readonly rest: readonly Sparse[]
  readonly size: number
}

/** Σ xᵢ·restᵢ. */
export function restOf({ rest, size }: LinearParts, shares: ArrayLike<number>): Float64Array {
  const sum = new Float64Array(size)
  rest.forEach(({ at, byG }, i) => {
    for (let k = 0; k < at.length; k++) sum[at[k]!]! += shares[i]! * byG[k]!
  })
  return sum
}
