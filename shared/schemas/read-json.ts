/** Escapes that may stand for half of a character or for the null character: only texts written with them need a closer look. */
const suspicious = /\\u(?:d[89a-f][\da-f]{2}|0000)/i

class NotKept extends Error {}

function requireText(_key: string, value: unknown): unknown {
  if (typeof value === 'string' && (/\p{Surrogate}/u.test(value) || value.includes('\0'))) throw new NotKept()
  return value
}

/**
 * Data from JSON whose texts can all be kept as they are: a database keeps half of a character (a lone surrogate) as
 * something else, and what is kept would not be what was answered.
 */
export function readJson(text: string): { readonly data: unknown } | { readonly problem: string } {
  try {
    const data = JSON.parse(text) as unknown
    return { data: text.includes('\\u') && suspicious.test(text) ? (JSON.parse(text, requireText) as unknown) : data }
  } catch (error) {
    return {
      problem:
        error instanceof NotKept
          ? 'A text contains half of a character, or one that cannot be kept. Nothing was taken in.'
          : 'The request is not JSON.',
    }
  }
}
