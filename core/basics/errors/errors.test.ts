import { describe, expect, it } from 'vitest'
import { inputSentence } from '../../text/display'
import { CoreInputError, requireFinite, requireNotNegative, requirePositive, type Expected } from './index'

const error = (expected: Expected) => new CoreInputError('screwG', 'lengthMm', -8, expected)

describe('what the core cannot compute with', () => {
  it('is data: what was given where, and what would have done', () => {
    expect(error({ is: 'in range', above: 0, most: 200 })).toMatchObject({
      code: 'in range',
      where: 'screwG',
      field: 'lengthMm',
      received: -8,
      expected: { above: 0, most: 200 },
    })
  })
  it.each<[Expected, string]>([
    [{ is: 'in range', above: 0, most: 200 }, 'Length must be above zero and at most 200 mm.'],
    [{ is: 'in range', least: 1, most: 9999, whole: true }, 'Length must be a whole number from 1 to 9999 mm.'],
    [{ is: 'in range', least: 0 }, 'Length must be zero or more.'],
    [{ is: 'in range', under: 5 }, 'Length must be less than 5 mm.'],
    [{ is: 'finite' }, 'Length must be a finite number.'],
    [{ is: 'at least', count: 2, of: 'lifts' }, 'Length must be at least 2 lifts.'],
    [{ is: 'one of', what: 'a gauge', choices: [16, 18] }, 'Length must be one of 16, 18.'],
    [{ is: 'one of', what: 'a material of the list' }, 'Length must be a material of the list.'],
    [{ is: 'fitting', what: 'rising' }, 'Length must be rising.'],
  ])('%o reads “%s” to whoever typed it', (expected, sentence) => {
    expect(inputSentence(error(expected), 'Length', 'mm')).toBe(sentence)
  })
  it('never enters: no NaN, no infinity, nothing below its least', () => {
    for (const value of [NaN, Infinity, -Infinity]) {
      expect(() => requireFinite('w', 'f', value)).toThrow(expect.objectContaining({ code: 'finite' }))
      expect(() => requireNotNegative('w', 'f', value)).toThrow(CoreInputError)
    }
    expect(() => requireNotNegative('w', 'f', -1e-12)).toThrow(CoreInputError)
    expect(() => requirePositive('w', 'f', 0)).toThrow(CoreInputError)
    expect(() => requireNotNegative('w', 'f', 0)).not.toThrow()
    expect(() => requirePositive('w', 'f', 1e-12)).not.toThrow()
  })
})
