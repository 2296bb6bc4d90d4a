import { describe, expect, it } from 'vitest'
import { makePart } from '../../core/parts/drawer'
import { findHits, type Findable } from './find-hits'

const nothing: Findable = {
  builds: [],
  stations: [],
  buildName: '',
  lines: [],
  parts: [],
  cards: [],
  flights: [],
  actions: [],
}
const given: Findable = {
  ...nothing,
  builds: [{ id: 'b', name: 'Praline', craftClass: '2-inch' }],
  stations: [{ title: 'Weigh', question: 'What does it truly weigh?', to: '/builds/b/weigh' }],
  buildName: 'Praline',
  parts: [
    makePart({ id: 'p', slot: 'strap', name: 'Strap, 12 mm', bag: 'Bag 3', tags: ['spare'] }),
    makePart({ id: 'q', slot: 'strap', name: 'Rubber ring', bag: 'Bag 3', tags: ['spare', 'thin'] }),
  ],
  flights: [{ id: 'f', title: '22 Nov, 15:42 · 3:25', words: 'Q2 harbour wall', to: '/builds/b/fly?flight=f' }],
  actions: [{ title: 'Take back the last change', act: () => {} }],
}
const found = (typed: string) => findHits(typed, given).map(hit => `${hit.title} | ${hit.detail} | ${hit.to ?? 'acts'}`)

describe('Find', () => {
  it('shows builds, stations and places before anything is typed', () => {
    expect(found('').slice(0, 3)).toEqual([
      'Praline | 2-inch | /builds/b/parts',
      'Weigh | station of Praline | /builds/b/weigh',
      'Shelf | place | /',
    ])
    expect(found('')).toHaveLength(10)
  })
  it('finds parts of the drawer by name, kind, bag and tag, in any order of words', () => {
    expect(found('12 strap')).toContain('Strap, 12 mm | strap · in the drawer · Bag 3 | /drawer?part=p')
    expect(found('thin')[0]).toBe('Rubber ring | strap · in the drawer · Bag 3 | /drawer?part=q')
  })
  it('finds bags and tags with how much is in them', () => {
    expect(found('bag 3')).toContain('Bag 3 | bag · 2 kinds of parts | /drawer?filter=Bag%203')
    expect(found('thin')).toContain('thin | tag · 1 kind of parts | /drawer?filter=thin')
  })
  it('finds flights of the open build by day, pack and place', () => {
    const flight = '22 Nov, 15:42 · 3:25 | flown with Praline | /builds/b/fly?flight=f'
    for (const typed of ['harbour', '22 nov', 'q2 wall']) expect(found(typed)).toContain(flight)
    expect(found('')).not.toContain(flight)
  })
  it('finds settings by what they are about, and things to do', () => {
    expect(found('currency')).toEqual(['Figures | settings | /settings#figures'])
    expect(found('take back')).toEqual(['Take back the last change | do it | acts'])
  })
  it('tells of lines in other builds where they are and whether they are fitted', () => {
    const line = {
      buildId: 'b',
      buildName: 'Praline',
      lineId: 'l',
      name: 'Old strap',
      slot: 'strap',
      state: 'off',
    } as const
    expect(findHits('old', { ...given, lines: [line] })[0]).toMatchObject({
      title: 'Old strap',
      detail: 'strap in Praline, off',
      to: '/builds/b/parts?line=l',
    })
  })
  it('finds words of the trade with what they mean', () => {
    expect(found('c rating')).toEqual([
      'C | Current a pack is said to bear, as a multiple of its charge in one hour. | /glossary#c',
    ])
  })
  it('finds nothing where a word is in nothing', () => {
    expect(findHits('strap nowhere', given)).toEqual([])
  })
})
