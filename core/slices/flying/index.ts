import { z } from 'zod'
import { blankFlightPlan, type FlightPlan } from '../../model/data'
import { changesOf, joined, picked, told, type BuildSlice } from '../contract'
import { keyOfLoadout, loadoutChoiceSchema, mostLoadouts, referencesOfLoadouts, requireLoadout } from '../loadouts'
import { flyingSchema, flyingShape } from './schema'

export * from './schema'

declare module '../../model/data/build' {
  interface Build {
    /** How it is flown: what minutes rest on; null while nothing has been said. */
    readonly flying: FlightPlan | null
  }
}

interface SetFlying {
  readonly type: 'flying.set'
  readonly fields: Partial<FlightPlan>
}

/** How it is flown: what minutes rest on. */
export const flyingSlice: BuildSlice<'flying', SetFlying> = {
  name: 'flying',
  title: 'Packs',
  version: 1,
  upcasts: [],
  fields: {
    flying: {
      kind: 'part',
      schema: flyingSchema.nullable(),
      blank: () => null,
      empty: blankFlightPlan,
      shape: flyingShape,
      lists: { overOnPurpose: { item: loadoutChoiceSchema, keyOf: keyOfLoadout, most: mostLoadouts } },
    },
  },
  commands: {
    'flying.set': {
      shape: { fields: z.strictObject(flyingShape).partial() },
      apply(build, { fields }) {
        for (const choice of fields.overOnPurpose ?? []) requireLoadout(build, choice)
        return { ...build, flying: { ...(build.flying ?? blankFlightPlan), ...fields } }
      },
      describe: ({ fields }, before) =>
        told(`Flying: ${joined(changesOf(picked(before.flying ?? blankFlightPlan, fields), fields))}`),
      asIn: (command, build) => ({ ...command, fields: picked(build.flying ?? blankFlightPlan, command.fields) }),
    },
  },
  references: referencesOfLoadouts(
    ['flying', 'overOnPurpose'],
    'A loadout flown over on purpose names a set-up or pack that is not there.',
  ),
}
