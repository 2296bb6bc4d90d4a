import { z } from 'zod'

const kinds: Readonly<Record<string, string>> = {
  string: 'text',
  number: 'a number',
  int: 'a whole number',
  boolean: 'yes or no',
  array: 'a list',
  object: 'a thing with fields',
  record: 'a thing with fields',
  null: 'nothing',
}

/** How many are too many or too few, by what is counted. */
function countWords(origin: string, least: boolean, bound: number | bigint): string {
  const limit = `${least ? 'At least' : 'At most'} ${bound}`
  if (origin === 'string') return `${limit} characters.`
  return origin === 'array' || origin === 'set' ? `${limit} of these.` : `${limit}.`
}

/** Puts sentences in place for whatever a schema has none of its own for. */
export function speakInSentences(): void {
  z.config({
    customError(issue) {
      switch (issue.code) {
        case 'invalid_type':
          return issue.input === undefined
            ? 'This is missing.'
            : `This must be ${kinds[issue.expected] ?? 'something else'}.`
        case 'too_big':
          return countWords(issue.origin, false, issue.maximum)
        case 'too_small':
          return countWords(issue.origin, true, issue.minimum)
        case 'unrecognized_keys':
          return `There is no field “${String(issue.keys[0]).slice(0, 40)}” here.`
        case 'invalid_value':
          return `One of: ${issue.values.slice(0, 8).map(String).join(', ')}${issue.values.length > 8 ? ' …' : ''}.`
        case 'invalid_format':
          return 'This is not written as it should be.'
        case 'invalid_union':
          return 'This is none of the things that can stand here.'
        case 'invalid_key':
          return 'A name in here is not one that can be kept.'
        default:
          return undefined
      }
    },
  })
}
