import { describe, expect, it } from 'vitest'
import type { ShelvedBuild } from '#shared/schemas/api'
import { shelfShown, tagsInUse } from './shelf-order'

const build = (name: string, more: Partial<ShelvedBuild> = {}) =>
  ({
    id: name,
    name,
    craftClass: '',
    tags: [],
    pinned: false,
    word: null,
    reference: null,
    massG: 0,
    headroomG: null,
    changedAt: null,
    ...more,
  }) as unknown as ShelvedBuild
const builds = [
  build('Wren', { craftClass: '3-inch', massG: 240, headroomG: 9, tags: ['race'], changedAt: '2026-10-01' }),
  build('Auk', { craftClass: '65 mm', massG: 26, headroomG: 3, tags: ['race', 'indoor'], changedAt: '2026-11-01' }),
  build('Teal', { craftClass: '3-inch', massG: 250, pinned: true, word: 'Over' }),
]
const names = (words = '', tag = '', order: Parameters<typeof shelfShown>[1]['order'] = '') =>
  shelfShown(builds, { words, tag, order }).map(({ name }) => name)

describe('the shelf', () => {
  it('stands as it was made, what is pinned first, whatever the order', () => {
    expect(names()).toEqual(['Teal', 'Wren', 'Auk'])
    expect(names('', '', 'name')).toEqual(['Teal', 'Auk', 'Wren'])
    expect(names('', '', 'mass')).toEqual(['Teal', 'Auk', 'Wren'])
    expect(names('', '', 'headroom')).toEqual(['Teal', 'Auk', 'Wren'])
    expect(names('', '', 'changed')).toEqual(['Teal', 'Auk', 'Wren'])
    expect(names('', '', 'class')).toEqual(['Teal', 'Wren', 'Auk'])
  })
  it('is searched by words of name, class, tags and verdict, all of which must be there', () => {
    expect(names('3-INCH')).toEqual(['Teal', 'Wren'])
    expect(names('3-inch over')).toEqual(['Teal'])
    expect(names('indoor')).toEqual(['Auk'])
    expect(names('nothing like it')).toEqual([])
    expect(names('', 'race')).toEqual(['Wren', 'Auk'])
  })
  it('tells its tags, the most used first', () => expect(tagsInUse(builds)).toEqual(['race', 'indoor']))
})
