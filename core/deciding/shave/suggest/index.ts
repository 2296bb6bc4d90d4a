import { fromCandidates } from './candidates'
import { fromFittings, fromOff, fromStraps } from './lines'
import { fromJoints, fromLeads, fromPlugs } from './making'
import { fromPacks } from './packs'
import type { Suggestion, SuggestionSetting } from './suggestion'

export type { Suggestion, SuggestionSetting } from './suggestion'

/**
 * What the ledger suggests for a loadout. To take grams off: lighter candidates, lighter packs with the minutes they cost,
 * fittings that could stay at home, leads longer than the plan needs, screws, straps, plugs that could be soldered. To put
 * some on: heavier candidates and packs, lines that are off. What is on the list already is not suggested again, nor a swap
 * that would clash with what stays.
 */
export function suggestShavings(setting: SuggestionSetting): Suggestion[] {
  const { build, puttingOn } = setting
  const known = build.shave?.shavings ?? []
  const found = [
    ...fromCandidates(setting),
    ...fromPacks(setting),
    ...(puttingOn
      ? fromOff(setting)
      : [
          ...fromFittings(setting),
          ...fromLeads(setting),
          ...fromJoints(setting),
          ...fromStraps(setting),
          ...fromPlugs(setting),
        ]),
  ]
  return found.filter(({ shaving }) => !known.some(s => s.what === shaving.what))
}
