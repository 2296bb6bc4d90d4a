import { describe, expect, it } from 'vitest'
import type { WorkedFlight } from '#core/aircraft/flown'
import { testFlight } from '../../core/aircraft/flown/testing'
import {
  agreement,
  chargeAgainstWords,
  flownWords,
  heldSentence,
  minutesAgainstWords,
  restsOnWords,
} from './flight-words'

const worked = (more: Partial<WorkedFlight>): WorkedFlight => ({
  ...{ id: 'a', used: null, left: null, powerW: null, toReserve: null, expected: null, z: null, held: null },
  ...more,
})

describe('words of flights', () => {
  it('how often, how long and since when', () => {
    const some = [1, 2].map(n => testFlight({ id: `f${n}`, flownAt: `2026-11-0${n}T10:00`, durationS: 210 }))
    expect(flownWords(some)).toMatch(/^2 flights, 7\.0 min in the air since 1 Nov/)
    expect(flownWords([])).toBe('')
  })
  it('a flight agrees, is held, or says nothing', () => {
    expect(agreement(undefined)).toEqual({ word: 'being worked out', tone: 'none' })
    expect(agreement(worked({ z: 0.4 }))).toEqual({ word: 'agrees', tone: 'clear' })
    expect(agreement(worked({ z: 4, held: 'does not agree' })).word).toBe('held')
    expect(agreement(worked({})).word).toBe('says nothing')
  })
  it('a held flight is explained by the side it is off', () => {
    expect(heldSentence(worked({ held: 'does not agree', z: 3 }))).toMatch(/more power.*wind, a worn/)
    const less = heldSentence(worked({ held: 'does not agree', z: -3 }))
    expect(less).toMatch(/less power/)
    expect(less).not.toMatch(/wind/)
    expect(heldSentence(worked({ held: 'no power fits' }))).toMatch(/No power of this pack fits/)
    expect(heldSentence(worked({}))).toBe('')
  })
  it('on what minutes rest', () => {
    expect(restsOnWords(null)).toBe('')
    expect(restsOnWords({ own: 1, others: 4 })).toBe('rests on 1 flight')
    expect(restsOnWords({ own: 0, others: 4 })).toBe('rests on 4 flights of other craft in this style')
    expect(restsOnWords({ own: 7, others: 0 }, 5)).toBe('rests on 7 flights; the pack as its flights say')
  })
  it('evidence that disagrees is named with its figure', () => {
    const datum = { source: 'logged', mah: 516.4, uMah: 12 } as const
    const used = { mah: 462, uMah: 7, from: [], against: [datum] }
    expect(chargeAgainstWords(worked({ used }))).toBe(
      'Left out, because it disagrees with the surest: the count on board, 516 mAh.',
    )
    expect(chargeAgainstWords(worked({ used: { ...used, against: [] } }))).toBe('')
  })
  it('the difference of two motors with its ± and what it is known by', () => {
    expect(minutesAgainstWords({ minutes: 2.2, deltaMin: -0.9, spreadMin: 0.25, from: 'flights' })).toBe(
      '−0.90 ± 0.25 min against now, by flights on both.',
    )
  })
})
