import { coverageFactor95 } from '../../maths/numbers'
import { sigmaG } from '../../maths/estimate'
import { lineEstimate } from '../../mass/evidence'
import type { ListingBiasTable } from '../../mass/listings'
import type { Build, Evidence, Mass, Slot } from '../../model/ledger'

/** A part that was planned before it was weighed. */
export interface PlannedLine {
  readonly lineId: string
  readonly slot: Slot
  readonly name: string
  /** How its grams were known first. */
  readonly evidence: Evidence
  /** Of the whole line. */
  readonly forecastG: number
  readonly spreadG: number
  readonly weighedG: number
  /** Whether what was weighed lies within the ± of the plan. */
  readonly isWithin: boolean
}

/**
 * Lines that were planned and then weighed, each by the first of its versions, with what was known of listings then being
 * what is known now. Lines weighed from the first on are no plans. `versions` are those of the build, oldest first.
 */
export function plannedLines(
  build: Build,
  versions: readonly { readonly lineId: string; readonly mass: Mass }[],
  honesty: ListingBiasTable,
): PlannedLine[] {
  const first = new Map<string, Mass>()
  for (const { lineId, mass } of versions) if (!first.has(lineId)) first.set(lineId, mass)
  return build.lines.flatMap((line): PlannedLine[] => {
    const plan = first.get(line.id)
    const isWeighed = line.mass?.evidence === 'weighed' && line.edition === 0
    if (!plan || !isWeighed || plan.evidence === 'weighed' || plan.evidence === 'twin') return []
    const forecast = lineEstimate({ ...line, mass: plan }, honesty)
    const weighed = lineEstimate(line, honesty)
    const spreadG = coverageFactor95 * Math.hypot(sigmaG(forecast), sigmaG(weighed))
    return [
      {
        ...{ lineId: line.id, slot: line.slot, name: line.name, evidence: plan.evidence },
        ...{ forecastG: forecast.valueG, spreadG, weighedG: weighed.valueG },
        isWithin: Math.abs(weighed.valueG - forecast.valueG) <= spreadG,
      },
    ]
  })
}
