import { fitWords } from '~/utils/words'
import { withoutParts, several, type Station } from './station'

export const fit: Station = {
  number: 3,
  key: '3',
  name: 'Fit',
  page: 'fit',
  question: 'Do these parts go together: holes, screws, heights, volts, amps, plugs, props, video and radio families?',
  purpose:
    'Whether the parts go together, before money and solder: what clashes, what would mend it, and what nobody has said.',
  missing: ({ fit: found }) => [
    ...(found && found.clashes > 0 ? [`a way out of ${several(found.clashes, 'clash', 'clashes')}`] : []),
    ...(found && found.asked.length > 0
      ? [several(found.asked.length, 'answer that could reveal a clash', 'answers that could reveal a clash')]
      : []),
  ],
  status({ build, fit: found }) {
    if (build.lines.length === 0) return { line: 'nothing to fit yet', tone: 'quiet' }
    if (!found) return undefined
    const open = found.toCheck + found.asked.length
    return { line: fitWords(found), tone: found.clashes > 0 ? 'bad' : open > 0 ? 'mid' : 'good' }
  },
  foldsAway: withoutParts,
}
