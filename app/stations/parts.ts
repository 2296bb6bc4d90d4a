import { toneOf, weighedWords } from '~/utils/words'
import { withoutParts, type Station, type StationStatus } from './station'

const tones: Readonly<Record<ReturnType<typeof toneOf>, StationStatus['tone']>> = {
  over: 'bad',
  close: 'mid',
  clear: 'good',
  none: 'quiet',
}

export const parts: Station = {
  number: 2,
  key: '2',
  name: 'Parts',
  page: 'parts',
  question: 'What flies, what does each thing weigh, how do I know, and what is the total?',
  status({ overview }) {
    const open = overview.openLines
    const tone = tones[toneOf(overview.binding)]
    return {
      line: `${weighedWords(overview, overview.counted.length)}${open > 0 ? ` · ${open} open` : ''}`,
      tone: open > 0 && tone !== 'bad' ? 'mid' : tone,
    }
  },
  foldsAway: withoutParts,
}
