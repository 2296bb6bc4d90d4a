import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  columnTracks,
  plainLayout,
  readLayout,
  shownColumns,
  sortedBy,
  withHidden,
  withSort,
  withWidth,
} from './column-layout'
import { drawerColumns, type DrawerColumn } from './drawer-cells'

const column = fc.constantFrom(...drawerColumns)

describe('columns of the drawer', () => {
  it('are hidden and shown, but never the name', () => {
    const layout = withHidden(withHidden(plainLayout, 'price', true), 'name', true)
    expect(shownColumns(layout)).toEqual(['slot', 'name', 'facts', 'grams', 'known', 'owned', 'left'])
    expect(shownColumns(withHidden(layout, 'price', false))).toEqual(drawerColumns)
  })

  it('are as wide as they were drawn, within what can be read', () => {
    expect(columnTracks(withWidth(plainLayout, 'grams', 100.4))).toContain(' 100px ')
    expect(withWidth(plainLayout, 'grams', 1).widths.grams).toBe(44)
    expect(withWidth(plainLayout, 'grams', 9999).widths.grams).toBe(640)
  })

  it('sort upwards, downwards, not; a second one decides between rows alike', () => {
    const kind = withSort(plainLayout, 'slot', false)
    const kindThenGrams = withSort(withSort(kind, 'grams', true), 'grams', true)
    expect(kindThenGrams.sorts).toEqual([
      { column: 'slot', down: false },
      { column: 'grams', down: true },
    ])
    expect(withSort(kindThenGrams, 'grams', true).sorts).toEqual(kind.sorts)
    expect(withSort(kindThenGrams, 'price', false).sorts).toEqual([{ column: 'price', down: false }])
    expect(withHidden(kindThenGrams, 'slot', true).sorts).toEqual([{ column: 'grams', down: true }])
  })

  it('keep every row once, in the order of the first key, then the second, then as they were', () => {
    let ties = 0
    fc.assert(
      fc.property(
        fc.array(fc.record({ slot: fc.integer({ min: 0, max: 3 }), grams: fc.integer({ min: 0, max: 3 }) })),
        fc.boolean(),
        fc.boolean(),
        (drawn, first, second) => {
          const rows = drawn.map((row, at) => ({ ...row, at }))
          const sorts = [
            { column: 'slot' as const, down: first },
            { column: 'grams' as const, down: second },
          ]
          const sorted = sortedBy(rows, sorts, (row, by) => (by === 'slot' ? row.slot : row.grams))
          expect(sorted.map(row => row.at).sort((a, b) => a - b)).toEqual(rows.map(row => row.at))
          for (const [i, after] of sorted.entries()) {
            const before = sorted[i - 1]
            if (!before) continue
            const bySlot = (before.slot - after.slot) * (first ? -1 : 1)
            const byGrams = (before.grams - after.grams) * (second ? -1 : 1)
            expect(bySlot).toBeLessThanOrEqual(0)
            if (bySlot === 0) expect(byGrams).toBeLessThanOrEqual(0)
            if (bySlot === 0 && byGrams === 0) {
              ties++
              expect(before.at).toBeLessThan(after.at)
            }
          }
        },
      ),
    )
    expect(ties).toBeGreaterThan(20)
  })

  it('are read from whatever a browser kept', () => {
    for (const kept of [null, 'x', 7, [], { hidden: 'all', widths: 3, sorts: [null, { column: 'colour' }] }])
      expect(readLayout(kept)).toEqual(plainLayout)
    expect(
      readLayout({ hidden: ['name', 'price', 'price2'], widths: { grams: 80, slot: 1e9, owned: '9' }, sorts: [] }),
    ).toEqual({ hidden: ['price'], widths: { grams: 80 }, sorts: [] })
    fc.assert(
      fc.property(
        fc.array(fc.tuple(column, fc.constantFrom('hide', 'sort', 'wide'), fc.integer({ min: 50, max: 600 }))),
        steps => {
          const layout = steps.reduce(
            (sum, [name, what, width]) =>
              what === 'hide'
                ? withHidden(sum, name as DrawerColumn, width % 2 === 0)
                : what === 'sort'
                  ? withSort(sum, name as DrawerColumn, width % 2 === 0)
                  : withWidth(sum, name as DrawerColumn, width),
            plainLayout,
          )
          expect(readLayout(JSON.parse(JSON.stringify(layout)))).toEqual(layout)
        },
      ),
    )
  })
})
