import { z } from 'zod'
import { buildLists, listNames, type BuildListName, type BuildPart } from '../../core/changes/commands'
import { assemblySchema, ownStepSchema, stepRecordSchema } from './assembly'
import { loadoutChoiceSchema, observationSchema, setupSchema } from './build'
import { consideredSchema, fitShape, jointSchema, setAsideSchema, wirePlanSchema } from './fit'
import { flyingShape } from './flying'
import { shaveShape, shavingSchema } from './shave'

/** The fields of the parts of a build that are there or not. */
export const partShapes: Readonly<Record<BuildPart, Readonly<Record<string, z.ZodType>>>> = {
  fit: fitShape,
  flying: flyingShape,
  shave: shaveShape,
  assembly: assemblySchema.shape,
}

/** The items of every list that is kept item by item: a list without its schema does not compile. */
export const itemSchemas: Readonly<Record<BuildListName, z.ZodType>> = {
  setups: setupSchema,
  neverFlown: loadoutChoiceSchema,
  observations: observationSchema,
  'fit.joints': jointSchema,
  'fit.wires': wirePlanSchema,
  'fit.considered': consideredSchema,
  'fit.setAside': setAsideSchema,
  'flying.overOnPurpose': loadoutChoiceSchema,
  'shave.shavings': shavingSchema,
  'assembly.own': ownStepSchema,
  'assembly.records': stepRecordSchema,
}

/** Where an item stands in its list. */
export const placeSchema = z.int().min(0).max(100_000).optional()
const keys = z.array(z.string().max(200)).max(100_000)

/** What became of the items of a list that holds `most`. */
export const itemsChangeSchema = <T extends z.ZodType>(item: T, most: number) =>
  z.strictObject({
    changes: z
      .array(z.strictObject({ before: item.nullable(), after: item.nullable(), at: placeSchema }))
      .max(2 * most),
    order: z.strictObject({ before: keys, after: keys }).nullable(),
  })

const changeOf = (list: BuildListName) =>
  itemsChangeSchema(itemSchemas[list], buildLists.find(one => one.name === list)!.most).extend({
    list: z.literal(list),
  })

/** What changed of a list, item by item. */
export const listChangeSchema = z.discriminatedUnion('list', [
  changeOf(listNames[0]),
  ...listNames.slice(1).map(changeOf),
])

const partChangeOf = (part: BuildPart) => {
  const fields = z.strictObject(partShapes[part]).partial()
  return z.strictObject({ part: z.literal(part), before: fields, after: fields })
}
/** Fields of a part that changed. */
export const partChangeSchema = z.discriminatedUnion('part', [
  partChangeOf('fit'),
  partChangeOf('flying'),
  partChangeOf('shave'),
  partChangeOf('assembly'),
])
