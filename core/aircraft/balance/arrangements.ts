import { countedLines, type LineEstimates } from '../../mass/loadout'
import { blankPlaces, packSides, packTurns, type Build, type LoadoutChoice } from '../../model/ledger'
import type { PackSide, PackTurn, PiecePlace } from '../../model/data'
import { frameWith, saidOfFrame, stackOf, stackUp, standoffLengthsMm, upperPlate } from '../fit'
import { clearTilts, smallestTilt } from './lens'
import { meetingsOf } from './meets'
import { halfReachMm, type Vec3 } from './pieces'
import { placeOfPiece, withPlaces } from './places'
import { balanceOf, type Balance, type Slide } from './report'
import { discsOfLayout, lensOf, mostTiltDeg } from './view'

/** What comes of an arrangement once the pack has been slid to where it hangs best. */
export interface ArrangementOutcome {
  readonly slide: Slide | null
  readonly abovePropsMm: number | null
  readonly gyrationMm: Vec3
  /** From the lowest to the highest of all pieces, mm. */
  readonly highMm: number
  /** Whether what was moved is in the props there. */
  readonly inProps: boolean
}

/** How the pack could be carried. */
export interface Arrangement extends ArrangementOutcome {
  readonly side: PackSide
  readonly turnDeg: PackTurn
  /** It is the one there is. */
  readonly isNow: boolean
}

/** The camera farther forward or back. */
export interface CameraArrangement extends ArrangementOutcome {
  /** Forward, mm; 0 is where it is. */
  readonly byMm: number
  readonly place: PiecePlace
  /** The smallest tilt at which it sees no prop, rounded up to 0.1°; null where that is not known or there is none. */
  readonly clearDeg: number | null
}

/** Other standoffs under the upper plate: the frame's room between its plates is then as high. */
export interface StandoffArrangement extends ArrangementOutcome {
  readonly lengthMm: number
  readonly isNow: boolean
  readonly frameId: string
  /** Where a pack that somebody has placed goes with the plate; null where it goes by itself. */
  readonly place: PiecePlace | null
  /** What they weigh more than those there are, by their length, g; null where no standoffs are on the ledger. */
  readonly moreG: number | null
}

/** How far a camera is moved, mm. Our choice. */
const cameraStepsMm = [-10, -5, 0, 5, 10] as const
/** Ranges of tilt narrower than this are no reason to move a camera, degrees. Our choice. */
const roughDeg = 0.5
/** So many lengths of standoffs are looked at: those there are, and the next ones. */
const standoffChoices = 4

/** What comes of a craft that hangs so, its pack slid; without a pack it is as it is. */
function outcomeOf(
  build: Build,
  hung: Balance,
  choice: LoadoutChoice,
  estimates: LineEstimates,
  movedLineId: string,
): ArrangementOutcome {
  const { pack, slide } = hung
  const best =
    pack && slide ? balanceOf(withPlaces(build, [{ ...placeOfPiece(pack), xMm: slide.toMm }]), choice, estimates) : hung
  const ends = best.layout.pieces.map(piece => [piece.atMm[2], halfReachMm(piece)[2]] as const)
  return {
    slide,
    abovePropsMm: best.abovePropsMm,
    gyrationMm: best.gyrationMm!,
    highMm: Math.max(...ends.map(([z, half]) => z + half)) - Math.min(...ends.map(([z, half]) => z - half)),
    inProps: meetingsOf(best.layout).some(
      ({ kind, pieces: [piece] }) => kind === 'in the props' && piece.lineId === movedLineId,
    ),
  }
}

/** The pack above and below, along and across, all else as it is. Empty where no pack flies or nothing weighs anything. */
export function arrangementsOf(build: Build, choice: LoadoutChoice, estimates: LineEstimates): Arrangement[] {
  const places = build.places ?? blankPlaces
  const packs = new Set(build.lines.flatMap(line => (line.slot === 'pack' ? [line.id] : [])))
  return packSides.flatMap(side =>
    packTurns.flatMap((turnDeg): Arrangement[] => {
      const isNow = places.packSide === side && places.packTurnDeg === turnDeg
      const pieces = isNow ? places.pieces : places.pieces.filter(piece => !packs.has(piece.lineId))
      const as: Build = { ...build, places: { packSide: side, packTurnDeg: turnDeg, pieces } }
      const hung = balanceOf(as, choice, estimates)
      if (!hung.pack || !hung.centre) return []
      return [{ side, turnDeg, isNow, ...outcomeOf(as, hung, choice, estimates, hung.pack.lineId) }]
    }),
  )
}

/** The first camera where it is, and farther back and forward. Empty without a camera on board. */
export function cameraArrangements(build: Build, choice: LoadoutChoice, estimates: LineEstimates): CameraArrangement[] {
  const camera = balanceOf(build, choice, estimates).layout.pieces.find(piece => piece.slot === 'camera')
  if (!camera) return []
  const found = lensOf(build.lines.find(line => line.id === camera.lineId)!)
  function clearFrom({ layout }: Balance, { xMm, yMm, zMm }: PiecePlace): number | null {
    if (!('lens' in found)) return null
    const lensAt: Vec3 = [xMm + camera!.sizeMm[0] / 2, yMm, zMm]
    const ranges = clearTilts(found.lens, lensAt, discsOfLayout(build, layout), mostTiltDeg, roughDeg)
    return smallestTilt(ranges)?.shownDeg ?? null
  }
  return cameraStepsMm.flatMap((byMm): CameraArrangement[] => {
    const place = { ...placeOfPiece(camera), xMm: camera.atMm[0] + byMm }
    const as = byMm === 0 ? build : withPlaces(build, [place])
    const hung = balanceOf(as, choice, estimates)
    if (!hung.centre) return []
    const outcome = outcomeOf(as, hung, choice, estimates, camera.lineId)
    return [{ byMm, place, clearDeg: clearFrom(hung, place), ...outcome }]
  })
}

/** A build whose frame has so much room between its plates, and its pack with the plate where it was placed. */
function withRoom(build: Build, frameId: string, freeHeightMm: number, place: PiecePlace | null): Build {
  const lines = build.lines.map(line =>
    line.id === frameId ? { ...line, properties: { ...line.properties, freeHeightMm } } : line,
  )
  return withPlaces({ ...build, lines }, place ? [place] : [])
}

/**
 * Standoffs as they are and of other lengths that are sold, the upper plate and all above it going up or down with them.
 * They are as long as the frame's room is said to be, else the shortest that are sold and long enough. Empty where the stack
 * has no upper plate, or where a height between the plates is unknown.
 */
export function standoffArrangements(
  build: Build,
  choice: LoadoutChoice,
  estimates: LineEstimates,
): StandoffArrangement[] {
  const layers = build.fit?.stack?.layers ?? []
  const lines = countedLines(build, choice)
  const frame = frameWith(lines, 'freeHeightMm')
  const { standoffMm: leastMm, neededMm } = stackUp(stackOf({ layers }, lines), null, null)
  const nowMm = saidOfFrame(lines, 'freeHeightMm') ?? leastMm
  if (!frame || leastMm === null || nowMm === null || upperPlate(layers) === null) return []
  const standoffs = lines.filter(line => line.slot === 'standoff')
  const areWeighed = standoffs.length > 0 && standoffs.every(line => line.mass !== null)
  const { pack } = balanceOf(build, choice, estimates)
  const isPlacedAbove = pack && !pack.isAssumed && (build.places ?? blankPlaces).packSide === 'above'
  return [...new Set([nowMm, ...standoffLengthsMm.filter(lengthMm => lengthMm >= neededMm - 1e-9)])]
    .sort((a, b) => Math.abs(a - nowMm) - Math.abs(b - nowMm))
    .slice(0, standoffChoices)
    .sort((a, b) => a - b)
    .flatMap((lengthMm): StandoffArrangement[] => {
      const isNow = lengthMm === nowMm
      const at = isPlacedAbove && !isNow ? placeOfPiece(pack) : null
      const place = at && { ...at, zMm: at.zMm + lengthMm - nowMm }
      const as = isNow ? build : withRoom(build, frame.id, lengthMm, place)
      const hung = balanceOf(as, choice, estimates)
      if (!hung.centre) return []
      const moreG = areWeighed ? estimates.sum(standoffs).valueG * (lengthMm / nowMm - 1) : null
      const outcome = outcomeOf(as, hung, choice, estimates, choice.packLineId ?? '')
      return [{ lengthMm, isNow, frameId: frame.id, place, moreG, ...outcome }]
    })
}
