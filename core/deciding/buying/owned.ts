import { inDrawer, type Part, type Placement } from '../../parts/drawer'
import { isPresentPiece, type Build, type Line } from '../../model/ledger'

/**
 * A line the builder has in the hand: linked to a part of which all pieces claimed by builds are there, weighed, or on board
 * when the craft was weighed with it.
 */
export function isOwned(line: Line, build: Build, part: Part | undefined, placements: readonly Placement[]): boolean {
  if (part && part.owned > 0) return shortOf(line, part, placements) === 0
  if (line.mass?.evidence === 'weighed') return part === undefined
  return build.observations.some(
    one =>
      one.state === 'taken in' &&
      one.subjects.some(subject => isPresentPiece(subject, line) && subject.quantity >= line.quantity),
  )
}

/** Where pieces are, with this build as it is now: what is kept of it may be some edits old. */
export function placementsNow({ id, name, lines }: Build, placements: readonly Placement[]): Placement[] {
  const own = lines.flatMap(({ id: lineId, partId, quantity, state }) =>
    partId === null ? [] : [{ partId, buildId: id, buildName: name, lineId, quantity, state }],
  )
  return [...placements.filter(one => one.buildId !== id), ...own]
}

/** How many pieces of a line are not there: builds claim more of its part than is left of what came. */
export function shortOf({ quantity }: Line, part: Part, placements: readonly Placement[]): number {
  return Math.min(quantity, Math.max(0, -inDrawer(part, placements)))
}
