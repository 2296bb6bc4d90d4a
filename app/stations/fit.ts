import { fitWords } from '~/utils/words'
import { withoutParts, type Station } from './station'

export const fit: Station = {
  number: 3,
  key: '3',
  name: 'Fit',
  page: 'fit',
  question: 'Do these parts go together: holes, screws, heights, volts, amps, plugs, props, video and radio families?',
  status({ build, fit: found }) {
    if (build.lines.length === 0) return { line: 'nothing to fit yet', tone: 'quiet' }
    if (!found) return undefined
    const open = found.toCheck + found.asked.length
    return { line: fitWords(found), tone: found.clashes > 0 ? 'bad' : open > 0 ? 'mid' : 'good' }
  },
  foldsAway: withoutParts,
}
