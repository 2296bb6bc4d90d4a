import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { makeLine, makeMass } from '../../model/ledger'
import {
  filterParts,
  inDrawer,
  indexPart,
  lineOfPart,
  makePart,
  partOfLine,
  priceEachCents,
  readFilter,
  sameAsPart,
  statorText,
  type Part,
} from './index'

const motor = (id: string, diameter: number, height: number, kv: number, grams: number, more: Partial<Part> = {}) =>
  makePart({
    id,
    slot: 'motor',
    name: `motor ${id}`,
    properties: { statorDiameterMm: diameter, statorHeightMm: height, kv, maxCurrentA: 9 },
    mass: makeMass({ versionId: `m-${id}`, evidence: 'listed', valueG: grams }),
    owned: 4,
    ...more,
  })
const parts = [
  motor('a', 14, 4, 3750, 9.1, { tags: ['fast'] }),
  motor('b', 14, 4, 4600, 8.6),
  motor('c', 15, 5, 3900, 12.4),
  motor('d', 8, 2, 19_500, 1.8),
  motor('e', 13, 3.5, 5500, 6.7),
  makePart({
    id: 'p',
    slot: 'pack',
    name: '4S 650',
    pack: { label: 'N1', cells: 4, chemistry: 'LiPo', capacityMah: 650, cRating: 75, plug: 'two bullets' },
    mass: makeMass({ versionId: 'm-p', evidence: 'weighed', valueG: 79 }),
  }),
  makePart({ id: 's', slot: 'screw', name: 'M2 × 8', properties: { thread: 'M2', lengthMm: 8 }, bag: 'lid 2' }),
  makePart({
    id: 'f',
    slot: 'frame',
    name: 'Thimble',
    properties: { motorPatterns: ['12×12 M2'], propMaxMm: 78 },
    listing: { valueG: 41.5, resolutionG: 0.5 },
  }),
]
const found = (text: string) =>
  filterParts(parts.map(indexPart), readFilter(text))
    .map(p => p.id)
    .join('')

describe('the filter of the drawer', () => {
  it.each([
    ['1404–1505, 3000–4000 kV, ≤ 11 g', 'a'],
    ['1404-1505', 'abc'],
    ['1404', 'ab'],
    ['0802', 'd'],
    ['1303.5', 'e'],
    ['> 4000 kV', 'bde'],
    ['at least 4600 kV', 'bde'],
    ['under 9,1 g', 'bde'],
    ['< 8.6 g', 'de'],
    ['<= 8.6 g', 'bde'],
    ['motors', 'abcde'],
    ['motor, fast', 'a'],
    ['600–700 mAh', 'p'],
    ['75 C', 'p'],
    ['4s lipo', 'p'],
    ['M2', 'sf'],
    ['screw, 8 mm', 's'],
    ['lid 2', 's'],
    ['12×12', 'f'],
    ['= 9 A', 'abcde'],
    ['', 'abcdepsf'],
    ['no such word', ''],
    ['41,5 g', 'f'],
    ['> 9 V', ''],
  ])('“%s” keeps %s', (text, ids) => expect(found(text)).toBe(ids))
  it('says how each term was understood', () => {
    expect(readFilter('1404–1505, 3000–4000 kV, ≤ 11 g, motor, fast').map(t => t.understood)).toEqual([
      'stator 1404–1505',
      '3000–4000 kV',
      'at most 11 g each',
      'kind motor',
      '“fast”',
    ])
  })
  it('whatever is typed keeps a part of the whole, and one more term never keeps more', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 30 }), fc.constantFrom('motor', '≤ 9 g', '> 4000 kV'), (text, more) => {
        const all = found(text)
        expect([...found(`${text};${more}`)].every(id => all.includes(id))).toBe(true)
      }),
    )
  })
})

describe('a part of the drawer', () => {
  const [part] = parts as [Part]
  it('lies there as often as it was bought, less what is lost, scrapped or on builds; candidates take none out', () => {
    const on = (quantity: number, state: 'fitted' | 'candidate' | 'off') => ({
      partId: 'a',
      buildId: 'x',
      buildName: 'X',
      lineId: `l${quantity}`,
      quantity,
      state,
    })
    expect(
      inDrawer({ ...part, owned: 10, lost: 1, scrapped: 2 }, [
        on(4, 'fitted'),
        on(1, 'off'),
        on(3, 'candidate'),
        { ...on(9, 'fitted'), partId: 'b' },
      ]),
    ).toBe(2)
    expect(inDrawer({ ...part, owned: 1 }, [on(4, 'fitted')])).toBe(-3)
  })
  it('is on a build as itself until something is done to that piece alone', () => {
    const line = lineOfPart(part, 'l', 4)
    expect(line).toMatchObject({
      slot: 'motor',
      quantity: 4,
      partId: 'a',
      mass: part.mass,
      properties: part.properties,
    })
    expect(sameAsPart(line, part)).toBe(true)
    expect(sameAsPart({ ...line, properties: { ...line.properties, leadLengthMm: 62 } }, part)).toBe(false)
    expect(sameAsPart({ ...line, mass: makeMass({ versionId: 'other', evidence: 'weighed', valueG: 9 }) }, part)).toBe(
      false,
    )
    expect(sameAsPart({ mass: null, properties: null }, { mass: null, properties: null })).toBe(true)
  })
  it('made of a line keeps its grams, what it is and what it cost', () => {
    const line = makeLine({
      id: 'l',
      slot: 'strap',
      name: 'strap',
      quantity: 2,
      priceEachCents: 180,
      mass: makeMass({ versionId: 'v', evidence: 'weighed', valueG: 3.4 }),
      properties: { lengthMm: 130 },
    })
    expect(partOfLine(line, 'n')).toMatchObject({
      id: 'n',
      slot: 'strap',
      owned: 2,
      priceCents: 180,
      soldIn: 1,
      mass: line.mass,
      properties: line.properties,
    })
  })
  it('costs a share of what it is sold in, rounded up; no price is no price', () => {
    expect(priceEachCents({ ...part, priceCents: 280, soldIn: 4 })).toBe(70)
    expect(priceEachCents({ ...part, priceCents: 250, soldIn: 40 })).toBe(7)
    expect(priceEachCents({ ...part, priceCents: null })).toBeNull()
  })
  it('writes its stator with four digits', () =>
    expect([802, 1404, 1303.5, 702].map(statorText)).toEqual(['0802', '1404', '1303.5', '0702']))
})
