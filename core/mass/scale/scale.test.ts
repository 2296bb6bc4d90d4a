import type { CoreInputError } from '../../basics/errors'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { chanceOf } from '../../maths/numbers'
import { sigmaG, subtractEstimates, type Estimate } from '../../maths/estimate'
import {
  admitCheck,
  byDifference,
  checkInForce,
  compareScales,
  driftBetween,
  evaluateCheck,
  inLifts,
  meanEstimate,
  piecesFor,
  repeatabilityFrom,
  scaleStanding,
  weighedEstimate,
  type Placing,
  type Scale,
  type ScaleCheck,
  type ScaleState,
} from './index'

const scale: Scale = {
  id: 'blue',
  name: 'Blue',
  resolutionG: 0.01,
  capacityG: 200,
  repeatabilityG: 0.008,
  checkIntervalDays: 30,
}
const fifty = { id: 'fifty', massG: 50, toleranceG: 0.01 }
const check: Placing[] = [
  { references: [], displayG: 0 },
  { references: [fifty], displayG: 50.11 },
]
const checked: ScaleState = { scale, check: { id: 'c1', result: evaluateCheck(scale, check) } }
const unchecked: ScaleState = { scale, check: null }
const tare = { id: 't1', displayG: 0 }
const total = (estimate: Estimate, prefix: string) =>
  Math.hypot(
    ...Object.entries(estimate.contributions)
      .filter(([key]) => key.startsWith(prefix))
      .map(([, c]) => c),
  )

const twoMasses = { is: 'at least', count: 2, of: 'different masses (the empty pan is one)' } as const

describe('a check', () => {
  it('with a zero and one reference: the worked example', () => {
    const result = evaluateCheck(scale, check)
    expect(result.gain).toBeCloseTo(1.0022, 12)
    expect(result.levelG).toBeCloseTo(0, 12)
    expect(result.gainSigma).toBeCloseTo(2.66943e-4, 9)
    expect(result.linearityG).toBe(0)
  })
  it('with three masses says what a straight line leaves over, beyond half a step', () => {
    const twenty = { id: 'twenty', massG: 20, toleranceG: 0 }
    const bent = evaluateCheck(scale, [...check, { references: [twenty], displayG: 20.104 }])
    const straight = evaluateCheck(scale, [...check, { references: [twenty], displayG: 20.044 }])
    expect(bent.linearityG).toBeGreaterThan(0.01)
    expect(straight.linearityG).toBe(0)
  })
  it('a reference placed twice is one cause, two references are two', () => {
    const alike = (ids: [string, string]) =>
      evaluateCheck(scale, [
        { references: [], displayG: 0 },
        ...ids.map(id => ({ references: [{ ...fifty, id }], displayG: 50 })),
      ])
    expect(alike(['a', 'a']).gainSigma).toBeGreaterThan(alike(['a', 'b']).gainSigma)
    expect(Object.keys(alike(['a', 'a']).references)).toEqual(['a'])
  })
  it('takes references stacked on the pan', () => {
    const stacked = evaluateCheck(scale, [
      { references: [], displayG: 0 },
      { references: [fifty, { id: 'twenty', massG: 20, toleranceG: 0.005 }], displayG: 70.14 },
    ])
    expect(stacked.gain).toBeCloseTo(1.002, 12)
    expect(Object.keys(stacked.references).sort()).toEqual(['fifty', 'twenty'])
  })
  it.each<[string, Placing[], Partial<CoreInputError>]>([
    ['no placing', [], { field: 'placings', expected: twoMasses }],
    [
      'only the empty pan',
      [
        { references: [], displayG: 0 },
        { references: [], displayG: 0.01 },
      ],
      { field: 'placings', expected: twoMasses },
    ],
    [
      'one mass twice',
      [
        { references: [fifty], displayG: 50.1 },
        { references: [fifty], displayG: 50.1 },
      ],
      { field: 'placings', expected: twoMasses },
    ],
    [
      'a negative gain',
      [
        { references: [], displayG: 0 },
        { references: [fifty], displayG: -50 },
      ],
      { field: 'gain', code: 'fitting' },
    ],
    [
      'displays swapped',
      [
        { references: [], displayG: 50 },
        { references: [fifty], displayG: 0 },
      ],
      { field: 'gain', code: 'fitting' },
    ],
    [
      'a reference over the capacity',
      [
        { references: [], displayG: 0 },
        { references: [{ id: 'x', massG: 500, toleranceG: 0 }], displayG: 500 },
      ],
      { field: 'placings', received: 500, expected: { is: 'in range', most: scale.capacityG } },
    ],
    [
      'a display that is no number',
      [
        { references: [], displayG: NaN },
        { references: [fifty], displayG: 50 },
      ],
      { field: 'displayG', code: 'finite' },
    ],
    [
      'a negative tolerance',
      [
        { references: [], displayG: 0 },
        { references: [{ ...fifty, toleranceG: -1 }], displayG: 50 },
      ],
      { field: 'toleranceG', expected: { is: 'in range', least: 0 } },
    ],
  ])('refuses %s', (_what, placings, error) => {
    expect(() => admitCheck(scale, placings)).toThrow(expect.objectContaining(error))
  })
  it('kept before the scale’s facts were changed goes on counting', () => {
    expect(evaluateCheck({ ...scale, capacityG: 10 } as Scale, check).gain).toBeCloseTo(1.0022, 12)
  })
  it('more placings never make the gain less sure', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 8 }), n => {
        const noise = (count: number) =>
          evaluateCheck(scale, [
            { references: [], displayG: 0 },
            ...Array.from({ length: count }, () => ({ references: [fifty], displayG: 50 })),
          ]).noiseSigma
        expect(noise(n + 1)).toBeLessThanOrEqual(noise(n) + 1e-15)
      }),
    )
  })
})

describe('a scale', () => {
  const at = (id: string, day: number, displayG: number): ScaleCheck => ({
    id,
    scaleId: 'blue',
    takenAt: new Date(day * 86_400_000).toISOString(),
    placings: [
      { references: [], displayG: 0 },
      { references: [fifty], displayG },
    ],
  })
  const checks = [at('b', 40, 50.11), at('a', 10, 50.02)]
  it('is corrected by the check that was in force at the time', () => {
    expect(checkInForce(checks, 'blue', 9 * 86_400_000)).toBeNull()
    expect(checkInForce(checks, 'blue', 20 * 86_400_000)?.id).toBe('a')
    expect(checkInForce(checks, 'blue', 40 * 86_400_000)?.id).toBe('b')
    expect(checkInForce(checks, 'other', 50 * 86_400_000)).toBeNull()
  })
  it('is flagged when its check is overdue or two checks differ by more than they allow', () => {
    const now = scaleStanding(scale, checks, 60 * 86_400_000)
    expect(now.ageDays).toBe(20)
    expect(now.overdue).toBe(false)
    expect(now.drift?.flagged).toBe(true)
    expect(scaleStanding(scale, checks, 71 * 86_400_000).overdue).toBe(true)
    expect(scaleStanding(scale, [], 0)).toMatchObject({ check: null, overdue: true, drift: null })
  })
  it('does not call the tolerance of one reference a drift', () => {
    const [before, after] = [50.0, 50.02].map(displayG =>
      evaluateCheck(scale, [
        { references: [], displayG: 0 },
        { references: [{ ...fifty, toleranceG: 5 }], displayG },
      ]),
    )
    expect(driftBetween(before!, after!).sigma).toBeLessThan(5e-4)
  })
  it('learns its repeatability from the same thing placed again and again: blended with half a step, widened by Student’s factor', () => {
    // s 0.0089443 of six: √((4·0.005² + 5·0.00008)/7) = 0.0084515 and 0.0089443·2.5706/1.96 = 0.0117305
    expect(repeatabilityFrom([5.01, 5.02, 5.0, 5.01, 5.02, 5.0], 0.01)).toBeCloseTo(0.0117305, 6)
    expect(repeatabilityFrom([5, 5, 5, 5], 0.01)).toBeCloseTo(Math.sqrt((4 * 0.005 ** 2) / 5), 12)
    expect(repeatabilityFrom([5, 5.01], 0.01)).toBeCloseTo((0.0070711 * 12.7062) / 1.959964, 5)
    expect(repeatabilityFrom([5, 5], 0.01)).toBeCloseTo(Math.sqrt((4 * 0.005 ** 2) / 3), 12)
    expect(() => repeatabilityFrom([5], 0.01)).toThrow('displaysG')
  })
  it.each([2, 3, 5, 10])(
    'from %i placings it makes 95 %% intervals that hold: 20,000 weighings each, tared and untared',
    n => {
      const { normal, uniform } = chanceOf(20261100 + n)
      for (const noiseSteps of [0.3, 1, 1.5, 3]) {
        for (const isTared of [true, false]) {
          let held = 0
          const runs = 20_000
          for (let i = 0; i < runs; i++) {
            const shown = (massG: number) =>
              Math.round((0.37 + massG * 1.0007 + normal() * noiseSteps * 0.01) / 0.01) * 0.01
            const thingG = 20 + 30 * uniform()
            const own = {
              ...scale,
              repeatabilityG: repeatabilityFrom(
                Array.from({ length: n }, () => shown(thingG)),
                0.01,
              ),
            }
            const referenceG = 50 + 0.01 * (2 * uniform() - 1)
            const result = evaluateCheck(own, [
              { references: [], displayG: shown(0) },
              { references: [fifty], displayG: shown(referenceG) },
            ])
            const massG = 5 + 60 * uniform()
            const estimate = weighedEstimate(
              { scale: own, check: { id: 'c', result } },
              { id: 'w', displaysG: [shown(massG)], tare: isTared ? { id: 't', displayG: shown(0) } : null },
            )
            if (Math.abs(estimate.valueG - massG) <= 1.959964 * sigmaG(estimate)) held++
          }
          expect(held / runs, `${noiseSteps} steps, ${isTared ? 'tared' : 'untared'}`).toBeGreaterThanOrEqual(
            n === 2 ? 0.92 : 0.945,
          )
        }
      }
    },
  )
  it('a check takes one placing to repeat no better than 0.3 of a step', () => {
    const steady = { ...scale, repeatabilityG: 0.001 }
    expect(evaluateCheck(steady, check).noiseSigma).toBeCloseTo(Math.sqrt((0.003 ** 2 + 0.01 ** 2 / 12) / 1250), 12)
  })
  it('untared, a reference moves the level too: 1/J of its tolerance besides the gain’s part', () => {
    const at = (displayG: number) => weighedEstimate(checked, { id: 'w', displaysG: [displayG], tare: null })
    const toleranceSigma = 0.01 / Math.sqrt(3)
    // At the reference itself everything it is off by is in the result, at nothing none of it.
    expect(Math.abs(at(50.11).contributions['gain:reference:fifty']!)).toBeCloseTo(toleranceSigma, 9)
    expect(at(0).contributions['gain:reference:fifty'] ?? 0).toBeCloseTo(0, 9)
    expect(Math.abs(at(25.055).contributions['gain:reference:fifty']!)).toBeCloseTo(toleranceSigma / 2, 6)
  })
})

describe('a weighing', () => {
  it('tared, three placings: the worked example', () => {
    const estimate = weighedEstimate(checked, { id: 'w', displaysG: [17.45, 17.46, 17.47], tare })
    expect(estimate.valueG).toBeCloseTo(17.421672, 6)
    expect(estimate.contributions['weighing:w']).toBeCloseTo(0.005435, 6)
    expect(estimate.contributions['tared:t1']).toBeCloseTo(0.008486, 6)
    expect(total(estimate, 'gain:')).toBeCloseTo(0.00464, 6)
    expect(estimate.contributions['gain:blue:c1']).toBeLessThan(0)
    expect(sigmaG(estimate)).toBeCloseTo(0.011094, 6)
  })
  it('on a scale never checked has 0.3 % either way', () => {
    expect(
      weighedEstimate(unchecked, { id: 'w', displaysG: [100], tare }).contributions['gain:blue:unchecked'],
    ).toBeCloseTo(-0.3 / Math.sqrt(3), 12)
  })
  it('untared rests on the level of the check, and on its gain only away from where it was checked', () => {
    const estimate = weighedEstimate(checked, { id: 'w', displaysG: [25.06], tare: null })
    expect(estimate.contributions['level:c1']).toBeCloseTo(Math.sqrt((0.008 ** 2 + 0.01 ** 2 / 12) / 2) / 1.0022, 12)
    expect(Math.abs(estimate.contributions['gain:blue:c1']!)).toBeLessThan(1e-5)
  })
  it('before and after on one tare keep next to nothing of gain and nothing of the tare', () => {
    const before = weighedEstimate(checked, { id: 'b', displaysG: [27.64], tare })
    const after = weighedEstimate(checked, { id: 'a', displaysG: [25.12], tare })
    const trimmed = byDifference(before, after)
    expect(trimmed.valueG).toBeCloseTo(-2.52 / 1.0022, 9)
    expect(trimmed.contributions['tared:t1']).toBeCloseTo(0, 15)
    expect(total(trimmed, 'gain:')).toBeLessThan(0.0008)
  })
  it('in two lifts adds the gain parts and shares the tare', () => {
    const lifts = [150, 96.4].map((displayG, i) =>
      weighedEstimate(checked, { id: `l${i}`, displaysG: [displayG], tare }),
    )
    const whole = inLifts(lifts)
    expect(whole.contributions['tared:t1']).toBeCloseTo(2 * lifts[0]!.contributions['tared:t1']!, 12)
    expect(total(whole, 'gain:')).toBeCloseTo(total(lifts[0]!, 'gain:') + total(lifts[1]!, 'gain:'), 12)
    expect(() => inLifts([lifts[0]!])).toThrow(expect.objectContaining({ field: 'lifts', code: 'at least' }))
  })
  it('of pieces one after another averages their own parts and keeps what they share', () => {
    const pieces = [6.91, 6.88, 6.97].map((displayG, i) =>
      weighedEstimate(checked, { id: `p${i}`, displaysG: [displayG], tare }),
    )
    const mean = meanEstimate(pieces)
    expect(mean.valueG).toBeCloseTo(6.92 / 1.0022, 9)
    expect(total(mean, 'weighing:')).toBeCloseTo(pieces[0]!.contributions['weighing:p0']! / Math.sqrt(3), 12)
    expect(mean.contributions['tared:t1']).toBeCloseTo(pieces[0]!.contributions['tared:t1']!, 12)
  })
  it('refuses no display and what is not a number', () => {
    expect(() => weighedEstimate(checked, { id: 'w', displaysG: [], tare })).toThrow('displaysG')
    expect(() => weighedEstimate(checked, { id: 'w', displaysG: [NaN], tare })).toThrow('displaysG')
    expect(() => meanEstimate([])).toThrow('pieces')
  })
  it('says how many pieces bring one piece under a wanted spread', () => {
    const one = Math.sqrt(2 * (0.008 ** 2 + 0.01 ** 2 / 12))
    expect(piecesFor(scale, one)).toBe(1)
    expect(piecesFor(scale, one / 4)).toBe(4)
    expect(() => piecesFor(scale, 0)).toThrow('wantedSigmaG')
  })
  it('twenty lines on one drifting scale and one tare: the gain dominates, and only a check narrows it', () => {
    const sumOf = (state: ScaleState, placings: number) => {
      const lines = Array.from({ length: 20 }, (_, i) =>
        weighedEstimate(state, { id: `w${i}`, displaysG: Array<number>(placings).fill(12), tare }),
      )
      return { sigma: sigmaG(inLifts(lines)), gain: total(inLifts(lines), 'gain:') }
    }
    const once = sumOf(unchecked, 1)
    expect(once.gain / once.sigma).toBeGreaterThan(0.8)
    expect(sumOf(unchecked, 2).sigma).toBeGreaterThan(0.97 * once.sigma)
    expect(sumOf(checked, 1).sigma).toBeLessThan(0.6 * once.sigma)
  })
})

describe('the same thing on two scales', () => {
  const on = (id: string, displayG: number, s = 0.008) =>
    weighedEstimate(
      { scale: { ...scale, id, repeatabilityG: s }, check: null },
      { id: `${id}w`, displaysG: [displayG], tare: { id: `${id}t`, displayG: 0 } },
    )
  it('agrees within two joint standard uncertainties and is then the inverse-variance mean', () => {
    const [a, b] = [on('a', 20.01), on('b', 20.05, 0.03)]
    const compared = compareScales(a, b)
    expect(compared.agree).toBe(true)
    const [va, vb] = [sigmaG(a) ** 2, sigmaG(b) ** 2]
    expect(compared.combined!.valueG).toBeCloseTo((20.01 / va + 20.05 / vb) / (1 / va + 1 / vb), 9)
    expect(sigmaG(compared.combined!)).toBeCloseTo(Math.sqrt(1 / (1 / va + 1 / vb)), 12)
    expect(compared.firstShare).toBeGreaterThan(0.5)
  })
  it('is not combined when it differs by more', () => {
    expect(compareScales(on('a', 20), on('b', 20.5))).toMatchObject({ agree: false, combined: null })
  })
  it('never widens what the better one knows', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 150, noNaN: true }),
        fc.double({ min: 0.001, max: 0.1, noNaN: true }),
        (massG, s) => {
          const [a, b] = [on('a', massG), on('b', massG, s)]
          expect(sigmaG(compareScales(a, b).combined!)).toBeLessThanOrEqual(Math.min(sigmaG(a), sigmaG(b)) + 1e-12)
          expect(subtractEstimates(a, b).valueG).toBeCloseTo(0, 9)
        },
      ),
    )
  })
})

it('a check with a gain no scale has is refused, one at its bounds is not', () => {
  const of = (gain: number) => () =>
    evaluateCheck({ resolutionG: 0.01, repeatabilityG: 0.008 }, [
      { references: [], displayG: 0 },
      { references: [{ id: 'r', massG: 100, toleranceG: 0.01 }], displayG: 100 * gain },
    ])
  for (const gain of [0.81, 0.86, 1.14, 1.24]) expect(of(gain), String(gain)).not.toThrow()
  for (const gain of [0.79, 1.26]) expect(of(gain), String(gain)).toThrow('near 1')
})
