import { z } from 'zod'
import type { Build } from '../../model/ledger'
import type { KeptLineChange, KeptPatch } from '../../slices/contract'
import { furtherSchema, keptLineSchema, mostFurther, mostLines, patchedLineSchema } from '../../slices/lines'
import { mostSetups, setupSchema } from '../../slices/setups'
import { idSchema } from '../../text/schemas'
import { commandRules, references } from './apply'
import { buildFields, buildLists, buildParts, type ListAt } from './fields'
import type { Command } from './slices'

const someOf = <T extends z.ZodType>(schemas: readonly T[]) => schemas as readonly [T, ...T[]]

/** Everything that can be done to a build, as it is asked for. */
export const commandSchema = z.discriminatedUnion(
  'type',
  someOf(Object.entries(commandRules).map(([type, { shape }]) => z.strictObject({ type: z.literal(type), ...shape }))),
) as unknown as z.ZodType<Command>

const fieldSchemas = Object.fromEntries(Object.entries(buildFields).map(([name, { schema }]) => [name, schema]))

/** The fields of a build but its id, by name. */
export const buildShape = { id: idSchema, ...fieldSchemas } as unknown as {
  readonly [K in keyof Build]: z.ZodType<Build[K]>
}

/** What in a build refers to something that is not there, or stands twice: where, and a sentence. */
export function crossProblems(build: Build): { readonly path: (string | number)[]; readonly message: string }[] {
  const twice = buildLists.flatMap(({ part, field, twice: message, keyOf }) => {
    if (message === undefined || part !== null) return []
    const items = build[field as 'lines'] as readonly never[]
    return new Set(items.map(keyOf)).size === items.length ? [] : [{ path: [field], message }]
  })
  return [...twice, ...references.problems(build)]
}

/** A whole build whose parts refer only to what is in it. */
export const buildSchema = z.strictObject(buildShape).superRefine((build, context) => {
  for (const problem of crossProblems(build as unknown as Build)) context.addIssue({ code: 'custom', ...problem })
}) as unknown as z.ZodType<Build>

/** Where an item stands in its list. */
const placeSchema = z.int().min(0).max(100_000).optional()
const keysSchema = z.array(z.string().max(200)).max(100_000)

/** What became of the items of a list that holds `most`. */
const itemsChange = (item: z.ZodType, most: number) =>
  z.strictObject({
    changes: z
      .array(z.strictObject({ before: item.nullable(), after: item.nullable(), at: placeSchema }))
      .max(2 * most),
    order: z.strictObject({ before: keysSchema, after: keysSchema }).nullable(),
  })
const listChange = ({ name, item, most }: ListAt) => itemsChange(item, most).extend({ list: z.literal(name) })
const keptLists = buildLists.filter(list => list.name !== 'lines')

const partChange = ({ name, field }: (typeof buildParts)[number]) => {
  const fields = z.strictObject(field.shape).partial()
  return z.strictObject({ part: z.literal(name), before: fields, after: fields })
}

const { lines: _lines, setups: _setups, ...headSchemas } = fieldSchemas
const headSchema = z.strictObject(headSchemas).partial()
const setupsSchema = z.array(setupSchema).max(mostSetups)
const orderSchema = z.array(idSchema).max(mostLines)

/** One line before and after: both sides name the same fields, and one that came or went stands whole. */
const lineChangeSchema = z
  .strictObject({
    before: keptLineSchema.nullable(),
    after: keptLineSchema.nullable(),
    at: placeSchema,
    further: itemsChange(furtherSchema, mostFurther).optional(),
  })
  .superRefine(({ before, after }: Pick<KeptLineChange, 'before' | 'after'>, context) => {
    if (before && after) {
      if (namesOf(before) !== namesOf(after))
        context.addIssue({
          code: 'custom',
          path: ['after'],
          message: 'A change names the same fields before and after.',
        })
      return
    }
    const side = before ? 'before' : 'after'
    for (const { message, path } of patchedLineSchema.safeParse(before ?? after).error?.issues ?? [])
      context.addIssue({ code: 'custom', path: [side, ...path], message })
  })
const namesOf = (line: object) => Object.keys(line).sort().join(' ')

/** What a command changed, as the journal keeps it. */
export const patchSchema = z.strictObject({
  head: z.strictObject({ before: headSchema, after: headSchema }).nullable(),
  lines: z.array(lineChangeSchema),
  setups: z.strictObject({ before: setupsSchema, after: setupsSchema }).nullable(),
  order: z.strictObject({ before: orderSchema, after: orderSchema }).nullable(),
  parts: z
    .array(z.discriminatedUnion('part', someOf(buildParts.map(partChange))))
    .max(buildParts.length)
    .optional(),
  lists: z
    .array(z.discriminatedUnion('list', someOf(keptLists.map(listChange))))
    .max(keptLists.length)
    .optional(),
}) as unknown as z.ZodType<KeptPatch>
