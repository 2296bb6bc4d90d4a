import { addEstimates, exactly, sigmaG, subtractEstimates, type Estimate } from '../../maths/estimate'
import { coverageFactor95 } from '../../maths/numbers'
import { lineEstimate } from '../../mass/evidence'
import type { ListingBiasTable } from '../../mass/listings'
import type { Build, Observation, Slot, Subject } from '../../model/ledger'

/** A weighing of the whole craft: what it was of, and what it said. */
export interface WholeTotal {
  readonly id: string
  readonly title: string
  readonly takenAt: string
  readonly of: 'dry' | 'all-up'
  readonly pieces: number
  readonly valueG: number
  readonly sigmaG: number
  readonly state: Observation['state']
}

/** One line by which two weighings differ: another piece, one more, one less. */
export interface ChangedBetween {
  readonly lineId: string
  readonly slot: Slot
  readonly changeG: number
}

/** A weighing of the whole against the one of its kind before it. */
export interface TotalsApart {
  readonly from: WholeTotal
  readonly to: WholeTotal
  readonly differenceG: number
  readonly changed: readonly ChangedBetween[]
  /** What the changed lines do not explain, with its ± at 95 %, grams. */
  readonly remainsG: number
  readonly spreadG: number
  /** What remains lies beyond its ±: somebody should look. */
  readonly isFinding: boolean
}

/** A craft has a frame and motors: without them it was a part of one. */
const isWhole = ({ subjects }: Observation) =>
  (['frame', 'motor'] as const).every(slot => subjects.some(subject => subject.slot === slot))

const totalOf = (observation: Observation): WholeTotal => ({
  id: observation.id,
  title: observation.title,
  takenAt: observation.takenAt,
  of: observation.subjects.some(({ slot }) => slot === 'pack') ? 'all-up' : 'dry',
  pieces: observation.subjects.length,
  valueG: observation.valueG,
  sigmaG: sigmaG({ valueG: observation.valueG, contributions: observation.contributions }),
  state: observation.state,
})

/** Every weighing of the whole craft, oldest first. */
export function wholeTotals({ observations }: Pick<Build, 'observations'>): WholeTotal[] {
  return observations
    .filter(isWhole)
    .map(totalOf)
    .sort((a, b) => a.takenAt.localeCompare(b.takenAt))
}

/** Whether two weighings had the same piece of a line on the pan. */
const isSame = (a: Subject, b: Subject) =>
  a.quantity === b.quantity &&
  (a.edition != null && b.edition != null ? a.edition === b.edition : a.mass?.versionId === b.mass?.versionId)

function changedBetween(from: Observation, to: Observation, honesty: ListingBiasTable) {
  const before = new Map(from.subjects.map(subject => [subject.id, subject]))
  const after = new Map(to.subjects.map(subject => [subject.id, subject]))
  const gramsOf = (subject: Subject | undefined): Estimate =>
    subject?.mass ? lineEstimate({ ...subject, mass: subject.mass }, honesty) : exactly(0)
  return [...new Set([...before.keys(), ...after.keys()])].flatMap(lineId => {
    const [was, is] = [before.get(lineId), after.get(lineId)]
    if (was && is && isSame(was, is)) return []
    return [{ lineId, slot: (is ?? was)!.slot, change: subtractEstimates(gramsOf(is), gramsOf(was)) }]
  })
}

/**
 * Weighings of the whole craft against each other, dry with dry and all-up with all-up, each with the one before it: the
 * difference, the lines that explain it, and what remains with its ±. What both owe to one scale cancels.
 */
export function totalsApart(build: Build, honesty: ListingBiasTable): TotalsApart[] {
  const whole = build.observations.filter(isWhole).sort((a, b) => a.takenAt.localeCompare(b.takenAt))
  return (['dry', 'all-up'] as const).flatMap(of => {
    const mine = whole.filter(observation => totalOf(observation).of === of)
    return mine.slice(1).map((to, i): TotalsApart => {
      const from = mine[i]!
      const changed = changedBetween(from, to, honesty)
      const said = ({ valueG, contributions }: Observation): Estimate => ({ valueG, contributions })
      const difference = subtractEstimates(said(to), said(from))
      const remains = subtractEstimates(difference, addEstimates(changed.map(({ change }) => change)))
      const spreadG = coverageFactor95 * sigmaG(remains)
      return {
        from: totalOf(from),
        to: totalOf(to),
        differenceG: difference.valueG,
        changed: changed
          .map(({ lineId, slot, change }) => ({ lineId, slot, changeG: change.valueG }))
          .sort((a, b) => Math.abs(b.changeG) - Math.abs(a.changeG)),
        remainsG: remains.valueG,
        spreadG,
        isFinding: Math.abs(remains.valueG) > spreadG,
      }
    })
  })
}
