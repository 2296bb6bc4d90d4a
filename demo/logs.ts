import Papa from 'papaparse'
import type { Flight, WorkedFlight } from '../core/aircraft/flown'
import {
  airborne,
  airborneThresholdA,
  logFigures,
  loggedResistance,
  LogReader,
  readHeads,
} from '../core/aircraft/telemetry'
import { flyAndLog, logText, usualFlight } from '../simulators/telemetry/flight-log'

/** Flights of the season that were logged. */
export const loggedFlights = ['sherbet-08', 'praline-13', 'nougat-09'] as const

/** The log of a flight, flown by the same discharge as the flight itself, and the flight with what its log says. */
export function logOf(flight: Flight, { powerW }: WorkedFlight): { readonly text: string; readonly flight: Flight } {
  const pack = flight.snapshot.pack!
  const craft = flight.snapshot.craft!
  const { rows } = flyAndLog({
    ...usualFlight,
    pack: { ...pack, cellResistanceMohm: pack.cellMohm },
    startCharge: pack.startCharge,
    seconds: flight.durationS,
    devicesW: craft.avionicsW,
    meanW: powerW!,
    // One cell draws fewer amps, and is read to finer steps.
    noiseA: 0.02 * (powerW! / (3.8 * pack.cells)),
    noiseV: 0.003 * pack.cells,
    rowsPerSecond: 10,
    gaps: flight.buildId === 'praline' ? [[118, 2.6]] : [],
    seed: 40 + flight.durationS,
  })
  const text = logText(rows)
  const parsed = Papa.parse<string[]>(text, { skipEmptyLines: true }).data
  const { columns, headRows, isDecimalComma } = readHeads(parsed.slice(0, 200))
  const reader = new LogReader(columns, isDecimalComma)
  for (const row of parsed.slice(headRows)) reader.push(row)
  const log = reader.done()
  const [flown] = airborne(log, airborneThresholdA(log)!)
  const told = loggedResistance(log, flown!, pack.cells)
  return {
    text,
    flight: {
      ...flight,
      loggedMah: Number(logFigures(log, flown!, pack.cells).mah.toFixed(1)),
      resistance: 'why' in told ? null : { mohm: Number(told.mohm.toFixed(2)), uMohm: Number(told.u.toFixed(3)) },
    },
  }
}
