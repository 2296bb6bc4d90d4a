import { z } from 'zod'
import { styles } from '../../core/model/data'
import { verdictWords } from '../../core/limits/verdict'
import { idSchema } from '../../core/text/schemas'
import { loadoutChoiceSchema } from './build'
import { snapshotSchema } from './flights'

const minutesSchema = z.strictObject({ low: z.number(), middle: z.number(), high: z.number() })

/** Everything that flights in the field need, of every build on the shelf. */
export const fieldReplySchema = z.strictObject({
  /** When it was put together. */
  at: z.iso.datetime(),
  builds: z.array(
    z.strictObject({
      id: idSchema,
      name: z.string(),
      style: z.enum(styles),
      restsOn: z.int(),
      flights: z.int(),
      flies: z.string(),
      loadouts: z.array(
        z.strictObject({
          key: z.string(),
          choice: loadoutChoiceSchema,
          pack: z.string(),
          setup: z.string(),
          chargedOn: z.string().nullable(),
          snapshot: snapshotSchema,
          word: z.enum(verdictWords).nullable(),
          minutes: z.record(z.enum(styles), minutesSchema.nullable()),
          checks: z.array(z.strictObject({ words: z.string(), open: z.boolean() })),
        }),
      ),
      open: z.array(z.string()),
    }),
  ),
})
export type FieldReply = z.infer<typeof fieldReplySchema>
