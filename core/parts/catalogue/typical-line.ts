import { makeLine, makeMass, slotFacts, type Line, type Slot } from '../../model/ledger'
import { typicalProperties, type TypicalMass } from './typical'

/** A line that is one typical class: its range of grams, and what its name says as properties. */
export function lineOfClass(
  slot: Slot,
  { class: className, lowG, highG }: TypicalMass,
  given: { readonly id: string; readonly versionId: string } & Partial<Line>,
): Line {
  const { versionId, ...fields } = given
  return makeLine({
    slot,
    name: `${slotFacts[slot].label}, ${className}`,
    mass: makeMass({
      versionId,
      evidence: 'typical',
      valueG: (lowG + highG) / 2,
      halfRangeG: (highG - lowG) / 2,
      origin: `typical for ${className}`,
    }),
    properties: typicalProperties(slot, className),
    ...fields,
  })
}
