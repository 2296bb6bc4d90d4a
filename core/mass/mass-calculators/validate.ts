import { CoreInputError } from '../../basics/errors'

/** Throws unless a measure is above zero and not absurd. */
export function requireMeasure(where: string, field: string, value: number, most: number): void {
  if (!(value > 0 && value <= most)) throw new CoreInputError(where, field, value, { is: 'in range', above: 0, most })
}

/** Throws unless a count is a whole number from 1 to 9999. */
export function requireCount(where: string, field: string, value: number): void {
  if (!(Number.isInteger(value) && value >= 1 && value <= 9999))
    throw new CoreInputError(where, field, value, { is: 'in range', least: 1, most: 9999, whole: true })
}
