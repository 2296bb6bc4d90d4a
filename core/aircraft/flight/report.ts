import type { Build } from '../../model/ledger'
import type { ListingBiasTable } from '../../mass/listings'
import { reportRows, type ReportRow } from '../../mass/report'
import type { Lessons } from '../flown'
import type { RuleCard } from '../../limits/rules'
import { flightPlanOf, sheetFlight } from './loadout-matrix'

/** A row of the report with the minutes of its loadout, from hard to gentle; null, with the reason, where they cannot be told. */
export interface FlightReportRow extends ReportRow {
  readonly minutes: number | null
  readonly hardMinutes: number | null
  readonly gentleMinutes: number | null
  readonly thrustToWeight: number | null
  readonly withoutMinutes: string | null
}

/** Every loadout with weight, verdicts and minutes. */
export function flightReport(
  build: Build,
  cards: readonly RuleCard[],
  honesty: ListingBiasTable,
  lessons: Lessons | null = null,
): FlightReportRow[] {
  const plan = flightPlanOf(build, lessons)
  return reportRows(build, cards, honesty).map(row => {
    const { forecast, missing } = sheetFlight(build, row.choice, row.auwG, plan)
    const told = forecast && forecast.why === null
    return {
      ...row,
      minutes: told ? forecast.minutes : null,
      hardMinutes: told ? forecast.hardMinutes : null,
      gentleMinutes: told ? forecast.gentleMinutes : null,
      thrustToWeight: forecast?.thrustToWeightStart ?? null,
      withoutMinutes: forecast?.why ?? missing?.missing ?? null,
    }
  })
}
