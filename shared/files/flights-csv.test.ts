import { describe, expect, it } from 'vitest'
import type { Flight } from '../../core/aircraft/flown'
import { testFlight } from '../../core/aircraft/flown/testing'
import { flightHeads, flightsCsv, readFlightsCsv, type FlightListOf } from './flights-csv'

let made = 0
const { snapshot } = testFlight({ id: 'x' })
const list: FlightListOf = {
  buildId: 'marzipan',
  packs: [{ id: 'p7', label: 'P7' }],
  setups: [{ id: 'day', name: 'day' }],
  usualSetupId: 'day',
  usualStyle: 'cruise',
  snapshot: ({ packLineId }) => (packLineId === null ? { ...snapshot, packLineId, pack: null, craft: null } : snapshot),
  newId: () => `new-${++made}`,
}
function rowsOf(text: string) {
  const read = readFlightsCsv(text, list)
  if ('problem' in read) throw new Error(read.problem)
  return read
}

describe('a list of flights', () => {
  it('goes out and comes in as it was', () => {
    const flights: Flight[] = [
      testFlight({ id: 'a', note: 'gusty; "howling"\nsecond line', place: '=wall', windMps: 3, airC: -2.5 }),
      testFlight({
        ...{ id: 'b', style: 'race', flownAt: '2026-11-03T09:05:07', durationS: 201, firstWarningS: 180 },
        ...{ putBackMah: 641, loggedMah: 630.5, landing: { volts: 3.62, of: 'cell', loadA: 12, isFresh: true } },
      }),
    ]
    const { flights: back, refused } = rowsOf(flightsCsv(flights, new Map()))
    expect(refused).toEqual([])
    expect(back.map(({ id: _id, ...rest }) => rest)).toEqual(flights.map(({ id: _id, ...rest }) => rest))
  })
  it('needs a day and a time in the air, and takes the usual for the rest', () => {
    const { flights } = rowsOf('Flown at;Flown\n2026-11-02;3,2\n')
    expect(flights).toEqual([
      expect.objectContaining({ flownAt: '2026-11-02T12:00', durationS: 192, style: 'cruise', landing: null }),
    ])
    expect(flights[0]!.snapshot.pack).toBeNull()
    for (const heads of ['Flown at,Pack\n2026-11-02,P7\n', 'Flown,Pack\n3:20,P7\n'])
      expect(readFlightsCsv(heads, list)).toEqual({ problem: expect.stringContaining('No column is called') })
    expect(readFlightsCsv('', list)).toEqual({ problem: expect.stringContaining('no rows') })
    const many = `Flown at,Flown\n${'2026-11-02,3:20\n'.repeat(2001)}`
    expect(readFlightsCsv(many, list)).toEqual({ problem: expect.stringContaining('2,001 rows') })
  })
  it('tells rows that can be no flights, and reads the others', () => {
    const rows = [
      ['2026-11-02 10:00', 'P7', '3:20', '14.9', ''],
      ['yesterday', 'P7', '3:20', '', ''],
      ['2026-11-02', 'P9', '3:20', '', ''],
      ['2026-11-02', 'P7', '400', '', ''],
      ['2026-11-02', 'P7', '3:20', '47', ''],
      ['2026-11-02', 'P7', '3:20', '', 'soaring'],
      ['2026-11-02', 'P7', '3:20', 'low', ''],
    ]
    const text = `Flown at,Pack,Flown,"Landed, V",Style\n${rows.map(row => row.join(',')).join('\n')}\n`
    const { flights, refused } = rowsOf(text)
    expect(flights).toHaveLength(1)
    expect(refused.map(({ row }) => row)).toEqual([3, 4, 5, 6, 7, 8])
    for (const [i, part] of ['write the day', '“P9” is not', '180 minutes', '47 V', 'soaring', 'Landed, V'].entries())
      expect(refused[i]!.sentence).toContain(part)
  })
  it('has every figure of a flight among its heads', () => {
    expect(flightHeads).toHaveLength(16)
    expect(flightsCsv([], new Map()).split('\r\n')[0]).toContain('Minutes, reserve kept')
  })
})
