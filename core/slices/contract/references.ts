import type { Build, Line } from '../../model/ledger'

/** What ids of a build name. */
export type Named = 'lines' | 'setups'
type ById = ReadonlyMap<string, { readonly name: string }>

/**
 * Ids in a build that name a line or a set-up, and what becomes of them: where the line gives its place to another, where
 * what they name is deleted. What is not said here stays as it is.
 */
export interface Reference {
  readonly to: Named
  /** Where the things lie that hold them: names of fields, from the build on. The last one is a list, or the thing itself. */
  readonly at: readonly string[]
  readonly ids: (holder: never) => readonly (string | null | undefined)[]
  /** Whether a line may stand there by its name as well. */
  readonly alsoByName?: true
  /** The holder after the line it names gave its place to another one. */
  readonly follows?: (holder: never, replaced: Line, by: Line) => unknown
  /** The holder without what is gone; null where it goes as well. `build`: as it is without it. */
  readonly loses?: (holder: never, gone: ById, build: Build) => unknown
  /** The sentence where it names what is not there, and the field to point to; absent where that may be. */
  readonly missing?: { readonly sentence: string; readonly field?: string }
}
/** The references of all slices together: what moves, follows or is cleared when a line or set-up goes. */
export interface References {
  /** What named `replaced` names `by`. */
  readonly follow: (build: Build, replaced: Line, by: Line) => Build
  /** What named things that are gone names nothing. */
  readonly clear: (build: Build, to: Named, gone: ById) => Build
  /** Where something names what is not there: the place, and a sentence. */
  readonly problems: (build: Build) => { readonly path: (string | number)[]; readonly message: string }[]
}

type Thing = Readonly<Record<string, unknown>>

/** The build with what lies at a place changed; the very same where nothing changed. */
function changedAt(holder: unknown, at: readonly string[], change: (item: never) => unknown): unknown {
  if (holder === null || holder === undefined) return holder
  const [name, ...deeper] = at
  if (name === undefined) return Array.isArray(holder) ? changedItems(holder, change) : change(holder as never)
  const inside = (holder as Thing)[name]
  const next = changedAt(inside, deeper, change)
  return next === inside ? holder : { ...(holder as Thing), [name]: next }
}

function changedItems(items: readonly unknown[], change: (item: never) => unknown): readonly unknown[] {
  const next = items.map(item => change(item as never))
  return next.every((item, i) => item === items[i]) ? items : next.filter(item => item !== null)
}

function holdersAt(
  holder: unknown,
  at: readonly string[],
): { readonly holders: readonly never[]; readonly isList: boolean } {
  if (holder === null || holder === undefined) return { holders: [], isList: true }
  const [name, ...deeper] = at
  if (name !== undefined) return holdersAt((holder as Thing)[name], deeper)
  const isList = Array.isArray(holder)
  return { holders: (isList ? holder : [holder]) as never[], isList }
}

/** One rule for all: what the references of several slices come to. */
export function referencesOf(all: readonly Reference[]): References {
  const applied = (build: Build, which: Named, change: (one: Reference) => ((item: never) => unknown) | null) =>
    all.reduce((next, one) => {
      const become = one.to === which ? change(one) : null
      return become ? (changedAt(next, one.at, become) as Build) : next
    }, build)
  return {
    follow: (build, replaced, by) =>
      applied(build, 'lines', ({ ids, alsoByName, follows }) => {
        if (!follows) return null
        const isMeant = (id: unknown) => id === replaced.id || (alsoByName && id === replaced.name)
        return item => (ids(item).some(isMeant) ? follows(item, replaced, by) : item)
      }),
    clear: (build, to, gone) =>
      applied(build, to, ({ ids, loses }) =>
        loses ? item => (ids(item).some(id => id && gone.has(id)) ? loses(item, gone, build) : item) : null,
      ),
    problems(build) {
      const known = {
        lines: new Set(build.lines.map(line => line.id)),
        setups: new Set(build.setups.map(setup => setup.id)),
      }
      return all.flatMap(({ to, at, ids, missing }) => {
        if (missing === undefined) return []
        const { holders, isList } = holdersAt(build, at)
        const wrong = holders.findIndex(item => ids(item).some(id => id && !known[to].has(id)))
        const path = [...at, ...(isList ? [wrong] : []), ...(missing.field ? [missing.field] : [])]
        return wrong < 0 ? [] : [{ path, message: missing.sentence }]
      })
    },
  }
}
