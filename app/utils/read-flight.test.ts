import { describe, expect, it } from 'vitest'
import { readLanding, readOptional } from './read-flight'

describe('landing volts as they are typed', () => {
  it.each([
    ['15.2', 4, { volts: 15.2, of: 'pack' }],
    ['15,2 V', 4, { volts: 15.2, of: 'pack' }],
    ['3.8', 4, { volts: 3.8, of: 'cell' }],
    ['3.62 a cell', 4, { volts: 3.62, of: 'cell' }],
    ['3.7 V/cell', 2, { volts: 3.7, of: 'cell' }],
    ['3.7', 1, { volts: 3.7, of: 'pack' }],
    ['47', 4, { volts: 47, of: 'pack' }],
  ] as const)('%s on %s cells', (text, cells, landing) => {
    expect(readLanding(text, cells, null)).toEqual({ value: { ...landing, loadA: null, isFresh: false } })
  })
  it('keeps what was known of the reading, and empty is nothing said', () => {
    const before = { volts: 15, of: 'pack', loadA: 8, isFresh: true } as const
    expect(readLanding('15.1', 4, before)).toEqual({ value: { ...before, volts: 15.1 } })
    expect(readLanding('  ', 4, before)).toEqual({ value: null })
  })
  it.each(['low', '3.6.1', '-'])('%s is refused in words', text => {
    expect(readLanding(text, 4, null)).toEqual({ problem: expect.stringContaining('is no voltage') })
  })
})

it('figures that may be left out', () => {
  expect(readOptional('', 'mAh')).toEqual({ value: null })
  expect(readOptional('641 mAh', 'mAh')).toEqual({ value: 641 })
  expect(readOptional('much', 'mAh')).toEqual({ problem: expect.stringContaining('not a number') })
})
