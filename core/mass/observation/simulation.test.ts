import { describe, expect, it } from 'vitest'
import { addEstimates, estimateOf, rectangularSigma, sigmaG, spreadG, type Estimate } from '../../maths/estimate'
import { asObserved, evaluateCheck, weighedEstimate, type Scale, type ScaleState } from '../scale'
import { coverageFactor95 } from '../../maths/numbers'
import { judge } from '../../limits/verdict'
import { Conditioning, type LinearObservation } from './index'

/** A seeded source of uniform and normal numbers: the same figures in every run. */
function chance(seed: number) {
  let state = seed >>> 0
  const uniform = () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t ^= t + Math.imul(t ^ (t >>> 7), 61 | t)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
  const normal = () => Math.sqrt(-2 * Math.log(1 - uniform())) * Math.cos(2 * Math.PI * uniform())
  return { uniform, normal, between: (low: number, high: number) => low + (high - low) * uniform() }
}
type Shape = 'normal' | 'rectangular'

/** One made-up builder: a scale that lies a little, its check, and everything weighed on it; true masses known. */
function madeUpBuild(seed: number, shape: Shape) {
  const { uniform, normal, between } = chance(seed)
  /** An error of half-width a: rectangular, or normal with the same standard deviation. */
  const within = (a: number) => (shape === 'rectangular' ? between(-a, a) : normal() * rectangularSigma(a))
  const scale: Scale = {
    id: 's',
    name: 's',
    resolutionG: 0.01,
    capacityG: 500,
    repeatabilityG: 0.008,
    checkIntervalDays: 30,
  }
  const [trueLevelG, trueGain] = [between(-0.2, 0.2), 1 + within(0.003)]
  const display = (massG: number) => {
    const raw = trueLevelG + trueGain * massG + 0.008 * normal()
    return shape === 'rectangular' ? Math.round(raw / 0.01) * 0.01 : raw + within(0.005)
  }
  const reference = { id: 'r', massG: 100, toleranceG: 0.02 }
  const trueReferenceG = 100 + within(0.02)
  const check = evaluateCheck(scale, [
    { references: [], displayG: display(0) },
    { references: [reference], displayG: display(trueReferenceG) },
  ])
  const state: ScaleState = { scale, check: uniform() < 0.8 ? { id: 'c', result: check } : null }
  const tares = Array.from({ length: 3 }, (_, i) => ({ id: `t${i}`, displayG: display(0) }))
  let count = 0
  const weigh = (massG: number): Estimate =>
    weighedEstimate(state, { id: `w${count++}`, displaysG: [display(massG)], tare: tares[Math.floor(uniform() * 3)]! })
  const believe = (massG: number): Estimate => {
    const a = Math.max(0.2 * massG, 0.2)
    return estimateOf(massG - within(a), { [`g${count++}`]: rectangularSigma(a) })
  }

  const lines = Array.from({ length: 8 + Math.floor(uniform() * 10) }, () => {
    const trueG = between(0.5, 25)
    return { trueG, estimate: uniform() < 0.6 ? weigh(trueG) : believe(trueG) }
  })
  const observations: LinearObservation[] = []
  const observe = (parts: typeof lines) => {
    const massG = parts.reduce((sum, p) => sum + p.trueG, 0)
    observations.push({ id: `o${count}`, parts: parts.map(p => p.estimate), observed: asObserved(weigh(massG)) })
  }
  if (uniform() < 0.7) observe(lines.slice(0, Math.ceil(lines.length / 2)))
  if (uniform() < 0.7) observe(lines)
  const packs = [between(60, 110), between(60, 110)].map(trueG => ({ trueG, estimate: weigh(trueG) }))
  if (uniform() < 0.5) observe([...lines, packs[0]!])
  // The pack is swapped and one line changed after everything was weighed.
  const trueG = between(0.5, 10)
  const flown = [...lines.slice(1), { trueG, estimate: uniform() < 0.5 ? weigh(trueG) : believe(trueG) }, packs[1]!]
  const given = new Conditioning(observations)
  return {
    estimate: addEstimates(flown.map(line => given.of(line.estimate))),
    trueG: flown.reduce((sum, line) => sum + line.trueG, 0),
  }
}

function coverage(shape: Shape): number {
  let covered = 0
  for (let seed = 1; seed <= 2000; seed++) {
    const { estimate, trueG } = madeUpBuild(seed * 7919, shape)
    if (Math.abs(estimate.valueG - trueG) <= spreadG(estimate)) covered++
  }
  return covered / 2000
}

describe('2,000 made-up builds weighed on made-up scales', () => {
  it('causes drawn normal: 95 % intervals of the all-up weight cover the truth in 93.5 to 96.5 %', () => {
    const share = coverage('normal')
    expect(share).toBeGreaterThanOrEqual(0.935)
    expect(share).toBeLessThanOrEqual(0.965)
  })
  it('causes drawn rectangular where the pedigree says so, displays rounded: at least 93.5 %', () => {
    expect(coverage('rectangular')).toBeGreaterThanOrEqual(0.935)
  })
})

describe('verdicts about craft of known mass', () => {
  const limitG = 249.4758
  const say = (trueG: number, sigma: number, normal: () => number) =>
    judge({ massG: trueG + sigma * normal(), sigmaG: sigma, limitG, comparator: '<=', confidence: 0.95 }).word
  it('truth uniform within 10 g: of those called Clear within 2 g of the limit at most 5 % are over', () => {
    const { between, normal } = chance(20261)
    let clear = 0
    let wrong = 0
    while (clear < 4000) {
      const trueG = between(limitG - 10, limitG + 10)
      if (say(trueG, between(0.05, 1), normal) !== 'Clear' || Math.abs(trueG - limitG) > 2) continue
      clear++
      if (trueG > limitG) wrong++
    }
    expect(wrong / clear).toBeLessThanOrEqual(0.05)
  })
  it('truth exactly at the limit: Clear in at most 5 % and three standard errors', () => {
    const { between, normal } = chance(20262)
    const tries = 20_000
    let clear = 0
    for (let i = 0; i < tries; i++) if (say(limitG, between(0.05, 1), normal) === 'Clear') clear++
    expect(clear / tries).toBeLessThanOrEqual(0.05 + 3 * Math.sqrt((0.05 * 0.95) / tries))
    expect(coverageFactor95).toBeGreaterThan(sigmaG({ valueG: 0, contributions: { one: 1 } }))
  })
})
