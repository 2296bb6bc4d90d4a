import type { z } from 'zod'
import type { Build } from '../../model/ledger'
import type { Description } from './description'
import type { Patch } from './patch'
import type { Reference, References } from './references'

/** A list that is kept and patched item by item. */
export interface KeptList {
  readonly item: z.ZodType
  /** What tells its items apart. */
  readonly keyOf: (item: never) => string
  /** The most items a build holds. */
  readonly most: number
  /** The sentence where there is none; absent where a list may be empty. */
  readonly none?: string
  /** The sentence where two items have one key; absent where such a list is kept as a whole. */
  readonly twice?: string
}

/**
 * One field of a build. `blank` is what it is while nobody has said anything.
 * - `value` changes as a whole;
 * - `list` changes item by item;
 * - `part` is there or not, and has fields and lists of its own; `empty` is it with nothing said.
 */
export type SliceField<V> = {
  readonly schema: z.ZodType<V>
  readonly blank: (given: Pick<Build, 'id' | 'lines' | 'setups'>) => V
} & (
  | { readonly kind: 'value' }
  | { readonly kind: 'list'; readonly list: KeptList }
  | {
      readonly kind: 'part'
      readonly empty: NonNullable<V>
      readonly shape: Readonly<Record<string, z.ZodType>>
      readonly lists: Readonly<Record<string, KeptList>>
    }
)

type Raw = Readonly<Record<string, unknown>>

/** How what an earlier version has written becomes what the next one writes. What is not named stays as it was. */
export interface Upcast {
  /** Fields of the build that are values, by name. */
  readonly values?: Readonly<Record<string, (value: unknown) => unknown>>
  /** Items of lists, by the name of the list (`setups`, `fit.joints`). Given what may lack fields that did not change. */
  readonly items?: Readonly<Record<string, (item: Raw) => Raw>>
  /** Fields of parts, their lists apart, by name; given only those that are there. */
  readonly parts?: Readonly<Record<string, (fields: Raw) => Raw>>
}

/** One thing that can be done to a build. */
export interface CommandRule<C extends { readonly type: string }> {
  /** Schemas of its fields, its type apart. */
  readonly shape: Readonly<Record<Exclude<keyof C, 'type'>, z.ZodType>>
  /** The build after it. Pure. Throws {@link CommandRefused} where it does not fit the build. */
  readonly apply: (build: Build, command: C, references: References) => Build
  /** What the journal says of it once it has been carried out. */
  readonly describe: (command: C, before: Build, patch: Patch) => Description
  /** The command with the objects it carries as they stand in a build; absent where it carries none. */
  readonly asIn?: (command: C, build: Build) => C
}

/** What one feature keeps in a build, and everything that can be done to it. */
export interface BuildSlice<F extends keyof Build = keyof Build, C extends { readonly type: string } = never> {
  /** Stands in files and databases beside its version. */
  readonly name: string
  /** What a builder calls it. */
  readonly title: string
  /** Of what it writes; raised with an entry in `upcasts` whenever that changes. */
  readonly version: number
  /** From each version but the present one to the next, the first of them from version 1. */
  readonly upcasts: readonly Upcast[]
  readonly fields: { readonly [K in F]: SliceField<Build[K]> }
  readonly commands: { readonly [T in C['type']]: CommandRule<Extract<C, { readonly type: T }>> }
  /** Every id in it that names a line or a set-up. */
  readonly references: readonly Reference[]
  /** For two changes that meet: fields that are one value each, and lists of names whose order says nothing. */
  readonly merging?: { readonly whole?: readonly string[]; readonly sets?: readonly string[] }
}

/** The commands of a slice. */
export type CommandOf<S> = S extends { readonly commands: infer R }
  ? { [T in keyof R]: R[T] extends CommandRule<infer C> ? C : never }[keyof R]
  : never
