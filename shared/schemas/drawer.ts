import { z } from 'zod'
import type { Kit, Part, PartRow, Placement } from '../../core/parts/drawer'
import { chemistries, lineStates, slots } from '../../core/model/ledger'
import type { Properties } from '../../core/model/properties'
import { massSchema, packFactsSchema, packSoFarSchema } from './build'
import { pictureIdsSchema } from '../../core/slices/lines'
import { largestMassG } from '../../core/text/units'
import { anyPropertiesSchema, propertyProblem } from '../../core/model/properties'
import { centsSchema, idSchema, massGSchema, nameSchema, noteSchema, shortTextSchema } from '../../core/text/schemas'

const pieces = (what: string) =>
  z.int(`${what} is a whole number.`).min(0, `${what} cannot be negative.`).max(99_999, `${what} is at most 99,999.`)

/** The most parts one request carries. */
export const mostParts = 2000
/** The most parts a drawer holds. */
export const drawerHolds = 100_000

export const partSchema = z
  .strictObject({
    id: idSchema,
    slot: z.enum(slots),
    name: nameSchema('The name'),
    properties: anyPropertiesSchema.nullable(),
    listing: z.strictObject({ valueG: massGSchema, resolutionG: z.number().min(0).max(100) }).nullable(),
    mass: massSchema.nullable(),
    pack: packFactsSchema.nullable(),
    packSoFar: packSoFarSchema.nullable().default(null),
    priceCents: centsSchema.nullable(),
    soldIn: z
      .int('“Sold in” is a whole number of pieces.')
      .min(1, '“Sold in” is at least 1 piece.')
      .max(999, '“Sold in” is at most 999 pieces.'),
    owned: pieces('How many you own'),
    lost: pieces('How many are lost'),
    scrapped: pieces('How many are scrapped'),
    missing: pieces('How many were missing'),
    kitId: idSchema.nullable(),
    bag: shortTextSchema('The bag'),
    link: shortTextSchema('The link'),
    note: noteSchema,
    tags: z.array(z.string().min(1).max(40, 'A tag has at most 40 characters.')).max(20, 'At most 20 tags.'),
    pictureIds: pictureIdsSchema.default([]),
  })
  .superRefine((part, context) => {
    const problem = propertyProblem(part.slot, part.properties)
    if (problem) context.addIssue({ code: 'custom', path: ['properties', problem.key], message: problem.message })
    if (part.lost + part.scrapped > part.owned)
      context.addIssue({
        code: 'custom',
        path: ['owned'],
        message: `${part.lost + part.scrapped} lost or scrapped are more than the ${part.owned} owned.`,
      })
  }) satisfies z.ZodType<Part>

const weightSchema = z.strictObject({ valueG: massGSchema, resolutionG: z.number().min(0).max(100) })

/** A row of a list that is brought in. */
export const partRowSchema = z
  .strictObject({
    id: idSchema,
    slot: z.enum(slots),
    name: nameSchema('The name'),
    owned: pieces('How many you own'),
    listed: weightSchema.optional(),
    weighed: weightSchema.optional(),
    properties: z
      .custom<Properties>(value => typeof value === 'object' && value !== null && !Array.isArray(value))
      .optional(),
    priceCents: centsSchema.optional(),
    soldIn: z.int().min(1).max(999).optional(),
    bag: shortTextSchema('The bag').optional(),
    link: shortTextSchema('The link').optional(),
    note: noteSchema.optional(),
    tags: z.array(z.string().min(1).max(40)).max(20).optional(),
    cells: z.int().min(1).max(14).optional(),
    chemistry: z.enum(chemistries).optional(),
    capacityMah: z.number().min(1, 'Capacity is at least 1 mAh.').max(50_000).optional(),
  })
  .superRefine((row, context) => {
    const problem = row.properties ? propertyProblem(row.slot, row.properties) : null
    if (problem) context.addIssue({ code: 'custom', path: ['properties', problem.key], message: problem.message })
  }) satisfies z.ZodType<PartRow>

const rowKeys: ReadonlySet<string> = new Set(Object.keys(partRowSchema.shape))
const slotNames: ReadonlySet<unknown> = new Set(slots)
const plainId = /^[A-Za-z0-9_-]{1,64}$/
const plainWords = /^[A-Za-z\d][A-Za-z\d .,/×“”&()-]{0,118}$/
const isCount = (value: unknown, least: number, most: number) =>
  Number.isInteger(value) && (value as number) >= least && (value as number) <= most
const isWeight = (value: unknown) => {
  const weight = value as { valueG: unknown; resolutionG: unknown } | null
  return (
    typeof weight === 'object' &&
    weight !== null &&
    Object.keys(weight).length === 2 &&
    typeof weight.valueG === 'number' &&
    weight.valueG >= 0 &&
    weight.valueG <= largestMassG &&
    typeof weight.resolutionG === 'number' &&
    weight.resolutionG >= 0 &&
    weight.resolutionG <= 100
  )
}
const isWords = (value: unknown) => value === '' || (typeof value === 'string' && plainWords.test(value))

/**
 * Whether a row is evidently well, at a glance: {@link partRowSchema} takes every such row. False says nothing; the schema
 * has the word then. Lists have tens of thousands of rows, nearly all of them plain.
 */
export function evidentlyWell(value: unknown): boolean {
  if (typeof value !== 'object' || value === null) return false
  const row = value as Record<keyof PartRow, unknown>
  for (const key in row) if (!rowKeys.has(key)) return false
  return (
    typeof row.id === 'string' &&
    plainId.test(row.id) &&
    slotNames.has(row.slot) &&
    typeof row.name === 'string' &&
    plainWords.test(row.name) &&
    isCount(row.owned, 0, 99_999) &&
    (row.listed === undefined || isWeight(row.listed)) &&
    (row.weighed === undefined || isWeight(row.weighed)) &&
    (row.priceCents === undefined || isCount(row.priceCents, 0, 10_000_000)) &&
    (row.soldIn === undefined || isCount(row.soldIn, 1, 999)) &&
    (row.bag === undefined || isWords(row.bag)) &&
    (row.note === undefined || isWords(row.note)) &&
    row.link === undefined &&
    row.tags === undefined &&
    row.cells === undefined &&
    row.chemistry === undefined &&
    row.capacityMah === undefined &&
    (row.properties === undefined ||
      (typeof row.properties === 'object' &&
        row.properties !== null &&
        !Array.isArray(row.properties) &&
        propertyProblem(row.slot as PartRow['slot'], row.properties as Properties) === null))
  )
}
const quickRowSchema = z.unknown().superRefine((value, context) => {
  if (evidentlyWell(value)) return
  for (const issue of partRowSchema.safeParse(value).error?.issues ?? [])
    context.addIssue({ code: 'custom', path: issue.path, message: issue.message })
}) as unknown as z.ZodType<PartRow>
export const partRowsRequestSchema = z.strictObject({
  rows: z.array(quickRowSchema).min(1).max(mostParts, `At most ${mostParts} rows at once.`),
})

export const partsRequestSchema = z.strictObject({
  parts: z.array(partSchema).min(1).max(mostParts, `At most ${mostParts} parts at once.`),
})
export const partIdsSchema = z.strictObject({ ids: z.array(idSchema).min(1).max(mostParts) })

export const kitSchema = z.strictObject({
  id: idSchema,
  name: nameSchema('The kit’s name'),
  priceCents: centsSchema.nullable(),
  link: shortTextSchema('The link'),
  note: noteSchema,
  leavesOut: noteSchema,
}) satisfies z.ZodType<Kit>
export const kitRequestSchema = z.strictObject({
  kit: kitSchema,
  parts: z.array(partSchema).max(200, 'A kit has at most 200 kinds of pieces.'),
})

export const placementSchema = z.strictObject({
  partId: idSchema,
  buildId: idSchema,
  buildName: z.string(),
  lineId: idSchema,
  quantity: z.int(),
  state: z.enum(lineStates),
}) satisfies z.ZodType<Placement>

/** What comes from the database was checked when it was put there; a full drawer is not checked again at every reading. */
export const drawerReplySchema = z.strictObject({
  parts: z.custom<readonly Part[]>(Array.isArray),
  kits: z.custom<readonly Kit[]>(Array.isArray),
  placements: z.custom<readonly Placement[]>(Array.isArray),
})
export interface DrawerReply {
  readonly parts: readonly Part[]
  readonly kits: readonly Kit[]
  readonly placements: readonly Placement[]
}

export const partHistorySchema = z.strictObject({
  versions: z.array(z.strictObject({ madeAt: z.string(), came: z.string(), mass: massSchema })),
})
export type PartHistory = z.infer<typeof partHistorySchema>

export const handOverRequestSchema = z.strictObject({
  lineIds: z.array(idSchema).min(1, 'Choose at least one line.').max(2000),
  to: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('drawer') }),
    z.strictObject({ kind: z.literal('build'), id: idSchema }),
  ]),
})
export type HandOverRequest = z.infer<typeof handOverRequestSchema>

export const mappingSchema = z.strictObject({
  heads: z.string().min(1).max(4000),
  mapping: z.record(z.string().max(200), z.string().max(60)),
})
export const mappingReplySchema = z.strictObject({ mapping: z.record(z.string(), z.string()).nullable() })
export const countSchema = z.strictObject({ count: z.int() })
