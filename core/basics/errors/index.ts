/**
 * An input the core cannot compute with. `field` names the offending property (with its unit
 * suffix) and `value` is what was given, so that a caller can point at the right cell.
 */
export class CoreInputError extends Error {
  readonly field: string
  readonly value: unknown

  constructor(where: string, field: string, value: unknown, expected: string) {
    super(`${where}: ${field} must be ${expected}, got ${String(value)}`)
    this.name = 'CoreInputError'
    this.field = field
    this.value = value
  }
}

/** Throws {@link CoreInputError} unless `value` is finite; NaN and infinities never enter the core. */
export function requireFinite(where: string, field: string, value: number): void {
  if (!Number.isFinite(value)) throw new CoreInputError(where, field, value, 'a finite number')
}

/** Throws {@link CoreInputError} unless `value` is finite and not negative. */
export function requireNotNegative(where: string, field: string, value: number): void {
  if (!(value >= 0) || !Number.isFinite(value)) throw new CoreInputError(where, field, value, 'zero or more')
}
