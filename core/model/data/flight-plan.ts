import type { LoadoutChoice } from './loadout-choice'

export const styles = ['hover', 'cruise', 'freestyle', 'race'] as const
export type Style = (typeof styles)[number]

/** Mean power of a style against hover: usual, gentle, hard. */
export const styleFactors: Readonly<
  Record<Style, { readonly usual: number; readonly gentle: number; readonly hard: number }>
> = {
  hover: { usual: 1, gentle: 1, hard: 1 },
  cruise: { usual: 1.6, gentle: 1.2, hard: 2.3 },
  freestyle: { usual: 2.3, gentle: 1.7, hard: 3.2 },
  race: { usual: 3, gentle: 2.2, hard: 4.5 },
}

/** How a build is flown: what minutes rest on, and what the builder has decided about its loadouts. */
export interface FlightPlan {
  readonly style: Style
  readonly altitudeM: number
  readonly temperatureC: number
  /** Per cent of the capacity that stays in the pack. */
  readonly reservePercent: number
  /** Volts per cell under load at which the flight ends; null: the usual of the chemistry. */
  readonly endCellV: number | null
  /** Volts per cell at which the low-volt warning sounds. */
  readonly warnCellV: number | null
  /** Share of the power that lifts, 0.05 to 0.9; null: the usual of the size. */
  readonly efficiency: number | null
  /** Rule cards the loadouts are judged under besides those of Aim: a trip, say. */
  readonly alsoCardIds: readonly string[]
  /** Loadouts that are over and flown so on purpose. */
  readonly overOnPurpose: readonly LoadoutChoice[]
}

export const blankFlightPlan: FlightPlan = {
  style: 'cruise',
  altitudeM: 0,
  temperatureC: 15,
  reservePercent: 15,
  endCellV: null,
  warnCellV: null,
  efficiency: null,
  alsoCardIds: [],
  overOnPurpose: [],
}
