import { z } from 'zod'
import {
  applyCommand,
  applyPatch,
  CommandRefused,
  describeCommand,
  diffBuilds,
  isEmptyPatch,
  nextStateProblem,
  type Command,
  type MeetingWords,
  type Patch,
} from '../../core/changes/commands'
import { sameAsPart, type Part, type Placement } from '../../core/parts/drawer'
import { weighedElsewhere, type Build } from '../../core/model/ledger'
import { HonestyTable, listingObservations, type ListingObservation } from '../../core/mass/listings'
import { defaultLoadout, LineEstimates, loadoutMasses } from '../../core/mass/loadout'
import type { RuleCard } from '../../core/limits/rules'
import { shelfEntry, type ShelfEntry } from '../../core/deciding/shelf'
import {
  type BuildReply,
  type CommandReply,
  type CommandsReply,
  type Steps,
  shelfEntrySchema,
} from '../../shared/schemas/api'
import type { JournalEntry, JournalRecord } from '../../shared/schemas/journal'
import { type MassVersion, firstProblem } from '../../shared/schemas/build-file'
import type { BuildsRepository } from '../db/builds-repository'
import type { GroupCommit } from '../db/group-commit'
import type { JournalRepository } from '../db/journal-repository'
import type { PartsRepository } from '../db/parts-repository'
import type { HandOverRequest } from '../../shared/schemas/drawer'
import { propertyProblem } from '../../core/model/properties'
import { handOverService } from './hand-over'
import type { RuleService } from './rule-service'
import { DomainProblem } from '../problems'
import type { ReportRunner } from './report-runner'
import { dataProblemOf } from '../db/data-problem'
import { buildSchema } from '../../shared/schemas/build'
import { believedBuild, onTopOf, originOf, type Since } from './stale-writes'

/** A build as the server holds it in memory: the database is the truth, this is its copy. */
interface Held {
  build: Build
  revision: number
  observations: ListingObservation[]
  seq: number
  steps: Steps
  estimates: LineEstimates
  /** The all-up weight worked out last, and what it was worked out of. */
  allUp: { build: Build; honesty: HonestyTable; massG: number } | null
  /** The shelf entry made last, and what it was made of. */
  shelf: { build: Build; cards: readonly RuleCard[]; honesty: HonestyTable; entry: ShelfEntry } | null
}

/** A command as it was asked for, with the key that tells a second asking from a second change. */
export interface Wanted {
  readonly command: Command
  readonly note: string
  readonly key?: string | null
}

interface Parts {
  builds: BuildsRepository
  journal: JournalRepository
  parts: PartsRepository
  rules: RuleService
  reports: ReportRunner
  now: () => string
  newId: () => string
}

/** A build that cannot be read, as the shelf says it. */
export interface UnreadableBuild {
  readonly id: string
  readonly name: string
  readonly archived: boolean
  readonly sentence: string
}

/** The use cases of builds: read, change, undo, redo, report. One process owns the database, so builds are held in memory. */
/** How many entries of a journal are told at once. */
const journalPage = 200

export function buildService({ builds, journal, parts, rules, reports, now, newId }: Parts) {
  const held = new Map<string, Held>()
  const followers = new Map<string, Set<{ tell: (revision: number) => void; gone: () => void }>>()
  let writer: GroupCommit

  function hold(id: string, build: Build, revision: number): Held {
    const fresh: Held = {
      build,
      revision,
      observations: listingObservations(build.lines),
      seq: journal.lastSeq(id),
      steps: { undo: journal.nextUndo(id)?.title ?? null, redo: journal.nextRedo(id)?.title ?? null },
      estimates: new LineEstimates(new HonestyTable()),
      allUp: null,
      shelf: null,
    }
    held.set(id, fresh)
    return fresh
  }

  function get(id: string): Held {
    const known = held.get(id)
    if (known) return known
    const loaded = loadedOf(id)
    if (!loaded)
      throw new DomainProblem('not-found', 'There is no such build here. It may have been made in another data folder.')
    return hold(id, loaded.build, loaded.revision)
  }

  /** A build that cannot be read says so itself, and takes nobody along. */
  function loadedOf(id: string): { build: Build; revision: number } | null {
    try {
      return builds.load(id)
    } catch (error) {
      if (dataProblemOf(error)) throw error
      throw unreadable(id, error)
    }
  }
  function unreadable(id: string, error: unknown): DomainProblem {
    const why =
      error instanceof z.ZodError
        ? firstProblem(error).sentence
        : error instanceof Error
          ? error.message
          : String(error)
    return new DomainProblem('unreadable', `“${builds.headOf(id)?.name ?? id}” cannot be read: ${why.slice(0, 200)}`)
  }
  function readable(id: string): Held[] {
    try {
      return [get(id)]
    } catch (error) {
      if (error instanceof DomainProblem && error.code === 'unreadable') return []
      throw error
    }
  }

  /** Every build that can be read. */
  function all(): Held[] {
    return builds.ids().flatMap(readable)
  }

  function observationsElsewhere(id: string): ListingObservation[] {
    return all()
      .filter(h => h.build.id !== id)
      .flatMap(h => h.observations)
  }

  /** All observations as one table; made anew only when some build's observations changed. */
  let table: HonestyTable | null = null
  function honesty(): HonestyTable {
    table ??= new HonestyTable(all().flatMap(h => h.observations))
    return table
  }

  function observe(entry: Held): void {
    const observations = listingObservations(entry.build.lines)
    const same =
      observations.length === entry.observations.length &&
      observations.every(
        (o, i) =>
          o.ratio === entry.observations[i]!.ratio &&
          o.product === entry.observations[i]!.product &&
          o.slot === entry.observations[i]!.slot,
      )
    if (same) return
    entry.observations = observations
    table = null
  }

  function allUpWeightG(entry: Held, build: Build): number {
    if (build.reference) return build.reference.massG
    const current = honesty()
    if (entry.allUp?.build !== build || entry.allUp.honesty !== current) {
      entry.estimates = entry.estimates.for(build, current)
      entry.allUp = {
        build,
        honesty: current,
        massG: loadoutMasses(build, [defaultLoadout(build)], entry.estimates)[0]!.massG,
      }
    }
    return entry.allUp.massG
  }

  function entryOf(h: Held, cards: readonly RuleCard[], current: HonestyTable): ShelfEntry {
    if (h.shelf?.build !== h.build || h.shelf.cards !== cards || h.shelf.honesty !== current) {
      const entry = shelfEntry(h.build, cards, current)
      const parsed = shelfEntrySchema.safeParse(entry)
      if (!parsed.success) throw parsed.error
      h.shelf = { build: h.build, cards, honesty: current, entry }
    }
    return h.shelf.entry
  }

  /** Takes the last entry of a build back that cannot be read, where it can be read then. */
  function takeBackUnreadable(id: string): void {
    const loaded = loadedOf(id)
    const target = journal.nextUndo(id)
    if (!loaded || !target) throw new DomainProblem('nothing-to-undo', 'There is nothing to take back.')
    const next = applyPatch(loaded.build, target.patch, 'backwards')
    const parsed = buildSchema.safeParse(next)
    if (!parsed.success)
      throw new DomainProblem(
        'refused',
        `Without its last entry it cannot be read either: ${firstProblem(parsed.error).sentence}`,
      )
    const recorded: JournalRecord = {
      seq: journal.lastSeq(id) + 1,
      at: now(),
      kind: 'undo',
      target: target.seq,
      title: `Took back: ${target.title}`.slice(0, 600),
      gramsBeforeG: target.gramsAfterG,
      gramsAfterG: target.gramsBeforeG,
      auwBeforeG: target.auwAfterG,
      auwAfterG: target.auwBeforeG,
      note: '',
      undone: 'in force',
      patch: target.patch,
    }
    journal.mark(id, target.seq, 'taken back')
    builds.save(next, target.patch, 'backwards', loaded.revision + 1, recorded.at)
    journal.append(id, recorded)
  }

  /** Builds made before one, in the order they were made. */
  function earlierThan(id: string): Build[] {
    const ids = builds.ids()
    const at = ids.indexOf(id)
    return all()
      .filter(entry => {
        const place = ids.indexOf(entry.build.id)
        return place >= 0 && place < at
      })
      .map(entry => entry.build)
  }

  function reply(entry: Held): BuildReply {
    return {
      build: entry.build,
      revision: entry.revision,
      steps: entry.steps,
      honestyElsewhere: observationsElsewhere(entry.build.id),
      weighedElsewhere: weighedElsewhere(entry.build, earlierThan(entry.build.id)),
    }
  }

  function requireRevision(entry: Held, seen: number): void {
    if (seen === entry.revision) return
    throw new DomainProblem(
      'stale',
      `“${entry.build.name}” was changed in another window since you opened it. Nothing of yours was written.`,
      undefined,
      reply(entry),
    )
  }

  /** What was written since a revision, oldest first. */
  function sinceRevision(entry: Held, seen: number): Since {
    if (seen === entry.revision) return []
    const seqSeen = entry.seq - (entry.revision - seen)
    // A revision that this journal does not reach back to was of another copy of the build.
    if (seen > entry.revision || seqSeen < 0) requireRevision(entry, seen)
    return journal.since(entry.build.id, seqSeen)
  }

  /** Builds that the write now being made has changed. */
  let touched = new Set<string>()

  /**
   * Runs a write that may change several builds; forgets the held copies of those it had changed when it fails. Their
   * followers are told once it is on disk.
   */
  async function changeAnywhere<T>(work: () => T): Promise<T> {
    let mine = new Set<string>()
    const result = await writer.write(() => {
      mine = touched = new Set()
      try {
        return work()
      } catch (error) {
        for (const id of mine) held.delete(id)
        if (mine.size > 0) table = null
        if (error instanceof CommandRefused) throw new DomainProblem('refused', error.message, error.field)
        throw error
      }
    })
    for (const id of mine) for (const { tell } of followers.get(id) ?? []) tell(get(id).revision)
    return result
  }

  function record(
    entry: Held,
    next: Build,
    recorded: JournalRecord,
    direction: 'forwards' | 'backwards',
    key: string | null,
  ): void {
    const problem = nextStateProblem(next, recorded.patch, direction, entry.build)
    if (problem) throw new DomainProblem('invalid', problem.sentence, problem.field)
    builds.save(next, recorded.patch, direction, entry.revision + 1, recorded.at)
    journal.append(next.id, recorded, key)
    entry.build = next
    entry.revision += 1
    entry.seq = recorded.seq
    touched.add(next.id)
    observe(entry)
  }

  /** The first answer to a write that was made already, or null. Whoever had no answer has not seen the revision it made. */
  function answeredBefore(entry: Held, since: Since, key: string | null): CommandReply | null {
    const made = key === null ? undefined : since.find(written => written.key === key)?.record
    return made
      ? { revision: entry.revision - (entry.seq - made.seq), entry: withoutPatch(made), steps: entry.steps }
      : null
  }

  /** `believed`: the build as the one who writes sees it, null where that is as it is. */
  function carryOut(entry: Held, believed: Build | null, { command: wanted, note, key = null }: Wanted): CommandReply {
    const before = entry.build
    const carried = onTopOf(wanted, believed, before)
    if ('meetings' in carried)
      throw new DomainProblem(
        'stale',
        meetingSentence(before.name, carried.meetings),
        undefined,
        reply(entry),
        carried.meetings,
      )
    const { command } = carried
    const next = applyCommand(before, command)
    const patch = diffBuilds(before, next)
    if (isEmptyPatch(patch)) return { revision: entry.revision, entry: null, steps: entry.steps }
    requireProperties(patch)
    const recorded = write(entry, next, patch, describeCommand(command, before, patch), note, key)
    followLines(before.id, patch, 'forwards')
    return { revision: entry.revision, entry: withoutPatch(recorded), steps: entry.steps }
  }

  /** Writes the next state of a build with its journal entry. */
  function write(
    entry: Held,
    next: Build,
    patch: Patch,
    description: { title: string; gramsBeforeG: number | null; gramsAfterG: number | null },
    note: string,
    key: string | null = null,
  ): JournalRecord {
    const auwBeforeG = allUpWeightG(entry, entry.build)
    if (entry.steps.redo !== null) journal.overtake(next.id)
    const recorded: JournalRecord = {
      seq: entry.seq + 1,
      at: now(),
      kind: 'do',
      target: null,
      ...description,
      title: description.title.slice(0, 600),
      auwBeforeG,
      auwAfterG: allUpWeightG(entry, next),
      note,
      undone: 'in force',
      patch,
    }
    record(entry, next, recorded, 'forwards', key)
    entry.steps = { undo: recorded.title, redo: null }
    return recorded
  }

  function requireProperties(patch: Patch): void {
    for (const { before, after } of patch.lines) {
      const problem =
        after && after.properties !== before?.properties ? propertyProblem(after.slot, after.properties) : null
      if (problem) throw new DomainProblem('invalid', problem.message, `properties.${problem.key}`)
    }
  }

  /**
   * Lines whose grams or properties changed take their part along, and the part every other line that is still simply
   * that part. What was done to one piece alone (by difference: trimmed leads) stays with its line.
   */
  function followLines(id: string, patch: Patch, direction: 'forwards' | 'backwards'): void {
    for (const change of patch.lines) {
      const [from, to] = direction === 'forwards' ? [change.before, change.after] : [change.after, change.before]
      if (
        !from ||
        !to?.partId ||
        from.partId !== to.partId ||
        (from.mass === to.mass && from.properties === to.properties)
      )
        continue
      const alone = [from.mass, to.mass].some(mass => mass?.weighing?.method === 'by difference')
      const part = parts.one(to.partId)
      if (!part || alone || !sameAsPart(from, part)) continue
      const next: Part = { ...part, mass: to.mass, properties: to.properties, listing: to.listing ?? part.listing }
      parts.change(next, now(), `on ${get(id).build.name}`)
      followPart(part, next, to.id)
    }
  }

  /** Lines of all builds that were simply this part become it again after it changed, each build with an entry of its own. */
  function followPart(before: Part, after: Part, exceptLine: string | null = null): void {
    if (before.mass === after.mass && before.properties === after.properties) return
    for (const entry of all()) {
      const lines = entry.build.lines.filter(
        line => line.partId === before.id && line.id !== exceptLine && sameAsPart(line, before),
      )
      if (lines.length === 0) continue
      const next = applyCommand(entry.build, {
        type: 'lines.change',
        changes: lines.map(line => ({
          id: line.id,
          fields: { mass: after.mass, properties: after.properties, listing: after.listing ?? line.listing },
        })),
      })
      const patch = diffBuilds(entry.build, next)
      if (isEmptyPatch(patch)) continue
      write(
        entry,
        next,
        patch,
        { title: `${after.name}: follows the drawer`, gramsBeforeG: null, gramsAfterG: null },
        '',
      )
    }
  }

  const handOvers = handOverService({ builds, journal, parts, now, newId, get, all, requireRevision, write })

  function carryOutAll(id: string, seen: number, wanted: readonly Wanted[]): CommandsReply {
    const entry = get(id)
    const entries: JournalEntry[] = []
    let revision = entry.revision
    const untouched = sinceRevision(entry, seen).length === 0
    const asked = new Set<string>()
    /** Without keys of their own the writes of one request still belong together. */
    let origin: string | null = null
    for (const [n, one] of wanted.entries()) {
      const key = one.key ?? `${(origin ??= newId())}.${n}`
      // Where nobody has written since, those before it in the same request are all there is, and its own; else each is looked at anew.
      const since = untouched && !asked.has(key) ? [] : sinceRevision(entry, seen)
      asked.add(key)
      const done =
        answeredBefore(entry, since, key) ??
        carryOut(entry, believedBuild(entry.build, since, originOf(key)), { ...one, key })
      revision = done.revision
      if (done.entry) entries.push(done.entry)
    }
    return { revision, entries, steps: entry.steps }
  }
  function carryOutOne(id: string, seen: number, wanted: Wanted): CommandReply {
    const { revision, entries, steps } = carryOutAll(id, seen, [wanted])
    return { revision, entry: entries[0] ?? null, steps }
  }

  function replay(id: string, seen: number, kind: 'undo' | 'redo', key: string | null): CommandReply {
    const before = answeredBefore(get(id), sinceRevision(get(id), seen), key)
    if (before) return before
    requireRevision(get(id), seen)
    const target = kind === 'undo' ? journal.nextUndo(id) : journal.nextRedo(id)
    if (!target)
      throw new DomainProblem(
        'nothing-to-undo',
        kind === 'undo' ? 'There is nothing to take back.' : 'There is nothing to do again.',
      )
    const handed = parts.handOverOf(id, target.seq)
    const other = handed ? handOvers.otherSide(id, handed, kind) : null
    if (handed) handOvers.putParts(handed.fromBuild, kind === 'undo' ? handed.partsBefore : handed.partsAfter)
    if (other) replayOne(other.id, kind)
    return replayOne(id, kind, key)
  }

  function replayOne(id: string, kind: 'undo' | 'redo', key: string | null = null): CommandReply {
    const entry = get(id)
    const target = (kind === 'undo' ? journal.nextUndo(id) : journal.nextRedo(id))!
    const direction = kind === 'undo' ? 'backwards' : 'forwards'
    const next = applyPatch(entry.build, target.patch, direction)
    const recorded: JournalRecord = {
      seq: entry.seq + 1,
      at: now(),
      kind,
      target: target.seq,
      title: `${kind === 'undo' ? 'Took back' : 'Did again'}: ${target.title}`.slice(0, 600),
      gramsBeforeG: kind === 'undo' ? target.gramsAfterG : target.gramsBeforeG,
      gramsAfterG: kind === 'undo' ? target.gramsBeforeG : target.gramsAfterG,
      auwBeforeG: allUpWeightG(entry, entry.build),
      auwAfterG: allUpWeightG(entry, next),
      note: '',
      undone: 'in force',
      patch: target.patch,
    }
    journal.mark(id, target.seq, kind === 'undo' ? 'taken back' : 'in force')
    record(entry, next, recorded, direction, key)
    followLines(id, target.patch, direction)
    entry.steps = { undo: journal.nextUndo(id)?.title ?? null, redo: journal.nextRedo(id)?.title ?? null }
    return { revision: entry.revision, entry: withoutPatch(recorded), steps: entry.steps }
  }

  return {
    /** The writer is given after the service, since a lost commit must clear what the service holds. */
    useWriter(groupCommit: GroupCommit) {
      writer = groupCommit
    },
    forget() {
      held.clear()
      table = null
    },

    read: (id: string): BuildReply => reply(get(id)),
    command: (id: string, seen: number, command: Command, note: string, key: string | null = null) =>
      changeAnywhere(() => carryOutOne(id, seen, { command, note, key })),
    commands: (id: string, seen: number, commands: readonly Wanted[]) =>
      changeAnywhere(() => carryOutAll(id, seen, commands)),
    undo: (id: string, seen: number, key: string | null = null) => changeAnywhere(() => replay(id, seen, 'undo', key)),
    redo: (id: string, seen: number, key: string | null = null) => changeAnywhere(() => replay(id, seen, 'redo', key)),

    handOver: (id: string, seen: number, wanted: HandOverRequest) =>
      changeAnywhere(() => {
        const entry = handOvers.handOver(id, seen, wanted)
        const { revision, steps } = get(id)
        return { revision, entry: withoutPatch(entry), steps }
      }),
    changeAnywhere,
    followPart,
    /** Every line that is a part of the drawer. */
    placements: (): Placement[] =>
      all().flatMap(({ build }) =>
        build.lines
          .filter(line => line.partId !== null)
          .map(line => ({
            partId: line.partId!,
            buildId: build.id,
            buildName: build.name,
            lineId: line.id,
            quantity: line.quantity,
            state: line.state,
          })),
      ),

    shelf(): ShelfEntry[] {
      return this.shelfWithUnreadable().entries
    },
    /** Every build as it stands on the shelf; those that cannot be read with what is wrong. */
    shelfWithUnreadable(): { entries: ShelfEntry[]; unreadable: UnreadableBuild[] } {
      const cards = rules.cards()
      const current = honesty()
      const entries: ShelfEntry[] = []
      const bad: UnreadableBuild[] = []
      for (const id of builds.ids()) {
        try {
          entries.push(entryOf(get(id), cards, current))
        } catch (error) {
          if (dataProblemOf(error)) throw error
          const head = builds.headOf(id)
          bad.push({
            id,
            name: head?.name ?? id,
            archived: head?.archived === 1,
            sentence: error instanceof DomainProblem ? error.message : unreadable(id, error).message,
          })
        }
      }
      return { entries, unreadable: bad }
    },
    async report(id: string) {
      const { build, revision } = get(id)
      return {
        name: build.name,
        revision,
        rows: await reports.run({
          kind: 'rows',
          build,
          cards: rules.cards(),
          observations: all().flatMap(h => h.observations),
        }),
      }
    },
    async sheet(id: string, currency: string) {
      return reports.run({
        kind: 'sheet',
        build: get(id).build,
        cards: rules.cards(),
        observations: all().flatMap(h => h.observations),
        currency,
        reasons: journal.reasons(id),
      })
    },
    rawRows(id: string) {
      if (!builds.headOf(id))
        throw new DomainProblem(
          'not-found',
          'There is no such build here. It may have been made in another data folder.',
        )
      return builds.rawRows(id)
    },
    /** For a build that cannot be read: puts it away, brings it back, or takes its last entry back where that makes it readable. */
    rescue: (id: string, what: 'put away' | 'bring back' | 'take back') =>
      writer.write(() => {
        if (!builds.headOf(id))
          throw new DomainProblem(
            'not-found',
            'There is no such build here. It may have been made in another data folder.',
          )
        if (what === 'take back') takeBackUnreadable(id)
        else builds.setArchived(id, what === 'put away')
        held.delete(id)
        table = null
      }),
    /** Deletes a build for good. Only one that was put away; its parts lie in the drawer again. */
    remove: (id: string) =>
      changeAnywhere(() => {
        const head = builds.headOf(id)
        if (!head)
          throw new DomainProblem('not-found', 'There is no such build here. It may have been deleted already.')
        if (head.archived !== 1)
          throw new DomainProblem(
            'refused',
            `“${head.name}” is on the shelf. Put it away first, then it can be deleted for good.`,
          )
        builds.remove(id)
        held.delete(id)
        table = null
        const mine = followers.get(id) ?? new Set()
        followers.delete(id)
        setImmediate(() => {
          for (const follower of mine) follower.gone()
        })
      }),
    honesty,
    listings: (): ListingObservation[] => all().flatMap(h => h.observations),
    /** A page of the journal before an entry, newest first. */
    journal(id: string, before = Number.MAX_SAFE_INTEGER) {
      const { revision } = get(id)
      const entries = journal.entries(id, before, journalPage + 1)
      return { revision, entries: entries.slice(0, journalPage), earlier: entries.length > journalPage }
    },
    annotate: (id: string, seq: number, note: string) =>
      writer.write(() => {
        get(id)
        if (!journal.note(id, seq, note)) throw new DomainProblem('not-found', 'There is no such journal entry.')
      }),
    lineHistory: (id: string, lineId: string) => {
      const present = get(id).build.lines.find(line => line.id === lineId)?.mass?.versionId
      const gone = journal.slips(id, lineId)
      return builds
        .versions(id)
        .filter(
          version =>
            version.lineId === lineId && (version.mass.versionId === present || !gone.has(version.mass.versionId)),
        )
    },
    /** Tells of every change that is on disk; returns how to stop. */
    follow(id: string, tell: (revision: number) => void, gone: () => void = () => undefined): () => void {
      const mine = followers.get(id) ?? new Set()
      const follower = { tell, gone }
      followers.set(id, mine.add(follower))
      return () => {
        mine.delete(follower)
        if (mine.size === 0) followers.delete(id)
      }
    },
    exists: (id: string) => builds.headOf(id) !== null,
    /** Puts a whole build in, with its history when it has one, and whatever belongs to it (`also`): all of it or nothing. */
    insert: (
      build: Build,
      versions: readonly MassVersion[],
      records: readonly JournalRecord[],
      also: () => void = () => undefined,
    ) =>
      writer.write(() => {
        const at = now()
        const empty: Build = { ...build, lines: [], setups: [] }
        builds.insert(empty, at)
        builds.insertVersions(build.id, versions)
        builds.save(build, diffBuilds(empty, build), 'forwards', 1, at)
        for (const entry of records) journal.append(build.id, entry)
        also()
        held.delete(build.id)
        get(build.id)
        table = null
      }),
    wholeOf: (id: string) => ({
      build: get(id).build,
      massVersions: builds.versions(id),
      journal: journal.eachRecord(id),
    }),
    searchLines: (text: string) => builds.searchLines(text),
  }
}
export type BuildService = ReturnType<typeof buildService>

function meetingSentence(name: string, meetings: readonly MeetingWords[]): string {
  const { what, mine, theirs } = meetings[0]!
  const others = meetings.length > 1 ? ` And ${meetings.length - 1} more.` : ''
  return `“${name}” was changed in another window meanwhile. ${what}: you ${mine}; meanwhile ${theirs}.${others} Nothing of yours was written.`
}

function withoutPatch({ patch: _patch, ...entry }: JournalRecord): JournalEntry {
  return entry
}
