import { applyCommand, diffBuilds, isEmptyPatch, type Direction, type Patch } from '../../../core/changes/commands'
import type { Line } from '../../../core/model/ledger'
import { sameAsPart, type Part } from '../../../core/parts/drawer'
import type { PartsRepository } from '../../db/parts-repository'
import type { BuildCache } from './build-cache'
import type { BuildWrites, Writing } from './build-writes'

/** Lines that are simply a part of the drawer follow it, and it follows them. */
export class DrawerFollowing {
  constructor(
    private readonly parts: PartsRepository,
    private readonly cache: BuildCache,
    private readonly writes: BuildWrites,
    private readonly now: () => string,
  ) {}

  /**
   * Lines whose grams or properties changed take their part along, and the part every other line that is still simply
   * that part. What was done to one piece alone (by difference: trimmed leads) stays with its line.
   */
  followLines(writing: Writing, buildId: string, patch: Patch, direction: Direction): void {
    for (const change of patch.lines) {
      const [from, to] = direction === 'forwards' ? [change.before, change.after] : [change.after, change.before]
      if (!from || !to?.partId || from.partId !== to.partId) continue
      if (from.mass === to.mass && from.properties === to.properties) continue
      const alone = [from.mass, to.mass].some(mass => mass?.weighing?.method === 'by difference')
      const part = this.parts.one(to.partId)
      if (!part || alone || !sameAsPart(from, part)) continue
      const next: Part = { ...part, mass: to.mass, properties: to.properties, listing: to.listing ?? part.listing }
      this.parts.change(next, this.now(), `on ${this.cache.get(buildId).build.name}`)
      this.followPart(writing, part, next, to.id)
    }
  }

  /** Lines of all builds that were simply this part become it again after it changed, each build with an entry of its own. */
  followPart(writing: Writing, before: Part, after: Part, exceptLine: string | null = null): void {
    if (before.mass === after.mass && before.properties === after.properties) return
    const follows = (line: Line) => line.partId === before.id && line.id !== exceptLine && sameAsPart(line, before)
    const { mass, properties } = after
    for (const entry of this.cache.all()) {
      const changes = entry.build.lines
        .filter(follows)
        .map(line => ({ id: line.id, fields: { mass, properties, listing: after.listing ?? line.listing } }))
      if (changes.length === 0) continue
      const next = applyCommand(entry.build, { type: 'lines.change', changes })
      const patch = diffBuilds(entry.build, next)
      if (isEmptyPatch(patch)) continue
      const title = `${after.name}: follows the drawer`
      this.writes.write(writing, entry, next, patch, { title, gramsBeforeG: null, gramsAfterG: null })
    }
  }
}
