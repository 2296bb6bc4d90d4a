import { describe, expect, it } from 'vitest'
import { stations } from '../stations'
import { keyList } from './list'
import { actionOf, keyLabel, shortcuts, type Does } from './registry'

const every = Object.keys(shortcuts) as Does[]
const press = (key: string, shiftKey = false) => ({ key, shiftKey })

describe('keys', () => {
  it('do what the page has something for, and nothing else', () => {
    expect(actionOf(press('n'), ['new'])).toBe('new')
    expect(actionOf(press('n'), ['find'])).toBeNull()
    expect(actionOf(press('q'), every)).toBeNull()
  })
  it('hold with and without shift where the two do not mean two things', () => {
    expect(actionOf(press('N', true), ['new'])).toBe('new')
    expect(actionOf(press('z'), ['undo', 'redo'])).toBe('undo')
    expect(actionOf(press('Z', true), ['undo', 'redo'])).toBe('redo')
    expect(actionOf(press('Z', true), ['undo'])).toBeNull()
  })
  it('mean one thing at a place, and none is the key of a station', () => {
    for (const { place, rows } of keyList()) expect(new Set(rows.map(([key]) => key)).size, place).toBe(rows.length)
    const ofStations = new Set(stations.map(station => station.key))
    expect(every.filter(does => ofStations.has(shortcuts[does].key))).toEqual([])
  })
  it('are all in the list of keys, with the keys of the stations', () => {
    const told = keyList().flatMap(({ rows }) => rows.map(([key]) => key))
    expect(told).toEqual(expect.arrayContaining(every.map(keyLabel)))
    expect(told[0]).toBe('1 2 3 4 5 6 7 8 9 0')
  })
})
