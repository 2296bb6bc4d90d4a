import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { addEstimates, sigmaG, varianceG2, type Estimate } from '../../maths/estimate'
import { factorise, solve } from '../../maths/matrix'
import { makeLine, makeMass, type Line, type Observation } from '../../model/ledger'
import { ListingBiasTable } from '../listings'
import { estimatesOf } from '../loadout'
import { asObserved, byDifference, evaluateCheck, weighedEstimate, type ScaleState } from '../scale'
import { Conditioning, differenceAsMass, isComparable, reconcile, type LinearObservation } from './index'

const nobody = new ListingBiasTable()
const own = (key: string, valueG: number, c: number, more: Record<string, number> = {}): Estimate => ({
  valueG,
  contributions: { [key]: c, ...more },
})
const a = own('a', 40, 0.01, { gain: -0.04 })
const b = own('b', 20, 1)
const pack = own('p', 85, 0.01, { gain: -0.085 })
const both: LinearObservation = { id: 'o', parts: [a, b], observed: own('w', 61.2, 0.012, { gain: 0.0612 }) }
const auw = (given: Conditioning, ...parts: Estimate[]) => addEstimates(parts.map(part => given.of(part)))

/** The textbook update with a dense covariance matrix over all causes, one observation after the other. */
function bruteForce(sums: readonly LinearObservation[], wanted: Estimate): { massG: number; sigmaG: number } {
  const keys = [
    ...new Set([...sums.flatMap(s => [...s.parts, s.observed]), wanted].flatMap(e => Object.keys(e.contributions))),
  ]
  const vector = (e: Estimate) => keys.map(k => e.contributions[k] ?? 0)
  const mean = keys.map(() => 0)
  const covariance = keys.map((_, i) => keys.map((__, j) => Number(i === j)))
  for (const { parts, observed } of sums) {
    const row = vector(addEstimates([...parts, { valueG: 0, contributions: observed.contributions }]))
    const pRow = covariance.map(line => line.reduce((sum, c, j) => sum + c * row[j]!, 0))
    const s = row.reduce((sum, c, i) => sum + c * pRow[i]!, 0)
    const residual =
      observed.valueG - parts.reduce((sum, p) => sum + p.valueG, 0) - row.reduce((sum, c, i) => sum + c * mean[i]!, 0)
    for (let i = 0; i < keys.length; i++) {
      mean[i]! += (pRow[i]! / s) * residual
      for (let j = 0; j < keys.length; j++) covariance[i]![j]! -= (pRow[i]! * pRow[j]!) / s
    }
  }
  const h = vector(wanted)
  let variance = 0
  for (let i = 0; i < keys.length; i++)
    for (let j = 0; j < keys.length; j++) variance += h[i]! * covariance[i]![j]! * h[j]!
  return { massG: wanted.valueG + h.reduce((sum, c, i) => sum + c * mean[i]!, 0), sigmaG: Math.sqrt(variance) }
}

describe('weighings of several lines', () => {
  it('the worked example: two lines observed together, a pack added', () => {
    const given = new Conditioning([both])
    const total = auw(given, a, b, pack)
    expect(sigmaG(addEstimates([a, b, pack]))).toBeCloseTo(1.00788, 5)
    expect(total.valueG).toBeCloseTo(146.19611, 5)
    expect(sigmaG(total)).toBeCloseTo(0.146996, 6)
  })
  it('wide priors and one observation of everything give its mean and the scale’s spread', () => {
    const wide = [own('x', 30, 50), own('y', 10, 80)]
    const total = auw(new Conditioning([{ id: 'o', parts: wide, observed: own('w', 57, 0.02) }]), ...wide)
    expect(total.valueG).toBeCloseTo(57, 4)
    expect(sigmaG(total)).toBeCloseTo(0.02, 6)
  })
  it('two scales on one thing with a wide prior give the inverse-variance mean', () => {
    const thing = own('x', 100, 1000)
    const given = new Conditioning([
      { id: '1', parts: [thing], observed: own('w1', 120, 0.03) },
      { id: '2', parts: [thing], observed: own('w2', 120.1, 0.04) },
    ])
    const [v1, v2] = [0.03 ** 2, 0.04 ** 2]
    expect(given.of(thing).valueG).toBeCloseTo((120 / v1 + 120.1 / v2) / (1 / v1 + 1 / v2), 5)
    expect(sigmaG(given.of(thing))).toBeCloseTo(Math.sqrt(1 / (1 / v1 + 1 / v2)), 7)
  })
  it('leave independent lines as they are, to the object', () => {
    const apart = own('z', 5, 0.3)
    expect(new Conditioning([both]).of(apart)).toBe(apart)
    expect(new Conditioning([]).of(a)).toBe(a)
  })
  it('lines and whole on one scale: the comparison holds noise and tare only', () => {
    const part = (key: string, g: number) => own(key, g, 0.01, { gain: -0.002 * g, tare: 0.005 })
    const parts = [part('x', 40), part('y', 60)]
    const observed = own('w', 100, 0.01, { gain: 0.2, tare: -0.005 })
    const row = addEstimates([...parts, { valueG: 0, contributions: observed.contributions }])
    expect(row.contributions.gain).toBeCloseTo(0, 12)
    expect(varianceG2(row)).toBeCloseTo(3 * 0.01 ** 2 + 0.005 ** 2, 12)
    expect(auw(new Conditioning([{ id: 'o', parts, observed }]), ...parts).contributions.gain).toBeCloseTo(-0.2, 6)
  })
  const keys = ['k0', 'k1', 'k2', 'k3', 'k4']
  const coefficient = fc.double({ min: -2, max: 2, noNaN: true })
  const estimate = fc.record({
    valueG: fc.double({ min: 1, max: 99, noNaN: true }),
    contributions: fc
      .tuple(...keys.map(() => coefficient))
      .map(cs => Object.fromEntries(cs.map((c, i) => [keys[i]!, c]))),
  })
  const sums = fc
    .array(
      fc.record({
        parts: fc.array(estimate, { minLength: 1, maxLength: 3 }),
        valueG: fc.double({ min: 1, max: 300, noNaN: true }),
        noise: fc.double({ min: 0.05, max: 1, noNaN: true }),
      }),
      { minLength: 1, maxLength: 4 },
    )
    .map(list =>
      list.map(({ parts, valueG, noise }, i): LinearObservation => ({
        id: `o${i}`,
        parts,
        observed: own(`w${i}`, valueG, noise),
      })),
    )
  it('equal a brute-force dense covariance update, whatever the order', () => {
    fc.assert(
      fc.property(sums, estimate, (observed, wanted) => {
        const expected = bruteForce(observed, wanted)
        for (const order of [observed, [...observed].reverse()]) {
          const got = new Conditioning(order).of(wanted)
          expect(Math.abs(got.valueG - expected.massG)).toBeLessThan(1e-6 * (1 + Math.abs(expected.massG)))
          expect(Math.abs(sigmaG(got) - expected.sigmaG)).toBeLessThan(1e-6)
        }
      }),
    )
  })
  it('never widen anything, and taking one in twice says nothing new', () => {
    fc.assert(
      fc.property(sums, estimate, (observed, wanted) => {
        const once = new Conditioning(observed).of(wanted)
        expect(sigmaG(once)).toBeLessThanOrEqual(sigmaG(wanted) + 1e-9)
        const twice = new Conditioning([...observed, observed[0]!])
        expect(twice.contradictions).toEqual([])
        expect(twice.of(wanted).valueG).toBeCloseTo(once.valueG, 6)
      }),
    )
  })
  it('one that contradicts the others exactly is left out and named', () => {
    const again: LinearObservation = { ...both, id: 'again', observed: { ...both.observed, valueG: 70 } }
    const given = new Conditioning([both, again])
    expect(given.contradictions).toEqual(['again'])
    expect(auw(given, a, b).valueG).toBeCloseTo(auw(new Conditioning([both]), a, b).valueG, 9)
  })
  it('the factor solves what it factorised', () => {
    const matrix = [
      [4, 2, 0.5],
      [2, 5, 1],
      [0.5, 1, 3],
    ]
    const x = solve(
      factorise(3, (i, j) => matrix[i]![j]!),
      [1, 2, 3],
    )
    matrix.forEach((row, i) => expect(row.reduce((sum, c, j) => sum + c * x[j]!, 0)).toBeCloseTo(i + 1, 12))
  })
})

const scale = { id: 's', name: 'S', resolutionG: 0.01, capacityG: 300, repeatabilityG: 0.008, checkIntervalDays: 30 }
const state: ScaleState = {
  scale,
  check: {
    id: 'c',
    result: evaluateCheck(scale, [
      { references: [], displayG: 0 },
      { references: [{ id: 'r', massG: 100, toleranceG: 0.01 }], displayG: 100.1 },
    ]),
  },
}
function weighedLine(id: string, displayG: number, more: Partial<Line> = {}): Line {
  const estimate = weighedEstimate(state, { id: `w-${id}`, displaysG: [displayG], tare: { id: 'tray', displayG: 0 } })
  const weighing = {
    takenAt: '2026-11-01T10:00:00Z',
    scaleId: 's',
    scaleName: 'S',
    checkId: 'c',
    method: 'on the pan' as const,
    displaysG: [displayG],
    tare: null,
    contributions: estimate.contributions,
    supersedes: null,
  }
  return makeLine({
    id,
    slot: 'other',
    name: id,
    mass: makeMass({ versionId: `v-${id}`, evidence: 'weighed', valueG: estimate.valueG, weighing }),
    ...more,
  })
}
const guessed = (id: string, valueG: number): Line =>
  makeLine({ id, slot: 'other', name: id, mass: makeMass({ versionId: `v-${id}`, evidence: 'guess', valueG }) })
function observe(lines: readonly Line[], displayG: number, given: Partial<Observation> = {}): Observation {
  const seen = asObserved(
    weighedEstimate(state, { id: 'whole', displaysG: [displayG], tare: { id: 'whole', displayG: 0 } }),
  )
  return {
    id: 'o',
    pictureIds: [],
    title: 'dry',
    takenAt: '2026-11-01T11:00:00Z',
    scaleId: 's',
    scaleName: 'S',
    checkId: 'c',
    displaysG: [displayG],
    tareDisplayG: 0,
    valueG: seen.valueG,
    contributions: seen.contributions,
    subjects: lines,
    state: 'taken in',
    ...given,
  }
}
const u = (lines: readonly Line[], observations: readonly Observation[]) => {
  const estimates = estimatesOf({ lines, observations }, nobody)
  return addEstimates(lines.map(line => estimates.of(line)))
}

/** A build in which nothing of what was on the pan is any more: it is known as it was then. */
const none = { lines: [], observations: [] }

describe('a build weighed as a whole', () => {
  const dry = [guessed('frame', 45), guessed('wires', 6), weighedLine('motors', 44), guessed('strap', 3)]
  const p4 = weighedLine('p4', 84.6)
  const observation = observe(dry, 99.3)
  it('the dry craft and each pack on one scale: the loadout’s spread is the hand calculation', () => {
    const total = u([...dry, p4], [observation])
    const { noiseSigma, references, gain } = state.check!.result
    const massG = (99.3 + 84.6) / gain
    expect(total.valueG).toBeCloseTo(massG, 3)
    const one = Math.sqrt(0.008 ** 2 + 0.01 ** 2 / 12) / gain
    const gainPart = (massG / gain) * Math.hypot(noiseSigma, references.r!)
    expect(sigmaG(total)).toBeCloseTo(Math.hypot(one, one, one, one, gainPart), 4)
  })
  it('a weighed strap put in the place of another weighed strap moves the total by the difference and adds its own part', () => {
    const before = [...dry.slice(0, 3), weighedLine('strap', 3)]
    const whole = observe(before, 99.3)
    const lighter = weighedLine('strap', 2.2)
    const swapped = {
      ...lighter,
      edition: 1,
      mass: {
        ...lighter.mass!,
        versionId: 'v-light',
        weighing: {
          ...lighter.mass!.weighing!,
          contributions: Object.fromEntries(
            Object.entries(lighter.mass!.weighing!.contributions).map(([key, c]) => [
              key.replace('w-strap', 'w-light'),
              c,
            ]),
          ),
        },
      },
    }
    const [was, is] = [u(before, [whole]), u([...before.slice(0, 3), swapped], [whole])]
    const { gain } = state.check!.result
    expect(is.valueG - was.valueG).toBeCloseTo(-0.8 / gain, 2)
    const own = Math.sqrt(0.008 ** 2 + 0.01 ** 2 / 12) / gain
    expect(sigmaG(is)).toBeLessThanOrEqual(Math.hypot(sigmaG(was), own, own) + 1e-4)
    expect(sigmaG(is)).toBeGreaterThan(sigmaG(was))
  })
  it('leads trimmed by difference keep the narrow total', () => {
    const trimmed = byDifference(
      weighedEstimate(state, { id: 'b', displaysG: [44], tare: { id: 't', displayG: 0 } }),
      weighedEstimate(state, { id: 'a', displaysG: [42.6], tare: { id: 't', displayG: 0 } }),
    )
    const motors = dry[2]!
    const contributions = addEstimates([
      { valueG: 0, contributions: motors.mass!.weighing!.contributions },
      trimmed,
    ]).contributions
    const cut: Line = {
      ...motors,
      edition: 1,
      mass: {
        ...motors.mass!,
        versionId: 'v-cut',
        valueG: motors.mass!.valueG + trimmed.valueG,
        weighing: { ...motors.mass!.weighing!, method: 'by difference', contributions },
      },
    }
    const after = [dry[0]!, dry[1]!, cut, dry[3]!]
    const [was, is] = [u(dry, [observation]), u(after, [observation])]
    expect(is.valueG - was.valueG).toBeCloseTo(trimmed.valueG, 6)
    expect(sigmaG(is)).toBeLessThan(Math.hypot(sigmaG(was), sigmaG(trimmed)) + 1e-6)
  })
  it('renaming and reordering change nothing; what is held or set aside says nothing', () => {
    const renamed = [...dry].reverse().map(line => ({ ...line, name: `${line.name} again` }))
    expect(u(renamed, [observation]).valueG).toBeCloseTo(u(dry, [observation]).valueG, 9)
    expect(
      u(dry, [
        { ...observation, state: 'held' },
        { ...observation, id: 'x', state: 'set aside' },
      ]),
    ).toEqual(u(dry, []))
  })
  it('agrees when it may, and otherwise ranks what could explain it', () => {
    const spare = weighedLine('spare prop', 6)
    expect(reconcile(observation, none, [], nobody)).toMatchObject({ agrees: true })
    const narrow = dry.map((line, i) => weighedLine(line.id, [45, 6, 44, 3][i]!))
    const over = reconcile(observe(narrow, 104.1), none, [spare], nobody)
    expect(over.agrees).toBe(false)
    expect(over.differenceG).toBeCloseTo(6.1 / state.check!.result.gain, 6)
    expect(over.suspects[0]).toMatchObject({ lineId: 'spare prop', why: 'on the pan though not ticked' })
    const under = reconcile(observe(narrow, 95), none, [], nobody)
    expect(under.suspects[0]).toMatchObject({ lineId: 'strap', why: 'not on the pan' })
    const loose = reconcile(observe([...narrow.slice(1), guessed('frame', 20)], 99), none, [], nobody)
    expect(loose.suspects[0]).toMatchObject({ lineId: 'frame', why: 'its spread' })
  })
  it('what is compared, named as left off and named as put on lies on either side of its bounds', () => {
    // Three tenths of what is expected, to the gram: 69 of 230 is compared, 68 is not.
    expect([isComparable(69, 230), isComparable(71, 230), isComparable(68, 230)]).toEqual([true, true, false])
    const narrow = dry.map((line, i) => weighedLine(line.id, [45, 6, 44, 3][i]!))
    const { sigmaG: sigma } = reconcile(observe(narrow, 98), none, [], nobody)
    const { gain } = state.check!.result
    const named = (grams: number, more: number) =>
      reconcile(observe(narrow, 98 + more * gain), none, [weighedLine('spare', grams)], nobody).suspects.some(
        one => one.lineId === 'spare',
      )
    const expected = reconcile(observe(narrow, 98), none, [], nobody).differenceG
    const wanted = 6
    // Two joint standard uncertainties and a fiftieth of what is missing are allowed for.
    const allowed = 2 * sigma + 0.02 * wanted
    const at = (off: number) => named((wanted + expected + off) * gain, wanted)
    expect([at(0), at(allowed * 0.97), at(-allowed * 0.97), at(allowed * 1.03), at(-allowed * 1.03)]).toEqual([
      true,
      true,
      true,
      false,
      false,
    ])
    // Next to nothing is not looked for: three standard uncertainties.
    const little = (times: number) => named(times * sigma * gain, times * sigma - expected)
    expect([little(3.1), little(2.9)]).toEqual([true, false])
  })
  it('an empty pan is not compared, and what would make a line weigh less than nothing is named', () => {
    expect([
      isComparable(0, 230),
      isComparable(-0.01, 230),
      isComparable(60, 230),
      isComparable(80, 230),
      isComparable(228, 230),
    ]).toEqual([false, false, false, true, true])
    expect(isComparable(0.5, 0)).toBe(true)
    const empty = reconcile(observe(dry, 0), none, [], nobody)
    expect(empty.belowNothing).toContain('frame')
    expect(reconcile(observe(dry, 98), none, [], nobody).belowNothing).toEqual([])
  })
  it('the difference booked as a line makes the total the one displayed, and no surer than the scale', () => {
    const narrow = dry.map((line, i) => weighedLine(line.id, [45, 6, 44, 3][i]!))
    const short = observe(narrow, 99.9, { state: 'held' })
    const difference = differenceAsMass(short, [], nobody)
    const solder = makeLine({
      id: 'solder',
      slot: 'other',
      name: 'solder',
      mass: makeMass({
        versionId: 'v-solder',
        evidence: 'weighed',
        valueG: difference.valueG,
        weighing: {
          ...narrow[0]!.mass!.weighing!,
          method: 'booked difference',
          contributions: difference.contributions,
        },
      }),
    })
    const total = u([...narrow, solder], [short])
    expect(total.valueG).toBeCloseTo(short.valueG, 9)
    expect(sigmaG(total)).toBeCloseTo(sigmaG({ valueG: 0, contributions: short.contributions }), 9)
  })
})
