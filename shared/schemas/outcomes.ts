import { z } from 'zod'
import { evidences, slots } from '../../core/model/ledger'

const outcomeSchema = z.strictObject({
  forecastG: z.number(),
  forecastSigmaG: z.number(),
  weighedG: z.number(),
  weighedSigmaG: z.number(),
  takenAt: z.string(),
  bookedG: z.number(),
  bookedSigmaG: z.number(),
  share: z.number(),
  /** Whether it says anything of what plans leave out. */
  teaches: z.boolean(),
})

/** How plans came out: of each build its whole weighing, and every line that was planned and then weighed. */
export const outcomesReplySchema = z.strictObject({
  builds: z.array(
    z.strictObject({
      id: z.string(),
      name: z.string(),
      outcome: outcomeSchema.nullable(),
      /** Share of solder, tape and the like expected of it by the other builds. */
      learnt: z.strictObject({ mu: z.number(), sigma: z.number(), builds: z.int() }),
      lines: z.array(
        z.strictObject({
          lineId: z.string(),
          slot: z.enum(slots),
          name: z.string(),
          evidence: z.enum(evidences),
          forecastG: z.number(),
          spreadG: z.number(),
          weighedG: z.number(),
          isWithin: z.boolean(),
        }),
      ),
    }),
  ),
})
export type OutcomesReply = z.infer<typeof outcomesReplySchema>
