import type { Piece } from '#core/aircraft/balance'
import { typedSigmaMm, type PiecePlace } from '#core/model/ledger'

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
