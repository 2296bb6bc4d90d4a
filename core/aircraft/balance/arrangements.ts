import type { LineEstimates } from '../../mass/loadout'
import { blankPlaces, packSides, packTurns, type Build, type LoadoutChoice } from '../../model/ledger'
import type { PackSide, PackTurn } from '../../model/data'
import { meetingsOf } from './meets'
import { halfReachMm, type Vec3 } from './pieces'
import { balanceOf, type Slide } from './report'

/** How the pack could be carried, and what comes of it once it has been slid to where it hangs best. */
export interface Arrangement {
  readonly side: PackSide
  readonly turnDeg: PackTurn
  /** It is the one there is. */
  readonly isNow: boolean
  readonly slide: Slide | null
  readonly abovePropsMm: number | null
  readonly gyrationMm: Vec3
  /** From the lowest to the highest of all pieces, mm. */
  readonly highMm: number
  /** Whether it is in the props there. */
  readonly inProps: boolean
}

/** The pack above and below, along and across, all else as it is. Empty where no pack flies or nothing weighs anything. */
export function arrangementsOf(build: Build, choice: LoadoutChoice, estimates: LineEstimates): Arrangement[] {
  const places = build.places ?? blankPlaces
  const packs = new Set(build.lines.flatMap(line => (line.slot === 'pack' ? [line.id] : [])))
  return packSides.flatMap(side =>
    packTurns.flatMap((turnDeg): Arrangement[] => {
      const isNow = places.packSide === side && places.packTurnDeg === turnDeg
      const pieces = isNow ? places.pieces : places.pieces.filter(piece => !packs.has(piece.lineId))
      const as = (moved: Build['places']): Build => ({ ...build, places: moved })
      const first = balanceOf(as({ packSide: side, packTurnDeg: turnDeg, pieces }), choice, estimates)
      if (!first.pack || !first.centre) return []
      const { pack, slide } = first
      const slid = {
        lineId: pack.lineId,
        number: pack.number,
        xMm: slide ? slide.toMm : pack.atMm[0],
        yMm: pack.atMm[1],
        zMm: pack.atMm[2],
        sigmaMm: pack.sigmaMm[0],
        turnDeg: pack.turnDeg,
        tiltDeg: pack.tiltDeg,
      }
      const others = pieces.filter(piece => piece.lineId !== pack.lineId)
      const best = balanceOf(as({ packSide: side, packTurnDeg: turnDeg, pieces: [...others, slid] }), choice, estimates)
      const ends = best.layout.pieces.map(piece => [piece.atMm[2], halfReachMm(piece)[2]] as const)
      return [
        {
          side,
          turnDeg,
          isNow,
          slide,
          abovePropsMm: best.abovePropsMm,
          gyrationMm: best.gyrationMm!,
          highMm: Math.max(...ends.map(([z, half]) => z + half)) - Math.min(...ends.map(([z, half]) => z - half)),
          inProps: meetingsOf(best.layout).some(
            ({ kind, pieces: [piece] }) => kind === 'in the props' && piece.lineId === pack.lineId,
          ),
        },
      ]
    }),
  )
}
