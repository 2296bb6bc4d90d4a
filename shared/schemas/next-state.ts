import type { z } from 'zod'
import { buildLists, type BuildListName, type Patch } from '../../core/changes/commands'
import type { Build, Line } from '../../core/model/ledger'
import { buildShape, crossProblems, lineSchema, lineShape } from './build'
import { itemSchemas, partShapes } from './build-lists'

/** What would make the next state of a build unreadable: the field, and a sentence. */
export interface StateProblem {
  readonly field: string
  readonly sentence: string
}

/** The schemas of the parts of a build that a patch holds as its head. */
const headSchemas: Readonly<Record<string, z.ZodType>> = buildShape

function problemIn(schema: z.ZodType, value: unknown, field: string): StateProblem | null {
  const parsed = schema.safeParse(value)
  if (parsed.success) return null
  const issue = parsed.error.issues[0]!
  return { field: [field, ...issue.path].map(String).join('.'), sentence: issue.message }
}

/** Fields of a line that say nothing of other lines, and that others say nothing of. */
const ownFields: ReadonlySet<string> = new Set([
  'name',
  'quantity',
  'mass',
  'listing',
  'priceEachCents',
  'note',
  'removable',
  'properties',
] satisfies (keyof Line)[])

/** The fields of a line that are not the very values the line had before: what it had was checked when it was kept. */
function newFields(line: Line, kept: Line | undefined): string[] | null {
  if (!kept) return null
  const names = Object.keys(line)
  if (names.length !== Object.keys(kept).length) return null
  return names.filter(name => line[name as keyof Line] !== kept[name as keyof Line])
}

function lineProblem(line: Line, changed: readonly string[] | null): StateProblem | null {
  const whole =
    changed === null ||
    changed.some(name => name === 'slot' || name === 'properties' || !Object.hasOwn(lineShape, name))
  if (whole) return problemIn(lineSchema, line, `lines.${line.id}`)
  for (const name of changed as (keyof Line)[]) {
    const problem = problemIn(lineShape[name], line[name], `lines.${line.id}.${name}`)
    if (problem) return problem
  }
  return null
}

/**
 * What in the state after a patch would not be read back by the schema of a build, or null. Only what the patch changed is
 * parsed, of a line that was `kept` before only the fields that are new; what refers to something else is looked at in the
 * whole build where the patch can have touched it.
 */
export function nextStateProblem(
  next: Build,
  patch: Patch,
  direction: 'forwards' | 'backwards',
  kept: Build | null = null,
): StateProblem | null {
  const side = direction === 'forwards' ? 'after' : 'before'
  let refersAnew =
    kept === null ||
    patch.head !== null ||
    patch.setups !== null ||
    patch.order !== null ||
    patch.parts?.some(({ part }) => part === 'flying') === true ||
    patch.lists?.some(({ list }) => referring.has(list)) === true
  const lines = new Map(next.lines.map(line => [line.id, line]))
  const had = new Map(kept?.lines.map(line => [line.id, line]))
  for (const change of patch.lines) {
    const id = change[side]?.id
    const line = id === undefined ? undefined : lines.get(id)
    if (!line) {
      refersAnew = true
      continue
    }
    const changed = newFields(line, had.get(line.id))
    const problem = lineProblem(line, changed)
    if (problem) return problem
    refersAnew ||= changed === null || changed.some(name => !ownFields.has(name))
  }
  if (next.lines.length > buildLimits.lines)
    return { field: 'lines', sentence: `A build holds at most ${buildLimits.lines} lines.` }
  const setups = patch.setups && problemIn(buildShape.setups, next.setups, 'setups')
  if (setups) return setups
  for (const key of Object.keys(patch.head?.[side] ?? {})) {
    if (!Object.hasOwn(headSchemas, key)) return { field: key, sentence: `A build has no part “${key.slice(0, 40)}”.` }
    const problem = problemIn(headSchemas[key]!, next[key as keyof Build], key)
    if (problem) return problem
  }
  const inside = partsProblem(next, patch, side) ?? listsProblem(next, patch, side)
  if (inside) return inside
  const [cross] = refersAnew ? crossProblems(next) : []
  return cross ? { field: cross.path.join('.'), sentence: cross.message } : null
}

const buildLimits = { lines: 2000 }

/** Lists whose items refer to lines and set-ups that must be there. */
const referring: ReadonlySet<BuildListName> = new Set(['setups', 'neverFlown', 'flying.overOnPurpose'])

function partsProblem(next: Build, patch: Patch, side: 'before' | 'after'): StateProblem | null {
  for (const { part, [side]: fields } of patch.parts ?? []) {
    if (next[part] === null) return { field: part, sentence: `Nothing is said there of what the change belongs to.` }
    for (const field of Object.keys(fields)) {
      if (!Object.hasOwn(partShapes[part], field))
        return { field: `${part}.${field}`, sentence: `A build has no part “${field.slice(0, 40)}”.` }
      const value = (next[part] as unknown as Record<string, unknown>)[field]
      const problem = problemIn(partShapes[part][field]!, value, `${part}.${field}`)
      if (problem) return problem
    }
  }
  return null
}

/** Only the items that changed are parsed; how many there are is looked at for the whole list. */
function listsProblem(next: Build, patch: Patch, side: 'before' | 'after'): StateProblem | null {
  for (const { list, changes } of patch.lists ?? []) {
    const { part, field, most } = buildLists.find(one => one.name === list)!
    if (part !== null && next[part] === null)
      return { field: part, sentence: `Nothing is said there of what the change belongs to.` }
    const holder = (part === null ? next : next[part]) as unknown as Record<string, readonly unknown[]>
    if (holder[field]!.length > most) return { field: list, sentence: `A build holds at most ${most} of these.` }
    if (list === 'setups' && holder[field]!.length === 0)
      return { field: list, sentence: 'A build needs at least one set-up.' }
    for (const { [side]: item } of changes) {
      const problem = item === null ? null : problemIn(itemSchemas[list], item, list)
      if (problem) return problem
    }
  }
  return null
}
