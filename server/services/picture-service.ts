import type { photoService } from './photo-service'

/** All pictures of parts lie in one folder: a part that goes from a build into the drawer keeps its own. */
const owner = 'parts'

interface Dependencies {
  readonly photos: ReturnType<typeof photoService>
  /** Whether a line, a part or anything that can be undone still names it. */
  readonly isNamed: (id: string) => boolean
}

/** Pictures of parts, as files beside the database. */
export function pictureService({ photos, isNamed }: Dependencies) {
  return {
    keep: (bytes: Buffer) => photos.keep(owner, bytes),
    read: (id: string) => photos.read(owner, id),
    /** Takes those off the disk that nothing names any more. */
    async removeUnnamed(ids: readonly string[]) {
      for (const id of ids) if (!isNamed(id)) await photos.remove(owner, id)
    },
  }
}
