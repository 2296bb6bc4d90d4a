import { lineGrams } from '../../mass/evidence'
import { slotFacts, type Line } from '../../model/ledger'
import { makeLine, makeMass } from '../../model/ledger'
import { craftPresets, presetLines } from './presets'

/** What a class has of solder, tape and the like, as shares of its typical dry mass. */
export interface TypicalSundries {
  readonly mu: number
  readonly tau: number
}

let counted = 0
const anyId = () => `typical-${counted++}`
const halfRangeOf = ({ mass, quantity }: Line): number =>
  mass?.halfRangeG !== null && mass?.halfRangeG !== undefined
    ? (mass.halfRangeG * quantity) / mass.valueCount
    : (mass?.ownSpreadG ?? 0)
const isSundries = ({ slot }: Line) => slot === 'other'

function ofPreset(name: string): TypicalSundries {
  const lines = presetLines(name, anyId).filter(({ slot, role }) => slot !== 'pack' && role !== 'payload')
  const grams = (all: readonly Line[]) =>
    all.reduce((sum, line) => sum + (line.mass ? lineGrams(line.mass, line.quantity) : 0), 0)
  const dryG = grams(lines)
  const mine = lines.filter(isSundries)
  const halfG = mine.reduce((sum, line) => sum + halfRangeOf(line), 0)
  return { mu: grams(mine) / dryG, tau: halfG / Math.sqrt(3) / dryG }
}

/** What is typical of a class by its name, which a builder may have gone on with; the mean of all classes where it is none of them. */
export function typicalSundries(craftClass: string): TypicalSundries {
  const named = craftPresets.filter(({ name }) => craftClass.startsWith(name))
  const all = (named.length > 0 ? named : craftPresets).map(({ name }) => ofPreset(name))
  const mean = (of: (one: TypicalSundries) => number) => all.reduce((sum, one) => sum + of(one), 0) / all.length
  return { mu: mean(one => one.mu), tau: mean(one => one.tau) }
}

/** The lines of a class with one line of what plans leave out, as it was learnt, in the place of its solder and tape. */
export function withLearntSundries(
  lines: readonly Line[],
  learnt: { readonly valueG: number; readonly sigmaG: number; readonly builds: number },
  newId: () => string,
): Line[] {
  const at = lines.findIndex(isSundries)
  if (at < 0) return [...lines]
  const round4 = (value: number) => Math.round(value * 1e4) / 1e4
  const line = makeLine({
    id: newId(),
    slot: 'other',
    name: `${slotFacts.other.label}: solder, heat-shrink, tape, glue`,
    mass: makeMass({
      versionId: newId(),
      evidence: 'typical',
      valueG: round4(learnt.valueG),
      // A range has the standard uncertainty of its half over √3.
      halfRangeG: round4(learnt.sigmaG * Math.sqrt(3)),
      origin: `learnt from ${learnt.builds === 1 ? 'one finished build' : `${learnt.builds} finished builds`}`,
    }),
  })
  return lines.flatMap((one, i) => (i === at ? [line] : isSundries(one) ? [] : [one]))
}
