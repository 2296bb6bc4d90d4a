import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { applyCommand, makeBuild } from '../../changes/commands'
import { ListingBiasTable } from '../../mass/listings'
import { estimatesOf } from '../../mass/loadout'
import { blankPlaces, makeLine, makeMass, type Build, type Line, type Slot } from '../../model/ledger'
import { farthestFirst, compareLines, explaining, farthestG, matchLines, type Compared } from './index'

const weighed = (id: string, slot: Slot, valueG: number, more: Partial<Line> = {}) =>
  makeLine({
    id,
    slot,
    name: id,
    mass: makeMass({ versionId: `v-${id}-${valueG}`, evidence: 'weighed', valueG, ownSpreadG: 0.05 }),
    ...more,
  })
const craft = (id: string, lines: Line[]): Build =>
  makeBuild({
    id,
    name: id,
    lines,
    setups: [{ id: 'as', name: 'as built', lineIds: [] }],
    flies: { setupId: 'as', packLineId: lines.find(({ slot }) => slot === 'pack')?.id ?? null },
  })
const compared = (build: Build): Compared => ({
  build,
  choice: build.flies,
  estimates: estimatesOf(build, new ListingBiasTable()),
})

describe('lines beside each other', () => {
  it('a swapped camera is one row, not two: by the slot, where neither part nor name is the same', () => {
    const before = craft('b', [weighed('frame', 'frame', 40), weighed('old', 'camera', 12), weighed('p', 'pack', 80)])
    const added = applyCommand(before, {
      type: 'lines.add',
      lines: [weighed('new', 'camera', 9, { state: 'candidate', insteadOf: 'old' })],
      beforeId: null,
    })
    const after = applyCommand(added, { type: 'line.fit', id: 'new' })
    const { rows, differences } = compareLines([compared(before), compared(after)])
    expect(rows.map(({ lines }) => lines.map(line => line?.id))).toEqual([
      ['frame', 'frame'],
      ['old', 'new'],
      ['p', 'p'],
    ])
    expect(rows[1]!.differences[1]!.valueG).toBe(-3)
    expect(differences[1]!.valueG).toBe(-3)
  })
  it('by the part of the drawer before the name, by the name before the slot; what is alone stands alone', () => {
    const mine = [weighed('a', 'screw', 1), weighed('b', 'screw', 2), weighed('c', 'screw', 3, { partId: 'drawer-1' })]
    const theirs = [
      weighed('x', 'screw', 4, { partId: 'drawer-1' }),
      weighed('y', 'screw', 5, { name: 'B' }),
      weighed('z', 'screw', 6),
      weighed('w', 'strap', 7),
    ]
    expect(matchLines([mine, theirs]).map(row => row.map(line => line?.id ?? null))).toEqual([
      ['a', 'z'],
      ['b', 'y'],
      ['c', 'x'],
      [null, 'w'],
    ])
  })
  it('by the place on the craft before the order of the ledger, where both say where they sit', () => {
    const placed = (id: string, lines: Line[], spots: Readonly<Record<string, number>>): Build => {
      const pieces = Object.entries(spots).map(([lineId, xMm]) => ({
        ...{ lineId, number: 0, xMm, yMm: 0, zMm: 5 },
        ...{ sigmaMm: 0.5, turnDeg: 0, tiltDeg: 0 },
      }))
      return { ...craft(id, lines), places: { ...blankPlaces, pieces } }
    }
    const mine = placed('m', [weighed('nose', 'aerial', 1), weighed('tail', 'aerial', 2)], { nose: 40, tail: -40 })
    const theirs = (spots: Readonly<Record<string, number>>) =>
      placed('t', [weighed('back', 'aerial', 3), weighed('front', 'aerial', 4)], spots)
    const pairs = (other: Build) =>
      compareLines([compared(mine), compared(other)]).rows.map(({ lines }) => lines.map(line => line?.id))
    expect(pairs(theirs({ back: -36, front: 44 }))).toEqual([
      ['nose', 'front'],
      ['tail', 'back'],
    ])
    const byOrder = [
      ['nose', 'back'],
      ['tail', 'front'],
    ]
    expect(pairs(theirs({}))).toEqual(byOrder)
    // Farther than 15 mm is another place.
    expect(pairs(theirs({ back: 0, front: 0 }))).toEqual(byOrder)
  })
  it('of two days of one build, a line that nobody touched differs by nothing, and has no ±', () => {
    const build = craft('b', [weighed('frame', 'frame', 40), weighed('p', 'pack', 80)])
    const heavier = applyCommand(build, {
      type: 'lines.add',
      lines: [weighed('strap', 'strap', 3)],
      beforeId: null,
    })
    const { rows } = compareLines([compared(build), compared(heavier)])
    expect(rows[0]!.differences[1]).toEqual({ valueG: 0, sigmaG: 0 })
    expect(farthestFirst(rows)[0]!.lines[1]!.id).toBe('strap')
  })

  const slots = ['frame', 'motor', 'camera', 'screw', 'strap'] as const
  const line = fc.record({ slot: fc.constantFrom(...slots), cg: fc.integer({ min: 1, max: 9000 }), name: fc.nat(4) })
  it('every line stands once, and the differences of the rows add up to that of the totals, to the digit', () => {
    let paired = 0
    fc.assert(
      fc.property(fc.array(fc.array(line, { maxLength: 12 }), { minLength: 2, maxLength: 4 }), crafts => {
        const columns = crafts.map((lines, c) =>
          compared(
            craft(
              `c${c}`,
              lines.map(({ slot, cg, name }, i) => weighed(`l${c}-${i}`, slot, cg / 100, { name: `n${name}` })),
            ),
          ),
        )
        const { rows, totals, differences } = compareLines(columns)
        for (const [c, lines] of crafts.entries()) {
          expect(rows.flatMap(row => row.lines[c] ?? []).length).toBe(lines.length)
          const sum = rows.reduce((total, row) => total + row.differences[c]!.valueG, 0)
          expect(sum).toBeCloseTo(differences[c]!.valueG, 9)
          expect(totals[c]!.valueG - totals[0]!.valueG).toBeCloseTo(differences[c]!.valueG, 9)
        }
        for (const row of rows) {
          const there = row.lines.flatMap(one => one ?? [])
          expect(new Set(there.map(({ slot }) => slot)).size).toBe(1)
          if (there.length > 1) paired++
        }
      }),
      { numRuns: 500 },
    )
    expect(paired).toBeGreaterThan(1000)
  })
})

describe('what explains a difference', () => {
  it('twins differ by so much, of which the motors are the most; the rest lies within the ±', () => {
    const twin = (id: string, motors: number, frame: number, strap: number) =>
      compared(
        craft(id, [
          weighed('motors', 'motor', motors),
          weighed('frame', 'frame', frame),
          weighed('strap', 'strap', strap),
        ]),
      )
    const comparison = compareLines([twin('a', 40, 50, 3), twin('b', 41.1, 50.05, 3.05)])
    expect(comparison.differences[1]!.valueG).toBeCloseTo(1.2, 9)
    const { rows, restG, spreadG } = explaining(comparison, 1)
    expect(rows.map(row => row.lines[0]!.id)).toEqual(['motors'])
    expect(restG).toBeCloseTo(0.1, 9)
    // Six masses of ± 0.05 each.
    expect(spreadG).toBeCloseTo(0.05 * Math.sqrt(6), 4)
    expect(farthestG(rows[0]!)).toBeCloseTo(1.1, 9)
  })
  it('nothing needs explaining where the difference lies within the ±', () => {
    const one = (g: number) => compared(craft('x', [weighed('frame', 'frame', g)]))
    expect(explaining(compareLines([one(50), one(50.04)]), 1).rows).toEqual([])
  })
})
