import { addEstimates, exactly, type Estimate } from '../../maths/estimate'
import { isSharedCause, lineEstimate } from '../evidence'
import type { ListingBiasTable } from '../listings'
import type { Build, Line } from '../../model/ledger'
import { Conditioning, linearObservations } from '../observation'

/**
 * A line's estimate before any weighing together, in the form sums are made from: its value, the variance of the causes it
 * has for itself, the coefficients of the causes it shares with other lines, by the number of the cause; and what it has in
 * common with the weighings, by which the sums are mended.
 */
export interface LinePart {
  readonly valueG: number
  readonly ownVarianceG2: number
  readonly causes: readonly number[]
  readonly coefficientsG: readonly number[]
  /** What it has in common with each weighing that speaks of it, g²; null where none does. */
  readonly common: Float64Array | null
}

/**
 * The estimates of a build's lines after its weighings of several lines together, kept by line object: an edit makes one
 * new object, so one new estimate.
 */
export class LineEstimates {
  private readonly estimates = new WeakMap<Line, Estimate>()
  private readonly causeNumbers = new Map<string, number>()
  private readonly conditioning: Conditioning
  private readonly commonKeys: ReadonlySet<string>
  private readonly commonVersions: ReadonlySet<string>
  private readonly madeFrom: { honesty: string; build: Ledger; common: string }

  constructor(
    private readonly honesty: ListingBiasTable,
    build: Ledger = { lines: [], observations: [] },
    common: Common = inCommon(build.lines),
  ) {
    this.commonKeys = new Set(common.keys)
    this.commonVersions = new Set(common.versions)
    this.madeFrom = { honesty: honesty.fingerprint, build, common: signatureOf(common) }
    this.conditioning = new Conditioning(linearObservations(build, honesty))
  }

  /** The estimates of a build: these ones while nothing they rest on has changed but lines that no weighing speaks of. */
  for(build: Ledger, honesty: ListingBiasTable): LineEstimates {
    const common = inCommon(build.lines)
    const same =
      honesty.fingerprint === this.madeFrom.honesty &&
      signatureOf(common) === this.madeFrom.common &&
      sameWeighings(build, this.madeFrom.build)
    return same ? this : new LineEstimates(honesty, build, common)
  }

  /** The estimates of a build under the same honesty of listings. */
  forBuild(build: Ledger): LineEstimates {
    return this.for(build, this.honesty)
  }

  /** Ids of observations left out because they contradict the others exactly. */
  get contradictions(): readonly string[] {
    return this.conditioning.contradictions
  }

  /** The whole estimate of a line; exactly 0 g while it has no grams. */
  of(line: Line): Estimate {
    const known = this.estimates.get(line)
    if (known) return known
    const made = this.conditioning.of(this.before(line))
    this.estimates.set(line, made)
    return made
  }

  /** What a line was known to be before any weighing together. */
  before(line: Line): Estimate {
    return line.mass ? lineEstimate(line, this.honesty) : exactly(0)
  }

  /**
   * How far each weighing moves a line from what it was known to be before, grams, largest first; ids of weighings or
   * of versions weighed beside.
   */
  movedBy(line: Line): { readonly id: string; readonly shiftG: number }[] {
    return this.conditioning.shiftsOf(this.before(line))
  }

  /** The sum of lines, after every weighing. */
  sum(lines: readonly Line[]): Estimate {
    return this.conditioning.of(addEstimates(lines.map(line => this.before(line))))
  }

  /** How many weighings speak of lines. */
  get observationCount(): number {
    return this.conditioning.size
  }

  /** What weighings that a sum has so much in common with make of it: how far it moves, grams, and by how much its variance falls, g². */
  learnt(common: Float64Array): { readonly shiftG: number; readonly knownG2: number } {
    return { shiftG: this.conditioning.shiftG(common), knownG2: this.conditioning.knownG2(common) }
  }

  /** How many different shared causes have been met so far. */
  get causeCount(): number {
    return this.causeNumbers.size
  }

  /** The line's estimate as a part of a sum. */
  partOf(line: Line): LinePart {
    const before = this.before(line)
    const { valueG, contributions } = before
    const causes: number[] = []
    const coefficientsG: number[] = []
    let ownVarianceG2 = 0
    const isRepeated = line.mass !== null && this.commonVersions.has(line.mass.versionId)
    for (const key in contributions) {
      const coefficientG = contributions[key]!
      if (isRepeated || isSharedCause(key) || this.commonKeys.has(key)) {
        causes.push(this.numberOf(key))
        coefficientsG.push(coefficientG)
      } else {
        ownVarianceG2 += coefficientG * coefficientG
      }
    }
    return { valueG, ownVarianceG2, causes, coefficientsG, common: this.conditioning.inCommon(before) }
  }

  private numberOf(key: string): number {
    let number = this.causeNumbers.get(key)
    if (number === undefined) {
      number = this.causeNumbers.size
      this.causeNumbers.set(key, number)
    }
    return number
  }
}

/** What estimates are made from. */
type Ledger = Pick<Build, 'lines' | 'observations'>

/** Whether the weighings of two states of a build say the same: the same ones, of lines known alike. */
function sameWeighings(now: Ledger, before: Ledger): boolean {
  if (now.observations !== before.observations && now.observations.length + before.observations.length > 0) return false
  if (now.lines === before.lines) return true
  const onPan = new Set(
    now.observations.flatMap(o => (o.state === 'taken in' ? o.subjects.map(subject => subject.id) : [])),
  )
  const spoken = (line: Line) => line.further.length > 0 || onPan.has(line.id)
  if (onPan.size === 0 && !now.lines.some(spoken)) return !before.lines.some(spoken)
  const earlier = new Map(before.lines.map(line => [line.id, line]))
  let known = 0
  for (const line of now.lines) {
    if (!spoken(line)) continue
    const was = earlier.get(line.id)
    if (
      !was ||
      was.mass !== line.mass ||
      was.further !== line.further ||
      was.edition !== line.edition ||
      was.slot !== line.slot ||
      (was.quantity !== line.quantity && line.further.length > 0)
    )
      return false
    known++
  }
  return known === before.lines.filter(spoken).length
}

/**
 * What lines have in common besides the causes that are always shared: grams that stand on several of them, and keys of
 * single weighings.
 */
interface Common {
  readonly keys: readonly string[]
  readonly versions: readonly string[]
}
const nothingInCommon: Common = { keys: [], versions: [] }
const signatureOf = ({ keys, versions }: Common) => `${keys.join()}|${versions.join()}`

/**
 * One product on two lines, or one weighing on duplicated lines, is one cause: the versions of grams and the keys of
 * weighings that stand on more than one line. A booked difference has its causes in common with the lines it was taken from.
 */
function inCommon(lines: readonly Line[]): Common {
  const versions = new Set<string>()
  const repeated = new Set<string>()
  const met = new Set<string>()
  const keys = new Set<string>()
  for (const { mass } of lines) {
    if (!mass) continue
    if (versions.has(mass.versionId)) {
      repeated.add(mass.versionId)
      continue
    }
    versions.add(mass.versionId)
    if (!mass.weighing) continue
    const booked = mass.weighing.method === 'booked difference'
    for (const key in mass.weighing.contributions) {
      if (isSharedCause(key)) continue
      if (booked || met.has(key)) keys.add(key)
      met.add(key)
    }
  }
  if (keys.size + repeated.size === 0) return nothingInCommon
  return { keys: [...keys], versions: [...repeated] }
}

/** The estimates of a build made afresh. */
export function estimatesOf(build: Ledger, honesty: ListingBiasTable): LineEstimates {
  return new LineEstimates(honesty, build)
}
