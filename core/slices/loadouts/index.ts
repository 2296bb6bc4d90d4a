import { z } from 'zod'
import { loadoutName, packLines, sameLoadout } from '../../mass/loadout'
import type { Build, LoadoutChoice } from '../../model/ledger'
import { idSchema } from '../../text/schemas'
import { CommandRefused, told, type Reference, type BuildSlice } from '../contract'

declare module '../../model/data/build' {
  interface Build {
    readonly flies: LoadoutChoice
    /** Combinations the builder never flies; left out of “the heaviest loadout”. */
    readonly neverFlown: readonly LoadoutChoice[]
  }
}

export const mostLoadouts = 10_000

export const loadoutChoiceSchema = z.strictObject({
  setupId: idSchema,
  packLineId: idSchema.nullable(),
}) satisfies z.ZodType<LoadoutChoice>

export const keyOfLoadout = ({ setupId, packLineId }: LoadoutChoice) => `${setupId}.${packLineId}`

/** A loadout is a set-up with a pack of the build. */
export function requireLoadout(build: Build, { setupId, packLineId }: LoadoutChoice): void {
  if (!build.setups.some(s => s.id === setupId)) throw new CommandRefused('This build has no such set-up.', 'setupId')
  if (packLineId !== null && !build.lines.some(l => l.id === packLineId && l.slot === 'pack'))
    throw new CommandRefused('This build has no such pack.', 'packLineId')
}

/** A list of decisions about loadouts: one goes with its set-up or pack. It is about that very pack, so it does not follow. */
export function referencesOfLoadouts(at: readonly string[], sentence: string): readonly Reference[] {
  return [
    {
      to: 'lines',
      at,
      ids: ({ packLineId }: LoadoutChoice) => [packLineId],
      loses: () => null,
      missing: { sentence },
    },
    { to: 'setups', at, ids: ({ setupId }: LoadoutChoice) => [setupId], loses: () => null, missing: { sentence } },
  ]
}

const notThere = 'The loadout flown names a set-up or pack that is not there.'

type LoadoutCommand =
  | { readonly type: 'loadout.fly'; readonly choice: LoadoutChoice }
  | { readonly type: 'loadout.never'; readonly choice: LoadoutChoice; readonly never: boolean }

/** What is flown now, and what never is. */
export const loadoutsSlice: BuildSlice<'flies' | 'neverFlown', LoadoutCommand> = {
  name: 'loadouts',
  title: 'Loadouts',
  version: 1,
  upcasts: [],
  fields: {
    flies: {
      kind: 'value',
      schema: loadoutChoiceSchema,
      blank: given => ({ setupId: given.setups[0]!.id, packLineId: packLines(given)[0]?.id ?? null }),
    },
    neverFlown: {
      kind: 'list',
      schema: z.array(loadoutChoiceSchema).max(mostLoadouts),
      blank: () => [],
      list: { item: loadoutChoiceSchema, keyOf: keyOfLoadout, most: mostLoadouts },
    },
  },
  commands: {
    'loadout.fly': {
      shape: { choice: loadoutChoiceSchema },
      apply(build, { choice }) {
        requireLoadout(build, choice)
        return { ...build, flies: choice }
      },
      describe: ({ choice }, before) =>
        told(`Flown as ${loadoutName(before, choice)}, before as ${loadoutName(before, before.flies)}`),
    },
    'loadout.never': {
      shape: { choice: loadoutChoiceSchema, never: z.boolean() },
      apply(build, { choice, never }) {
        requireLoadout(build, choice)
        const others = build.neverFlown.filter(c => !sameLoadout(c, choice))
        return { ...build, neverFlown: never ? [...others, choice] : others }
      },
      describe: ({ choice, never }, before) =>
        told(`${loadoutName(before, choice)}: ${never ? 'never flown' : 'flown again'}`),
    },
  },
  references: [
    {
      to: 'lines',
      at: ['flies'],
      ids: ({ packLineId }: LoadoutChoice) => [packLineId],
      follows: (flies: LoadoutChoice, _replaced, by): LoadoutChoice => ({ ...flies, packLineId: by.id }),
      loses: (flies: LoadoutChoice): LoadoutChoice => ({ ...flies, packLineId: null }),
      missing: { sentence: notThere },
    },
    {
      to: 'setups',
      at: ['flies'],
      ids: ({ setupId }: LoadoutChoice) => [setupId],
      loses: (flies: LoadoutChoice, _gone, build): LoadoutChoice => ({ ...flies, setupId: build.setups[0]!.id }),
      missing: { sentence: notThere },
    },
    ...referencesOfLoadouts(['neverFlown'], 'A loadout never flown names a set-up or pack that is not there.'),
  ],
}
