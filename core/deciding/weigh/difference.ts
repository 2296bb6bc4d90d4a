import { sigmaG } from '../../maths/estimate'
import { coverageFactor95 } from '../../maths/numbers'
import { changeBetween, type ReadyScale } from './take'

/** The ± at 95 % of what came off a line, both ends displayed on this scale: before, what it was known to weigh, and after. Grams. */
export function differenceSpreadG(ready: ReadyScale, beforeG: number, offG: number): number {
  const taking = {
    ready,
    tare: { id: 'difference', name: 'zero key', displayG: 0 },
    takenAt: '2000-01-01T00:00:00.000Z',
    id: 'difference',
  }
  return coverageFactor95 * sigmaG(changeBetween(taking, beforeG, Math.max(0, beforeG - offG)))
}
