import type { LineEstimates } from '../../mass/loadout'
import { snapshotOf, type FlightFinding, type FlightSnapshot, type Lessons } from '../../aircraft/flown'
import { flightPlanOf, loadoutKey, sheetCells, sheetFlight, type LoadoutCell } from '../../aircraft/flight'
import { styles, type Style } from '../../aircraft/power'
import type { RuleCard } from '../../limits/rules'
import type { VerdictWord } from '../../limits/verdict'
import { overviewOf } from '../../mass/report'
import { textOf } from '../../model/properties'
import { packLabel, type Build, type LoadoutChoice } from '../../model/ledger'
import { betweenFlights, type MaidenCheck } from '../assembly'

/** Minutes from hard to gentle flying. */
export interface FieldMinutes {
  readonly low: number
  readonly middle: number
  readonly high: number
}

/** One loadout as it is taken to the field: everything a flight needs, so that nothing has to be asked for there. */
export interface FieldLoadout {
  readonly key: string
  readonly choice: LoadoutChoice
  readonly pack: string
  readonly setup: string
  /** Day of its last charge; null where nobody has said. */
  readonly chargedOn: string | null
  readonly snapshot: FlightSnapshot
  readonly word: VerdictWord | null
  readonly minutes: Readonly<Record<Style, FieldMinutes | null>>
  readonly checks: readonly MaidenCheck[]
}

/** A build as it is taken to the field. */
export interface FieldBuild {
  readonly id: string
  readonly name: string
  readonly style: Style
  /** On how many flights its minutes rest, and how many it has. */
  readonly restsOn: number
  readonly flights: number
  readonly flies: string
  readonly loadouts: readonly FieldLoadout[]
  /** What was found and is not gone. */
  readonly open: readonly string[]
}

interface Given {
  readonly build: Build
  readonly revision: number
  readonly estimates: LineEstimates
  readonly cards: readonly RuleCard[]
  readonly lessons: Lessons
  readonly flights: number
  readonly findings: readonly FlightFinding[]
}

function loadoutOf(given: Given, { choice, key, massG, sigmaG, binding, pack }: LoadoutCell): FieldLoadout {
  const { build, revision, estimates, cards, lessons } = given
  const plan = flightPlanOf(build, lessons)
  const minutesIn = (style: Style): FieldMinutes | null => {
    const { forecast } = sheetFlight(build, choice, massG, { ...plan, style })
    return forecast && forecast.why === null
      ? { low: forecast.hardMinutes, middle: forecast.minutes, high: forecast.gentleMinutes }
      : null
  }
  return {
    key,
    choice,
    pack: packLabel(pack),
    chargedOn: textOf(pack, 'lastChargedOn') ?? null,
    setup: build.setups.find(setup => setup.id === choice.setupId)?.name ?? '',
    snapshot: snapshotOf(build, revision, choice, { massG, sigmaG }, plan),
    word: binding?.verdict?.word ?? null,
    minutes: Object.fromEntries(styles.map(style => [style, minutesIn(style)])) as FieldLoadout['minutes'],
    checks: betweenFlights(build, choice, overviewOf(build, choice, cards, estimates)),
  }
}

/** Everything of a build that flights in the field need. */
export function fieldBuild(given: Given): FieldBuild {
  const { build, cards, estimates, lessons, flights, findings } = given
  const plan = flightPlanOf(build)
  // Judged as in Packs: under the cards of the build and of the trip.
  const looked = new Set([...build.aim.cardIds, ...plan.alsoCardIds])
  const cells = sheetCells(
    build,
    [],
    cards.filter(({ id }) => looked.has(id)),
    estimates,
  )
  return {
    id: build.id,
    name: build.name,
    style: plan.style,
    restsOn: lessons.said.reduce((sum, one) => sum + (one.buildId === build.id ? one.flights : 0), 0),
    flights,
    flies: loadoutKey(build.flies),
    loadouts: cells.filter(({ never }) => !never).map(cell => loadoutOf(given, cell)),
    open: findings.filter(({ goneAt }) => goneAt === null).map(({ kind }) => kind),
  }
}
