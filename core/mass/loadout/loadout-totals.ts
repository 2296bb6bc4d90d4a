import type { Build, Line, LoadoutChoice, Setup, Slot } from '../../model/ledger'
import { RunningSum } from '../../maths/numbers'
import { isOptional, optionalTies } from './counted'
import type { LineEstimates, LinePart } from './line-estimates'
import { Flies, togetherG, whenItFlies } from './parts-of-sum'

/** Mean and spread of one loadout. */
export interface LoadoutMass {
  readonly choice: LoadoutChoice
  readonly massG: number
  readonly sigmaG: number
  /** Counted lines that have no grams yet. */
  readonly openLines: number
  /** Whether there is anything among them that could fly: a frame, a motor or a board. A strap by itself is no craft. */
  readonly isCraft: boolean
}

const bodySlots: ReadonlySet<Slot> = new Set(['frame', 'motor', 'board'])

const nothingLearnt = { shiftG: 0, knownG2: 0 }

/** A running sum of lines: compensated value, own variance, shared coefficients, lines without grams. */
class Sum {
  readonly grams = new RunningSum()
  ownVarianceG2 = 0
  openLines = 0
  bodies = 0
  readonly sharedG: Float64Array
  readonly common: Float64Array
  constructor(causeCount: number, observationCount: number) {
    this.sharedG = new Float64Array(causeCount)
    this.common = new Float64Array(observationCount)
  }

  add(part: LinePart, { mass, slot }: Line): void {
    this.grams.add(part.valueG)
    this.ownVarianceG2 += part.ownVarianceG2
    for (let c = 0; c < part.causes.length; c++) this.sharedG[part.causes[c]!]! += part.coefficientsG[c]!
    if (part.common) for (let i = 0; i < part.common.length; i++) this.common[i]! += part.common[i]!
    if (!mass) this.openLines++
    if (bodySlots.has(slot)) this.bodies++
  }
}

/**
 * The loadouts of a build, kept from edit to edit: only lines that became other objects are worked out again, and a
 * loadout is the sum of an airframe part, a set-up part and a pack part, whatever the number of lines.
 * The result is the same as adding every estimate key by key.
 */
export class LoadoutTotals {
  private lines: readonly Line[] = []
  private parts: LinePart[] = []
  private flies: Flies[] = []
  private ties: ReadonlySet<string> = new Set()
  /** Airframe lines that fly with what they are tied to. */
  private tied: readonly number[] = []
  private indexOf = new Map<string, number>()

  constructor(
    private readonly estimates: LineEstimates,
    private readonly counts: (line: Line) => boolean = () => true,
  ) {}

  /** Mean and spread of each loadout asked for, in grams. */
  masses(build: Build, choices: readonly LoadoutChoice[]): LoadoutMass[] {
    this.takeIn(build.lines)
    const causes = this.estimates.causeCount
    const observations = this.estimates.observationCount
    const airframe = new Sum(causes, observations)
    for (let i = 0; i < this.lines.length; i++) {
      if (this.flies[i] === Flies.always) airframe.add(this.parts[i]!, this.lines[i]!)
    }
    const asked = new Set(choices.map(choice => choice.setupId))
    const flown = build.setups.filter(setup => asked.has(setup.id))
    const setups = new Map(flown.map(setup => [setup.id, this.setupSum(setup, causes)]))
    const none = new Sum(causes, observations)
    const packs = new Map<string | null, Sum>([[null, none]])
    const result: LoadoutMass[] = []
    for (const choice of choices) {
      const setup = setups.get(choice.setupId) ?? none
      let pack = packs.get(choice.packLineId)
      if (!pack) {
        pack = this.packSum(choice.packLineId!, causes)
        packs.set(choice.packLineId, pack)
      }
      let variance = airframe.ownVarianceG2 + setup.ownVarianceG2 + pack.ownVarianceG2
      for (let c = 0; c < causes; c++) {
        const coefficientG = airframe.sharedG[c]! + setup.sharedG[c]! + pack.sharedG[c]!
        variance += coefficientG * coefficientG
      }
      const learnt =
        observations === 0
          ? nothingLearnt
          : this.estimates.learnt(airframe.common.map((c, i) => c + setup.common[i]! + pack.common[i]!))
      variance = Math.max(0, variance - learnt.knownG2)
      result.push({
        choice,
        massG: togetherG(airframe.grams, setup.grams, pack.grams, learnt.shiftG),
        sigmaG: Math.sqrt(variance),
        openLines: airframe.openLines + setup.openLines + pack.openLines,
        isCraft: airframe.bodies + setup.bodies + pack.bodies > 0,
      })
    }
    return result
  }

  private takeIn(lines: readonly Line[]): void {
    if (lines === this.lines) return
    let moved = lines.length !== this.lines.length
    const ties = optionalTies(lines)
    const tiesMoved = ties.size + this.ties.size > 0
    for (let i = 0; i < lines.length; i++) {
      const line = lines[i]!
      // What a line is tied to may have come or gone with another line.
      if (line !== this.lines[i] || (tiesMoved && line.tie))
        this.flies[i] = this.counts(line) ? whenItFlies(line, ties) : Flies.never
      if (line === this.lines[i]) continue
      moved ||= line.id !== this.lines[i]?.id
      this.parts[i] = this.estimates.partOf(line)
    }
    this.ties = ties
    this.tied =
      ties.size === 0
        ? []
        : lines.flatMap((line, i) => (this.flies[i] === Flies.bySetup && !isOptional(line) ? [i] : []))
    this.parts.length = this.flies.length = lines.length
    this.lines = lines
    if (moved) this.indexOf = new Map(lines.map((line, i) => [line.id, i]))
  }

  private setupSum(setup: Setup, causes: number): Sum {
    const sum = new Sum(causes, this.estimates.observationCount)
    for (const id of setup.lineIds) {
      const i = this.indexOf.get(id)
      if (i !== undefined && this.flies[i] === Flies.bySetup && isOptional(this.lines[i]!))
        sum.add(this.parts[i]!, this.lines[i]!)
    }
    if (this.tied.length === 0) return sum
    const flown = optionalTies(setup.lineIds.flatMap(id => this.lines[this.indexOf.get(id) ?? -1] ?? []))
    for (const i of this.tied) if (flown.has(this.lines[i]!.tie!)) sum.add(this.parts[i]!, this.lines[i]!)
    return sum
  }

  private packSum(lineId: string, causes: number): Sum {
    const sum = new Sum(causes, this.estimates.observationCount)
    const i = this.indexOf.get(lineId)
    if (i !== undefined && this.flies[i] === Flies.byPack) sum.add(this.parts[i]!, this.lines[i]!)
    return sum
  }
}

const sheets = new WeakMap<LineEstimates, { readonly all: LoadoutTotals; readonly lasting: LoadoutTotals }>()

function sheetsOf(estimates: LineEstimates) {
  const known = sheets.get(estimates)
  if (known) return known
  const made = { all: new LoadoutTotals(estimates), lasting: new LoadoutTotals(estimates, line => !line.removable) }
  sheets.set(estimates, made)
  return made
}

/** The loadouts asked for, through the sheet that belongs to these estimates. */
export function loadoutMasses(
  build: Build,
  choices: readonly LoadoutChoice[],
  estimates: LineEstimates,
): LoadoutMass[] {
  return sheetsOf(estimates).all.masses(build, choices)
}

/** The same without what comes off as a removable accessory. */
export function loadoutMassesWithoutRemovable(
  build: Build,
  choices: readonly LoadoutChoice[],
  estimates: LineEstimates,
): LoadoutMass[] {
  return sheetsOf(estimates).lasting.masses(build, choices)
}
