import { fixed } from '../../text/display'
import { spliceG, wiresG } from '../../mass/mass-calculators'
import { measureOf } from '../../model/properties'
import type { Line } from '../../model/ledger'
import { isSaidWire, type SaidWire, type WirePlan } from '../../model/data'

/** What a lead comes to: what to cut, what it weighs, what trimming saves, or what a splice would cost when it is too short. */
export interface PlannedWire {
  readonly wire: SaidWire
  /** Way and slack, mm. */
  readonly lengthMm: number
  readonly massG: number
  /** Grams trimmed off when what is there is longer; 0 otherwise. */
  readonly savedG: number
  /** How far what is there falls short of the way alone, mm; 0 when it reaches. */
  readonly shortMm: number
  /** Grams a splice to the full length would add; 0 when it reaches. */
  readonly spliceG: number
  readonly words: string
}

/** One lead of the plan. Source of grams: stranded wire with a silicone jacket. */
export function planWire(wire: SaidWire): PlannedWire {
  const wanted = wire.routeMm + wire.slackMm
  const have = wire.haveMm
  const shortMm = have === null ? 0 : Math.max(0, wire.routeMm - have)
  const lengthMm = have !== null && shortMm === 0 ? Math.min(have, wanted) : wanted
  const grams = (mm: number) => (mm > 0 ? wiresG(wire.awg, mm, wire.count) : 0)
  const addedG = shortMm > 0 ? spliceG(wire.awg, wanted - have!, wire.count) : 0
  const savedG = have === null || shortMm > 0 ? 0 : grams(have - lengthMm)
  const massG = shortMm > 0 ? grams(have!) + addedG : grams(lengthMm)
  const words =
    shortMm > 0
      ? `${have} mm is ${shortMm} mm too short for the way of ${wire.routeMm} mm. A splice adds ${fixed(addedG, 2)} g.`
      : have === null
        ? `Cut ${lengthMm} mm.`
        : savedG > 0
          ? `Trim ${have - lengthMm} mm: ${fixed(savedG, 2)} g saved.`
          : lengthMm < wanted
            ? `Reaches, with ${lengthMm - wire.routeMm} mm of slack.`
            : 'Use as it is.'
  return { wire, lengthMm, massG, savedG, shortMm, spliceG: addedG, words }
}

/** The leads that are wholly said, with their sums; those with something still to say are open. */
export function planWires(wires: readonly WirePlan[]): {
  rows: readonly PlannedWire[]
  open: readonly WirePlan[]
  massG: number
  savedG: number
  tooShort: number
} {
  const rows = wires.filter(isSaidWire).map(planWire)
  return {
    rows,
    open: wires.filter(wire => !isSaidWire(wire)),
    massG: rows.reduce((sum, row) => sum + row.massG, 0),
    savedG: rows.reduce((sum, row) => sum + row.savedG, 0),
    tooShort: rows.filter(row => row.shortMm > 0).length,
  }
}

/**
 * A lead to begin with: those of the motors while none is planned, with what the motors say of them (one with a stator
 * has three); else one of which nothing is said.
 */
export function newWire(id: string, wires: readonly WirePlan[], lines: readonly Line[]): WirePlan {
  const blank: WirePlan = {
    id,
    name: 'New lead',
    from: '',
    to: '',
    awg: null,
    count: null,
    routeMm: null,
    slackMm: null,
    haveMm: null,
  }
  const motor = lines.find(line => line.slot === 'motor')
  if (!motor || wires.some(wire => wire.from === 'motors' || wire.to === 'motors')) return blank
  return {
    ...blank,
    name: 'Motor leads',
    from: 'motors',
    to: 'board',
    awg: measureOf(motor, 'leadAwg') ?? null,
    count: measureOf(motor, 'statorDiameterMm') === undefined ? null : 3 * motor.quantity,
    haveMm: measureOf(motor, 'leadLengthMm') ?? null,
  }
}
