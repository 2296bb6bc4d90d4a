import { z } from 'zod'

/**
 * A schema for things that never change once they are made: each is read once, and what came of it, its fields in the
 * order of the schema, is given again afterwards.
 */
export function oncePerObject<T extends object>(schema: z.ZodType<T>): z.ZodType<T> {
  const read = new WeakMap<object, T>()
  return z.unknown().transform((value, context): T => {
    const known = typeof value === 'object' && value !== null ? read.get(value) : undefined
    if (known) return known
    const parsed = schema.safeParse(value)
    if (!parsed.success) {
      for (const { path, message } of parsed.error.issues) context.addIssue({ code: 'custom', path, message })
      return z.NEVER
    }
    read.set(value as object, parsed.data)
    return parsed.data
  })
}
