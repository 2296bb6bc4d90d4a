import type { Slot } from './slots'

/** A regulated output of a board, a distribution or a transmitter. */
export interface PowerOutput {
  readonly name: string
  readonly volts: number
  readonly amps: number | null
}
/** One row of a motor's bench table: everything at one throttle position. */
export interface BenchRow {
  readonly throttlePercent: number
  readonly volts: number
  readonly amps: number
  readonly thrustG: number
}

export type PropertyValue = number | string | boolean | readonly string[] | readonly PowerOutput[] | readonly BenchRow[]
/** What a part really is, by the keys of its kind. A key that is missing is not known. */
export type Properties = Readonly<Record<string, PropertyValue>>

export const propertyUnits = ['', 'mm', 'V', 'A', 'W', 'mW', 'mΩ', 'µF', 'MHz', 'kV', 'AWG', 'mAh', 'C'] as const
export type PropertyUnit = (typeof propertyUnits)[number]

/**
 * How a property is to be read when two parts meet: what the part is, the most or the least it bears, what it draws or
 * what it gives.
 */
export type Sense = 'is' | 'bears at most' | 'wants at least' | 'draws' | 'gives'

interface Common {
  readonly key: string
  readonly label: string
  readonly sense: Sense
}
export interface Measure extends Common {
  readonly kind: 'measure'
  readonly unit: PropertyUnit
  readonly least: number
  readonly most: number
  readonly whole: boolean
}
export interface Choice extends Common {
  readonly kind: 'choice'
  readonly unit: ''
  readonly choices: readonly string[]
}
export interface Plain extends Common {
  readonly kind: 'text' | 'day' | 'yes' | 'patterns' | 'outputs' | 'bench' | 'provides'
  readonly unit: PropertyUnit
}

/** One property of one kind of part, with its unit and sense. */
export type Property = Measure | Choice | Plain

/** The properties of every kind; the kind of a part is the slot it is made for. */
export type PropertyTable = Readonly<Record<Slot, readonly Property[]>>
