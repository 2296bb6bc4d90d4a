import type { Description, KeptPatch } from '../../slices/contract'

/** What an entry of the journal is about, for reading it by kind. */
export const topics = [
  'grams',
  'weighings',
  'parts',
  'loadouts',
  'aim',
  'fit',
  'flying',
  'shaving',
  'assembly',
  'balance',
] as const
export type Topic = (typeof topics)[number]

/** By the field of a build that changed; what is not named here is a matter of the aim. */
const byField: Readonly<Record<string, Topic>> = {
  observations: 'weighings',
  setups: 'loadouts',
  neverFlown: 'loadouts',
  flies: 'loadouts',
  fit: 'fit',
  flying: 'flying',
  shave: 'shaving',
  assembly: 'assembly',
  places: 'balance',
}

/** What a change is about: its grams before anything else, then weighings together, lines, and the first part it touched. */
export function topicOf(grams: Pick<Description, 'gramsBeforeG' | 'gramsAfterG'>, patch: KeptPatch): Topic {
  if (grams.gramsBeforeG !== null || grams.gramsAfterG !== null) return 'grams'
  const fields = [
    ...(patch.lists ?? []).map(({ list }) => list.split('.')[0]!),
    ...(patch.parts ?? []).map(({ part }) => part),
    ...Object.keys(patch.head?.after ?? {}),
    ...(patch.setups ? ['setups'] : []),
  ]
  if (fields.includes('observations')) return 'weighings'
  if (patch.lines.length > 0 || patch.order) return 'parts'
  return byField[fields[0] ?? ''] ?? 'aim'
}
