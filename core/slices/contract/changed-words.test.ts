import { describe, expect, it } from 'vitest'
import { changesOf, itemChanges, joined, propertyChanges } from './index'

describe('what changed, in words', () => {
  it('names figures with both values, and says nothing of what stayed', () => {
    expect(changesOf({ id: 'a', reserveG: 0, purpose: '' }, { id: 'b', reserveG: 0.5, purpose: '' })).toEqual([
      'reserve 0 → 0.5',
    ])
    expect(changesOf({ list: [1, { a: 2 }] }, { list: [1, { a: 2 }] })).toEqual([])
  })
  it('of a list of words names what came and went; of ids how many; of anything else that it changed', () => {
    expect(changesOf({ tags: ['race'] }, { tags: ['for sale'] })).toEqual([
      'tags: “for sale” added, tags: “race” taken out',
    ])
    expect(changesOf({ tags: ['a', 'b'] }, { tags: ['b', 'a'] })).toEqual(['tags in another order'])
    expect(changesOf({ cardIds: ['a'] }, { cardIds: ['b', 'c'] })).toEqual(['rule cards: 2 more, rule cards: 1 fewer'])
    expect(changesOf({ table: [{ n: 1 }] }, { table: [{ n: 2 }] })).toEqual(['table changed'])
  })
  it('of items tells which came, went, and what changed of the others', () => {
    const [was, is] = [
      [
        { id: 'p', name: 'Bottom plate', mm: 2 },
        { id: 'g', name: 'Grommets', mm: 1 },
      ],
      [
        { id: 'p', name: 'Bottom plate', mm: 1.5 },
        { id: 's', name: 'Screws', mm: 1 },
      ],
    ]
    expect(itemChanges(was, is)).toEqual(['“Bottom plate”: mm 2 → 1.5', '“Screws” added', '“Grommets” taken out'])
  })
  it('of properties speaks by their labels and units, and of what nobody has said', () => {
    const changes = propertyChanges(
      { slot: 'motor', properties: { kv: 3750 } },
      { slot: 'motor', properties: { kv: 3800, cellsMin: 3 } },
    )
    expect(changes).toContainEqual(expect.stringMatching(/3750.* → 3800/))
    expect(changes).toContainEqual(expect.stringMatching(/not said → 3/))
    expect(propertyChanges({ slot: 'motor', properties: null }, { slot: 'motor', properties: {} })).toEqual([])
  })
  it('spells out a few and counts the rest', () => {
    expect(joined([])).toBe('nothing changed')
    expect(joined(['a', 'b'])).toBe('a, b')
    expect(joined(['a', 'b', 'c', 'd', 'e'])).toMatch(/^a, b.* and \d more$/)
  })
})
