import { describe, expect, it } from 'vitest'
import { cameMadeUp, makeLine, packInWords, packLabel, wholePack, withPackAsked } from './index'

describe('what words say of a pack', () => {
  it.each([
    ['4S 650 mAh LiPo', { cells: 4, capacityMah: 650, chemistry: 'LiPo' }],
    ['Ember & Lark 2S 3000mAh lithium-ion', { cells: 2, capacityMah: 3000, chemistry: 'Li-ion' }],
    ['1s lihv 300 mah', { cells: 1, capacityMah: 300, chemistry: 'LiHV' }],
    ['650 mAh', { capacityMah: 650 }],
    // A range, a size and a plug say nothing of the cells.
    ['2-4S board', {}],
    ['2–4S', {}],
    ['4S-6S', {}],
    ['65S', {}],
    ['Long one', {}],
    // Two chemistries are none.
    ['LiPo or LiHV, 4S', { cells: 4 }],
  ] as const)('%s', (words, said) => {
    expect(packInWords(words)).toEqual(said)
  })
  it('is a whole pack only where cells, chemistry and capacity are all said', () => {
    expect(wholePack({ cells: 4, chemistry: 'LiPo' }, 'Pack')).toBeNull()
    expect(wholePack({ cells: 4, capacityMah: 650 }, 'Pack')).toBeNull()
    expect(wholePack({ cells: 4, chemistry: 'LiPo', capacityMah: 650 }, 'Pack')).toEqual({
      label: 'Pack',
      cells: 4,
      chemistry: 'LiPo',
      capacityMah: 650,
      cRating: null,
      plug: '',
    })
  })
})

describe('a pack saved with the figures every new one once had', () => {
  const saved = { label: 'P1', cells: 1, chemistry: 'LiPo', capacityMah: 300, cRating: null, plug: '' } as const
  const { packSoFar: _none, ...line } = makeLine({ id: 'p', slot: 'pack', name: 'New pack', pack: saved })
  it('is asked about and keeps its label', () => {
    const asked = withPackAsked(line)
    expect(asked).toMatchObject({
      pack: null,
      packSoFar: { label: 'P1', cells: 1, chemistry: 'LiPo', capacityMah: 300 },
    })
    expect(packLabel(asked)).toBe('P1')
  })
  it('is told from one whose name happens to say those figures', () => {
    expect(cameMadeUp(withPackAsked(line).packSoFar)).toBe(true)
    expect(cameMadeUp({ label: 'P1' })).toBe(false)
    expect(cameMadeUp({ cells: 1, chemistry: 'LiHV', capacityMah: 300 })).toBe(false)
    expect(cameMadeUp(null)).toBe(false)
  })
  it.each([
    { cells: 2 },
    { chemistry: 'LiHV' },
    { capacityMah: 301 },
    { cRating: 75 },
    { plug: 'bullet 1 mm' },
  ] as const)('is believed where it says %j', more => {
    expect(withPackAsked({ ...line, pack: { ...saved, ...more } })).toMatchObject({
      pack: { ...saved, ...more },
      packSoFar: null,
    })
  })
})
