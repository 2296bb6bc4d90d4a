import { progressOf } from '../assembly/progress'
import { sequenceOf } from '../assembly/steps'
import type { Estimate } from '../estimate'
import { spreadFactor95 } from '../numbers'
import {
  groupOf,
  groups,
  isPresentPiece,
  type Build,
  type Evidence,
  type Group,
  type Line,
  type LoadoutChoice,
} from '../ledger'
import {
  countedLines,
  dryLines,
  estimatesOf,
  type LineEstimates,
  defaultLoadout,
  isOnPurpose,
  loadoutMasses,
  allLoadouts,
  loadoutName,
  sameLoadout,
} from '../loadout'
import type { HonestyTable } from '../listings'
import type { RuleCard } from '../rules'
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
    spreadG: spreadFactor95 * sigma,
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

/** A build as the shelf shows it: plain data that travels over the wire. */
export interface ShelfEntry {
  readonly id: string
  readonly name: string
  readonly craftClass: string
  readonly archived: boolean
  readonly reference: Build['reference']
  readonly massG: number
  readonly sigmaG: number
  readonly dryG: number
  readonly goalDryG: number | null
  readonly reserveG: number
  readonly segments: readonly { group: Group; massG: number }[]
  readonly word: string | null
  /** Over, and flown so on purpose. */
  readonly onPurpose: boolean
  readonly headroomG: number | null
  readonly intoReserveG: number | null
  readonly probability: number | null
  readonly limitG: number | null
  readonly limitWritten: string
  readonly loadout: string
  /** The loadout that decides, where the binding card looks at another than the one flown. */
  readonly decidedBy: string | null
  readonly lines: number
  readonly weighedLines: number
  readonly weighedWhole: boolean
  readonly openLines: number
  readonly evidences: Readonly<Record<Evidence, number>>
  /** How far it is put together; null while nobody has begun. */
  readonly assembled: { readonly done: number; readonly of: number; readonly failed: number } | null
}

/** The shelf entry of a build in its default loadout; a reference craft stands for itself. */
export function shelfEntry(build: Build, cards: readonly RuleCard[], honesty: HonestyTable): ShelfEntry {
  const choice = defaultLoadout(build)
  const overview = overviewOf(build, choice, cards, estimatesOf(build, honesty))
  const evidenceCounts = { guess: 0, typical: 0, listed: 0, 'worked out': 0, twin: 0, weighed: 0 }
  for (const line of overview.counted) if (line.mass) evidenceCounts[line.mass.evidence]++
  const { binding } = overview
  return {
    id: build.id,
    name: build.name,
    craftClass: build.craftClass,
    archived: build.archived,
    reference: build.reference,
    massG: overview.massG,
    sigmaG: overview.sigmaG,
    dryG: overview.dry.valueG,
    goalDryG: build.aim.goalDryG,
    reserveG: build.aim.reserveG,
    segments: overview.groups.map(g => ({ group: g.group, massG: g.estimate.valueG })),
    word: binding?.verdict?.word ?? null,
    onPurpose: binding?.verdict?.word === 'Over' && isOnPurpose(build, choice),
    headroomG: binding?.verdict?.headroomG ?? null,
    intoReserveG: overview.intoReserveG,
    probability: binding?.verdict?.probability ?? null,
    limitG: binding?.limitG ?? null,
    limitWritten: binding?.card.limit ? `${binding.card.limit.value} ${binding.card.limit.unit}` : '',
    loadout: loadoutName(build, choice),
    decidedBy:
      binding?.heaviest && !sameLoadout(binding.heaviest, choice) ? loadoutName(build, binding.heaviest) : null,
    lines: overview.counted.length,
    weighedLines: overview.weighedLines,
    weighedWhole: overview.weighedWhole,
    openLines: overview.openLines,
    evidences: evidenceCounts,
    assembled: assembledOf(build, choice),
  }
}

function assembledOf(build: Build, choice: LoadoutChoice): ShelfEntry['assembled'] {
  const sorted = build.assembly ? sequenceOf(build, choice) : null
  if (!sorted || !('steps' in sorted)) return null
  const { done, of, failed } = progressOf(sorted.steps, build.assembly!)
  return { done, of, failed }
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
      ({ state, subjects }) =>
        state === 'taken in' &&
        counted.every(line =>
          subjects.some(subject => isPresentPiece(subject, line) && subject.quantity === line.quantity),
        ),
    )
  )
}

/** The report of a build: all loadouts in order of set-up and pack. */
export function reportRows(build: Build, cards: readonly RuleCard[], honesty: HonestyTable): ReportRow[] {
  const estimates = estimatesOf(build, honesty)
  const chosen = chosenCards(build, cards)
  const spreadOf = (sigma: number) => spreadFactor95 * sigma
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
