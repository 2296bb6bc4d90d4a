/** What the core could have computed with instead, as data: wording is made of it where somebody is to read it. */
export type Expected =
  | { readonly is: 'finite' }
  /** A number within bounds, each of them absent where there is none. */
  | {
      readonly is: 'in range'
      readonly least?: number
      readonly above?: number
      readonly most?: number
      readonly under?: number
      readonly whole?: true
    }
  /** At least so many of something. */
  | { readonly is: 'at least'; readonly count: number; readonly of: string }
  | { readonly is: 'one of'; readonly what: string; readonly choices?: readonly (string | number)[] }
  /** Something that agrees with what else was given. */
  | { readonly is: 'fitting'; readonly what: string }

/** Why the core cannot compute with an input: what its expectation is about. */
export type InputCode = Expected['is']

/**
 * An input the core cannot compute with. `field` names the offending property (with its unit suffix), `received` is what
 * was given, so that a caller can point at the right cell and say it in its own words.
 */
export class CoreInputError extends Error {
  readonly where: string
  readonly field: string
  readonly received: unknown
  readonly expected: Expected

  constructor(where: string, field: string, received: unknown, expected: Expected) {
    super(`${where}: ${field} must be ${expectedWords(expected)}, got ${String(received)}`)
    this.name = 'CoreInputError'
    this.where = where
    this.field = field
    this.received = received
    this.expected = expected
  }

  get code(): InputCode {
    return this.expected.is
  }
}

/** An expectation in words, after "must be". */
export function expectedWords(expected: Expected): string {
  switch (expected.is) {
    case 'finite':
      return 'a finite number'
    case 'in range':
      return rangeWords(expected)
    case 'at least':
      return `at least ${expected.count} ${expected.of}`
    case 'one of':
      return expected.choices ? `one of ${expected.choices.join(', ')}` : expected.what
    case 'fitting':
      return expected.what
  }
}

function rangeWords({ least, above, most, under, whole }: Extract<Expected, { is: 'in range' }>): string {
  const number = whole ? 'a whole number ' : ''
  if (least !== undefined && most !== undefined) return `${number}from ${least} to ${most}`
  const bounds = [
    ...(least === undefined ? [] : [least === 0 ? 'zero or more' : `at least ${least}`]),
    ...(above === undefined ? [] : [above === 0 ? 'above zero' : `above ${above}`]),
    ...(most === undefined ? [] : [`at most ${most}`]),
    ...(under === undefined ? [] : [`less than ${under}`]),
  ]
  return `${number}${bounds.join(' and ')}`
}

/** Throws {@link CoreInputError} unless `value` is finite; NaN and infinities never enter the core. */
export function requireFinite(where: string, field: string, value: number): void {
  if (!Number.isFinite(value)) throw new CoreInputError(where, field, value, { is: 'finite' })
}

/** Throws {@link CoreInputError} unless `value` is finite and not negative. */
export function requireNotNegative(where: string, field: string, value: number): void {
  if (!(value >= 0) || !Number.isFinite(value))
    throw new CoreInputError(where, field, value, { is: 'in range', least: 0 })
}

/** Throws {@link CoreInputError} unless `value` is above zero. */
export function requirePositive(where: string, field: string, value: number): void {
  if (!(value > 0)) throw new CoreInputError(where, field, value, { is: 'in range', above: 0 })
}
