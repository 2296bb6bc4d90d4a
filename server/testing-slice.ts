import { z } from 'zod'
import type { Build, Line } from '../core/model/ledger'
import type { Reference } from '../core/slices/contract'
import { idSchema, nameSchema } from '../core/text/schemas'

/** Stickers: a part of a build that does not exist, kept as any other one by what its folder would say of it. */
interface Sticker {
  readonly id: string
  readonly words: string
  readonly lineId: string | null
}
interface Stickers {
  readonly glue: string
  readonly stuck: readonly Sticker[]
}
const stickerSchema = z.strictObject({ id: idSchema, words: nameSchema('The sticker'), lineId: idSchema.nullable() })
const shape = { glue: nameSchema('The glue'), stuck: z.array(stickerSchema).max(3) }
const none: Stickers = { glue: 'spit', stuck: [] }
export const stickersOf = (build: Build) => (build as unknown as { stickers: Stickers | null }).stickers
const withStickers = (build: Build, stickers: Stickers) => ({ ...build, stickers }) as Build

export const stickersSlice = {
  name: 'stickers',
  title: 'Stickers',
  version: 2,
  // In its first version a sticker had a text.
  upcasts: [
    {
      items: {
        'stickers.stuck': ({ text, ...rest }: Record<string, unknown>) => ({ ...rest, words: text ?? rest.words }),
      },
    },
  ],
  fields: {
    stickers: {
      kind: 'part',
      schema: z.strictObject(shape).nullable(),
      blank: () => null,
      empty: none,
      shape,
      lists: { stuck: { item: stickerSchema, keyOf: ({ id }: Sticker) => id, most: 3 } },
    },
  },
  commands: {
    'sticker.put': {
      shape: { sticker: stickerSchema },
      apply(build: Build, { sticker }: { sticker: Sticker }) {
        const { glue, stuck } = stickersOf(build) ?? none
        return withStickers(build, { glue, stuck: [...stuck.filter(s => s.id !== sticker.id), sticker] })
      },
      describe: ({ sticker }: { sticker: Sticker }) => ({
        title: `Stuck “${sticker.words}” on`,
        gramsBeforeG: null,
        gramsAfterG: null,
      }),
    },
  },
  references: [
    {
      to: 'lines',
      at: ['stickers', 'stuck'],
      ids: ({ lineId }: Sticker) => [lineId],
      follows: (sticker: Sticker, _replaced: Line, by: Line): Sticker => ({ ...sticker, lineId: by.id }),
      loses: () => null,
      missing: { sentence: 'A sticker is on a line that is not there.', field: 'lineId' },
    } satisfies Reference,
  ],
}
