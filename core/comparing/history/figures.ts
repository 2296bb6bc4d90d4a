import { sigmaG } from '../../maths/estimate'
import { countedLines, defaultLoadout, dryLines, estimatesOf, loadoutMasses } from '../../mass/loadout'
import type { ListingBiasTable } from '../../mass/listings'
import type { Build } from '../../model/ledger'

/** What a craft weighed at one moment of its journal, in what it was flown as. */
export interface WeightThen {
  readonly massG: number
  /** Standard uncertainty of the all-up weight, grams. */
  readonly sigmaG: number
  /** Airframe and fittings, without pack and payload. */
  readonly dryG: number
  readonly drySigmaG: number
  /** Lines that fly and of which nobody had said what they weigh. */
  readonly openLines: number
}

/** The weights of a state of a build by what was known of listings then. */
export function weightThen(build: Build, honesty: ListingBiasTable): WeightThen {
  const choice = defaultLoadout(build)
  const estimates = estimatesOf(build, honesty)
  const [flown] = loadoutMasses(build, [choice], estimates)
  const dry = estimates.sum(dryLines(build, choice))
  return {
    massG: flown!.massG,
    sigmaG: flown!.sigmaG,
    dryG: dry.valueG,
    drySigmaG: sigmaG(dry),
    openLines: countedLines(build, choice).filter(({ mass }) => mass === null).length,
  }
}
