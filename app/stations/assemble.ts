import { progressOf, sequenceOf } from '#core/making/assembly'
import { withoutParts, type Station } from './station'

export const assemble: Station = {
  number: 7,
  key: '7',
  name: 'Assemble',
  page: 'assemble',
  question:
    'In which order do I build this one, what must be tested before going on, and what should the scale say after each step?',
  status({ build, choice }) {
    if (!build.assembly) return { line: 'not begun', tone: 'quiet' }
    const order = sequenceOf(build, choice)
    if ('cycle' in order) return { line: 'steps wait in a circle', tone: 'bad' }
    const { done, of, failed } = progressOf(order.steps, build.assembly)
    if (failed > 0) return { line: `${failed} ${failed === 1 ? 'test' : 'tests'} failed`, tone: 'bad' }
    return { line: `${done} of ${of} steps`, tone: done === of ? 'good' : 'mid' }
  },
  foldsAway: withoutParts,
}
