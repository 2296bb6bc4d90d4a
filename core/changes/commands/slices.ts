import { assemblySlice } from '../../slices/assembly'
import type { CommandOf } from '../../slices/contract'
import { fitSlice } from '../../slices/fit'
import { flyingSlice } from '../../slices/flying'
import { headSlice } from '../../slices/head'
import { linesSlice } from '../../slices/lines'
import { loadoutsSlice } from '../../slices/loadouts'
import { observationsSlice } from '../../slices/observations'
import { placesSlice } from '../../slices/places'
import { setupsSlice } from '../../slices/setups'
import { shaveSlice } from '../../slices/shave'
import { shelfSlice } from '../../slices/shelf'

/**
 * Everything a build consists of. What can be done to it, what is told of it, files, the journal and the database are made
 * of this list; its order is the order of the fields in a file.
 */
export const slices = [
  headSlice,
  linesSlice,
  setupsSlice,
  loadoutsSlice,
  observationsSlice,
  fitSlice,
  flyingSlice,
  shaveSlice,
  assemblySlice,
  placesSlice,
  shelfSlice,
] as const

type Registered = (typeof slices)[number]

/** Everything that can be done to a build. */
export type Command = CommandOf<Registered>
/** The fields of a build that registered slices keep. */
export type RegisteredField = Registered extends infer S ? (S extends { fields: infer F } ? keyof F : never) : never
