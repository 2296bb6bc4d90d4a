import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { sortPressed, sortedBy, sortOf, type ColumnSort } from './sorted-by'

describe('rows by columns', () => {
  it('what is not known stands last, whichever way the others go; rows alike stay as they were', () => {
    const hits = { unknown: 0, alike: 0 }
    const value = fc.option(fc.integer({ min: 0, max: 3 }), { nil: null })
    const rows = fc.array(fc.record({ kind: value, grams: value }), { minLength: 2, maxLength: 14 })
    fc.assert(
      fc.property(rows, fc.boolean(), fc.boolean(), (values, first, second) => {
        const placed = values.map((one, at) => ({ ...one, at }))
        const sorts = [
          { column: 'kind' as const, down: first },
          { column: 'grams' as const, down: second },
        ]
        const sorted = sortedBy(placed, sorts, (row, column) => row[column])
        expect([...sorted].sort((a, b) => a.at - b.at)).toEqual(placed)
        /** Below, above or alike, by what the sentence says and nothing else. */
        const apart = (x: number | null, y: number | null, down: boolean) =>
          (x ?? (down ? -1 : 9)) === (y ?? (down ? -1 : 9))
            ? 0
            : (x ?? (down ? -1 : 9)) < (y ?? (down ? -1 : 9)) !== down
              ? -1
              : 1
        for (const [i, now] of sorted.entries()) {
          const before = sorted[i - 1]
          if (!before) continue
          const [byKind, byGrams] = [apart(before.kind, now.kind, first), apart(before.grams, now.grams, second)]
          expect(byKind).toBeLessThanOrEqual(0)
          if (byKind === 0) expect(byGrams).toBeLessThanOrEqual(0)
          if (byKind !== 0 || byGrams !== 0) continue
          hits.alike++
          expect(now.at).toBeGreaterThan(before.at)
        }
        if (values.some(({ kind }) => kind === null)) hits.unknown++
      }),
      { numRuns: 400 },
    )
    expect(Math.min(hits.unknown, hits.alike)).toBeGreaterThan(100)
  })
  it('words as well as figures; without a column as they came, and what was given stays as it is', () => {
    const rows = Object.freeze(['b', 'c', 'a'])
    expect(sortedBy(rows, [{ column: 'name', down: true }], row => row)).toEqual(['c', 'b', 'a'])
    expect(sortedBy(rows, [], row => row)).toEqual(['b', 'c', 'a'])
  })
})

describe('the head of a column', () => {
  const press = (columns: readonly string[], downFirst = false) =>
    columns.reduce<ColumnSort | undefined>((sort, column) => sortPressed(sort, column, downFirst), undefined)

  it('sorts upwards, downwards, not at all, and then again', () => {
    expect(['', 'g', 'gg', 'ggg', 'gggg'].map(times => sortOf(press([...times]), 'g'))).toEqual([
      'none',
      'ascending',
      'descending',
      'none',
      'ascending',
    ])
  })
  it('the other way first where more is better; another column begins anew', () => {
    expect(['g', 'gg', 'ggg'].map(times => sortOf(press([...times], true), 'g'))).toEqual([
      'descending',
      'ascending',
      'none',
    ])
    expect(press(['g', 'g', 'h'])).toEqual({ column: 'h', down: false })
    expect(sortOf(press(['g', 'h']), 'g')).toBe('none')
  })
})
