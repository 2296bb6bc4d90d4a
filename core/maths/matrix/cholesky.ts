/** A row whose pivot is below this adds nothing that the rows before it do not say. */
export const leastPivot = 1e-12

/** The lower factor of a symmetric matrix whose dependent rows were left out. `kept` are the indices of the rows in it. */
export interface Factor {
  readonly rows: readonly Float64Array[]
  readonly kept: readonly number[]
}

/**
 * Cholesky factor of a symmetric positive semidefinite matrix given by `entry(i, j)`. Rows whose pivot falls below
 * {@link leastPivot} are left out; they are the ones not in `kept`.
 */
export function factorise(size: number, entry: (i: number, j: number) => number): Factor {
  const rows: Float64Array[] = []
  const kept: number[] = []
  for (let i = 0; i < size; i++) {
    const row = new Float64Array(kept.length + 1)
    let pivot = entry(i, i)
    for (let a = 0; a < kept.length; a++) {
      let sum = entry(i, kept[a]!)
      for (let b = 0; b < a; b++) sum -= row[b]! * rows[a]![b]!
      row[a] = sum / rows[a]![a]!
      pivot -= row[a]! ** 2
    }
    if (pivot < leastPivot) continue
    row[kept.length] = Math.sqrt(pivot)
    rows.push(row)
    kept.push(i)
  }
  return { rows, kept }
}

/** Solves L·Lᵀ·x = b for the kept rows; `b` and the result are in the order of `kept`. */
export function solve({ rows }: Factor, b: ArrayLike<number>): Float64Array {
  const x = new Float64Array(rows.length)
  for (let i = 0; i < rows.length; i++) {
    let sum = b[i]!
    for (let j = 0; j < i; j++) sum -= rows[i]![j]! * x[j]!
    x[i] = sum / rows[i]![i]!
  }
  for (let i = rows.length - 1; i >= 0; i--) {
    let sum = x[i]!
    for (let j = i + 1; j < rows.length; j++) sum -= rows[j]![i]! * x[j]!
    x[i] = sum / rows[i]![i]!
  }
  return x
}
