import { fixed } from '../../text/display'

/** `12.40 → 12.10 g`, or one side when the other is missing. */
export function gramsChangeWords(beforeG: number | null, afterG: number | null): string {
  const side = (value: number | null) => (value === null ? '–' : fixed(value, 2))
  return beforeG === null && afterG === null ? '' : `${side(beforeG)} → ${side(afterG)} g`
}
