import { fixed } from '../../text/display'
import { packLabel, type Line } from '../../model/ledger'
import {
  bearingsOf,
  cellResistanceOf,
  fullThrottle,
  packModelOf,
  startChargeOf,
  type Craft,
  type FullThrottle,
} from '../currents'
import {
  assumedResistanceSpread,
  discharge,
  dischargePoints,
  efficiencySpread,
  idealHoverW,
  meanFlightW,
  styleFactors,
  usualCutOffV,
  type DischargeOf,
  type DischargePoint,
  type Ending,
  type FlightPlan,
} from '../power'

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
}

/** Landing asks for at least this much thrust over the weight. */
const landingThrustToWeight = 1.5
/** Whether a flight ends with too little thrust to land on; false where nothing is known of it. */
export const landsWeakly = ({ thrustToWeightEnd }: Pick<Forecast, 'thrustToWeightEnd'>): boolean =>
  thrustToWeightEnd !== null && thrustToWeightEnd < landingThrustToWeight

/** What the discharge of one loadout at its mean power is asked for. */
export function dischargeAsked(craft: Craft, pack: Line, massG: number, plan: FlightPlan): DischargeOf {
  const idealW = idealHoverW(massG, craft.areaM2, craft.densityKgM3)
  return {
    powerW: meanFlightW({
      idealW,
      style: styleFactors[plan.style].usual,
      efficiency: craft.efficiency,
      avionicsW: craft.avionicsW,
    }),
    startCharge: startChargeOf(pack),
    cutOffCellV: plan.endCellV ?? usualCutOffV(pack.pack!.chemistry),
    reserve: plan.reservePercent / 100,
  }
}

/** A loadout's flight as points in time. */
export function flightPoints(craft: Craft, pack: Line, massG: number, plan: FlightPlan): DischargePoint[] {
  return dischargePoints(packModelOf(pack), dischargeAsked(craft, pack, massG, plan))
}

/** Minutes at the usual power of the style alone: what sensitivities are taken from. */
export function minutesOf(craft: Craft, pack: Line, massG: number, plan: FlightPlan): number {
  return discharge(packModelOf(pack), dischargeAsked(craft, pack, massG, plan)).timeS / 60
}

/**
 * How a loadout of `massG` grams flies on a pack. `lines` are those on board (for what bears the current). The band goes
 * from hard to gentle flying of the style and over what the efficiency may be; the two are independent, so their logarithms
 * add as squares. An assumed resistance widens it a little.
 */
export function forecast(craft: Craft, lines: readonly Line[], pack: Line, massG: number, plan: FlightPlan): Forecast {
  const model = packModelOf(pack)
  const asked = dischargeAsked(craft, pack, massG, plan)
  const idealW = idealHoverW(massG, craft.areaM2, craft.densityKgM3)
  const factors = styleFactors[plan.style]
  const spread = Math.log(1 / (1 - efficiencySpread))
  const usualLiftW = asked.powerW - craft.avionicsW
  const lift = (extreme: number) =>
    usualLiftW * Math.exp((extreme > factors.usual ? 1 : -1) * Math.hypot(Math.log(extreme / factors.usual), spread))
  const off = cellResistanceOf(pack).from === 'assumed' ? assumedResistanceSpread : 0
  const at = (liftW: number, resistance: number) =>
    discharge(
      { ...model, cellResistanceMohm: model.cellResistanceMohm * resistance },
      { ...asked, powerW: liftW + craft.avionicsW },
    )
  const usual = at(usualLiftW, 1)
  const gentle = at(factors.gentle === factors.usual ? usualLiftW * Math.exp(-spread) : lift(factors.gentle), 1 - off)
  const hard = at(factors.hard === factors.usual ? usualLiftW * Math.exp(spread) : lift(factors.hard), 1 + off)
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
