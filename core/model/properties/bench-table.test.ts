import { describe, expect, it } from 'vitest'
import { isNotRead } from '../../text/units'
import { readBenchTable } from './index'

const problemOf = (text: string) => {
  const read = readBenchTable(text)
  return isNotRead(read) ? read.problem : null
}

describe('a bench table', () => {
  it('is read with or without heads, with commas, semicolons and decimal commas', () => {
    const rows = [
      { throttlePercent: 50, volts: 16.2, amps: 2.5, thrustG: 110 },
      { throttlePercent: 100, volts: 15.8, amps: 6.7, thrustG: 231 },
    ]
    for (const text of [
      '50, 16.2, 2.5, 110\n100, 15.8, 6.7, 231',
      'throttle,volts,amps,grams\n50,16.2,2.5,110\n100,15.8,6.7,231',
      '50 %;16,2 V;2,5 A;110 g\r\n100 %;15,8 V;6,7 A;231 g',
      'Note;Thrust (g);Current (A);Throttle (%);Voltage (V)\nwarm;110;2,5;50;16,2\nhot;231;6,7;100;15,8',
    ]) {
      expect(readBenchTable(text)).toEqual({ value: rows })
    }
  })
  it.each([
    [
      'a falling throttle column',
      '50, 16.2, 2.5, 110\n40, 16.3, 1.9, 88',
      'Row 2, throttle: 40 % does not rise above the 50 % of the row before.',
    ],
    [
      'a row twice',
      '50, 16.2, 2.5, 110\n50, 16.2, 2.5, 110',
      'Row 2, throttle: 50 % does not rise above the 50 % of the row before.',
    ],
    ['volts missing', 'throttle,volts,amps,grams\n50,16.2,2.5,110\n100,,6.7,231', 'Row 2, volts: missing.'],
    ['a row too short', '50, 16.2, 2.5, 110\n100, 15.8, 6.7', 'Row 2, grams: missing.'],
    ['volts of zero', '50, 0, 2.5, 110\n100, 15.8, 6.7, 231', 'Row 1, volts: “0” is not a number from 0.5 to 80.'],
    [
      'throttle over full',
      '50, 16.2, 2.5, 110\n120, 15.8, 6.7, 231',
      'Row 2, throttle: “120” is not a number from 0 to 100.',
    ],
    [
      'thrust that falls',
      '50, 16.2, 2.5, 110\n100, 15.8, 6.7, 90',
      'Row 2, grams: the thrust falls from 110 g to 90 g.',
    ],
    [
      'volts that fall faster than throttle rises',
      '90, 16, 2.5, 110\n95, 8, 6.7, 231',
      'Row 2, volts: 8 V falls so far below the 16 V of the row before that more throttle passes on less.',
    ],
    [
      'one row',
      '50, 16.2, 2.5, 110',
      'A bench table needs at least two rows: throttle in %, volts in V, amps in A, thrust in g.',
    ],
  ])('with %s is refused by row and column', (_what, text, problem) => {
    expect(problemOf(text)).toBe(problem)
  })
})
