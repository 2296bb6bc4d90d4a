import { z } from 'zod'
import {
  bases,
  chemistries,
  evidences,
  lineStates,
  roles,
  slots,
  weighingMethods,
  type FurtherWeighing,
  type Line,
  type Mass,
  type PackSoFar,
  type Weighing,
} from '../../model/ledger'
import { anyPropertiesSchema, propertyProblem } from '../../model/properties'
import {
  centsSchema,
  idSchema,
  massGSchema,
  nameSchema,
  noteSchema,
  quantitySchema,
  shortTextSchema,
} from '../../text/schemas'
import { largestMassG } from '../../text/units'
import type { KeptLine, PatchedLine } from '../contract'

/** The most lines one build may hold. */
export const mostLines = 2000
/** The most weighings a line keeps beside its estimate. */
export const mostFurther = 200

/** The most pictures of one part. */
export const mostPictures = 8
export const pictureIdsSchema = z.array(idSchema).max(mostPictures, `A part keeps at most ${mostPictures} pictures.`)

export const momentSchema = z.iso.datetime({ message: 'A time is written as in 2026-03-01T18:30:00Z.' })
/** What a scale shows, grams. */
export const displayedSchema = z.number().min(-largestMassG).max(largestMassG)
export const displaysSchema = z.array(displayedSchema).min(1, 'A weighing needs at least one display.').max(999)
export const contributionsSchema = z
  .record(
    z
      .string()
      .regex(/^[\w:. -]{1,200}$/)
      .refine(key => !(key in Object.prototype), 'A cause cannot be called that.'),
    z.number().min(-largestMassG).max(largestMassG),
  )
  .refine(causes => Object.keys(causes).length <= 4000, 'A weighing has at most 4000 causes.')

export const weighingSchema = z.strictObject({
  takenAt: momentSchema,
  scaleId: idSchema,
  scaleName: nameSchema('The scale’s name'),
  checkId: idSchema.nullable(),
  method: z.enum(weighingMethods),
  displaysG: displaysSchema,
  tare: z
    .strictObject({
      id: idSchema,
      name: shortTextSchema('The tare'),
      displayG: displayedSchema,
    })
    .nullable(),
  contributions: contributionsSchema,
  supersedes: idSchema.nullable(),
}) satisfies z.ZodType<Weighing>

export const massSchema = z.strictObject({
  versionId: idSchema,
  evidence: z.enum(evidences),
  valueG: massGSchema,
  valueCount: quantitySchema,
  resolutionG: z.number().min(0).max(100),
  pieceReadingsG: z.array(massGSchema).min(1).max(999).nullable(),
  halfRangeG: massGSchema.nullable(),
  ownSpreadG: massGSchema.nullable(),
  basis: z.enum(bases),
  origin: shortTextSchema('The origin'),
  weighing: weighingSchema.nullable(),
}) satisfies z.ZodType<Mass>

export const packFactsSchema = z.strictObject({
  label: nameSchema('The pack’s label'),
  cells: z.int('Cells are a whole number.').min(1, 'A pack has at least one cell.').max(14, 'At most 14 cells.'),
  chemistry: z.enum(chemistries),
  capacityMah: z.number().min(1, 'Capacity is at least 1 mAh.').max(50_000, 'Capacity is at most 50,000 mAh.'),
  cRating: z.number().min(0.1, 'The C rating must be above zero.').max(500).nullable(),
  plug: shortTextSchema('The plug'),
})

/** Some of what a pack is: what is not said is left out. */
export const packSoFarSchema = packFactsSchema.partial() as unknown as z.ZodType<PackSoFar>

/** Every field of a line with its schema; also used one by one when a line is changed. */
export const lineShape = {
  id: idSchema,
  slot: z.enum(slots),
  name: nameSchema('The name'),
  quantity: quantitySchema,
  mass: massSchema.nullable(),
  edition: z.int().min(0).max(1_000_000),
  further: z
    .array(
      z.strictObject({
        mass: massSchema,
        of: z.strictObject({ quantity: quantitySchema, mass: massSchema }).nullable(),
      }),
    )
    .max(mostFurther, `A line keeps at most ${mostFurther} weighings beside its estimate.`),
  listing: z.strictObject({ valueG: massGSchema, resolutionG: z.number().min(0).max(100) }).nullable(),
  state: z.enum(lineStates),
  role: z.enum(roles),
  removable: z.boolean(),
  priceEachCents: centsSchema.nullable(),
  note: noteSchema,
  tie: nameSchema('The tie').nullable(),
  insteadOf: idSchema.nullable(),
  pack: packFactsSchema.nullable(),
  packSoFar: packSoFarSchema.nullable(),
  properties: anyPropertiesSchema.nullable(),
  partId: idSchema.nullable(),
  feed: z.strictObject({ from: idSchema, output: z.string().max(40) }).nullable(),
  pictureIds: pictureIdsSchema,
}
const wholeLine = z.strictObject(lineShape)
const onePiece = lineShape.further.element

function withPropertiesLookedAt(
  { slot, properties }: Pick<Line, 'slot' | 'properties'>,
  context: z.RefinementCtx,
): void {
  const problem = propertyProblem(slot, properties)
  if (problem) context.addIssue({ code: 'custom', path: ['properties', problem.key], message: problem.message })
}
const readMasses = new WeakSet<Mass>()
/** Whether these very grams came out of {@link askedMassSchema}: they are what {@link massSchema} takes. */
export const wasRead = (mass: Mass): boolean => readMasses.has(mass)

/** Grams as they are asked for: an edit may have waited in a browser since before weighings were kept with them. */
export const askedMassSchema = massSchema
  .extend({ weighing: weighingSchema.nullable().default(null) })
  .superRefine(mass => void readMasses.add(mass)) as z.ZodType<Mass>

/** A line whose properties are those of its kind. */
export const lineSchema = wholeLine.superRefine(withPropertiesLookedAt) satisfies z.ZodType<Line>
/** A line of a patch: its weighings beside the estimate may stand apart. */
export const patchedLineSchema = wholeLine
  .extend({ further: lineShape.further.optional() })
  .superRefine(withPropertiesLookedAt) satisfies z.ZodType<PatchedLine>
/** What is kept of a line that is there before and after a patch. */
export const keptLineSchema = wholeLine.partial().required({ id: true }) as unknown as z.ZodType<KeptLine>
export const furtherSchema = onePiece satisfies z.ZodType<FurtherWeighing>
