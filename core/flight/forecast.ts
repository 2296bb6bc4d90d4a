import type { Line } from '../ledger'
import {
  assumedCellResistanceMohm, assumedResistanceSpread, chargeAtV, connectorNamed, discharge, dischargePoints, efficiencySpread, fullThrottle, idealHoverW, meanFlightW, openCircuitV, styleFactors, usualCutOffV,
  type DischargeOf, type DischargePoint, type Ending, type FlightPlan, type FullThrottle, type PackModel,
} from '../power'
import { measureOf, textOf } from '../properties'
import { gaugeNear } from '../workings'
import type { Craft } from './craft'

/** One thing the current goes through, against what it bears. */
export interface Link {
  readonly name: string
  /** Amps of the flight's mean and of full throttle, each against what is borne for long and in bursts. */
  readonly meanA: number
  readonly continuousA: number
  readonly fullA: number | null
  readonly burstA: number
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
  /** All motors' thrust over the weight, at the start and where the flight ends. */
  readonly thrustToWeightStart: number | null
  readonly thrustToWeightEnd: number | null
  readonly links: readonly Link[]
  readonly weakest: Link | null
}

/** Landing asks for at least this much thrust over the weight. */
export const landingThrustToWeight = 1.5

/** Resistance of a pack's cell, milliohms, and where it comes from. */
export function cellResistanceOf(pack: Line): { readonly mohm: number, readonly from: 'measured' | 'assumed' } {
  const said = measureOf(pack, 'resistanceMohm')
  return said === undefined ? { mohm: assumedCellResistanceMohm(pack.pack!.chemistry, pack.pack!.capacityMah), from: 'assumed' } : { mohm: said, from: textOf(pack, 'resistanceFrom') === 'assumed' ? 'assumed' : 'measured' }
}

/** The charge, 0 to 1, a pack starts a flight with by its own policy: one kept at storage is charged full before. */
export function startChargeOf(pack: Line): number {
  const policy = textOf(pack, 'chargePolicy')
  const { chemistry } = pack.pack!
  const toV = measureOf(pack, 'chargeToV')
  return policy === 'own end voltage' && toV !== undefined ? chargeAtV(chemistry, toV) : 1
}

export function packModelOf(pack: Line): PackModel {
  return { cells: pack.pack!.cells, chemistry: pack.pack!.chemistry, capacityMah: pack.pack!.capacityMah, cellResistanceMohm: cellResistanceOf(pack).mohm }
}

/** What the discharge of one loadout at its mean power is asked for. */
export function dischargeAsked(craft: Craft, pack: Line, massG: number, plan: FlightPlan): DischargeOf {
  const idealW = idealHoverW(massG, craft.areaM2, craft.densityKgM3)
  return { powerW: meanFlightW({ idealW, style: styleFactors[plan.style].usual, efficiency: craft.efficiency, avionicsW: craft.avionicsW }), startCharge: startChargeOf(pack), cutOffCellV: plan.endCellV ?? usualCutOffV(pack.pack!.chemistry), reserve: plan.reservePercent / 100 }
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
  const lift = (extreme: number) => usualLiftW * Math.exp((extreme > factors.usual ? 1 : -1) * Math.hypot(Math.log(extreme / factors.usual), spread))
  const off = cellResistanceOf(pack).from === 'assumed' ? assumedResistanceSpread : 0
  const at = (liftW: number, resistance: number) => discharge({ ...model, cellResistanceMohm: model.cellResistanceMohm * resistance }, { ...asked, powerW: liftW + craft.avionicsW })
  const usual = at(usualLiftW, 1)
  const gentle = at(factors.gentle === factors.usual ? usualLiftW * Math.exp(-spread) : lift(factors.gentle), 1 - off)
  const hard = at(factors.hard === factors.usual ? usualLiftW * Math.exp(spread) : lift(factors.hard), 1 + off)
  const resistanceOhm = model.cells * model.cellResistanceMohm / 1000
  const throttle = (charge: number) => craft.curve && fullThrottle({ curve: craft.curve, motors: craft.motors, besidesW: craft.avionicsW, openV: model.cells * openCircuitV(model.chemistry, charge), resistanceOhm })
  const start = throttle(asked.startCharge)
  const end = usual.timeS > 0 ? throttle(usual.endCharge) : null
  const hoverW = idealW / craft.efficiency + craft.avionicsW
  const middleV = Math.max(1e-9, (usual.startV + usual.endV) / 2)
  const meanA = usual.timeS > 0 ? usual.consumedMah * 3.6 / usual.timeS : 0
  const links = usual.timeS > 0 ? linksOf(lines, pack, meanA, start) : []
  return {
    minutes: usual.timeS / 60, gentleMinutes: gentle.timeS / 60, hardMinutes: hard.timeS / 60, endedBy: usual.endedBy, why: usual.timeS > 0 ? null : whyNot(usual.endedBy, asked, pack),
    meanW: asked.powerW, hoverW, hoverA: usual.timeS > 0 ? hoverW / middleV : 0, meanA, consumedMah: usual.consumedMah, start, end,
    thrustToWeightStart: start && start.thrustG / massG, thrustToWeightEnd: end && end.thrustG / massG,
    links, weakest: links.reduce<Link | null>((worst, link) => worst && worst.share >= link.share ? worst : link, null),
  }
}

function whyNot(ending: Ending, { powerW, cutOffCellV, reserve }: DischargeOf, pack: Line): string {
  const name = pack.pack!.label
  if (ending === 'collapse') return `${name} cannot give ${powerW.toFixed(0)} W: its volts collapse.`
  if (ending === 'cut-off') return `${name} falls below ${cutOffCellV.toFixed(2)} V a cell at once when asked for ${powerW.toFixed(0)} W.`
  return ending === 'reserve' ? `${name} starts with no more charge than the reserve of ${(reserve * 100).toFixed(0)} %.` : `${name} starts empty.`
}

/** What the current goes through: pack, plug, lead, speed controller; only what is known. */
function linksOf(lines: readonly Line[], pack: Line, meanA: number, start: FullThrottle | null): Link[] {
  const links: Link[] = []
  const add = (name: string, mean: number, continuousA: number, full: number | null, burstA: number) => links.push({ name, meanA: mean, continuousA, fullA: full, burstA, share: Math.max(mean / continuousA, full === null ? 0 : full / burstA) })
  const { cRating, capacityMah, plug } = pack.pack!
  const fullA = start?.currentA ?? null
  if (cRating !== null) add('pack', meanA, cRating * capacityMah / 1000, fullA, cRating * capacityMah / 1000)
  const lead = lines.find(line => line.slot === 'power lead')
  const connector = connectorNamed(plug) ?? (lead && connectorNamed(textOf(lead, 'plug') ?? ''))
  if (connector) add('plug', meanA, connector.continuousA, fullA, connector.burstA)
  const awg = lead && measureOf(lead, 'awg')
  const gauge = awg === undefined ? null : gaugeNear(awg)
  if (gauge) add('power lead', meanA, gauge.ratedA, fullA, gauge.ratedA * 2)
  const driver = lines.find(line => line.slot === 'speed controller') ?? lines.find(line => line.slot === 'board')
  const motors = lines.reduce((sum, line) => sum + (line.slot === 'motor' ? line.quantity : 0), 0)
  const continuousA = driver && measureOf(driver, 'ampsContinuous')
  if (continuousA && motors > 0) add('speed controller', meanA / motors, continuousA, fullA === null ? null : fullA / motors, measureOf(driver, 'ampsBurst') ?? continuousA)
  return links
}
