import {
  applyCommand,
  CommandRefused,
  describeCommand,
  diffBuilds,
  isEmptyPatch,
  type Command,
  type MeetingWords,
  type Patch,
} from '../../../core/changes/commands'
import type { Build } from '../../../core/model/ledger'
import { propertyProblem } from '../../../core/model/properties'
import type { CommandReply, CommandsReply } from '../../../shared/schemas/api'
import type { HandOverRequest } from '../../../shared/schemas/drawer'
import { toldOf, type ToldEntry } from '../../../shared/schemas/journal'
import type { JournalRepository } from '../../db/journal-repository'
import type { PartsRepository } from '../../db/parts-repository'
import { DomainProblem } from '../../problems'
import type { BuildCache } from './build-cache'
import { directionOf, type BuildWrites, type Writing } from './build-writes'
import type { DrawerFollowing } from './drawer-following'
import type { HandOvers } from './hand-over'
import type { HeldBuild } from './held-build'
import { believedBuild, onTopOf, originOf, type Since } from './stale-writes'

/** A state a build shall be again, whole or some of its lines, and when that was, in words. */
export interface WayBack {
  readonly then: Build
  readonly when: string
  readonly lineIds: readonly string[] | null
  readonly key: string | null
}

/** A command as it was asked for, with the key that tells a second asking from a second change. */
export interface Wanted {
  readonly command: Command
  readonly note: string
  readonly key?: string | null
}

interface Dependencies {
  readonly journal: JournalRepository
  readonly parts: PartsRepository
  readonly cache: BuildCache
  readonly writes: BuildWrites
  readonly drawer: DrawerFollowing
  readonly handOvers: HandOvers
  readonly newId: () => string
}

/** What can be asked of a build by those who saw it at some revision: commands, taking back, doing again, handing over. */
export class BuildCommands {
  constructor(private readonly has: Dependencies) {}

  /** Several commands of one request, all or none. */
  carryOutAll(writing: Writing, id: string, seen: number, wanted: readonly Wanted[]): CommandsReply {
    const entry = this.has.cache.get(id)
    const entries: ToldEntry[] = []
    let revision = entry.revision
    const untouched = this.sinceRevision(entry, seen).length === 0
    const asked = new Set<string>()
    /** Without keys of their own the writes of one request still belong together. */
    let origin: string | null = null
    for (const [n, one] of wanted.entries()) {
      const key = one.key ?? `${(origin ??= this.has.newId())}.${n}`
      // Where nobody has written since, those before it in the same request are all there is, and its own; else each is looked at anew.
      const since = untouched && !asked.has(key) ? [] : this.sinceRevision(entry, seen)
      asked.add(key)
      const believed = () => believedBuild(entry.build, since, originOf(key))
      const done = answeredBefore(entry, since, key) ?? this.carryOut(writing, entry, believed(), { ...one, key })
      revision = done.revision
      if (done.entry) entries.push(done.entry)
    }
    return { revision, entries, steps: entry.steps }
  }

  carryOutOne(writing: Writing, id: string, seen: number, wanted: Wanted): CommandReply {
    const { revision, entries, steps } = this.carryOutAll(writing, id, seen, [wanted])
    return { revision, entry: entries[0] ?? null, steps }
  }

  /** Takes the last change back, or does it again; what was handed over with it goes back as well. */
  replay(writing: Writing, id: string, seen: number, kind: 'undo' | 'redo', key: string | null): CommandReply {
    const { journal, parts, cache, handOvers } = this.has
    const entry = cache.get(id)
    const before = answeredBefore(entry, this.sinceRevision(entry, seen), key)
    if (before) return before
    this.requireRevision(entry, seen)
    const target = kind === 'undo' ? journal.nextUndo(id) : journal.nextRedo(id)
    if (!target) throw nothingToDo[kind]()
    const handed = parts.handOverOf(id, target.seq)
    const other = handed ? handOvers.otherSide(id, handed, kind) : null
    if (handed) handOvers.putParts(handed.fromBuild, kind === 'undo' ? handed.partsBefore : handed.partsAfter)
    if (other) this.replayOne(writing, cache.get(other.id), kind, null)
    return this.replayOne(writing, entry, kind, key)
  }

  /**
   * Makes a build what it was, whole or some of its lines, as one change that can be taken back. Whether it is put away
   * stays as it is.
   */
  goBack(writing: Writing, id: string, seen: number, wanted: WayBack): CommandReply {
    const { cache, writes, drawer } = this.has
    const entry = cache.get(id)
    const before = answeredBefore(entry, this.sinceRevision(entry, seen), wanted.key)
    if (before) return before
    this.requireRevision(entry, seen)
    const now = entry.build
    const next = wanted.lineIds
      ? withLinesOf(now, wanted.then, wanted.lineIds)
      : { ...wanted.then, archived: now.archived }
    const patch = diffBuilds(now, next)
    if (isEmptyPatch(patch)) return { revision: entry.revision, entry: null, steps: entry.steps }
    const title = wanted.lineIds
      ? `Brought back as it was ${wanted.when}: ${namesOf(wanted.then, wanted.lineIds)}`
      : `Went back to what it was ${wanted.when}`
    const description = { title, gramsBeforeG: null, gramsAfterG: null }
    const { told } = writes.write(writing, entry, next, patch, description, { key: wanted.key })
    drawer.followLines(writing, id, patch, 'forwards')
    return { revision: entry.revision, entry: told, steps: entry.steps }
  }

  /** Moves lines to another build or into the drawer. */
  handOver(writing: Writing, id: string, seen: number, wanted: HandOverRequest): CommandReply {
    const entry = this.has.cache.get(id)
    this.requireRevision(entry, seen)
    const told = this.has.handOvers.handOver(writing, entry, wanted)
    return { revision: entry.revision, entry: told, steps: entry.steps }
  }

  /** `believed`: the build as the one who writes sees it, null where that is as it is. */
  private carryOut(
    writing: Writing,
    entry: HeldBuild,
    believed: Build | null,
    { command: wanted, note, key = null }: Wanted,
  ): CommandReply {
    const before = entry.build
    const carried = onTopOf(wanted, believed, before)
    if ('meetings' in carried) throw this.met(entry, carried.meetings)
    const { command } = carried
    const next = applyCommand(before, command)
    const patch = diffBuilds(before, next)
    if (isEmptyPatch(patch)) return { revision: entry.revision, entry: null, steps: entry.steps }
    requireProperties(patch)
    const description = describeCommand(command, before, patch)
    const { told } = this.has.writes.write(writing, entry, next, patch, description, { note, key })
    this.has.drawer.followLines(writing, before.id, patch, 'forwards')
    return { revision: entry.revision, entry: told, steps: entry.steps }
  }

  private replayOne(writing: Writing, entry: HeldBuild, kind: 'undo' | 'redo', key: string | null): CommandReply {
    const { told, patch } = this.has.writes.replay(writing, entry, kind, key)
    this.has.drawer.followLines(writing, entry.build.id, patch, directionOf(kind))
    return { revision: entry.revision, entry: told, steps: entry.steps }
  }

  private requireRevision(entry: HeldBuild, seen: number): void {
    if (seen === entry.revision) return
    const sentence = `“${entry.build.name}” was changed in another window since you opened it. Nothing of yours was written.`
    throw new DomainProblem('stale', sentence, undefined, this.has.cache.reply(entry))
  }

  /** What was written since a revision, oldest first. */
  private sinceRevision(entry: HeldBuild, seen: number): Since {
    if (seen === entry.revision) return []
    const seqSeen = entry.seq - (entry.revision - seen)
    // A revision that this journal does not reach back to was of another copy of the build.
    if (seen > entry.revision || seqSeen < 0) this.requireRevision(entry, seen)
    return this.has.journal.since(entry.build.id, seqSeen)
  }

  private met(entry: HeldBuild, meetings: readonly MeetingWords[]): DomainProblem {
    const { what, mine, theirs } = meetings[0]!
    const others = meetings.length > 1 ? ` And ${meetings.length - 1} more.` : ''
    const sentence =
      `“${entry.build.name}” was changed in another window meanwhile. ${what}: you ${mine}; meanwhile ` +
      `${theirs}.${others} Nothing of yours was written.`
    return new DomainProblem('stale', sentence, undefined, this.has.cache.reply(entry), meetings)
  }
}

/** The build with some lines as they were: in their place where they still are, else at the end. */
function withLinesOf(now: Build, then: Build, lineIds: readonly string[]): Build {
  const wanted = new Map(then.lines.flatMap(line => (lineIds.includes(line.id) ? [[line.id, line] as const] : [])))
  const gone = lineIds.find(id => !wanted.has(id))
  if (gone !== undefined) throw new CommandRefused('That line was not in this build then.', 'lineIds')
  const present = new Set(now.lines.map(line => line.id))
  const back = [...wanted.values()].filter(line => !present.has(line.id))
  return { ...now, lines: [...now.lines.map(line => wanted.get(line.id) ?? line), ...back] }
}

const namesOf = ({ lines }: Build, ids: readonly string[]) =>
  lines
    .filter(({ id }) => ids.includes(id))
    .map(({ name }) => name)
    .join(', ')

const nothingToDo = {
  undo: () => new DomainProblem('nothing-to-undo', 'There is nothing to take back.'),
  redo: () => new DomainProblem('nothing-to-undo', 'There is nothing to do again.'),
}

/** The first answer to a write that was made already, or null. Whoever had no answer has not seen the revision it made. */
function answeredBefore(entry: HeldBuild, since: Since, key: string | null): CommandReply | null {
  const made = key === null ? undefined : since.find(written => written.key === key)?.record
  return made ? { revision: entry.revision - (entry.seq - made.seq), entry: toldOf(made), steps: entry.steps } : null
}

function requireProperties(patch: Patch): void {
  for (const { before, after } of patch.lines) {
    const changed = after !== null && after.properties !== before?.properties
    const problem = changed ? propertyProblem(after.slot, after.properties) : null
    if (problem) throw new DomainProblem('invalid', problem.message, `properties.${problem.key}`)
  }
}
