import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { evidences, makeLine, makeMass, slots } from '../../core/model/ledger'
import { guessHeadlessMapping, guessMapping, mostBytes, partsCsv, readRows, readTable } from './parts-csv'

let n = 0
const newId = () => `id${n++}`
function read(text: string) {
  const table = readTable(text)
  if ('problem' in table) throw new Error(table.problem)
  return readRows(table, table.hasHeader ? guessMapping(table.header).mapping : guessHeadlessMapping(table.rows), newId)
}

describe('reading a parts list', () => {
  it('understands semicolons, decimal commas, a byte-order mark and other headings', () => {
    const rows = read('\uFEFFType;Item;Qty;Weight (g);Price\r\nMotors;Small motor;4;9,1;15,90\r\n')
    expect(rows[0]?.line).toMatchObject({
      slot: 'motor',
      name: 'Small motor',
      quantity: 4,
      priceEachCents: 1590,
      mass: { valueG: 9.1, resolutionG: 0.1, evidence: 'guess' },
    })
  })
  it('takes rows pasted without headings', () => {
    expect(read('Strap\tFabric strap\t1\t2.2\nReceiver\tTiny one\t1\t0,6').map(r => r.line?.slot)).toEqual([
      'strap',
      'receiver',
    ])
    expect(read('Fabric strap\t2.2')[0]?.line).toMatchObject({ name: 'Fabric strap', mass: { valueG: 2.2 } })
  })
  it('understands everyday words for slots, and heads with a unit in them', () => {
    const rows = read(
      'Component,Type,Pcs,Weight g\nBrain,Flight ' +
        'controller,1,8\nSender,VTX,1,15\nSpikes,Cap,1,2\nStub,Antenna,1,1.2\nFans,Props,4,1.5\nLong ' +
        'one,Battery,1,72\nBolts,Screws,16,0.2\n',
    )
    expect(rows.map(row => row.line?.slot)).toEqual([
      'board',
      'video transmitter',
      'capacitor',
      'aerial',
      'propeller',
      'pack',
      'screw',
    ])
    expect(rows[0]!.line).toMatchObject({ name: 'Brain', mass: { valueG: 8 } })
    expect(rows[4]!.line).toMatchObject({ quantity: 4, mass: { valueG: 1.5 } })
    for (const head of ['Weight [g]', 'weight (grams)', 'Mass, g', 'Each in g', 'GRAMS', 'Mass/g'])
      expect(guessMapping(['What', head]).mapping.grams, head).toBe(1)
    expect(read('What,Weight oz\nPack,1\nOther,2 g\n').map(row => row.line!.mass!.valueG)).toEqual([
      expect.closeTo(28.3495, 3),
      2,
    ])
  })
  it('takes the slot chosen for a row over what the row says, and mends an unknown word by it', () => {
    const table = readTable('What,Slot,Each (g)\nA,motor,2\nB,whatsit,3\nC,motor,\n') as Exclude<
      ReturnType<typeof readTable>,
      { problem: string }
    >
    const { mapping } = guessMapping(table.header)
    expect(readRows(table, mapping, newId)[1]!.problems).toEqual(['“whatsit” is not a slot: choose one.'])
    const rows = readRows(
      table,
      mapping,
      newId,
      new Map([
        [0, 'camera'],
        [1, 'strap'],
      ] as const),
    )
    expect(rows.map(row => row.line?.slot)).toEqual(['camera', 'strap', 'motor'])
    expect(rows[2]!.line!.mass).toBeNull()
  })
  it('says row by row what is wrong, with the row number of the file', () => {
    const rows = read('What,How many,Each (g),Known by\nGood,1,2.5,weighed\n,1,2,\nBad,0,-3,rumour\n')
    expect(rows.map(r => r.line === null)).toEqual([false, true, true])
    expect(rows[2]).toMatchObject({
      row: 4,
      problems: [
        expect.stringContaining('whole number'),
        expect.stringContaining('rumour'),
        expect.stringContaining('negative'),
      ],
    })
  })
  it.each([
    ['broken quotes', 'What,Each (g)\n"Strap,2\nOther,3\n', 'quotation mark'],
    ['nothing', '  \n\n', 'no rows'],
    ['20,000 rows', Array.from({ length: 20_000 }, (_, i) => `Part ${i},1`).join('\n'), 'at most 2,000'],
    ['3 MB', 'x'.repeat(3_000_000), `at most ${mostBytes / 1e6} MB`],
  ])('refuses %s in a sentence', (_what, text, sentence) => {
    expect(readTable(text)).toMatchObject({ problem: expect.stringContaining(sentence) })
  })
})

describe('writing a parts list', () => {
  it('lets no spreadsheet run a cell', () => {
    const csv = partsCsv([makeLine({ id: 'a', slot: 'other', name: '+1-cell "tape"', note: '@sum' })])
    expect(csv).toContain(`"'+1-cell ""tape"""`)
    expect(csv).toContain(`'@sum`)
  })
  it('comes back as the same lines', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...slots),
        fc.constantFrom(...evidences),
        fc.integer({ min: 0, max: 99999 }),
        fc.integer({ min: 1, max: 20 }),
        fc.option(fc.integer({ min: 0, max: 99999 })),
        fc.constantFrom('Strap', '-x', '+y "z"', '@w, v', "a;b'c"),
        (slot, evidence, centigrams, quantity, price, name) => {
          const line = makeLine({
            id: 'a',
            slot,
            name,
            quantity,
            priceEachCents: price,
            mass: makeMass({ versionId: 'v', evidence, valueG: centigrams / 100 }),
          })
          const back = read(partsCsv([line]))[0]!
          expect(back.problems).toEqual([])
          expect(back.line).toMatchObject({
            slot,
            name,
            quantity,
            priceEachCents: price,
            mass: { valueG: centigrams / 100, evidence },
          })
        },
      ),
    )
  })
})
