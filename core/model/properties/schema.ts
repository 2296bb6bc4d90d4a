import { z } from 'zod'
import { slots, type Properties, type Property, type PropertyValue, type Slot } from '../data'
import { propertiesOf, propertyNamed } from './definitions'
import { isDay, propertyText, rangeWords } from './read'
import { parsePattern } from './patterns'
import { readBenchTable } from './bench-table'

const patternsSchema = (label: string) =>
  z
    .array(
      z.string().refine(text => parsePattern(text) !== null, `${label} in mm, such as 12×12 M2 or 4 on 9 M2.`),
      { error: `${label} in mm, such as 12×12 M2.` },
    )
    .max(12)

const outputsSchema = (label: string) =>
  z
    .array(
      z.strictObject({
        name: z.string().min(1, 'An output needs a name.').max(40),
        volts: z
          .number({ error: `${label}: volts in V, from 0.5 to 80.` })
          .min(0.5, `${label}: volts in V, from 0.5 to 80.`)
          .max(80, `${label}: volts in V, from 0.5 to 80.`),
        amps: z
          .number({ error: `${label}: amps in A, above 0 and at most 50.` })
          .min(0.001, `${label}: amps in A, above 0 and at most 50.`)
          .max(50, `${label}: amps in A, above 0 and at most 50.`)
          .nullable(),
      }),
    )
    .max(12)
    .refine(outputs => new Set(outputs.map(o => o.name)).size === outputs.length, `${label}: two have the same name.`)

const benchSchema = z
  .array(z.strictObject({ throttlePercent: z.number(), volts: z.number(), amps: z.number(), thrustG: z.number() }))
  .max(60)
  .superRefine((rows, context) => {
    const read = rows.length === 0 ? null : readBenchTable(propertyText(rows))
    if (read && 'problem' in read) context.addIssue({ code: 'custom', message: read.problem })
  })

function schemaOf(property: Property): z.ZodType<PropertyValue> {
  switch (property.kind) {
    case 'measure': {
      const sentence = `${property.label} is ${rangeWords(property)}.`
      const number = z.number({ error: sentence }).min(property.least, sentence).max(property.most, sentence)
      return property.whole ? number.int(sentence) : number
    }
    case 'choice':
      return z.enum(property.choices as [string, ...string[]], {
        error: `${property.label} is one of: ${property.choices.join(', ')}.`,
      })
    case 'yes':
      return z.boolean({ error: `${property.label}: yes or no.` })
    case 'day':
      return z
        .string({ error: `${property.label} is a day, such as 2026-03-01.` })
        .refine(isDay, `${property.label} is a day, written as year-month-day, such as 2026-03-01.`)
    case 'text':
      return z
        .string({ error: `${property.label} must be text.` })
        .max(80, `${property.label} has at most 80 characters.`)
        .refine(
          text => !/[\u0000-\u001F\u007F]/.test(text),
          `${property.label} contains characters that cannot be printed.`,
        )
    case 'patterns':
      return patternsSchema(property.label)
    case 'outputs':
      return outputsSchema(property.label)
    case 'bench':
      return benchSchema
    case 'provides':
      return z.array(z.enum(slots)).max(slots.length)
  }
}

const made = new Map<Slot, z.ZodObject<Record<string, z.ZodOptional<z.ZodType<PropertyValue>>>>>()

/** The schema of one kind of part: every property may be missing, which means not known. Made when first asked for. */
export function propertySchema(slot: Slot) {
  const known = made.get(slot)
  if (known) return known
  const schema = z.strictObject(
    Object.fromEntries(propertiesOf(slot).map(property => [property.key, schemaOf(property).optional()])),
  )
  made.set(slot, schema)
  return schema
}

/** What a line or part carries before its kind is looked at; {@link propertyProblem} says what that kind takes. */
export const anyPropertiesSchema = z.record(z.string().max(40), z.unknown()) as unknown as z.ZodType<Properties>

const ordered = [
  ['voltsMin', 'voltsMax', 'volts', 'V'],
  ['cellsMin', 'cellsMax', 'cells', ''],
  ['bandLowMhz', 'bandHighMhz', 'band', 'MHz'],
] as const

/** A highest below its lowest, or null. */
export function orderProblem(properties: Properties): { key: string; message: string } | null {
  for (const [low, high, what, unit] of ordered) {
    const [from, to] = [properties[low], properties[high]]
    if (typeof from === 'number' && typeof to === 'number' && from > to)
      return {
        key: high,
        message: `The highest ${what}${unit ? ` in ${unit}` : ''} (${to}) is below the lowest (${from}).`,
      }
  }
  return null
}

/** Patterns read before: a list of parts has few different ones. */
const patternsRead = new Set<unknown>()
function isPattern(text: unknown): boolean {
  if (patternsRead.has(text)) return true
  if (typeof text !== 'string' || parsePattern(text) === null) return false
  if (patternsRead.size < 500) patternsRead.add(text)
  return true
}

/** What is wrong with one value, by the schema of its kind; a figure within its range needs no closer look. */
function valueProblem(slot: Slot, property: Property, value: PropertyValue): string | null {
  if (
    property.kind === 'measure' &&
    typeof value === 'number' &&
    value >= property.least &&
    value <= property.most &&
    (!property.whole || Number.isInteger(value))
  )
    return null
  if (property.kind === 'patterns' && Array.isArray(value) && value.length <= 12 && value.every(isPattern)) return null
  return propertySchema(slot).shape[property.key]!.safeParse(value).error?.issues[0]!.message ?? null
}

/** The first thing wrong with a part's properties, or null. `low` above `high` of one measure is wrong too. Looks only at what is there. */
export function propertyProblem(slot: Slot, properties: Properties | null): { key: string; message: string } | null {
  if (!properties) return null
  for (const key in properties) {
    const property = propertyNamed(slot, key)
    const message = property
      ? valueProblem(slot, property, properties[key]!)
      : `A ${slot} has no property “${key.slice(0, 40)}”.`
    if (message !== null) return { key, message }
  }
  return orderProblem(properties)
}
