import { chanceOf } from '../../core/maths/numbers'
import { lnKappaOf, makeFlight, snapshotOf, uOneFlight, type Flight } from '../../core/aircraft/flown'
import { craftOf, startChargeOf, packModelOf } from '../../core/aircraft/currents'
import { discharge, idealHoverW, openCircuitV, type FlightPlan, type Style } from '../../core/aircraft/power'
import { countedLines, loadoutMasses, type LineEstimates } from '../../core/mass/loadout'
import type { Build, LoadoutChoice } from '../../core/model/ledger'

/** How one flight of a made-up season went. */
export interface SeasonFlight {
  readonly choice: LoadoutChoice
  readonly style: Style
  readonly daysAgo: number
  /** Local time of take-off. */
  readonly at: string
  /** The charge it was landed with, 0 to 1. */
  readonly landedAt: number
  /** What is known of its charge afterwards. */
  readonly knownBy: readonly ('put back' | 'volts' | 'fresh volts')[]
  /** Power of this flight against what its craft asks for usually: 1, and more where something was wrong. */
  readonly harder?: number
  readonly note?: string
  readonly place: string
  readonly windMps?: number
}

/** What is true of a made-up craft and nobody knows: how much more power it asks for than its class, and what its packs still hold. */
export interface SeasonTruth {
  readonly seed: number
  readonly power: number
  readonly packHolds: Readonly<Record<string, number>>
}

/** The day so many days before another one. */
export const dayBefore = (day: string, days: number): string =>
  new Date(Date.parse(`${day}T12:00:00Z`) - days * 86_400_000).toISOString().slice(0, 10)

const rounded = (value: number, step: number) => Number((Math.round(value / step) * step).toFixed(4))

/** Flies a season by the project's own discharge: what each flight leaves behind is read with the errors such readings have. */
export function flySeason(
  build: Build,
  revision: number,
  estimates: LineEstimates,
  plan: FlightPlan,
  truth: SeasonTruth,
  flights: readonly SeasonFlight[],
  lastDay: string,
): Flight[] {
  const random = chanceOf(truth.seed)
  return flights.map((flown, i) => {
    const { choice, style, landedAt, knownBy } = flown
    const lines = countedLines(build, choice)
    const pack = lines.find(line => line.id === choice.packLineId)
    const mass = loadoutMasses(build, [choice], estimates)[0]!
    const asked = { ...plan, style }
    const craft = pack && craftOf(lines, pack, asked)
    if (!pack?.pack || !craft || 'missing' in craft) throw new Error(`${build.name} cannot fly ${choice.packLineId}.`)
    const kappa = Math.exp(lnKappaOf(craft, asked).value + uOneFlight * random.normal())
    const idealW = idealHoverW(mass.massG, craft.areaM2, craft.densityKgM3)
    const powerW = craft.avionicsW + idealW * kappa * truth.power * (flown.harder ?? 1)
    const holds = truth.packHolds[pack.id] ?? 1
    const model = { ...packModelOf(pack), capacityMah: pack.pack.capacityMah * holds }
    const startCharge = startChargeOf(pack)
    const one = discharge(model, { powerW, startCharge, cutOffCellV: 0, reserve: landedAt })
    const restV = openCircuitV(pack.pack.chemistry, one.endCharge)
    const isFresh = knownBy.includes('fresh volts')
    const readV = restV * pack.pack.cells + (isFresh ? 0.03 : 0.012) * pack.pack.cells * random.normal()
    const hasVolts = isFresh || knownBy.includes('volts')
    const warnedS = one.timeS * (0.84 + 0.06 * random.uniform())
    return makeFlight({
      id: `${build.id}-${String(i + 1).padStart(2, '0')}`,
      buildId: build.id,
      flownAt: `${dayBefore(lastDay, flown.daysAgo)}T${flown.at}`,
      style,
      durationS: Math.round(one.timeS),
      stepS: 1,
      firstWarningS: random.uniform() < 0.6 ? Math.round(warnedS) : null,
      landing: hasVolts ? { volts: rounded(readV, 0.01), of: 'pack', loadA: null, isFresh } : null,
      putBackMah: knownBy.includes('put back')
        ? Math.round((one.consumedMah / 0.99) * (1 + 0.01 * random.normal()))
        : null,
      windMps: flown.windMps ?? null,
      place: flown.place,
      note: flown.note ?? '',
      snapshot: snapshotOf(build, revision, choice, mass, asked),
    })
  })
}
