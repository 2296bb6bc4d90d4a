import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { columnTracks, plainLayout, readLayout, shownColumns, withHidden, withSort, withWidth } from './column-layout'
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
