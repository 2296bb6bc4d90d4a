import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { tapeOf, type SlideRow } from './index'

const setups = [
  { id: 'a', name: 'as built' },
  { id: 'b', name: 'day' },
]
const slide = (frontAtMm: number | null, missesMm = 0) => ({
  byMm: 0,
  toMm: 0,
  frontAtMm,
  frontRangeMm: null,
  missesMm,
  remainsMm: 0,
  spreadMm: 1,
})
const row = (label: string, ...cells: SlideRow['cells']): SlideRow => ({ packLineId: label, label, massG: 80, cells })
const cell = (setupId: string, frontAtMm: number | null, missesMm = 0) => ({
  choice: { setupId, packLineId: null },
  slide: slide(frontAtMm, missesMm),
})
const tenMm = () => 10

describe('the tape of a tray', () => {
  it('marks each pack where its front goes; one mark where a hand could not tell two apart', () => {
    const tape = tapeOf([row('P7', cell('a', 12.4), cell('b', 12.1)), row('P4', cell('a', 2))], setups, 80, tenMm)
    expect(tape).toEqual({
      lengthMm: 80,
      rows: 1,
      beyond: [],
      marks: [
        { atMm: 2, pack: 'P4', setups: ['as built'], row: 0 },
        { atMm: 12.1, pack: 'P7', setups: ['day', 'as built'], row: 0 },
      ],
    })
  })
  it('tells of what does not reach instead of marking it', () => {
    const tape = tapeOf([row('P7', cell('a', 0, 4.2), cell('b', 5))], setups, 80, tenMm)
    expect(tape!.beyond).toEqual([{ pack: 'P7', setup: 'as built', missesMm: 4.2 }])
    expect(tape!.marks.map(mark => mark.setups)).toEqual([['day']])
  })
  it('is none while nobody has said how long the tray is; without a pack it is empty', () => {
    expect(tapeOf([row('P7', cell('a', null))], setups, null, tenMm)).toBeNull()
    expect(tapeOf([], setups, 80, tenMm)).toEqual({ lengthMm: 80, marks: [], beyond: [], rows: 0 })
  })
  it('no words cover others, no line goes through words, and no row is left empty', () => {
    let crowded = 0
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 80, noNaN: true }), { maxLength: 12 }), fronts => {
        const table = fronts.map((front, i) => row(`P${i}`, cell('a', front)))
        const { marks, rows } = tapeOf(table, setups, 80, ({ pack }) => 8 * pack.length)!
        for (let n = 0; n < rows; n++) expect(marks.some(mark => mark.row === n)).toBe(true)
        // In its row and below no line of another mark goes through the words of a mark.
        for (const mark of marks)
          for (const other of marks.filter(one => one !== mark && one.row >= mark.row))
            expect(other.atMm <= mark.atMm || other.atMm >= mark.atMm + 8 * mark.pack.length).toBe(true)
        if (rows > 1) crowded++
        expect(marks).toHaveLength(fronts.length)
      }),
      { numRuns: 200 },
    )
    expect(crowded).toBeGreaterThan(50)
  })
})
