import { requireFinite } from '../../basics/errors'

/** A rotor seen from above, mm from the middle, and which way it turns: +1 against the clock. */
export interface Rotor {
  readonly xMm: number
  readonly yMm: number
  readonly spin: 1 | -1
}

/** Why hover loads are not told. */
export type LoadsProblem = 'few rotors' | 'in one line' | 'spins' | 'pulls down'

/** Rows that are this near to depending on one another do. Our choice. */
const dependent = 1e-9

/**
 * The loads of the rotors at hover, g: ΣT = W, ΣTx = W·cₓ, ΣTy = W·c_y, ΣsT = 0; of more than four rotors those of least
 * norm. What cannot be told is named. Units: g and mm. Throws where a number is not finite.
 */
export function hoverLoads(
  rotors: readonly Rotor[],
  weightG: number,
  [cxMm, cyMm]: readonly [number, number],
): { readonly loadsG: readonly number[] } | { readonly problem: LoadsProblem; readonly loadsG?: readonly number[] } {
  for (const value of [weightG, cxMm, cyMm, ...rotors.flatMap(({ xMm, yMm }) => [xMm, yMm])])
    requireFinite('hoverLoads', 'rotors', value)
  if (rotors.length < 4) return { problem: 'few rotors' }
  // In units of the craft, so that the four rows are of one size.
  const unit = Math.max(...rotors.map(({ xMm, yMm }) => Math.hypot(xMm, yMm)), dependent)
  const rows = [
    rotors.map(() => 1),
    rotors.map(({ xMm }) => xMm / unit),
    rotors.map(({ yMm }) => yMm / unit),
    rotors.map(({ spin }) => spin),
  ]
  const wanted = [weightG, (weightG * cxMm) / unit, (weightG * cyMm) / unit, 0]
  if (rankOf(rows.slice(0, 3)) < 3) return { problem: 'in one line' }
  if (rankOf(rows) < 4) return { problem: 'spins' }
  const products = rows.map(a => rows.map(b => dot(a, b)))
  const multipliers = solved(products, wanted)
  const loadsG = rotors.map((_, i) => rows.reduce((sum, row, r) => sum + row[i]! * multipliers[r]!, 0))
  return loadsG.some(load => load < -dependent * weightG) ? { problem: 'pulls down', loadsG } : { loadsG }
}

/**
 * What is left of full throttle while the craft stays level: the rotor that is at its end first decides.
 * min over i of (most thrustᵢ / loadᵢ) against Σ most thrust / W; with equal rotors the mean load over the greatest.
 */
export function levelShare(loadsG: readonly number[], mostThrustG: readonly number[] = loadsG.map(() => 1)): number {
  const weightG = loadsG.reduce((sum, load) => sum + load, 0)
  const whole = mostThrustG.reduce((sum, thrust) => sum + thrust, 0) / weightG
  const level = Math.min(...loadsG.map((load, i) => (load > 0 ? mostThrustG[i]! / load : Infinity)))
  return level / whole
}

const dot = (a: readonly number[], b: readonly number[]) => a.reduce((sum, value, i) => sum + value * b[i]!, 0)

/** How many rows stand on their own: Gram and Schmidt, each against those before. */
function rankOf(rows: readonly (readonly number[])[]): number {
  const kept: number[][] = []
  for (const row of rows) {
    let rest = [...row]
    for (const other of kept) {
      const share = dot(rest, other) / dot(other, other)
      rest = rest.map((value, i) => value - share * other[i]!)
    }
    if (Math.sqrt(dot(rest, rest)) > 1e-6 * Math.sqrt(dot(row, row)) && dot(row, row) > 0) kept.push(rest)
  }
  return kept.length
}

/** The solution of a small set of equations, by elimination with the greatest pivot. */
function solved(matrix: readonly (readonly number[])[], right: readonly number[]): number[] {
  const rows = matrix.map((row, i) => [...row, right[i]!])
  const size = rows.length
  for (let column = 0; column < size; column++) {
    let best = column
    for (let r = column + 1; r < size; r++) if (Math.abs(rows[r]![column]!) > Math.abs(rows[best]![column]!)) best = r
    ;[rows[column], rows[best]] = [rows[best]!, rows[column]!]
    for (let r = 0; r < size; r++) {
      if (r === column) continue
      const factor = rows[r]![column]! / rows[column]![column]!
      for (let c = column; c <= size; c++) rows[r]![c]! -= factor * rows[column]![c]!
    }
  }
  return rows.map((row, i) => row[size]! / row[i]!)
}
