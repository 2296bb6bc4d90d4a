import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { CoreInputError } from '../../basics/errors'
import { slots } from '../../model/ledger'
import {
  answersOf,
  calculators,
  calculatorsFor,
  countedG,
  filmG,
  holeG,
  materialNamed,
  plateG,
  printedG,
  quarterWaveMm,
  safeLengths,
  screwForm,
  screwForms,
  screwG,
  screwVerdict,
  tubeG,
  wireG,
  wireGauges,
} from './index'

const steel = 7.85
const screw = (thread: string, head: string, lengthMm: number, density = steel) =>
  screwG(screwForm(thread, head), lengthMm, density)

describe('wire', () => {
  it.each([
    [16, 1.8208],
    [20, 0.69],
    [24, 0.3934],
    [28, 0.1959],
  ])('100 mm of AWG %i weigh %f g', (awg, grams) => {
    expect(wireG(awg, 100)).toBeCloseTo(grams, 4)
  })
  it('weighs in proportion to its length, and less the thinner it is', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 5000, noNaN: true }),
        fc.constantFrom(...wireGauges),
        (lengthMm, { awg }) => {
          expect(wireG(awg, 2 * lengthMm)).toBeCloseTo(2 * wireG(awg, lengthMm), 9)
        },
      ),
    )
    const grams = wireGauges.map(gauge => wireG(gauge.awg, 100))
    expect(grams).toEqual([...grams].sort((a, b) => b - a))
  })
  it('a quarter wave at 2440 MHz is 29.2 mm', () => {
    expect(quarterWaveMm(2440)).toBeCloseTo(29.18, 2)
    expect(quarterWaveMm(868, 1)).toBeCloseTo(86.35, 2)
  })
  it.each([
    [17, 100],
    [16, 0],
    [16, -5],
    [16, NaN],
    [16, 1e9],
  ])('refuses AWG %d of %d mm', (awg, lengthMm) => {
    expect(() => wireG(awg, lengthMm)).toThrow('wireG')
  })
})

describe('screws', () => {
  it('the worked examples', () => {
    expect(screw('M2', 'socket cap', 8)).toBeCloseTo(0.31212, 5)
    expect(screw('M2', 'socket cap', 8, materialNamed('titanium alloy (Ti-6Al-4V)')!.densityGPerCm3)).toBeCloseTo(
      0.17614,
      5,
    )
    expect(screw('M3', 'socket cap', 10)).toBeCloseTo(0.94552, 5)
    expect(screw('M3', 'button', 8)).toBeCloseTo(0.53956, 5)
    expect(screw('M3', 'countersunk', 10)).toBeCloseTo(0.55643, 5)
  })
  it('every form grows with its length', () => {
    for (const form of screwForms)
      expect(screwG(form, 6, steel), `${form.thread} ${form.head}`).toBeGreaterThan(screwG(form, 5, steel))
  })
  it('one that would touch windings is too long, one that holds too few threads too short', () => {
    const joint = { clampedMm: 3, engagementMm: 2, freeDepthMm: 3.5 }
    expect(safeLengths(joint)).toEqual({ shortestMm: 5, longestMm: 6.5 })
    expect([4, 5, 6, 6.5, 7].map(lengthMm => screwVerdict(joint, lengthMm))).toEqual([
      'too short',
      'fits',
      'fits',
      'fits',
      'too long',
    ])
  })
  it('refuses what there is not', () => {
    expect(() => screwForm('M9', 'button')).toThrow('thread')
    expect(() => screw('M2', 'countersunk', 1)).toThrow(
      expect.objectContaining({ field: 'lengthMm', expected: { is: 'in range', least: 1.2 } }),
    )
    expect(() => screw('M2', 'button', 0)).toThrow('lengthMm')
    expect(() => safeLengths({ clampedMm: 0, engagementMm: 1, freeDepthMm: 1 })).toThrow('clampedMm')
  })
})

describe('plates, prints, tubes, films', () => {
  it('are volume times density, less what was drilled', () => {
    expect(plateG(2000, 3, 1.57)).toBeCloseTo(9.42, 9)
    expect(plateG(2000, 3, 1.57, [{ diameterMm: 5, count: 8 }])).toBeCloseTo(9.42 - holeG(5, 3, 1.57, 8), 9)
    expect(holeG(5, 3, 1.57)).toBeCloseTo(0.09248, 5)
    expect(printedG(10, 4, 0.2, 1.21)).toBeCloseTo((4 + 6 * 0.2) * 1.21, 9)
    expect(tubeG(5, 2.2, 20, 2.81)).toBeCloseTo((((Math.PI * (25 - 4.84)) / 4) * 20 * 2.81) / 1000, 9)
    expect(filmG(30, 0.05, 1.05)).toBeCloseTo(0.1575, 9)
    expect(countedG(24, 0.02)).toBeCloseTo(0.48, 9)
  })
  it('more holes never add grams, and a full print weighs the most', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 20 }), fc.double({ min: 0, max: 1, noNaN: true }), (count, fill) => {
        expect(plateG(5000, 2, 1.57, [{ diameterMm: 6, count: count + 1 }])).toBeLessThan(
          plateG(5000, 2, 1.57, [{ diameterMm: 6, count }]),
        )
        expect(printedG(10, 3, fill, 1.2)).toBeLessThanOrEqual(12 + 1e-9)
      }),
    )
  })
  it('refuse what cannot be', () => {
    expect(() => plateG(100, 2, 1.57, [{ diameterMm: 12, count: 1 }])).toThrow(
      expect.objectContaining({ field: 'holes', expected: { is: 'in range', under: 100 } }),
    )
    expect(() => printedG(5, 6, 0.2, 1.2)).toThrow('wallCm3')
    expect(() => printedG(5, 1, 1.2, 1.2)).toThrow(
      expect.objectContaining({ field: 'fill', expected: { is: 'in range', least: 0, most: 100 } }),
    )
    expect(() => tubeG(5, 5, 10, 2.8)).toThrow('innerMm')
    expect(() => countedG(1.5, 0.1)).toThrow('whole number')
    expect(() => filmG(NaN, 0.1, 1)).toThrow('areaCm2')
  })
})

describe('the calculators', () => {
  const examples = (calculator: (typeof calculators)[number]) =>
    Object.fromEntries(calculator.asks.map(asked => [asked.key, asked.example]))
  it.each(calculators.map(c => [c.title, c] as const))(
    '%s works with what is usual, in grams or in words',
    (_title, calculator) => {
      const worked = calculator.work(examples(calculator))
      expect(worked.words).not.toMatch(/undefined|NaN/)
      if (calculator.gives !== 'advice') expect(worked.grams).toBeGreaterThan(0)
    },
  )
  it.each(
    calculators.flatMap(c => c.asks.filter(a => a.choices === null).map(a => [c.title, a.label, c, a.key] as const)),
  )('%s refuses %s that is nothing or negative', (_title, _label, calculator, key) => {
    for (const wrong of ['-1', 'x'])
      expect(() => calculator.work({ ...examples(calculator), [key]: wrong })).toThrow(CoreInputError)
  })
  it('every choice offered can be worked with; heads a thread is not made with are said', () => {
    for (const calculator of calculators) {
      for (const asked of calculator.asks) {
        for (const chosen of asked.choices ?? []) {
          const run = () => calculator.work({ ...examples(calculator), [asked.key]: chosen })
          const made =
            asked.key === 'thread'
              ? screwForms.some(f => f.thread === chosen && f.head === 'button')
              : asked.key === 'head'
                ? screwForms.some(f => f.thread === 'M2' && f.head === chosen)
                : true
          if (made) expect(run, `${calculator.title} ${chosen}`).not.toThrow()
          else expect(run, `${calculator.title} ${chosen}`).toThrow('thread and head of the list')
        }
      }
    }
  })
  it('only what suits the kind is offered: nothing takes the grams of a motor from a sum of solder joints', () => {
    expect(calculatorsFor('motor').map(c => c.key)).toEqual(['trim'])
    expect(calculatorsFor('motor').every(c => c.gives === 'advice')).toBe(true)
    expect(calculatorsFor('board')).toEqual([])
    expect(calculatorsFor('screw')[0]!.key).toBe('screw')
    for (const slot of slots)
      expect(
        calculatorsFor(slot).every(c => c !== undefined),
        slot,
      ).toBe(true)
  })
  it('nothing is filled in but what the part itself says', () => {
    const screw = calculators.find(c => c.key === 'screw')!
    expect(answersOf(screw, { pack: null, properties: null })).toEqual({})
    expect(
      answersOf(screw, { pack: null, properties: { thread: 'M2', lengthMm: 6, material: 'unobtainium' } }),
    ).toEqual({ thread: 'M2', lengthMm: '6' })
    expect(
      ['Titanium', 'steel', ' ', 'alloy steel'].map(
        material => answersOf(screw, { pack: null, properties: { material } }).material,
      ),
    ).toEqual(['titanium alloy (Ti-6Al-4V)', undefined, undefined, 'alloy steel'])
    expect(
      answersOf(
        calculators.find(c => c.key === 'hole')!,
        { pack: null, properties: null },
      ),
    ).toEqual({})
  })
})
