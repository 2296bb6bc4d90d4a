import type { Build, FurtherWeighing, Line } from '../../model/ledger'
import { sameData } from '../../basics/merge'
import {
  diffItems,
  isUnchanged,
  patchItems,
  type BuildHead,
  type Fields,
  type ItemChange,
  type KeptLine,
  type KeptLineChange,
  type KeptPatch,
  type LineChange,
  type ListChange,
  type NamedListChange,
  type PartChange,
  type Patch,
  type PatchedLine,
} from '../../slices/contract'
import { buildFields, buildLists, listNamed, type ListAt } from './fields'

export type Direction = 'forwards' | 'backwards'

/** The lines of a build that have one of these ids. */
function linesNamed(lines: readonly Line[], ids: readonly string[]): ReadonlyMap<string, Line> {
  // Most changes are of one line.
  if (ids.length === 1) {
    const line = lines.find(({ id }) => id === ids[0])
    return new Map(line ? [[line.id, line]] : [])
  }
  const wanted = new Set(ids)
  return new Map(lines.flatMap(line => (wanted.has(line.id) ? [[line.id, line] as const] : [])))
}

/** The lines that a patch has changed or put in, as they are in the build after it. */
export const linesLeftBy = ({ lines }: KeptPatch, side: 'before' | 'after', build: Build): ReadonlyMap<string, Line> =>
  linesNamed(build.lines, idsOn(lines, side))

/** Ids of the lines that are there on one side of the changes. */
function idsOn(changes: readonly KeptLineChange[], side: 'before' | 'after'): string[] {
  const ids: string[] = []
  for (const { [side]: line } of changes) if (line) ids.push(line.id)
  return ids
}

export const sideOf = (direction: Direction) => (direction === 'forwards' ? 'after' : 'before')
const lineKey = (line: KeptLine) => line.id
const furtherKey = ({ mass }: FurtherWeighing) => mass.versionId
const listsOf = (part: string | null) => buildLists.filter(list => list.part === part && list.name !== 'lines')
/** Looked up with every edit, and always the same. */
const ownLists = listsOf(null)
const otherFields = Object.entries(buildFields).flatMap(([name, { kind }]) => (kind === 'list' ? [] : [{ name, kind }]))

/** The patch from one build to the next: what really differs, field by field and item by item. */
export function diffBuilds(before: Build, after: Build): Patch {
  const head: Record<'before' | 'after', Partial<BuildHead>> = { before: {}, after: {} }
  const [was, is] = [before, after] as unknown as Fields[]
  const whole = (field: string) => {
    if (sameData(was![field], is![field])) return
    head.before = { ...head.before, [field]: was![field] }
    head.after = { ...head.after, [field]: is![field] }
  }
  const parts: PartChange[] = []
  const lists: NamedListChange[] = []
  diffLists(before, after, ownLists, lists).forEach(whole)
  for (const { name, kind } of otherFields) {
    if (was![name] === is![name]) continue
    if (kind === 'value') {
      whole(name)
      continue
    }
    const [partWas, partIs] = [was![name] as Fields | null, is![name] as Fields | null]
    if (partWas === null || partIs === null) whole(name)
    else parts.push(...diffPart(name, partWas, partIs, lists))
  }
  const lines = diffItems(before.lines, after.lines, lineKey)!
  return {
    head: Object.keys(head.after).length === 0 ? null : head,
    lines: lines.changes.map(furtherApart),
    setups: null,
    order: lines.order,
    ...(parts.length > 0 ? { parts } : {}),
    ...(lists.length > 0 ? { lists } : {}),
  }
}

/** Weighings beside the estimate that changed, item by item: a line may have many. */
function furtherApart(change: ItemChange<Line>): LineChange {
  const { before, after } = change
  if (!before || !after || before.further === after.further) return change
  const further = diffItems(before.further, after.further, furtherKey)
  if (!further) return change
  const [{ further: _was, ...was }, { further: _is, ...is }] = [before, after]
  return { before: was, after: is, ...(isUnchanged(further) ? {} : { further }) }
}

/** A patch as the journal keeps it. */
export const keptPatch = (patch: Patch): KeptPatch =>
  patch.lines.length === 0 ? patch : { ...patch, lines: patch.lines.map(keptLine) }

/**
 * Of a line that stayed only what changed. Its listing stays with it, and the whole line where that changed: what a build has
 * said of listings is read out of such entries alone, without going through all that lie between.
 */
function keptLine(change: LineChange): KeptLineChange {
  const { before, after } = change
  if (!before || !after || !sameData(before.listing, after.listing)) return change
  const was: Record<string, unknown> = { id: before.id }
  const is: Record<string, unknown> = { id: after.id }
  for (const field of Object.keys(after) as (keyof PatchedLine)[]) {
    if (field === 'listing' ? before.listing === null : sameData(before[field], after[field])) continue
    was[field] = before[field]
    is[field] = after[field]
  }
  return { ...change, before: was as KeptLine, after: is as KeptLine }
}

/** A kept patch with the lines that stayed as whole as they are in the build before or after it. */
export function wholePatch(patch: KeptPatch, build: Build): Patch {
  const stayed = patch.lines.filter(({ before, after }) => before && after)
  const there = linesNamed(build.lines, idsOn(stayed, 'after'))
  const whole = (change: KeptLineChange): LineChange => {
    const { before, after } = change
    const line = before && after && there.get(after.id)
    if (!line) return change as LineChange
    const { further: _further, ...rest } = line
    return { ...change, before: { ...rest, ...before }, after: { ...rest, ...after } }
  }
  return { ...patch, lines: patch.lines.map(whole) }
}

/** The lines of a build after the changes, each with its weighings beside the estimate. */
function patchLines(
  lines: readonly Line[],
  { lines: changes, order }: KeptPatch,
  direction: Direction,
): readonly Line[] {
  if (changes.length === 0 && !order) return lines
  const had = new Map(lines.map(line => [line.id, line]))
  const changed = new Map(changes.map(change => [lineKey((change.after ?? change.before)!), change]))
  return patchItems<KeptLine>(lines, { changes, order }, direction, lineKey).map((line): Line => {
    const was = had.get(line.id)
    if (line === was) return was
    const change = changed.get(line.id)?.further
    const further = line.further ?? was?.further ?? []
    return { ...was, ...line, further: change ? patchItems(further, change, direction, furtherKey) : further } as Line
  })
}

/** Puts the changes of lists into `into`; gives back the fields whose items cannot be told apart. */
function diffLists(was: object, is: object, lists: readonly ListAt[], into: NamedListChange[]): string[] {
  const unclear: string[] = []
  for (const { name, field, keyOf } of lists) {
    const [before, after] = [(was as Fields)[field], (is as Fields)[field]] as (readonly never[])[]
    if (sameData(before, after)) continue
    const change = diffItems(before!, after!, keyOf)
    if (!change) unclear.push(field)
    else if (!isUnchanged(change)) into.push({ list: name, ...change })
  }
  return unclear
}

function diffPart(part: string, was: Fields, is: Fields, into: NamedListChange[]): PartChange[] {
  const kept = listsOf(part)
  const unclear = diffLists(was, is, kept, into)
  const others = [...new Set([...Object.keys(was), ...Object.keys(is)])].filter(
    field => !kept.some(list => list.field === field) || unclear.includes(field),
  )
  const changed = others.filter(field => !sameData(was[field], is[field]))
  return changed.length === 0 ? [] : [{ part, before: pick(was, changed), after: pick(is, changed) }]
}

const pick = (from: Fields, fields: readonly string[]): Fields =>
  Object.fromEntries(fields.map(field => [field, from[field]]))

/** The build after a patch, forwards or backwards. */
export function applyPatch(build: Build, patch: KeptPatch, direction: Direction): Build {
  const side = sideOf(direction)
  const next: Record<string, unknown> = {
    ...build,
    ...(patch.head ? patch.head[side] : {}),
    ...(patch.setups ? { setups: patch.setups[side] } : {}),
    lines: patchLines(build.lines, patch, direction),
  }
  // A part that is not there stays so: whoever checks the state after a patch says what is wrong with it.
  for (const { part, [side]: fields } of patch.parts ?? [])
    if (next[part] !== null) next[part] = { ...(next[part] as object), ...fields }
  for (const { list, ...change } of patch.lists ?? []) patchList(next, list, change, direction)
  return next as unknown as Build
}

function patchList(
  next: Record<string, unknown>,
  name: string,
  change: ListChange<unknown>,
  direction: Direction,
): void {
  const { part, field, keyOf } = listNamed(name)!
  const holder = (part === null ? next : next[part]) as Fields | null
  if (holder === null) return
  const items = patchItems(holder[field] as readonly never[], change as ListChange<never>, direction, keyOf)
  if (part === null) next[field] = items
  else next[part] = { ...holder, [field]: items }
}

export function isEmptyPatch(patch: KeptPatch): boolean {
  return (
    !patch.head &&
    patch.lines.length === 0 &&
    !patch.setups &&
    !patch.order &&
    !patch.parts?.length &&
    !patch.lists?.length
  )
}

/** The fields of a build that a patch changed, in whole or in part; what deleted lines leave behind apart. */
export function touchedFields(patch: KeptPatch): ReadonlySet<string> {
  return new Set([
    ...(patch.lines.length > 0 || patch.order ? ['lines'] : []),
    ...(patch.setups ? ['setups'] : []),
    ...Object.keys(patch.head?.after ?? {}),
    ...(patch.parts ?? []).map(({ part }) => part),
    ...(patch.lists ?? []).map(({ list }) => listNamed(list)?.part ?? list),
  ])
}
