import { describe, expect, it } from 'vitest'
import { makeMass } from '../../model/ledger'
import { makePart } from '../../parts/drawer'
import { lineOfOffer, offersFor, type FoundLine } from './while-typing'

const motor = makePart({
  id: 'm',
  slot: 'motor',
  name: 'Ostler 1404, 3750 kV',
  owned: 4,
  properties: { statorDiameterMm: 14, statorHeightMm: 4 },
  mass: makeMass({ versionId: 'v', evidence: 'weighed', valueG: 9.1 }),
})
const gone = makePart({ id: 'g', slot: 'motor', name: 'Ostler 1303, 5500 kV', owned: 4, scrapped: 4 })
const prop = makePart({ id: 'p', slot: 'propeller', name: 'Ostler three-blade', owned: 2, tags: ['spare'] })
const parts = [gone, prop, motor]
const found: FoundLine[] = [
  { buildId: 'b', buildName: 'Praline', lineId: 'l', name: 'Ostler 1202, 8000 kV', slot: 'motor' },
  { buildId: 'b', buildName: 'Praline', lineId: 'k', name: 'ostler 1404, 3750 kv', slot: 'motor' },
  { buildId: 'c', buildName: 'Nougat', lineId: 'l', name: 'Ostler 1202, 8000 kV', slot: 'motor' },
]
const offers = (typed: string, slot: 'motor' | 'pack' = 'motor') =>
  offersFor(typed, slot, { parts, placements: [], found })
const names = (typed: string) => offers(typed).map(one => one.name)

describe('what is offered while a name is typed', () => {
  it('begins with what lies in the drawer for that slot, then the rest of the drawer, other builds, typical classes', () => {
    expect(names('ostler')).toEqual([
      'Ostler 1404, 3750 kV',
      'Ostler 1303, 5500 kV',
      'Ostler three-blade',
      'Ostler 1202, 8000 kV',
    ])
    expect(offers('ostler').map(one => one.detail)).toEqual([
      '9.10 g weighed · 4 in the drawer',
      'no grams yet · none left in the drawer',
      'no grams yet · 2 in the drawer',
      'in Praline',
    ])
  })
  it('finds every word in any order, by name, kind, stator and tag', () => {
    expect(names('3750 ost')).toEqual(['Ostler 1404, 3750 kV'])
    expect(names('motor 1404')).toEqual(['Ostler 1404, 3750 kV', 'Motor, 1404'])
    expect(names('spare')).toEqual(['Ostler three-blade'])
    expect(names('ostler nothing')).toEqual([])
  })
  it('offers what is owned for the slot before anything is typed, and nothing else', () => {
    expect(names('')).toEqual(['Ostler 1404, 3750 kV'])
    expect(names('  ')).toEqual(['Ostler 1404, 3750 kV'])
  })
  it('counts what is on builds as gone from the drawer', () => {
    const placements = [
      { partId: 'm', buildId: 'b', buildName: 'Praline', lineId: 'k', quantity: 4, state: 'fitted' as const },
    ]
    expect(offersFor('', 'motor', { parts, placements, found })).toEqual([])
  })
})

describe('the line an offer stands for', () => {
  const given = { id: 'new', versionId: 'w', quantity: 4 }
  it('of the drawer is that part with its grams and their version', () => {
    const line = lineOfOffer(offers('1404')[0]!, given)!
    expect(line).toMatchObject({ id: 'new', partId: 'm', slot: 'motor', quantity: 4, properties: motor.properties })
    expect(line.mass).toEqual(motor.mass)
  })
  it('of a class has its range and what its name says', () => {
    const offer = offers('Motor, 1404').find(one => one.from === 'typical')!
    const line = lineOfOffer(offer, given)!
    expect(line.mass).toMatchObject({ evidence: 'typical', versionId: 'w', origin: 'typical for 1404' })
    expect(line.properties).toEqual({ statorDiameterMm: 14, statorHeightMm: 4 })
    expect(line.partId).toBeNull()
  })
  it('of a class of packs says no more than the class: plug and rating stay to be asked', () => {
    const offer = offers('4S 650', 'pack').find(one => one.from === 'typical')!
    const line = lineOfOffer(offer, given)!
    expect(line.packSoFar).toEqual({ cells: 4, capacityMah: 650, chemistry: 'LiPo' })
    expect(line.pack).toBeNull()
  })
  it('of another build is there already', () => {
    const offer = offers('1202').find(one => one.from === 'another build')!
    expect(lineOfOffer(offer, given)).toBeNull()
  })
})
