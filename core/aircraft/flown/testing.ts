import type { FlightFinding } from './finding'
import type { Flight, FlownCraft, FlownPack } from './flight'
import { makeFinding, makeFlight } from './make'

/** Flights for tests: a 4S craft of 17 W ideal hover power on a pack of 850 mAh, 160 W for 228 s. */
export const testPack: FlownPack = {
  key: 'p',
  label: 'P7',
  cells: 4,
  chemistry: 'LiPo',
  capacityMah: 850,
  cellMohm: 35.3 / 4,
  resistanceFrom: 'measured',
  startCharge: 1,
}
export const testCraft: FlownCraft = {
  idealW: 17.07988,
  avionicsW: 9,
  efficiency: 0.38,
  drive: 'd',
  reservePercent: 15,
  endCellV: 3.5,
}

/** A flight of that craft. */
export const testFlight = (given: { readonly id: string } & Partial<Flight>): Flight =>
  makeFlight({
    ...{ buildId: 'marzipan', flownAt: '2026-11-02T10:00', style: 'freestyle', durationS: 228, stepS: 1 },
    snapshot: {
      ...{ revision: 1, setupId: 'day', setup: 'day', packLineId: 'p7' },
      ...{ auwG: 248, sigmaG: 1, altitudeM: 0, temperatureC: 15, parts: [] },
      ...{ pack: testPack, craft: testCraft },
    },
    ...given,
  })

/** A finding of that craft. */
export const testFinding = (given: { readonly id: string } & Partial<FlightFinding>): FlightFinding =>
  makeFinding({
    ...{ buildId: 'marzipan', foundAt: '2026-11-02T10:05', kind: 'vibration in the picture', severity: 2 },
    ...given,
  })
