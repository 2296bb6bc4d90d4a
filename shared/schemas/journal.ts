import { z } from 'zod'
import { listNames, mostFurther, type Patch } from '../../core/changes/commands'
import { buildShape, lineShape, patchedLineSchema, setupSchema } from './build'
import { itemsChangeSchema, listChangeSchema, partChangeSchema, placeSchema } from './build-lists'
import { idSchema, noteSchema } from './common'

const { id: _id, lines: _lines, setups: _setups, ...headShape } = buildShape
const headSchema = z.strictObject(headShape).partial()

export const patchSchema = z.strictObject({
  head: z.strictObject({ before: headSchema, after: headSchema }).nullable(),
  lines: z.array(
    z.strictObject({
      before: patchedLineSchema.nullable(),
      after: patchedLineSchema.nullable(),
      at: placeSchema,
      further: itemsChangeSchema(lineShape.further.element, mostFurther).optional(),
    }),
  ),
  setups: z.strictObject({ before: z.array(setupSchema), after: z.array(setupSchema) }).nullable(),
  order: z.strictObject({ before: z.array(idSchema), after: z.array(idSchema) }).nullable(),
  parts: z.array(partChangeSchema).max(4).optional(),
  lists: z.array(listChangeSchema).max(listNames.length).optional(),
}) satisfies z.ZodType<Patch>

/** Entries are numbered from one; no journal grows beyond this. */
const mostEntries = 1_000_000_000

export const entryKinds = ['do', 'undo', 'redo'] as const

/** One entry of the journal. `target` is the entry an undo or redo was of. */
export const journalEntrySchema = z.strictObject({
  seq: z.int().positive().max(mostEntries),
  at: z.iso.datetime(),
  kind: z.enum(entryKinds),
  target: z.int().positive().max(mostEntries).nullable(),
  title: z.string().max(600),
  gramsBeforeG: z.number().nullable(),
  gramsAfterG: z.number().nullable(),
  auwBeforeG: z.number(),
  auwAfterG: z.number(),
  note: noteSchema,
  /** Whether the change is in force, taken back, or taken back and overtaken by a later change. */
  undone: z.enum(['in force', 'taken back', 'overtaken']),
})
export type JournalEntry = z.infer<typeof journalEntrySchema>

/** An entry with what it changed, as kept in the database and in build files. */
export const journalRecordSchema = journalEntrySchema.extend({ patch: patchSchema })
export type JournalRecord = JournalEntry & { readonly patch: Patch }
