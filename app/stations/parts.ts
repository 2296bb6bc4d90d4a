import { slotFacts } from '#core/model/ledger'
import { accountedWords, toneOf, weighedShareWords } from '~/utils/words'
import { never, several, type Station, type StationStatus } from './station'

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
    if (build.reference) return []
    const there = new Set(build.lines.filter(line => line.state === 'fitted').map(line => line.slot))
    const wanted = (['frame', 'motor', 'propeller', 'board', 'receiver', 'pack'] as const).filter(
      slot => !there.has(slot),
    )
    return [
      ...wanted.map(slot => slotFacts[slot].label.toLowerCase()),
      ...(overview.openLines > 0 ? [`grams of ${several(overview.openLines, 'line', 'lines')}`] : []),
    ]
  },
  status({ build, overview }) {
    if (build.reference) return { line: accountedWords(build.reference, overview), tone: 'quiet' }
    const open = overview.openLines
    const tone = tones[toneOf(overview.binding)]
    return {
      line: `${weighedShareWords(overview, overview.counted.length)}${open > 0 ? ` · ${open} open` : ''}`,
      tone: open > 0 && tone !== 'bad' ? 'mid' : tone,
    }
  },
  // What is known of the parts of a reference craft is said here, too.
  foldsAway: never,
}
