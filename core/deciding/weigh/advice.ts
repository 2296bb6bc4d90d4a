import { applyUnlessRefused } from '../../changes/commands'
import { addEstimates, scaleEstimate, sigmaG, spreadG, varianceG2, type Estimate } from '../../maths/estimate'
import { lineEstimate } from '../../mass/evidence'
import type { Build, Line } from '../../model/ledger'
import type { ListingBiasTable } from '../../mass/listings'
import type { LineEstimates } from '../../mass/loadout'
import { coverageFactor95 } from '../../maths/numbers'
import { Conditioning, linearObservations } from '../../mass/observation'
import { spreadShares } from '../../mass/report'
import { evaluateCheck, type ReferenceMass } from '../../mass/scale'
import { judge, type VerdictInput, type VerdictWord } from '../../limits/verdict'
import { placeOf, quickPlaceOf, usualBasis } from './place'
import { correctionsBy, takeObservation, takeTogether, type ReadyScale, type Taking } from './take'

/** What could be done to know a total better. */
export type NarrowingAction =
  | { readonly kind: 'weigh'; readonly lines: readonly Line[] }
  /** Everything that counts together. */
  | { readonly kind: 'whole'; readonly lines: readonly Line[] }
  /** A check of the scale at hand, and what was weighed on it corrected. */
  | {
      readonly kind: 'check'
      readonly lines: readonly Line[]
      readonly reference: ReferenceMass
      readonly scaleName: string
    }

/** One action and what it would bring, if everything weighs what is expected. */
export interface Narrowing {
  readonly action: NarrowingAction
  readonly spreadBeforeG: number
  readonly spreadAfterG: number
  /** The verdict after it, when a limit was given. */
  readonly wordAfter: VerdictWord | null
  readonly settles: boolean
}

/** What the builder weighs with, and what listings teach by a ledger. */
export interface WeighingBench {
  /** The scale at hand; null while nobody has said one: then a 0.01 g scale that nobody has checked is imagined. */
  readonly ready: ReadyScale | null
  readonly references: readonly ReferenceMass[]
  readonly honestyOf: (lines: readonly Line[]) => ListingBiasTable
}

/** The pocket scale imagined where no scale is known: the same causes as grams typed as weighed. */
const pocketScale: ReadyScale = {
  scale: { id: 'unchecked', resolutionG: 0.01, repeatabilityG: null, capacityG: 500 },
  check: null,
  name: 'a 0.01 g scale',
}
/** How many of the widest lines are tried one by one, and how many of them in pairs. */
const triedAlone = 8
const triedInPairs = 4
/** What an action asks of the builder, to compare: fewer is cheaper. */
const effort = { weigh: 1, check: 1.5, pair: 2, whole: 2.5 }
/** Unless it settles the verdict, an action must bring the spread down to this share of it, and a dearer one to this share of a cheaper. */
const worthwhile = 0.8
const worthMore = 0.75

/** The sum of what counts, and what it becomes when lines are known otherwise: only what differs is worked out again. */
class Looked {
  private readonly ids: ReadonlySet<string>
  private readonly before = new Map<string, Line>()
  private readonly sum: Estimate

  constructor(
    readonly build: Build,
    counted: readonly Line[],
    private readonly honesty: ListingBiasTable,
  ) {
    this.ids = new Set(counted.map(line => line.id))
    for (const line of counted) this.before.set(line.id, line)
    this.sum = addEstimates(counted.filter(line => line.mass).map(line => lineEstimate(line, honesty)))
  }

  /** The total of the same lines in another state of the build. */
  total(next: Build, honesty: ListingBiasTable): Estimate {
    const changes: Estimate[] = [this.sum]
    for (const line of next.lines) {
      if (!this.ids.has(line.id) || !line.mass) continue
      const was = this.before.get(line.id)!
      if (was === line && (line.mass.evidence !== 'listed' || honesty.of(line.slot) === this.honesty.of(line.slot)))
        continue
      changes.push(scaleEstimate(lineEstimate(was, this.honesty), -1), lineEstimate(line, honesty))
    }
    const sums = linearObservations(next, honesty)
    const total = changes.length === 1 ? this.sum : addEstimates(changes)
    return sums.length === 0 ? total : new Conditioning(sums).of(total)
  }
}

let imagined = 0
function imaginedTaking(ready: ReadyScale): Taking {
  const id = `imagined-${imagined++}`
  return { ready, tare: { id, name: 'zero key', displayG: 0 }, takenAt: '2000-01-01T00:00:00.000Z', id }
}

/** The build after an action, everything weighing what is expected; null where that cannot be weighed, or is more than can be kept. */
function imagine(
  build: Build,
  action: NarrowingAction,
  estimates: LineEstimates,
  desk: WeighingBench,
  exactly: boolean,
): Build | null {
  const ready = desk.ready ?? pocketScale
  const gain = ready.check?.result.gain ?? 1
  switch (action.kind) {
    case 'weigh':
      return action.lines.reduce<Build | null>((next, { id }) => {
        const line = next?.lines.find(one => one.id === id)
        if (!next || !line) return null
        const displayG = estimates.of(line).valueG * gain
        if (!(displayG > 0) || displayG > ready.scale.capacityG) return null
        const mass = takeTogether(imaginedTaking(ready), line, [displayG], line.quantity, usualBasis(line))
        const honesty = desk.honestyOf(next.lines)
        return applyUnlessRefused(next, {
          type: 'line.weigh',
          id,
          mass,
          as: exactly
            ? placeOf(mass, line, next, estimates.for(next, honesty), honesty)
            : quickPlaceOf(mass, line, honesty),
        })
      }, build)
    case 'whole': {
      const displayG = action.lines.reduce((sum, line) => sum + estimates.of(line).valueG, 0) * gain
      if (!(displayG > 0) || displayG > ready.scale.capacityG) return null
      return applyUnlessRefused(build, {
        type: 'observation.put',
        observation: takeObservation(imaginedTaking(ready), 'whole', action.lines, [displayG], 'taken in'),
      })
    }
    case 'check': {
      if (!desk.ready) return null
      const { massG } = action.reference
      const result = evaluateCheck(ready.scale, [
        { references: [], displayG: 0 },
        { references: [action.reference], displayG: massG * gain },
      ])
      const after: ReadyScale = { ...desk.ready, check: { id: `imagined-${imagined++}`, result } }
      const corrections = correctionsBy(build, after, () => `imagined-${imagined++}`)
      return corrections.length === 0 ? null : applyUnlessRefused(build, { type: 'weighings.correct', corrections })
    }
  }
}

function actionsOf(
  counted: readonly Line[],
  build: Build,
  total: Estimate,
  estimates: LineEstimates,
  desk: WeighingBench,
): { singles: NarrowingAction[]; others: NarrowingAction[] } {
  const { ready, references } = desk
  const again = ready?.check != null
  const open = spreadShares(
    counted.filter(line => line.mass && (again || line.mass.evidence !== 'weighed')),
    total,
    estimates,
  )
    .slice(0, triedAlone)
    .map(entry => entry.line)
  const others: NarrowingAction[] = []
  if (counted.length > 1 && counted.every(line => line.mass)) others.push({ kind: 'whole', lines: counted })
  const largest =
    ready &&
    references.filter(r => r.massG <= ready.scale.capacityG && r.massG > 0).sort((a, b) => b.massG - a.massG)[0]
  const resting = counted.filter(line =>
    [line.mass, ...line.further.map(one => one.mass)].some(
      mass => mass?.weighing && mass.weighing.scaleId === ready?.scale.id && mass.weighing.checkId === null,
    ),
  )
  if (largest && !ready.check && resting.length > 0)
    others.push({ kind: 'check', lines: resting, reference: largest, scaleName: ready.name })
  return { singles: open.map(line => ({ kind: 'weigh', lines: [line] })), others }
}

const effortOf = ({ kind, lines }: NarrowingAction) =>
  kind === 'weigh' && lines.length > 1 ? effort.pair : effort[kind]

/**
 * The cheapest action that settles the verdict, or where none does the one that narrows most for its effort: weighing a line
 * or two, weighing one again on a checked scale, everything together, a check of the scale. Each is imagined with its own
 * spread on top of everything known, by the very steps that carry it out; what does not narrow is never proposed. `limit` is
 * the verdict to settle, without mass and sigma; null where there is none or it cannot be settled by weighing.
 */
export function mostInformativeWeighing(
  build: Build,
  counted: readonly Line[],
  estimates: LineEstimates,
  desk: WeighingBench,
  limit: Omit<VerdictInput, 'massG' | 'sigmaG'> | null,
): Narrowing | null {
  const honesty = desk.honestyOf(build.lines)
  const looked = new Looked(build, counted, honesty)
  const total = looked.total(build, honesty)
  if (varianceG2(total) === 0) return null
  const word = (after: Estimate) =>
    limit ? judge({ ...limit, massG: after.valueG, sigmaG: sigmaG(after) }).word : null
  const isOpen = word(total) === 'Too close to call'
  const tryOut = (action: NarrowingAction, exactly = false): Narrowing | null => {
    const next = imagine(build, action, estimates, desk, exactly)
    if (!next) return null
    const after = looked.total(next, desk.honestyOf(next.lines))
    const wordAfter = word(after)
    const settles = isOpen && wordAfter !== 'Too close to call'
    return sigmaG(after) < (settles ? 1 : worthwhile) * sigmaG(total)
      ? { action, spreadBeforeG: spreadG(total), spreadAfterG: coverageFactor95 * sigmaG(after), wordAfter, settles }
      : null
  }
  const { singles, others } = actionsOf(counted, build, total, estimates, desk)
  const tried = [...singles, ...others].flatMap(action => tryOut(action) ?? [])
  if (!tried.some(one => one.settles && effortOf(one.action) <= effort.pair)) {
    const widest = tried
      .filter(one => one.action.kind === 'weigh')
      .sort((a, b) => a.spreadAfterG - b.spreadAfterG)
      .slice(0, triedInPairs)
      .map(one => one.action.lines[0]!)
    widest.forEach((a, i) => {
      for (const b of widest.slice(i + 1)) tried.push(...[tryOut({ kind: 'weigh', lines: [a, b] }) ?? []].flat())
    })
  }
  const best =
    tried
      .filter(one => one.settles)
      .sort((a, b) => effortOf(a.action) - effortOf(b.action) || a.spreadAfterG - b.spreadAfterG)[0] ??
    bestForEffort(tried)
  return best ? tryOut(best.action, true) : null
}

/** What narrows most for its effort; everything together only where nothing smaller is worth it, for a craft may not be built yet. */
function bestForEffort(tried: readonly Narrowing[]): Narrowing | null {
  const parts = tried.filter(one => one.action.kind !== 'whole')
  let best: Narrowing | null = null
  for (const one of (parts.length > 0 ? parts : [...tried]).sort(
    (a, b) => effortOf(a.action) - effortOf(b.action) || a.spreadAfterG - b.spreadAfterG,
  )) {
    if (!best || one.spreadAfterG < worthMore * best.spreadAfterG) best = one
  }
  return best
}
