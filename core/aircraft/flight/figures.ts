import { packWh } from '../power'
import type { LoadoutCell, SheetFlight } from './loadout-matrix'

/** A ratio or figure loadouts can be compared, sorted and drawn by. */
export interface LoadoutFigure {
  readonly key: string
  readonly label: string
  readonly unit: string
  readonly digits: number
  /** Whether more of it is better. */
  readonly moreIsBetter: boolean
  /** Null where it cannot be told. `packG`: grams of the pack. */
  readonly of: (cell: LoadoutCell, flight: SheetFlight | undefined, packG: number) => number | null
}

const told = (flight: SheetFlight | undefined) => (flight?.forecast?.why === null ? flight.forecast : null)

export const loadoutFigures: readonly LoadoutFigure[] = [
  {
    key: 'minutes',
    label: 'Minutes',
    unit: 'min',
    digits: 1,
    moreIsBetter: true,
    of: (_, flight) => told(flight)?.minutes ?? null,
  },
  { key: 'auw', label: 'All-up weight', unit: 'g', digits: 1, moreIsBetter: false, of: cell => cell.massG },
  {
    key: 'headroom',
    label: 'Headroom',
    unit: 'g',
    digits: 1,
    moreIsBetter: true,
    of: cell => cell.binding?.verdict?.headroomG ?? null,
  },
  {
    key: 'thrust',
    label: 'Thrust to weight, start',
    unit: ': 1',
    digits: 1,
    moreIsBetter: true,
    of: (_, flight) => told(flight)?.thrustToWeightStart ?? null,
  },
  {
    key: 'thrust-end',
    label: 'Thrust to weight, end',
    unit: ': 1',
    digits: 1,
    moreIsBetter: true,
    of: (_, flight) => told(flight)?.thrustToWeightEnd ?? null,
  },
  {
    key: 'hover',
    label: 'Hover draw',
    unit: 'A',
    digits: 1,
    moreIsBetter: false,
    of: (_, flight) => told(flight)?.hoverA ?? null,
  },
  {
    key: 'weakest',
    label: 'Weakest link',
    unit: '%',
    digits: 0,
    moreIsBetter: false,
    of: (_, flight) => {
      const share = told(flight)?.weakest?.share
      return share === undefined ? null : share * 100
    },
  },
  {
    key: 'grams-a-minute',
    label: 'Pack grams a minute',
    unit: 'g/min',
    digits: 1,
    moreIsBetter: false,
    of: (_, flight, packG) => {
      const minutes = told(flight)?.minutes
      return minutes && packG > 0 ? packG / minutes : null
    },
  },
  {
    key: 'mah-a-gram',
    label: 'mAh a gram',
    unit: 'mAh/g',
    digits: 1,
    moreIsBetter: true,
    of: (cell, _, packG) => (packG > 0 && cell.pack.pack ? cell.pack.pack.capacityMah / packG : null),
  },
  {
    key: 'wh-a-kilo',
    label: 'Wh a kilogram',
    unit: 'Wh/kg',
    digits: 0,
    moreIsBetter: true,
    of: ({ pack: { pack } }, _, packG) => (packG > 0 ? (packWh(pack!) / packG) * 1000 : null),
  },
]

export function loadoutFigure(key: string): LoadoutFigure {
  return loadoutFigures.find(figure => figure.key === key) ?? loadoutFigures[0]!
}
