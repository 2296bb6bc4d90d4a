import { never, type Station } from './station'

export const record: Station = {
  number: 10,
  key: '0',
  name: 'Record',
  page: 'record',
  question: 'What changed, when and why?',
  purpose: 'What changed, when and why; every change can be taken back, and the build can be given on as a file.',
  missing: () => [],
  status: ({ lastChange }) => ({ line: lastChange ? `last: ${lastChange}` : 'nothing to take back', tone: 'quiet' }),
  foldsAway: never,
}
