import Papa from 'papaparse'
import { describe, expect, it } from 'vitest'
import {
  airborne,
  airborneThresholdA,
  logFigures,
  loggedResistance,
  LogReader,
  readHeads,
  type TelemetryLog,
} from '../../core/aircraft/telemetry'
import { flyAndLog, logText, usualFlight, type FlightTraits } from './flight-log'

/** A log read as the application reads it: parsed, heads understood, rows one by one. */
function read(text: string): TelemetryLog {
  const rows = Papa.parse<string[]>(text).data
  const heads = readHeads(rows.slice(0, 200))
  const reader = new LogReader(heads.columns, heads.isDecimalComma)
  for (const row of rows.slice(heads.headRows)) reader.push(row)
  return reader.done()
}
const wholeOf = ({ timeS }: TelemetryLog) => ({ fromS: 0, toS: timeS.at(-1)! })
/** Made-up flights that differ in pack, power and how quickly the throttle changes. */
const made = (seed: number): FlightTraits => ({
  ...usualFlight,
  seed,
  changesS: 0.6 + (seed % 5) * 0.3,
  meanW: 110 + (seed % 7) * 8,
  seconds: 140 + (seed % 3) * 30,
  pack: { ...usualFlight.pack, cellResistanceMohm: 6 + (seed % 4) * 2 },
})

describe('a made-up log, read', () => {
  it.each([
    ['points and seconds', false],
    ['commas and milliseconds', true],
  ])('with %s, gives the charge, the flight and the peak it was made of', (_words, isDecimalComma) => {
    const { rows, truth } = flyAndLog(usualFlight)
    const log = read(logText(rows, isDecimalComma))
    expect(log.timeS.length).toBe(rows.length)
    expect(log.setAside).toEqual({ backwards: 0, timeless: 0, texts: 0, firstText: null })
    const figures = logFigures(log, wholeOf(log), 4)
    expect(Math.abs(figures.mah / truth.loggedMah - 1)).toBeLessThan(0.002)
    expect(figures.gaps).toBe(0)
    const [flown, ...others] = airborne(log, airborneThresholdA(log)!)
    expect(others).toEqual([])
    expect(flown!.fromS).toBeCloseTo(truth.airborneFromS, 0)
    expect(flown!.toS).toBeCloseTo(truth.airborneToS, 0)
    expect(figures.peakA).toBeCloseTo(Math.max(...rows.map(({ amps }) => amps)), 2)
  })
  it('adds up only what was logged, and says what is missing', () => {
    const { rows, truth } = flyAndLog({
      ...usualFlight,
      gaps: [
        [50, 12],
        [120, 5],
      ],
    })
    const log = read(logText(rows))
    const figures = logFigures(log, wholeOf(log), 4)
    expect(figures.gaps).toBe(2)
    expect(figures.gapsS).toBeCloseTo(17, 0)
    expect(Math.abs(figures.mah / truth.loggedMah - 1)).toBeLessThan(0.002)
    expect(truth.usedMah).toBeGreaterThan(truth.loggedMah * 1.05)
  })
  it('tells resistance within its own 95 % in at least 45 of 50 logs, and charge within 0.2 % in all', () => {
    let inside = 0
    for (let seed = 1; seed <= 50; seed++) {
      const { rows, truth } = flyAndLog(made(seed))
      const log = read(logText(rows))
      expect(Math.abs(logFigures(log, wholeOf(log), 4).mah / truth.loggedMah - 1)).toBeLessThan(0.002)
      const told = loggedResistance(log, airborne(log, airborneThresholdA(log)!)[0]!, 4)
      if ('why' in told) throw new Error(told.why)
      expect(told.isSlow).toBe(false)
      expect(told.u).toBeLessThan(0.1 * told.mohm)
      if (Math.abs(told.mohm - truth.mohm) <= 1.96 * told.u) inside++
    }
    expect(inside).toBeGreaterThanOrEqual(45)
  })
  it('says that a throttle as slow as the blocks makes resistance unsure, and tells none where amps hardly vary', () => {
    const slow = read(logText(flyAndLog({ ...usualFlight, changesS: 25 }).rows))
    expect(loggedResistance(slow, { fromS: 10, toS: 205 }, 4)).toMatchObject({ isSlow: true })
    const steady = read(logText(flyAndLog({ ...usualFlight, swing: 0.02 }).rows))
    expect(loggedResistance(steady, { fromS: 10, toS: 205 }, 4)).toEqual({ why: 'amps hardly vary' })
  })
  it('cannot be made of a pack that does not last', () => {
    expect(() => flyAndLog({ ...usualFlight, seconds: 2000 })).toThrow('does not last')
  })
})
