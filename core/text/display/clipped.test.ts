import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { clipped } from './clipped'

describe('a text that has to fit', () => {
  it.each([
    ['Wren 3', 6, 'Wren 3'],
    ['Wren 3 plates', 8, 'Wren 3…'],
    ['Wren 3 plates', 9, 'Wren 3 p…'],
    ['Wren', 1, '…'],
    ['', 5, ''],
  ])('“%s” in %i letters', (text, most, said) => {
    expect(clipped(text, most)).toBe(said)
  })
  it('is never longer than it may be, and begins as it began', () => {
    let cut = 0
    fc.assert(
      fc.property(fc.string({ maxLength: 40 }), fc.integer({ min: 1, max: 30 }), (text, most) => {
        const said = clipped(text, most)
        expect(said.length).toBeLessThanOrEqual(most)
        if (said === text) return
        cut++
        expect(text.startsWith(said.slice(0, -1))).toBe(true)
        expect(said).toMatch(/\S…$|^…$/)
      }),
      { numRuns: 400 },
    )
    expect(cut).toBeGreaterThan(50)
  })
})
