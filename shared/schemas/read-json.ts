/** Escapes that may stand for half of a character or for the null character: only texts written with them need a closer look. */
const suspicious = /\\u(?:d[89a-f][\da-f]{2}|0000)/i

const problems = {
  'not kept': 'A text contains half of a character, or one that cannot be kept. Nothing was taken in.',
  'no JSON': 'The request is not JSON.',
} as const
export interface NotJson {
  readonly code: keyof typeof problems
  readonly problem: string
}

class NotKept extends Error {}

function requireText(_key: string, value: unknown): unknown {
  if (typeof value === 'string' && (/\p{Surrogate}/u.test(value) || value.includes('\0'))) throw new NotKept()
  return value
}

/**
 * Data from JSON whose texts can all be kept as they are: a database keeps half of a character (a lone surrogate) as
 * something else, and what is kept would not be what was answered.
 */
export function readJson(text: string): { readonly data: unknown } | NotJson {
  try {
    const data = JSON.parse(text) as unknown
    return { data: text.includes('\\u') && suspicious.test(text) ? (JSON.parse(text, requireText) as unknown) : data }
  } catch (error) {
    const code = error instanceof NotKept ? 'not kept' : 'no JSON'
    return { code, problem: problems[code] }
  }
}
