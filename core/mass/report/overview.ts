import type { Estimate } from '../../maths/estimate'
import { coverageFactor95 } from '../../maths/numbers'
import {
  groupOf,
  groups,
  isPresentPiece,
  saidOfCraft,
  type Build,
  type Group,
  type Line,
  type LoadoutChoice,
} from '../../model/ledger'
import {
  countedLines,
  dryLines,
  estimatesOf,
  type LineEstimates,
  loadoutMasses,
  allLoadouts,
  loadoutName,
} from '../loadout'
import type { ListingBiasTable } from '../listings'
import type { RuleCard } from '../../limits/rules'
import { bindingJudgement, chosenCards, judgementWord, judgeUnderCard, type CardJudgement } from './judged'
import { reserveTaken } from './loadout-verdicts'

/** A group's share of one loadout. */
export interface GroupTotal {
  readonly group: Group
  readonly lines: readonly Line[]
  readonly estimate: Estimate
}

/** Everything the face of a build shows for one loadout. */
export interface Overview {
  readonly choice: LoadoutChoice
  readonly counted: readonly Line[]
  readonly total: Estimate
  readonly massG: number
  readonly sigmaG: number
  readonly spreadG: number
  /** Airframe and chosen fittings, without pack and payload. */
  readonly dry: Estimate
  readonly groups: readonly GroupTotal[]
  readonly judgements: readonly CardJudgement[]
  readonly binding: CardJudgement | null
  /** How far it reaches into the reserve: 0 where it is Clear with the reserve, null where it is not Clear. */
  readonly intoReserveG: number | null
  readonly openLines: number
  readonly weighedLines: number
  /** Whether a weighing that holds was of everything that flies now, piece for piece. */
  readonly weighedWhole: boolean
  /** Of all fitted lines whose price somebody has said. */
  readonly priceCents: number
  /** Fitted lines whose price nobody has said. */
  readonly unpricedLines: number
}

/** Computes the overview of one loadout under the build's chosen cards. */
export function overviewOf(
  build: Build,
  choice: LoadoutChoice,
  cards: readonly RuleCard[],
  estimates: LineEstimates,
): Overview {
  const counted = countedLines(build, choice)
  const total = estimates.sum(counted)
  // One computation of the sum for head, sheet, report and cards: they agree to the last digit.
  const { massG, sigmaG: sigma } = loadoutMasses(build, [choice], estimates)[0]!
  const judgements = chosenCards(build, cards).map(card => judgeUnderCard(build, choice, card, estimates))
  return {
    choice,
    counted,
    total,
    massG,
    sigmaG: sigma,
    spreadG: coverageFactor95 * sigma,
    dry: estimates.sum(dryLines(build, choice)),
    groups: groupTotals(counted, estimates),
    judgements,
    binding: bindingJudgement(judgements),
    intoReserveG: reserveTaken(judgements, build.aim.reserveG),
    openLines: counted.filter(line => !line.mass).length,
    weighedLines: counted.filter(line => line.mass?.evidence === 'weighed').length,
    weighedWhole: weighedWhole(build, { counted }),
    ...fittedPrice(build),
  }
}

/** Lines by group in reading order; groups without lines are left out. */
export function groupTotals(lines: readonly Line[], estimates: LineEstimates): GroupTotal[] {
  return groups.flatMap(group => {
    const mine = lines.filter(line => groupOf(line.slot) === group)
    return mine.length === 0 ? [] : [{ group, lines: mine, estimate: estimates.sum(mine) }]
  })
}

/** Price of all fitted lines in whole cents, which are integers and so exact, and how many of them nobody has priced. */
function fittedPrice({ lines }: Pick<Build, 'lines'>): { priceCents: number; unpricedLines: number } {
  const fitted = lines.filter(line => line.state === 'fitted')
  return {
    priceCents: fitted.reduce((sum, line) => sum + (line.priceEachCents ?? 0) * line.quantity, 0),
    unpricedLines: fitted.filter(line => line.priceEachCents === null).length,
  }
}

/** Every loadout under every chosen card, as the report route and the build sheet give it. */
export interface ReportRow {
  readonly loadout: string
  readonly choice: LoadoutChoice
  readonly auwG: number
  readonly spreadG: number
  readonly cards: readonly {
    cardId: string
    massG: number
    spreadG: number
    limitG: number | null
    headroomG: number | null
    probability: number | null
    verdict: string
  }[]
}

/** Whether a weighing that holds was of everything that flies now, piece for piece. */
export function weighedWhole(
  { observations }: Pick<Build, 'observations'>,
  { counted }: Pick<Overview, 'counted'>,
): boolean {
  return (
    counted.length > 0 &&
    observations.some(
      ({ state, scaleId, subjects }) =>
        state === 'taken in' &&
        scaleId !== saidOfCraft &&
        counted.every(line =>
          subjects.some(subject => isPresentPiece(subject, line) && subject.quantity === line.quantity),
        ),
    )
  )
}

/** The report of a build: all loadouts in order of set-up and pack. */
export function reportRows(build: Build, cards: readonly RuleCard[], honesty: ListingBiasTable): ReportRow[] {
  const estimates = estimatesOf(build, honesty)
  const chosen = chosenCards(build, cards)
  const spreadOf = (sigma: number) => coverageFactor95 * sigma
  return loadoutMasses(build, allLoadouts(build), estimates).map(({ choice, massG, sigmaG: sigma }) => ({
    loadout: loadoutName(build, choice),
    choice,
    auwG: massG,
    spreadG: spreadOf(sigma),
    cards: chosen.map(card => {
      const j = judgeUnderCard(build, choice, card, estimates)
      return {
        cardId: card.id,
        massG: j.massG,
        spreadG: spreadOf(j.sigmaG),
        limitG: j.limitG,
        headroomG: j.verdict?.headroomG ?? null,
        probability: j.verdict?.probability ?? null,
        verdict: judgementWord(j),
      }
    }),
  }))
}
