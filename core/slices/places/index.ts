import { z } from 'zod'
import { blankPlaces, type PackSide, type PackTurn, type PiecePlace, type PlacesPlan } from '../../model/data'
import { packLabel, type Build, type Line } from '../../model/ledger'
import { idSchema } from '../../text/schemas'
import { CommandRefused, told, type BuildSlice } from '../contract'
import { mostPlaces, piecePlaceSchema, placesSchema, placesShape } from './schema'

export * from './schema'

declare module '../../model/data/build' {
  interface Build {
    /** Where its pieces sit; null while nobody has placed any. */
    readonly places: PlacesPlan | null
  }
}

interface PutPlaces {
  readonly type: 'places.put'
  readonly pieces: readonly PiecePlace[]
}
/** Pieces that sit where they usually do again. */
interface FreePlaces {
  readonly type: 'places.free'
  readonly pieces: readonly Pick<PiecePlace, 'lineId' | 'number'>[]
}
interface SetPackSide {
  readonly type: 'places.pack'
  readonly side: PackSide
  /** How it lies there; as before where it is left out. */
  readonly turnDeg?: PackTurn | undefined
}

const keyOf = ({ lineId, number }: Pick<PiecePlace, 'lineId' | 'number'>) => `${lineId}#${number}`
const withPieces = (build: Build, pieces: readonly PiecePlace[]): Build => ({
  ...build,
  places: { ...(build.places ?? blankPlaces), pieces },
})

/** Where the pieces of a build sit. */
export const placesSlice: BuildSlice<'places', PutPlaces | FreePlaces | SetPackSide> = {
  name: 'places',
  title: 'Balance',
  version: 2,
  // The first version had no word of how a pack lies: along the nose.
  upcasts: [{ parts: { places: fields => ({ packTurnDeg: 0, ...fields }) } }],
  fields: {
    places: {
      kind: 'part',
      schema: placesSchema.nullable(),
      blank: () => null,
      empty: blankPlaces,
      shape: placesShape,
      lists: { pieces: { item: piecePlaceSchema, keyOf, most: mostPlaces } },
    },
  },
  commands: {
    'places.put': {
      shape: { pieces: z.array(piecePlaceSchema).min(1).max(mostPlaces) },
      apply: (build, { pieces }) => putPlaces(build, pieces),
      describe: ({ pieces }, before) => told(placedWords(pieces, before)),
      asIn: (command, build) => ({
        ...command,
        pieces: command.pieces.map(piece => placeOf(build, piece) ?? piece),
      }),
    },
    'places.free': {
      shape: { pieces: z.array(z.strictObject({ lineId: idSchema, number: z.int().min(0).max(998) })).min(1) },
      apply(build, { pieces }) {
        const freed = new Set(pieces.map(keyOf))
        return withPieces(
          build,
          (build.places?.pieces ?? []).filter(piece => !freed.has(keyOf(piece))),
        )
      },
      describe: ({ pieces }, before) => told(`${namesOf(pieces, before)}: sits where it usually does`),
    },
    'places.pack': {
      shape: { side: placesShape.packSide, turnDeg: placesShape.packTurnDeg.optional() },
      apply: (build, { side, turnDeg }) => ({ ...build, places: arranged(build, side, turnDeg) }),
      describe: ({ side, turnDeg }) =>
        told(
          `The pack sits ${side}${turnDeg === undefined ? '' : turnDeg === 0 ? ', along the nose' : ', across the nose'}`,
        ),
    },
  },
  // The part that takes the place of another sits where that one sat.
  references: [
    {
      to: 'lines',
      at: ['places', 'pieces'],
      ids: ({ lineId }: PiecePlace) => [lineId],
      follows: (piece: PiecePlace, _replaced, by): PiecePlace => ({ ...piece, lineId: by.id }),
      loses: () => null,
    },
  ],
}

function placeOf(build: Build, piece: Pick<PiecePlace, 'lineId' | 'number'>): PiecePlace | undefined {
  return build.places?.pieces.find(one => keyOf(one) === keyOf(piece))
}

/** A pack that somebody placed sits where it usually does when it is arranged anew: its place was one of before. */
function arranged(build: Build, side: PackSide, turnDeg: PackTurn | undefined): PlacesPlan {
  const places = build.places ?? blankPlaces
  const packTurnDeg = turnDeg ?? places.packTurnDeg
  if (places.packSide === side && places.packTurnDeg === packTurnDeg) return places
  const packs = new Set(build.lines.flatMap(line => (line.slot === 'pack' ? [line.id] : [])))
  return { packSide: side, packTurnDeg, pieces: places.pieces.filter(piece => !packs.has(piece.lineId)) }
}

function putPlaces(build: Build, pieces: readonly PiecePlace[]): Build {
  const lines = new Map(build.lines.map(line => [line.id, line]))
  for (const { lineId, number } of pieces) {
    const line = lines.get(lineId)
    if (!line) throw new CommandRefused('The line of that piece is not in this build.', 'lineId')
    if (number >= line.quantity)
      throw new CommandRefused(`“${line.name}” has ${line.quantity}, and no piece ${number + 1}.`, 'number')
  }
  const put = new Map(pieces.map(piece => [keyOf(piece), piece]))
  const kept = (build.places?.pieces ?? []).map(piece => {
    const next = put.get(keyOf(piece))
    put.delete(keyOf(piece))
    return next ?? piece
  })
  return withPieces(build, [...kept, ...put.values()])
}

const nameOf = (line: Line) => (line.slot === 'pack' ? packLabel(line) : line.name)
function namesOf(pieces: readonly Pick<PiecePlace, 'lineId'>[], build: Build): string {
  const ids = [...new Set(pieces.map(piece => piece.lineId))]
  const first = build.lines.find(line => line.id === ids[0])
  const name = first ? nameOf(first) : 'A piece'
  return ids.length === 1 ? name : `${name} and ${ids.length - 1} more`
}

function placedWords(pieces: readonly PiecePlace[], before: Build): string {
  const [piece] = pieces
  const was = placeOf(before, piece!)
  const mm = (value: number) => String(Number(value.toFixed(1)))
  const at = `${mm(piece!.xMm)}, ${mm(piece!.yMm)}, ${mm(piece!.zMm)} mm`
  return `${namesOf(pieces, before)}: ${was ? 'moved' : 'placed'} to ${at}`
}
