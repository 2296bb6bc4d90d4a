import { openShavings, shaveListOf } from '#core/deciding/shave'
import { withoutParts, type Station } from './station'

export const shave: Station = {
  number: 5,
  key: '5',
  name: 'Shave',
  page: 'shave',
  question: 'Where do the missing grams come from, at the least cost?',
  purpose: 'Where missing grams come from at the least cost in money, time, strength and things that do not come back.',
  missing({ build, overview }) {
    const over = overview.binding?.verdict?.word === 'Over'
    const listed = shaveListOf(build).shavings.length
    return over && listed === 0 ? ['things that could come off: the list is empty and the craft is over'] : []
  },
  status({ build }) {
    const open = [...openShavings(build), ...openShavings(build, 'put on')]
    const done = shaveListOf(build).shavings.filter(s => s.state === 'done').length
    const planned = open.filter(s => s.state === 'planned').length
    if (open.length + done === 0) return { line: 'nothing on the list', tone: 'quiet' }
    const counts = [
      `${open.length} on the list`,
      ...(planned > 0 ? [`${planned} planned`] : []),
      ...(done > 0 ? [`${done} done`] : []),
    ]
    return { line: counts.join(' · '), tone: 'good' }
  },
  foldsAway: withoutParts,
}
