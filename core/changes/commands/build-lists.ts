import type { Build } from '../../model/ledger'

/** The parts of a build that are there or not, each with fields of its own. */
export const buildParts = ['fit', 'flying', 'shave', 'assembly'] as const
export type BuildPart = (typeof buildParts)[number]

/** A list of a build that is kept and patched item by item. */
export interface BuildList {
  readonly name: string
  /** The part it lies in; null for a list of the build itself. */
  readonly part: BuildPart | null
  readonly field: string
  /** What tells its items apart. */
  readonly keyOf: (item: never) => string
  /** The most items a build holds. */
  readonly most: number
}

const byId = ({ id }: { readonly id: string }) => id
const byLoadout = ({ setupId, packLineId }: Build['neverFlown'][number]) => `${setupId}.${packLineId}`

/**
 * Every list of a build but its lines, which the ledger keeps in tables of their own. A list that is not here is patched as
 * a whole with the field it lies in, so that its journal grows with the square of what it holds.
 */
export const buildLists = [
  { name: 'setups', part: null, field: 'setups', keyOf: byId, most: 100 },
  { name: 'neverFlown', part: null, field: 'neverFlown', keyOf: byLoadout, most: 10_000 },
  { name: 'observations', part: null, field: 'observations', keyOf: byId, most: 200 },
  { name: 'fit.joints', part: 'fit', field: 'joints', keyOf: byId, most: 100 },
  { name: 'fit.wires', part: 'fit', field: 'wires', keyOf: byId, most: 200 },
  { name: 'fit.considered', part: 'fit', field: 'considered', keyOf: byId, most: 500 },
  {
    name: 'fit.setAside',
    part: 'fit',
    field: 'setAside',
    keyOf: ({ finding }: { readonly finding: string }) => finding,
    most: 200,
  },
  { name: 'flying.overOnPurpose', part: 'flying', field: 'overOnPurpose', keyOf: byLoadout, most: 10_000 },
  { name: 'shave.shavings', part: 'shave', field: 'shavings', keyOf: byId, most: 300 },
  { name: 'assembly.own', part: 'assembly', field: 'own', keyOf: byId, most: 60 },
  {
    name: 'assembly.records',
    part: 'assembly',
    field: 'records',
    keyOf: ({ stepId }: { readonly stepId: string }) => stepId,
    most: 300,
  },
] as const satisfies readonly BuildList[]
export type BuildListName = (typeof buildLists)[number]['name']

export const listNames = buildLists.map(list => list.name) as [BuildListName, ...BuildListName[]]

/** The most items of a list that a build holds. */
export function mostOf(name: BuildListName): number {
  return buildLists.find(list => list.name === name)!.most
}

/** The lists that lie in a part, or in the build itself. */
export function listsOf(part: BuildPart | null): readonly BuildList[] {
  return buildLists.filter(list => list.part === part)
}
