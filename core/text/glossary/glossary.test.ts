import { describe, expect, it } from 'vitest'
import { gramsPerPound } from '../units'
import { explain, glossary, termId, type Term } from '.'

const terms: readonly Term[] = glossary.flatMap(({ terms: these }) => these as readonly Term[])

describe('the glossary', () => {
  it('tells each term once, in one or two sentences that end', () => {
    const names = terms.flatMap(({ word, also }) => [word, ...(also ?? [])])
    expect(new Set(names.map(name => name.toLowerCase())).size).toBe(names.length)
    for (const { word, says } of terms) expect(says, word).toMatch(/^[A-Z].{15,170}\.$/)
  })
  it('gives every term a place of its own on its page', () => {
    expect(new Set(terms.map(({ word }) => termId(word))).size).toBe(terms.length)
    expect(termId('lb, oz')).toBe('lb-oz')
  })
  it('explains by the word, with the pound and ounce the figures are made with', () => {
    expect(explain('AUW')).toBe('Everything that leaves the ground, pack and payload included, in grams.')
    expect(explain('lb, oz')).toContain(`${gramsPerPound} g`)
    expect(explain('lb, oz')).toContain(`${gramsPerPound / 16} g`)
  })
})
