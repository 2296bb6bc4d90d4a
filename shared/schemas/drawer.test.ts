import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { evidentlyWell, partRowSchema, partRowsRequestSchema } from './drawer'

const good = {
  id: 'a1',
  slot: 'motor',
  name: 'Ostler 1404',
  owned: 4,
  listed: { valueG: 8.12, resolutionG: 0.01 },
  properties: { kv: 3200, pattern: ['9×9 M2'] },
  priceCents: 1299,
  bag: 'lid 3',
  note: '',
}

describe('rows of a list, looked at quickly', () => {
  it('sees at a glance that a plain row is well', () => {
    expect(evidentlyWell(good)).toBe(true)
  })
  it('never takes a row the schema refuses', () => {
    const odd = fc.constantFrom<unknown>(
      undefined,
      null,
      '',
      ' ',
      '=2+2',
      '<b>',
      'a\u0001b',
      'é',
      -1,
      0,
      0.5,
      1,
      999,
      1000,
      1e9,
      Number.NaN,
      Infinity,
      '12',
      true,
      [],
      {},
      ['x'],
      { valueG: -1, resolutionG: 0 },
      { valueG: 1 },
      { valueG: 1, resolutionG: 0.1 },
      { valueG: 1, resolutionG: 1, more: 2 },
      { kv: -4 },
      { kv: 3000 },
      { pattern: ['nonsense'] },
      { cellsMin: 6, cellsMax: 2 },
      { nope: 1 },
      'motor',
      'wing',
      'x'.repeat(130),
    )
    const keys = fc.constantFrom(
      'id',
      'slot',
      'name',
      'owned',
      'listed',
      'weighed',
      'properties',
      'priceCents',
      'soldIn',
      'bag',
      'link',
      'note',
      'tags',
      'cells',
      'capacityMah',
      'colour',
    )
    fc.assert(
      fc.property(fc.array(fc.tuple(keys, odd), { maxLength: 3 }), changes => {
        const row = { ...good, ...Object.fromEntries(changes) }
        if (evidentlyWell(row)) expect(partRowSchema.safeParse(row).error).toBeUndefined()
      }),
      { numRuns: 3000 },
    )
  })
  it('says of a bad row among good ones where it is and why', () => {
    const read = partRowsRequestSchema.safeParse({ rows: [good, { ...good, id: 'a2', properties: { kv: -4 } }] })
    expect(read.error?.issues).toMatchObject([{ path: ['rows', 1, 'properties', 'kv'] }])
    expect(read.error?.issues[0]!.message).toContain('kV')
  })
})
