import { z } from 'zod'
import { evidences, groups, slots, type Build, type Group } from '../../core/model/ledger'
import type { ListingObservation } from '../../core/mass/listings'
import type { FlightReportRow } from '../../core/aircraft/flight'
import type { ShelfEntry } from '../../core/deciding/shelf'
import {
  buildShape,
  crossProblems,
  lineSchema,
  loadoutChoiceSchema,
  observationSchema,
  referenceFromFirstVersion,
  referenceSchema,
} from './build'
import { leanBuild } from './lean-build'
import { oncePerObject } from './once-per-object'
import { idSchema, nameSchema } from '../../core/text/schemas'
import { massVersionSchema } from './build-file'
import { toldEntrySchema, type ToldEntry } from './journal'
import { ruleCardSchema } from './rule-card'

/** What undo and redo would do next, for their labels; null when there is nothing. */
const stepsSchema = z.strictObject({ undo: z.string().nullable(), redo: z.string().nullable() })
export type Steps = z.infer<typeof stepsSchema>

const listingObservationSchema = z.strictObject({ slot: z.enum(slots), product: z.string(), ratio: z.number() })

/**
 * A build as it is answered. Its lines and weighings never change once they are made, and most of them are the same in
 * every answer: each is looked at once.
 */
const answeredBuildSchema = z
  .strictObject({
    ...buildShape,
    lines: z.array(oncePerObject(lineSchema)),
    observations: z.array(oncePerObject(observationSchema)),
  })
  .superRefine((build, context) => {
    for (const problem of crossProblems(build as unknown as Build)) context.addIssue({ code: 'custom', ...problem })
  }) as unknown as z.ZodType<Build>

/** What a page needs of a build, as it is sent: {@link wholeBuild} gives the build back. */
export const buildReplySchema = z.strictObject({
  build: answeredBuildSchema.transform(leanBuild),
  revision: z.int().nonnegative(),
  steps: stepsSchema,
  /** What other builds teach about listings. */
  honestyElsewhere: z.array(listingObservationSchema),
  /** Lines known by the very weighing of a line of an earlier build: to be asked about. */
  weighedElsewhere: z.strictObject({ from: z.string(), lineIds: z.array(idSchema) }).nullable(),
})
export interface BuildReply {
  readonly build: Build
  readonly revision: number
  readonly steps: Steps
  readonly honestyElsewhere: readonly ListingObservation[]
  readonly weighedElsewhere: { readonly from: string; readonly lineIds: readonly string[] } | null
}

export const commandReplySchema = z.strictObject({
  revision: z.int().positive(),
  entry: toldEntrySchema.nullable(),
  steps: stepsSchema,
})
export type CommandReply = z.infer<typeof commandReplySchema>

export const listingsReplySchema = z.strictObject({ observations: z.array(listingObservationSchema) })

/** Every version of a line's grams, oldest first. */
export const lineHistorySchema = z.strictObject({ versions: z.array(massVersionSchema) })

export const commandsReplySchema = z.strictObject({
  revision: z.int().positive(),
  entries: z.array(toldEntrySchema),
  steps: stepsSchema,
})
export type CommandsReply = z.infer<typeof commandsReplySchema>

/** A page of the journal, newest first; `earlier` says whether there are entries before its last. */
export const journalReplySchema = z.strictObject({
  entries: z.array(toldEntrySchema),
  revision: z.int(),
  earlier: z.boolean(),
})
export type JournalReply = z.infer<typeof journalReplySchema>

/** The number of an entry of a journal; 0 is before the first. */
export const seqSchema = z.int().nonnegative().max(1_000_000_000)

/** A build as it was after an entry of its journal, as it is sent: {@link wholeBuild} gives the build back. */
export const dayReplySchema = z.strictObject({
  build: answeredBuildSchema.transform(leanBuild),
  entry: toldEntrySchema.nullable(),
  at: z.iso.datetime(),
  /** What other builds said of listings then. */
  honestyElsewhere: z.array(listingObservationSchema),
})
export interface DayReply {
  readonly build: Build
  readonly entry: ToldEntry | null
  readonly at: string
  readonly honestyElsewhere: readonly ListingObservation[]
}

/** The weights of a build over its journal, oldest first, by what was known at each moment. */
export const weightsReplySchema = z.strictObject({
  moments: z.array(
    z.strictObject({
      seq: seqSchema,
      at: z.iso.datetime(),
      massG: z.number(),
      sigmaG: z.number(),
      dryG: z.number(),
      drySigmaG: z.number(),
      openLines: z.int(),
    }),
  ),
})
export type WeightsReply = z.infer<typeof weightsReplySchema>

/** For each line that changed between two entries, the last entry that changed it. */
export const touchedReplySchema = z.strictObject({
  lines: z.array(
    z.strictObject({ lineId: idSchema, seq: seqSchema, at: z.iso.datetime(), title: z.string(), note: z.string() }),
  ),
})
export type TouchedReply = z.infer<typeof touchedReplySchema>

/** What a build shall be again: the entry after which it was so, and which of its lines, all where null. */
export const goBackSchema = z.strictObject({ seq: seqSchema, lineIds: z.array(idSchema).min(1).max(1000).nullable() })

export const shelfEntrySchema = z.strictObject({
  id: z.string(),
  name: z.string(),
  craftClass: z.string(),
  archived: z.boolean(),
  pinned: z.boolean(),
  tags: z.array(z.string()).readonly(),
  reference: referenceSchema.nullable(),
  massG: z.number(),
  sigmaG: z.number(),
  dryG: z.number(),
  goalDryG: z.number().nullable(),
  reserveG: z.number(),
  segments: z.array(z.strictObject({ group: z.enum(groups) as z.ZodType<Group>, massG: z.number() })),
  word: z.string().nullable(),
  onPurpose: z.boolean(),
  headroomG: z.number().nullable(),
  intoReserveG: z.number().nullable(),
  probability: z.number().nullable(),
  limitG: z.number().nullable(),
  limitWritten: z.string(),
  loadout: z.string(),
  decidedBy: z.string().nullable(),
  lines: z.int(),
  weighedLines: z.int(),
  weighedWhole: z.boolean(),
  openLines: z.int(),
  evidences: z.record(z.enum(evidences), z.int()),
  assembled: z.strictObject({ done: z.int(), of: z.int(), failed: z.int() }).nullable(),
}) satisfies z.ZodType<ShelfEntry>
export const unreadableSchema = z.strictObject({
  id: z.string(),
  name: z.string(),
  archived: z.boolean(),
  sentence: z.string(),
})
/** A build on the shelf, with what only the shelf knows: when it was changed last, and who else has a part of its own. */
export interface ShelvedBuild extends ShelfEntry {
  readonly changedAt: string | null
  /** Names of other builds that a part of the drawer of this one is fitted on, too. */
  readonly shares: readonly string[]
}
/** Entries were looked at one by one when they were made; those that cannot be read are told apart. */
export const shelfReplySchema = z.strictObject({
  entries: z.custom<readonly ShelvedBuild[]>(Array.isArray),
  unreadable: z.array(unreadableSchema),
})
export type UnreadableBuild = z.infer<typeof unreadableSchema>

export const reportReplySchema = z.strictObject({
  name: z.string(),
  revision: z.int(),
  rows: z.array(
    z.strictObject({
      loadout: z.string(),
      choice: loadoutChoiceSchema,
      auwG: z.number(),
      spreadG: z.number(),
      cards: z.array(
        z.strictObject({
          cardId: z.string(),
          massG: z.number(),
          spreadG: z.number(),
          limitG: z.number().nullable(),
          headroomG: z.number().nullable(),
          probability: z.number().nullable(),
          verdict: z.string(),
        }),
      ),
      minutes: z.number().nullable(),
      hardMinutes: z.number().nullable(),
      gentleMinutes: z.number().nullable(),
      thrustToWeight: z.number().nullable(),
      withoutMinutes: z.string().nullable(),
    }),
  ) satisfies z.ZodType<FlightReportRow[]>,
})

export const newBuildSchema = z.discriminatedUnion('from', [
  z.strictObject({
    from: z.literal('class'),
    name: nameSchema('The build’s name'),
    craftClass: nameSchema('The craft class'),
  }),
  z.strictObject({ from: z.literal('empty'), name: nameSchema('The build’s name') }),
  z.strictObject({
    from: z.literal('copy'),
    name: nameSchema('The build’s name'),
    buildId: idSchema,
    /** As it was after an entry of its journal, 0 before the first; as it is where this is left out. */
    seq: seqSchema.optional(),
  }),
  z.strictObject({
    from: z.literal('reference'),
    name: nameSchema('The build’s name'),
    reference: z.preprocess(referenceFromFirstVersion, referenceSchema),
  }),
  /** A reference craft part by part: what is said of its parts, and all the rest of it as one line. */
  z.strictObject({ from: z.literal('strip'), name: nameSchema('The build’s name'), buildId: idSchema }),
])
export type NewBuild = z.infer<typeof newBuildSchema>

/** What can be done with a build that cannot be read. */
export const rescueSchema = z.strictObject({ what: z.enum(['put away', 'bring back', 'take back']) })

export const idReplySchema = z.strictObject({ id: idSchema })
export const cardsReplySchema = z.strictObject({ cards: z.array(ruleCardSchema) })

export const foundSchema = z.strictObject({
  buildId: z.string(),
  buildName: z.string(),
  lineId: z.string(),
  name: z.string(),
  slot: z.enum(slots),
  state: z.string(),
})
export const searchReplySchema = z.strictObject({ lines: z.array(foundSchema) })
export type Found = z.infer<typeof foundSchema>

/** RFC 9457 problem details, with the field it is about and, for a stale write, what is there now. */
export const problemSchema = z.object({
  type: z.string(),
  title: z.string(),
  status: z.int(),
  detail: z.string(),
  code: z.string(),
  field: z.string().optional(),
  /** What would have done in the place of what was received, as data. */
  expected: z.looseObject({ is: z.string() }).optional(),
  received: z.union([z.number(), z.string()]).optional(),
  current: buildReplySchema.optional(),
  /** For a stale write: the fields both sides changed, in words. */
  meetings: z.array(z.strictObject({ what: z.string(), mine: z.string(), theirs: z.string() })).optional(),
})
export type Problem = Omit<z.infer<typeof problemSchema>, 'current'> & { readonly current?: BuildReply }
