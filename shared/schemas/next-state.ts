import type { z } from 'zod'
import type { Patch } from '../../core/commands'
import type { Build } from '../../core/ledger'
import { buildShape, crossProblems, lineSchema } from './build'

/** What would make the next state of a build unreadable: the field, and a sentence. */
export interface StateProblem { readonly field: string, readonly sentence: string }

/** The schemas of the parts of a build that a patch holds as its head. */
const headSchemas: Readonly<Record<string, z.ZodType>> = buildShape

function problemIn(schema: z.ZodType, value: unknown, field: string): StateProblem | null {
  const parsed = schema.safeParse(value)
  if (parsed.success) return null
  const issue = parsed.error.issues[0]!
  return { field: [field, ...issue.path].map(String).join('.'), sentence: issue.message }
}

/**
 * What in the state after a patch would not be read back by the schema of a build, or null. Only what the patch changed is
 * parsed; what refers to something else is looked at in the whole build.
 */
export function nextStateProblem(next: Build, patch: Patch, direction: 'forwards' | 'backwards'): StateProblem | null {
  const side = direction === 'forwards' ? 'after' : 'before'
  for (const change of patch.lines) {
    const line = change[side]
    const problem = line && problemIn(lineSchema, line, `lines.${line.id}`)
    if (problem) return problem
  }
  if (next.lines.length > buildLimits.lines) return { field: 'lines', sentence: `A build holds at most ${buildLimits.lines} lines.` }
  const setups = patch.setups && problemIn(buildShape.setups, next.setups, 'setups')
  if (setups) return setups
  for (const key of Object.keys(patch.head?.[side] ?? {})) {
    if (!Object.hasOwn(headSchemas, key)) return { field: key, sentence: `A build has no part “${key.slice(0, 40)}”.` }
    const problem = problemIn(headSchemas[key]!, next[key as keyof Build], key)
    if (problem) return problem
  }
  const [cross] = crossProblems(next)
  return cross ? { field: cross.path.join('.'), sentence: cross.message } : null
}

const buildLimits = { lines: 2000 }
