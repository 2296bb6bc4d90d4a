import { describe, expect, it } from 'vitest'
import { scaleAddressSchema } from './bench-scale'
import { observationSchema, weighingSchema } from './build'
import { checkFieldsSchema, referenceFieldsSchema, scaleFieldsSchema } from './scales'

const scale = { name: 'blue', resolutionG: 0.01, capacityG: 200, repeatabilityG: null, checkIntervalDays: 30 }
const sentence = (result: { success: boolean; error?: { issues: { message: string }[] } }) =>
  result.error?.issues[0]?.message ?? ''

describe('what is said of a scale', () => {
  it.each([
    [{ name: ' ' }, 'cannot be empty'],
    [{ name: '=1+1' }, 'formula'],
    [{ resolutionG: 0 }, 'above zero'],
    [{ resolutionG: NaN }, 'number of grams'],
    [{ capacityG: -5 }, 'at least 1 g'],
    [{ capacityG: 1e9 }, 'at most 10000'],
    [{ capacityG: 5, resolutionG: 1 }, 'ten steps'],
    [{ repeatabilityG: 0 }, 'above zero'],
    [{ checkIntervalDays: 2.5 }, 'whole number'],
    [{ checkIntervalDays: 0 }, 'one day'],
  ])('%o is refused', (wrong, words) => {
    expect(sentence(scaleFieldsSchema.safeParse({ ...scale, ...wrong }))).toContain(words)
  })
  it('and of a reference', () => {
    const reference = { name: 'brass', massG: 100, toleranceG: 0.02, coin: false }
    expect(referenceFieldsSchema.safeParse(reference).success).toBe(true)
    expect(sentence(referenceFieldsSchema.safeParse({ ...reference, massG: 0 }))).toContain('at least 0.01')
    expect(sentence(referenceFieldsSchema.safeParse({ ...reference, toleranceG: -1 }))).toContain('cannot be negative')
  })
  it('and of a check', () => {
    expect(sentence(checkFieldsSchema.safeParse({ takenAt: 'yesterday', placings: [] }))).toContain('2026-03-01')
    expect(
      sentence(
        checkFieldsSchema.safeParse({ takenAt: '2026-11-02T18:00:00Z', placings: [{ references: [], displayG: 'x' }] }),
      ),
    ).toContain('number of grams')
  })
})

describe('the address of a bench scale', () => {
  it.each(['', '127.0.0.1:4305', 'bench-adapter.local:23', '[::1]:4305', ' 10.0.0.7:9001 '])('“%s” is one', text => {
    expect(scaleAddressSchema.safeParse(text).success).toBe(true)
  })
  it.each(['127.0.0.1', 'host:', ':4305', 'host:0', 'host:99999', 'http://host:80', 'a b:1', 'host:12x'])(
    '“%s” is not',
    text => {
      expect(scaleAddressSchema.safeParse(text).success).toBe(false)
    },
  )
})

describe('a weighing that comes in from outside', () => {
  const weighing = {
    takenAt: '2026-11-02T18:00:00Z',
    scaleId: 'blue',
    scaleName: 'blue',
    checkId: null,
    method: 'on the pan',
    displaysG: [3.21],
    tare: null,
    contributions: { 'gain:blue:unchecked': -0.005, 'listing:video transmitter': 0.1 },
    supersedes: null,
  }
  it('is taken whole or not at all', () => {
    expect(weighingSchema.safeParse(weighing).success).toBe(true)
    for (const wrong of [
      { displaysG: [] },
      { displaysG: [Infinity] },
      { method: 'by magic' },
      { contributions: { '<b>': 1 } },
      { contributions: { a: NaN } },
      { takenAt: 'now' },
      { scaleId: '../x' },
    ]) {
      expect(weighingSchema.safeParse({ ...weighing, ...wrong }).success, JSON.stringify(wrong)).toBe(false)
    }
  })
  it('of several lines names what was on the pan', () => {
    const observation = {
      id: 'o',
      title: 'dry',
      takenAt: weighing.takenAt,
      scaleId: 'blue',
      scaleName: 'blue',
      checkId: null,
      displaysG: [99],
      tareDisplayG: 0,
      valueG: 99,
      contributions: {},
      pictureIds: [],
      subjects: [{ id: 'frame', slot: 'frame', quantity: 1, mass: null }],
      state: 'held',
    }
    expect(observationSchema.safeParse(observation).success).toBe(true)
    expect(sentence(observationSchema.safeParse({ ...observation, subjects: [] }))).toContain('at least one line')
    expect(observationSchema.safeParse({ ...observation, valueG: -1 }).success).toBe(false)
  })
})
