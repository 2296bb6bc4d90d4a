import type { Command } from '#core/changes/commands'
import type { Build } from '#core/model/ledger'

/**
 * What hangs a picture, once it was sent, on a thing of the build that is open now. By then another build may be open, or
 * the thing gone: then the picture is not kept, and whoever sent it is told.
 */
export function holderInBuild<T extends { readonly pictureIds: readonly string[] }>(
  what: string,
  find: (build: Build) => T | null | undefined,
  command: (thing: T) => Command,
): (pictureId: string) => void {
  const store = useBuildStore()
  const buildId = store.build!.id
  return pictureId => {
    const thing = store.build?.id === buildId ? find(store.build) : null
    if (!thing) throw new Error(`${what} of this picture is not open any more. The picture was not kept.`)
    const done = store.run(command({ ...thing, pictureIds: [...thing.pictureIds, pictureId] }))
    if (!done) throw new Error(store.refusal)
  }
}
