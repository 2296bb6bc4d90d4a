import type { Build, Line, Setup } from '../ledger'
import { sameData } from '../merge'

/** The fields of a build that are neither lines nor set-ups. */
export type BuildHead = Omit<Build, 'id' | 'lines' | 'setups'>

/** One line before and after; null where it did not or does not exist. */
export interface LineChange {
  readonly before: Line | null
  readonly after: Line | null
}

/** What a command changed, with its before and after: enough to undo and redo it. */
export interface Patch {
  readonly head: { readonly before: Partial<BuildHead>; readonly after: Partial<BuildHead> } | null
  readonly lines: readonly LineChange[]
  /** All set-ups, when one of them changed: they are few, and their order matters. */
  readonly setups: { readonly before: readonly Setup[]; readonly after: readonly Setup[] } | null
  /** Ids in ledger order, when it changed. */
  readonly order: { readonly before: readonly string[]; readonly after: readonly string[] } | null
}

const headFields = [
  'name',
  'craftClass',
  'archived',
  'reference',
  'aim',
  'flies',
  'neverFlown',
  'observations',
  'fit',
  'flying',
  'shave',
  'assembly',
] as const satisfies readonly (keyof BuildHead)[]

/** The patch from one build to the next: what really differs, field by field. */
export function diffBuilds(before: Build, after: Build): Patch {
  const changed = headFields.filter(field => !sameData(before[field], after[field]))
  return {
    head: changed.length === 0 ? null : { before: pick(before, changed), after: pick(after, changed) },
    lines: before.lines === after.lines ? [] : diffLines(before.lines, after.lines),
    setups: sameData(before.setups, after.setups) ? null : { before: before.setups, after: after.setups },
    order: before.lines === after.lines ? null : diffOrder(before.lines, after.lines),
  }
}

/** The build after a patch, forwards or backwards. */
export function applyPatch(build: Build, patch: Patch, direction: 'forwards' | 'backwards'): Build {
  const side = direction === 'forwards' ? 'after' : 'before'
  const lines = patchLines(build.lines, patch.lines, direction)
  return {
    ...build,
    ...(patch.head ? patch.head[side] : {}),
    lines: patch.order ? inOrder(lines, patch.order[side]) : lines,
    setups: patch.setups ? patch.setups[side] : build.setups,
  }
}

export function isEmptyPatch(patch: Patch): boolean {
  return !patch.head && patch.lines.length === 0 && !patch.setups && !patch.order
}

function pick(build: Build, fields: readonly (typeof headFields)[number][]): Partial<BuildHead> {
  return Object.fromEntries(fields.map(field => [field, build[field]]))
}

function diffLines(before: readonly Line[], after: readonly Line[]): LineChange[] {
  const earlier = new Map(before.map(item => [item.id, item]))
  const changes: LineChange[] = []
  for (const item of after) {
    const was = earlier.get(item.id) ?? null
    if (was === null || !sameData(was, item)) changes.push({ before: was, after: item })
    earlier.delete(item.id)
  }
  for (const gone of earlier.values()) changes.push({ before: gone, after: null })
  return changes
}

function diffOrder(before: readonly Line[], after: readonly Line[]): Patch['order'] {
  const same = before.length === after.length && before.every((line, i) => line.id === after[i]!.id)
  return same ? null : { before: before.map(l => l.id), after: after.map(l => l.id) }
}

function patchLines(
  items: readonly Line[],
  changes: readonly LineChange[],
  direction: 'forwards' | 'backwards',
): readonly Line[] {
  if (changes.length === 0) return items
  const targets = new Map(
    changes.map(change => [
      (change.after ?? change.before)!.id,
      direction === 'forwards' ? change.after : change.before,
    ]),
  )
  const result: Line[] = []
  for (const item of items) {
    const target = targets.get(item.id)
    if (target === undefined) result.push(item)
    else if (target !== null) result.push(target)
    targets.delete(item.id)
  }
  for (const added of targets.values()) if (added) result.push(added)
  return result
}

function inOrder(lines: readonly Line[], ids: readonly string[]): readonly Line[] {
  const byId = new Map(lines.map(line => [line.id, line]))
  return ids.flatMap(id => byId.get(id) ?? [])
}
