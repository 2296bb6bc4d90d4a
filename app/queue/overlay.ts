import { sameData } from '#core/basics/merge'
import type { KeptChange, KeptKind } from '#shared/schemas/kept'
import type { QueuedEdit } from './types'

/** Changes of what is kept outside the builds, as they wait in its line. */
export interface QueuedKeptChanges {
  readonly changes: readonly KeptChange[]
  readonly onTop?: boolean
}

interface Identified {
  readonly id: string
}

/** Things with what waits of one kind carried out on them: shown at once, written when the server says so. */
export function overlaid<T extends Identified>(
  things: readonly T[],
  kind: KeptKind,
  edits: readonly QueuedEdit[],
  blank: (id: string) => Partial<T> = () => ({}),
): readonly T[] {
  const changes = edits
    .flatMap(edit => (edit.payload as QueuedKeptChanges).changes)
    .filter(change => change.kind === kind)
  if (changes.length === 0) return things
  const byId = new Map(things.map(thing => [thing.id, thing]))
  for (const { id, set } of changes) {
    if (set === null) byId.delete(id)
    else byId.set(id, { ...(byId.get(id) ?? (blank(id) as T)), ...set, id })
  }
  return [...byId.values()]
}

/** The change that makes one thing of another: only the fields that differ, with what they were. Null where nothing differs. */
export function keptChangeBetween(kind: KeptKind, before: Identified | null, after: Identified): KeptChange | null {
  const { id, ...fields } = after as Identified & Record<string, unknown>
  if (!before) return { kind, id, seen: null, set: fields }
  const was = before as Identified & Record<string, unknown>
  const keys = Object.keys(fields).filter(key => !sameData(was[key], fields[key]))
  if (keys.length === 0) return null
  const picked = (from: Record<string, unknown>) => Object.fromEntries(keys.map(key => [key, from[key] ?? null]))
  return { kind, id, seen: picked(was), set: picked(fields) }
}

/** The change that takes a thing out, as it was seen. */
export function removalOf(kind: KeptKind, thing: Identified): KeptChange {
  const { id, ...seen } = thing as Identified & Record<string, unknown>
  return { kind, id, seen, set: null }
}
