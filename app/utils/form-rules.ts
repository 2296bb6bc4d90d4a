import type { FormItemRule } from 'element-plus'
import type { z } from 'zod'

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
