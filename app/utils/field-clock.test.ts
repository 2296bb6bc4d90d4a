import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { clockAtRest, pressed, readClock, secondsOf, type FieldClock, type FieldPress } from './field-clock'

const after = (...presses: readonly (readonly [FieldPress, number])[]): FieldClock =>
  presses.reduce((clock, [press, nowMs]) => pressed(clock, press, nowMs), clockAtRest)

describe('the clock of the field', () => {
  it('counts from go to landed, and keeps the first warning', () => {
    const clock = after(['go', 1000], ['warning', 181_000], ['warning', 190_000], ['landed', 201_000])
    expect(clock).toEqual({ phase: 'landed', startedMs: 1000, warnedMs: 181_000, landedMs: 201_000 })
    expect(secondsOf(clock, 999_999)).toBe(200)
  })
  it('a warning that was none and a landing that was none are taken back; the time goes on', () => {
    const clock = after(
      ['go', 0],
      ['warning', 60_000],
      ['not yet', 61_000],
      ['landed', 90_000],
      ['still flying', 95_000],
    )
    expect(clock).toEqual({ phase: 'air', startedMs: 0, warnedMs: null })
    expect(secondsOf(clock, 100_000)).toBe(100)
  })
  it('a second press at once does not land it', () => {
    expect(after(['go', 5000], ['landed', 5200]).phase).toBe('air')
  })
  it('presses that mean nothing leave it as it is', () => {
    for (const press of ['warning', 'not yet', 'landed', 'still flying'] as const)
      expect(pressed(clockAtRest, press, 1)).toBe(clockAtRest)
    const landed = after(['go', 0], ['landed', 9000])
    for (const press of ['go', 'warning', 'not yet', 'landed'] as const)
      expect(pressed(landed, press, 10_000)).toBe(landed)
  })
  it('is the same after it was kept and read again, whatever was pressed', () => {
    const presses = fc.array(fc.constantFrom<FieldPress>('go', 'warning', 'not yet', 'landed', 'still flying', 'done'))
    let flying = 0
    fc.assert(
      fc.property(presses, all => {
        const clock = after(...all.map((press, i) => [press, 2000 * i] as const))
        if (clock.phase !== 'before') flying++
        expect(readClock(JSON.stringify(clock))).toEqual(clock)
      }),
    )
    expect(flying).toBeGreaterThan(10)
  })
  it.each([null, '', 'nonsense', '{}', '{"phase":"air"}', '{"phase":"landed","startedMs":1,"warnedMs":null}', '[]'])(
    'is at rest where %s was kept',
    text => {
      expect(readClock(text)).toEqual(clockAtRest)
    },
  )
})
