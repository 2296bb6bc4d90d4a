import { describe, expect, it } from 'vitest'
import { makePart, partOfRow, type Part } from '../../core/parts/drawer'
import { makeMass } from '../../core/model/ledger'
import { drawerCsv, guessDrawerMapping, readDrawerRows, readDrawerTable, type BadRow } from './drawer-csv'

let n = 0
const newId = () => `n${++n}`
function read(text: string): { parts: Part[]; bad: readonly BadRow[] } {
  const table = readDrawerTable(text)
  if ('problem' in table) throw new Error(table.problem)
  const { parts, bad } = readDrawerRows(table, guessDrawerMapping(table.heads), newId)
  return { parts: parts.map(partOfRow), bad }
}

describe('a drawer file', () => {
  it('is read with byte order mark, semicolons and decimal commas', () => {
    const { parts, bad } = read(
      '\uFEFFKind;What;Owned;Listed, g;kV;Price\r\nMotor;Ostler 1404;4;9,1;3750;15,90\r\nStrap;Fabric;2;2,2;;1,80\r\n',
    )
    expect(bad).toEqual([])
    expect(parts).toMatchObject([
      {
        slot: 'motor',
        name: 'Ostler 1404',
        owned: 4,
        listing: { valueG: 9.1, resolutionG: 0.1 },
        mass: { evidence: 'listed', valueG: 9.1 },
        properties: { kv: 3750 },
        priceCents: 1590,
      },
      { slot: 'strap', owned: 2, properties: null, priceCents: 180 },
    ])
  })
  it('may mix ounces and grams: by the cell, or by the head where the cell says nothing', () => {
    const { parts } = read('kind,what,weight (oz)\nmotor,a,0.32\nmotor,b,9.1 g\nmotor,c,0.5 oz\n')
    expect(parts.map(p => p.mass!.valueG)).toEqual([
      expect.closeTo(0.32 * 28.349523125, 9),
      9.1,
      expect.closeTo(14.1747615625, 9),
    ])
  })
  it('prefers what was weighed and keeps the listing', () => {
    expect(read('kind,name,listed,weighed\nmotor,a,9,9.31\n').parts[0]).toMatchObject({
      listing: { valueG: 9, resolutionG: 1 },
      mass: { evidence: 'weighed', valueG: 9.31, resolutionG: 0.01 },
    })
  })
  it('refuses rows one by one, each with its row and unit, and takes the others', () => {
    const { parts, bad } = read(
      [
        'kind,name,owned,listed,kV,Free height between plates',
        'motor,good,4,9.1,3750,',
        'motor,,4,9.1,,',
        'wing,x,1,1,,',
        'motor,y,1.5,9,,',
        'motor,z,1,heavy,99,',
        'motor,u,1,9,,20',
        'motor,v,1,9,,,,too,many',
        'motor,=1+1,1,9,,',
        '',
      ].join('\n'),
    )
    expect(parts.map(p => p.name)).toEqual(['good'])
    expect(bad.map(b => [b.row, b.problems.join(' ')])).toEqual([
      [3, expect.stringContaining('name cannot be empty')],
      [4, '“wing” is no kind of part.'],
      [5, 'Owned: a whole number from 0 to 99,999.'],
      [6, expect.stringMatching(/not a number.*Turns per volt is a number in kV, from 100 to 50000/)],
      [7, 'A motor has no “free height between plates”.'],
      [8, expect.stringContaining('9 cells under 6 heads')],
      [9, expect.stringContaining('start with “=”')],
    ])
  })
  it('a decimal comma in a comma file splits a cell, and that row is refused', () => {
    expect(read('kind,name,listed\nmotor,a,9,1\n').bad[0]!.problems[0]).toContain('decimal comma')
  })
  it('without rows, or with two equal heads, is refused whole', () => {
    expect(readDrawerTable('kind,name\n')).toEqual({ problem: 'The file has no rows under its heads.' })
    expect(readDrawerTable('a,a\n1,2\n')).toEqual({ problem: expect.stringContaining('same head') })
  })
  it('a pack is what its row says: not whole, it is asked about, and nothing is added to it', () => {
    const packs = read(
      'kind,name,cells,mAh,chemistry\npack,A,4,650,lipo\npack,B,4,650,\npack,C,,,\npack,D,2,450,lead\n',
    )
    expect(packs.parts.map(({ pack, packSoFar }) => ({ pack, packSoFar }))).toEqual([
      { pack: { label: 'A', cells: 4, chemistry: 'LiPo', capacityMah: 650, cRating: null, plug: '' }, packSoFar: null },
      { pack: null, packSoFar: { cells: 4, capacityMah: 650 } },
      { pack: null, packSoFar: null },
    ])
    expect(packs.bad[0]!.problems).toEqual(['“lead” is not one of LiPo, LiHV, Li-ion.'])
  })
  it('written and read again gives the same parts', () => {
    const parts = [
      makePart({
        id: 'a',
        slot: 'motor',
        name: 'Ostler “1404”; fast',
        properties: { kv: 3750, pattern: ['9×9 M2', '12×12'], propMount: 'two screws', statorDiameterMm: 14 },
        listing: { valueG: 9.1, resolutionG: 0.1 },
        mass: makeMass({
          versionId: 'v',
          evidence: 'weighed',
          valueG: 9.31,
          basis: 'as supplied',
          origin: 'drawer list',
        }),
        priceCents: 1590,
        owned: 4,
        tags: ['fast', 'ridge'],
        note: '-2 g is what I hoped for',
      }),
      makePart({
        id: 'b',
        slot: 'pack',
        name: 'N1',
        pack: { label: 'N1', cells: 4, chemistry: 'Li-ion', capacityMah: 650, cRating: null, plug: '' },
        owned: 1,
      }),
      makePart({
        id: 'c',
        slot: 'board',
        name: 'board',
        properties: {
          outputs: [
            { name: '5 V', volts: 5, amps: 2 },
            { name: 'camera', volts: 9, amps: null },
          ],
          provides: ['receiver', 'sounder'],
        },
        owned: 0,
      }),
    ]
    const again = read(drawerCsv(parts))
    expect(again.bad).toEqual([])
    const bare = (of: readonly (typeof parts)[number][]) =>
      of.map(({ id: _id, mass, ...rest }) => ({
        ...rest,
        mass: mass && { evidence: mass.evidence, valueG: mass.valueG },
      }))
    expect(bare(again.parts)).toEqual(bare(parts))
  })
})
