import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  fromGrams,
  gramsPerOunce,
  gramsPerPound,
  isNotRead,
  massUnits,
  readCents,
  readGrams,
  readNumber,
  readQuantity,
  toGrams,
} from './index'

describe('units', () => {
  it('knows 0.55 lb exactly', () => {
    expect(toGrams(0.55, 'lb')).toBeCloseTo(249.4758035, 10)
    expect(gramsPerPound / gramsPerOunce).toBeCloseTo(16, 12)
  })
  it('comes back from every unit', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1e4, noNaN: true }), fc.constantFrom(...massUnits), (value, unit) => {
        expect(fromGrams(toGrams(value, unit), unit)).toBeCloseTo(value, 8)
      }),
    )
  })
  it('lets nothing in that is not finite', () => {
    expect(() => toGrams(NaN, 'g')).toThrow('value')
    expect(() => fromGrams(Infinity, 'oz')).toThrow('massG')
  })
})

describe('reading what was typed', () => {
  it('understands points, commas and units, and keeps the step of the last digit', () => {
    expect(readGrams('12.40')).toEqual({ massG: 12.4, stepG: 0.01 })
    expect(readGrams('12,4 g')).toEqual({ massG: 12.4, stepG: 0.1 })
    expect(readGrams('  7 ')).toEqual({ massG: 7, stepG: 1 })
    expect(readGrams('1 oz')).toEqual({ massG: gramsPerOunce, stepG: gramsPerOunce })
    expect(readGrams('.5')).toEqual({ massG: 0.5, stepG: 0.1 })
  })
  it.each(['', 'abc', 'NaN', '1e9', '1.2.3', '1,234.5', '--3', 'Infinity', '12 kg', '0x10'])(
    'refuses %j with a sentence',
    text => {
      const read = readGrams(text)
      expect(isNotRead(read) && read.problem.length).toBeGreaterThan(5)
    },
  )
  it('refuses negative and enormous masses by name', () => {
    expect(readGrams('-3')).toEqual({ problem: 'A mass cannot be negative.' })
    expect(readGrams('1000000000 g')).toMatchObject({ problem: expect.stringContaining('more than 10,000 g') })
  })
  it('takes whole counts only', () => {
    expect(readQuantity('× 4')).toEqual({ quantity: 4 })
    for (const text of ['0', '2.5', '-1', '1000', 'four']) expect(isNotRead(readQuantity(text))).toBe(true)
  })
  it('keeps money exact to the cent', () => {
    expect(readCents('1,15 €')).toEqual({ cents: 115 })
    expect(readCents('€ 0.07')).toEqual({ cents: 7 })
    expect(readCents('')).toEqual({ cents: null })
    for (const text of ['1.155', '-3', 'free', '1e5']) expect(isNotRead(readCents(text))).toBe(true)
  })
  it('reads back every decimal that can be written', () => {
    fc.assert(
      fc.property(fc.integer({ min: -1e6, max: 1e6 }), fc.integer({ min: 0, max: 4 }), (digits, decimals) => {
        const text = (digits / 10 ** decimals).toFixed(decimals)
        expect(readNumber(text.replace('.', ','))).toEqual({ value: Number(text), step: Number(`1e-${decimals}`) })
      }),
    )
  })
})
