import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  airborne,
  chargeSoFar,
  gapsOf,
  airborneThresholdA,
  clockS,
  logFigures,
  loggedResistance,
  LogReader,
  readHeads,
  withExtremes,
  type TelemetryLog,
} from './index'

function read(rows: readonly (readonly string[])[]): TelemetryLog {
  const { columns, headRows, isDecimalComma } = readHeads(rows)
  const reader = new LogReader(columns, isDecimalComma)
  for (const row of rows.slice(headRows)) reader.push(row)
  return reader.done()
}
/** A log of amps at even times, volts beside it where given. */
const logOf = (amps: readonly number[], stepS = 1, volts?: readonly number[]): TelemetryLog => ({
  timeS: Float64Array.from(amps, (_, i) => i * stepS),
  of: { amps: Float64Array.from(amps), ...(volts ? { packV: Float64Array.from(volts) } : {}) },
  setAside: { backwards: 0, timeless: 0, texts: 0, firstText: null },
})

describe('heads of a log', () => {
  it.each<[string, string[][], object]>([
    [
      'units in brackets',
      [
        ['Time (ms)', 'Voltage [V]', 'Current (mA)', 'Used (mAh)'],
        ['0', '16.8', '500', '0'],
      ],
      {
        time: { index: 0, unit: 'ms' },
        packV: { index: 1, unit: 'V' },
        amps: { index: 2, unit: 'mA' },
        consumedMah: { index: 3, unit: 'mAh' },
      },
    ],
    [
      'a second line of units',
      [
        ['time', 'battery', 'current'],
        ['s', 'mV', 'A'],
        ['0', '16800', '0.5'],
        ['1', '16700', '0.5'],
      ],
      { time: { index: 0, unit: 's' }, packV: { index: 1, unit: 'mV' }, amps: { index: 2, unit: 'A' } },
    ],
    [
      'joined words and bare units',
      [
        ['elapsedTime', 'packVolts', 'A', 'cellVolts'],
        ['0', '16.8', '0.5', '4.2'],
        ['0.1', '16.8', '0.5', '4.2'],
      ],
      {
        time: { index: 0, unit: 's' },
        packV: { index: 1, unit: 'V' },
        amps: { index: 2, unit: 'A' },
        cellV: { index: 3, unit: 'V' },
      },
    ],
  ])('%s', (_words, rows, columns) => {
    expect(readHeads(rows).columns).toEqual(columns)
  })
  it('a unit no head says is judged by the figures, and said to be', () => {
    const rows = (time: string[], volts: string, amps: string) => [
      ['time', 'volts ', 'current'],
      ...time.map(at => [at, volts, amps]),
    ]
    const units = (told: ReturnType<typeof readHeads>) => [
      told.columns.time!.unit,
      told.columns.packV!.unit,
      told.columns.amps!.unit,
    ]
    expect(units(readHeads(rows(['0', '50', '100'], '16800', '12000')))).toEqual(['ms', 'V', 'mA'])
    const told = readHeads([
      ['time', 'battery'],
      ['0', '16800'],
      ['20000', '16790'],
      ['40000', '16780'],
    ])
    expect([told.columns.time!.unit, told.columns.packV!.unit]).toEqual(['µs', 'mV'])
    expect(told.judged).toEqual(['time', 'packV'])
  })
  it('a file without a line of heads has no columns, and one of text no time', () => {
    expect(
      readHeads([
        ['1', '2'],
        ['3', '4'],
      ]).columns,
    ).toEqual({})
    expect(readHeads([]).columns).toEqual({})
    expect(() => new LogReader({}, false)).toThrow()
  })
})

describe('rows of a log', () => {
  it('with decimal commas are read as they are written', () => {
    const log = read([
      ['Time (s)', 'Volts (V)'],
      ['0,5', '16,8'],
      ['1,0', '16,75'],
    ])
    expect([...log.timeS]).toEqual([0, 0.5])
    expect([...log.of.packV!]).toEqual([16.8, 16.75])
  })
  it('whose time runs backwards, or is none, are set aside and counted; a text in a column leaves its row', () => {
    const log = read([
      ['time (s)', 'amps (A)'],
      ['0', '1'],
      ['2', '2'],
      ['1', '3'],
      ['what', '4'],
      ['3', 'five'],
      ['4', ''],
      ['5', '6'],
    ])
    expect([...log.timeS]).toEqual([0, 2, 3, 4, 5])
    expect([...log.of.amps!]).toEqual([1, 2, NaN, NaN, 6])
    expect(log.setAside).toEqual({
      backwards: 1,
      timeless: 1,
      texts: 2,
      firstText: { row: 4, quantity: 'time', text: 'what' },
    })
  })
  it('may be written by the clock, over midnight too', () => {
    expect(clockS('01:02:03.5')).toBe(3723.5)
    expect(clockS('2026-11-02 01:02')).toBe(3720)
    expect(clockS('twelve')).toBeNaN()
    const log = read([
      ['Time', 'amps'],
      ['23:59:59', '1'],
      ['00:00:01.5', '2'],
      ['00:00:02', '3'],
    ])
    expect([...log.timeS]).toEqual([0, 2.5, 3])
    expect(log.setAside.backwards).toBe(0)
  })
  it('are as many as there are', () => {
    const rows = Array.from({ length: 10_000 }, (_, i) => [String(i / 100), String(i)])
    const log = read([['time (s)', 'current (A)'], ...rows])
    expect(log.timeS.length).toBe(10_000)
    expect(log.of.amps!.at(-1)).toBe(9999)
  })
})

describe('what a log adds up to', () => {
  it('charge and energy by trapezoid: 10 A falling to 0 in 36 s at 12 V are 50 mAh and 0.6 Wh', () => {
    const amps = Array.from({ length: 37 }, (_, i) => 10 * (1 - i / 36))
    const told = logFigures(
      logOf(
        amps,
        1,
        amps.map(() => 12),
      ),
      { fromS: 0, toS: 36 },
      4,
    )
    expect(told.mah).toBeCloseTo(50, 9)
    expect(told.wh).toBeCloseTo(0.6, 9)
    expect([told.meanA, told.meanW, told.peakA, told.leastV]).toEqual([
      expect.closeTo(5, 9),
      expect.closeTo(60, 9),
      10,
      12,
    ])
  })
  it('volts of one cell count for all of them; without volts there is no energy, without amps no charge', () => {
    const log = logOf([5, 5, 5])
    const cells: TelemetryLog = { ...log, of: { ...log.of, cellV: Float64Array.from([4, 4, 4]) } }
    expect(logFigures(cells, { fromS: 0, toS: 2 }, 4).meanW).toBeCloseTo(80, 9)
    expect(logFigures(log, { fromS: 0, toS: 2 }, 4).wh).toBeNull()
    const nothing = logFigures({ ...log, of: {} }, { fromS: 0, toS: 2 }, 4)
    expect([nothing.mah, nothing.meanA, nothing.peakA]).toEqual([0, null, null])
  })
  it('two halves of a log add up to the whole of it', () => {
    let cut = 0
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 60, noNaN: true }), { minLength: 3, maxLength: 60 }),
        fc.nat(),
        (amps, n) => {
          const log = logOf(amps, 0.5)
          const end = (amps.length - 1) * 0.5
          const at = (n % amps.length) * 0.5
          const of = (fromS: number, toS: number) => logFigures(log, { fromS, toS }, 4).mah
          expect(of(0, at) + of(at, end)).toBeCloseTo(of(0, end), 9)
          if (at > 0 && at < end) cut++
        },
      ),
    )
    expect(cut).toBeGreaterThan(30)
  })
  it('a craft is in the air above the threshold for over 3 s; short cuts of the throttle are part of the flight', () => {
    const amps = [...on(0, 5), ...on(20, 2), ...on(0, 5), ...on(20, 10), ...on(0, 2), ...on(20, 10), ...on(0, 6)]
    const log = logOf(amps)
    expect(airborneThresholdA(log)).toBe(10)
    expect(airborne(log, 10)).toEqual([{ fromS: 12, toS: 34 }])
    expect(airborne(log, 30)).toEqual([])
    expect(airborneThresholdA(logOf([0, 0, 0]))).toBeNull()
    expect(airborne({ ...log, of: {} }, 1)).toEqual([])
  })
  it('thinned out it keeps every extreme, whatever the buckets', () => {
    let thinned = 0
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -100, max: 100, noNaN: true }), { minLength: 2, maxLength: 300 }),
        fc.integer({ min: 1, max: 20 }),
        (values, buckets) => {
          const { timeS, of } = logOf(values)
          const points = withExtremes(timeS, of.amps!, { fromS: 0, toS: values.length - 1 }, buckets)
          const shown = points.map(({ value }) => value)
          expect(Math.max(...shown)).toBe(Math.max(...values))
          expect(Math.min(...shown)).toBe(Math.min(...values))
          expect(points.length).toBeLessThanOrEqual(4 * buckets)
          expect(points.map(point => point.timeS)).toEqual(points.map(point => point.timeS).sort((a, b) => a - b))
          if (points.length < values.length) thinned++
        },
      ),
    )
    expect(thinned).toBeGreaterThan(10)
  })
})

describe('resistance of a log', () => {
  it('is none where the volts do not fall with the amps: they are of something else', () => {
    const reader = new LogReader(
      { time: { index: 0, unit: 's' }, packV: { index: 1, unit: 'V' }, amps: { index: 2, unit: 'A' } },
      false,
    )
    for (let i = 0; i < 400; i++) reader.push([`${i / 10}`, `${16 - i / 800}`, i % 7 < 3 ? '12' : '6'])
    expect(loggedResistance(reader.done(), { fromS: 0, toS: 40 }, 4)).toEqual({ why: 'volts do not fall' })
  })
  it('is that of volts falling with amps, whatever the charge does', () => {
    const amps = Array.from({ length: 400 }, (_, i) => 20 + 15 * Math.sin(i * 1.7))
    let coulomb = 0
    const volts = amps.map((a, i) => {
      if (i > 0) coulomb += 0.5 * ((a + amps[i - 1]!) / 2)
      return 16.8 - 3e-4 * coulomb - 2e-8 * coulomb ** 2 - 0.035 * a
    })
    const told = loggedResistance(logOf(amps, 0.5, volts), { fromS: 0, toS: 200 }, 4)
    expect(told).toMatchObject({
      mohm: expect.closeTo(35, 6) as number,
      u: expect.closeTo(0.7, 4) as number,
      isSlow: false,
    })
  })
  it('is none without volts, in a few rows, or where amps hardly vary', () => {
    const steady = Array.from({ length: 200 }, () => 20)
    expect(loggedResistance(logOf(steady), { fromS: 0, toS: 199 }, 4)).toEqual({ why: 'no volts or amps' })
    expect(loggedResistance(logOf([1, 2], 1, [4, 4]), { fromS: 0, toS: 1 }, 4)).toEqual({ why: 'too few rows' })
    expect(loggedResistance(logOf(steady, 1, steady), { fromS: 0, toS: 199 }, 4)).toEqual({ why: 'amps hardly vary' })
  })
})

function on(amps: number, seconds: number): number[] {
  return Array.from({ length: seconds }, () => amps)
}

describe('charge over a log', () => {
  const logOf = (rows: readonly (readonly [number, number])[]): TelemetryLog => ({
    timeS: Float64Array.from(rows, ([s]) => s),
    of: { amps: Float64Array.from(rows, ([, amps]) => amps) },
    setAside: { backwards: 0, timeless: 0, texts: 0, firstText: null },
  })
  it('adds up by trapezoid and ends at the charge of the whole', () => {
    const log = logOf([0, 1, 2, 3].map(s => [s, 3.6 * s] as const))
    expect([...chargeSoFar(log)]).toEqual([0, 0.5, 2, 4.5].map(mah => expect.closeTo(mah, 9)))
    expect(chargeSoFar(log).at(-1)).toBeCloseTo(logFigures(log, { fromS: 0, toS: 3 }, 4).mah, 9)
  })
  it('does not bridge a gap, and holds where a row says no amps', () => {
    const log = logOf([
      [0, 3.6],
      [1, 3.6],
      [2, NaN],
      [9, 3.6],
      [10, 3.6],
    ])
    expect([...chargeSoFar(log)]).toEqual([0, 1, 1, 1, 2].map(mah => expect.closeTo(mah, 9)))
    expect(gapsOf(log)).toEqual([{ fromS: 2, toS: 9 }])
  })
})
