import { requireFinite } from '../../basics/errors'

/** Grams in one international avoirdupois pound, exact (yard and pound agreement, 1959). */
export const gramsPerPound = 453.59237
/** Grams in one avoirdupois ounce, exact. */
export const gramsPerOunce = 28.349523125
/** Millimetres in one inch, exact. */
export const mmPerInch = 25.4
/** Standard acceleration of free fall, m/s², exact (CGPM 1901). */
export const standardGravityMps2 = 9.80665

export const massUnits = ['g', 'oz', 'lb'] as const
/** A unit a mass or a limit may be written in. */
export type MassUnit = (typeof massUnits)[number]

const gramsPerUnit: Record<MassUnit, number> = { g: 1, oz: gramsPerOunce, lb: gramsPerPound }

/**
 * Grams of a mass written in another unit. Throws on NaN and infinities.
 *
 * @example toGrams(0.55, 'lb') // 249.4758035
 */
export function toGrams(value: number, unit: MassUnit): number {
  requireFinite('toGrams', 'value', value)
  return value * gramsPerUnit[unit]
}

/** The mass in another unit, from grams. Throws on NaN and infinities. */
export function fromGrams(massG: number, unit: MassUnit): number {
  requireFinite('fromGrams', 'massG', massG)
  return massG / gramsPerUnit[unit]
}
