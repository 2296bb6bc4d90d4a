import { describe, expect, it } from 'vitest'
import { makeLine } from '#core/model/ledger'
import type { CandidateRow } from '#core/deciding/choosing'
import {
  candidateFigure,
  candidateMinutes,
  candidateValue,
  candidateWords,
  drawableFigures,
  candidateFigures,
  fitsWords,
} from './candidate-words'
import { sortedBy } from '#shared/sheet/sorted-by'

const row = (name: string, more: Partial<CandidateRow> = {}): CandidateRow => ({
  source: 'drawer',
  line: makeLine({ id: name, slot: 'motor', name }),
  setG: 28,
  spreadG: 0.2,
  auwG: 240,
  deltaG: -2,
  verdict: null,
  setPriceCents: 6000,
  figures: [],
  findings: [],
  minutes: null,
  ...more,
})
const clash = {
  id: 'f',
  severity: 'clash',
  title: 'Motor B has no holes for this frame',
  sentence: 'It cannot be screwed on.',
} as unknown as CandidateRow['findings'][number]

describe('a column of candidates', () => {
  it('one that has no grams, price or minutes stands last, whichever way the column is sorted', () => {
    const rows = [
      row('Unweighed', { setG: null, deltaG: null, setPriceCents: null }),
      row('Heavy', { setG: 31, deltaG: 1, setPriceCents: 8000 }),
      row('Light', { setG: 24, deltaG: -6, setPriceCents: 4000 }),
    ]
    for (const key of ['set', 'delta', 'price'])
      for (const down of [false, true]) {
        const names = sortedBy(rows, [{ column: key, down }], candidateValue).map(({ line }) => line.name)
        expect([key, down, ...names]).toEqual([
          key,
          down,
          ...(down ? ['Heavy', 'Light'] : ['Light', 'Heavy']),
          'Unweighed',
        ])
      }
  })
  it('is sorted by what it says: names without regard to capitals, figures by their key', () => {
    const thrust = { key: 'thrust', label: 'Thrust', unit: 'g', value: 320, digits: 0 }
    expect(candidateValue(row('Motor B'), 'name')).toBe('motor b')
    expect(candidateValue(row('A', { figures: [thrust] }), 'thrust')).toBe(320)
    expect(candidateValue(row('A', { figures: [thrust] }), 'shaft')).toBeNull()
    expect(candidateValue(row('A'), 'auw')).toBe(240)
  })
  it('whether it fits is not known of one without properties, and not sorted as if it did', () => {
    const known = makeLine({ id: 'k', slot: 'motor', name: 'Motor K', properties: { statorMm: 14 } })
    expect([fitsWords(row('A')), candidateValue(row('A'), 'fit')]).toEqual(['not known', null])
    const fits = row('Motor K', { line: known })
    expect([fitsWords(fits), candidateValue(fits, 'fit')]).toEqual(['yes', 0])
    const not = row('Motor B', { findings: [clash] })
    expect([fitsWords(not), candidateValue(not, 'fit')]).toEqual(['Has no holes for this frame', 1])
  })
})

describe('what is said of a candidate', () => {
  it('minutes: those of the fitted one, the difference of the others', () => {
    const minutes = { minutes: 5.25, deltaMin: -0.4, spreadMin: 0.1 } as CandidateRow['minutes']
    expect(candidateMinutes(row('A', { minutes, source: 'fitted' }))).toMatch(/^5[.:]/)
    expect(candidateMinutes(row('A', { minutes }))).toBe('−0.40 ± 0.10')
    expect(candidateMinutes(row('A'))).toBe('not known')
  })
  it('figures: rounded as they are told, large ones in groups, words as they are', () => {
    expect(candidateFigure(null, 1)).toBe('–')
    expect(candidateFigure('press fit', 0)).toBe('press fit')
    expect(candidateFigure(12.345, 1)).toBe('12.3')
    expect(candidateFigure(9999, 0)).toBe('9999')
    expect(candidateFigure(28_000, 0)).toMatch(/^28\D000$/)
  })
  it('what has no column stands in words, with its unit; what is not known is left out', () => {
    const figures = [
      { key: 'thrust', label: 'Thrust', unit: 'g', value: 320, digits: 0 },
      { key: 'mount', label: 'Mount', unit: 'mm', value: '9×9 M2', digits: 0 },
      { key: 'shaft', label: 'Shaft', unit: 'mm', value: 1.5, digits: 1 },
      { key: 'kv', label: 'KV', unit: '', value: 3800, digits: 0 },
      { key: 'wires', label: 'Wires', unit: 'mm', value: null, digits: 0 },
    ]
    expect(candidateWords(row('A', { figures }), ['thrust'])).toBe('Mount: 9×9 M2 · Shaft: 1.5 mm · KV: 3800')
    expect(candidateWords(row('A'), [])).toBe('')
  })
  it('only figures of which somebody has a number can be drawn', () => {
    const figures = (thrust: number | null) => [
      { key: 'thrust', label: 'Thrust', unit: 'g', value: thrust, digits: 0 },
      { key: 'shaft', label: 'Shaft', unit: '', value: 'press fit', digits: 0 },
    ]
    const rows = [row('Fitted'), row('A', { figures: figures(null) }), row('B', { figures: figures(300) })]
    expect(candidateFigures(rows).map(({ key }) => key)).toEqual(['thrust', 'shaft'])
    expect(drawableFigures(rows)).toEqual([{ key: 'thrust', label: 'Thrust, g' }])
    expect([candidateFigures([]), drawableFigures([])]).toEqual([[], []])
  })
})
