import { applyPatch } from '../../../core/changes/commands'
import { firstProblem } from '../../../shared/schemas/build-file'
import { buildSchema } from '../../../shared/schemas/build'
import { DomainProblem } from '../../problems'
import { noSuchBuild } from './build-cache'
import type { WriteDependencies } from './build-writes'

export type Rescue = 'put away' | 'bring back' | 'take back'

/** What can be done with a build that cannot be read, and deleting one for good. */
export class BuildRescue {
  constructor(private readonly has: Omit<WriteDependencies, 'writer'>) {}

  /** Puts it away, brings it back, or takes its last entry back where that makes it readable. */
  rescue(id: string, what: Rescue): void {
    const { builds, cache } = this.has
    if (!builds.headOf(id)) throw noSuchBuild()
    if (what === 'take back') this.takeBack(id)
    else builds.setArchived(id, what === 'put away')
    cache.drop(id)
  }

  /** Only one that was put away; its parts lie in the drawer again. */
  remove(id: string): void {
    const { builds, cache, followers } = this.has
    const head = builds.headOf(id)
    if (!head) throw new DomainProblem('not-found', 'There is no such build here. It may have been deleted already.')
    if (head.archived !== 1)
      throw new DomainProblem(
        'refused',
        `“${head.name}” is on the shelf. Put it away first, then it can be deleted for good.`,
      )
    builds.remove(id)
    cache.drop(id)
    followers.gone(id)
  }

  private takeBack(id: string): void {
    const { builds, journal, cache, now } = this.has
    const loaded = cache.load(id)
    const target = journal.nextUndo(id)
    if (!loaded || !target) throw new DomainProblem('nothing-to-undo', 'There is nothing to take back.')
    const next = applyPatch(loaded.build, target.patch, 'backwards')
    const parsed = buildSchema.safeParse(next)
    if (!parsed.success)
      throw new DomainProblem(
        'refused',
        `Without its last entry it cannot be read either: ${firstProblem(parsed.error).sentence}`,
      )
    const at = now()
    journal.stands(id, target.seq, 'taken back')
    builds.keepVersions(id, target.patch, 'backwards', { revision: loaded.revision + 1, madeAt: at })
    builds.save(next, target.patch, 'backwards')
    builds.setRevision(id, loaded.revision + 1)
    journal.appendRecord(id, {
      seq: journal.lastSeq(id) + 1,
      at,
      kind: 'undo',
      target: target.seq,
      title: `Took back: ${target.title}`.slice(0, 600),
      gramsBeforeG: target.gramsAfterG,
      gramsAfterG: target.gramsBeforeG,
      auwBeforeG: target.auwAfterG,
      auwAfterG: target.auwBeforeG,
      note: '',
      undone: 'in force',
      mark: '',
      patch: target.patch,
    })
  }
}
