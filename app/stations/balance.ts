import { bobWords } from '~/utils/balance-words'
import { withoutParts, several, type Station } from './station'

export const balance: Station = {
  number: 8,
  key: '8',
  name: 'Balance',
  page: 'balance',
  question: 'Where is the centre of gravity, where must the pack sit, and how evenly do the motors work?',
  purpose: 'Where everything sits, where the craft hangs, and where the pack belongs so that it hangs true.',
  missing({ balance: hangs }) {
    const heavy = hangs?.layout.pieces.filter(piece => piece.isAssumed && piece.mass.valueG > 0.03 * hangs.totalG) ?? []
    return heavy.length > 0 ? [`the true places of ${several(heavy.length, 'heavy piece', 'heavy pieces')}`] : []
  },
  status({ build, balance: hangs }) {
    if (build.lines.length === 0) return { line: 'nothing to hang yet', tone: 'quiet' }
    if (!hangs) return undefined
    if (!hangs.centre) return { line: 'nothing weighs anything', tone: 'quiet' }
    const { line, tone } = bobWords(hangs)
    return { line, tone: tone === 'clear' ? 'good' : 'mid' }
  },
  foldsAway: withoutParts,
}
