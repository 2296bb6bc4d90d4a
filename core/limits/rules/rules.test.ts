import { describe, expect, it } from 'vitest'
import {
  applicableCards,
  cardStanding,
  limitG,
  limitInWords,
  mayCount,
  startingCards,
  whateverItWeighs,
  type RuleCard,
} from './index'

const card = (id: string): RuleCard => startingCards.find(c => c.id === id)!

describe('rule cards', () => {
  it('keep the wording, unit and digits of each limit', () => {
    expect(limitG(card('us-recreation'))).toBeCloseTo(249.4758035, 9)
    expect(limitInWords(card('us-recreation'))).toBe('at most 0.55 lb (249.48 g)')
    expect(limitInWords(card('jp-100'))).toBe('less than 100 g')
    expect(limitG(card('us-other'))).toBeNull()
    expect(limitInWords(card('us-other'))).toBe('whatever it weighs')
  })
  it('start out unverified, each with a source and something always asked', () => {
    for (const c of startingCards) {
      expect(c.verifiedOn).toBeNull()
      expect(c.source.length).toBeGreaterThan(5)
      expect(c.always.length).toBeGreaterThan(0)
    }
  })
  it('follow from place and purpose', () => {
    const ids = (places: string[], purposeKind: 'recreation' | 'other') =>
      applicableCards(startingCards, { places, purposeKind }).map(c => c.id)
    expect(ids(['United States'], 'recreation')).toEqual(['us-recreation'])
    expect(ids(['United States'], 'other')).toEqual(['us-other'])
    expect(ids(['United Kingdom', 'Japan'], 'other')).toEqual(['uk-flyer-100', 'uk-operator-250', 'jp-100'])
    expect(ids([], 'recreation')).toEqual([])
  })
  it('remind as a date comes near and count as in force once it has come', () => {
    const due: RuleCard = { ...card('ca-250'), status: 'due', since: '2027-01-01' }
    expect(cardStanding(due, '2026-11-23')).toEqual({ words: 'due from 2027-01-01, in 39 days', reminder: true })
    expect(cardStanding(due, '2026-01-01').reminder).toBe(false)
    expect(['2026-09-03', '2026-09-02'].map(today => cardStanding(due, today).reminder)).toEqual([true, false])
    expect(cardStanding(due, '2026-12-31').words).toContain('in 1 day')
    expect(cardStanding(due, '2027-01-01').words).toBe('in force since 2027-01-01')
    expect(cardStanding({ ...due, status: 'proposed' }, '2026-11-23').words).toBe('proposed, not in force')
  })
})

describe('cards and answers', () => {
  it('a card of another purpose or place cannot count; where no place was said the chosen ones do', () => {
    const paid = { places: ['United States'], purposeKind: 'other' as const }
    expect([
      mayCount(card('us-recreation'), paid),
      mayCount(card('us-other'), paid),
      mayCount(card('jp-100'), paid),
    ]).toEqual([false, true, false])
    expect(mayCount(card('jp-100'), { places: [], purposeKind: 'other' })).toBe(true)
    expect(mayCount(card('us-recreation'), { places: [], purposeKind: 'other' })).toBe(false)
  })
  it('duties that do not depend on weight apply whether their card was ticked or not', () => {
    expect(
      whateverItWeighs(startingCards, { places: ['United States', 'Japan'], purposeKind: 'other' }).map(c => c.id),
    ).toEqual(['us-other'])
    expect(whateverItWeighs(startingCards, { places: ['United States', 'Japan'], purposeKind: 'recreation' })).toEqual(
      [],
    )
  })
})
