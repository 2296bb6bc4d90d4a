import { z } from 'zod'
import { bareSides, beyondThings, boardSides, heldThings, layerKinds, type FitPlan } from '../../model/data'
import { slots } from '../../model/ledger'
import {
  daySchema,
  idSchema,
  massGSchema,
  nameSchema,
  noteSchema,
  quantitySchema,
  shortTextSchema,
} from '../../text/schemas'

export const mostJoints = 100
export const mostWires = 200
export const mostConsidered = 500
export const mostSetAside = 200

const lengthMm = (what: string, least = 0, most = 500) =>
  z
    .number({ error: `${what} is a number in mm.` })
    .min(least, `${what} is in mm, from ${least} to ${most}.`)
    .max(most, `${what} is in mm, from ${least} to ${most}.`)
const degrees = z
  .number()
  .min(-360, 'A turn is in degrees, from -360 to 360.')
  .max(360, 'A turn is in degrees, from -360 to 360.')

export const layerSchema = z.strictObject({
  id: idSchema,
  name: nameSchema('The layer’s name'),
  kind: z.enum(layerKinds),
  lineId: idSchema.nullable(),
  heightMm: lengthMm('The height', 0, 200).nullable(),
  widthMm: lengthMm('The width', 0.1, 400).nullable(),
  lengthMm: lengthMm('The length', 0.1, 400).nullable(),
  turnDeg: degrees,
  bare: z.enum(bareSides),
  port: z.enum(boardSides).nullable(),
})
export const jointSchema = z.strictObject({
  id: idSchema,
  name: nameSchema('The joint’s name'),
  holds: z.enum(heldThings).nullable(),
  count: quantitySchema.nullable(),
  thread: z
    .string()
    .regex(/^M\d{1,2}(\.\d)?$/, 'A thread is written as in M2 or M2.5.')
    .nullable(),
  head: shortTextSchema('The head').nullable(),
  material: shortTextSchema('The material').nullable(),
  clampedMm: lengthMm('The clamped thickness', 0.1, 100).nullable(),
  engagementMm: lengthMm('The thread to hold', 0.1, 50).nullable(),
  freeDepthMm: lengthMm('The free depth', 0.1, 100).nullable(),
  beyond: z.enum(beyondThings).nullable(),
  into: shortTextSchema('What it bites into'),
  lengthMm: lengthMm('The screw’s length', 1, 80).nullable(),
  lineId: idSchema.nullable(),
  said: z.boolean().optional(),
})
export const wirePlanSchema = z.strictObject({
  id: idSchema,
  name: nameSchema('The lead’s name'),
  from: shortTextSchema('Where it starts'),
  to: shortTextSchema('Where it ends'),
  awg: z.int().min(10, 'A gauge is from AWG 10 to 36.').max(36, 'A gauge is from AWG 10 to 36.').nullable(),
  count: quantitySchema.nullable(),
  routeMm: lengthMm('The way', 1, 2000).nullable(),
  slackMm: lengthMm('The slack', 0, 500).nullable(),
  haveMm: lengthMm('What is there', 0, 5000).nullable(),
})
export const consideredSchema = z.strictObject({
  id: idSchema,
  slot: z.enum(slots),
  name: nameSchema('The name'),
  grams: massGSchema.nullable(),
  why: noteSchema,
  on: daySchema,
})
export const setAsideSchema = z.strictObject({ finding: z.string().min(1).max(200), why: noteSchema })
export const fitShape = {
  stack: z.strictObject({ layers: z.array(layerSchema).max(60) }).nullable(),
  joints: z.array(jointSchema).max(mostJoints),
  wires: z.array(wirePlanSchema).max(mostWires),
  mounting: z.strictObject({
    motorsUpsideDown: z.boolean(),
    pushedProps: z.boolean(),
    boardUpsideDown: z.boolean(),
    boardTurnDeg: degrees,
  }),
  considered: z.array(consideredSchema).max(mostConsidered),
  setAside: z.array(setAsideSchema).max(mostSetAside),
}
export const fitSchema = z.strictObject(fitShape) satisfies z.ZodType<FitPlan>
