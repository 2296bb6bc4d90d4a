import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { flightTimeWords, readFlightTime } from './index'

describe('a time in the air', () => {
  it.each([
    ['3:20', 200, 1],
    [' 3:05 ', 185, 1],
    ['3 min 20', 200, 1],
    ['3m20s', 200, 1],
    ['3.2', 192, 6],
    ['3,25 min', 195, 0.6],
    ['3', 180, 60],
    ['200 s', 200, 1],
    ['200.5 sec', 200.5, 0.1],
  ] as const)('%s is %s s, known to %s s', (text, seconds, stepS) => {
    const read = readFlightTime(text, 180)
    expect(read).toEqual({ seconds: expect.closeTo(seconds, 9), stepS: expect.closeTo(stepS, 9) })
  })
  it.each([
    ['', /how long it flew/],
    ['0', /at least a second/],
    ['0:00', /at least a second/],
    ['-2', /at least a second/],
    ['400', /more than 180 minutes.*type 200 s/],
    ['3:75', /59 seconds/],
    ['about three', /no time in the air/],
    ['3:2:1', /no time in the air/],
  ] as const)('%s is refused in words', (text, sentence) => {
    expect(readFlightTime(text, 180)).toEqual({ problem: expect.stringMatching(sentence) })
  })
  it('is read again as it is written', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 180 * 60 }), seconds => {
        expect(readFlightTime(flightTimeWords(seconds), 180)).toEqual({ seconds, stepS: 1 })
      }),
    )
  })
})
