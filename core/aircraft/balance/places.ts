import { blankPlaces, typedSigmaMm, type Build, type PiecePlace } from '../../model/ledger'
import type { Piece } from './pieces'

/** The place of a piece as it would be kept: of one that nobody has placed, as if it had been said now. */
export const placeOfPiece = ({ lineId, number, atMm, sigmaMm, turnDeg, tiltDeg, isAssumed }: Piece): PiecePlace => ({
  lineId,
  number,
  xMm: atMm[0],
  yMm: atMm[1],
  zMm: atMm[2],
  sigmaMm: isAssumed ? typedSigmaMm : sigmaMm[0],
  turnDeg,
  tiltDeg,
})

/** A build with some of its pieces placed otherwise, to see what would come of it. */
export function withPlaces(build: Build, places: readonly PiecePlace[]): Build {
  if (places.length === 0) return build
  const before = build.places ?? blankPlaces
  const isMoved = (one: PiecePlace) => places.some(place => place.lineId === one.lineId && place.number === one.number)
  return { ...build, places: { ...before, pieces: [...before.pieces.filter(one => !isMoved(one)), ...places] } }
}
