import { applyCommand } from '../../changes/commands'
import { addEstimates, sigmaG } from '../../maths/estimate'
import { lineEstimate } from '../../mass/evidence'
import { isPresentPiece, type Build, type Line, type LoadoutChoice, type Mass } from '../../model/ledger'
import type { ListingBiasTable } from '../../mass/listings'
import { estimatesOf } from '../../mass/loadout'
import { Conditioning, linearObservations, reconcile } from '../../mass/observation'
import { overviewOf } from '../../mass/report'
import { asObserved } from '../../mass/scale'
import type { RuleCard } from '../../limits/rules'
import type { VerdictWord } from '../../limits/verdict'

/** Whether new grams are of the same piece or of another one: asked where it matters. */
export interface PieceQuestion {
  readonly lineId: string
  /** The version of the new grams, and the grams of the piece before. */
  readonly versionId: string
  readonly newG: number
  readonly was: Mass
  /** The weighing it does not go with, and by how many of the comparison's own standard uncertainties; null where only the words differ. */
  readonly contradicted: { readonly title: string; readonly z: number } | null
  readonly wordSame: VerdictWord | null
  readonly wordAnother: VerdictWord | null
  /** What it is taken for until somebody answers: another piece, where the two cannot both be right of one. */
  readonly until: 'same' | 'another'
}

/** Beyond so many standard uncertainties, or where a line would weigh less than nothing, one piece cannot be both. */
const cannotBeZ = 4

/** As for weighings of several lines: beyond so many standard uncertainties two figures do not go together. */
const mostZ = 2

/** The new figure of a line between two states of a build, where it is still the same piece; null where there is none. */
function newFigure(was: Line | undefined, now: Line): Mass | null {
  if (!was?.mass || !now.mass || was.edition !== now.edition) return null
  if (now.further.length > was.further.length) return now.further.at(-1)!.mass
  return now.mass === was.mass ? null : now.mass
}

/**
 * Whether to ask if a line's new grams are of the same piece: where they lie outside what earlier weighings of it, or of
 * what it was part of, allow (|z| > 2), or where "same" and "another" give different words. A guess or a listing that turns
 * out wrong asks nothing. Null where nothing is to be asked.
 */
export function pieceQuestion(
  before: Build,
  after: Build,
  lineId: string,
  choice: LoadoutChoice,
  cards: readonly RuleCard[],
  honesty: ListingBiasTable,
): PieceQuestion | null {
  const now = after.lines.find(line => line.id === lineId)
  const was = before.lines.find(line => line.id === lineId)
  const mass = now && newFigure(was, now)
  if (!mass) return null
  const partOf = after.observations.filter(
    o => o.state === 'taken in' && o.subjects.some(subject => isPresentPiece(subject, now)),
  )
  if (partOf.length === 0 && now.further.every(one => one.of)) return null
  const contradicted = againstEarlier(before, after, was!, now, mass, honesty)
  const until =
    Math.abs(contradicted?.z ?? 0) > cannotBeZ || fallsBelowNothing(before, after, honesty) ? 'another' : 'same'
  const another = applyCommand(after, { type: 'line.another', id: lineId, versionId: mass.versionId, was: was!.mass! })
  const word = (build: Build) =>
    overviewOf(build, choice, cards, estimatesOf(build, honesty)).binding?.verdict?.word ?? null
  const [wordSame, wordAnother] = [word(after), word(another)]
  if (!contradicted && wordSame === wordAnother && until === 'same') return null
  return {
    lineId,
    versionId: mass.versionId,
    newG: lineEstimate({ ...now, mass }, honesty).valueG,
    was: was!.mass!,
    contradicted,
    wordSame,
    wordAnother,
    until,
  }
}

/** Whether some line would weigh less than nothing that did not before. */
function fallsBelowNothing(before: Build, after: Build, honesty: ListingBiasTable): boolean {
  const [earlier, later] = [estimatesOf(before, honesty), estimatesOf(after, honesty)]
  const was = new Map(before.lines.map(line => [line.id, line]))
  return after.lines.some(line => {
    const old = was.get(line.id)
    return line.mass !== null && later.of(line).valueG < 0 && !(old?.mass && earlier.of(old).valueG < 0)
  })
}

function againstEarlier(
  before: Build,
  after: Build,
  was: Line,
  now: Line,
  mass: Mass,
  honesty: ListingBiasTable,
): PieceQuestion['contradicted'] {
  const together = after.observations.filter(
    o => o.state === 'taken in' && o.subjects.some(subject => isPresentPiece(subject, now)),
  )
  if (mass !== now.mass) {
    // Beside its estimate: against the estimate, if it was ever on a scale, and everything it was part of.
    if (was.mass!.evidence !== 'weighed' && together.length === 0) return null
    const observed = asObserved(lineEstimate({ ...now, mass }, honesty))
    const expected = new Conditioning(linearObservations(before, honesty)).of(
      addEstimates([lineEstimate(was, honesty), { ...observed, valueG: 0 }]),
    )
    const z = (observed.valueG - expected.valueG) / sigmaG(expected)
    return Math.abs(z) > mostZ ? { title: 'the weighings before', z } : null
  }
  let worst: PieceQuestion['contradicted'] = null
  for (const observation of together) {
    const { z } = reconcile(observation, after, [], honesty)
    if (Math.abs(z) <= Math.max(mostZ, Math.abs(worst?.z ?? 0))) continue
    const earlier = before.observations.find(o => o.id === observation.id)
    if (!earlier || Math.abs(z) > Math.abs(reconcile(earlier, before, [], honesty).z))
      worst = { title: observation.title, z }
  }
  return worst
}
