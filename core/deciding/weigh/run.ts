import { applyUnlessRefused } from '../../changes/commands'
import { scaleEstimate, sigmaG, spreadG, subtractEstimates, type Estimate } from '../../maths/estimate'
import { coverageFactor95 } from '../../maths/numbers'
import { isTyped, type Build, type Line, type LoadoutChoice, type Mass } from '../../model/ledger'
import type { ListingBiasTable } from '../../mass/listings'
import { countedLines, type LineEstimates } from '../../mass/loadout'
import { overviewOf, spreadShares, type Overview } from '../../mass/report'
import type { RuleCard } from '../../limits/rules'
import type { VerdictWord } from '../../limits/verdict'
import { placeOf } from './place'

/** The lines a weighing run goes through: by what they add to the spread of the loadout, or in the order of the ledger. */
export type RunOrder = 'by spread' | 'as listed'

/** Fitted lines in the order of the run; lines that do not fly in this loadout come last, lines without grams first. */
export function runLines(build: Build, choice: LoadoutChoice, estimates: LineEstimates, order: RunOrder): Line[] {
  const fitted = build.lines.filter(line => line.state === 'fitted')
  if (order === 'as listed') return fitted
  const counted = countedLines(build, choice)
  const shares = new Map(
    spreadShares(counted, estimates.sum(counted), estimates).map(({ line, share }) => [line.id, share]),
  )
  const rank = (line: Line) => (!line.mass ? Infinity : (shares.get(line.id) ?? sigmaG(estimates.of(line)) / 1e6 - 1))
  return [...fitted].sort((a, b) => rank(b) - rank(a))
}

/** What the pan should show for `pieces` of a line, as an estimate; null while nobody has said what it weighs. */
export function expectedOnPan(line: Line, pieces: number, estimates: LineEstimates): Estimate | null {
  return line.mass ? scaleEstimate(estimates.of(line), pieces / line.quantity) : null
}

/** Far outside: more than four joint standard uncertainties and two hundredths of what was expected. */
export function isFarOff(expected: Estimate, displayG: number, scaleSigmaG: number): boolean {
  const off = Math.abs(displayG - expected.valueG)
  return off > 4 * Math.hypot(sigmaG(expected), scaleSigmaG) && off > 0.02 * Math.abs(expected.valueG)
}

/** What taking a mass for a line would change. */
export interface WouldChange {
  /** Grams a piece against its listing and in per cent; null without a listing or when weighed on another basis. */
  readonly againstListing: { readonly differenceG: number; readonly percent: number } | null
  /** The line's grams against what was believed. */
  readonly lineBeforeG: number
  readonly lineAfterG: number
  readonly spreadBeforeG: number
  readonly spreadAfterG: number
  readonly headroomBeforeG: number | null
  readonly headroomAfterG: number | null
  readonly wordBefore: VerdictWord | null
  readonly wordAfter: VerdictWord | null
}

/** Compares the loadout before and after a mass is taken for a line; nothing is changed. Null where it would be refused. */
export function wouldChange(
  build: Build,
  before: Overview,
  line: Line,
  mass: Mass,
  cards: readonly RuleCard[],
  estimates: LineEstimates,
  honesty: ListingBiasTable,
): WouldChange | null {
  const next = applyUnlessRefused(build, {
    type: 'line.weigh',
    id: line.id,
    mass,
    as: placeOf(mass, line, build, estimates, honesty),
  })
  if (!next) return null
  const weighed = next.lines.find(l => l.id === line.id)!
  const after = overviewOf(next, before.choice, cards, estimates.for(next, honesty))
  const { listing } = line
  const eachG = mass.valueG / mass.valueCount
  return {
    againstListing:
      listing && listing.valueG > 0 && mass.basis === 'as supplied'
        ? { differenceG: eachG - listing.valueG, percent: 100 * (eachG / listing.valueG - 1) }
        : null,
    lineBeforeG: estimates.of(line).valueG,
    lineAfterG: estimates.of(weighed).valueG,
    spreadBeforeG: before.spreadG,
    spreadAfterG: after.spreadG,
    headroomBeforeG: before.binding?.verdict?.headroomG ?? null,
    headroomAfterG: after.binding?.verdict?.headroomG ?? null,
    wordBefore: before.binding?.verdict?.word ?? null,
    wordAfter: after.binding?.verdict?.word ?? null,
  }
}

/** What a run of weighings brought for one line. */
export interface RunResult {
  readonly line: Line
  readonly beforeG: number
  readonly afterG: number
  readonly surprise: number
}

/** Whether a line was put on a scale between two states: its grams are another weighing, or one more lies beside them. */
function weighedBetween(was: Line, now: Line): boolean {
  return now.further.length > was.further.length || (was.mass !== now.mass && now.mass !== null && !isTyped(now.mass))
}

/**
 * What was learnt of each line between two states of a build: lines weighed since, biggest surprise first (in spreads
 * of what was believed).
 */
export function learntBetween(
  before: Build,
  beforeEstimates: LineEstimates,
  after: Build,
  afterEstimates: LineEstimates,
): RunResult[] {
  const earlier = new Map(before.lines.map(line => [line.id, line]))
  return after.lines
    .flatMap(line => {
      const was = earlier.get(line.id)
      if (!was || !weighedBetween(was, line)) return []
      const [old, now] = [beforeEstimates.of(was), afterEstimates.of(line)]
      const spread = spreadG(subtractEstimates(old, now)) / coverageFactor95
      return [
        {
          line,
          beforeG: old.valueG,
          afterG: now.valueG,
          surprise: spread === 0 ? 0 : Math.abs(now.valueG - old.valueG) / spread,
        },
      ]
    })
    .sort((a, b) => b.surprise - a.surprise)
}
