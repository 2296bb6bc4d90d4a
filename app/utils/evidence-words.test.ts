import { describe, expect, it } from 'vitest'
import { lineEstimate } from '#core/mass/evidence'
import { ListingBiasTable } from '#core/mass/listings'
import { spreadG } from '#core/maths/estimate'
import { makeLine, makeMass, type Evidence, type Line, type Mass } from '#core/model/ledger'
import { percentFigure } from '#core/text/display'
import { evidenceWords } from './evidence-words'

const none = { products: 0, mu: 0 }
const known = (evidence: Evidence, more: Partial<Mass> = {}, line: Partial<Line> = {}): Line =>
  makeLine({
    id: 'l',
    slot: 'strap',
    name: 'Strap',
    mass: makeMass({ versionId: 'v', evidence, valueG: 10, ...more }),
    ...line,
  })
const words = (line: Line) => evidenceWords(line, none)
/** Half the range that an estimate of 10 g rests on, grams: the spread of a rectangle is 1.96 / √3 of it. */
const halfG = (line: Line) => (spreadG(lineEstimate(line, new ListingBiasTable())) * Math.sqrt(3)) / 1.959964

describe('how grams are known, in words', () => {
  it.each([
    ['a guess', known('guess')],
    ['what was worked out', known('worked out')],
    ['a screw worked out', known('worked out', {}, { slot: 'screw' })],
  ])('%s says the very range its estimate has', (_what, line) => {
    const percent = /([\d.]{1,6}) % either way/.exec(words(line))![1]
    expect(Number(percent) / 100).toBeCloseTo(halfG(line) / 10, 6)
  })
  it('a small guess has the least range that is said of it', () => {
    const small = known('guess', { valueG: 0.1 })
    expect(words(small)).toContain('at least 0.2 g')
    expect(halfG(small)).toBeCloseTo(0.2, 6)
  })
  it.each([
    ['nothing', makeLine({ id: 'l', slot: 'strap', name: 'Strap' }), 'Nobody has said what it weighs.'],
    ['an own spread', known('weighed', { ownSpreadG: 1 }), 'The spread is your own.'],
    ['a class', known('typical', { origin: 'typical for 3-inch' }), 'Middle of the class range (typical for 3-inch)'],
    ['a copy', known('twin'), 'As the piece it was copied from'],
    ['a listing', known('listed'), 'None of your own parts of this kind'],
    ['one piece', known('weighed'), 'Weighed, as fitted. The scale has not been checked: 0.3 % either way.'],
    ['all together', known('weighed', { valueCount: 4 }, { quantity: 4 }), '4 pieces on the pan together'],
    ['one of several', known('weighed', {}, { quantity: 4 }), 'One of 4 pieces weighed; the others may differ'],
    ['one by one', known('weighed', { pieceReadingsG: [9, 10] }, { quantity: 4 }), '2 of 4 pieces weighed one by one'],
  ])('of %s', (_what, line, sentence) => {
    expect(words(line)).toContain(sentence)
  })
  it('tells what own parts say of listings', () => {
    const own = { products: 1, mu: Math.log(1.021) }
    expect(evidenceWords(known('listed'), own)).toContain('1 strap part of yours came out 2.1 % heavier than listed')
    expect(evidenceWords(known('listed'), { products: 3, mu: -0.01 })).toContain(
      '3 strap parts of yours came out 1.0 % lighter',
    )
  })
  it('writes per cent without needless digits', () => {
    expect([0.003, 0.05, 0.2].map(percentFigure)).toEqual(['0.3', '5', '20'])
  })
})
