import type { Line } from '../../model/ledger'
import { sumCompensated, type RunningSum } from '../../maths/numbers'
import { alwaysFlies } from './counted'

/** When a line is counted: never, always, when the set-up names it, or as the pack. */
export const Flies = { never: 0, always: 1, bySetup: 2, byPack: 3 } as const
export type Flies = (typeof Flies)[keyof typeof Flies]

export function whenItFlies(line: Line, ties: ReadonlySet<string>): Flies {
  if (line.state !== 'fitted') return Flies.never
  if (line.slot === 'pack') return Flies.byPack
  return alwaysFlies(line, ties) ? Flies.always : Flies.bySetup
}

/** The mass of a loadout from the sums of its three parts and what weighings together move it by, grams. */
export const togetherG = (airframe: RunningSum, setup: RunningSum, pack: RunningSum, shiftG: number) =>
  sumCompensated([airframe.value, setup.value, pack.value, airframe.lost, setup.lost, pack.lost, shiftG])
