import { describe, expect, it } from 'vitest'
import drawerFile from '../../demo/drawer.json'
import type { Part } from '../../core/parts/drawer'
import { makeMass } from '../../core/model/ledger'
import { cellWords, drawerColumns, drawerTyping, editPart, sortKey, textToEdit } from './drawer-cells'

const parts = drawerFile.parts as unknown as readonly Part[]
const part: Part = {
  ...parts.find(p => p.slot === 'motor')!,
  mass: makeMass({ versionId: 'v', evidence: 'weighed', valueG: 36.4, valueCount: 4 }),
  owned: 8,
  lost: 1,
  scrapped: 1,
  priceCents: 1250,
}
const unknown: Part = { ...part, mass: null, listing: null, owned: 0, priceCents: null, lost: 0, scrapped: 0 }
const at = { left: 4, out: 2 }

describe('cells of the drawer', () => {
  it('show grams of one piece, what is owned and where it is', () => {
    expect(cellWords(part, 'grams', at)).toBe('9.10')
    expect(cellWords(part, 'known', at)).toBe('weighed')
    expect(cellWords(part, 'owned', at)).toBe('8')
    expect(cellWords(part, 'left', at)).toBe('4 · 2 out')
    expect(
      cellWords({ ...part, mass: makeMass({ versionId: 'v', evidence: 'weighed', valueG: 0.31212 }) }, 'grams', at),
    ).toBe('0.312')
  })
  it('show what nobody has said as that', () => {
    expect(cellWords(unknown, 'grams', at)).toBe('–')
    expect(cellWords(unknown, 'owned', at)).toBe('no')
    expect(cellWords(unknown, 'left', { left: 0, out: 0 })).toBe('')
    expect(cellWords(unknown, 'price', at)).toBe('')
  })
  it('sort what is not known after all that is', () => {
    expect(sortKey(unknown, 'grams', at)).toBeNull()
    expect(sortKey(unknown, 'price', at)).toBeNull()
    expect(sortKey(part, 'left', at)).toBe(4)
  })
  it('take a figure as known the way it was, and as listed with an l before it', () => {
    expect(editPart(part, 'grams', '9,2', 'n')).toMatchObject({
      mass: { versionId: 'n', evidence: 'weighed', valueG: 9.2, resolutionG: 0.1 },
    })
    expect(editPart(part, 'grams', 'l 9.3', 'n')).toMatchObject({
      mass: { evidence: 'listed' },
      listing: { valueG: 9.3 },
    })
    expect(editPart(unknown, 'grams', '9', 'n')).toMatchObject({ mass: { evidence: 'listed' }, listing: { valueG: 9 } })
    expect(editPart(part, 'grams', '9.2', 'n')).not.toHaveProperty('listing')
  })
  it.each([
    ['name', '   ', 'cannot be empty'],
    ['grams', 'many', 'is not a number'],
    ['owned', '2.5', 'a whole number from 0 to 99,999'],
    ['owned', '1', '2 are lost or scrapped already'],
    ['price', 'cheap', ''],
    ['slot', 'motor', 'worked out, not typed'],
  ] as const)('refuse in %s “%s”', (column, text, sentence) => {
    const edited = editPart(part, column, text, 'n')
    expect('problem' in edited && edited.problem).toContain(sentence)
  })
  it('are typed as they are shown to be edited: kept unchanged, nothing differs', () => {
    const typed = drawerColumns.filter(column => drawerTyping[column] !== 'nothing')
    expect(typed).toEqual(['name', 'grams', 'owned', 'price'])
    let compared = 0
    for (const one of parts.slice(0, 40)) {
      for (const column of typed) {
        const text = textToEdit(one, column)
        if (text === '') continue
        const edited = editPart(one, column, text, 'n')
        expect(edited, `${one.name} ${column} ${text}`).not.toHaveProperty('problem')
        expect(textToEdit({ ...one, ...edited } as Part, column)).toBe(text)
        compared++
      }
    }
    expect(compared).toBeGreaterThan(80)
  })
})
