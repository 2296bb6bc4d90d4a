import { z } from 'zod'
import { largestMassG } from '../units'
import { speakInSentences } from './sentences'

speakInSentences()

/** Ids are made by the browser or the server; letters, digits and dashes only. */
export const idSchema = z.string().regex(/^[A-Za-z0-9_-]{1,64}$/, 'An id has 1 to 64 letters, digits or dashes.')

const controlCharacters = /[\u0000-\u001F\u007F\u2028\u2029]/

/** One line of text; all that can be wrong with it is looked at in one go, since lists have many of them. */
function plainText(most: number, what: string, alsoWrong?: (text: string) => string | null) {
  return z
    .string({ error: `${what} must be text.` })
    .max(most, `${what} is longer than ${most} characters.`)
    .superRefine((text, context) => {
      const message = controlCharacters.test(text)
        ? `${what} contains characters that cannot be printed.`
        : (alsoWrong?.(text) ?? null)
      if (message !== null) context.addIssue({ code: 'custom', message })
    })
}

/** A name people give to things: one line, no markup, nothing a spreadsheet would run. */
export function nameSchema(what: string) {
  return plainText(120, what, text => {
    if (text.trim() === '') return `${what} cannot be empty.`
    if (/^\s*=/.test(text)) return `${what} cannot start with “=”: a spreadsheet would take it for a formula.`
    return /<[a-z/!]/i.test(text) ? `${what} cannot contain “<…>” marks.` : null
  })
}

/** A longer free text; line breaks are allowed. */
export const noteSchema = z
  .string()
  .max(2000, 'A note has at most 2000 characters.')
  .refine(
    text => !/[\u0000-\u0008\u000B\u000C\u000E-\u001F\u007F]/.test(text),
    'The note contains characters that cannot be printed.',
  )

export const shortTextSchema = (what: string) => plainText(200, what)

export const massGSchema = z
  .number({ error: 'A mass must be a number of grams.' })
  .min(0, 'A mass cannot be negative.')
  .max(largestMassG, `A mass is at most ${largestMassG} g.`)

export const centsSchema = z
  .int({ error: 'Money is counted in whole hundredths.' })
  .min(0, 'A price cannot be negative.')
  .max(10_000_000, 'That price is over 100,000.')

export const quantitySchema = z
  .int({ error: 'How many must be a whole number from 1 to 999.' })
  .min(1, 'How many must be a whole number from 1 to 999.')
  .max(999, 'How many must be a whole number from 1 to 999.')

/** A calendar day, YYYY-MM-DD, that exists. */
export const daySchema = z.iso.date('A date is written as year-month-day, such as 2026-03-01.')
