import { describe, expect, it } from 'vitest'
import { makeShaving, type PlanStep, type ShownPlan } from '#core/deciding/shave'
import {
  costWords,
  goalWords,
  gramPriceWords,
  shavingWords,
  planSentence,
  stepsWords,
  turnedSentence,
  type PlanTold,
} from './shave-words'

const plan = (of: Partial<ShownPlan> = {}): ShownPlan => ({
  status: 'best',
  steps: [],
  cents: 1250,
  unpriced: 0,
  minutes: 40,
  loss: 1,
  shortfallG: 0,
  dearerBy: 0,
  ...of,
})
const step = (what: string) => ({ shaving: makeShaving({ id: what, what, kind: 'other' }) }) as unknown as PlanStep
const told = (of: Partial<ShownPlan>, more: Partial<PlanTold> = {}) =>
  planSentence({
    plan: plan(of),
    steps: [],
    goal: { kind: 'clear' },
    spare: 'cents',
    currency: '€',
    limit: 'there',
    ...more,
  })

describe('the words of Shave', () => {
  it('count steps and say what they cost, at least so much while a price is unknown', () => {
    expect([0, 1, 9, 12].map(stepsWords)).toEqual(['no steps', 'one step', 'nine steps', '12 steps'])
    expect(costWords(plan(), '€')).toBe('12.50 € and 40 minutes')
    expect(costWords(plan({ unpriced: 1 }), '€')).toBe('at least 12.50 € (one price not said) and 40 minutes')
    expect(costWords(plan({ unpriced: 3 }), '€')).toBe('at least 12.50 € (3 prices not said) and 40 minutes')
  })

  it('price a gram only where there is a price and something comes off', () => {
    expect(gramPriceWords({ cents: 500, priced: true, offG: 2 }, '€')).toBe('2.50 € a gram')
    for (const of of [
      { cents: 500, priced: false, offG: 2 },
      { cents: 0, priced: true, offG: 2 },
      { cents: 500, priced: true, offG: 0 },
      { cents: 500, priced: true, offG: -2 },
    ])
      expect(gramPriceWords(of, '€')).toBe('')
  })

  it('say what a shaving brings and gives up', () => {
    const shaving = makeShaving({
      id: 's',
      what: 'strip the case',
      kind: 'strip case',
      loss: 2,
      lossWord: 'protection',
      forGood: true,
    })
    expect(shavingWords(shaving)).toBe('gives up: protection · cannot be undone')
    expect(shavingWords({ ...shaving, loss: 0, forGood: false })).toBe('')
    expect(shavingWords({ ...shaving, kind: 'put on', gain: 4, loss: 0, forGood: false })).toBe('brings 4 of 5')
  })

  it('name the goal', () => {
    expect(goalWords({ kind: 'clear' }, 0.95, null)).toBe('to Clear at 95 %')
    expect(goalWords({ kind: 'put on' }, 0.95, null)).toBe('what is worth putting on while it stays clear')
    expect(goalWords({ kind: 'dry', gramsG: 148 }, 0.95, 2)).toBe('to 148.0 g dry')
    expect(goalWords({ kind: 'grams', gramsG: 4 }, 0.95, null)).toBe('4.0 g off')
    expect(goalWords({ kind: 'grams', gramsG: 4 }, 0.95, 1.25)).toBe('4.0 g off, 1.25 of them done')
  })

  it('tell a plan, how far it may be from the best, and why there is none', () => {
    expect(told({}, { steps: [step('a'), step('b')] })).toBe('The plan: two steps, 12.50 € and 40 minutes.')
    expect(told({ status: 'unproven', dearerBy: 130 })).toMatch(/At most 1\.30 dearer than the best possible\.$/)
    expect(told({ status: 'unproven', dearerBy: 4 }, { spare: 'minutes' })).toMatch(/At most 4\.00 dearer/)
    expect(told({ status: 'given up' })).toBe('No plan was found in the time given.')
    expect(told({ status: 'contradiction', between: 'caps' })).toContain('loosen a cap')
    expect(told({ status: 'contradiction', between: 'locks' })).toContain('contradicts itself')
    expect(told({ status: 'open lines', openLines: ['Strap'] })).toContain('what Strap weighs. Type it in Parts.')
    expect(told({ status: 'open lines', openLines: ['Strap', 'Pad'] })).toContain('what Strap, Pad weigh.')
    expect(told({ status: 'none', shortfallG: 1.234 })).toBe(
      'Everything on the list still misses by 1.23 g. This comes nearest.',
    )
    expect(told({ status: 'none', shortfallG: 1.234 }, { goal: { kind: 'put on' } })).toBe(
      'It misses being clear by 1.23 g as it is: nothing can be put on.',
    )
  })

  it('say where the best there is leaves the craft', () => {
    const last = { ...step('a'), massG: 250.4, sigmaG: 0.1, binding: { headroomG: -0.92, guardG: 0.17 } } as PlanStep
    const words = told({ status: 'none', shortfallG: 1.09 }, { steps: [last] })
    expect(words).toContain('misses by 1.09 g. This comes nearest. It comes to 250.40 g: ')
    expect(words).toContain('where 0.17 g are wanted to be sure.')
  })

  it('tell nothing to do from no limit and from nothing that flies', () => {
    const status = 'nothing to do'
    expect(told({ status })).toBe('Nothing has to come off.')
    expect(told({ status }, { limit: 'none chosen' })).toMatch(/^No limit is chosen/)
    expect(told({ status }, { limit: 'nothing flies' })).toMatch(/^Nothing that flies yet/)
    expect(told({ status }, { limit: 'none chosen', goal: { kind: 'put on' } })).toBe(
      'Nothing on the list could be put on and stay clear.',
    )
  })

  it('hold a plan with one shaving turned against the plan there is', () => {
    expect(turnedSentence(plan({ steps: [step('a')], cents: 1350, minutes: 30 }), plan(), '€')).toBe(
      'one step: a. +1.00 €, −10 minutes against the plan.',
    )
    expect(turnedSentence(plan({ steps: [step('a')] }), plan(), '€')).toBe('one step: a. It costs the same.')
    expect(turnedSentence(plan({ status: 'none', shortfallG: 0.5 }), plan(), '€')).toContain('it would miss by 0.50 g')
    expect(turnedSentence(plan({ status: 'given up' }), plan(), '€')).toBe('No plan was found in the time given.')
    expect(turnedSentence(plan({ status: 'contradiction' }), plan(), '€')).toMatch(/^No plan then: it contradicts/)
  })
})
