import { figure } from '#core/text/display'
import { cardName, limitG } from '#core/limits/rules'
import { never, several, type Station } from './station'

export const aim: Station = {
  number: 1,
  key: '1',
  name: 'Aim',
  page: 'aim',
  question: 'What am I building, for which purpose, under which rule card?',
  purpose:
    'Say where and for what it shall fly: the rule cards that follow set the limit every other station works to.',
  missing({ build, overview }) {
    const unverified = overview.judgements.filter(({ card }) => !card.verifiedOn).length
    return [
      ...(overview.binding ? [] : ['a limit to hold']),
      ...(build.aim.purpose === '' ? ['what it shall fly for'] : []),
      ...(unverified > 0 ? [`your own look at the law behind ${several(unverified, 'card', 'cards')}`] : []),
    ]
  },
  status({ overview }) {
    const card = overview.binding?.card
    const limit = card ? limitG(card) : null
    return card && limit !== null
      ? { line: `${figure(limit, 2)} g, ${cardName(card)}`, tone: 'good' }
      : { line: 'no limit chosen', tone: 'mid' }
  },
  foldsAway: never,
}
