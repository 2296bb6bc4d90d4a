import { fixed } from '../../../text/display'
import { countedLines, isOptional } from '../../../mass/loadout'
import { makeShaving } from '../../../model/data'
import { typicalClasses, type TypicalMass } from '../../../parts/catalogue'
import type { Suggestion, SuggestionSetting } from './suggestion'

/** Fittings that could stay at home. */
export function fromFittings({ build, choice, estimates, newId }: SuggestionSetting): Suggestion[] {
  const known = build.shave?.shavings ?? []
  return countedLines(build, choice)
    .filter(
      line =>
        isOptional(line) &&
        line.role === 'fitting' &&
        line.mass &&
        !known.some(s => s.kind === 'leave off' && s.lineId === line.id),
    )
    .map(line => ({
      because: `a fitting of ${fixed(estimates.of(line).valueG, 2)} g`,
      shaving: makeShaving({
        id: newId(),
        what: `leave off: ${line.name}`.slice(0, 120),
        kind: 'leave off',
        lineId: line.id,
        gramsG: Number(estimates.of(line).valueG.toFixed(2)),
        evidence: 'weighed',
      }),
    }))
}

/** Lines that are off and could be put on. */
export function fromOff({ build, estimates, newId }: SuggestionSetting): Suggestion[] {
  const known = build.shave?.shavings ?? []
  return build.lines
    .filter(
      line =>
        line.state === 'off' &&
        line.mass &&
        line.slot !== 'pack' &&
        !known.some(s => s.kind === 'put on' && s.lineId === line.id),
    )
    .map(line => {
      const grams = estimates.of(line).valueG
      return {
        because: `${fixed(grams, 2)} g, off now`,
        shaving: makeShaving({
          id: newId(),
          what: `put on: ${line.name}`.slice(0, 120),
          kind: 'put on',
          lineId: line.id,
          gramsG: -Number(grams.toFixed(2)),
          evidence: 'weighed',
        }),
      }
    })
}

/** Straps and pads well over the low end of the class they are most like. */
export function fromStraps({ build, estimates, newId }: SuggestionSetting): Suggestion[] {
  return build.lines
    .filter(line => line.state === 'fitted' && line.mass && (line.slot === 'strap' || line.slot === 'pad'))
    .flatMap((line): Suggestion[] => {
      const eachG = estimates.of(line).valueG / line.quantity
      const away = ({ lowG, highG }: TypicalMass) => Math.max(lowG - eachG, 0, eachG - highG)
      const alike = typicalClasses(line.slot).toSorted((a, b) => away(a) - away(b) || b.lowG - a.lowG)[0]
      const savesG = alike ? (eachG - alike.lowG) * line.quantity : 0
      if (!alike || savesG < 0.3) return []
      return [
        {
          because: `${fixed(eachG, 2)} g now; ${alike.class} ones weigh ${alike.lowG} to ${alike.highG} g`,
          shaving: makeShaving({
            id: newId(),
            what: `the lightest ${line.slot} of its class`,
            kind: line.slot === 'strap' ? 'lighter strap' : 'other',
            lineId: line.id,
            gramsG: Number(savesG.toFixed(2)),
            evidence: 'guess',
          }),
        },
      ]
    })
}
