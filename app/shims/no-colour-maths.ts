/**
 * In the place of the library a button would mix colours with when it is given one. Ours take theirs from the theme, and
 * the first page is lighter without it.
 */
export function TinyColor(colour: unknown): never {
  throw new Error(`A button’s colours come from the theme, not from “${String(colour)}”.`)
}
