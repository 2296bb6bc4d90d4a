import Papa from 'papaparse'
import { describe, expect, it } from 'vitest'
import marzipanFile from '../../demo/builds/marzipan.build.json'
import nougatFile from '../../demo/builds/nougat.build.json'
import { craftFigures, referenceFigures } from '../../core/comparing/crafts'
import { compareLines } from '../../core/comparing/lines'
import { ListingBiasTable } from '../../core/mass/listings'
import { defaultLoadout, estimatesOf } from '../../core/mass/loadout'
import type { Build } from '../../core/model/ledger'
import { comparisonCsv, comparisonMarkdown, wholeRows, type ComparisonTold } from './comparison-text'

const columns = [marzipanFile, nougatFile].map(({ build }) => {
  const of = build as unknown as Build
  return { build: of, choice: defaultLoadout(of), estimates: estimatesOf(of, new ListingBiasTable()) }
})
const humbug = referenceFigures({
  ...{ massG: 231.4, spreadG: 0.6, thrustG: null, priceCents: 25900, minutes: 6.6 },
  ...{ note: '', pictureIds: [] },
})
const told: ComparisonTold = {
  names: ['Marzipan', 'No|ugat', 'Humbug'],
  comparison: compareLines(columns),
  columns: [0, 1, null],
  figures: [...columns.map(one => craftFigures(one, [], null)), humbug],
  currency: '€',
}

describe('a comparison as text', () => {
  it('as Markdown has every line once, every craft as a whole, and names that cannot break the table', () => {
    const text = comparisonMarkdown(told)
    const rows = text.split('\n').filter(row => row.startsWith('|'))
    expect(text).toContain('No\\|ugat')
    expect(rows.filter(row => row.includes('Heat-sensing camera, stripped'))).toHaveLength(1)
    const whole = rows.slice(
      0,
      rows.findIndex(row => row.startsWith('| Slot')),
    )
    expect(new Set(whole.map(row => row.split(/(?<!\\)\|/).length))).toEqual(new Set([6]))
    const lines = rows.slice(whole.length)
    expect(new Set(lines.map(row => row.split(/(?<!\\)\|/).length))).toEqual(new Set([8]))
    expect(rows.at(-1)).toMatch(/All-up.*\+6\.\d\d ± /)
  })
  it('as CSV adds up: the differences of the lines are that of the totals', () => {
    const rows = Papa.parse<string[]>(comparisonCsv(told), { skipEmptyLines: true }).data
    const heads = rows[0]!
    const column = heads.indexOf('difference to No|ugat, g')
    expect(column).toBeGreaterThan(0)
    const sum = rows.slice(1).reduce((total, row) => total + Number(row[column]), 0)
    expect(sum).toBeCloseTo(told.comparison!.differences[1]!.valueG, 2)
  })
  it('says nothing it does not know of a craft known only as a whole, and puts what lies farthest apart first', () => {
    const rows = wholeRows(told.figures, '€')
    expect(rows.find(({ label }) => label === 'Dry mass, g')!.texts[2]).toBe('–')
    expect(rows.find(({ label }) => label === 'Minutes')!.texts[2]).toBe('6.6')
    expect(rows.every((row, i) => i === 0 || row.apart <= rows[i - 1]!.apart)).toBe(true)
  })
})
