import { RunningSum } from '../../maths/numbers'
import type { Build, Line, LoadoutChoice } from '../../model/ledger'
import { lineValueG } from '../evidence'
import type { ListingBiasTable } from '../listings'
import { isOptional, optionalTies } from './counted'
import { Flies, togetherG, whenItFlies } from './parts-of-sum'

/**
 * The mean alone of a loadout, grams: the very `massG` of {@link loadoutMasses}, for whoever asks once after each edit.
 * Null where weighings of several lines together may move it: then it takes the estimates.
 */
export function loadoutMeanG(build: Build, choice: LoadoutChoice, honesty: ListingBiasTable): number | null {
  const { lines, observations, setups } = build
  if (observations.length > 0 || lines.some(line => line.further.length > 0)) return null
  const ties = optionalTies(lines)
  const [airframe, setup, pack] = [new RunningSum(), new RunningSum(), new RunningSum()]
  const bySetup = new Map<string, Line>()
  for (const line of lines) {
    const flies = whenItFlies(line, ties)
    if (flies === Flies.always) airframe.add(lineValueG(line, honesty))
    else if (flies === Flies.bySetup) bySetup.set(line.id, line)
    else if (flies === Flies.byPack && line.id === choice.packLineId) pack.add(lineValueG(line, honesty))
  }
  const named = setups.find(({ id }) => id === choice.setupId)?.lineIds.flatMap(id => bySetup.get(id) ?? []) ?? []
  const flown = named.filter(isOptional)
  for (const line of flown) setup.add(lineValueG(line, honesty))
  if (ties.size > 0) {
    const flownTies = optionalTies(flown)
    for (const line of bySetup.values())
      if (!isOptional(line) && flownTies.has(line.tie!)) setup.add(lineValueG(line, honesty))
  }
  return togetherG(airframe, setup, pack, 0)
}
