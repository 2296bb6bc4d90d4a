/** Where one piece of a line sits: mm forward, left and up from the middle of the motors, on the plane they stand on. */
export interface PiecePlace {
  readonly lineId: string
  /** Which of the line’s pieces, from 0. */
  readonly number: number
  readonly xMm: number
  readonly yMm: number
  readonly zMm: number
  /** How well it is known, one standard uncertainty, mm. */
  readonly sigmaMm: number
  /** Turned about the upright, degrees, against the clock seen from above. */
  readonly turnDeg: number
  /** Its nose is tilted up, degrees: what a camera is. */
  readonly tiltDeg: number
}

export const packSides = ['above', 'below'] as const
export type PackSide = (typeof packSides)[number]
/** Along the nose or across it, degrees. */
export const packTurns = [0, 90] as const
export type PackTurn = (typeof packTurns)[number]

/** What somebody has said of where pieces sit. All others sit where such pieces usually do. */
export interface PlacesPlan {
  readonly packSide: PackSide
  /** How packs lie that nobody has placed. */
  readonly packTurnDeg: PackTurn
  readonly pieces: readonly PiecePlace[]
}

export const blankPlaces: PlacesPlan = { packSide: 'above', packTurnDeg: 0, pieces: [] }

/** How well a place is known that somebody typed or drew, mm, until they say otherwise. Our choice. */
export const typedSigmaMm = 0.5
