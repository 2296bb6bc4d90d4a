import { slotFacts } from '#core/model/ledger'
import { toneOf, weighedWords } from '~/utils/words'
import { withoutParts, several, type Station, type StationStatus } from './station'

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
  purpose: 'One line for everything that leaves the ground, with its grams and how they are known.',
  missing({ build, overview }) {
    const there = new Set(build.lines.filter(line => line.state === 'fitted').map(line => line.slot))
    const wanted = (['frame', 'motor', 'propeller', 'board', 'receiver', 'pack'] as const).filter(
      slot => !there.has(slot),
    )
    return [
      ...wanted.map(slot => slotFacts[slot].label.toLowerCase()),
      ...(overview.openLines > 0 ? [`grams of ${several(overview.openLines, 'line', 'lines')}`] : []),
    ]
  },
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
