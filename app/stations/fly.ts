import { withoutParts, several, type Station } from './station'

export const fly: Station = {
  number: 9,
  key: '9',
  name: 'Fly',
  page: 'fly',
  question: 'What was flown, what does it say about the next flight, and what was found?',
  purpose:
    'Flights as they were flown, what they say about the minutes of the next one, and what is still to be mended.',
  missing: () => [],
  status({ flown }) {
    if (!flown) return undefined
    const { flights, open } = flown
    if (flights + open === 0) return { line: 'not flown yet', tone: 'quiet' }
    const found = open > 0 ? `, ${several(open, 'finding', 'findings')} open` : ''
    return { line: `${several(flights, 'flight', 'flights')}${found}`, tone: open > 0 ? 'mid' : 'good' }
  },
  foldsAway: withoutParts,
}
