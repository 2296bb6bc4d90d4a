import { diffBuilds, type Command } from '../../core/changes/commands'
import type { Build } from '../../core/model/ledger'
import type { Part } from '../../core/parts/drawer'
import type { SheetWriting } from '../../shared/files/build-sheet'
import type { MassVersion } from '../../shared/schemas/build-file'
import type { HandOverRequest } from '../../shared/schemas/drawer'
import type { JournalRecord } from '../../shared/schemas/journal'
import type { BuildsRepository } from '../db/builds-repository'
import type { GroupCommit } from '../db/group-commit'
import type { EntriesWanted, JournalRepository } from '../db/journal-repository'
import type { PartsRepository } from '../db/parts-repository'
import { DomainProblem } from '../problems'
import type { BuildCache } from './builds/build-cache'
import { BuildCommands, type Wanted } from './builds/build-commands'
import { BuildQueries } from './builds/build-queries'
import { BuildHistory } from './builds/build-history'
import { BuildRescue, type Rescue } from './builds/build-rescue'
import { BuildWrites, type Writing } from './builds/build-writes'
import { DrawerFollowing } from './builds/drawer-following'
import { Followers } from './builds/followers'
import { HandOvers } from './builds/hand-over'
import type { FlightService } from './flight-service'
import type { ReportRunner } from './report-runner'
import type { RuleService } from './rule-service'

export type { Wanted } from './builds/build-commands'
export type { Writing } from './builds/build-writes'

export interface BuildDependencies {
  readonly builds: BuildsRepository
  readonly journal: JournalRepository
  readonly parts: PartsRepository
  readonly rules: RuleService
  readonly reports: ReportRunner
  readonly cache: BuildCache
  readonly writer: GroupCommit
  readonly now: () => string
  readonly newId: () => string
  readonly flights: Pick<FlightService, 'lessonsOf' | 'keptOf' | 'dropBuild'>
}

/** The use cases of builds: read, change, undo, redo, report. */
export function buildService(has: BuildDependencies) {
  const { builds, journal, cache, writer, now } = has
  const followers = new Followers()
  const writes = new BuildWrites({ ...has, followers })
  const drawer = new DrawerFollowing(has.parts, cache, writes, now)
  const handOvers = new HandOvers({ ...has, writes })
  const commands = new BuildCommands({ ...has, writes, drawer, handOvers })
  const queries = new BuildQueries(has)
  const rescue = new BuildRescue({ ...has, followers })
  const history = new BuildHistory(has)

  return {
    read: (id: string) => queries.read(id),
    exists: (id: string) => queries.exists(id),
    shelf: () => queries.shelfWithUnreadable().entries,
    shelfWithUnreadable: () => queries.shelfWithUnreadable(),
    shelfInTurns: () => queries.shelfInTurns(),
    placements: () => queries.placements(),
    field: () => queries.field(),
    sheet: async (id: string, writing: SheetWriting, kind: 'sheet' | 'page', seq: number | null) =>
      queries.sheet(id, writing, kind, seq === null ? null : await history.stateAt(id, seq)),
    rawRows: (id: string) => queries.rawRows(id),
    journal: (id: string, wanted?: EntriesWanted) => queries.journal(id, wanted),
    marks: (id: string) => queries.marks(id),
    stateAt: (id: string, seq: number) => history.stateAt(id, seq),
    weights: (id: string) => history.weights(id),
    touched: (id: string, from: number, to: number) => history.touched(id, from, to),
    lineHistory: (id: string, lineId: string) => queries.lineHistory(id, lineId),
    everyBuild: () => cache.all().map(({ build }) => build),
    versions: (id: string) => builds.versions(id),
    honesty: () => cache.honesty(),
    listings: () => cache.listings(),
    report: (id: string) => queries.report(id),
    wholeOf: (id: string) => queries.wholeOf(id),
    searchLines: builds.searchLines,
    follow: followers.follow.bind(followers),

    /** Runs a write that may change several builds, all or none. */
    changeAnywhere: <T>(work: (writing: Writing) => T) => writes.run(work),
    command: (id: string, seen: number, command: Command, note: string, key: string | null = null) =>
      writes.run(writing => commands.carryOutOne(writing, id, seen, { command, note, key })),
    commands: (id: string, seen: number, wanted: readonly Wanted[]) =>
      writes.run(writing => commands.carryOutAll(writing, id, seen, wanted)),
    undo: (id: string, seen: number, key: string | null = null) =>
      writes.run(writing => commands.replay(writing, id, seen, 'undo', key)),
    redo: (id: string, seen: number, key: string | null = null) =>
      writes.run(writing => commands.replay(writing, id, seen, 'redo', key)),
    handOver: (id: string, seen: number, wanted: HandOverRequest) =>
      writes.run(writing => commands.handOver(writing, id, seen, wanted)),
    followPart: (writing: Writing, before: Part, after: Part) => drawer.followPart(writing, before, after),
    annotate: (id: string, seq: number, note: string) =>
      writer.write(() => {
        writes.room.takeNote(cache.get(id), note)
        if (!journal.note(id, seq, note)) throw new DomainProblem('not-found', 'There is no such journal entry.')
      }),
    /** Gives a moment of the journal a name of the builder’s own; an empty one takes it away. */
    mark: (id: string, seq: number, mark: string) =>
      writer.write(() => {
        writes.room.takeNote(cache.get(id), mark)
        if (!journal.mark(id, seq, mark)) throw new DomainProblem('not-found', 'There is no such journal entry.')
      }),
    /** Makes a build, or some of its lines, what it was after an entry of its journal. */
    goBack: async (id: string, seen: number, seq: number, lineIds: readonly string[] | null, key: string | null) => {
      const { build: then, entry } = await history.stateAt(id, seq)
      const when = entry ? `after “${entry.title.slice(0, 200)}”` : 'at its beginning'
      return writes.run(writing => commands.goBack(writing, id, seen, { then, when, lineIds, key }))
    },

    rescue: (id: string, what: Rescue) =>
      writer.write(() => {
        history.forget(id)
        rescue.rescue(id, what)
      }),
    remove: (id: string) =>
      writes.run(() => {
        rescue.remove(id)
        history.forget(id)
        has.flights.dropBuild(id)
      }),
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
        const patch = diffBuilds(empty, build)
        builds.keepVersions(build.id, patch, 'forwards', { revision: 1, madeAt: at })
        builds.save(build, patch, 'forwards')
        for (const record of records) journal.appendRecord(build.id, record)
        also()
        cache.drop(build.id)
        history.forget(build.id)
        cache.get(build.id)
      }),
  }
}
export type BuildService = ReturnType<typeof buildService>
