import type { Estimate } from '../../maths/estimate'
import type { Slot } from '../../model/ledger'

/** Forward, left and up, mm; from the middle of the motors, on the plane they stand on. */
export type Vec3 = readonly [number, number, number]

/** A box; a can or a disc stand upright. */
export type ShapeOfPiece = 'box' | 'can' | 'disc'

/** One piece of a line at its place. */
export interface Piece {
  /** The line and which of its pieces, from 0. */
  readonly key: string
  readonly lineId: string
  readonly number: number
  readonly slot: Slot
  readonly name: string
  /** The mass of this one piece. */
  readonly mass: Estimate
  readonly atMm: Vec3
  /** One standard uncertainty of each coordinate, mm. */
  readonly sigmaMm: Vec3
  /** Along the nose, across, and high, before it is turned, mm; a can and a disc have their diameter twice. */
  readonly sizeMm: Vec3
  readonly shape: ShapeOfPiece
  /** Turned about the upright, degrees, against the clock seen from above. */
  readonly turnDeg: number
  /** Its nose is tilted up, degrees: what a camera is. */
  readonly tiltDeg: number
  /** Nobody has placed it: it sits where such a piece usually does. */
  readonly isAssumed: boolean
  /** Its size is not said, but what such a piece usually has. */
  readonly isSizeAssumed: boolean
  /** It is fixed to the pack and goes where the pack goes. */
  readonly goesWithPack?: boolean | undefined
  /**
   * Pieces that are placed together share one error of place, each with its signs by axis: a mirrored pair has −1 across.
   * Absent where its error is its own.
   */
  readonly placedWith?: { readonly name: string; readonly signs: Vec3 } | undefined
}

/** Half of what a piece reaches along the nose, across and up, turned as it is, mm. */
export function halfReachMm({ sizeMm: [long, wide, high], shape, turnDeg }: Piece): Vec3 {
  if (shape !== 'box') return [long / 2, wide / 2, high / 2]
  const angle = (turnDeg * Math.PI) / 180
  const [cos, sin] = [Math.abs(Math.cos(angle)), Math.abs(Math.sin(angle))]
  return [(long * cos + wide * sin) / 2, (long * sin + wide * cos) / 2, high / 2]
}

export const pieceKey = (lineId: string, number: number): string => `${lineId}#${number}`
