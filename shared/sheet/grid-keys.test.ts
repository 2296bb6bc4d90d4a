import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cellAway, draftAction, gridAction, startsTyping, type Press, type Typing } from './grid-keys'

const press = (key: string, held: Partial<Press> = {}): Press => ({
  key,
  ctrlKey: false,
  metaKey: false,
  altKey: false,
  shiftKey: false,
  ...held,
})
const columns = ['slot', 'name', 'each', 'price'] as const

describe('keys of a grid', () => {
  it.each([
    ['ArrowDown', {}, { do: 'move', rows: 1, columns: 0, wraps: false }],
    ['PageUp', {}, { do: 'move', rows: -10, columns: 0, wraps: false }],
    ['Tab', {}, { do: 'move', rows: 0, columns: 1, wraps: true }],
    ['Tab', { shiftKey: true }, { do: 'move', rows: 0, columns: -1, wraps: true }],
    ['Home', {}, { do: 'to column', end: 'first' }],
    ['End', { ctrlKey: true }, { do: 'to row', end: 'last' }],
    ['Enter', {}, { do: 'edit', text: null }],
    ['F2', {}, { do: 'edit', text: null }],
    ['Delete', {}, { do: 'delete' }],
    [' ', {}, { do: 'choose' }],
    ['ArrowUp', { altKey: true }, { do: 'move row', by: -1 }],
    ['d', { ctrlKey: true }, { do: 'duplicate' }],
    ['z', { metaKey: true }, { do: 'undo' }],
    ['Z', { ctrlKey: true, shiftKey: true }, { do: 'redo' }],
    ['7', {}, { do: 'edit', text: '7' }],
    ['c', { ctrlKey: true }, null],
    ['F5', {}, null],
    ['x', { altKey: true }, null],
  ] as const)('%s %o', (key, held, action) => {
    expect(gridAction(press(key, held), 'figures')).toEqual(action)
  })
  it('a letter begins a name, and is left to the shortcuts in a figure', () => {
    expect(gridAction(press('w'), 'letters')).toEqual({ do: 'edit', text: 'w' })
    expect(gridAction(press('w'), 'figures')).toBeNull()
    expect(gridAction(press('7'), 'nothing')).toBeNull()
    for (const key of ['/', '?']) expect(startsTyping(press(key), 'letters')).toBe(false)
  })
  it('a key that meets an editor only just opening is not lost', () => {
    expect(draftAction(press('2'), { text: '17.0', whole: false }, 'figures')).toEqual({ text: '17.02', whole: false })
    expect(draftAction(press('2'), { text: '17.0', whole: true }, 'figures')).toEqual({ text: '2', whole: false })
    expect(draftAction(press('Enter'), { text: '', whole: true }, 'figures')).toBe('keep')
    expect(draftAction(press('Escape'), { text: '', whole: true }, 'figures')).toBe('leave')
    expect(draftAction(press('ArrowUp'), { text: '', whole: true }, 'figures')).toBeNull()
  })
  it('the end of a row goes on in the next one, the last cell stays', () => {
    const right = { rows: 0, columns: 1, wraps: true }
    expect(cellAway({ row: 0, column: 'price' }, right, 3, columns)).toEqual({ row: 1, column: 'slot' })
    expect(cellAway({ row: 2, column: 'price' }, right, 3, columns)).toEqual({ row: 2, column: 'price' })
    const left = { rows: 0, columns: -1, wraps: true }
    expect(cellAway({ row: 1, column: 'slot' }, left, 3, columns)).toEqual({ row: 0, column: 'price' })
    expect(cellAway({ row: 0, column: 'slot' }, left, 3, columns)).toEqual({ row: 0, column: 'slot' })
  })
  it('wherever a key goes from, it comes to a cell of the grid; forth and back is where one was, but at the edges', () => {
    let inside = 0
    const step = fc.constantFrom<readonly [number, number]>([1, 0], [-1, 0], [0, 1], [0, -1])
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 30 }),
        fc.nat(29),
        fc.nat(3),
        step,
        fc.boolean(),
        (count, at, of, by, wraps) => {
          const from = { row: Math.min(at, count - 1), column: columns[of]! }
          const to = cellAway(from, { rows: by[0], columns: by[1], wraps }, count, columns)
          expect(to.row >= 0 && to.row < count && columns.includes(to.column)).toBe(true)
          if (to.row === from.row && to.column === from.column) return
          inside++
          expect(cellAway(to, { rows: -by[0], columns: -by[1], wraps }, count, columns)).toEqual(from)
        },
      ),
    )
    expect(inside).toBeGreaterThan(30)
  })
  it('no key both moves and writes', () => {
    const typings: readonly Typing[] = ['letters', 'figures', 'nothing']
    const keys = ['ArrowUp', 'Tab', 'Home', 'Enter', 'a', '7', ' ', 'Delete', '±']
    const written = keys.filter(key => typings.some(typing => startsTyping(press(key), typing)))
    expect(written).toEqual(['a', '7', '±'])
  })
})
