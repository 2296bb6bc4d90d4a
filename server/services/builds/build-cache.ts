import { z } from 'zod'
import { weighedElsewhere, type Build, type Line, type LoadoutChoice } from '../../../core/model/ledger'
import { ListingBiasTable, listingObservations, type ListingObservation } from '../../../core/mass/listings'
import { defaultLoadout, loadoutMasses, loadoutMeanG } from '../../../core/mass/loadout'
import { shelfEntry, type ShelfEntry } from '../../../core/deciding/shelf'
import type { RuleCard } from '../../../core/limits/rules'
import { shelfEntrySchema, type BuildReply } from '../../../shared/schemas/api'
import { firstProblem } from '../../../shared/schemas/build-file'
import type { BuildsRepository } from '../../db/builds-repository'
import { dataProblemOf } from '../../db/data-problem'
import type { JournalRepository } from '../../db/journal-repository'
import { DomainProblem } from '../../problems'
import { heldBuild, type HeldBuild } from './held-build'

const notHere = 'There is no such build here. It may have been made in another data folder.'
export const noSuchBuild = () => new DomainProblem('not-found', notHere)

/** The builds as they are held in memory, and what is worked out over all of them. One process owns the database. */
export class BuildCache {
  private readonly held = new Map<string, HeldBuild>()
  /** What all listings are worth; made anew only when some build's weighed parts changed. */
  private table: ListingBiasTable | null = null

  constructor(
    private readonly builds: BuildsRepository,
    private readonly journal: JournalRepository,
  ) {}

  get(id: string): HeldBuild {
    const known = this.held.get(id)
    if (known) return known
    const loaded = this.load(id)
    if (!loaded) throw noSuchBuild()
    const fresh = heldBuild(loaded.build, loaded.revision, this.journal.lastSeq(id), this.stepsOf(id))
    this.held.set(id, fresh)
    return fresh
  }

  /** What would be taken back or done again. */
  stepsOf(id: string) {
    return { undo: this.journal.nextUndo(id)?.title ?? null, redo: this.journal.nextRedo(id)?.title ?? null }
  }

  /** A build from the database. One that cannot be read says so itself, and takes nobody along. */
  load(id: string): { build: Build; revision: number } | null {
    try {
      return this.builds.load(id)
    } catch (error) {
      if (dataProblemOf(error)) throw error
      throw this.unreadable(id, error)
    }
  }

  unreadable(id: string, error: unknown): DomainProblem {
    const why =
      error instanceof z.ZodError
        ? firstProblem(error).sentence
        : error instanceof Error
          ? error.message
          : String(error)
    const name = this.builds.headOf(id)?.name ?? id
    return new DomainProblem('unreadable', `“${name}” cannot be read: ${why.slice(0, 200)}`)
  }

  /** Every build that can be read. */
  all(): HeldBuild[] {
    return this.builds.ids().flatMap(id => {
      try {
        return [this.get(id)]
      } catch (error) {
        if (error instanceof DomainProblem && error.code === 'unreadable') return []
        throw error
      }
    })
  }

  /** Forgets a build, or all of them: they are read again when they are asked for. */
  drop(id: string): void {
    this.held.delete(id)
    this.table = null
  }
  forget(): void {
    this.held.clear()
    this.table = null
  }

  /** A build is another one now: what its weighed parts say of listings may have changed. */
  replace(entry: HeldBuild, build: Build, seq: number): void {
    const before = entry.build.lines
    entry.build = build
    entry.revision += 1
    entry.seq = seq
    if (!mayTellOfListings(before, build.lines)) return
    const observations = listingObservations(build.lines)
    if (sayTheSame(observations, entry.observations)) return
    entry.observations = observations
    this.table = null
  }

  listings(): ListingObservation[] {
    return this.all().flatMap(entry => entry.observations)
  }
  honesty(): ListingBiasTable {
    return (this.table ??= new ListingBiasTable(this.listings()))
  }

  /** All-up weight of a state of a held build, in what it is flown as, grams. */
  allUpWeightG(entry: HeldBuild, build: Build): number {
    if (build.reference) return build.reference.massG
    const honesty = this.honesty()
    if (entry.allUp?.build !== build || entry.allUp.honesty !== honesty) {
      const flown = defaultLoadout(build)
      const massG = loadoutMeanG(build, flown, honesty) ?? this.conditionedG(entry, build, flown, honesty)
      entry.allUp = { build, honesty, massG }
    }
    return entry.allUp.massG
  }

  /** Mean of a loadout that weighings of several lines together may move, grams. */
  private conditionedG(entry: HeldBuild, build: Build, flown: LoadoutChoice, honesty: ListingBiasTable): number {
    entry.estimates = entry.estimates.for(build, honesty)
    return loadoutMasses(build, [flown], entry.estimates)[0]!.massG
  }

  shelfEntryOf(entry: HeldBuild, cards: readonly RuleCard[]): ShelfEntry {
    const honesty = this.honesty()
    const { shelf, build } = entry
    if (shelf?.build === build && shelf.cards === cards && shelf.honesty === honesty) return shelf.entry
    const made = shelfEntry(build, cards, honesty)
    const parsed = shelfEntrySchema.safeParse(made)
    if (!parsed.success) throw parsed.error
    entry.shelf = { build, cards, honesty, entry: made }
    return made
  }

  /** A build with all that a page needs of it. */
  reply({ build, revision, steps }: HeldBuild): BuildReply {
    const others = this.all().filter(entry => entry.build.id !== build.id)
    return {
      build,
      revision,
      steps,
      honestyElsewhere: others.flatMap(entry => entry.observations),
      weighedElsewhere: weighedElsewhere(build, this.earlierThan(build.id)),
    }
  }

  /** Builds made before one, in the order they were made. */
  private earlierThan(id: string): Build[] {
    const ids = this.builds.ids()
    const before = new Set(ids.slice(0, ids.indexOf(id)))
    return this.all().flatMap(({ build }) => (before.has(build.id) ? [build] : []))
  }
}

/** Whether lines can say anything new of listings: only those with one ever do, and most edits touch none. */
function mayTellOfListings(before: readonly Line[], after: readonly Line[]): boolean {
  if (before === after) return false
  if (before.length !== after.length) return true
  return after.some((line, i) => line !== before[i] && (line.listing !== null || before[i]!.listing !== null))
}

function sayTheSame(now: readonly ListingObservation[], before: readonly ListingObservation[]): boolean {
  const same = (a: ListingObservation, b: ListingObservation) =>
    a.ratio === b.ratio && a.product === b.product && a.slot === b.slot
  return now.length === before.length && now.every((one, i) => same(one, before[i]!))
}
