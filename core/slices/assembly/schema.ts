import { z } from 'zod'
import { phases, type Assembly, type AssemblyTemplate, type OwnStep, type StepRecord } from '../../model/data'
import { idSchema, nameSchema, noteSchema } from '../../text/schemas'

export const mostOwnSteps = 60
/** More than any way of building has. */
export const mostRecords = 300

const minutes = z
  .number({ error: 'Minutes are from 0 to 6000.' })
  .min(0, 'Minutes are from 0 to 6000.')
  .max(6000, 'Minutes are from 0 to 6000.')
const moment = z.iso.datetime()
/** Ids of steps: `device-` and the id of a line at most. */
const stepId = z.string().min(1).max(80)

export const ownStepSchema = z.strictObject({
  id: stepId,
  title: nameSchema('The step'),
  words: noteSchema,
  phase: z.enum(phases),
  after: z.array(stepId).max(60),
  minutes,
}) satisfies z.ZodType<OwnStep>
export const stepRecordSchema = z.strictObject({
  stepId,
  startedAt: moment.nullable(),
  doneAt: moment.nullable(),
  minutes: minutes.nullable(),
  test: z.enum(['passed', 'failed']).nullable(),
  overriddenWhy: noteSchema,
  skippedWhy: noteSchema.nullable(),
  note: noteSchema,
  photoIds: z.array(idSchema).max(20, 'A step keeps at most 20 photos.'),
}) satisfies z.ZodType<StepRecord>

export const assemblyShape = {
  school: z.string().min(1).max(80),
  order: z.array(stepId).max(200),
  own: z.array(ownStepSchema).max(mostOwnSteps, `At most ${mostOwnSteps} steps of your own.`),
}
export const assemblySchema = z.strictObject({
  ...assemblyShape,
  records: z.array(stepRecordSchema).max(mostRecords),
}) satisfies z.ZodType<Assembly>
export const assemblyTemplateSchema = z.strictObject({
  id: idSchema,
  name: nameSchema('The template'),
  order: assemblyShape.order,
  own: assemblyShape.own,
}) satisfies z.ZodType<AssemblyTemplate>
export const templatesSchema = z.array(assemblyTemplateSchema)
/** A photo that was taken in: its id, by which it is fetched again. */
export const photoTakenSchema = z.strictObject({ id: idSchema })
