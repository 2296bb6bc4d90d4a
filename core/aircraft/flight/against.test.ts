import { describe, expect, it } from 'vitest'
import marzipanFile from '../../../demo/builds/marzipan.build.json'
import { applyCommand } from '../../changes/commands'
import { estimatesOf, loadoutMasses } from '../../mass/loadout'
import { ListingBiasTable } from '../../mass/listings'
import type { Build } from '../../model/ledger'
import type { Properties } from '../../model/properties'
import { FlightSums, snapshotOf, type Flight, type Lessons } from '../flown'
import { testFlight } from '../flown/testing'
import { flightPlanOf, minutesAgainst, sheetFlight, type LoadoutWithMass } from './index'

const marzipan = marzipanFile.build as unknown as Build
const choice = { setupId: 'day', packLineId: 'p7' }
const withMotors = (properties: Properties, build = marzipan): Build => {
  const motors = build.lines.find(line => line.id === 'motors')!
  const fields = { properties: { ...motors.properties, ...properties } }
  return applyCommand(build, { type: 'lines.change', changes: [{ id: 'motors', fields }] })
}
function weighed(build: Build): LoadoutWithMass {
  const { massG } = loadoutMasses(build, [choice], estimatesOf(build, new ListingBiasTable()))[0]!
  return { build, choice, massG }
}
const race = (build: Build, lessons: Lessons | null = null) => ({
  ...flightPlanOf(build, lessons),
  style: 'race' as const,
})
function flownOn(build: Build, id: string, minutes: number, more: Partial<Flight> = {}): Flight {
  const mass = loadoutMasses(build, [choice], estimatesOf(build, new ListingBiasTable()))[0]!
  const snapshot = snapshotOf(build, 1, choice, mass, race(build))
  return testFlight({
    id,
    style: 'race',
    durationS: minutes * 60,
    flownAt: `2026-11-0${id.length}T10:00`,
    snapshot,
    ...more,
  })
}
const lessonsOf = (...flights: Flight[]): Lessons => {
  const { calibration, packs } = new FlightSums().workOut(flights)
  return { buildId: 'marzipan', said: calibration.said, packs: Object.fromEntries(packs) }
}

describe('minutes of one thing against another', () => {
  it('with the same drive differ by their grams alone, without doubt', () => {
    const lighter = applyCommand(marzipan, {
      type: 'lines.change',
      changes: [
        { id: 'frame', fields: { mass: { ...marzipan.lines.find(l => l.id === 'frame')!.mass!, valueG: 30 } } },
      ],
    })
    const told = minutesAgainst(weighed(lighter), weighed(marzipan), race(marzipan))!
    expect(told).toMatchObject({ spreadMin: 0, from: 'the same drive' })
    const minutes = (build: Build) => sheetFlight(build, choice, weighed(build).massG, race(build)).forecast!.minutes
    expect(told.deltaMin).toBeCloseTo(minutes(lighter) - minutes(marzipan), 9)
  })
  it('on another motor are known by the class, with the doubt of two drives', () => {
    const told = minutesAgainst(weighed(withMotors({ kv: 5000, bench: [] })), weighed(marzipan), race(marzipan))!
    expect(told.from).toBe('the class')
    expect(told.deltaMin).toBeCloseTo(0, 9)
    expect(told.spreadMin).toBeGreaterThan(0.1 * told.minutes)
  })
  it('by bench tables of both: twice the watts for the thrust, much shorter', () => {
    const bench = (amps: number) =>
      [20, 40, 60, 80, 100].map(percent => ({
        ...{ throttlePercent: percent, volts: 16, thrustG: 4 * percent },
        amps: (amps * percent) / 100,
      }))
    const [frugal, hungry] = [withMotors({ bench: bench(10) }), withMotors({ kv: 5200, bench: bench(20) })]
    const told = minutesAgainst(weighed(hungry), weighed(frugal), race(marzipan))!
    expect(told.from).toBe('bench tables')
    expect(told.minutes / (told.minutes - told.deltaMin)).toBeLessThan(0.65)
  })
  it('3.1 minutes on one motor, 2.2 on another: by flights, the difference and a third pack follow', () => {
    const [one, other] = [marzipan, withMotors({ kv: 5200 })]
    const flights = [
      flownOn(one, 'a', 3.1, { putBackMah: 700 }),
      flownOn(one, 'aa', 3.15, { putBackMah: 705 }),
      flownOn(other, 'aaa', 2.2, { putBackMah: 700 }),
      flownOn(other, 'aaaa', 2.2, { putBackMah: 700, isTakenIn: true }),
    ]
    const plan = race(one, lessonsOf(...flights))
    const told = minutesAgainst(weighed(other), weighed(one), plan)!
    expect(told.from).toBe('flights')
    expect(told.deltaMin).toBeLessThan(-0.3)
    expect(told.deltaMin - told.spreadMin).toBeLessThan(-0.5)
    const byClass = minutesAgainst(weighed(other), weighed(one), race(one))!
    expect(told.spreadMin).toBeLessThan(byClass.spreadMin)
    // A third pack: what it flies on the first motor lies in its band.
    const third = { ...choice, packLineId: 'p4' }
    const { massG } = loadoutMasses(one, [third], estimatesOf(one, new ListingBiasTable()))[0]!
    const [before, after] = [race(one), plan].map(how => sheetFlight(one, third, massG, how).forecast!)
    expect(after!.restsOn).toEqual({ own: 4, others: 0 })
    expect(after!.gentleMinutes / after!.hardMinutes).toBeLessThan(before!.gentleMinutes / before!.hardMinutes)
    // 720 of 850 mAh at a little less weight: about 2.7 minutes to the same charge.
    expect(after!.hardMinutes).toBeLessThan(2.7)
    expect(after!.gentleMinutes).toBeGreaterThan(2.7)
  })
  it('are not known where nobody has said the props', () => {
    const bare: Build = { ...marzipan, lines: marzipan.lines.filter(line => line.slot !== 'propeller') }
    expect(minutesAgainst(weighed(bare), weighed(marzipan), race(marzipan))).toBeNull()
  })
})
