import type { Line } from '../../model/ledger'
import { packModelOf, type Craft } from '../currents'
import { styleFactors, type FlightPlan, type PackModel } from '../power'
import { Taught, type LnKappa, type SaidTogether } from './calibration'
import { packKeyOf } from './flight'
import { nothingLearnt, type PackLearnt } from './worked-out'

/** What flights teach the forecasts of one build: a few statements of all craft, and its packs'. Plain data. */
export interface Lessons {
  readonly buildId: string
  readonly said: readonly SaidTogether[]
  readonly packs: Readonly<Record<string, PackLearnt>>
}

/** How a build is flown, with what flights teach of it; without lessons the forecast is the one before any flight. */
export type TaughtPlan = FlightPlan & { readonly lessons?: Lessons | null }

const kept = new WeakMap<readonly SaidTogether[], Taught>()
function taughtBy(said: readonly SaidTogether[]): Taught {
  const known = kept.get(said) ?? new Taught(said)
  kept.set(said, known)
  return known
}

/** On how many flights of its own craft, and of others in its style, the minutes of a build rest. */
export interface RestsOn {
  readonly own: number
  readonly others: number
}

/** ln κ of a loadout's drive as flights teach it; null where none says anything of it. */
export function taughtLnKappa(
  { drive, efficiency }: Pick<Craft, 'drive' | 'efficiency'>,
  { style, lessons }: TaughtPlan,
): (LnKappa & { readonly restsOn: RestsOn }) | null {
  if (!lessons) return null
  const taught = taughtBy(lessons.said)
  const flying = { buildId: lessons.buildId, drive, style, efficiency }
  const restsOn = { own: taught.restsOn(flying), others: taught.restsOnOthers(flying) }
  return restsOn.own + restsOn.others === 0 ? null : { ...taught.lnKappa(flying), restsOn }
}

const untaught = new Taught([])
/** ln κ of a loadout: as flights teach it, else by the style and the efficiency alone. */
export function lnKappaOf(craft: Pick<Craft, 'drive' | 'efficiency'>, plan: TaughtPlan): LnKappa {
  const { drive, efficiency } = craft
  return (
    taughtLnKappa(craft, plan) ??
    untaught.lnKappa({ buildId: plan.lessons?.buildId ?? '', drive, style: plan.style, efficiency })
  )
}

/** How two drives of a build differ in ln κ, and how many flights each of them has. */
export function drivesApart(
  one: Pick<Craft, 'drive' | 'efficiency'>,
  other: Pick<Craft, 'drive' | 'efficiency'>,
  { style, lessons }: TaughtPlan,
): LnKappa & { readonly flights: readonly [number, number] } {
  const taught = lessons ? taughtBy(lessons.said) : untaught
  const flyingOf = ({ drive, efficiency }: Pick<Craft, 'drive' | 'efficiency'>) => ({
    ...{ buildId: lessons?.buildId ?? '', style },
    ...{ drive, efficiency },
  })
  const [a, b] = [flyingOf(one), flyingOf(other)]
  return { ...taught.difference(a, b), flights: [taught.flownOn(a), taught.flownOn(b)] }
}

/** What flights say of a pack of the build. */
export function learntOf(pack: Pick<Line, 'id' | 'partId'>, { lessons }: TaughtPlan): PackLearnt {
  return lessons?.packs[packKeyOf({ id: lessons.buildId }, pack)] ?? nothingLearnt
}

/** A pack as the discharge sees it: its own charge and resistance where flights say them. `capacity` makes it so much larger. */
export function taughtPackModel(pack: Line, plan: TaughtPlan, capacity = 1): PackModel {
  const { usable, resistance } = learntOf(pack, plan)
  const { cells, capacityMah } = pack.pack!
  const model = packModelOf({ ...pack, pack: { ...pack.pack!, capacityMah: capacityMah * capacity } })
  return {
    ...model,
    capacityMah: usable ? usable.value * capacity : model.capacityMah,
    cellResistanceMohm: resistance ? resistance.value / cells : model.cellResistanceMohm,
  }
}

/** Power of the style at its usual, W: as flights teach it, else by the style's factor and the efficiency. */
export function usualLiftW(craft: Craft, idealW: number, plan: TaughtPlan): number {
  const taught = taughtLnKappa(craft, plan)
  return taught ? idealW * Math.exp(taught.value) : (styleFactors[plan.style].usual * idealW) / craft.efficiency
}
