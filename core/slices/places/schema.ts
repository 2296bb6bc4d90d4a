import { z } from 'zod'
import { packSides, packTurns, type PiecePlace, type PlacesPlan } from '../../model/data'
import { idSchema } from '../../text/schemas'

/** The most pieces a build keeps places of. */
export const mostPlaces = 2000
/** No piece of a small aircraft is farther out, mm. */
const farthestMm = 500

const number = (sentence: string, least: number, most: number) =>
  z.number({ error: sentence }).min(least, sentence).max(most, sentence)
const coordinate = number(`A place is from −${farthestMm} to ${farthestMm} mm.`, -farthestMm, farthestMm)

export const piecePlaceSchema = z.strictObject({
  lineId: idSchema,
  number: z.int().min(0).max(998),
  xMm: coordinate,
  yMm: coordinate,
  zMm: coordinate,
  sigmaMm: number('How well it is known: from 0 to 50 mm.', 0, 50),
  turnDeg: number('A turn is from −360 to 360 degrees.', -360, 360),
  tiltDeg: number('A tilt is from −90 to 90 degrees.', -90, 90),
}) satisfies z.ZodType<PiecePlace>

export const placesShape = {
  packSide: z.enum(packSides),
  packTurnDeg: z.literal(packTurns),
  pieces: z.array(piecePlaceSchema).max(mostPlaces, `A build keeps at most ${mostPlaces} places.`),
}
export const placesSchema = z.strictObject(placesShape) satisfies z.ZodType<PlacesPlan>
