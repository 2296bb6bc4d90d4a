import { sameData } from '../../basics/merge'

/** One item before and after; null where it did not or does not exist. */
export interface ItemChange<T> {
  readonly before: T | null
  readonly after: T | null
  /**
   * Where it stands in the list it was taken from or put into; absent where it stays, and in patches from before lists
   * were kept item by item.
   */
  readonly at?: number | undefined
}

/** What changed in a list: its items one by one, and the order of all only where some of them changed places. */
export interface ListChange<T> {
  readonly changes: readonly ItemChange<T>[]
  readonly order: { readonly before: readonly string[]; readonly after: readonly string[] } | null
}

type Direction = 'forwards' | 'backwards'

const nothing: ListChange<never> = { changes: [], order: null }

/** What became of a list, item by item; null where two of its items have one key, so that they cannot be told apart. */
export function diffItems<T>(
  before: readonly T[],
  after: readonly T[],
  keyOf: (item: T) => string,
): ListChange<T> | null {
  if (before === after) return nothing
  const inPlace = changedInPlace(before, after, keyOf)
  if (inPlace) return inPlace
  const was = new Map(before.map((item, at) => [keyOf(item), { item, at }]))
  const is = new Map(after.map((item, at) => [keyOf(item), { item, at }]))
  if (was.size !== before.length || is.size !== after.length) return null
  const changes: ItemChange<T>[] = []
  for (const [key, { item, at }] of is) {
    const earlier = was.get(key)
    if (!earlier) changes.push({ before: null, after: item, at })
    else if (!sameData(earlier.item, item)) changes.push({ before: earlier.item, after: item })
  }
  for (const [key, { item, at }] of was) if (!is.has(key)) changes.push({ before: item, after: null, at })
  const keptBefore = [...was.keys()].filter(key => is.has(key))
  const keptAfter = [...is.keys()].filter(key => was.has(key))
  const moved = keptBefore.some((key, i) => key !== keptAfter[i])
  return { changes, order: moved ? { before: [...was.keys()], after: [...is.keys()] } : null }
}

/** What changed where the same items stand in the same places, as they mostly do; null where they do not. */
function changedInPlace<T>(
  before: readonly T[],
  after: readonly T[],
  keyOf: (item: T) => string,
): ListChange<T> | null {
  if (before.length !== after.length) return null
  const changes: ItemChange<T>[] = []
  for (let i = 0; i < after.length; i++) {
    const [was, is] = [before[i]!, after[i]!]
    if (was === is) continue
    if (keyOf(was) !== keyOf(is)) return null
    if (!sameData(was, is)) changes.push({ before: was, after: is })
  }
  if (changes.length === 0) return nothing
  // What changed is found by its key again: no other item may have it.
  const changed = new Set(changes.map(change => keyOf(change.after!)))
  let found = 0
  for (const item of after) if (changed.has(keyOf(item))) found++
  return found === changes.length && changed.size === changes.length ? { changes, order: null } : null
}

export function isUnchanged({ changes, order }: ListChange<unknown>): boolean {
  return changes.length === 0 && order === null
}

/** The list after a change of its items, forwards or backwards. What has no place of its own goes to the end. */
export function patchItems<T>(
  items: readonly T[],
  { changes, order }: ListChange<T>,
  direction: Direction,
  keyOf: (item: T) => string,
): readonly T[] {
  if (changes.length === 0 && !order) return items
  const side = direction === 'forwards' ? 'after' : 'before'
  const wanted = new Map(changes.map(change => [keyOf((change.after ?? change.before)!), change]))
  const result: T[] = []
  for (const item of items) {
    const change = wanted.get(keyOf(item))
    if (!change) result.push(item)
    else if (change[side] !== null) result.push(change[side])
    if (change) wanted.delete(keyOf(item))
  }
  const added = [...wanted.values()].filter(change => change[side] !== null)
  for (const { [side]: item, at } of added.sort((a, b) => (a.at ?? Infinity) - (b.at ?? Infinity)))
    result.splice(Math.min(at ?? result.length, result.length), 0, item!)
  return order ? inOrder(result, order[side], keyOf) : result
}

function inOrder<T>(items: readonly T[], keys: readonly string[], keyOf: (item: T) => string): readonly T[] {
  const byKey = new Map(items.map(item => [keyOf(item), item]))
  return keys.flatMap(key => byKey.get(key) ?? [])
}
