import { z } from 'zod'
import { patchSchema, topicOf, topics, type KeptPatch } from '../../core/changes/commands'
import { noteSchema } from '../../core/text/schemas'

/** Entries are numbered from one; no journal grows beyond this. */
const mostEntries = 1_000_000_000

/** A name for a moment of the journal. */
export const markSchema = z.string().trim().max(60, 'A mark has at most 60 letters.')

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
  /** The builder’s own name for this moment (“maiden”); empty where there is none. */
  mark: markSchema.default(''),
})
/** An entry as it is told, with what it is about. */
export const toldEntrySchema = journalEntrySchema.extend({ topic: z.enum(topics) })
export type ToldEntry = z.infer<typeof toldEntrySchema>
export type JournalEntry = z.infer<typeof journalEntrySchema>

/** An entry with what it changed, as kept in the database and in build files. */
export const journalRecordSchema = journalEntrySchema.extend({ patch: patchSchema })
export type JournalRecord = JournalEntry & { readonly patch: KeptPatch }

/** A kept entry as it is told: with what it is about, without what it changed. */
export function toldOf({ patch, ...entry }: JournalRecord): ToldEntry {
  return { ...entry, topic: topicOf(entry, patch) }
}
