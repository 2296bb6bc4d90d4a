import type { Build, FurtherWeighing, Line, Setup } from '../../model/ledger'
import { sameData } from '../../basics/merge'
import { buildParts, listsOf, type BuildList, type BuildListName, type BuildPart } from './build-lists'
import { diffItems, isUnchanged, patchItems, type ItemChange, type ListChange } from './item-lists'

/** The fields of a build that are neither lines nor set-ups. */
export type BuildHead = Omit<Build, 'id' | 'lines' | 'setups'>

/** A line of a patch. Its weighings beside the estimate are left out where the line is there before and after. */
export type PatchedLine = Omit<Line, 'further'> & Partial<Pick<Line, 'further'>>

/** One line before and after; null where it did not or does not exist. */
export interface LineChange extends ItemChange<PatchedLine> {
  /** What became of its weighings beside the estimate, where it is there before and after and they changed. */
  readonly further?: ListChange<FurtherWeighing> | undefined
}

type Fields = Readonly<Record<string, unknown>>

/** Fields of one part of a build that changed, its lists apart. */
export interface PartChange {
  readonly part: BuildPart
  readonly before: Fields
  readonly after: Fields
}

/** Items of one list of a build that changed. */
export interface NamedListChange extends ListChange<unknown> {
  readonly list: BuildListName
}

/**
 * What a command changed, with its before and after: enough to undo and redo it. It holds what changed and nothing
 * else, so that a journal grows in a straight line.
 */
export interface Patch {
  /**
   * Fields of the build itself, and parts that came or went. Patches from before lists were kept item by item hold
   * lists here as a whole.
   */
  readonly head: { readonly before: Partial<BuildHead>; readonly after: Partial<BuildHead> } | null
  readonly lines: readonly LineChange[]
  /** All set-ups, in patches from before lists were kept item by item; null since. */
  readonly setups: { readonly before: readonly Setup[]; readonly after: readonly Setup[] } | null
  /** Ids in ledger order, when lines changed places. */
  readonly order: { readonly before: readonly string[]; readonly after: readonly string[] } | null
  readonly parts?: readonly PartChange[] | undefined
  readonly lists?: readonly NamedListChange[] | undefined
}

type Direction = 'forwards' | 'backwards'
const sideOf = (direction: Direction) => (direction === 'forwards' ? 'after' : 'before')
const lineKey = (line: PatchedLine) => line.id
const furtherKey = ({ mass }: FurtherWeighing) => mass.versionId

const headFields = ['name', 'craftClass', 'archived', 'reference', 'aim', 'flies'] as const

/** The patch from one build to the next: what really differs, field by field and item by item. */
export function diffBuilds(before: Build, after: Build): Patch {
  const head: Record<'before' | 'after', Partial<BuildHead>> = { before: {}, after: {} }
  const whole = (field: keyof BuildHead) => {
    if (sameData(before[field], after[field])) return
    head.before = { ...head.before, [field]: before[field] }
    head.after = { ...head.after, [field]: after[field] }
  }
  const parts: PartChange[] = []
  const lists: NamedListChange[] = []
  headFields.forEach(whole)
  diffLists(before, after, listsOf(null), lists).forEach(field => whole(field as keyof BuildHead))
  for (const part of buildParts) {
    const [was, is] = [before[part] as Fields | null, after[part] as Fields | null]
    if (was === is) continue
    if (was === null || is === null) whole(part)
    else parts.push(...diffPart(part, was, is, lists))
  }
  const lines = diffItems(before.lines, after.lines, lineKey)!
  return {
    head: Object.keys(head.after).length === 0 ? null : head,
    lines: lines.changes.map(lean),
    setups: null,
    order: lines.order,
    ...(parts.length > 0 ? { parts } : {}),
    ...(lists.length > 0 ? { lists } : {}),
  }
}

/** Without the weighings a line had before as well, which may be many. */
function lean(change: ItemChange<Line>): LineChange {
  const { before, after } = change
  if (!before || !after) return change
  const further = diffItems(before.further, after.further, furtherKey)
  if (!further) return change
  const [{ further: _was, ...was }, { further: _is, ...is }] = [before, after]
  return { before: was, after: is, ...(isUnchanged(further) ? {} : { further }) }
}

/** The lines of a build after the changes, each with its weighings beside the estimate. */
function patchLines(lines: readonly Line[], { lines: changes, order }: Patch, direction: Direction): readonly Line[] {
  if (changes.length === 0 && !order) return lines
  const had = new Map(lines.map(line => [line.id, line]))
  const changed = new Map(changes.map(change => [lineKey((change.after ?? change.before)!), change]))
  return patchItems<PatchedLine>(lines, { changes, order }, direction, lineKey).map((line): Line => {
    if (line.further) return line as Line
    const further = had.get(line.id)?.further ?? []
    const change = changed.get(line.id)?.further
    return { ...line, further: change ? patchItems(further, change, direction, furtherKey) : further }
  })
}

/** Puts the changes of lists into `into`; gives back the fields whose items cannot be told apart. */
function diffLists(was: object, is: object, lists: readonly BuildList[], into: NamedListChange[]): string[] {
  return lists.flatMap(({ name, field, keyOf }) => {
    const [before, after] = [was, is].map(holder => (holder as Fields)[field] as readonly never[])
    if (sameData(before, after)) return []
    const change = diffItems(before!, after!, keyOf)
    if (!change) return [field]
    if (!isUnchanged(change)) into.push({ list: name as BuildListName, ...change })
    return []
  })
}

function diffPart(part: BuildPart, was: Fields, is: Fields, into: NamedListChange[]): PartChange[] {
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
export function applyPatch(build: Build, patch: Patch, direction: Direction): Build {
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
  name: BuildListName,
  change: ListChange<unknown>,
  direction: Direction,
): void {
  const { part, field, keyOf } = [...listsOf(null), ...buildParts.flatMap(listsOf)].find(list => list.name === name)!
  const holder = (part === null ? next : next[part]) as Fields | null
  if (holder === null) return
  const items = patchItems(holder[field] as readonly never[], change as ListChange<never>, direction, keyOf)
  if (part === null) next[field] = items
  else next[part] = { ...holder, [field]: items }
}

export function isEmptyPatch(patch: Patch): boolean {
  return (
    !patch.head &&
    patch.lines.length === 0 &&
    !patch.setups &&
    !patch.order &&
    !patch.parts?.length &&
    !patch.lists?.length
  )
}

/** Whether a patch changed a list of the build: in whole, as patches once did, or item by item. */
export function touchesList(patch: Patch, list: 'setups' | 'neverFlown' | 'observations'): boolean {
  if (patch.lists?.some(one => one.list === list)) return true
  return list === 'setups' ? patch.setups !== null : patch.head !== null && list in patch.head.after
}

/** Whether a patch changed anything that lies in the build itself or its parts: neither lines nor lists with rows of their own. */
export function touchesHead(patch: Patch): boolean {
  return patch.head !== null || !!patch.parts?.length || !!patch.lists?.some(one => one.list.includes('.'))
}
