import type { Chemistry, Style } from '../../model/data'
import { packLabel, type Build, type Line, type LoadoutChoice } from '../../model/ledger'
import { countedLines } from '../../mass/loadout'
import { cellResistanceOf, craftOf, driveOf, startChargeOf } from '../currents'
import { flownParts, type FlownPart } from './flown-parts'
import { idealHoverW, usualCutOffV, type FlightPlan } from '../power'

/** The pack of a flight as it was said to be then. */
export interface FlownPack {
  /** The same pack on whichever craft: its part of the drawer, or its line where it came from none. */
  readonly key: string
  readonly label: string
  readonly cells: number
  readonly chemistry: Chemistry
  readonly capacityMah: number
  readonly cellMohm: number
  readonly resistanceFrom: 'measured' | 'assumed'
  /** The charge it started with, 0 to 1. */
  readonly startCharge: number
}

/** What the power of a flight is compared with, as the craft was then. */
export interface FlownCraft {
  readonly idealW: number
  readonly avionicsW: number
  /** Share of the power that lifts, of the class or the builder's own. */
  readonly efficiency: number
  /** Motors, props and cells in one word. */
  readonly drive: string
  readonly reservePercent: number
  /** Volts of a cell under load at which the flight was to end. */
  readonly endCellV: number
}

/** The craft as it was flown: what becomes of the build afterwards changes nothing of it. */
export interface FlightSnapshot {
  readonly revision: number
  readonly setupId: string
  readonly setup: string
  readonly packLineId: string | null
  readonly auwG: number
  readonly sigmaG: number
  readonly altitudeM: number
  readonly temperatureC: number
  /** Those of its parts whose flights are counted. */
  readonly parts: readonly FlownPart[]
  /** Null while nobody has said what the pack is. */
  readonly pack: FlownPack | null
  /** Null where the props or the pack are not known. */
  readonly craft: FlownCraft | null
}

/** Volts after landing, as they were read. */
export interface LandingRead {
  readonly volts: number
  readonly of: 'pack' | 'cell'
  /** Amps it gave meanwhile; null where it rested. */
  readonly loadA: number | null
  /** Read in the first minute after landing. */
  readonly isFresh: boolean
}

/** One flight. Only its time in the air must be known. */
export interface Flight {
  readonly id: string
  readonly buildId: string
  /** Local day and time of take-off, as `2026-11-22T15:42`, or to the second. */
  readonly flownAt: string
  readonly style: Style
  readonly durationS: number
  /** Step of the last digit of the time as it was said, seconds. */
  readonly stepS: number
  readonly firstWarningS: number | null
  readonly landing: LandingRead | null
  readonly putBackMah: number | null
  readonly loggedMah: number | null
  /** Resistance of the pack by its log, milliohms. */
  readonly resistance: { readonly mohm: number; readonly uMohm: number } | null
  /** Its log, kept as a file beside the database. */
  readonly logId: string | null
  readonly windMps: number | null
  readonly airC: number | null
  readonly place: string
  readonly note: string
  /** Taken in although it does not agree with the others. */
  readonly isTakenIn: boolean
  readonly snapshot: FlightSnapshot
}

/** Volts of one cell a landing may be read at: beyond them the figure or the number of cells is wrong. */
export const landingCellV = { least: 2, most: 4.4 } as const
/** Minutes of one flight: none of these craft stays up longer. */
export const mostMinutes = 180

export const packKeyOf = (build: Pick<Build, 'id'>, pack: Pick<Line, 'id' | 'partId'>): string =>
  pack.partId ?? `${build.id}/${pack.id}`

/** The craft as it would be flown now. `revision` is the build's, `massG` and `sigmaG` those of the loadout. */
export function snapshotOf(
  build: Build,
  revision: number,
  choice: LoadoutChoice,
  { massG, sigmaG }: { readonly massG: number; readonly sigmaG: number },
  plan: FlightPlan,
): FlightSnapshot {
  const lines = countedLines(build, choice)
  const pack = lines.find(line => line.id === choice.packLineId && line.pack) ?? null
  return {
    revision,
    setupId: choice.setupId,
    setup: build.setups.find(setup => setup.id === choice.setupId)?.name ?? '',
    packLineId: choice.packLineId,
    auwG: massG,
    sigmaG,
    altitudeM: plan.altitudeM,
    temperatureC: plan.temperatureC,
    parts: flownParts(build, lines),
    pack: pack && flownPackOf(build, pack),
    craft: pack && flownCraftOf(lines, pack, massG, plan),
  }
}

function flownPackOf(build: Build, line: Line): FlownPack {
  const { cells, chemistry, capacityMah } = line.pack!
  const { mohm, from } = cellResistanceOf(line)
  return {
    key: packKeyOf(build, line),
    label: packLabel(line),
    cells,
    chemistry,
    capacityMah,
    cellMohm: mohm,
    resistanceFrom: from,
    startCharge: startChargeOf(line),
  }
}

function flownCraftOf(lines: readonly Line[], pack: Line, massG: number, plan: FlightPlan): FlownCraft | null {
  const craft = craftOf(lines, pack, plan)
  if ('missing' in craft || !(massG > 0)) return null
  return {
    idealW: idealHoverW(massG, craft.areaM2, craft.densityKgM3),
    avionicsW: craft.avionicsW,
    efficiency: craft.efficiency,
    drive: driveOf(lines, pack),
    reservePercent: plan.reservePercent,
    endCellV: plan.endCellV ?? usualCutOffV(pack.pack!.chemistry),
  }
}
