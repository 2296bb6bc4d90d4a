import type { Lessons } from '../../../aircraft/flown'
import { fitReport, type GroundGear } from '../../../aircraft/fit'
import type { LineEstimates } from '../../../mass/loadout'
import type { Shaving } from '../../../model/data'
import type { Build, Line, LoadoutChoice } from '../../../model/ledger'
import type { Part, Placement } from '../../../parts/drawer'

/**
 * A shaving the ledger itself suggests, with the sum it comes from; with the candidate to be put on the list first,
 * where it is not there.
 */
export interface Suggestion {
  readonly shaving: Shaving
  readonly because: string
  readonly candidate?: Line
}

export interface SuggestionSetting {
  readonly build: Build
  readonly choice: LoadoutChoice
  readonly estimates: LineEstimates
  readonly gear: GroundGear
  /** What the drawer has. */
  readonly parts: readonly Part[]
  /** Where the drawer's pieces are. */
  readonly placements: readonly Placement[]
  /** Whether grams are to be put on instead of taken off. */
  readonly puttingOn: boolean
  /** What flights teach the minutes of the build. */
  readonly lessons?: Lessons | null
  readonly newId: () => string
}

export const clashesOf = ({ choice, gear }: SuggestionSetting, build: Build) => fitReport(build, choice, gear).clashes
