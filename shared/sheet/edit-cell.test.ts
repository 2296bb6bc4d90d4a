import { describe, expect, it } from 'vitest'
import { saidEvidences, makeLine, makeMass, type Mass } from '../../core/model/ledger'
import { evaluateCheck } from '../../core/mass/scale'
import { readAtHand, type ReadyScale } from '../../core/deciding/weigh'
import { cellText, editCell, editCellAt, sheetColumns } from './edit-cell'

const motor = makeLine({
  id: 'm',
  slot: 'motor',
  name: 'Motor',
  quantity: 4,
  mass: makeMass({ versionId: 'v', evidence: 'listed', valueG: 9.1, resolutionG: 0.1 }),
})
const edit = (column: (typeof sheetColumns)[number], text: string, line = motor) => editCell(line, column, text, 'n')

describe('typing in a cell with a scale at hand', () => {
  const ready: ReadyScale = {
    scale: { id: 'blue', resolutionG: 0.01, repeatabilityG: null, capacityG: 200 },
    name: 'blue scale',
    check: {
      id: 'c',
      result: evaluateCheck({ resolutionG: 0.01, repeatabilityG: null }, [
        { references: [], displayG: 0 },
        { references: [{ id: 'r', massG: 50, toleranceG: 0.01 }], displayG: 50.1 },
      ]),
    },
  }
  const at = (column: (typeof sheetColumns)[number], text: string, line = motor) =>
    editCellAt(line, column, text, 'n', mass => readAtHand(ready, mass, '2026-11-02T18:00:00.000Z'))
  it('grams said to be weighed are what it showed, and open for editing as typed', () => {
    const edited = at('each', '9.24 w')
    const mass = (edited as { fields: { mass: Mass } }).fields.mass
    expect(mass.valueG).toBeCloseTo(9.24 / 1.002, 9)
    expect(cellText({ ...motor, mass }, 'each')).toBe('9.24')
    const several = (at('each', '9.21 9.25') as { fields: { mass: Mass } }).fields.mass
    expect(cellText({ ...motor, mass: several }, 'each')).toBe('9.21 9.25')
  })
  it('a spread or a number of pieces says nothing of a scale', () => {
    const weighed = { ...motor, mass: makeMass({ versionId: 'v', evidence: 'weighed', valueG: 9.24, ownSpreadG: 0.2 }) }
    expect(at('spread', '', weighed)).toMatchObject({
      fields: { mass: { valueG: 9.24, weighing: null, ownSpreadG: null } },
    })
    expect(at('quantity', '2', weighed)).toMatchObject({ fields: { mass: { weighing: null, ownSpreadG: 0.1 } } })
  })
  it('known by “weighed” reads what stands there on it; over its capacity is a sentence', () => {
    const guess = { ...motor, mass: makeMass({ versionId: 'v', evidence: 'guess', valueG: 9.24 }) }
    expect(at('known', 'weighed', guess)).toMatchObject({ fields: { mass: { weighing: { displaysG: [9.24] } } } })
    const weighed = at('known', 'weighed', guess) as { fields: { mass: Mass } }
    const back = at('known', 'guess', { ...motor, mass: weighed.fields.mass }) as { fields: { mass: Mass } }
    expect(back.fields.mass.valueG).toBe(9.24)
    expect(at('known', 'weighed', { ...motor, mass: back.fields.mass })).toMatchObject({
      fields: { mass: { valueG: weighed.fields.mass.valueG } },
    })
    expect(at('known', 'listed', guess)).toMatchObject({ fields: { mass: { weighing: null } } })
    expect(at('grams', '500.00 w')).toMatchObject({ problem: expect.stringContaining('blue scale goes to 200 g') })
  })
})

describe('typing in a cell', () => {
  it('one motor typed counts four times, all together typed is the whole line', () => {
    expect(edit('each', '9,24 w')).toMatchObject({
      fields: { mass: { valueG: 9.24, valueCount: 1, evidence: 'weighed', resolutionG: 0.01 } },
    })
    expect(edit('grams', '36.9 g w')).toMatchObject({
      fields: { mass: { valueG: 36.9, valueCount: 4, evidence: 'weighed', resolutionG: 0.1 } },
    })
  })
  it('several readings are pieces weighed one by one', () => {
    expect(edit('each', '6.91 6.88; 6.97')).toMatchObject({
      fields: { mass: { valueG: 6.92, pieceReadingsG: [6.91, 6.88, 6.97], evidence: 'weighed' } },
    })
    expect(edit('each', '1 1 1 1 1')).toMatchObject({ problem: expect.stringContaining('5 readings for 4 pieces') })
  })
  it('keeps how it is known unless a letter says otherwise; a typical mass typed over is a guess', () => {
    expect(edit('each', '9.2')).toMatchObject({ fields: { mass: { evidence: 'listed' } } })
    expect(edit('each', '9.2 ~')).toMatchObject({ fields: { mass: { evidence: 'guess' } } })
    const typical = { ...motor, mass: { ...motor.mass!, evidence: 'typical' as const, halfRangeG: 1 } }
    expect(edit('each', '9.2', typical)).toMatchObject({ fields: { mass: { evidence: 'guess', halfRangeG: null } } })
  })
  it('an empty cell clears grams, spread and price', () => {
    expect(edit('each', '')).toEqual({ fields: { mass: null } })
    expect(edit('spread', '')).toMatchObject({ fields: { mass: { ownSpreadG: null } } })
    expect(edit('price', '')).toEqual({ fields: { priceEachCents: null } })
    expect(edit('spread', '± 0,4')).toMatchObject({ fields: { mass: { ownSpreadG: 0.4 } } })
  })
  it('a spread of one’s own goes with the number of pieces', () => {
    const own = { ...motor, mass: { ...motor.mass!, ownSpreadG: 0.5 } }
    expect(edit('quantity', '8', own)).toMatchObject({
      fields: { quantity: 8, mass: { versionId: 'n', ownSpreadG: 1, valueG: 9.1 } },
    })
    expect(edit('quantity', '1', own)).toMatchObject({ fields: { mass: { ownSpreadG: 0.125 } } })
    expect(edit('quantity', '8')).toEqual({ fields: { quantity: 8 } })
  })
  it.each([
    ['name', ''],
    ['name', '<script>x'],
    ['name', '=HYPERLINK("x")'],
    ['quantity', '0'],
    ['quantity', '2.5'],
    ['each', '-3'],
    ['each', '1e9'],
    ['each', 'NaN'],
    ['grams', '99999999'],
    ['spread', '-1'],
    ['known', 'hearsay'],
    ['slot', 'wing'],
    ['price', '-1'],
  ] as const)('in %s refuses %j with a sentence', (column, text) => {
    const result = edit(column, text)
    expect('problem' in result && result.problem).toMatch(/^[\w“×].*\.$/)
  })
  it('what a cell opens with, typed back, means the same', () => {
    for (const column of sheetColumns) {
      const result = edit(column, cellText(motor, column))
      expect('fields' in result, column).toBe(true)
      if ('fields' in result && result.fields.mass)
        expect(result.fields.mass.valueG / result.fields.mass.valueCount).toBeCloseTo(9.1, 9)
    }
  })
  it('changes to every evidence there is', () => {
    for (const evidence of saidEvidences)
      expect(edit('known', evidence)).toMatchObject({ fields: { mass: { evidence, versionId: 'n' } } })
  })
})

it('a line that becomes a pack says nothing of cells, chemistry or capacity by itself', () => {
  expect(editCell(makeLine({ id: 'l', slot: 'other', name: 'Long thing' }), 'slot', 'pack', 'v')).toEqual({
    fields: { slot: 'pack' },
  })
})
