import type { Overview } from '#core/mass/report'
import { scaleWeighings, type Build } from '#core/model/ledger'
import { withoutParts, several, type Station } from './station'

/** What is weighed, and how much of it on a scale of the list: the rest was typed. */
function weighedParts({ counted, weighedLines }: Overview): string {
  if (weighedLines === 0) return 'no part weighed yet'
  const here = counted.filter(line => line.mass?.evidence === 'weighed' && scaleWeighings(line).length > 0).length
  const typed = weighedLines - here
  return [here > 0 ? `${here} on a scale` : '', typed > 0 ? `${typed} typed as weighed` : '']
    .filter(Boolean)
    .join(' · ')
}

function weighedTogether({ observations }: Build): string {
  const count = (state: string) => observations.filter(o => o.state === state).length
  const [taken, held] = [count('taken in'), count('held')]
  return `${taken ? ` · ${taken} together` : ''}${held ? ` · ${held} held` : ''}`
}

export const weigh: Station = {
  number: 4,
  key: '4',
  name: 'Weigh',
  page: 'weigh',
  question: 'What does it really weigh? Which lines are still only believed?',
  purpose: 'Put the parts on the pan one after another: what is believed becomes known, and the total settles.',
  missing({ overview }) {
    const left = overview.weighedWhole ? 0 : overview.counted.length - overview.weighedLines
    return left > 0 && overview.counted.length > 0 ? [`${several(left, 'line', 'lines')} on the scale`] : []
  },
  status: ({ build, overview }) => ({
    line: `${weighedParts(overview)}${weighedTogether(build)}`,
    tone: overview.weighedLines === overview.counted.length ? 'good' : 'mid',
  }),
  foldsAway: withoutParts,
}
