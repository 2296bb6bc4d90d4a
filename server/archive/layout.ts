import { z } from 'zod'
import { holdingsSchema } from '../../shared/schemas/archive'

/** What a data folder consists of, as far as it is kept in an archive; what else lies there belongs to this machine. */
export const databaseName = 'jolly-gram.sqlite'
export const keptFolders = ['photos', 'pictures', 'logs'] as const

export const archiveFormat = 'jolly-gram archive'
export const archiveVersion = 1
export const manifestName = 'manifest.json'
/** More is no manifest of a data folder, bytes. */
export const mostManifestBytes = 64_000_000

/** A file of a data folder by its name in an archive: the database, or one below the folders of files, never out of them. */
const memberName =
  /^(?:jolly-gram\.sqlite|photos\/[\w-]{1,80}\/[\w-]{1,80}\.jpg|pictures\/[\w-]{1,80}\/[\w-]{1,80}\.jpg|logs\/[\w-]{1,80}\.csv\.gz)$/
export const isMemberName = (name: string): boolean => memberName.test(name)

export const memberSchema = z.strictObject({
  name: z.string().regex(memberName),
  size: z.int().nonnegative(),
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
})
export type Member = z.infer<typeof memberSchema>

export const manifestSchema = z.strictObject({
  format: z.literal(archiveFormat),
  version: z.literal(archiveVersion),
  madeAt: z.iso.datetime(),
  /** The changes of the schema its database has had. */
  migrations: z.array(z.string().max(120)),
  holds: holdingsSchema,
  members: z.array(memberSchema),
})
export type Manifest = z.infer<typeof manifestSchema>
