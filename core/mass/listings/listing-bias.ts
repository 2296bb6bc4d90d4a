import { CoreInputError } from '../../basics/errors'
import { sumCompensated } from '../../maths/numbers'
import { isTyped, type Basis, type Line, type Mass, type Slot } from '../../model/ledger'

/** Prior of a kind's mean log ratio: sd 0.03. */
const priorMeanSigma = 0.03
/** Prior within-kind sd, worth `priorWeight` products. */
const priorWithinSigma = 0.04
const priorWeight = 4

/** How parts of one kind have turned out against their listings. Logarithms of weighed/listed; dimensionless. */
export interface KindHonesty {
  /** How many different products it rests on. */
  readonly products: number
  /** Expected ln(weighed/listed), shrunk towards 0. */
  readonly mu: number
  /** Standard uncertainty of that mean, shared by every part of the kind: √v. */
  readonly sharedSigma: number
  /** Product-to-product standard deviation: σ. */
  readonly ownSigma: number
}

/**
 * Normal model with shrinkage for one kind of part.
 * `logRatios` holds one ln(weighed/listed) a product; may be empty (μ = 0 then). Throws on NaN and infinities.
 * Source: conjugate normal mean with known-variance approximation; constants as documented in docs/formulas.md.
 *
 * @example kindBias([1.06, 1.02, 1.05, 1.04, 1.01].map(Math.log)).mu // 0.027153
 */
export function kindBias(logRatios: readonly number[]): KindHonesty {
  const n = logRatios.length
  for (const ratio of logRatios) {
    if (!Number.isFinite(ratio)) throw new CoreInputError('kindBias', 'logRatios', ratio, { is: 'finite' })
  }
  const mean = n === 0 ? 0 : sumCompensated(logRatios) / n
  const squares = sumCompensated(logRatios.map(y => (y - mean) ** 2))
  const nu = priorWeight + Math.max(n - 1, 0)
  const ownVariance = ((priorWeight * priorWithinSigma ** 2 + squares) / nu) * (nu / (nu - 2))
  const sharedVariance = 1 / (1 / priorMeanSigma ** 2 + n / ownVariance)
  return {
    products: n,
    mu: (sharedVariance * n * mean) / ownVariance,
    sharedSigma: Math.sqrt(sharedVariance),
    ownSigma: Math.sqrt(ownVariance),
  }
}

/** One product seen both listed and weighed as it was supplied. */
export interface ListingObservation {
  readonly slot: Slot
  readonly product: string
  readonly ratio: number
}

/**
 * What a build's lines teach about listings: every line with a listing whose present mass was weighed
 * *as supplied*. A mass weighed as fitted (leads cut, case off) is not compared with its listing.
 */
export function listingObservations(lines: readonly Line[]): ListingObservation[] {
  const observations: ListingObservation[] = []
  for (const { slot, name, listing, mass } of lines) {
    if (!listing || !(listing.valueG > 0) || !mass) continue
    if (mass.evidence !== 'weighed' || mass.basis !== 'as supplied' || !(mass.valueG > 0)) continue
    const ratio = mass.valueG / mass.valueCount / listing.valueG
    if (!isSlip(ratio) || isConfirmed(mass))
      observations.push({ slot, product: `${name.trim().toLowerCase()}|${listing.valueG}`, ratio })
  }
  return observations
}

/**
 * Weighed against listed beyond these is taken for a slip of a digit: it teaches nothing until one of the two is
 * mended, or somebody says that both are right.
 */
const [leastRatio, mostRatio] = [0.5, 2]
/** Somebody has looked again and says that listing and weighing are both right. */
const bothRight = ', both right'
const isConfirmed = (mass: Mass) => mass.origin.endsWith(bothRight)
/** The mass, once somebody has said so. */
export const confirmed = (mass: Mass, versionId: string): Mass => ({
  ...mass,
  versionId,
  origin: `${mass.origin.slice(0, 180)}${bothRight}`,
})
const isSlip = (ratio: number) => ratio < leastRatio || ratio > mostRatio
/** So many standard deviations from the others of its kind a product is pointed out. */
const unusualSigmas = 4

/** Why a part that was weighed should be held against its listing once more: a slip of a digit, or far from others of its kind. */
export interface ListingDoubt {
  readonly why: 'slip' | 'unusual'
  readonly weighedG: number
  readonly listedG: number
}

/** The doubt about a line's listing and weighing, grams a piece; null where there is none. `others`: the honesty of its kind without it. */
export function listingDoubt(
  { slot, listing, mass }: Pick<Line, 'slot' | 'listing' | 'mass'>,
  others: ListingBiasTable,
): ListingDoubt | null {
  if (
    !listing ||
    !(listing.valueG > 0) ||
    mass?.evidence !== 'weighed' ||
    mass.basis !== 'as supplied' ||
    !(mass.valueG > 0) ||
    isConfirmed(mass)
  )
    return null
  const weighedG = mass.valueG / mass.valueCount
  const ratio = weighedG / listing.valueG
  const { mu, ownSigma, sharedSigma } = others.of(slot)
  const why = isSlip(ratio)
    ? 'slip'
    : Math.abs(Math.log(ratio) - mu) > unusualSigmas * Math.hypot(ownSigma, sharedSigma)
      ? 'unusual'
      : null
  return why && { why, weighedG, listedG: listing.valueG }
}

/** Parts whose names begin alike, as those of one maker do, and how they turned out together. */
export interface Tendency extends KindHonesty {
  readonly name: string
}

const fewestForTendency = 3

/** The beginning of a product's name: its first word, or what is joined by “&”. */
function beginningOf(product: string): string {
  const words = product.split('|')[0]!.split(/\s+/)
  return words[1] === '&' && words[2] ? words.slice(0, 3).join(' ') : (words[0] ?? '')
}

/** Tendencies of products whose names begin alike, at least three of them; surest departure from the listing first. */
export function tendencies(observations: Iterable<ListingObservation>): Tendency[] {
  const groups = new Map<string, Map<string, number[]>>()
  for (const { product, slot, ratio } of observations) {
    const name = beginningOf(product)
    const products = groups.get(name) ?? new Map<string, number[]>()
    groups.set(name, products)
    const key = `${slot}|${product}`
    products.set(key, [...(products.get(key) ?? []), ratio])
  }
  return [...groups]
    .filter(([name, products]) => name.length > 2 && products.size >= fewestForTendency)
    .map(([name, products]) => ({
      name,
      ...kindBias([...products.values()].map(r => Math.log(sumCompensated(r) / r.length))),
    }))
    .sort((a, b) => Math.abs(b.mu) / b.sharedSigma - Math.abs(a.mu) / a.sharedSigma)
}

/** Listing honesty of every kind seen; kinds never seen get the prior. */
export class ListingBiasTable {
  private readonly kinds = new Map<Slot, KindHonesty>()
  private static readonly prior = kindBias([])

  constructor(observations: Iterable<ListingObservation> = []) {
    const byProduct = new Map<Slot, Map<string, number[]>>()
    for (const { slot, product, ratio } of observations) {
      const products = byProduct.get(slot) ?? new Map<string, number[]>()
      byProduct.set(slot, products)
      products.set(product, [...(products.get(product) ?? []), ratio])
    }
    for (const [slot, products] of byProduct) {
      const logs = [...products.values()].map(ratios => Math.log(sumCompensated(ratios) / ratios.length))
      this.kinds.set(slot, kindBias(logs))
    }
  }

  of(slot: Slot): KindHonesty {
    return this.kinds.get(slot) ?? ListingBiasTable.prior
  }

  private print: string | null = null
  /** A text that is the same exactly when two tables correct alike. */
  get fingerprint(): string {
    this.print ??= [...this.kinds]
      .map(([slot, k]) => `${slot}:${k.products}:${k.mu}:${k.ownSigma}`)
      .sort()
      .join(';')
    return this.print
  }
}

/**
 * Where a mass typed as weighed stands beside a listing and nobody has said whether the part was on the scale as it
 * came: only then does it teach how its kind is listed.
 */
export function basisUnsaid({ listing, mass }: Pick<Line, 'listing' | 'mass'>): boolean {
  return listing !== null && mass?.evidence === 'weighed' && isTyped(mass) && mass.origin === 'typed'
}
/** The mass with the answer. */
export function withBasis(mass: Mass, basis: Basis, versionId: string): Mass {
  return { ...mass, versionId, basis, origin: `typed, ${basis}` }
}
