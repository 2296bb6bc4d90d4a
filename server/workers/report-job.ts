import type { Build } from '../../core/model/ledger'
import type { Lessons } from '../../core/aircraft/flown'
import { flightReport, type FlightReportRow } from '../../core/aircraft/flight'
import { ListingBiasTable, type ListingObservation } from '../../core/mass/listings'
import type { RuleCard } from '../../core/limits/rules'
import { buildPage } from '../../shared/files/build-page'
import { buildSheet, type NotedChange, type SheetWriting, type TaughtByCrash } from '../../shared/files/build-sheet'

/** What is worked out over all loadouts of a build: plain data, so that another thread can do it. */
export type ReportJob = {
  readonly build: Build
  readonly cards: readonly RuleCard[]
  readonly observations: readonly ListingObservation[]
  readonly lessons: Lessons | null
} & (
  | { readonly kind: 'rows' }
  | {
      readonly kind: 'sheet' | 'page'
      readonly writing: SheetWriting
      readonly reasons: readonly NotedChange[]
      readonly crashes: readonly TaughtByCrash[]
    }
)
export type ReportResult<Job extends ReportJob> = Job extends { readonly kind: 'rows' }
  ? readonly FlightReportRow[]
  : string

export function doReportJob<Job extends ReportJob>(job: Job): ReportResult<Job> {
  const honesty = new ListingBiasTable(job.observations)
  if (job.kind === 'rows')
    return flightReport(job.build, job.cards, honesty, job.lessons) as unknown as ReportResult<Job>
  const sheet = buildSheet(job.build, job.cards, honesty, job.writing, job.reasons, job.lessons, job.crashes)
  return (job.kind === 'sheet' ? sheet : buildPage(job.build, job.cards, honesty, sheet)) as ReportResult<Job>
}
