import { lineEstimate, lineGrams } from '../../mass/evidence'
import { ListingBiasTable } from '../../mass/listings'
import {
  isPresentPiece,
  makeLine,
  makeMass,
  saidOfCraft,
  subjectOf,
  type Build,
  type Line,
  type Mass,
  type Observation,
  type ReferenceCraft,
} from '../../model/ledger'
import { fixed } from '../../text/display'
import { coverageFactor95 } from '../../maths/numbers'
import { spreadG } from '../../maths/estimate'
import { CommandRefused } from '../contract'
import { addLines, changeLines } from './commands'
import type { LinesCommand } from './types'

const noHonesty = new ListingBiasTable([])

/** Grams left of a whole when parts of it are named. Throws {@link CommandRefused} where a part has none, or more. */
function leftOf(wholeG: number, parts: readonly Line[]): number {
  const open = parts.find(part => !part.mass)
  if (open) throw new CommandRefused(`Say what ${open.name} weighs: it is taken off what is left.`, 'mass')
  const partsG = parts.reduce((sum, part) => sum + lineGrams(part.mass!, part.quantity), 0)
  if (partsG > wholeG)
    throw new CommandRefused(`That is ${fixed(partsG, 2)} g, and only ${fixed(wholeG, 2)} g of it are left.`, 'mass')
  return wholeG - partsG
}

interface NewIds {
  readonly restId: string
  readonly versionId: string
  readonly observationId: string
}

/**
 * A reference craft begun to be taken apart: the parts that are said, and all the rest as one line. What was said of the
 * whole stands as a weighing of all of them, so that the total keeps its grams and its ± while parts are named, weighed
 * and named better; by itself nothing is known of the rest.
 */
export function takenApart(
  { name, lines }: Pick<Build, 'name' | 'lines'>,
  { massG, spreadG: spread }: ReferenceCraft,
  { restId, versionId, observationId }: NewIds,
  at: string,
): { readonly lines: readonly Line[]; readonly observation: Observation } {
  const valueG = leftOf(massG, lines)
  const rest = makeLine({
    id: restId,
    slot: 'other',
    name: `The rest of ${name}, not taken apart yet`,
    mass: makeMass({ versionId, evidence: 'worked out', valueG, ownSpreadG: massG }),
  })
  const all = [...lines, rest]
  const observation: Observation = {
    id: observationId,
    title: `${name} as a whole`,
    takenAt: at,
    scaleId: saidOfCraft,
    scaleName: 'said, not weighed here',
    checkId: null,
    displaysG: [massG],
    tareDisplayG: null,
    valueG: massG,
    contributions: { [`weighing:${observationId}`]: spread / coverageFactor95 },
    subjects: all.map(subjectOf),
    state: 'taken in',
    pictureIds: [],
  }
  return { lines: all, observation }
}

/**
 * A part named out of a line that stood for several: it gets a line of its own, and what is left weighs less. A weighing
 * that had the line on the pan had both, and goes on to hold the total; without one, what is left is another piece with
 * the ± of what it was and of the part together, never too small for the whole.
 */
export function takeOut(build: Build, { id, line, versionId }: Extract<LinesCommand, { type: 'line.takeOut' }>): Build {
  const whole = build.lines.find(one => one.id === id)
  if (!whole) throw new CommandRefused('That line is no longer in this build.', 'id')
  if (whole.quantity > 1) throw new CommandRefused('Of several equal pieces none is taken apart here.', 'quantity')
  if (!whole.mass) throw new CommandRefused('Say what the whole weighs first.', 'mass')
  const valueG = leftOf(lineGrams(whole.mass, 1), [line])
  const isHeld = build.observations.some(one => one.subjects.some(subject => isPresentPiece(subject, whole)))
  const spreads = [lineEstimate(whole, noHonesty), ...(isHeld ? [] : [lineEstimate(line, noHonesty)])].map(spreadG)
  const mass: Mass = makeMass({
    versionId,
    evidence: 'worked out',
    valueG,
    ownSpreadG: Math.hypot(...spreads),
    basis: whole.mass.basis,
  })
  const part: Line = { ...line, state: whole.state === 'off' ? 'off' : 'fitted' }
  const next = build.lines[build.lines.indexOf(whole) + 1]
  const named = addLines(build, [part], next?.id ?? null)
  const observations = named.observations.map(one =>
    one.subjects.some(subject => isPresentPiece(subject, whole))
      ? { ...one, subjects: [...one.subjects, subjectOf(part)] }
      : one,
  )
  return changeLines({ ...named, observations }, [{ id, fields: { mass }, anotherPiece: !isHeld }])
}
