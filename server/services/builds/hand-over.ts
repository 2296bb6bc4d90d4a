import { applyCommand, CommandRefused, diffBuilds } from '../../../core/changes/commands'
import { partOfLine, sameAsPart } from '../../../core/parts/drawer'
import { slotFacts, type Build, type Line } from '../../../core/model/ledger'
import type { HandOverRequest } from '../../../shared/schemas/drawer'
import type { ToldEntry } from '../../../shared/schemas/journal'
import type { BuildsRepository } from '../../db/builds-repository'
import type { JournalRepository } from '../../db/journal-repository'
import type { HandedPart, HandOverRow, PartsRepository } from '../../db/parts-repository'
import { DomainProblem } from '../../problems'
import type { BuildCache } from './build-cache'
import type { BuildWrites, Writing } from './build-writes'
import type { HeldBuild } from './held-build'

/** Slots whose grams are nobody's part: they stay with the build they were made for. */
const notParts: readonly Line['slot'][] = ['other', 'coating']

function requireLines(build: Build, ids: readonly string[]): Line[] {
  return ids.map(id => {
    const line = build.lines.find(l => l.id === id)
    if (!line) throw new CommandRefused('That line is no longer in this build.', 'lineIds')
    return line
  })
}

/**
 * The target build with the lines of the source in it: grams, properties and links kept, feeds left behind (they named
 * things of the source). What flew in the source's set-up flies in the target's.
 */
function withLinesFrom(
  source: Build,
  target: Build,
  lines: readonly Line[],
  newId: () => string,
): { build: Build; newIds: ReadonlyMap<string, string> } {
  const taken = new Set(target.lines.map(line => line.id))
  const newIds = new Map(lines.map(line => [line.id, taken.has(line.id) ? newId() : line.id]))
  const moved = lines.map((line): Line => ({
    ...line,
    id: newIds.get(line.id)!,
    feed: null,
    insteadOf: null,
    state: line.state === 'candidate' ? 'off' : line.state,
  }))
  const added = applyCommand(target, { type: 'lines.add', lines: moved, beforeId: null })
  const flew = new Set(source.setups.find(s => s.id === source.flies.setupId)?.lineIds)
  const setup = added.setups.find(s => s.id === added.flies.setupId)!
  const optional = lines.filter(line => line.role !== 'airframe' && flew.has(line.id)).map(line => newIds.get(line.id)!)
  const build =
    optional.length === 0
      ? added
      : applyCommand(added, { type: 'setup.put', setup: { ...setup, lineIds: [...setup.lineIds, ...optional] } })
  const pack = lines.find(line => line.id === source.flies.packLineId)
  return {
    build:
      pack && build.flies.packLineId === null
        ? applyCommand(build, { type: 'loadout.fly', choice: { ...build.flies, packLineId: newIds.get(pack.id)! } })
        : build,
    newIds,
  }
}

/**
 * What the drawer becomes when lines go into it: a line that is simply its part is a piece less on builds; one that was
 * changed for itself, or that never was a part, becomes a part of its own.
 */
function partsAfterTakingApart(
  lines: readonly Line[],
  parts: PartsRepository,
  newId: () => string,
): { before: HandedPart[]; after: HandedPart[] } {
  const before: HandedPart[] = []
  const after: HandedPart[] = []
  for (const line of lines) {
    if (notParts.includes(line.slot))
      throw new CommandRefused(
        `${slotFacts[line.slot].label} “${line.name}” is no part that can lie in a drawer. Leave it with the build.`,
        'lineIds',
      )
    const part = line.partId ? parts.one(line.partId) : null
    if (part && sameAsPart(line, part)) continue
    const id = newId()
    const owned = line.state === 'candidate' && line.mass?.evidence !== 'weighed' ? 0 : line.quantity
    before.push({ id, part: null, lineId: line.id })
    after.push({
      id,
      part: {
        ...partOfLine(line, id),
        owned,
        ...(part ? { kitId: part.kitId, bag: part.bag, link: part.link, tags: part.tags } : {}),
      },
      lineId: line.id,
    })
    if (!part) continue
    before.push({ id: part.id, part, lineId: line.id })
    after.push({
      id: part.id,
      part: { ...part, owned: Math.max(part.lost + part.scrapped, part.owned - line.quantity) },
      lineId: line.id,
    })
  }
  return { before, after }
}

interface Dependencies {
  readonly builds: BuildsRepository
  readonly journal: JournalRepository
  readonly parts: PartsRepository
  readonly cache: BuildCache
  readonly writes: BuildWrites
  readonly now: () => string
  readonly newId: () => string
}

const noGrams = { gramsBeforeG: null, gramsAfterG: null }

/** Lines that go to another build or into the drawer: two journal entries tied together, taken back as one. */
export class HandOvers {
  constructor(private readonly has: Dependencies) {}

  /** Moves lines to another build or into the drawer, as one step that is taken back as one. */
  handOver(writing: Writing, entry: HeldBuild, { lineIds, to }: HandOverRequest): ToldEntry {
    const lines = requireLines(entry.build, lineIds)
    const next = applyCommand(entry.build, { type: 'lines.delete', ids: lineIds })
    const going = { entry, next, lines, what: lines.length === 1 ? lines[0]!.name : `${lines.length} lines` }
    return to.kind === 'drawer' ? this.intoDrawer(writing, going) : this.toBuild(writing, going, to.id)
  }

  private intoDrawer(writing: Writing, { entry, next, lines, what }: Going): ToldEntry {
    const { parts, newId } = this.has
    const { id } = entry.build
    const { before, after } = partsAfterTakingApart(lines, parts, newId)
    this.putParts(id, after)
    const recorded = this.write(writing, entry, next, `Put ${what} into the drawer`)
    const ends = { fromBuild: id, fromSeq: recorded.seq, toBuild: null, toSeq: null }
    parts.addHandOver({ id: newId(), ...ends, partsBefore: before, partsAfter: after })
    return recorded
  }

  private toBuild(writing: Writing, { entry, next, lines, what }: Going, to: string): ToldEntry {
    const { builds, parts, cache, newId } = this.has
    const { id } = entry.build
    if (to === id) throw new DomainProblem('refused', 'The lines are in this build already.', 'to')
    const target = cache.get(to)
    if (target.build.reference) throw new DomainProblem('refused', 'A reference craft has no lines of its own.', 'to')
    const { build: filled, newIds } = withLinesFrom(entry.build, target.build, lines, newId)
    const versions = builds.versions(id).filter(version => newIds.has(version.lineId))
    builds.insertVersions(
      to,
      versions.map(version => ({ ...version, lineId: newIds.get(version.lineId)! })),
    )
    const recorded = this.write(writing, entry, next, `Moved ${what} to ${target.build.name}`)
    const there = this.write(writing, target, filled, `${capital(what)} came from ${next.name}`)
    const ends = { fromBuild: id, fromSeq: recorded.seq, toBuild: to, toSeq: there.seq }
    parts.addHandOver({ id: newId(), ...ends, partsBefore: [], partsAfter: [] })
    return recorded
  }

  private write(writing: Writing, entry: HeldBuild, next: Build, title: string): ToldEntry {
    return this.has.writes.write(writing, entry, next, diffBuilds(entry.build, next), { title, ...noGrams }).told
  }

  putParts(buildId: string, handed: HandOverRow['partsAfter']): void {
    for (const { id, part, lineId } of handed) {
      if (!part) {
        this.has.parts.remove(id)
        continue
      }
      const came = `on ${this.has.cache.get(buildId).build.name}`
      if (this.has.parts.one(id)) {
        this.has.parts.change(part, this.has.now(), came)
        continue
      }
      const versions = this.has.builds.versions(buildId).filter(v => v.lineId === lineId)
      this.has.parts.insert(
        part,
        versions.find(v => v.mass.versionId === part.mass?.versionId)?.madeAt ?? this.has.now(),
        came,
      )
      for (const version of versions) this.has.parts.addVersion(id, version.mass, version.madeAt, came)
    }
  }

  /** Before a hand-over is taken back or done again: the other side must still be where it was. */
  otherSide(id: string, handed: HandOverRow, kind: 'undo' | 'redo'): { id: string; seq: number } | null {
    for (const { id: partId } of kind === 'undo' ? handed.partsAfter : []) {
      const user = this.has.cache
        .all()
        .find(h => h.build.id !== handed.fromBuild && h.build.lines.some(line => line.partId === partId))
      if (user)
        throw new DomainProblem(
          'refused',
          `A part that came out of this is on ${user.build.name} now. Take it off there first.`,
        )
    }
    if (handed.toBuild === null) return null
    const other =
      handed.fromBuild === id
        ? { id: handed.toBuild, seq: handed.toSeq! }
        : { id: handed.fromBuild, seq: handed.fromSeq }
    const next = kind === 'undo' ? this.has.journal.nextUndo(other.id) : this.has.journal.nextRedo(other.id)
    if (next?.seq !== other.seq)
      throw new DomainProblem(
        'refused',
        `“${this.has.cache.get(other.id).build.name}” was changed since. Take its later changes back first.`,
      )
    return other
  }
}

interface Going {
  readonly entry: HeldBuild
  readonly next: Build
  readonly lines: readonly Line[]
  readonly what: string
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)
