import { halfReachMm, type Piece, type Vec3 } from '#core/aircraft/balance'
import { fixed } from '#core/text/display'

export type DrawnFrom = 'above' | 'side' | 'front'

/** Which coordinates run across and down in a drawing from there, and which way. */
export const drawnFrames = {
  above: { across: 0, acrossSign: -1, down: 1, downSign: 1 },
  side: { across: 0, acrossSign: -1, down: 2, downSign: -1 },
  front: { across: 1, acrossSign: 1, down: 2, downSign: -1 },
} as const

/** A place in space in a drawing from there. */
export function flatFrom(from: DrawnFrom, at: Vec3): readonly [number, number] {
  const { across, acrossSign, down, downSign } = drawnFrames[from]
  return [acrossSign * at[across], downSign * at[down]]
}

/** A piece as it is drawn: its middle, and its box about it. */
export interface Drawn {
  readonly piece: Piece
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
  readonly turn: number
  readonly round: boolean
  readonly label: string
}

/** A frame from above: a path of its arms, and half of its body, mm. */
export interface FrameDrawn {
  readonly arms: string
  readonly long: number
  readonly wide: number
}

export function drawnFrom(from: DrawnFrom, piece: Piece): Drawn {
  const [x, y] = flatFrom(from, piece.atMm)
  const [long, wide, high] = sizeFrom(from, piece)
  return {
    piece,
    x,
    y,
    width: from === 'front' ? wide : long,
    height: from === 'above' ? wide : high,
    turn: from === 'above' && piece.shape === 'box' ? piece.turnDeg : 0,
    round: from === 'above' && piece.shape !== 'box',
    label: `${piece.name}: ${placeWords(piece)}`,
  }
}

/** What a piece measures along the axes, turned as it is; from above it is drawn turned instead. */
function sizeFrom(from: DrawnFrom, piece: Piece): Vec3 {
  if (from === 'above') return piece.sizeMm
  const [long, wide, high] = halfReachMm(piece)
  return [2 * long, 2 * wide, 2 * high]
}

function placeWords({ atMm: [x, y, z], isAssumed }: Piece): string {
  return `${fixed(x, 1)} mm forward, ${fixed(y, 1)} left, ${fixed(z, 1)} up${isAssumed ? ', where it usually sits' : ''}`
}

/** How far up a piece is drawn: what is nearer lies on top. */
export function drawnDepth(from: DrawnFrom, piece: Piece): number {
  // What turns covers what stands under it, and is seen through: it lies lowest, so that a hand gets at the rest.
  if (from === 'above') return piece.shape === 'disc' ? -Infinity : piece.atMm[2]
  return from === 'side' ? piece.atMm[1] : piece.atMm[0]
}

/** Whether two pieces are drawn alike from anywhere. */
export const isDrawnAlike = (a: Piece, b: Piece): boolean =>
  a.atMm.every((mm, i) => mm === b.atMm[i]) &&
  a.sizeMm.every((mm, i) => mm === b.sizeMm[i]) &&
  a.turnDeg === b.turnDeg &&
  a.shape === b.shape &&
  a.slot === b.slot &&
  a.name === b.name &&
  a.isAssumed === b.isAssumed

/** The list of before where the new one holds the same things, so that what hangs on it rests too. */
export const sameList = <T>(before: readonly T[] | undefined, now: readonly T[]): readonly T[] =>
  before?.length === now.length && now.every((one, i) => one === before[i]) ? before : now
