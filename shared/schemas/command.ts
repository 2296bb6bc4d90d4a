import { z } from 'zod'
import { commandSchema } from '../../core/changes/commands'
import { noteSchema } from '../../core/text/schemas'
import { mostCommands } from '../settings'

/** Where a write was typed and which it is, with a dot between: asked for twice with one key, it is done once. */
export const keySchema = z
  .string()
  .regex(/^[\w-]{1,40}(\.[\w-]{1,40})?$/, 'A key has letters, digits and dashes, with at most one dot.')

export const commandRequestSchema = z.strictObject({
  command: commandSchema,
  note: noteSchema.default(''),
  key: keySchema.nullable().default(null),
})

export const commandsRequestSchema = z.strictObject({
  commands: z.array(commandRequestSchema).min(1).max(mostCommands, `At most ${mostCommands} changes at once.`),
})
