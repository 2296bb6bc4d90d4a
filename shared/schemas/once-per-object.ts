import { z } from 'zod'

/** A schema for things that never change once they are made: what was found right before is not looked at again. */
export function oncePerObject<T extends object>(schema: z.ZodType<T>): z.ZodType<T> {
  const right = new WeakSet<object>()
  return z.custom<T>().superRefine((value, context) => {
    if (typeof value === 'object' && value !== null && right.has(value)) return
    const parsed = schema.safeParse(value)
    if (parsed.success) right.add(value)
    else for (const { path, message } of parsed.error.issues) context.addIssue({ code: 'custom', path, message })
  })
}
