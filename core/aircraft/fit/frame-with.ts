import type { Line } from '../../model/ledger'
import { measureOf } from '../../model/properties'

/** Of several frame parts the one that says something, or the first. */
export function frameWith(lines: readonly Line[], key: string): Line | undefined {
  const frames = lines.filter(line => line.slot === 'frame')
  return frames.find(frame => measureOf(frame, key) !== undefined) ?? frames[0]
}

/** What the frame says of itself, of several frame parts the one that does; undefined while nobody has said. */
export function saidOfFrame(lines: readonly Line[], key: string): number | undefined {
  const frame = frameWith(lines, key)
  return frame && measureOf(frame, key)
}
