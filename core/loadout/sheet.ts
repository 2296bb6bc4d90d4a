import { sumCompensated } from '../numbers'
import { exactly, type Estimate } from '../estimate'
import { lineEstimate } from '../evidence'
import type { HonestyTable } from '../listings'
import type { Build, Line, LoadoutChoice } from '../ledger'
import { airframeLines, packLines, setupLines } from './counted'

/** The estimates of a build's lines, kept by line object: an edit makes one new object, so one new estimate. */
export class LineEstimates {
  private known = new WeakMap<Line, Estimate>()
  constructor(private readonly honesty: HonestyTable) {}

  of(line: Line): Estimate {
    const known = this.known.get(line)
    if (known) return known
    const made = line.mass ? lineEstimate(line, this.honesty) : exactly(0)
    this.known.set(line, made)
    return made
  }
}

/** Mean and spread of one loadout. */
export interface LoadoutMass {
  readonly choice: LoadoutChoice
  readonly massG: number
  readonly sigmaG: number
  /** Counted lines that have no grams yet. */
  readonly openLines: number
}

/**
 * A part of the sum: its value, the variance of causes that stand in one line only, and the coefficients
 * of shared causes by index. Shared causes must add before squaring; own causes may be squared at once.
 */
interface Part { valueG: number, ownVarianceG2: number, sharedG: Float64Array, openLines: number }

/**
 * All loadouts of a build at once. Lines are summed once into an airframe part, one part a set-up and one a pack;
 * a loadout is then three parts, whatever the number of lines. Same result as adding every estimate key by key.
 */
export function loadoutMasses(build: Build, choices: readonly LoadoutChoice[], estimates: LineEstimates): LoadoutMass[] {
  const airframe = airframeLines(build)
  const packs = packLines(build)
  const setups = new Map(build.setups.map(setup => [setup.id, setupLines(build, setup)]))
  const optional = new Set([...setups.values()].flat())
  const shared = sharedKeys([...airframe, ...packs, ...optional], estimates)
  const airframePart = partOf(airframe, estimates, shared)
  const setupParts = new Map([...setups].map(([id, lines]) => [id, partOf(lines, estimates, shared)]))
  const packParts = new Map(packs.map(line => [line.id, partOf([line], estimates, shared)]))
  const none = partOf([], estimates, shared)
  return choices.map((choice) => {
    const setupPart = setupParts.get(choice.setupId) ?? none
    const packPart = (choice.packLineId && packParts.get(choice.packLineId)) || none
    let variance = airframePart.ownVarianceG2 + setupPart.ownVarianceG2 + packPart.ownVarianceG2
    for (let i = 0; i < shared.size; i++) {
      variance += (airframePart.sharedG[i]! + setupPart.sharedG[i]! + packPart.sharedG[i]!) ** 2
    }
    return {
      choice,
      massG: sumCompensated([airframePart.valueG, setupPart.valueG, packPart.valueG]),
      sigmaG: Math.sqrt(variance),
      openLines: airframePart.openLines + setupPart.openLines + packPart.openLines,
    }
  })
}

/** Keys that stand in more than one line, with their index. */
function sharedKeys(lines: readonly Line[], estimates: LineEstimates): Map<string, number> {
  const seen = new Set<string>()
  const shared = new Map<string, number>()
  for (const line of lines) {
    for (const key in estimates.of(line).contributions) {
      if (seen.has(key)) {
        if (!shared.has(key)) shared.set(key, shared.size)
      }
      else { seen.add(key) }
    }
  }
  return shared
}

function partOf(lines: readonly Line[], estimates: LineEstimates, shared: Map<string, number>): Part {
  const sharedG = new Float64Array(shared.size)
  let ownVarianceG2 = 0
  let openLines = 0
  for (const line of lines) {
    if (!line.mass) openLines++
    const { contributions } = estimates.of(line)
    for (const key in contributions) {
      const index = shared.get(key)
      const coefficientG = contributions[key]!
      if (index === undefined) ownVarianceG2 += coefficientG * coefficientG
      else sharedG[index]! += coefficientG
    }
  }
  return { valueG: sumCompensated(lines.map(line => estimates.of(line).valueG)), ownVarianceG2, sharedG, openLines }
}
