import { applyCommand, applyPatch, CommandRefused, describeCommand, diffBuilds, isEmptyPatch, type Command } from '../../core/commands'
import type { Build } from '../../core/ledger'
import { HonestyTable, listingObservations, type ListingObservation } from '../../core/listings'
import { defaultLoadout, LineEstimates, loadoutMasses } from '../../core/loadout'
import type { RuleCard } from '../../core/rules'
import { reportRows, shelfEntry, type ShelfEntry } from '../../core/report'
import type { BuildReply, CommandReply, CommandsReply, Steps } from '../../shared/schemas/api'
import type { JournalEntry, JournalRecord } from '../../shared/schemas/journal'
import type { MassVersion } from '../../shared/schemas/build-file'
import type { BuildsRepository } from '../db/builds-repository'
import type { GroupCommit } from '../db/group-commit'
import type { JournalRepository } from '../db/journal-repository'
import type { RuleService } from './rule-service'
import { DomainProblem } from '../problems'

/** A build as the server holds it in memory: the database is the truth, this is its copy. */
interface Held {
  build: Build
  revision: number
  observations: ListingObservation[]
  seq: number
  steps: Steps
  estimates: LineEstimates
  /** The shelf entry made last, and what it was made of. */
  shelf: { build: Build, cards: readonly RuleCard[], honesty: HonestyTable, entry: ShelfEntry } | null
}

interface Parts { builds: BuildsRepository, journal: JournalRepository, rules: RuleService, now: () => string }

/** The use cases of builds: read, change, undo, redo, report. One process owns the database, so builds are held in memory. */
export function buildService({ builds, journal, rules, now }: Parts) {
  const held = new Map<string, Held>()
  let allLoaded = false
  const followers = new Map<string, Set<(revision: number) => void>>()
  let writer: GroupCommit

  function hold(id: string, build: Build, revision: number): Held {
    const fresh: Held = {
      build, revision, observations: listingObservations(build.lines), seq: journal.lastSeq(id),
      steps: { undo: journal.nextUndo(id)?.title ?? null, redo: journal.nextRedo(id)?.title ?? null },
      estimates: new LineEstimates(new HonestyTable()), shelf: null,
    }
    held.set(id, fresh)
    return fresh
  }

  function get(id: string): Held {
    const known = held.get(id)
    if (known) return known
    const loaded = builds.load(id)
    if (!loaded) throw new DomainProblem('not-found', 'There is no such build here. It may have been made in another data folder.')
    return hold(id, loaded.build, loaded.revision)
  }

  function all(): Held[] {
    const ids = builds.ids()
    if (!allLoaded) for (const id of ids) get(id)
    allLoaded = true
    return ids.map(get)
  }

  function observationsElsewhere(id: string): ListingObservation[] {
    return all().filter(h => h.build.id !== id).flatMap(h => h.observations)
  }

  /** All observations as one table; made anew only when some build's observations changed. */
  let table: HonestyTable | null = null
  function honesty(): HonestyTable {
    table ??= new HonestyTable(all().flatMap(h => h.observations))
    return table
  }

  function observe(entry: Held): void {
    const observations = listingObservations(entry.build.lines)
    const same = observations.length === entry.observations.length
      && observations.every((o, i) => o.ratio === entry.observations[i]!.ratio && o.product === entry.observations[i]!.product && o.slot === entry.observations[i]!.slot)
    if (same) return
    entry.observations = observations
    table = null
  }

  function allUpWeightG(entry: Held, build: Build): number {
    entry.estimates = entry.estimates.for(build, honesty())
    if (build.reference) return build.reference.massG
    return loadoutMasses(build, [defaultLoadout(build)], entry.estimates)[0]!.massG
  }

  function reply(entry: Held): BuildReply {
    return { build: entry.build, revision: entry.revision, steps: entry.steps, honestyElsewhere: observationsElsewhere(entry.build.id) }
  }

  function requireRevision(entry: Held, seen: number): void {
    if (seen === entry.revision) return
    throw new DomainProblem('stale', `“${entry.build.name}” was changed in another window since you opened it. Nothing of yours was written.`, undefined, reply(entry))
  }

  /** Runs a change; forgets the held copy when it fails, since it may be half made. */
  async function change<T extends { revision: number }>(id: string, work: () => T): Promise<T> {
    const before = held.get(id)?.revision
    const reply = await writer.write(() => {
      try { return work() }
      catch (error) {
        if (error instanceof CommandRefused) throw new DomainProblem('refused', error.message, error.field)
        if (!(error instanceof DomainProblem)) held.delete(id)
        throw error
      }
    })
    if (reply.revision !== before) for (const tell of followers.get(id) ?? []) tell(reply.revision)
    return reply
  }

  function record(entry: Held, next: Build, recorded: JournalRecord, direction: 'forwards' | 'backwards'): void {
    builds.save(next, recorded.patch, direction, entry.revision + 1, recorded.at)
    journal.append(next.id, recorded)
    entry.build = next
    entry.revision += 1
    entry.seq = recorded.seq
    observe(entry)
  }

  function carryOut(id: string, seen: number, command: Command, note: string): CommandReply {
    const entry = get(id)
    requireRevision(entry, seen)
    const before = entry.build
    const next = applyCommand(before, command)
    const patch = diffBuilds(before, next)
    if (isEmptyPatch(patch)) return { revision: entry.revision, entry: null, steps: entry.steps }
    const auwBeforeG = allUpWeightG(entry, before)
    const description = describeCommand(command, before, patch)
    if (entry.steps.redo !== null) journal.overtake(id)
    const recorded: JournalRecord = {
      seq: entry.seq + 1, at: now(), kind: 'do', target: null, ...description, title: description.title.slice(0, 600),
      auwBeforeG, auwAfterG: allUpWeightG(entry, next), note, undone: 'in force', patch,
    }
    record(entry, next, recorded, 'forwards')
    entry.steps = { undo: recorded.title, redo: null }
    return { revision: entry.revision, entry: withoutPatch(recorded), steps: entry.steps }
  }

  /** Several commands in one commit; when one is refused, none of them was. */
  function carryOutAll(id: string, seen: number, commands: readonly { command: Command, note: string }[]): CommandsReply {
    try {
      const entries: JournalEntry[] = []
      let revision = seen
      for (const { command, note } of commands) {
        const reply = carryOut(id, revision, command, note)
        revision = reply.revision
        if (reply.entry) entries.push(reply.entry)
      }
      return { revision, entries, steps: get(id).steps }
    }
    catch (error) {
      held.delete(id)
      table = null
      throw error
    }
  }

  function replay(id: string, seen: number, kind: 'undo' | 'redo'): CommandReply {
    const entry = get(id)
    requireRevision(entry, seen)
    const target = kind === 'undo' ? journal.nextUndo(id) : journal.nextRedo(id)
    if (!target) throw new DomainProblem('nothing-to-undo', kind === 'undo' ? 'There is nothing to take back.' : 'There is nothing to do again.')
    const direction = kind === 'undo' ? 'backwards' : 'forwards'
    const next = applyPatch(entry.build, target.patch, direction)
    const recorded: JournalRecord = {
      seq: entry.seq + 1, at: now(), kind, target: target.seq, title: `${kind === 'undo' ? 'Took back' : 'Did again'}: ${target.title}`.slice(0, 600),
      gramsBeforeG: kind === 'undo' ? target.gramsAfterG : target.gramsBeforeG, gramsAfterG: kind === 'undo' ? target.gramsBeforeG : target.gramsAfterG,
      auwBeforeG: allUpWeightG(entry, entry.build), auwAfterG: allUpWeightG(entry, next), note: '', undone: 'in force', patch: target.patch,
    }
    journal.mark(id, target.seq, kind === 'undo' ? 'taken back' : 'in force')
    record(entry, next, recorded, direction)
    entry.steps = { undo: journal.nextUndo(id)?.title ?? null, redo: journal.nextRedo(id)?.title ?? null }
    return { revision: entry.revision, entry: withoutPatch(recorded), steps: entry.steps }
  }

  return {
    /** The writer is given after the service, since a lost commit must clear what the service holds. */
    useWriter(groupCommit: GroupCommit) { writer = groupCommit },
    forget() { held.clear(); table = null; allLoaded = false },

    read: (id: string): BuildReply => reply(get(id)),
    command: (id: string, seen: number, command: Command, note: string) => change(id, () => carryOut(id, seen, command, note)),
    commands: (id: string, seen: number, commands: readonly { command: Command, note: string }[]) => change(id, () => carryOutAll(id, seen, commands)),
    undo: (id: string, seen: number) => change(id, () => replay(id, seen, 'undo')),
    redo: (id: string, seen: number) => change(id, () => replay(id, seen, 'redo')),

    shelf(): ShelfEntry[] {
      const cards = rules.cards()
      const current = honesty()
      return all().map((h) => {
        if (h.shelf?.build !== h.build || h.shelf.cards !== cards || h.shelf.honesty !== current) {
          h.shelf = { build: h.build, cards, honesty: current, entry: shelfEntry(h.build, cards, current) }
        }
        return h.shelf.entry
      })
    },
    report(id: string) {
      const entry = get(id)
      return { name: entry.build.name, revision: entry.revision, rows: reportRows(entry.build, rules.cards(), honesty()) }
    },
    honesty,
    listings: (): ListingObservation[] => all().flatMap(h => h.observations),
    journal: (id: string) => ({ revision: get(id).revision, entries: journal.entries(id) }),
    annotate: (id: string, seq: number, note: string) => writer.write(() => {
      get(id)
      if (!journal.note(id, seq, note)) throw new DomainProblem('not-found', 'There is no such journal entry.')
    }),
    lineHistory: (id: string, lineId: string) => {
      get(id)
      return builds.versions(id).filter(version => version.lineId === lineId)
    },
    /** Tells of every change that is on disk; returns how to stop. */
    follow(id: string, tell: (revision: number) => void): () => void {
      const mine = followers.get(id) ?? new Set()
      followers.set(id, mine.add(tell))
      return () => {
        mine.delete(tell)
        if (mine.size === 0) followers.delete(id)
      }
    },
    exists: (id: string) => builds.load(id) !== null,
    /** Puts a whole build in, with its history when it has one. */
    insert: (build: Build, versions: readonly MassVersion[], records: readonly JournalRecord[]) => writer.write(() => {
      const at = now()
      const empty: Build = { ...build, lines: [], setups: [] }
      builds.insert(empty, at)
      builds.insertVersions(build.id, versions)
      builds.save(build, diffBuilds(empty, build), 'forwards', 1, at)
      for (const entry of records) journal.append(build.id, entry)
      held.delete(build.id)
      get(build.id)
      table = null
    }),
    wholeOf: (id: string) => ({ build: get(id).build, massVersions: builds.versions(id), journal: journal.records(id) }),
    searchLines: (text: string) => builds.searchLines(text),
  }
}
export type BuildService = ReturnType<typeof buildService>

function withoutPatch({ patch: _patch, ...entry }: JournalRecord): JournalEntry {
  return entry
}
