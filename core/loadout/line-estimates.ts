import { exactly, type Estimate } from '../estimate'
import { isSharedCause, lineEstimate } from '../evidence'
import type { HonestyTable } from '../listings'
import type { Build, Line, Observation } from '../ledger'
import { Conditioning, takenIn } from '../observation'

/**
 * A line's estimate in the form sums are made from: its value, the variance of the causes it has for itself, and the
 * coefficients of the causes it shares with other lines, by the number of the cause.
 */
export interface LinePart {
  readonly valueG: number
  readonly ownVarianceG2: number
  readonly causes: readonly number[]
  readonly coefficientsG: readonly number[]
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
  private readonly madeFrom: { honesty: string, observations: readonly Observation[], common: string }

  constructor(private readonly honesty: HonestyTable, observations: readonly Observation[] = [], common: Common = nothingInCommon) {
    this.commonKeys = new Set(common.keys)
    this.commonVersions = new Set(common.versions)
    this.madeFrom = { honesty: honesty.fingerprint, observations, common: signatureOf(common) }
    this.conditioning = new Conditioning(takenIn(observations, honesty))
  }

  /** The estimates of a build: these ones while nothing they rest on has changed but lines. */
  for(build: Pick<Build, 'lines' | 'observations'>, honesty: HonestyTable): LineEstimates {
    const common = inCommon(build.lines)
    const same = honesty.fingerprint === this.madeFrom.honesty && signatureOf(common) === this.madeFrom.common
      && (build.observations === this.madeFrom.observations || build.observations.length + this.madeFrom.observations.length === 0)
    return same ? this : new LineEstimates(honesty, build.observations, common)
  }

  /** The estimates of a build under the same honesty of listings: these ones while nothing they rest on has changed but lines. */
  forBuild(build: Pick<Build, 'lines' | 'observations'>): LineEstimates {
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

  /** How many different shared causes have been met so far. */
  get causeCount(): number {
    return this.causeNumbers.size
  }

  /** The line's estimate as a part of a sum. */
  partOf(line: Line): LinePart {
    const { valueG, contributions } = this.of(line)
    const causes: number[] = []
    const coefficientsG: number[] = []
    let ownVarianceG2 = 0
    const isRepeated = line.mass !== null && this.commonVersions.has(line.mass.versionId)
    for (const key in contributions) {
      const coefficientG = contributions[key]!
      if (isRepeated || isSharedCause(key) || this.conditioning.touches(key) || this.commonKeys.has(key)) {
        causes.push(this.numberOf(key))
        coefficientsG.push(coefficientG)
      }
      else { ownVarianceG2 += coefficientG * coefficientG }
    }
    return { valueG, ownVarianceG2, causes, coefficientsG }
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

/** What lines have in common besides the causes that are always shared: grams that stand on several of them, and keys of single weighings. */
interface Common { readonly keys: readonly string[], readonly versions: readonly string[] }
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
    if (versions.has(mass.versionId)) { repeated.add(mass.versionId); continue }
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
export function estimatesOf(build: Pick<Build, 'lines' | 'observations'>, honesty: HonestyTable): LineEstimates {
  return new LineEstimates(honesty, build.observations, inCommon(build.lines))
}
