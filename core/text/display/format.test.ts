import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  centsFigure,
  decimalsFor,
  decimalsOfStep,
  fixed,
  gramsFigure,
  gramsWithSpread,
  headroomWords,
  percentSure,
  priceWords,
  reserveWords,
  signed,
  sureWords,
} from './index'

it('a price is told as far as it is said', () => {
  expect([priceWords(2100, 0, '€'), priceWords(2100, 1, '€'), priceWords(0, 3, '€'), priceWords(0, 0, '€')]).toEqual([
    '21.00 €',
    'at least 21.00 €',
    'not said',
    '0.00 €',
  ])
})

describe('figures', () => {
  it('show grams to the digit the spread justifies', () => {
    expect(gramsWithSpread(248.463, 2.29)).toBe('248.5 g ± 2.3')
    expect(gramsWithSpread(243.07, 15.06)).toBe('243 g ± 15')
    expect(gramsWithSpread(3.416, 0.031)).toBe('3.42 g ± 0.03')
    expect(gramsWithSpread(249.6, 0)).toBe('249.60 g')
    expect(decimalsFor(0.45)).toBe(2)
    expect([1, 0.5, 0.1, 0.05, 0.01, 0.001].map(decimalsOfStep)).toEqual([0, 1, 1, 2, 2, 3])
  })
  it('use a typographic minus and never a negative nothing', () => {
    expect(fixed(-5.84, 1)).toBe('\u22125.8')
    expect(fixed(-0.001, 1)).toBe('0.0')
    expect(signed(7.44, 1)).toBe('+7.4')
    expect(signed(-0.01, 1)).toBe('0.0')
  })
  it('never round a probability to certainty', () => {
    expect(percentSure(0.97557)).toBe('97.6 %')
    expect(percentSure(1)).toBe('over 99.9 %')
    expect(percentSure(0)).toBe('under 0.1 %')
  })
  it('say headroom and over in words', () => {
    expect(headroomWords(1.01, 2.3)).toBe('1.0 g headroom')
    expect(headroomWords(-5.49, 0.87)).toBe('5.49 g over')
    expect(headroomWords(6.4, 15)).toBe('6.4 g headroom')
  })
  it('stand on the side of the limit where the mass is, and never look like it', () => {
    const limitG = 249.4758035
    expect(gramsFigure(249.477, 0.05, limitG)).toBe('249.477')
    expect(gramsFigure(249.46, 1.2, limitG)).toBe('249.46')
    expect(gramsFigure(248.1, 1.2, limitG)).toBe('248.1')
    expect(gramsFigure(249.46, 1.2, null)).toBe('249.5')
    expect(headroomWords(249.4758035 - 249.477, 0.05)).toBe('0.001 g over')
    fc.assert(
      fc.property(
        fc.double({ min: 240, max: 260, noNaN: true }),
        fc.double({ min: 0.01, max: 20, noNaN: true }),
        (massG, spread) => {
          const shown = Number(gramsFigure(massG, spread, limitG).replace('\u2212', '-'))
          if (Math.abs(massG - limitG) > 1e-3) expect(Math.sign(shown - limitG)).toBe(Math.sign(massG - limitG))
        },
      ),
    )
  })
  it('say how sure the word is, and never round across the confidence asked for', () => {
    expect(sureWords({ word: 'Clear', probability: 0.97557 }, 0.95)).toBe('97.6 % sure')
    expect(sureWords({ word: 'Over', probability: 0.0004 }, 0.95)).toBe('over 99.9 % sure')
    expect(sureWords({ word: 'Too close to call', probability: 0.94993 }, 0.95)).toBe('94.99 % likely to pass')
    expect(sureWords({ word: 'Clear', probability: 0.95 }, 0.95)).toBe('95.0 % sure')
    expect(sureWords({ word: 'Over', probability: 0.0496 }, 0.95)).toBe('95.0 % sure')
  })
  it('say how far a clear mass reaches into the reserve', () => {
    expect([reserveWords(null), reserveWords(0), reserveWords(1.24), reserveWords(0.04)]).toEqual([
      '',
      '',
      '1.2 g into your reserve',
      '0.04 g into your reserve',
    ])
  })
  it('write every whole number of cents exactly', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1e9 }), cents => {
        expect(Math.round(Number(centsFigure(cents)) * 100)).toBe(cents)
        expect(centsFigure(cents)).toMatch(/^\d+\.\d\d$/)
      }),
    )
  })
})
