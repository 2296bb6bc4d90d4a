import { figure } from '#core/text/display'
import { cardName, limitG } from '#core/limits/rules'
import { never, type Station } from './station'

export const aim: Station = {
  number: 1,
  key: '1',
  name: 'Aim',
  page: 'aim',
  question: 'What am I building, for which purpose, under which rule card?',
  status({ overview }) {
    const card = overview.binding?.card
    const limit = card ? limitG(card) : null
    return card && limit !== null
      ? { line: `${figure(limit, 2)} g, ${cardName(card)}`, tone: 'good' }
      : { line: 'no limit chosen', tone: 'mid' }
  },
  foldsAway: never,
}
