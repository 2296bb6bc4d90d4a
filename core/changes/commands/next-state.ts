import type { z } from 'zod'
import type { Build, Line } from '../../model/ledger'
import type { KeptPatch } from '../../slices/contract'
import { lineSchema, lineShape, mostLines, wasRead } from '../../slices/lines'
import { buildFields, everySlice, listNamed } from './fields'
import { linesLeftBy, sideOf, type Direction } from './patch'
import { crossProblems } from './schemas'

/** What would make the next state of a build unreadable: the field, and a sentence. */
export interface StateProblem {
  readonly field: string
  readonly sentence: string
}
type Side = 'before' | 'after'

/** The first thing wrong with a value, at its place below `field`. */
function problemIn(schema: z.ZodType, value: unknown, field: string): StateProblem | null {
  const parsed = schema.safeParse(value)
  if (parsed.success) return null
  const issue = parsed.error.issues[0]!
  return { field: [field, ...issue.path].map(String).join('.'), sentence: issue.message }
}

const noPart = (field: string): StateProblem => ({
  field,
  sentence: `A build has no part “${field.slice(0, 40)}”.`,
})

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

/** Lists and parts whose ids must name something that is there. */
const referring: ReadonlySet<string> = new Set(
  everySlice.flatMap(({ references }) => references.filter(one => one.missing).map(({ at }) => at.join('.'))),
)

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
    if (name === 'mass' && line.mass !== null && wasRead(line.mass)) continue
    const problem = problemIn(lineShape[name], line[name], `lines.${line.id}.${name}`)
    if (problem) return problem
  }
  return null
}

/** What is wrong with the lines a patch changed; or whether it changed what other things refer to. */
function linesProblem(next: Build, patch: KeptPatch, side: Side, kept: Build | null): StateProblem | boolean {
  const lines = linesLeftBy(patch, side, next)
  const had = kept && linesLeftBy(patch, side, kept)
  let refersAnew = patch.order !== null
  for (const change of patch.lines) {
    const id = change[side]?.id
    const line = id === undefined ? undefined : lines.get(id)
    const changed = line ? newFields(line, had?.get(line.id)) : null
    const problem = line ? lineProblem(line, changed) : null
    if (problem) return problem
    refersAnew ||= changed === null || changed.some(name => !ownFields.has(name))
  }
  if (next.lines.length > mostLines) return { field: 'lines', sentence: `A build holds at most ${mostLines} lines.` }
  return refersAnew
}

/** Fields that changed as a whole. */
function wholeProblem(next: Build, patch: KeptPatch, side: Side): StateProblem | null {
  for (const name of [...(patch.setups ? ['setups'] : []), ...Object.keys(patch.head?.[side] ?? {})]) {
    if (!Object.hasOwn(buildFields, name)) return noPart(name)
    const problem = problemIn(buildFields[name]!.schema, next[name as keyof Build], name)
    if (problem) return problem
  }
  return null
}

const nothingThere = (field: string): StateProblem => ({
  field,
  sentence: 'Nothing is said there of what the change belongs to.',
})

function partsProblem(next: Build, patch: KeptPatch, side: Side): StateProblem | null {
  for (const { part, [side]: fields } of patch.parts ?? []) {
    const known = buildFields[part]
    if (known?.kind !== 'part') return noPart(part)
    const there = next[part as keyof Build] as unknown as Readonly<Record<string, unknown>> | null
    if (there === null) return nothingThere(part)
    for (const field of Object.keys(fields)) {
      if (!Object.hasOwn(known.shape, field)) return { ...noPart(field), field: `${part}.${field}` }
      const problem = problemIn(known.shape[field]!, there[field], `${part}.${field}`)
      if (problem) return problem
    }
  }
  return null
}

/** Only the items that changed are parsed; how many there are is looked at for the whole list. */
function listsProblem(next: Build, patch: KeptPatch, side: Side): StateProblem | null {
  for (const { list, changes } of patch.lists ?? []) {
    const known = listNamed(list)
    if (!known) return noPart(list)
    const { part, field, most, none, item: schema } = known
    const holder = (part === null ? next : next[part as keyof Build]) as unknown as Record<string, readonly unknown[]>
    if (holder === null) return nothingThere(part!)
    if (holder[field]!.length > most) return { field: list, sentence: `A build holds at most ${most} of these.` }
    if (none && holder[field]!.length === 0) return { field: list, sentence: none }
    for (const { [side]: item } of changes) {
      const problem = item === null ? null : problemIn(schema, item, list)
      if (problem) return problem
    }
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
  patch: KeptPatch,
  direction: Direction,
  kept: Build | null = null,
): StateProblem | null {
  const side = sideOf(direction)
  const lines = linesProblem(next, patch, side, kept)
  if (typeof lines === 'object') return lines
  const inside = wholeProblem(next, patch, side) ?? partsProblem(next, patch, side) ?? listsProblem(next, patch, side)
  if (inside) return inside
  const refersAnew =
    lines ||
    kept === null ||
    patch.head !== null ||
    patch.setups !== null ||
    patch.parts?.some(({ part }) => [...referring].some(place => place.startsWith(`${part}.`))) === true ||
    patch.lists?.some(({ list }) => referring.has(list)) === true
  const [cross] = refersAnew ? crossProblems(next) : []
  return cross ? { field: cross.path.join('.'), sentence: cross.message } : null
}
