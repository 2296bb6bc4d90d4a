import { countedLines, type LineEstimates } from '../../mass/loadout'
import { blankPlaces, packSides, packTurns, type Build, type LoadoutChoice } from '../../model/ledger'
import type { Layer, PackSide, PackTurn, PiecePlace } from '../../model/data'
import { stackOf, stackUp, standoffLengthsMm } from '../fit'
import { meetingsOf } from './meets'
import { halfReachMm, type Piece, type Vec3 } from './pieces'
import { balanceOf, type Balance, type Slide } from './report'
import { clearTilts } from './lens'
import { discsOfLayout, lensOf, mostTiltDeg } from './view'

/** What comes of an arrangement once the pack has been slid to where it hangs best. */
export interface Outcome {
  readonly slide: Slide | null
  readonly abovePropsMm: number | null
  readonly gyrationMm: Vec3
  /** From the lowest to the highest of all pieces, mm. */
  readonly highMm: number
  /** Whether what was moved is in the props there. */
  readonly inProps: boolean
}

/** How the pack could be carried. */
export interface Arrangement extends Outcome {
  readonly side: PackSide
  readonly turnDeg: PackTurn
  /** It is the one there is. */
  readonly isNow: boolean
}

/** The camera farther forward or back. */
export interface CameraArrangement extends Outcome {
  /** Forward, mm; 0 is where it is. */
  readonly byMm: number
  readonly place: PiecePlace
  /** The smallest tilt at which it sees no prop, degrees; null where that is not known or there is none. */
  readonly clearDeg: number | null
}

/** Other standoffs under the upper plate. */
export interface StandoffArrangement extends Outcome {
  readonly lengthMm: number
  readonly isNow: boolean
  /** The stack that comes to that height. */
  readonly layers: readonly Layer[]
  /** What they weigh more than those there are, by their length, g; null where no standoffs are on the ledger. */
  readonly moreG: number | null
}

/** How far a camera is moved, mm. Our choice. */
const cameraStepsMm = [-10, -5, 0, 5, 10] as const
/** Ranges of tilt narrower than this are no reason to move a camera, degrees. Our choice. */
const roughDeg = 0.5
/** So many lengths of standoffs are looked at: those there are, and the next ones. */
const standoffChoices = 4

const placeOf = ({ lineId, number, atMm, sigmaMm, turnDeg, tiltDeg }: Piece): PiecePlace => ({
  lineId,
  number,
  xMm: atMm[0],
  yMm: atMm[1],
  zMm: atMm[2],
  sigmaMm: sigmaMm[0],
  turnDeg,
  tiltDeg,
})

/** A build with one piece placed. */
function withPlace(build: Build, place: PiecePlace): Build {
  const places = build.places ?? blankPlaces
  const others = places.pieces.filter(one => one.lineId !== place.lineId || one.number !== place.number)
  return { ...build, places: { ...places, pieces: [...others, place] } }
}

/** The craft with its pack slid, and without one as it is; null where nothing of it weighs anything. */
function outcomeOf(
  build: Build,
  choice: LoadoutChoice,
  estimates: LineEstimates,
  movedLineId: string,
): (Outcome & { readonly first: Balance }) | null {
  const first = balanceOf(build, choice, estimates)
  if (!first.centre) return null
  const { pack, slide } = first
  const slid = pack && slide ? withPlace(build, { ...placeOf(pack), xMm: slide.toMm }) : build
  const best = balanceOf(slid, choice, estimates)
  const ends = best.layout.pieces.map(piece => [piece.atMm[2], halfReachMm(piece)[2]] as const)
  return {
    first,
    slide,
    abovePropsMm: best.abovePropsMm,
    gyrationMm: best.gyrationMm!,
    highMm: Math.max(...ends.map(([z, half]) => z + half)) - Math.min(...ends.map(([z, half]) => z - half)),
    inProps: meetingsOf(best.layout).some(
      ({ kind, pieces }) => kind === 'in the props' && pieces.some(piece => piece.lineId === movedLineId),
    ),
  }
}
const withoutFirst = ({ first: _, ...outcome }: Outcome & { readonly first: Balance }): Outcome => outcome

/** The pack above and below, along and across, all else as it is. Empty where no pack flies or nothing weighs anything. */
export function arrangementsOf(build: Build, choice: LoadoutChoice, estimates: LineEstimates): Arrangement[] {
  const places = build.places ?? blankPlaces
  const packs = new Set(build.lines.flatMap(line => (line.slot === 'pack' ? [line.id] : [])))
  return packSides.flatMap(side =>
    packTurns.flatMap((turnDeg): Arrangement[] => {
      const isNow = places.packSide === side && places.packTurnDeg === turnDeg
      const pieces = isNow ? places.pieces : places.pieces.filter(piece => !packs.has(piece.lineId))
      const as: Build = { ...build, places: { packSide: side, packTurnDeg: turnDeg, pieces } }
      const outcome = outcomeOf(as, choice, estimates, choice.packLineId ?? '')
      return outcome?.first.pack ? [{ side, turnDeg, isNow, ...withoutFirst(outcome) }] : []
    }),
  )
}

/** The first camera where it is, and farther back and forward. Empty without a camera on board. */
export function cameraArrangements(build: Build, choice: LoadoutChoice, estimates: LineEstimates): CameraArrangement[] {
  const camera = balanceOf(build, choice, estimates).layout.pieces.find(piece => piece.slot === 'camera')
  if (!camera) return []
  const found = lensOf(build.lines.find(line => line.id === camera.lineId)!)
  const clearFrom = ({ layout }: Balance, [x, y, z]: Vec3) =>
    'lens' in found
      ? (clearTilts(
          found.lens,
          [x + camera.sizeMm[0] / 2, y, z],
          discsOfLayout(build, layout),
          mostTiltDeg,
          roughDeg,
        )[0]?.fromDeg ?? null)
      : null
  return cameraStepsMm.flatMap((byMm): CameraArrangement[] => {
    const place = { ...placeOf(camera), xMm: camera.atMm[0] + byMm }
    const outcome = outcomeOf(byMm === 0 ? build : withPlace(build, place), choice, estimates, camera.lineId)
    if (!outcome) return []
    const at: Vec3 = [place.xMm, place.yMm, place.zMm]
    return [{ byMm, place, clearDeg: clearFrom(outcome.first, at), ...withoutFirst(outcome) }]
  })
}

/** The stack with so much more air under its upper plate; null where less is asked than there is air. */
function withAir(layers: readonly Layer[], top: number, moreMm: number): readonly Layer[] | null {
  const below = layers[top - 1]!
  if (below.kind === 'gap') {
    const heightMm = Math.round(100 * ((below.heightMm ?? 0) + moreMm)) / 100
    return heightMm < 0 ? null : layers.with(top - 1, { ...below, heightMm })
  }
  if (moreMm < 0) return null
  let id = `${layers[top]!.id}-air`
  while (layers.some(layer => layer.id === id)) id += '-'
  const air: Layer = {
    id,
    name: 'Air',
    kind: 'gap',
    lineId: null,
    heightMm: Math.round(100 * moreMm) / 100,
    widthMm: null,
    lengthMm: null,
    turnDeg: 0,
    bare: 'none',
    port: null,
  }
  return layers.toSpliced(top, 0, air)
}

/**
 * Standoffs as they are and of other lengths that are sold, the upper plate and all above it going up or down with them.
 * Empty where the stack has no upper plate, or where a height between the plates is unknown.
 */
export function standoffArrangements(
  build: Build,
  choice: LoadoutChoice,
  estimates: LineEstimates,
): StandoffArrangement[] {
  const layers = build.fit?.stack?.layers ?? []
  const lines = countedLines(build, choice)
  const { standoffMm: nowMm, neededMm } = stackUp(stackOf({ layers }, lines), null, null)
  const top = layers.findLastIndex(layer => layer.kind === 'plate')
  if (nowMm === null || top < 1 || layers.findIndex(layer => layer.kind === 'plate') === top) return []
  const massG = lines
    .filter(line => line.slot === 'standoff')
    .map(line => (line.mass === null ? null : estimates.of(line).valueG))
    .reduce<number | null>((sum, g) => (g === null ? sum : (sum ?? 0) + g), null)
  const air = layers[top - 1]!.kind === 'gap' ? (layers[top - 1]!.heightMm ?? 0) : 0
  return standoffLengthsMm
    .filter(lengthMm => lengthMm >= neededMm - air - 1e-9)
    .sort((a, b) => Math.abs(a - nowMm) - Math.abs(b - nowMm))
    .slice(0, standoffChoices)
    .sort((a, b) => a - b)
    .flatMap((lengthMm): StandoffArrangement[] => {
      const isNow = lengthMm === nowMm
      const changed = isNow ? layers : withAir(layers, top, lengthMm - neededMm)
      if (!changed) return []
      const as: Build = isNow ? build : { ...build, fit: { ...build.fit!, stack: { layers: changed } } }
      const outcome = outcomeOf(as, choice, estimates, choice.packLineId ?? '')
      const moreG = massG === null ? null : massG * (lengthMm / nowMm - 1)
      return outcome ? [{ lengthMm, isNow, layers: changed, moreG, ...withoutFirst(outcome) }] : []
    })
}
