import { progressOf, sequenceOf } from '#core/making/assembly'
import { withoutParts, several, type Station } from './station'

export const assemble: Station = {
  number: 7,
  key: '7',
  name: 'Assemble',
  page: 'assemble',
  question:
    'In which order do I build this one, what must be tested before going on, and what should the scale say after each step?',
  purpose: 'The steps in an order that can be built, with the tests that must pass before going on.',
  missing({ build, choice }) {
    if (!build.assembly) return []
    const order = sequenceOf(build, choice)
    if ('cycle' in order) return ['an order without a circle']
    const { done, of, failed } = progressOf(order.steps, build.assembly)
    return [
      ...(failed > 0 ? [`${several(failed, 'test', 'tests')} passed`] : []),
      ...(of > done ? [several(of - done, 'step', 'steps')] : []),
    ]
  },
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
