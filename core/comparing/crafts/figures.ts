import { balanceOf, inertiaAbout } from '../../aircraft/balance'
import type { Lessons } from '../../aircraft/flown'
import { flightPlanOf, sheetFlight } from '../../aircraft/flight'
import type { RuleCard } from '../../limits/rules'
import { spreadG } from '../../maths/estimate'
import type { VerdictWord } from '../../limits/verdict'
import { overviewOf, type Overview } from '../../mass/report'
import type { ReferenceCraft } from '../../model/ledger'
import type { Compared } from '../lines'

/** What a craft is as a whole; null where it cannot be told. */
export interface CraftFigures {
  readonly massG: number
  /** ± at 95 %, grams. */
  readonly spreadG: number
  readonly word: VerdictWord | null
  readonly headroomG: number | null
  readonly limitG: number | null
  readonly dryG: number | null
  /** ± at 95 % of the dry mass, grams; 0 where it is not told. */
  readonly drySpreadG: number
  readonly minutes: number | null
  /** From hard to gentle flying, minutes. */
  readonly minutesBand: readonly [number, number] | null
  /** On how many flights of its own its minutes rest; 0 without. */
  readonly restsOn: number
  readonly gramsPerMinute: number | null
  /** All motors at the start of the flight over the weight. */
  readonly thrustToWeight: number | null
  readonly priceCents: number | null
  readonly unpricedLines: number
  /** How far the centre lies ahead of the middle of the motors, mm; below zero behind. */
  readonly aheadMm: number | null
  /** Moment of inertia about the pitch axis through the centre, kg·mm². */
  readonly pitchInertia: number | null
  readonly weighedLines: number
  readonly lines: number
  readonly weighedWhole: boolean
  readonly openLines: number
}

/** The figures of a craft in one loadout, by its cards and by what was flown. */
export function craftFigures(
  { build, choice, estimates }: Compared,
  cards: readonly RuleCard[],
  lessons: Lessons | null,
  overview: Overview = overviewOf(build, choice, cards, estimates),
): CraftFigures {
  const { massG, binding, counted } = overview
  const { forecast } = sheetFlight(build, choice, massG, flightPlanOf(build, lessons))
  const flies = forecast?.why === null ? forecast : null
  const { centre, layout } = balanceOf(build, choice, estimates)
  return {
    massG,
    spreadG: overview.spreadG,
    word: binding?.verdict?.word ?? null,
    headroomG: binding?.verdict?.headroomG ?? null,
    limitG: binding?.limitG ?? null,
    dryG: overview.dry.valueG,
    drySpreadG: spreadG(overview.dry),
    minutes: flies?.minutes ?? null,
    minutesBand: flies ? [flies.hardMinutes, flies.gentleMinutes] : null,
    restsOn: flies?.restsOn?.own ?? 0,
    gramsPerMinute: flies && flies.minutes > 0 ? massG / flies.minutes : null,
    thrustToWeight: flies?.thrustToWeightStart ?? null,
    priceCents: overview.unpricedLines < build.lines.length ? overview.priceCents : null,
    unpricedLines: overview.unpricedLines,
    aheadMm: centre ? centre.atMm[0] : null,
    pitchInertia: centre ? inertiaAbout(layout.pieces, centre.atMm)[1][1] / 1000 : null,
    weighedLines: overview.weighedLines,
    lines: counted.length,
    weighedWhole: overview.weighedWhole,
    openLines: overview.openLines,
  }
}

/** What is known of a craft that is known only as a whole. */
export function referenceFigures({ massG, spreadG, thrustG, priceCents, minutes }: ReferenceCraft): CraftFigures {
  return {
    massG,
    spreadG,
    word: null,
    headroomG: null,
    limitG: null,
    dryG: null,
    drySpreadG: 0,
    minutes,
    minutesBand: null,
    restsOn: 0,
    gramsPerMinute: minutes !== null && minutes > 0 ? massG / minutes : null,
    thrustToWeight: thrustG === null ? null : thrustG / massG,
    priceCents,
    unpricedLines: 0,
    aheadMm: null,
    pitchInertia: null,
    weighedLines: 0,
    lines: 0,
    weighedWhole: true,
    openLines: 0,
  }
}
