import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { inOrder, sortOf, turned } from './in-order'

describe('rows in the order of a column', () => {
  it('those whose value is not known stand last, whichever way the others go, and equal ones stay as they were', () => {
    const hits = { unknown: 0, equal: 0 }
    const value = fc.option(fc.integer({ min: 0, max: 5 }), { nil: null })
    fc.assert(
      fc.property(fc.array(value, { minLength: 2, maxLength: 12 }), fc.boolean(), (values, down) => {
        const rows = values.map((of, place) => ({ of, place }))
        const sorted = inOrder(rows, row => row.of, down)
        expect([...sorted].sort((a, b) => a.place - b.place)).toEqual(rows)
        for (const [i, now] of sorted.entries()) {
          const before = sorted[i - 1]
          if (!before) continue
          if (before.of === null) expect(now.of).toBeNull()
          else if (now.of !== null && now.of !== before.of) expect(now.of > before.of).toBe(!down)
          if (now.of !== before.of) continue
          hits.equal++
          expect(now.place).toBeGreaterThan(before.place)
        }
        if (values.includes(null)) hits.unknown++
      }),
      { numRuns: 400 },
    )
    expect(Math.min(hits.unknown, hits.equal)).toBeGreaterThan(100)
  })

  it('leaves the rows it is given as they are', () => {
    const rows = Object.freeze([3, 1, 2])
    expect(inOrder(rows, row => row, false)).toEqual([1, 2, 3])
    expect(inOrder(rows, row => String(row), true)).toEqual([3, 2, 1])
  })

  it('a head turns its own column round, and begins another the way it is told', () => {
    const byGrams = turned({ key: '', down: false }, 'grams')
    expect(byGrams).toEqual({ key: 'grams', down: false })
    expect(turned(byGrams, 'grams')).toEqual({ key: 'grams', down: true })
    expect(turned(byGrams, 'minutes', true)).toEqual({ key: 'minutes', down: true })
    expect([sortOf(byGrams, 'grams'), sortOf(turned(byGrams, 'grams'), 'grams'), sortOf(byGrams, 'minutes')]).toEqual([
      'ascending',
      'descending',
      'none',
    ])
  })
})
