import { z } from 'zod'
import { cardStatuses, countings, type RuleCard } from '../../core/limits/rules'
import { massUnits } from '../../core/text/units'
import { daySchema, idSchema, nameSchema, shortTextSchema } from '../../core/text/schemas'

const pointsSchema = z.array(z.string().min(1).max(400)).max(30)

export const cardFieldsSchema = z.strictObject({
  place: nameSchema('The place'),
  purpose: shortTextSchema('The purpose'),
  purposeKind: z.enum(['recreation', 'other', 'any']),
  comparator: z.enum(['<', '<=', 'none']),
  limit: z
    .strictObject({
      value: z
        .number({ error: 'The limit must be a number.' })
        .min(0.001, 'The limit must be above zero.')
        .max(100_000, 'The limit is far above a micro aircraft.'),
      unit: z.enum(massUnits),
    })
    .nullable(),
  counts: z.enum(countings),
  conditions: pointsSchema,
  within: pointsSchema,
  beyond: pointsSchema,
  always: pointsSchema,
  source: shortTextSchema('The source'),
  status: z.enum(cardStatuses),
  since: daySchema.nullable(),
})

function limitMatchesWording(card: { comparator: string; limit: unknown }): boolean {
  return (card.comparator === 'none') === (card.limit === null)
}
const limitSentence = { path: ['limit'], message: 'A card with a comparator needs a limit, one without has none.' }

export const ownCardSchema = cardFieldsSchema.refine(limitMatchesWording, limitSentence)
export const ruleCardSchema = cardFieldsSchema
  .extend({ id: idSchema, verifiedOn: daySchema.nullable(), own: z.boolean() })
  .refine(limitMatchesWording, limitSentence) satisfies z.ZodType<RuleCard>

export const verifiedSchema = z.strictObject({ verifiedOn: daySchema.nullable() })
