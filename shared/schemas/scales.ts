import { z } from 'zod'
import type { Placing, ReferenceMass, Scale, ScaleCheck } from '../../core/mass/scale'
import { largestMassG } from '../../core/text/units'
import { idSchema, nameSchema } from '../../core/text/schemas'

const timeSchema = z.iso.datetime({ message: 'A time is written as in 2026-03-01T18:30:00Z.' })
const displaySchema = z
  .number({ error: 'A display is a number of grams.' })
  .min(-largestMassG, 'No pocket scale shows that.')
  .max(largestMassG, 'No pocket scale shows that.')

export const scaleFieldsSchema = z
  .strictObject({
    name: nameSchema('The scale’s name'),
    resolutionG: z
      .number({ error: 'The step must be a number of grams.' })
      .min(0.0001, 'The step must be above zero.')
      .max(10, 'The step is at most 10 g.'),
    capacityG: z
      .number({ error: 'The capacity must be a number of grams.' })
      .min(1, 'The capacity is at least 1 g.')
      .max(largestMassG, `The capacity is at most ${largestMassG} g.`),
    repeatabilityG: z
      .number()
      .min(0.00001, 'Repeatability must be above zero.')
      .max(50, 'Repeatability is at most 50 g.')
      .nullable(),
    checkIntervalDays: z.int('Days are a whole number.').min(1, 'At least one day.').max(3650, 'At most ten years.'),
  })
  .refine(scale => scale.capacityG >= 10 * scale.resolutionG, {
    path: ['capacityG'],
    message: 'The capacity is at least ten steps.',
  })
export const scaleSchema = z.strictObject({ id: idSchema, ...scaleFieldsSchema.shape }) satisfies z.ZodType<Scale>
export type ScaleFields = z.infer<typeof scaleFieldsSchema>

export const referenceFieldsSchema = z.strictObject({
  name: nameSchema('The reference’s name'),
  massG: z
    .number({ error: 'The mass must be a number of grams.' })
    .min(0.01, 'A reference weighs at least 0.01 g.')
    .max(largestMassG, `At most ${largestMassG} g.`),
  toleranceG: z
    .number({ error: 'The tolerance must be a number of grams.' })
    .min(0, 'A tolerance cannot be negative.')
    .max(100, 'A tolerance of over 100 g is no reference.'),
  coin: z.boolean(),
})
export const referenceMassSchema = z.strictObject({
  id: idSchema,
  ...referenceFieldsSchema.shape,
}) satisfies z.ZodType<ReferenceMass>
export type ReferenceFields = z.infer<typeof referenceFieldsSchema>

const placingSchema = z.strictObject({
  references: z
    .array(
      z.strictObject({
        id: idSchema,
        massG: referenceFieldsSchema.shape.massG,
        toleranceG: referenceFieldsSchema.shape.toleranceG,
      }),
    )
    .max(20),
  displayG: displaySchema,
}) satisfies z.ZodType<Placing>
export const checkFieldsSchema = z.strictObject({
  takenAt: timeSchema,
  placings: z.array(placingSchema).min(1, 'A check needs placings.').max(200),
})
export const scaleCheckSchema = z.strictObject({
  id: idSchema,
  scaleId: idSchema,
  takenAt: timeSchema,
  placings: z.array(placingSchema),
}) satisfies z.ZodType<ScaleCheck>

/** A tray or box by name, with what the scale showed with it. */
export const tareFieldsSchema = z.strictObject({
  name: nameSchema('The tray’s name'),
  scaleId: idSchema,
  displayG: displaySchema,
  takenAt: timeSchema,
})
export const tareSchema = z.strictObject({ id: idSchema, ...tareFieldsSchema.shape })
export type Tare = z.infer<typeof tareSchema>

export const scalesReplySchema = z.strictObject({
  scales: z.array(scaleSchema),
  references: z.array(referenceMassSchema),
  checks: z.array(scaleCheckSchema),
  tares: z.array(tareSchema),
})
export interface ScalesReply {
  readonly scales: readonly Scale[]
  readonly references: readonly ReferenceMass[]
  readonly checks: readonly ScaleCheck[]
  readonly tares: readonly Tare[]
}
