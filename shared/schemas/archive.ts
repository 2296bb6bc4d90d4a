import { z } from 'zod'

/** What data hold, to be laid beside what is here; the first and the last day are null where nothing was written. */
export const holdingsSchema = z.strictObject({
  builds: z.array(z.strictObject({ name: z.string(), entries: z.int(), changedAt: z.string().nullable() })),
  flights: z.int(),
  parts: z.int(),
  from: z.string().nullable(),
  to: z.string().nullable(),
})
export type Holdings = z.infer<typeof holdingsSchema>

const copySchema = z.strictObject({ name: z.string(), madeAt: z.iso.datetime(), bytes: z.int() })

/** The copies that were made by themselves, and where; whether somebody sits at the machine, who alone can restore. */
export const copiesReplySchema = z.strictObject({
  copies: z.array(copySchema),
  freeBytes: z.number(),
  folder: z.string(),
  /** Why the last copy that should have been made by itself is not there; null where it is. */
  failure: z.strictObject({ at: z.iso.datetime(), words: z.string() }).nullable(),
  atTheMachine: z.boolean(),
})
export type CopiesReply = z.infer<typeof copiesReplySchema>
/** Photos, pictures and logs that nothing names any more. */
export const unnamedReplySchema = z.strictObject({ bytes: z.int(), pictures: z.int(), logs: z.int() })
export type UnnamedReply = z.infer<typeof unnamedReplySchema>
export const copyReplySchema = z.strictObject({ copy: copySchema })

/** An archive that was checked whole and lies ready, beside what is here. */
export const checkedReplySchema = z.strictObject({
  id: z.string(),
  madeAt: z.iso.datetime(),
  members: z.int(),
  bytes: z.int(),
  holds: holdingsSchema,
  here: holdingsSchema.nullable(),
})
export type CheckedReply = z.infer<typeof checkedReplySchema>

export const restoreSchema = z.strictObject({ id: z.string().regex(/^[\w-]{1,60}$/) })
/** Where what was here is kept, below the data folder. */
export const restoredReplySchema = z.strictObject({ keptAs: z.string() })
