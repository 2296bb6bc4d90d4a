import type { Build } from '../../model/ledger'
import type { CommandRule, KeptList, Reference, SliceField, Upcast } from '../../slices/contract'
import { slices, type Command, type RegisteredField } from './slices'

/** A slice as those see it who treat all alike. */
export interface AnySlice {
  readonly name: string
  readonly title: string
  readonly version: number
  readonly upcasts: readonly Upcast[]
  readonly fields: Readonly<Record<string, SliceField<unknown>>>
  readonly commands: Readonly<Record<string, CommandRule<Command>>>
  readonly references: readonly Reference[]
  readonly merging?: { readonly whole?: readonly string[]; readonly sets?: readonly string[] }
}

export const everySlice = slices as unknown as readonly AnySlice[]

/** Every field of a build in the order of files; a field of the type that no slice keeps does not compile. */
export const buildFields: Readonly<Record<string, SliceField<unknown>>> = Object.assign(
  {},
  ...everySlice.map(slice => slice.fields),
)
export type Forgotten<B extends Build = Build> = Exclude<keyof B, 'id' | RegisteredField>
export const noneForgotten: [Forgotten] extends [never] ? true : Forgotten = true

/** A list of a build with where it lies. */
export interface ListAt extends KeptList {
  readonly name: string
  /** The part it lies in; null for a list of the build itself. */
  readonly part: string | null
  readonly field: string
}

/** Every list of a build: those of its own, and those of its parts under both names (`fit.joints`). */
export const buildLists: readonly ListAt[] = Object.entries(buildFields).flatMap(([name, field]): ListAt[] => {
  if (field.kind === 'list') return [{ ...field.list, name, part: null, field: name }]
  if (field.kind === 'value') return []
  return Object.entries(field.lists).map(([inside, list]) => ({
    ...list,
    name: `${name}.${inside}`,
    part: name,
    field: inside,
  }))
})
const listsByName = new Map(buildLists.map(list => [list.name, list]))
export const listNamed = (name: string): ListAt | undefined => listsByName.get(name)

/** The parts of a build that are there or not, by name. */
export const buildParts = Object.entries(buildFields).flatMap(([name, field]) =>
  field.kind === 'part' ? [{ name, field }] : [],
)

/** A build of which only what is given has been said. */
export function makeBuild(given: Pick<Build, 'id' | 'name'> & Partial<Build>): Build {
  const build: Record<string, unknown> = { ...given }
  for (const [name, field] of Object.entries(buildFields))
    if (build[name] === undefined) build[name] = field.blank(build as never)
  const { id, ...fields } = build
  const ordered = Object.keys(buildFields).map(name => [name, fields[name]])
  return { id, ...Object.fromEntries(ordered) } as Build
}
