import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { coverageFactor95 } from '../../maths/numbers'
import { estimateOf, spreadG, type Estimate } from '../../maths/estimate'
import { makeShaving } from '../../model/data'
import { makeBuild } from '../../changes/commands'
import { makeLine, makeMass, type Build, type Line, type Slot } from '../../model/ledger'
import { effectOf, lineOfShaving, massAfter, takesTooMuch, type ShavedOff } from './index'

const weighed = (id: string, slot: Slot, valueG: number, more: Partial<Line> = {}) =>
  makeLine({
    id,
    slot,
    name: `the ${id}`,
    mass: makeMass({ versionId: `v-${id}`, evidence: 'weighed', valueG, resolutionG: 0.01 }),
    ...more,
  })
const lines = [
  weighed('motors', 'motor', 10, { quantity: 4 }),
  weighed('camera', 'camera', 6),
  weighed('lighter', 'camera', 4, { state: 'candidate', insteadOf: 'camera' }),
  weighed('strap', 'strap', 3),
  weighed('guard', 'guard', 5, { state: 'off' }),
  makeLine({ id: 'open', slot: 'pad', name: 'a pad' }),
  weighed('big', 'pack', 95),
  weighed('small', 'pack', 70),
]
const build: Build = makeBuild({ id: 'b', name: 'b', lines, setups: [{ id: 's', name: 'as built', lineIds: [] }] })
const before = (line: Line): Estimate =>
  estimateOf((line.mass!.valueG * line.quantity) / line.mass!.valueCount, { [`product:${line.id}`]: 0.05 })
const shaving = (kind: Parameters<typeof makeShaving>[0]['kind'], more: Partial<Parameters<typeof makeShaving>[0]>) =>
  makeShaving({ id: 'x', what: 'what is done', kind, ...more })
const off = (gramsG: number, more: Partial<ShavedOff> = {}): ShavedOff => ({
  ...{ gramsG, spreadG: 0.2, weighed: false, on: '2026-11-01' },
  ...more,
})
const massOf = (given: ReturnType<typeof shaving>, by: ShavedOff) =>
  massAfter(build, given, before, by, was => `${was}-next`)

describe('what a shaving does to the ledger', () => {
  it.each([
    ['trim leads', { lineId: 'strap' }, { kind: 'grams', lineId: 'strap' }],
    ['leave off', { lineId: 'strap' }, { kind: 'off', lineId: 'strap' }],
    ['put on', { lineId: 'guard' }, { kind: 'on', lineId: 'guard' }],
    ['put on', {}, { kind: 'new line' }],
    ['swap part', { lineId: 'camera', candidateId: 'lighter' }, { kind: 'swap', candidateId: 'lighter' }],
    ['swap part', { lineId: 'big', candidateId: 'small' }, { kind: 'pack', lineId: 'big', packLineId: 'small' }],
    ['swap part', { lineId: 'camera', candidateId: 'strap' }, { kind: 'none' }],
    ['trim leads', { lineId: 'open' }, { kind: 'none' }],
    ['trim leads', { lineId: 'guard' }, { kind: 'none' }],
    ['trim leads', { lineId: 'gone' }, { kind: 'none' }],
  ] as const)('%s of %o', (kind, given, effect) => {
    expect(effectOf(build, shaving(kind as Parameters<typeof shaving>[0], given))).toEqual(effect)
  })
})

describe('the grams after a shaving', () => {
  it('are what was known less what came off, with the ± of both, and worked out where the scale did not say so', () => {
    const mass = massOf(shaving('trim leads', { lineId: 'motors' }), off(1.2))!
    expect([mass.valueG, mass.valueCount, mass.evidence, mass.versionId]).toEqual([
      38.8,
      4,
      'worked out',
      'v-motors-next',
    ])
    expect(mass.weighing!.contributions).toEqual({
      'product:motors': 0.05,
      'product:v-motors-next': 0.2 / coverageFactor95,
    })
    expect(mass.weighing!.method).toBe('forecast difference')
    expect(massOf(shaving('trim leads', { lineId: 'motors' }), off(1.2, { weighed: true }))!.evidence).toBe('weighed')
  })
  it('of a part that was left off are none, or the rest where the scale says that less came off', () => {
    const leaving = shaving('leave off', { lineId: 'strap' })
    expect(massOf(leaving, off(2))).toBeNull()
    expect(massOf(leaving, off(3, { weighed: true }))).toBeNull()
    expect(massOf(leaving, off(2.4, { weighed: true }))!.valueG).toBeCloseTo(0.6, 9)
  })
  it('of a part fitted instead are its own, or what the other weighed less what came off by the scale', () => {
    const swapping = shaving('swap part', { lineId: 'camera', candidateId: 'lighter' })
    expect(massOf(swapping, off(2))).toBeNull()
    expect(massOf(swapping, off(2.3, { weighed: true }))!.valueG).toBeCloseTo(3.7, 9)
  })
  it('of what is put on are its forecast, as a line of its own', () => {
    const putting = shaving('put on', { gramsG: -1.5, cents: 300 })
    const mass = massOf(putting, off(-1.5))!
    expect([mass.valueG, mass.evidence, mass.ownSpreadG]).toEqual([1.5, 'guess', 0.2])
    expect(lineOfShaving(putting, mass)).toMatchObject({ slot: 'other', name: 'what is done', priceEachCents: 300 })
    expect(massOf(shaving('put on', { lineId: 'guard' }), off(-5))).toBeNull()
  })
  it('are never below nothing, whatever is said to have come off', () => {
    let emptied = 0
    const centigrams = (max: number) => fc.integer({ min: 0, max }).map(value => value / 100)
    fc.assert(
      fc.property(centigrams(8000), centigrams(500), (grams, by) => {
        const mass = massOf(shaving('trim leads', { lineId: 'motors' }), off(grams, { spreadG: by }))!
        if (mass.valueG === 0) emptied++
        expect(mass.valueG).toBeCloseTo(Math.max(0, 40 - grams), 6)
        expect(spreadG({ valueG: mass.valueG, contributions: mass.weighing!.contributions })).toBeCloseTo(
          Math.hypot(by, 0.05 * coverageFactor95),
          6,
        )
      }),
      { numRuns: 300 },
    )
    expect(emptied).toBeGreaterThan(30)
  })
})

describe('more than a line weighs', () => {
  it('cannot come off it; of a part left off the scale may say a little more than is booked', () => {
    const trimming = shaving('trim leads', { lineId: 'strap' })
    expect(takesTooMuch(build, trimming, before, 3)).toBeNull()
    expect(takesTooMuch(build, trimming, before, 3.01)).toMatchObject({ lineG: 3, line: { id: 'strap' } })
    const leaving = shaving('leave off', { lineId: 'strap' })
    expect(takesTooMuch(build, leaving, before, 3.09)).toBeNull()
    expect(takesTooMuch(build, leaving, before, 3.11)?.line.id).toBe('strap')
    expect(takesTooMuch(build, leaving, before, 3.11, 0.05)).toBeNull()
    const swapping = shaving('swap part', { lineId: 'camera', candidateId: 'lighter' })
    expect(takesTooMuch(build, swapping, before, 6.2)?.line.id).toBe('camera')
    expect(takesTooMuch(build, shaving('put on', {}), before, 500)).toBeNull()
  })
})
