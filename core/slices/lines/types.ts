import type { Line, Mass } from '../../model/ledger'

/** The fields of a line a builder may change. */
export type LineFields = Partial<Omit<Line, 'id' | 'insteadOf' | 'edition' | 'further'>>

/**
 * What a weighing is for a line: its estimate from now on, in the place of one it is surer than; one more observation
 * beside its estimate; or the grams of another piece than before (cut, swapped).
 */
export const weighedAs = ['estimate', 'further', 'another piece'] as const
export type WeighedAs = (typeof weighedAs)[number]

/** What can be done to the lines of a build. Ids of new things come from the caller, so that browser and server agree on them. */
export type LinesCommand =
  | {
      readonly type: 'lines.add'
      readonly lines: readonly Line[]
      readonly beforeId: string | null
      /** The set-up that fitted fittings and payload among them fly in from now on; none by themselves. */
      readonly setupId?: string | undefined
    }
  | {
      readonly type: 'lines.change'
      readonly changes: readonly {
        readonly id: string
        readonly fields: LineFields
        /** The new grams are of another piece than the old ones, not the same one better known. */
        readonly anotherPiece?: boolean | undefined
      }[]
    }
  | { readonly type: 'line.weigh'; readonly id: string; readonly mass: Mass; readonly as: WeighedAs }
  /** Weighings as they come out under another check of their scale, wherever their versions stand. */
  | {
      readonly type: 'weighings.correct'
      readonly corrections: readonly { readonly id: string; readonly versionId: string; readonly mass: Mass }[]
    }
  /**
   * Says afterwards that the grams a line has now, or the weighing beside them named by its version, are of another
   * piece; `was`: the grams of the piece before.
   */
  | { readonly type: 'line.another'; readonly id: string; readonly versionId: string; readonly was: Mass }
  /** Says afterwards that what was taken for another piece is the one it was before, better known. */
  | { readonly type: 'line.same'; readonly id: string; readonly was: Mass }
  /** Names a part of a line that stood for several; what is left of it has its grams under `versionId`. */
  | { readonly type: 'line.takeOut'; readonly id: string; readonly line: Line; readonly versionId: string }
  | { readonly type: 'lines.move'; readonly ids: readonly string[]; readonly beforeId: string | null }
  | { readonly type: 'lines.delete'; readonly ids: readonly string[] }
  | { readonly type: 'line.fit'; readonly id: string }
