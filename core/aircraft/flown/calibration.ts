import { CoreInputError, requireFinite } from '../../basics/errors'
import { addEstimates, estimateOf, varianceG2, type Estimate } from '../../maths/estimate'
import { coverageFactor95, normalCdf } from '../../maths/numbers'
import { Conditioning, type LinearObservation } from '../../mass/observation'
import { efficiencySpread, styleFactors, type Style } from '../power'

/**
 * What flights say of the power a craft asks for. The unknown is ln κ, κ = (P − P of the devices)/ideal hover power, with
 * causes for the craft, its drive, the style, and each flight of its own. They are conditioned by the code that conditions
 * grams; its fields in grams hold logarithms here.
 */

/** What the minutes of one loadout are asked for: the causes it shares with flights. */
export interface Flying {
  readonly buildId: string
  /** Motors, props and cells in one word: another drive has an efficiency of its own. */
  readonly drive: string
  readonly style: Style
  /** The efficiency of the class or the builder's own, 0 to 1. */
  readonly efficiency: number
}

/** One flight as calibration sees it. */
export interface FlownFlight extends Flying {
  readonly id: string
  /** When it was flown, to put flights in order; those of one moment by their id. */
  readonly at: string
  readonly idealW: number
  readonly avionicsW: number
  /** Mean power, W; null where none fits its minutes and charge. */
  readonly powerW: number | null
  /** Standard uncertainties of the charge and the time, as shares. */
  readonly uCharge: number
  readonly uTime: number
  /** The builder takes it in although it does not agree. */
  readonly isTakenIn: boolean
}

export type HeldFor = 'no power fits' | 'less than the devices' | 'does not agree'

export interface HeldFlight {
  readonly id: string
  readonly why: HeldFor
  /** How many standard uncertainties it is off; above 0 it asked for more power than expected. Null where it has no power. */
  readonly z: number | null
}

/** How well one flight's own power is that of its style and drive, as a logarithm: wind, mood, a line flown otherwise. Our choice. */
export const uOneFlight = 0.15
/** Beyond so many standard uncertainties a flight is held. */
const heldBeyondZ = 2.5
/** So many held flights that agree among themselves say that something has changed. */
const leastOffered = 3

const uEfficiency = efficiencySpread / coverageFactor95
const uStyle = (style: Style) => {
  const { hard, gentle } = styleFactors[style]
  return Math.log(hard / gentle) / (2 * coverageFactor95)
}

/** ln κ before any flight: by the style and the efficiency of the class. */
function priorOf({ buildId, drive, style, efficiency }: Flying): Estimate {
  if (!(efficiency > 0 && efficiency <= 1))
    throw new CoreInputError('calibrate', 'efficiency', efficiency, { is: 'in range', above: 0, most: 1 })
  const half = uEfficiency / Math.SQRT2
  const ofStyle = uStyle(style)
  return estimateOf(Math.log(styleFactors[style].usual / efficiency), {
    [`eta:${JSON.stringify([buildId])}`]: half,
    [`eta:${JSON.stringify([buildId, drive])}`]: half,
    ...(ofStyle > 0 ? { [`style:${style}`]: ofStyle } : {}),
  })
}

/** ln κ of a loadout, and its standard uncertainty without what is one flight's own. */
export interface LnKappa {
  readonly value: number
  readonly u: number
}

/** What a flight says: ln κ, and its own standard uncertainty. */
interface Said {
  readonly flight: FlownFlight
  readonly prior: Estimate
  readonly lnKappa: number
  readonly uOwn: number
}

function saidBy(flight: FlownFlight): Said | HeldFlight {
  const { id, powerW, idealW, avionicsW, uCharge, uTime } = flight
  for (const [field, value] of Object.entries({ idealW, avionicsW, uCharge, uTime }))
    requireFinite('calibrate', field, value)
  if (powerW === null) return { id, why: 'no power fits', z: null }
  if (!(powerW > avionicsW) || !(idealW > 0)) return { id, why: 'less than the devices', z: null }
  const uPower = (Math.hypot(uCharge, uTime) * powerW) / (powerW - avionicsW)
  return {
    flight,
    prior: priorOf(flight),
    lnKappa: Math.log((powerW - avionicsW) / idealW),
    uOwn: Math.hypot(uOneFlight, uPower),
  }
}

/** Mean and covariance of the causes as flights come in one by one, to ask each whether it agrees with those before. */
class SoFar {
  private readonly places = new Map<string, number>()
  private readonly mean: Float64Array
  private readonly covariance: Float64Array

  constructor(flights: readonly Said[]) {
    for (const { prior } of flights)
      for (const key in prior.contributions) if (!this.places.has(key)) this.places.set(key, this.places.size)
    const n = this.places.size
    this.mean = new Float64Array(n)
    this.covariance = new Float64Array(n * n)
    for (let i = 0; i < n; i++) this.covariance[i * n + i] = 1
  }

  /** What a flight departs from its expectation, its variance without what is its own, and what moves with it. */
  private look({ prior, lnKappa }: Said) {
    const n = this.places.size
    const moved = new Float64Array(n)
    let expected = prior.valueG
    for (const key in prior.contributions) {
      const [at, coefficient] = [this.places.get(key)!, prior.contributions[key]!]
      expected += coefficient * this.mean[at]!
      for (let i = 0; i < n; i++) moved[i]! += coefficient * this.covariance[i * n + at]!
    }
    let variance = 0
    for (const key in prior.contributions) variance += prior.contributions[key]! * moved[this.places.get(key)!]!
    return { off: lnKappa - expected, variance, moved }
  }

  meet(said: Said): FlightAgainst {
    const { off, variance } = this.look(said)
    return {
      before: { value: said.lnKappa - off, u: Math.sqrt(Math.max(0, variance)) },
      z: off / Math.sqrt(variance + said.uOwn ** 2),
    }
  }

  takeIn(said: Said): void {
    const n = this.places.size
    const { off, variance, moved } = this.look(said)
    const total = variance + said.uOwn ** 2
    for (let i = 0; i < n; i++) {
      if (moved[i] === 0) continue
      this.mean[i]! += (moved[i]! * off) / total
      for (let k = 0; k < n; k++) this.covariance[i * n + k]! -= (moved[i]! * moved[k]!) / total
    }
  }
}

/** What flights of one craft, drive and style, given one efficiency, say together: their mean by inverse variance. */
export interface SaidTogether extends Flying {
  readonly lnKappa: number
  readonly u: number
  /** How many flights it rests on. */
  readonly flights: number
}

function together(said: readonly Said[]): SaidTogether[] {
  const groups = new Map<string, Said[]>()
  for (const one of said) {
    const { buildId, drive, style, efficiency } = one.flight
    const key = JSON.stringify([buildId, drive, style, efficiency])
    const met = groups.get(key)
    if (met) met.push(one)
    else groups.set(key, [one])
  }
  return [...groups]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([, members]) => {
      const inOrder = [...members].sort(byTime)
      const weight = inOrder.reduce((sum, { uOwn }) => sum + uOwn ** -2, 0)
      const lnKappa = inOrder.reduce((sum, one) => sum + one.lnKappa * one.uOwn ** -2, 0) / weight
      const { buildId, drive, style, efficiency } = members[0]!.flight
      return { buildId, drive, style, efficiency, lnKappa, u: weight ** -0.5, flights: members.length }
    })
}

function observationOf(said: SaidTogether): LinearObservation {
  const { buildId, drive, style, efficiency, lnKappa, u } = said
  const id = JSON.stringify([buildId, drive, style, efficiency])
  return { id, parts: [priorOf(said)], observed: { valueG: lnKappa, contributions: { [`flights:${id}`]: u } } }
}

const byTime = ({ flight: a }: Said, { flight: b }: Said) =>
  a.at === b.at ? (a.id < b.id ? -1 : 1) : a.at < b.at ? -1 : 1

/** What flights teach about the power of any loadout: a few statements, which can be sent and kept. */
export class Taught {
  private readonly conditioning: Conditioning

  constructor(private readonly said: readonly SaidTogether[]) {
    this.conditioning = new Conditioning(said.map(observationOf))
  }

  /** ln κ of a loadout as far as flights tell, and without them where `isWithout`. */
  lnKappa(flying: Flying, isWithout = false): LnKappa {
    const prior = priorOf(flying)
    const known = isWithout ? prior : this.conditioning.of(prior)
    return { value: known.valueG, u: Math.sqrt(varianceG2(known)) }
  }

  /** ln κ of one loadout less that of another: what the two share falls away. */
  difference(one: Flying, other: Flying): LnKappa {
    const [a, b] = [priorOf(one), priorOf(other)]
    const minus = estimateOf(
      -b.valueG,
      Object.fromEntries(Object.entries(b.contributions).map(([key, value]) => [key, -value])),
    )
    const known = this.conditioning.of(addEstimates([a, minus]))
    return { value: known.valueG, u: Math.sqrt(Math.max(0, varianceG2(known))) }
  }

  /** On how many flights of this very craft and drive it rests. */
  flownOn({ buildId, drive }: Pick<Flying, 'buildId' | 'drive'>): number {
    return this.said.reduce((sum, one) => sum + (one.buildId === buildId && one.drive === drive ? one.flights : 0), 0)
  }

  /** On how many flights the minutes of a loadout rest: those of its craft, whichever their drive and style. */
  restsOn({ buildId }: Pick<Flying, 'buildId'>): number {
    return this.said.reduce((sum, one) => sum + (one.buildId === buildId ? one.flights : 0), 0)
  }

  /** How many flights of other craft in its style say something of it. */
  restsOnOthers({ buildId, style }: Pick<Flying, 'buildId' | 'style'>): number {
    if (uStyle(style) === 0) return 0
    return this.said.reduce((sum, one) => sum + (one.buildId !== buildId && one.style === style ? one.flights : 0), 0)
  }
}

/** A flight against what was expected of it: of the flights before it, in the order flown. */
export interface FlightAgainst {
  readonly before: LnKappa
  readonly z: number
}

/** What all flights together say, and which of them are held. */
export class Calibration {
  readonly said: readonly SaidTogether[]
  readonly taught: Taught
  readonly held: readonly HeldFlight[]
  /** Held flights of one craft, drive and style that agree among themselves: something has changed since; ids. */
  readonly offered: readonly (readonly string[])[]
  /** What was expected of each flight that has a power, by its id. */
  readonly asked: ReadonlyMap<string, FlightAgainst>

  constructor(flights: readonly FlownFlight[]) {
    const held: HeldFlight[] = []
    const said: Said[] = []
    for (const flight of flights) {
      const one = saidBy(flight)
      if ('why' in one) held.push(one)
      else said.push(one)
    }
    const soFar = new SoFar(said)
    const off: Said[] = []
    const takenIn: Said[] = []
    const asked = new Map<string, FlightAgainst>()
    for (const one of said.sort(byTime)) {
      const met = soFar.meet(one)
      const { id, isTakenIn } = one.flight
      asked.set(id, met)
      if (Math.abs(met.z) > heldBeyondZ && !isTakenIn) {
        held.push({ id, why: 'does not agree', z: met.z })
        off.push(one)
        continue
      }
      soFar.takeIn(one)
      takenIn.push(one)
    }
    this.held = held
    this.asked = asked
    this.offered = agreeing(off)
    this.said = together(takenIn)
    this.taught = new Taught(this.said)
  }

  lnKappa(flying: Flying, isWithout = false): LnKappa {
    return this.taught.lnKappa(flying, isWithout)
  }

  restsOn(flying: Pick<Flying, 'buildId'>): number {
    return this.taught.restsOn(flying)
  }
}

/** Lists of at least three flights of one craft, drive and style that agree with their own mean. */
function agreeing(off: readonly Said[]): string[][] {
  const groups = new Map<string, Said[]>()
  for (const one of off) {
    const key = JSON.stringify([one.flight.buildId, one.flight.drive, one.flight.style])
    groups.set(key, [...(groups.get(key) ?? []), one])
  }
  return [...groups.values()]
    .map(members => {
      const mean = members.reduce((sum, { lnKappa }) => sum + lnKappa, 0) / members.length
      return members.filter(({ lnKappa, uOwn }) => Math.abs(lnKappa - mean) <= heldBeyondZ * uOwn)
    })
    .filter(members => members.length >= leastOffered)
    .map(members => members.map(({ flight }) => flight.id))
}

/** Power of one flight at so many standard uncertainties from the middle, W; at 0 the middle. */
export function powerAtW({ value, u }: LnKappa, idealW: number, avionicsW: number, z = 0): number {
  return avionicsW + idealW * Math.exp(value + z * Math.hypot(u, uOneFlight))
}

/** How likely one flight lasts to its goal, 0 to 1; `lastsW` is the greatest power at which the pack does. */
export function chanceOfGoal({ value, u }: LnKappa, idealW: number, avionicsW: number, lastsW: number): number {
  if (!(lastsW > avionicsW)) return 0
  return normalCdf((Math.log((lastsW - avionicsW) / idealW) - value) / Math.hypot(u, uOneFlight))
}
