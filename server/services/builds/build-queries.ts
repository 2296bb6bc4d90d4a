import { setImmediate as turn } from 'node:timers/promises'
import type { Placement } from '../../../core/parts/drawer'
import type { SheetWriting } from '../../../shared/files/build-sheet'
import type { Build } from '../../../core/model/ledger'
import type { BuildReply, ShelvedBuild, UnreadableBuild } from '../../../shared/schemas/api'
import type { BuildsRepository } from '../../db/builds-repository'
import { dataProblemOf } from '../../db/data-problem'
import type { EntriesWanted, JournalRepository } from '../../db/journal-repository'
import { localDay } from '../../../shared/utils/local-day'
import { DomainProblem } from '../../problems'
import { estimatesOf } from '../../../core/mass/loadout'
import { listingObservations } from '../../../core/mass/listings'
import type { StateThen } from './build-history'
import { fieldBuild, type FieldBuild } from '../../../core/making/field'
import type { FlightService } from '../flight-service'
import type { ReportRunner } from '../report-runner'
import type { RuleService } from '../rule-service'
import { noSuchBuild, type BuildCache } from './build-cache'

interface Dependencies {
  readonly builds: BuildsRepository
  readonly journal: JournalRepository
  readonly cache: BuildCache
  readonly rules: RuleService
  readonly reports: ReportRunner
  readonly flights: Pick<FlightService, 'lessonsOf' | 'keptOf'>
}

/** How many entries of a journal are told at once. */
const journalPage = 200
/** For so long the shelf keeps others waiting at once, ms. Our choice: less than it takes to send a file. */
const mostAtOnceMs = 1
/** The most marks that are told. */
const mostMarks = 500

/** What can be asked of builds without changing them. */
export class BuildQueries {
  constructor(private readonly has: Dependencies) {}

  read(id: string): BuildReply {
    return this.has.cache.reply(this.has.cache.get(id))
  }
  exists(id: string): boolean {
    return this.has.builds.headOf(id) !== null
  }

  /** Every line that is a part of the drawer. */
  placements(): Placement[] {
    return this.has.cache
      .all()
      .flatMap(({ build }) =>
        build.lines.flatMap(({ id: lineId, partId, quantity, state }) =>
          partId === null ? [] : [{ partId, buildId: build.id, buildName: build.name, lineId, quantity, state }],
        ),
      )
  }

  /** Every build as it stands on the shelf; those that cannot be read with what is wrong. */
  shelfWithUnreadable(): { entries: ShelvedBuild[]; unreadable: UnreadableBuild[] } {
    const { builds, cache, rules, journal } = this.has
    const cards = rules.cards()
    const sharing = partsShared(cache.all().map(({ build }) => build))
    const entries: ShelvedBuild[] = []
    const unreadable: UnreadableBuild[] = []
    for (const id of builds.ids()) {
      try {
        const entry = cache.shelfEntryOf(cache.get(id), cards)
        entries.push({ ...entry, changedAt: journal.lastAt(id), shares: sharing.get(id) ?? [] })
      } catch (error) {
        if (dataProblemOf(error)) throw error
        const { message } = error instanceof DomainProblem ? error : cache.unreadable(id, error)
        const head = builds.headOf(id)
        unreadable.push({ id, name: head?.name ?? id, archived: head?.archived === 1, sentence: message })
      }
    }
    return { entries, unreadable }
  }

  /**
   * The same, worked out build by build: others are answered in between, since whoever asks for the shelf first waits for
   * the page's own files just as well.
   */
  async shelfInTurns() {
    const { builds, cache, rules } = this.has
    const ids = builds.ids()
    // What one says of listings counts for all: each is looked at once all are there.
    for (const look of [
      (id: string) => void cache.get(id),
      (id: string) => void cache.shelfEntryOf(cache.get(id), rules.cards()),
    ]) {
      let since = performance.now()
      for (const id of ids) {
        try {
          look(id)
        } catch {
          // What is wrong with it is said below.
        }
        if (performance.now() - since < mostAtOnceMs) continue
        await turn()
        since = performance.now()
      }
    }
    return this.shelfWithUnreadable()
  }

  async report(id: string) {
    const { cache, rules, reports, flights } = this.has
    const { build, revision } = cache.get(id)
    const rows = await reports.run({
      kind: 'rows',
      build,
      cards: rules.cards(),
      observations: cache.listings(),
      lessons: flights.lessonsOf(id),
    })
    return { name: build.name, revision, rows }
  }

  /**
   * The build sheet as Markdown, or as a page by itself; of another day by what was known then. Its minutes rest on no
   * flights: those of today were not flown yet.
   */
  sheet(id: string, writing: SheetWriting, kind: 'sheet' | 'page', then: StateThen | null) {
    const { cache, rules, reports, journal, flights } = this.has
    const now = cache.get(id).build
    const build = then ? { ...then.build, name: `${now.name}, as of ${localDay(then.at)}` } : now
    const isKnown = ({ at }: { readonly at: string }) => then === null || at <= then.at
    const observations = then ? [...then.honestyElsewhere, ...listingObservations(build.lines)] : cache.listings()
    const crashes = flights
      .keptOf(id)
      .findings.filter(({ lesson }) => lesson.trim() !== '')
      .map(({ foundAt: at, kind: what, lesson }) => ({ at, kind: what, lesson }))
      .filter(isKnown)
    const [cards, reasons] = [rules.cards(), journal.reasons(id).filter(isKnown)]
    const lessons = then ? null : flights.lessonsOf(id)
    return reports.run({ kind, build, cards, observations, writing, reasons, lessons, crashes })
  }

  /** Every build on the shelf as it is taken to the field; one that cannot be read is left at home. */
  field(): FieldBuild[] {
    const { cache, rules, flights } = this.has
    const cards = rules.cards()
    return cache
      .all()
      .filter(({ build }) => !build.archived && !build.reference)
      .map(({ build, revision }) => {
        const { flights: flown, findings } = flights.keptOf(build.id)
        const lessons = flights.lessonsOf(build.id)
        const estimates = estimatesOf(build, cache.honesty())
        return fieldBuild({ build, revision, estimates, cards, lessons, flights: flown.length, findings })
      })
  }

  /** The rows of a build as they lie there, for one that cannot be read. */
  rawRows(id: string) {
    if (!this.exists(id)) throw noSuchBuild()
    return this.has.builds.rawRows(id)
  }

  /** A page of the journal before an entry, newest first. */
  journal(id: string, wanted: EntriesWanted = { before: Number.MAX_SAFE_INTEGER }) {
    const { revision } = this.has.cache.get(id)
    const entries = this.has.journal.entries(id, wanted, journalPage + 1)
    return { revision, entries: entries.slice(0, journalPage), earlier: entries.length > journalPage }
  }

  /** The moments the builder has marked, oldest first. */
  marks(id: string) {
    const { revision } = this.has.cache.get(id)
    return { revision, entries: this.has.journal.marks(id, mostMarks), earlier: false }
  }

  /** Every version of a line's grams that was not a slip taken back at once. */
  lineHistory(id: string, lineId: string) {
    const { cache, journal, builds } = this.has
    const present = cache.get(id).build.lines.find(line => line.id === lineId)?.mass?.versionId
    const slips = journal.slips(id, lineId)
    const stands = (versionId: string) => versionId === present || !slips.has(versionId)
    return builds.versions(id).filter(version => version.lineId === lineId && stands(version.mass.versionId))
  }

  /** The build with every version of its grams and its journal, read entry by entry. */
  wholeOf(id: string) {
    const { cache, builds, journal } = this.has
    return { build: cache.get(id).build, massVersions: builds.versions(id), journal: journal.eachRecord(id) }
  }
}

/** For each build the names of others that a part of the drawer is fitted on as well. */
function partsShared(builds: readonly Build[]): ReadonlyMap<string, readonly string[]> {
  const on = new Map<string, Build[]>()
  for (const build of builds.filter(({ archived }) => !archived))
    for (const partId of new Set(
      build.lines.flatMap(({ partId: id, state }) => (id && state === 'fitted' ? [id] : [])),
    ))
      on.set(partId, [...(on.get(partId) ?? []), build])
  const shares = new Map<string, Set<string>>()
  for (const together of on.values())
    for (const build of together)
      for (const other of together)
        if (other !== build) shares.set(build.id, (shares.get(build.id) ?? new Set()).add(other.name))
  return new Map([...shares].map(([id, names]) => [id, [...names].sort()]))
}
