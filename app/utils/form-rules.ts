import type { FormItemRule } from 'element-plus'
import type { z } from 'zod'
import { isNotRead, type NotRead } from '#core/text/units'

/** What is wrong, by the name of the field it stands under. */
export type FieldProblems = Readonly<Partial<Record<string, string>>>

/** What a schema says of a value, the first sentence for each field; `under` names the field where the path does not. */
export function problemsOf(schema: z.ZodType, value: unknown, under = ''): Record<string, string> {
  const read = schema.safeParse(value)
  const problems: Record<string, string> = {}
  for (const issue of read.success ? [] : read.error.issues) problems[String(issue.path[0] ?? under)] ??= issue.message
  return problems
}

/**
 * Rules for the fields of a form. `check` looks at the whole of it, since what one field may hold can rest on another;
 * each field is told what concerns it, while it is typed in and when the form is sent.
 */
export function rulesFrom(keys: readonly string[], check: () => FieldProblems): Record<string, FormItemRule> {
  return Object.fromEntries(
    keys.map(key => [
      key,
      {
        trigger: 'change',
        validator: (_rule: unknown, _value: unknown, done: (error?: Error) => void) => {
          const problem = check()[key]
          done(problem === undefined ? undefined : new Error(problem))
        },
      },
    ]),
  )
}

/** What a form holds, field by field, as it was read: what was not understood is the sentence about it. */
export type FieldReads = Readonly<Record<string, unknown>>

const notRead = (read: unknown): read is NotRead => typeof read === 'object' && read !== null && isNotRead(read)

/** The fields of a form by its schema: what they come to, or what is wrong, by field. */
export function fieldsBy<T>(schema: z.ZodType<T>, reads: FieldReads): { value: T } | { problems: FieldProblems } {
  const unread = Object.entries(reads).flatMap(([key, read]) => (notRead(read) ? [[key, read.problem] as const] : []))
  const parsed = schema.safeParse(reads)
  if (unread.length === 0 && parsed.success) return { value: parsed.data }
  return { problems: { ...problemsOf(schema, reads), ...Object.fromEntries(unread) } }
}

/** Which of the form's fields the server speaks of: the same name, a part of it, or the name without its unit. */
export function fieldAmong(keys: readonly string[], said: string | undefined): string | null {
  const steps = said?.split('.') ?? []
  return [...steps, ...steps.map(step => step.replace(/(G|Cents)$/, ''))].find(step => keys.includes(step)) ?? null
}
