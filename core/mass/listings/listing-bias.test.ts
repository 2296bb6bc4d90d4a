import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { makeLine, makeMass } from '../../model/ledger'
import { lineEstimate } from '../evidence'
import {
  basisUnsaid,
  confirmed,
  withBasis,
  ListingBiasTable,
  kindBias,
  listingDoubt,
  listingObservations,
  tendencies,
} from './index'

describe('parts whose names begin alike', () => {
  const seen = (product: string, ratio: number, slot: 'motor' | 'frame' = 'motor') => ({ slot, product, ratio })
  it('have a tendency of their own from three products on, whatever their kinds', () => {
    const found = tendencies([
      seen('ostler 1404|9', 1.03),
      seen('ostler 1202|5', 1.04),
      seen('ostler arm|4', 1.05, 'frame'),
      seen('fennel & rook a|1', 1.1),
      seen('fennel & rook b|2', 1.1),
      seen('lone|3', 2),
    ])
    expect(found.map(t => [t.name, t.products])).toEqual([['ostler', 3]])
    expect(found[0]!.mu).toBeGreaterThan(0.01)
    expect(found[0]!.mu).toBeLessThan(Math.log(1.04))
  })
  it('count one product once, however often it was weighed', () => {
    expect(tendencies([1.01, 1.02, 1.03].map(ratio => seen('ostler 1404|9', ratio)))).toEqual([])
  })
})

describe('listing honesty', () => {
  it('shrinks five ratios as worked out by hand', () => {
    const kind = kindBias([1.06, 1.02, 1.05, 1.04, 1.01].map(Math.log))
    expect(kind.ownSigma).toBeCloseTo(0.036532, 6)
    expect(kind.mu).toBeCloseTo(0.027153, 6)
    expect(Math.exp(kind.mu)).toBeCloseTo(1.027525, 6)
    expect(kind.sharedSigma).toBeCloseTo(0.014348, 6)
  })
  it('corrects nothing before anything was weighed', () => {
    expect(kindBias([])).toMatchObject({ products: 0, mu: 0, sharedSigma: 0.03 })
  })
  it('never overshoots the mean seen, and is surer with more products', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -0.2, max: 0.2, noNaN: true }), { minLength: 1, maxLength: 30 }), logs => {
        const kind = kindBias(logs)
        const mean = logs.reduce((a, b) => a + b, 0) / logs.length
        expect(Math.abs(kind.mu)).toBeLessThanOrEqual(Math.abs(mean) + 1e-12)
        expect(kind.sharedSigma).toBeLessThan(0.03)
      }),
    )
    expect(() => kindBias([NaN])).toThrow('logRatios')
  })
  it('a slip of a digit teaches nothing and is asked about; what is far from others of its kind is pointed out', () => {
    const motor = (id: string, listedG: number, weighedG: number) =>
      makeLine({
        id,
        slot: 'motor',
        name: id,
        quantity: 1,
        listing: { valueG: listedG, resolutionG: 0.1 },
        mass: makeMass({ versionId: id, evidence: 'weighed', valueG: weighedG, basis: 'as supplied' }),
      })
    const slip = motor('slip', 0.9, 9.2)
    expect(listingObservations([slip, motor('half', 10, 4.9), motor('fine', 9.3, 9.2)]).map(o => o.product)).toEqual([
      'fine|9.3',
    ])
    const four = makeLine({
      id: 'four',
      slot: 'motor',
      name: 'four',
      quantity: 4,
      mass: makeMass({ versionId: 'four', evidence: 'listed', valueG: 9.3, resolutionG: 0.1 }),
    })
    expect(lineEstimate(four, new ListingBiasTable(listingObservations([slip]))).valueG).toBeCloseTo(37.2, 9)
    const others = new ListingBiasTable(
      listingObservations([motor('a', 9, 9.1), motor('b', 12, 12.2), motor('c', 5, 5)]),
    )
    expect(listingDoubt(slip, others)).toEqual({ why: 'slip', weighedG: 9.2, listedG: 0.9 })
    expect(listingDoubt(motor('x', 10, 13), others)).toMatchObject({ why: 'unusual' })
    expect(listingDoubt(motor('x', 10, 10.4), others)).toBeNull()
    expect(listingDoubt({ ...slip, mass: { ...slip.mass!, basis: 'as fitted' } }, others)).toBeNull()
  })
  it('compares only like with like: as supplied, listed and weighed', () => {
    const of = (basis: 'as supplied' | 'as fitted', evidence: 'weighed' | 'guess') =>
      makeLine({
        id: 'l',
        slot: 'camera',
        name: 'Eye',
        listing: { valueG: 4, resolutionG: 0.1 },
        mass: makeMass({ versionId: 'v', evidence, valueG: 4.2, basis }),
      })
    expect(listingObservations([of('as supplied', 'weighed')])).toEqual([
      { slot: 'camera', product: 'eye|4', ratio: 1.05 },
    ])
    expect(listingObservations([of('as fitted', 'weighed'), of('as supplied', 'guess')])).toEqual([])
  })
  it('counts a product once however many pieces of it were weighed', () => {
    const one = new ListingBiasTable([{ slot: 'motor', product: 'a', ratio: 1.05 }])
    const same = new ListingBiasTable([
      { slot: 'motor', product: 'a', ratio: 1.04 },
      { slot: 'motor', product: 'a', ratio: 1.06 },
    ])
    expect(same.of('motor').products).toBe(1)
    expect(same.of('motor').mu).toBeCloseTo(one.of('motor').mu, 12)
    expect(one.of('camera').products).toBe(0)
  })
})

it('grams typed as weighed beside a listing are asked about: only as it came they teach', () => {
  const line = makeLine({
    id: 'l',
    slot: 'motor',
    name: 'm',
    listing: { valueG: 10, resolutionG: 0.1 },
    mass: makeMass({ versionId: 'v', evidence: 'weighed', valueG: 9.2 }),
  })
  expect(basisUnsaid(line)).toBe(true)
  expect(listingObservations([line])).toEqual([])
  const [came, fitted] = (['as supplied', 'as fitted'] as const).map(basis => ({
    ...line,
    mass: withBasis(line.mass!, basis, basis),
  }))
  expect([basisUnsaid(came!), basisUnsaid(fitted!)]).toEqual([false, false])
  expect(listingObservations([came!])).toHaveLength(1)
  expect(listingObservations([fitted!])).toEqual([])
  expect(basisUnsaid({ ...line, listing: null })).toBe(false)
})

it('a slip of a digit teaches once somebody has looked and says both are right, and is not asked about again', () => {
  const line = makeLine({
    id: 'l',
    slot: 'motor',
    name: 'm',
    listing: { valueG: 0.9, resolutionG: 0.1 },
    mass: makeMass({ versionId: 'v', evidence: 'weighed', valueG: 9.2, basis: 'as supplied' }),
  })
  expect(listingDoubt(line, new ListingBiasTable())).toMatchObject({ why: 'slip' })
  expect(listingObservations([line])).toEqual([])
  const both = { ...line, mass: confirmed(line.mass!, 'w') }
  expect(listingDoubt(both, new ListingBiasTable())).toBeNull()
  expect(listingObservations([both])[0]!.ratio).toBeCloseTo(9.2 / 0.9, 9)
})

it('a ratio from a half to two teaches, beyond it is taken for a slip', () => {
  const weighed = (ratio: number) =>
    makeLine({
      id: 'l',
      slot: 'motor',
      name: 'm',
      listing: { valueG: 10, resolutionG: 0.1 },
      mass: makeMass({ versionId: 'v', evidence: 'weighed', valueG: 10 * ratio, basis: 'as supplied' }),
    })
  expect([0.49, 0.51, 0.54, 1.9, 1.99, 2.01, 2.1].map(ratio => listingObservations([weighed(ratio)]).length)).toEqual([
    0, 1, 1, 1, 1, 0, 0,
  ])
  expect([0.49, 2.01].map(ratio => listingDoubt(weighed(ratio), new ListingBiasTable())?.why)).toEqual(['slip', 'slip'])
})
it('a part four standard deviations from the others of its kind is pointed out, one of three and a half is not', () => {
  const table = new ListingBiasTable()
  const { mu, ownSigma, sharedSigma } = table.of('motor')
  const at = (z: number) =>
    listingDoubt(
      {
        slot: 'motor',
        listing: { valueG: 10, resolutionG: 0.1 },
        mass: makeMass({
          versionId: 'v',
          evidence: 'weighed',
          valueG: 10 * Math.exp(mu + z * Math.hypot(ownSigma, sharedSigma)),
          basis: 'as supplied',
        }),
      },
      table,
    )?.why
  expect([3.5, 3.9, 4.1, 4.3, -3.9, -4.1].map(at)).toEqual([
    undefined,
    undefined,
    'unusual',
    'unusual',
    undefined,
    'unusual',
  ])
})
