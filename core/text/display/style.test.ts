import fc from 'fast-check'
import { afterEach, describe, expect, it } from 'vitest'
import { readGrams } from '../units'
import {
  counted,
  dayWords,
  figure,
  fixed,
  gramsWithSpread,
  percentSure,
  plainStyle,
  priceWords,
  signed,
  withPoint,
  writeFiguresBy,
} from '.'

const comma = () => writeFiguresBy(() => ({ decimal: 'comma', days: 'day-month-year' }))
afterEach(() => writeFiguresBy(() => plainStyle))

describe('figures as people write them', () => {
  it('have the point until somebody says otherwise', () => {
    expect(gramsWithSpread(248.72, 1.5)).toBe('248.7 g ± 1.5')
    expect(counted(20_000)).toBe('20,000')
  })

  it('have the comma where it was chosen: grams, signs, money, per cent, counts', () => {
    comma()
    expect(gramsWithSpread(248.72, 1.5)).toBe('248,7 g ± 1,5')
    expect(signed(-5.84, 1)).toBe('\u22125,8')
    expect(signed(0, 1)).toBe('0,0')
    expect(figure(-2.5, 2)).toBe('\u22122,5')
    expect(figure(3, 2)).toBe('3')
    expect(priceWords(1250, 0, '€')).toBe('12,50 €')
    expect(percentSure(0.9761)).toBe('97,6 %')
    expect(percentSure(0.99999)).toBe('over 99,9 %')
    expect(counted(1_234_567)).toBe('1\u202F234\u202F567')
  })

  it('are read back to the same grams by what reads typed text, with either mark', () => {
    let withDecimals = 0
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 999_999 }).map(hundredths => hundredths / 100),
        fc.integer({ min: 0, max: 4 }),
        (massG, decimals) => {
          comma()
          const written = fixed(massG, decimals)
          if (decimals > 0) {
            withDecimals++
            expect(written).toContain(',')
          }
          expect(written).not.toContain('.')
          const inComma = readGrams(written)
          writeFiguresBy(() => plainStyle)
          expect(readGrams(fixed(massG, decimals))).toEqual(inComma)
          expect(inComma).toHaveProperty('massG')
        },
      ),
    )
    expect(withDecimals).toBeGreaterThan(20)
  })

  it('keep the point in what programs read, and only there', () => {
    comma()
    expect(withPoint(() => fixed(12.4, 2))).toBe('12.40')
    expect(fixed(12.4, 2)).toBe('12,40')
    expect(() =>
      withPoint(() => {
        throw new Error('stopped')
      }),
    ).toThrow('stopped')
    expect(fixed(12.4, 2)).toBe('12,40')
  })
})

describe('days as people write them', () => {
  it.each([
    ['day-month-year', '3 November 2026', '3 Nov 2026', '3 Nov'],
    ['month-day-year', 'November 3, 2026', 'Nov 3, 2026', 'Nov 3'],
    ['year-month-day', '2026-11-03', '2026-11-03', '11-03'],
  ] as const)('in the order %s', (days, long, short, withoutYear) => {
    writeFiguresBy(() => ({ decimal: 'point', days }))
    expect([dayWords('2026-11-03'), dayWords('2026-11-03', 'short'), dayWords('2026-11-03', 'without year')]).toEqual([
      long,
      short,
      withoutYear,
    ])
  })

  it('leave alone what is no day', () => {
    expect(dayWords('2026-13-01')).toBe('2026-13-01')
    expect(dayWords('some day')).toBe('some day')
  })
})
