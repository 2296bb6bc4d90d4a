import { z } from 'zod'
import type { Aim, ReferenceCraft } from '../../model/ledger'
import { pictureIdsSchema } from '../lines'
import { centsSchema, idSchema, massGSchema, nameSchema, noteSchema, shortTextSchema } from '../../text/schemas'

export const aimShape = {
  purpose: shortTextSchema('The purpose'),
  purposeKind: z.enum(['recreation', 'other']),
  places: z.array(shortTextSchema('A place')).max(50),
  cardIds: z.array(idSchema).max(50),
  reserveG: massGSchema,
  confidence: z.number().min(0.5, 'Confidence is at least 50 %.').max(0.9999, 'Confidence is at most 99.99 %.'),
  goalDryG: massGSchema.nullable(),
  goalMinutes: z.number().min(0, 'Minutes cannot be negative.').max(600, 'Minutes are at most 600.').nullable(),
  goalPriceCents: centsSchema.nullable(),
}
export const aimSchema = z.strictObject(aimShape) satisfies z.ZodType<Aim>

export const referenceSchema = z.strictObject({
  massG: massGSchema,
  spreadG: massGSchema,
  thrustG: z.number().min(0).max(100_000).nullable(),
  priceCents: centsSchema.nullable(),
  minutes: z.number().min(0).max(600).nullable(),
  note: noteSchema,
  pictureIds: pictureIdsSchema,
}) satisfies z.ZodType<ReferenceCraft>

/** Reference crafts were once without a note and pictures. */
export const referenceFromFirstVersion = (reference: unknown): unknown =>
  typeof reference === 'object' && reference !== null ? { note: '', pictureIds: [], ...reference } : reference

export const headShape = {
  name: nameSchema('The build’s name'),
  craftClass: shortTextSchema('The craft class'),
  archived: z.boolean(),
  reference: referenceSchema.nullable(),
}
