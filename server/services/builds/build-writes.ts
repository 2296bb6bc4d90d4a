import {
  applyPatch,
  CommandRefused,
  diffBuilds,
  keptPatch,
  nextStateProblem,
  topicOf,
  wholePatch,
  type Description,
  type Direction,
  type KeptPatch,
  type Patch,
} from '../../../core/changes/commands'
import type { Build } from '../../../core/model/ledger'
import type { ToldEntry } from '../../../shared/schemas/journal'
import type { BuildsRepository } from '../../db/builds-repository'
import type { GroupCommit } from '../../db/group-commit'
import type { JournalRepository } from '../../db/journal-repository'
import { DomainProblem } from '../../problems'
import type { BuildCache } from './build-cache'
import type { Followers } from './followers'
import type { HeldBuild } from './held-build'
import { RoomInFile } from './room-in-file'

/** What one write has made of a build so far: what it was before, and its change where it is a single one. */
interface Touched {
  readonly entry: HeldBuild
  readonly before: Build
  readonly only: { readonly patch: KeptPatch; readonly direction: Direction } | null
}

/** One write that is being made: when, and the builds it has changed so far. Given to whatever changes one. */
export interface Writing {
  readonly at: string
  readonly touched: Map<string, Touched>
}

/** What was written into the journal: the entry as it is told, and what it changed. */
export interface Recorded {
  readonly told: ToldEntry
  readonly patch: Patch
}

/** The most letters a title of the journal has. */
const mostLetters = 600

export interface WriteDependencies {
  readonly builds: BuildsRepository
  readonly journal: JournalRepository
  readonly cache: BuildCache
  readonly writer: GroupCommit
  readonly followers: Followers
  readonly now: () => string
}

/** Changes of builds, each with its entry in the journal. */
export class BuildWrites {
  readonly room: RoomInFile

  constructor(private readonly has: WriteDependencies) {
    this.room = new RoomInFile(has.builds)
  }

  /**
   * Runs a write that may change several builds; forgets the held copies of those it had changed when it fails. Their
   * followers are told once it is on disk.
   */
  async run<T>(work: (writing: Writing) => T): Promise<T> {
    const { writer, cache, followers, now } = this.has
    let touched: Writing['touched'] = new Map()
    const result = await writer.write(() => {
      touched = new Map()
      try {
        const done = work({ at: now(), touched })
        for (const change of touched.values()) this.saveRows(change)
        return done
      } catch (error) {
        for (const id of touched.keys()) cache.drop(id)
        if (error instanceof CommandRefused) throw new DomainProblem('refused', error.message, error.field)
        throw error
      }
    })
    for (const id of touched.keys()) followers.tell(id, cache.get(id).revision)
    return result
  }

  /** Writes the next state of a build with its entry in the journal. */
  write(
    writing: Writing,
    entry: HeldBuild,
    next: Build,
    patch: Patch,
    description: Description,
    { note = '', key = null }: { readonly note?: string; readonly key?: string | null } = {},
  ): Recorded {
    const { journal, cache } = this.has
    const auwBeforeG = cache.allUpWeightG(entry, entry.build)
    if (entry.steps.redo !== null) journal.overtake(next.id)
    const told: ToldEntry = {
      seq: entry.seq + 1,
      at: writing.at,
      kind: 'do',
      target: null,
      ...description,
      title: description.title.slice(0, mostLetters),
      auwBeforeG,
      auwAfterG: cache.allUpWeightG(entry, next),
      note,
      undone: 'in force',
      mark: '',
      topic: topicOf(description, patch),
    }
    this.record(writing, entry, next, { told, patch, kept: keptPatch(patch) }, 'forwards', key)
    entry.steps = { undo: told.title, redo: null }
    return { told, patch }
  }

  /** Takes the last change of a build that is in force back, or does the last one that was taken back again. */
  replay(writing: Writing, entry: HeldBuild, kind: 'undo' | 'redo', key: string | null): Recorded {
    const { journal, cache } = this.has
    const { id } = entry.build
    const target = (kind === 'undo' ? journal.nextUndo(id) : journal.nextRedo(id))!
    const isUndo = kind === 'undo'
    const direction = directionOf(kind)
    const next = applyPatch(entry.build, target.patch, direction)
    const grams = {
      gramsBeforeG: isUndo ? target.gramsAfterG : target.gramsBeforeG,
      gramsAfterG: isUndo ? target.gramsBeforeG : target.gramsAfterG,
    }
    const told: ToldEntry = {
      seq: entry.seq + 1,
      at: writing.at,
      kind,
      target: target.seq,
      title: `${isUndo ? 'Took back' : 'Did again'}: ${target.title}`.slice(0, mostLetters),
      ...grams,
      auwBeforeG: cache.allUpWeightG(entry, entry.build),
      auwAfterG: cache.allUpWeightG(entry, next),
      note: '',
      undone: 'in force',
      mark: '',
      topic: topicOf(grams, target.patch),
    }
    const recorded = { told, patch: wholePatch(target.patch, entry.build), kept: target.patch }
    journal.stands(id, target.seq, isUndo ? 'taken back' : 'in force')
    this.record(writing, entry, next, recorded, direction, key)
    entry.steps = cache.stepsOf(id)
    return recorded
  }

  private record(
    writing: Writing,
    entry: HeldBuild,
    next: Build,
    { told, patch, kept }: Recorded & { readonly kept: KeptPatch },
    direction: Direction,
    key: string | null,
  ): void {
    const { builds, journal, cache } = this.has
    const problem = nextStateProblem(next, patch, direction, entry.build)
    if (problem) throw new DomainProblem('invalid', problem.sentence, problem.field)
    const patchText = JSON.stringify(kept)
    this.room.takeEntry(entry, told, patchText)
    builds.keepVersions(next.id, kept, direction, { revision: entry.revision + 1, madeAt: told.at })
    journal.append(next.id, told, patchText, key)
    const earlier = writing.touched.get(next.id)
    writing.touched.set(next.id, {
      entry,
      before: earlier?.before ?? entry.build,
      only: earlier ? null : { patch: kept, direction },
    })
    cache.replace(entry, next, told.seq)
  }

  /** The rows of a build are written once a write, however many changes it holds: as what it has become. */
  private saveRows({ entry: { build, revision }, before, only }: Touched): void {
    const { builds } = this.has
    const { patch, direction } = only ?? { patch: diffBuilds(before, build), direction: 'forwards' as const }
    builds.save(build, patch, direction)
    builds.setRevision(build.id, revision)
  }
}

export const directionOf = (kind: 'undo' | 'redo'): Direction => (kind === 'undo' ? 'backwards' : 'forwards')
