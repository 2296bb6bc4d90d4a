/** A scale the builder owns. */
export interface Scale {
  readonly id: string
  readonly name: string
  /** Display step d, grams. */
  readonly resolutionG: number
  readonly capacityG: number
  /** Standard deviation s of one placing, grams; null until "the same thing ten times" was done. */
  readonly repeatabilityG: number | null
  /** A check is valid for so many days. */
  readonly checkIntervalDays: number
}

/** A reference mass: what it is said to weigh, and how far it may be off (rectangular half-width). */
export interface ReferenceMass {
  readonly id: string
  readonly name: string
  readonly massG: number
  readonly toleranceG: number
  /** A coin of known mass: a poor man's reference. */
  readonly coin: boolean
}

/** One placing of a check: the references on the pan (none is the empty pan) and what was displayed. */
export interface Placing {
  readonly references: readonly Pick<ReferenceMass, 'id' | 'massG' | 'toleranceG'>[]
  readonly displayG: number
}

/** A scale checked with reference masses at one time. */
export interface ScaleCheck {
  readonly id: string
  readonly scaleId: string
  readonly takenAt: string
  readonly placings: readonly Placing[]
}

/** Repeatability used in sums: the measured one, or one display step until it was measured. Grams. */
export function repeatabilityOf(scale: Pick<Scale, 'resolutionG' | 'repeatabilityG'>): number {
  return scale.repeatabilityG ?? scale.resolutionG
}
