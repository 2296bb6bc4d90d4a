import { z } from 'zod'
import { blankMark, mostTags, type ShelfMark } from '../../model/data'
import type { Build } from '../../model/ledger'
import { nameSchema } from '../../text/schemas'
import { joined, told, type BuildSlice } from '../contract'

declare module '../../model/data/build' {
  interface Build {
    /** How it stands on the shelf; null while nobody has said anything of it. */
    readonly shelf: ShelfMark | null
  }
}

const tagSchema = nameSchema('A tag').pipe(z.string().max(30, 'A tag has at most 30 letters.'))
const shape = {
  pinned: z.boolean(),
  tags: z
    .array(tagSchema)
    .max(mostTags, `A build has at most ${mostTags} tags.`)
    .refine(tags => new Set(tags).size === tags.length, 'A tag stands there twice.'),
}
const markSchema = z.strictObject(shape)

interface SetShelf {
  readonly type: 'shelf.set'
  readonly fields: Partial<ShelfMark>
}

function changedWords({ pinned, tags }: Partial<ShelfMark>, before: ShelfMark): string {
  const gone = before.tags.filter(tag => tags && !tags.includes(tag))
  const fresh = (tags ?? []).filter(tag => !before.tags.includes(tag))
  return joined([
    ...(pinned === undefined || pinned === before.pinned ? [] : [pinned ? 'pinned' : 'no longer pinned']),
    ...(fresh.length > 0 ? [`tagged ${joined(fresh.map(tag => `“${tag}”`))}`] : []),
    ...(gone.length > 0 ? [`${joined(gone.map(tag => `“${tag}”`))} taken off`] : []),
    ...(tags && fresh.length + gone.length === 0 && tags.join('|') !== before.tags.join('|')
      ? ['tags in another order']
      : []),
  ])
}

/** How a build stands on the shelf: pinned, and under which words it is found. */
export const shelfSlice: BuildSlice<'shelf', SetShelf> = {
  name: 'shelf',
  title: 'Shelf',
  version: 1,
  upcasts: [],
  fields: {
    shelf: { kind: 'part', schema: markSchema.nullable(), blank: () => null, empty: blankMark, shape, lists: {} },
  },
  commands: {
    'shelf.set': {
      shape: { fields: markSchema.partial() },
      apply: (build: Build, { fields }): Build => ({ ...build, shelf: { ...(build.shelf ?? blankMark), ...fields } }),
      describe: ({ fields }, before) =>
        told(`Shelf: ${changedWords(fields, before.shelf ?? blankMark) || 'as it was'}`),
    },
  },
  references: [],
  merging: { sets: ['tags'] },
}
