import { coverageFactor95 } from '../../maths/numbers'
import { fixed } from '../../text/display'
import { packLabel, type Line } from '../../model/ledger'
import { bearingsOf, cellResistanceOf, fullThrottle, startChargeOf, type Craft, type FullThrottle } from '../currents'
import {
  assumedResistanceSpread,
  discharge,
  dischargePoints,
  efficiencySpread,
  idealHoverW,
  styleFactors,
  usualCutOffV,
  type DischargeOf,
  type DischargePoint,
  type Ending,
} from '../power'
import {
  learntOf,
  taughtLnKappa,
  taughtPackModel,
  uOneFlight,
  usualLiftW,
  type RestsOn,
  type TaughtPlan,
} from '../flown'

/** One thing the current goes through, against what it bears. */
export interface Link {
  readonly name: string
  /** Amps of the flight's mean and of full throttle, each against what is borne for long and in bursts. */
  readonly meanA: number
  readonly continuousA: number
  readonly fullA: number | null
  readonly burstA: number
  readonly lineId: string
  /** Full throttle draws at least this: a bench table was taken at fewer volts. */
  readonly atLeast: boolean
  /** The greater of the two shares; above 1 it is asked for more than it bears. */
  readonly share: number
}

/** How one loadout flies. */
export interface Forecast {
  readonly minutes: number
  /** The band from hard to gentle flying. */
  readonly hardMinutes: number
  readonly gentleMinutes: number
  readonly endedBy: Ending
  /** Why there are no minutes; null when there are. */
  readonly why: string | null
  readonly meanW: number
  readonly hoverW: number
  readonly hoverA: number
  readonly meanA: number
  readonly consumedMah: number
  readonly start: FullThrottle | null
  readonly end: FullThrottle | null
  /** The pack cannot hold full throttle, at the start or where the flight ends. */
  readonly collapses: 'at the start' | 'at the end' | null
  /** All motors' thrust over the weight, at the start and where the flight ends. */
  readonly thrustToWeightStart: number | null
  readonly thrustToWeightEnd: number | null
  readonly links: readonly Link[]
  readonly weakest: Link | null
  /** The flights its minutes rest on; null where none has taught anything of it. */
  readonly restsOn: RestsOn | null
  /** On how many flights the pack's own charge or resistance rests; 0 where both are as said or assumed. */
  readonly packFlights: number
}

/** Landing asks for at least this much thrust over the weight. */
const landingThrustToWeight = 1.5
/** Whether a flight ends with too little thrust to land on; false where nothing is known of it. */
export const landsWeakly = ({ thrustToWeightEnd }: Pick<Forecast, 'thrustToWeightEnd'>): boolean =>
  thrustToWeightEnd !== null && thrustToWeightEnd < landingThrustToWeight

/** What the discharge of one loadout at its mean power is asked for. */
export function dischargeAsked(craft: Craft, pack: Line, massG: number, plan: TaughtPlan): DischargeOf {
  const idealW = idealHoverW(massG, craft.areaM2, craft.densityKgM3)
  return {
    powerW: usualLiftW(craft, idealW, plan) + craft.avionicsW,
    startCharge: startChargeOf(pack),
    cutOffCellV: plan.endCellV ?? usualCutOffV(pack.pack!.chemistry),
    reserve: plan.reservePercent / 100,
  }
}

/** A loadout's flight as points in time. */
export function flightPoints(craft: Craft, pack: Line, massG: number, plan: TaughtPlan): DischargePoint[] {
  return dischargePoints(taughtPackModel(pack, plan), dischargeAsked(craft, pack, massG, plan))
}

/** Minutes at the usual power of the style alone: what sensitivities are taken from. `capacity` makes the pack so much larger. */
export function minutesOf(craft: Craft, pack: Line, massG: number, plan: TaughtPlan, capacity = 1): number {
  return discharge(taughtPackModel(pack, plan, capacity), dischargeAsked(craft, pack, massG, plan)).timeS / 60
}

/**
 * Power of hard and gentle flying against the usual: of style and efficiency, or what flights have left of both with what
 * is one flight's own.
 */
function bandOfPower(craft: Craft, plan: TaughtPlan): { readonly gentle: number; readonly hard: number } {
  const taught = taughtLnKappa(craft, plan)
  if (taught) {
    const spread = coverageFactor95 * Math.hypot(taught.u, uOneFlight)
    return { gentle: Math.exp(-spread), hard: Math.exp(spread) }
  }
  const { usual, gentle, hard } = styleFactors[plan.style]
  const spread = Math.log(1 / (1 - efficiencySpread))
  return {
    gentle: Math.exp(-Math.hypot(Math.log(gentle / usual), spread)),
    hard: Math.exp(Math.hypot(Math.log(hard / usual), spread)),
  }
}

/** How far the resistance of a pack may be off, as a share. */
function resistanceSpread(pack: Line, plan: TaughtPlan): number {
  const { resistance } = learntOf(pack, plan)
  // At most as far as it could be off before any flight.
  if (resistance) return Math.min(assumedResistanceSpread, (coverageFactor95 * resistance.u) / resistance.value)
  return cellResistanceOf(pack).from === 'assumed' ? assumedResistanceSpread : 0
}

/**
 * How a loadout of `massG` grams flies on a pack. `lines` are those on board (for what bears the current). The band goes
 * from hard to gentle flying of the style and over what the efficiency may be; the two are independent, so their logarithms
 * add as squares. Where flights have taught something it is what they leave, with what is one flight's own.
 * An assumed resistance widens it a little.
 */
export function forecast(craft: Craft, lines: readonly Line[], pack: Line, massG: number, plan: TaughtPlan): Forecast {
  const model = taughtPackModel(pack, plan)
  const asked = dischargeAsked(craft, pack, massG, plan)
  const idealW = idealHoverW(massG, craft.areaM2, craft.densityKgM3)
  const liftW = asked.powerW - craft.avionicsW
  const band = bandOfPower(craft, plan)
  const off = resistanceSpread(pack, plan)
  const at = (factor: number, resistance: number) =>
    discharge(
      { ...model, cellResistanceMohm: model.cellResistanceMohm * resistance },
      { ...asked, powerW: liftW * factor + craft.avionicsW },
    )
  const usual = at(1, 1)
  const gentle = at(band.gentle, 1 - off)
  const hard = at(band.hard, 1 + off)
  const throttle = (charge: number) => fullThrottle(craft.motors, craft.avionicsW, model, charge)
  const atStart = throttle(asked.startCharge)
  const atEnd = usual.timeS > 0 ? throttle(usual.endCharge) : null
  const [start, end] = [atStart, atEnd].map(full => (full === 'collapses' ? null : full)) as [
    FullThrottle | null,
    FullThrottle | null,
  ]
  const hoverW = idealW / craft.efficiency + craft.avionicsW
  const middleV = Math.max(1e-9, (usual.startV + usual.endV) / 2)
  const meanA = usual.timeS > 0 ? (usual.consumedMah * 3.6) / usual.timeS : 0
  const links =
    usual.timeS > 0
      ? linksOf(
          lines,
          pack,
          meanA,
          craft.motors.reduce((sum, on) => sum + on.count, 0),
          start,
        )
      : []
  return {
    minutes: usual.timeS / 60,
    gentleMinutes: gentle.timeS / 60,
    hardMinutes: hard.timeS / 60,
    endedBy: usual.endedBy,
    why: usual.timeS > 0 ? null : whyNot(usual.endedBy, asked, pack),
    meanW: asked.powerW,
    hoverW,
    hoverA: usual.timeS > 0 ? hoverW / middleV : 0,
    meanA,
    consumedMah: usual.consumedMah,
    start,
    end,
    thrustToWeightStart: start?.thrustG == null ? null : start.thrustG / massG,
    thrustToWeightEnd: end?.thrustG == null ? null : end.thrustG / massG,
    collapses: atStart === 'collapses' ? 'at the start' : atEnd === 'collapses' ? 'at the end' : null,
    links,
    restsOn: taughtLnKappa(craft, plan)?.restsOn ?? null,
    packFlights: Math.max(learntOf(pack, plan).usable?.flights ?? 0, learntOf(pack, plan).resistance?.flights ?? 0),
    weakest: links.reduce<Link | null>((worst, link) => (worst && worst.share >= link.share ? worst : link), null),
  }
}

function whyNot(ending: Ending, { powerW, cutOffCellV, reserve }: DischargeOf, pack: Line): string {
  const name = packLabel(pack)
  if (ending === 'collapse') return `${name} cannot give ${fixed(powerW, 0)} W: its volts collapse.`
  if (ending === 'cut-off')
    return `${name} falls below ${fixed(cutOffCellV, 2)} V a cell at once when asked for ${fixed(powerW, 0)} W.`
  return ending === 'reserve'
    ? `${name} starts with no more charge than the reserve of ${fixed(reserve * 100, 0)} %.`
    : `${name} starts empty.`
}

/** What the current goes through, each against what it bears; only what is known. */
function linksOf(lines: readonly Line[], pack: Line, meanA: number, motors: number, full: FullThrottle | null): Link[] {
  return bearingsOf(lines, pack).map(({ part, lineId, continuousA, burstA, ofOneMotor }): Link => {
    const mean = ofOneMotor ? meanA / Math.max(1, motors) : meanA
    const fullA = full === null ? null : ofOneMotor ? Math.max(...full.motorsA.map(one => one.amps)) : full.currentA
    const bears = burstA ?? continuousA
    return {
      name: part,
      lineId,
      meanA: mean,
      continuousA,
      fullA,
      burstA: bears,
      atLeast: full?.atLeastA ?? false,
      share: Math.max(mean / continuousA, fullA === null ? 0 : fullA / bears),
    }
  })
}
