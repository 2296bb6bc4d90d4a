import { z } from 'zod'
import {
  lossWords,
  measures,
  shavingEvidences,
  shavingKinds,
  shavingStates,
  type ShaveList,
  type Shaving,
} from '../../model/data'
import { centsSchema, daySchema, idSchema, nameSchema, noteSchema } from '../../text/schemas'

export const mostShavings = 300

const number = (sentence: string, least: number, most: number) =>
  z.number({ error: sentence }).min(least, sentence).max(most, sentence)

export const shavingSchema = z.strictObject({
  id: idSchema,
  what: nameSchema('What is done'),
  kind: z.enum(shavingKinds),
  lineId: idSchema.nullable(),
  candidateId: idSchema.nullable(),
  gramsG: number('Grams off are from −1000 to 1000.', -1000, 1000),
  spreadG: number('The ± is from 0 to 1000 g.', 0, 1000),
  evidence: z.enum(shavingEvidences),
  cents: centsSchema.nullable(),
  minutes: number('Minutes are from 0 to 6000.', 0, 6000),
  loss: number('What is given up is from 0 to 5.', 0, 5),
  lossWord: z.enum(lossWords),
  gain: number('What it brings is from 0 to 5.', 0, 5),
  forGood: z.boolean(),
  slipPercent: number('How likely a slip is: from 0 to 100 %.', 0, 100),
  excludes: z.array(idSchema).max(100),
  needs: z.array(idSchema).max(100),
  state: z.enum(shavingStates),
  why: noteSchema,
  lock: z.enum(['in', 'out']).nullable(),
  doneOn: daySchema.nullable(),
  realG: z.number().min(-1000).max(1000).nullable(),
}) satisfies z.ZodType<Shaving>

const cap = (what: string) =>
  z
    .number({ error: `The most ${what} is zero or more.` })
    .min(0, `The most ${what} is zero or more.`)
    .max(10_000_000)
    .nullable()
export const shaveShape = {
  shavings: z.array(shavingSchema).max(mostShavings, `A build keeps at most ${mostShavings} shavings.`),
  spare: z.enum(measures),
  caps: z.strictObject({ cents: cap('money'), minutes: cap('minutes'), loss: cap('that is given up') }),
  everyLoadout: z.boolean(),
}
export const shaveSchema = z.strictObject(shaveShape) satisfies z.ZodType<ShaveList>

const leadSentence = 'A lead is from 0 to 500 mm long.'
export const leadMmSchema = number(leadSentence, 0, 500)
