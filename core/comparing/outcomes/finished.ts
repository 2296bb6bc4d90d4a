import { addEstimates, sigmaG, type Estimate } from '../../maths/estimate'
import { countedLines, defaultLoadout, dryLines, estimatesOf, type LineEstimates } from '../../mass/loadout'
import type { ListingBiasTable } from '../../mass/listings'
import {
  isPresentPiece,
  saidOfCraft,
  type Build,
  type Line,
  type LoadoutChoice,
  type Observation,
} from '../../model/ledger'

/** How a plan of the dry craft came out when it was weighed whole. */
export interface Outcome {
  /** Everything booked, sundries too, as it stood before the whole weighing, grams. */
  readonly forecastG: number
  readonly forecastSigmaG: number
  /** Dry, by the whole weighing. */
  readonly weighedG: number
  readonly weighedSigmaG: number
  readonly takenAt: string
  /** Booked of everything but sundries, with its standard uncertainty. */
  readonly bookedG: number
  readonly bookedSigmaG: number
  /** What is in it beside: (weighed − booked) over weighed. */
  readonly share: number
}

/** Solder, tape, glue; and what was booked to make a weighing come out. */
export const isSundry = ({ slot, mass }: Pick<Line, 'slot' | 'mass'>): boolean =>
  slot === 'other' || slot === 'coating' || mass?.weighing?.method === 'booked difference'

/** The loadouts a whole weighing can have been of: the one that is flown first. */
function loadoutsOf(build: Build): LoadoutChoice[] {
  const flown = defaultLoadout(build)
  return [flown, ...build.setups.map(({ id }) => ({ ...flown, setupId: id }))]
}

const isOn = (line: Line, { subjects }: Observation) =>
  subjects.some(subject => isPresentPiece(subject, line) && subject.quantity === line.quantity)

/**
 * How the plan of a build came out: the last weighing that holds and was of its whole dry craft, alone or with pack and
 * payload, which are taken off as they are known. Null where there was none, or something dry has no grams.
 */
export function outcomeOf(build: Build, honesty: ListingBiasTable): Outcome | null {
  if (build.reference) return null
  const estimates = estimatesOf(build, honesty)
  for (const observation of [...build.observations].sort((a, b) => b.takenAt.localeCompare(a.takenAt))) {
    if (observation.state !== 'taken in' || observation.scaleId === saidOfCraft) continue
    for (const choice of loadoutsOf(build)) {
      const dry = dryLines(build, choice)
      if (dry.length === 0 || !dry.every(line => line.mass !== null && isOn(line, observation))) continue
      const known = new Set(dry.map(({ id }) => id))
      const others = countedLines(build, choice).filter(line => !known.has(line.id) && isOn(line, observation))
      // Everything that was on the pan is of this loadout.
      if (observation.subjects.length !== dry.length + others.length) continue
      return outcomeBy(observation, dry, others, estimates)
    }
  }
  return null
}

function outcomeBy(
  { valueG, contributions, takenAt }: Observation,
  dry: readonly Line[],
  others: readonly Line[],
  estimates: LineEstimates,
): Outcome {
  const before = (lines: readonly Line[]): Estimate => addEstimates(lines.map(line => estimates.before(line)))
  const forecast = before(dry)
  const booked = before(dry.filter(line => !isSundry(line)))
  const aside = before(others)
  const weighedG = valueG - aside.valueG
  return {
    forecastG: forecast.valueG,
    forecastSigmaG: sigmaG(forecast),
    weighedG,
    weighedSigmaG: Math.hypot(sigmaG({ valueG, contributions }), sigmaG(aside)),
    takenAt,
    bookedG: booked.valueG,
    bookedSigmaG: sigmaG(booked),
    share: (weighedG - booked.valueG) / weighedG,
  }
}

/** Whether an outcome says anything of sundries: what is booked beside them must be known better than they vary. */
export const teachesSundries = ({ bookedSigmaG, weighedG }: Outcome, tau: number): boolean =>
  weighedG > 0 && bookedSigmaG <= tau * weighedG
