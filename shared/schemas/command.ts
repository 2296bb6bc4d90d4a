import { z } from 'zod'
import type { Command } from '../../core/changes/commands'
import {
  aimShape,
  buildShape,
  lineSchema,
  lineShape,
  loadoutChoiceSchema,
  massSchema,
  observationSchema,
  setupSchema,
} from './build'
import { fitShape } from './fit'
import { flyingShape } from './flying'
import { assemblyShape, stepRecordSchema } from './assembly'
import { shaveShape, shavingSchema } from './shave'
import { mostCommands } from '../settings'
import { daySchema, idSchema, noteSchema } from './common'

const { id: _id, insteadOf: _insteadOf, edition: _edition, further: _further, ...changeable } = lineShape
const lineFieldsSchema = z.strictObject(changeable).partial()

export const commandSchema = z.discriminatedUnion('type', [
  z.strictObject({
    type: z.literal('build.set'),
    fields: z
      .strictObject({
        name: buildShape.name,
        craftClass: buildShape.craftClass,
        archived: buildShape.archived,
        reference: buildShape.reference,
        aim: z.strictObject(aimShape).partial(),
      })
      .partial(),
  }),
  z.strictObject({
    type: z.literal('lines.add'),
    lines: z.array(lineSchema).min(1).max(2000, 'At most 2000 lines at once.'),
    beforeId: idSchema.nullable(),
    setupId: idSchema.optional(),
  }),
  z.strictObject({
    type: z.literal('lines.change'),
    changes: z
      .array(z.strictObject({ id: idSchema, fields: lineFieldsSchema, anotherPiece: z.boolean().optional() }))
      .min(1)
      .max(2000),
  }),
  z.strictObject({
    type: z.literal('line.weigh'),
    id: idSchema,
    mass: massSchema,
    as: z.enum(['estimate', 'further', 'another piece']),
  }),
  z.strictObject({
    type: z.literal('weighings.correct'),
    corrections: z
      .array(z.strictObject({ id: idSchema, versionId: idSchema, mass: massSchema }))
      .min(1)
      .max(2000),
  }),
  z.strictObject({ type: z.literal('line.another'), id: idSchema, versionId: idSchema, was: massSchema }),
  z.strictObject({ type: z.literal('line.same'), id: idSchema, was: massSchema }),
  z.strictObject({
    type: z.literal('lines.move'),
    ids: z.array(idSchema).min(1).max(2000),
    beforeId: idSchema.nullable(),
  }),
  z.strictObject({ type: z.literal('lines.delete'), ids: z.array(idSchema).min(1).max(2000) }),
  z.strictObject({ type: z.literal('line.fit'), id: idSchema }),
  z.strictObject({ type: z.literal('setup.put'), setup: setupSchema }),
  z.strictObject({ type: z.literal('setup.delete'), id: idSchema }),
  z.strictObject({ type: z.literal('observation.put'), observation: observationSchema }),
  z.strictObject({ type: z.literal('observation.delete'), id: idSchema }),
  z.strictObject({ type: z.literal('fit.set'), fields: z.strictObject(fitShape).partial() }),
  z.strictObject({ type: z.literal('flying.set'), fields: z.strictObject(flyingShape).partial() }),
  z.strictObject({
    type: z.literal('shave.set'),
    fields: z
      .strictObject({ spare: shaveShape.spare, caps: shaveShape.caps, everyLoadout: shaveShape.everyLoadout })
      .partial(),
  }),
  z.strictObject({ type: z.literal('shaving.put'), shaving: shavingSchema }),
  z.strictObject({ type: z.literal('shaving.delete'), id: idSchema }),
  z.strictObject({ type: z.literal('shavings.plan'), ids: z.array(idSchema).max(300) }),
  z.strictObject({
    type: z.literal('shaving.do'),
    id: idSchema,
    mass: massSchema.nullable(),
    realG: shavingSchema.shape.realG,
    on: daySchema,
    gramsG: shavingSchema.shape.gramsG.optional(),
    leadMm: z
      .number()
      .min(0, 'A lead is from 0 to 500 mm long.')
      .max(500, 'A lead is from 0 to 500 mm long.')
      .optional(),
  }),
  z.strictObject({ type: z.literal('assembly.set'), fields: z.strictObject(assemblyShape).partial() }),
  z.strictObject({
    type: z.literal('assembly.record'),
    stepId: stepRecordSchema.shape.stepId,
    fields: stepRecordSchema.omit({ stepId: true }).partial(),
  }),
  z.strictObject({ type: z.literal('loadout.fly'), choice: loadoutChoiceSchema }),
  z.strictObject({ type: z.literal('loadout.never'), choice: loadoutChoiceSchema, never: z.boolean() }),
]) satisfies z.ZodType<Command>

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
