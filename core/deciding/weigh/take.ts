import { CoreInputError } from '../../basics/errors'
import { addEstimates, type Estimate } from '../../maths/estimate'
import { lineEstimate } from '../../mass/evidence'
import {
  makeMass,
  subjectOf,
  type Basis,
  type Build,
  type Line,
  type Mass,
  type Observation,
  type WeighingMethod,
} from '../../model/ledger'
import { sumCompensated } from '../../maths/numbers'
import type { ListingBiasTable } from '../../mass/listings'
import { asObserved, byDifference, inLifts, meanEstimate, weighedEstimate, type ScaleState } from '../../mass/scale'

/** A scale ready to weigh on: its state, with the name that is kept with the weighing. */
export interface ReadyScale extends ScaleState {
  readonly name: string
}

/** The tare of a weighing: the zero key (display 0) or a named tray; null for none. */
export interface TareUsed {
  readonly id: string
  readonly name: string
  readonly displayG: number
}

/** What is common to everything taken: the scale, the tare, when, and the id of the new version. */
export interface Taking {
  readonly ready: ReadyScale
  readonly tare: TareUsed | null
  readonly takenAt: string
  readonly id: string
}

/** A mass is never taken from a display that comes out below nothing. */
function requireWeight(where: string, estimate: Estimate): Estimate {
  if (estimate.valueG < 0)
    throw new CoreInputError(where, 'display', estimate.valueG.toFixed(3), { is: 'in range', above: 0 })
  return estimate
}

function massOf(
  taking: Taking,
  method: WeighingMethod,
  displaysG: readonly number[],
  estimate: Estimate,
  more: { before: Mass | null; basis: Basis; valueCount: number; pieceReadingsG?: readonly number[] },
): Mass {
  const { ready, tare, takenAt, id } = taking
  return makeMass({
    versionId: id,
    evidence: 'weighed',
    valueG: estimate.valueG,
    valueCount: more.valueCount,
    resolutionG: ready.scale.resolutionG,
    pieceReadingsG: more.pieceReadingsG ?? null,
    basis: more.basis,
    origin: `weighed on ${ready.name}`,
    weighing: {
      takenAt,
      scaleId: ready.scale.id,
      scaleName: ready.name,
      checkId: ready.check?.id ?? null,
      method,
      displaysG,
      tare,
      contributions: estimate.contributions,
      supersedes: more.before?.versionId ?? null,
    },
  })
}

/** `pieces` on the pan together, displayed once for each separate placing of the same ones. */
export function takeTogether(
  taking: Taking,
  line: Pick<Line, 'mass'>,
  displaysG: readonly number[],
  pieces: number,
  basis: Basis,
): Mass {
  const estimate = requireWeight(
    'takeTogether',
    weighedEstimate(taking.ready, { id: taking.id, displaysG, tare: taking.tare }),
  )
  return massOf(taking, 'on the pan', displaysG, estimate, { before: line.mass, basis, valueCount: pieces })
}

/** Pieces weighed one after another, one display each: their mean, and how they differ. */
export function takeOneByOne(
  taking: Taking,
  line: Pick<Line, 'mass'>,
  displaysG: readonly number[],
  basis: Basis,
): Mass {
  const pieces = displaysG.map((displayG, i) =>
    requireWeight(
      'takeOneByOne',
      weighedEstimate(taking.ready, { id: `${taking.id}-${i + 1}`, displaysG: [displayG], tare: taking.tare }),
    ),
  )
  return massOf(taking, 'one by one', displaysG, meanEstimate(pieces), {
    before: line.mass,
    basis,
    valueCount: 1,
    pieceReadingsG: pieces.map(p => p.valueG),
  })
}

/** The whole line in several lifts, because it is over the scale's capacity. */
export function takeInLifts(taking: Taking, line: Line, displaysG: readonly number[], basis: Basis): Mass {
  const lifts = displaysG.map((displayG, i) =>
    weighedEstimate(taking.ready, { id: `${taking.id}-${i + 1}`, displaysG: [displayG], tare: taking.tare }),
  )
  return massOf(taking, 'in lifts', displaysG, requireWeight('takeInLifts', inLifts(lifts)), {
    before: line.mass,
    basis,
    valueCount: line.quantity,
  })
}

/** What came off (or went on) between two displays, without and with it: the change of a line, as an estimate. */
export function changeBetween(taking: Taking, beforeG: number, afterG: number): Estimate {
  const at = (displayG: number, end: string) =>
    weighedEstimate(taking.ready, { id: `${taking.id}-${end}`, displaysG: [displayG], tare: taking.tare })
  return byDifference(at(beforeG, 'before'), at(afterG, 'after'))
}

/** The line after something was trimmed off or put on, known by the difference: what was known before stays tied to it. */
export function takeByDifference(
  taking: Taking,
  line: Line,
  beforeG: number,
  afterG: number,
  honesty: ListingBiasTable,
): Mass {
  if (!line.mass)
    throw new CoreInputError('takeByDifference', 'mass', null, {
      is: 'fitting',
      what: 'known before: weigh the line itself',
    })
  const estimate = requireWeight(
    'takeByDifference',
    addEstimates([lineEstimate(line, honesty), changeBetween(taking, beforeG, afterG)]),
  )
  const made = massOf(taking, 'by difference', [beforeG, afterG], estimate, {
    before: line.mass,
    basis: 'as fitted',
    valueCount: line.quantity,
  })
  // What is only listed or guessed is not weighed by trimming it.
  return line.mass.evidence === 'weighed' ? made : { ...made, evidence: line.mass.evidence, ownSpreadG: null }
}

/** Several lines weighed together, in one placing or in lifts. */
export function takeObservation(
  taking: Taking,
  title: string,
  lines: readonly Line[],
  displaysG: readonly number[],
  state: Observation['state'],
): Observation {
  const { ready, tare, takenAt, id } = taking
  const lifts = displaysG.map((displayG, i) =>
    weighedEstimate(ready, { id: displaysG.length === 1 ? id : `${id}-${i + 1}`, displaysG: [displayG], tare }),
  )
  const observed = asObserved(requireWeight('takeObservation', lifts.length === 1 ? lifts[0]! : inLifts(lifts)))
  return {
    id,
    title,
    takenAt,
    scaleId: ready.scale.id,
    scaleName: ready.name,
    checkId: ready.check?.id ?? null,
    displaysG,
    tareDisplayG: tare?.displayG ?? null,
    valueG: observed.valueG,
    contributions: observed.contributions,
    state,
    subjects: lines.map(subjectOf),
    pictureIds: [],
  }
}

/** Weighings of a build that rest on another check of this scale than the one in force, as they come out under it. */
export function correctionsBy(
  build: Pick<Build, 'lines'>,
  ready: ReadyScale,
  newId: () => string,
): { readonly id: string; readonly versionId: string; readonly mass: Mass }[] {
  return build.lines.flatMap(line =>
    [...(line.mass ? [line.mass] : []), ...line.further.map(one => one.mass)].flatMap(was => {
      const mass = reapplied(was, ready, newId())
      return mass ? [{ id: line.id, versionId: was.versionId, mass }] : []
    }),
  )
}

/** A mass weighed before, as it comes out under another check of its scale; null when it cannot be said from its displays alone. */
export function reapplied(mass: Mass, ready: ReadyScale, id: string): Mass | null {
  const { weighing } = mass
  if (!weighing || weighing.scaleId !== ready.scale.id || weighing.checkId === (ready.check?.id ?? null)) return null
  const taking: Taking = { ready, tare: weighing.tare, takenAt: weighing.takenAt, id }
  const line = { mass }
  if (weighing.method === 'typed') return { ...typedAt(taking, withDisplays(mass)), origin: mass.origin }
  const again =
    weighing.method === 'on the pan'
      ? takeTogether(taking, line, weighing.displaysG, mass.valueCount, mass.basis)
      : weighing.method === 'one by one'
        ? takeOneByOne(taking, line, weighing.displaysG, mass.basis)
        : null
  return again && { ...again, origin: `${again.origin}, corrected by a later check` }
}

/**
 * Grams typed as weighed, as read on the scale at hand: it shows steps of the last digit typed, and its check makes the
 * mass of what it showed, as of every weighing. With other steps, between two steps (grams that were corrected already), or
 * with a ± of one's own, they stay as typed, on a scale nobody has named. A display the scale cannot show is refused in a sentence.
 */
export function readAtHand(
  ready: ReadyScale | null,
  mass: Mass,
  takenAt: string,
): { readonly mass: Mass } | { readonly problem: string } {
  if (
    !ready ||
    mass.evidence !== 'weighed' ||
    mass.weighing !== null ||
    mass.ownSpreadG !== null ||
    Math.abs(mass.resolutionG - ready.scale.resolutionG) > 1e-9
  )
    return { mass }
  const displaysG = mass.pieceReadingsG ?? [mass.valueG]
  if (displaysG.some(displayG => !isOnStep(displayG, ready.scale.resolutionG))) return { mass }
  const over = displaysG.find(displayG => displayG > ready.scale.capacityG)
  if (over !== undefined)
    return {
      problem:
        `${ready.name} goes to ${ready.scale.capacityG} g and cannot have shown ${over} g. Choose the ` +
        `scale it was weighed on, or add that one, under Scales.`,
    }
  return {
    mass: typedAt(
      { ready, tare: { id: mass.versionId, name: 'zero key', displayG: 0 }, takenAt, id: mass.versionId },
      mass,
    ),
  }
}

const isOnStep = (displayG: number, stepG: number) => Math.abs(displayG / stepG - Math.round(displayG / stepG)) < 1e-6

function typedAt(taking: Taking, typed: Mass): Mass {
  const line = { mass: null }
  const taken = typed.pieceReadingsG
    ? takeOneByOne(taking, line, typed.pieceReadingsG, typed.basis)
    : takeTogether(taking, line, [typed.valueG], typed.valueCount, typed.basis)
  return { ...taken, origin: typed.origin, weighing: { ...taken.weighing!, method: 'typed' } }
}

/** A mass typed as shown on a scale, as it was typed: what a scale nobody has named showed. */
export function withDisplays(mass: Mass): Mass {
  const { weighing } = mass
  if (weighing?.method !== 'typed') return mass
  const readingsG = weighing.displaysG
  const meanG = Number((sumCompensated(readingsG) / readingsG.length).toFixed(6))
  return { ...mass, valueG: meanG, pieceReadingsG: mass.pieceReadingsG ? readingsG : null, weighing: null }
}
