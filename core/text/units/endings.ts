/** A text and the unit or mark it ends with. */
export interface Ended {
  readonly body: string
  readonly ending: string | null
}

/**
 * Cuts one of these endings off a text, whatever their case; the longest that fits. Spaces before and after it go too.
 * Reads the text once from its end, so its length does not matter.
 */
export function splitEnding(text: string, endings: readonly string[]): Ended {
  const trimmed = text.trimEnd()
  const lower = trimmed.toLowerCase()
  const ending = endings.filter(e => lower.endsWith(e.toLowerCase())).sort((a, b) => b.length - a.length)[0]
  return ending === undefined
    ? { body: trimmed, ending: null }
    : { body: trimmed.slice(0, trimmed.length - ending.length).trimEnd(), ending }
}

/** The text without a unit at its end. */
export function withoutUnit(text: string, ...units: readonly string[]): string {
  return splitEnding(text, units).body
}

/** Text of one line with each run of white space as a single blank. */
export function singleSpaced(text: string): string {
  return text
    .split(/\s+/)
    .filter(word => word !== '')
    .join(' ')
}
