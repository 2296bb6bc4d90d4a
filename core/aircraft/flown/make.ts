import type { FlightFinding } from './finding'
import type { Flight } from './flight'

type Needed = 'id' | 'buildId' | 'flownAt' | 'style' | 'durationS' | 'stepS' | 'snapshot'

/** A flight of which nothing is known but what must be; what differs is given. */
export function makeFlight(given: Pick<Flight, Needed> & Partial<Flight>): Flight {
  return {
    firstWarningS: null,
    landing: null,
    putBackMah: null,
    loggedMah: null,
    resistance: null,
    logId: null,
    windMps: null,
    airC: null,
    place: '',
    note: '',
    isTakenIn: false,
    ...given,
  }
}

/** A finding of which nothing is known but what must be; what differs is given. */
export function makeFinding(
  given: Pick<FlightFinding, 'id' | 'buildId' | 'foundAt' | 'kind' | 'severity'> & Partial<FlightFinding>,
): FlightFinding {
  return {
    flightId: null,
    distanceM: null,
    atS: null,
    suspectLineId: null,
    suspect: '',
    damagedLineIds: [],
    note: '',
    lesson: '',
    tried: [],
    goneAt: null,
    pictureIds: [],
    ...given,
  }
}

/** Flights in the order flown; those of one moment by their id. */
export const byTimeFlown = (a: Pick<Flight, 'id' | 'flownAt'>, b: Pick<Flight, 'id' | 'flownAt'>): number =>
  a.flownAt === b.flownAt ? (a.id < b.id ? -1 : 1) : a.flownAt < b.flownAt ? -1 : 1
