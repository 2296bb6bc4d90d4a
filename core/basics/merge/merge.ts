import { sameData } from './same'

/** One field that was changed on both sides: where it is, what it was, and what each side made of it. `undefined`: not there. */
export interface Meeting {
  readonly path: readonly string[]
  readonly was: unknown
  readonly mine: unknown
  readonly theirs: unknown
}

/** Objects that are one value: they are only ever changed as a whole. */
export type WholeValues = ReadonlySet<string>

/** Which field tells the items of a list apart; null where a list is one value (its order means something). */
export type KeyOf = (list: readonly unknown[], path: readonly string[]) => ((item: unknown) => string) | null

/** How the fields of a kind of data are merged. */
export interface MergeRules {
  /** Names of fields that are one value whatever they hold. */
  readonly whole: WholeValues
  readonly keyOf: KeyOf
}

/**
 * Merges two changes of the same data by field (three-way merge): what only one side changed is taken from that side, what
 * both made the same is taken once. Where both changed one field differently, mine is kept and the field is named in
 * `meetings`. Items of lists are told apart by key; those both sides have keep their order, new ones follow.
 */
export function mergeByField<T>(
  was: T,
  mine: T,
  theirs: T,
  rules: MergeRules,
): { readonly merged: T; readonly meetings: readonly Meeting[] } {
  const meetings: Meeting[] = []
  const merged = mergeValue(was, mine, theirs, [], rules, meetings) as T
  return { merged, meetings }
}

function isPlain(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value)
}

function mergeValue(
  was: unknown,
  mine: unknown,
  theirs: unknown,
  path: readonly string[],
  rules: MergeRules,
  meetings: Meeting[],
): unknown {
  if (sameData(was, mine)) return theirs
  if (sameData(was, theirs) || sameData(mine, theirs)) return mine
  if (!rules.whole.has(path.at(-1) ?? '')) {
    if (isPlain(mine) && isPlain(theirs) && (isPlain(was) || was === undefined || was === null))
      return mergeObjects(was ?? {}, mine, theirs, path, rules, meetings)
    if (Array.isArray(mine) && Array.isArray(theirs) && (Array.isArray(was) || was === undefined)) {
      const key = rules.keyOf([...mine, ...theirs, ...(was ?? [])], path)
      if (key) return mergeLists(was ?? [], mine, theirs, path, rules, meetings, key)
    }
  }
  meetings.push({ path, was, mine, theirs })
  return mine
}

function mergeObjects(
  was: Record<string, unknown>,
  mine: Record<string, unknown>,
  theirs: Record<string, unknown>,
  path: readonly string[],
  rules: MergeRules,
  meetings: Meeting[],
): Record<string, unknown> {
  const merged: [string, unknown][] = []
  for (const name of new Set([...Object.keys(theirs), ...Object.keys(mine)])) {
    const own = (object: Record<string, unknown>) => (Object.hasOwn(object, name) ? object[name] : undefined)
    const value = mergeValue(own(was), own(mine), own(theirs), [...path, name], rules, meetings)
    if (value !== undefined) merged.push([name, value])
  }
  return Object.fromEntries(merged)
}

function mergeLists(
  was: readonly unknown[],
  mine: readonly unknown[],
  theirs: readonly unknown[],
  path: readonly string[],
  rules: MergeRules,
  meetings: Meeting[],
  key: (item: unknown) => string,
): unknown[] {
  const byKey = (list: readonly unknown[]) => new Map(list.map(item => [key(item), item]))
  const [old, ours, others] = [byKey(was), byKey(mine), byKey(theirs)]
  const merged: unknown[] = []
  for (const name of new Set([...others.keys(), ...ours.keys()])) {
    const value = mergeValue(old.get(name), ours.get(name), others.get(name), [...path, name], rules, meetings)
    if (value !== undefined) merged.push(value)
  }
  return merged
}
