import { describe, expect, it } from 'vitest'
import { makeBuild } from '../../changes/commands'
import { makeLine } from '../../model/ledger'
import { flownParts, partLives, type FlownPart } from './index'
import { testFlight } from './testing'

const motors: FlownPart = { key: 'm#0', slot: 'motor', name: 'Ostler 1504' }
const props: FlownPart = { key: 'p#0', slot: 'propeller', name: 'Three-blade' }
const flightOf = (id: string, day: number, buildId: string, ...parts: FlownPart[]) => {
  const flight = testFlight({ id, buildId, flownAt: `2026-11-${String(day).padStart(2, '0')}T10:00`, durationS: 180 })
  return { ...flight, snapshot: { ...flight.snapshot, parts } }
}

describe('what parts have flown', () => {
  it('is counted across builds when a part moves', () => {
    const lives = partLives([flightOf('a', 1, 'b1', motors, props), flightOf('b', 2, 'b2', motors)], [])
    expect(lives).toEqual([
      expect.objectContaining({ key: 'm#0', flights: 2, minutes: 6, buildIds: ['b1', 'b2'], retiredAt: null }),
      expect.objectContaining({ key: 'p#0', flights: 1, minutes: 3, buildIds: ['b1'] }),
    ])
  })
  it('begins anew with a new one; the old one keeps its flights', () => {
    const flights = [1, 2, 3, 4].map(day => flightOf(`f${day}`, day, 'b', props))
    const renewals = [{ id: 'r', buildId: 'b', key: 'p#0', at: '2026-11-03T09:00' }]
    expect(partLives(flights, renewals).map(({ flights: count, retiredAt }) => [count, retiredAt])).toEqual([
      [2, null],
      [2, '2026-11-03T09:00'],
    ])
    // None of the new one has flown yet.
    expect(partLives(flights, [{ ...renewals[0]!, at: '2026-11-05T09:00' }])).toEqual([
      expect.objectContaining({ flights: 4, retiredAt: '2026-11-05T09:00' }),
    ])
  })
  it('goes by the piece: another one in its place has another key', () => {
    const build = makeBuild({ id: 'b', name: 'B' })
    const line = makeLine({ id: 'm', slot: 'motor', name: 'Motors' })
    const keyOf = (more: object) => flownParts(build, [{ ...line, ...more }])[0]!.key
    expect(keyOf({})).toBe('b/m#0')
    expect(keyOf({ partId: 'drawer' })).toBe('drawer#0')
    expect(keyOf({ edition: 1 })).toBe('b/m#1')
    expect(flownParts(build, [makeLine({ id: 's', slot: 'screw', name: 'Screws' })])).toEqual([])
  })
})
