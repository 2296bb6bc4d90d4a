import { z } from 'zod'
import { keySchema } from './command'
import { idSchema } from '../../core/text/schemas'

/** What is kept outside the builds, each with a journal of its own. */
export const keptDocuments = ['drawer', 'rules', 'scales', 'templates', 'settings', 'flights'] as const
export type KeptDocument = (typeof keptDocuments)[number]

/** The kinds of things kept, by the document they belong to. */
export const keptKinds = {
  part: 'drawer',
  kit: 'drawer',
  card: 'rules',
  verified: 'rules',
  scale: 'scales',
  reference: 'scales',
  check: 'scales',
  tare: 'scales',
  template: 'templates',
  settings: 'settings',
  flight: 'flights',
  finding: 'flights',
  renewal: 'flights',
  settingsRecord: 'flights',
} as const satisfies Record<string, KeptDocument>
export type KeptKind = keyof typeof keptKinds

const fieldsSchema = z.record(z.string().max(40), z.unknown())

/**
 * One thing put in, changed by field or taken out. `set`: the fields as they shall be, all of them for a new thing; null
 * takes it out. `seen`: the same fields as they were seen, null where it was not there. Without `seen` nothing is compared.
 */
export const keptChangeSchema = z.strictObject({
  kind: z.enum(Object.keys(keptKinds) as [KeptKind, ...KeptKind[]]),
  id: idSchema,
  seen: fieldsSchema.nullable().optional(),
  set: fieldsSchema.nullable(),
})
export type KeptChange = z.infer<typeof keptChangeSchema>

/** Changes that belong together: all of them or none, taken back as one. `onTop`: made whatever became of the fields meanwhile. */
export const keptEditSchema = z.strictObject({
  changes: z.array(keptChangeSchema).min(1).max(2000, 'At most 2000 things at once.'),
  key: keySchema.nullable().default(null),
  onTop: z.boolean().default(false),
})
export type KeptEdit = z.infer<typeof keptEditSchema>
export const keptRequestSchema = z.strictObject({
  edits: z.array(keptEditSchema).min(1).max(32, 'At most 32 changes at once.'),
})
/** What undo and redo would do next. */
export const keptReplySchema = z.strictObject({
  /** The build whose flights are meant; '' where nothing is told apart by build. */
  scope: z.string(),
  steps: z.strictObject({ undo: z.string().nullable(), redo: z.string().nullable() }),
})
export type KeptReply = z.infer<typeof keptReplySchema>
