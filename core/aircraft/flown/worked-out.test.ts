import { describe, expect, it } from 'vitest'
import { makeLine } from '../../model/ledger'
import { blankFlightPlan } from '../power'
import { FlightSums, taughtPackModel, workedFlights, type Flight, type Lessons } from './index'
import { testFlight } from './testing'

const at = (n: number) => `2026-11-${String(n).padStart(2, '0')}T10:00`
const worked = (...flights: Flight[]) => {
  const out = new FlightSums().workOut(flights)
  return { out, byId: new Map(workedFlights(flights, out).map(one => [one.id, one])) }
}
const resting = (cellV: number): Flight['landing'] => ({ volts: cellV, of: 'cell', loadA: null, isFresh: false })

describe('flights worked out together', () => {
  it('one flight: its charge, power and minutes with the reserve kept', () => {
    // 663 mAh used of 850 leave 22 %: 160.3 W by the written example.
    const { byId } = worked(testFlight({ id: 'a', putBackMah: (0.78 * 850) / 0.99 }))
    const one = byId.get('a')!
    expect(one.used).toMatchObject({ mah: expect.closeTo(663, 9), uMah: expect.closeTo(663 * 0.015, 9), against: [] })
    expect(one.powerW).toBeCloseTo(160.2968, 3)
    expect(one.held).toBeNull()
    expect(one.toReserve).toBeGreaterThan(228 / 60)
    expect(one.expected!.low).toBeLessThan(one.toReserve!)
    expect(one.expected!.high).toBeGreaterThan(one.toReserve!)
    expect(one.expected!.sureLow).toBeGreaterThan(one.expected!.low)
    expect(one.expected!.sureHigh).toBeLessThan(one.expected!.high)
  })
  it('volts of the pack and volts of a cell are the same landing', () => {
    const { byId } = worked(
      testFlight({ id: 'a', landing: { volts: 14.96, of: 'pack', loadA: null, isFresh: false } }),
      testFlight({ id: 'b', landing: resting(3.74) }),
    )
    expect(byId.get('a')!.used!.mah).toBeCloseTo(byId.get('b')!.used!.mah, 9)
  })
  it('charge and landing volts together say what the pack holds, and those volts are no second evidence', () => {
    const { out, byId } = worked(testFlight({ id: 'a', putBackMah: 668, landing: resting(3.74) }))
    expect(out.packs.get('p')!.usable).toMatchObject({ value: expect.closeTo(661.32 / 0.775, 6), flights: 1 })
    expect(byId.get('a')!.used!.from.map(({ source }) => source)).toEqual(['put back'])
    // What is left is what the volts say, not what the label would.
    expect(byId.get('a')!.left).toBeCloseTo(0.225, 9)
  })
  it('what the pack holds changes the charge of flights known by volts only', () => {
    const voltsOnly = testFlight({ id: 'b', flownAt: at(3), landing: resting(3.74) })
    const [alone, taught] = [
      worked(voltsOnly).byId.get('b')!,
      worked(testFlight({ id: 'a', flownAt: at(2), putBackMah: 600, landing: resting(3.74) }), voltsOnly).byId.get(
        'b',
      )!,
    ]
    expect(alone.used!.mah).toBeCloseTo(0.775 * 850, 9)
    expect(taught.used!.mah).toBeCloseTo(600 * 0.99, 6)
    expect(taught.powerW!).toBeLessThan(alone.powerW!)
  })
  it('resistance by logs takes the place of the assumed, for volts under load and for forecasts', () => {
    const loaded: Flight['landing'] = { volts: 3.45, of: 'cell', loadA: 22, isFresh: false }
    const logged = testFlight({ id: 'a', flownAt: at(2), resistance: { mohm: 48, uMohm: 1 } })
    const [said, taught] = [
      worked(testFlight({ id: 'b', landing: loaded })).byId.get('b')!,
      worked(logged, testFlight({ id: 'b', flownAt: at(3), landing: loaded })).byId.get('b')!,
    ]
    // More was lost in the cells, so it rests higher and more is left.
    expect(taught.used!.mah).toBeLessThan(said.used!.mah)
    const line = makeLine({
      id: 'p',
      slot: 'pack',
      name: 'Pack',
      partId: 'p',
      pack: { label: 'P7', cells: 4, chemistry: 'LiPo', capacityMah: 850, cRating: null, plug: '' },
    })
    const { packs, calibration } = worked(logged).out
    const lessons: Lessons = { buildId: 'marzipan', said: calibration.said, packs: Object.fromEntries(packs) }
    expect(taughtPackModel(line, { ...blankFlightPlan, lessons }).cellResistanceMohm).toBe(12)
    expect(taughtPackModel(line, blankFlightPlan).cellResistanceMohm).not.toBe(12)
  })
  it('without a known pack it says nothing; without known props it has a charge and no power to compare', () => {
    const { snapshot } = testFlight({ id: 'x' })
    const { byId, out } = worked(
      testFlight({ id: 'a', snapshot: { ...snapshot, pack: null, craft: null } }),
      testFlight({ id: 'b', snapshot: { ...snapshot, craft: null }, putBackMah: 600 }),
    )
    expect(byId.get('a')).toMatchObject({
      used: null,
      left: null,
      powerW: null,
      toReserve: null,
      expected: null,
      held: null,
    })
    expect(byId.get('b')).toMatchObject({ used: { mah: expect.closeTo(594, 9) }, toReserve: null, expected: null })
    expect(out.calibration.said).toEqual([])
  })
  it('minutes wrong by two and a half times are held after good ones; taken in, they teach', () => {
    const good = [1, 2, 3, 4, 5].map(n => testFlight({ id: `g${n}`, flownAt: at(n), putBackMah: 668 }))
    const wrong = testFlight({ id: 'w', flownAt: at(9), putBackMah: 668, durationS: 228 / 2.5 })
    const { byId, out } = worked(...good, wrong)
    expect(byId.get('w')).toMatchObject({ held: 'does not agree' })
    expect(byId.get('w')!.z).toBeGreaterThan(2.5)
    expect(out.calibration.said[0]!.flights).toBe(5)
    const taken = worked(...good, { ...wrong, isTakenIn: true })
    expect(taken.byId.get('w')!.held).toBeNull()
    expect(taken.out.calibration.said[0]!.flights).toBe(6)
  })
  it('more charge than the pack has is taken for an empty pack, not for less than nothing', () => {
    const { byId } = worked(testFlight({ id: 'a', putBackMah: 1100 }))
    expect(byId.get('a')!.powerW).toBeGreaterThan(160)
    expect(Number.isFinite(byId.get('a')!.powerW)).toBe(true)
  })
  it('a flight as nobody has changed it is not worked out anew', () => {
    const sums = new FlightSums()
    const some = [1, 2, 3].map(n => testFlight({ id: `f${n}`, flownAt: at(n), putBackMah: 600 + n }))
    const first = sums.workOut(some)
    const more = sums.workOut([...some, testFlight({ id: 'n', flownAt: at(8), putBackMah: 640 })])
    for (const { id } of some) expect(more.figures.get(id)).toBe(first.figures.get(id))
    // What the pack holds has changed: those of the pack are.
    const other = sums.workOut([
      ...some,
      testFlight({ id: 'n', flownAt: at(8), putBackMah: 600, landing: resting(3.74) }),
    ])
    for (const { id } of some) expect(other.figures.get(id)).not.toBe(first.figures.get(id))
  })
  it('are the same whatever order they come in', () => {
    const some = [1, 2, 3, 4].map(n =>
      testFlight({ id: `f${n}`, flownAt: at(n), durationS: 200 + 10 * n, putBackMah: 640 }),
    )
    const { byId } = worked(...some)
    const turned = worked(...some.toReversed()).byId
    for (const { id } of some) expect(turned.get(id)).toEqual(byId.get(id))
  })
})
