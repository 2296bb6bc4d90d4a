/** A text of at most so many letters: what is longer ends in … (no blank before it). `most` is at least 1. */
export const clipped = (text: string, most: number): string =>
  text.length > most ? `${text.slice(0, most - 1).trimEnd()}…` : text
