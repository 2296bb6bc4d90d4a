import { z } from 'zod'
import { mostFurther, type PatchedLine } from '../../core/changes/commands'
import {
  bases,
  chemistries,
  evidences,
  lineStates,
  observationStates,
  roles,
  slots,
  weighingMethods,
  withPackAsked,
  type Build,
  type Line,
  type Mass,
  type Observation,
  type PackSoFar,
  type Weighing,
} from '../../core/model/ledger'
import { largestMassG } from '../../core/text/units'
import { fitSchema } from './fit'
import { flyingSchema } from './flying'
import { assemblySchema } from './assembly'
import { shaveSchema } from './shave'
import { anyPropertiesSchema, propertyProblem } from './properties'
import { centsSchema, idSchema, massGSchema, nameSchema, noteSchema, quantitySchema, shortTextSchema } from './common'

const isoSchema = z.iso.datetime({ message: 'A time is written as in 2026-03-01T18:30:00Z.' })
const displaysSchema = z
  .array(z.number().min(-largestMassG).max(largestMassG))
  .min(1, 'A weighing needs at least one display.')
  .max(999)
const contributionsSchema = z
  .record(
    z
      .string()
      .regex(/^[\w:. -]{1,200}$/)
      .refine(key => !(key in Object.prototype), 'A cause cannot be called that.'),
    z.number().min(-largestMassG).max(largestMassG),
  )
  .refine(causes => Object.keys(causes).length <= 4000, 'A weighing has at most 4000 causes.')

export const weighingSchema = z.strictObject({
  takenAt: isoSchema,
  scaleId: idSchema,
  scaleName: nameSchema('The scale’s name'),
  checkId: idSchema.nullable(),
  method: z.enum(weighingMethods),
  displaysG: displaysSchema,
  tare: z
    .strictObject({
      id: idSchema,
      name: shortTextSchema('The tare'),
      displayG: z.number().min(-largestMassG).max(largestMassG),
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
  weighing: weighingSchema.nullable().default(null),
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
}
const keptLine = z.strictObject({
  ...lineShape,
  edition: lineShape.edition.default(0),
  properties: lineShape.properties.default(null),
  partId: lineShape.partId.default(null),
  feed: lineShape.feed.default(null),
  packSoFar: lineShape.packSoFar.optional(),
})
function withPropertiesLookedAt(
  { slot, properties }: Pick<Line, 'slot' | 'properties'>,
  context: z.RefinementCtx,
): void {
  const problem = propertyProblem(slot, properties)
  if (problem) context.addIssue({ code: 'custom', path: ['properties', problem.key], message: problem.message })
}
/** Files written before parts had properties, or lines editions, lack those fields; a pack that was made up then is asked about. */
export const lineSchema = keptLine
  .extend({ further: lineShape.further.default([]) })
  .superRefine(withPropertiesLookedAt)
  .transform(({ packSoFar, ...line }): Line =>
    packSoFar === undefined ? withPackAsked(line) : { ...line, packSoFar },
  ) satisfies z.ZodType<Line>
/** A line of a patch: its weighings beside the estimate may stand apart. */
export const patchedLineSchema = keptLine
  .extend({ further: lineShape.further.optional() })
  .superRefine(withPropertiesLookedAt)
  .transform(({ packSoFar, ...line }): PatchedLine =>
    packSoFar === undefined ? withPackAsked(line) : { ...line, packSoFar },
  ) satisfies z.ZodType<PatchedLine>

export const setupSchema = z.strictObject({
  id: idSchema,
  name: nameSchema('The set-up’s name'),
  lineIds: z
    .array(idSchema)
    .max(2000)
    .refine(ids => new Set(ids).size === ids.length, 'A set-up names a line twice.'),
})

export const observationSchema = z.strictObject({
  id: idSchema,
  title: nameSchema('The name of the weighing'),
  takenAt: isoSchema,
  scaleId: idSchema,
  scaleName: nameSchema('The scale’s name'),
  checkId: idSchema.nullable(),
  displaysG: displaysSchema,
  tareDisplayG: z.number().min(-largestMassG).max(largestMassG).nullable(),
  valueG: massGSchema,
  contributions: contributionsSchema,
  subjects: z
    .array(
      z.strictObject({
        id: idSchema,
        slot: z.enum(slots),
        quantity: quantitySchema,
        mass: massSchema.nullable(),
        edition: lineShape.edition.optional(),
      }),
    )
    .min(1, 'Say what is on the pan: at least one line.')
    .max(2000),
  state: z.enum(observationStates),
}) satisfies z.ZodType<Observation>

export const loadoutChoiceSchema = z.strictObject({ setupId: idSchema, packLineId: idSchema.nullable() })

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

export const referenceSchema = z.strictObject({
  massG: massGSchema,
  spreadG: massGSchema,
  thrustG: z.number().min(0).max(100_000).nullable(),
  priceCents: centsSchema.nullable(),
  minutes: z.number().min(0).max(600).nullable(),
})

export const buildShape = {
  id: idSchema,
  name: nameSchema('The build’s name'),
  craftClass: shortTextSchema('The craft class'),
  archived: z.boolean(),
  reference: referenceSchema.nullable(),
  aim: z.strictObject(aimShape),
  lines: z.array(lineSchema).max(2000, 'A build holds at most 2000 lines.'),
  setups: z.array(setupSchema).min(1, 'A build needs at least one set-up.').max(100),
  flies: loadoutChoiceSchema,
  neverFlown: z.array(loadoutChoiceSchema).max(10_000),
  observations: z.array(observationSchema).max(200),
  fit: fitSchema.nullable(),
  flying: flyingSchema.nullable(),
  shave: shaveSchema.nullable(),
  assembly: assemblySchema.nullable(),
}

/** What in a build refers to something that is not there, or stands twice: where, and a sentence. */
export function crossProblems(
  build: Pick<Build, 'lines' | 'setups' | 'flies' | 'neverFlown' | 'flying'>,
): { path: (string | number)[]; message: string }[] {
  const problems: { path: (string | number)[]; message: string }[] = []
  const lineIds = new Set<string>()
  build.lines.forEach((line, i) => {
    if (lineIds.has(line.id)) problems.push({ path: ['lines', i, 'id'], message: 'Two lines have the same id.' })
    lineIds.add(line.id)
  })
  const setupIds = new Set(build.setups.map(s => s.id))
  if (setupIds.size !== build.setups.length)
    problems.push({ path: ['setups'], message: 'Two set-ups have the same id.' })
  build.setups.forEach((setup, i) => {
    if (setup.lineIds.some(id => !lineIds.has(id)))
      problems.push({ path: ['setups', i, 'lineIds'], message: 'A set-up names a line that is not there.' })
  })
  build.lines.forEach((line, i) => {
    if (line.insteadOf && !lineIds.has(line.insteadOf))
      problems.push({ path: ['lines', i, 'insteadOf'], message: 'A candidate stands for a line that is not there.' })
  })
  const refersWell = (choice: { readonly setupId: string; readonly packLineId: string | null }) =>
    setupIds.has(choice.setupId) && (choice.packLineId === null || lineIds.has(choice.packLineId))
  if (!refersWell(build.flies))
    problems.push({ path: ['flies'], message: 'The loadout flown names a set-up or pack that is not there.' })
  if (!(build.flying?.overOnPurpose ?? []).every(refersWell))
    problems.push({
      path: ['flying', 'overOnPurpose'],
      message: 'A loadout flown over on purpose names a set-up or pack that is not there.',
    })
  if (!build.neverFlown.every(refersWell))
    problems.push({ path: ['neverFlown'], message: 'A loadout never flown names a set-up or pack that is not there.' })
  return problems
}

/**
 * A whole build whose parts refer only to what is in it. Files written before there were weighings together, a fit, a
 * flight plan and shavings lack those.
 */
export const buildSchema = z
  .strictObject({
    ...buildShape,
    observations: buildShape.observations.default([]),
    fit: buildShape.fit.default(null),
    flying: buildShape.flying.default(null),
    shave: buildShape.shave.default(null),
    assembly: buildShape.assembly.default(null),
  })
  .superRefine((build, context) => {
    for (const problem of crossProblems(build)) context.addIssue({ code: 'custom', ...problem })
  }) satisfies z.ZodType<Build>
