import type { Line } from '../../../model/ledger'
import { measureOf, textOf } from '../../../model/properties'
import { ofSlot, type Context } from './context'

/** A text or choice somebody has said of a line; empty where nobody has. */
export const choiceOf = (line: Line, key: string): string => textOf(line, key) ?? ''

/**
 * How the frame is made: one piece, over which nothing is closed but a canopy; plates with a room between them; null
 * where nobody has said.
 */
export function frameMade(context: Context): 'one piece' | 'plates' | null {
  const made = ofSlot(context, 'frame')
    .map(line => choiceOf(line, 'make'))
    .find(Boolean)
  if (made !== undefined) return made === 'one piece' ? 'one piece' : 'plates'
  const plates = context.fit.stack?.layers.filter(layer => layer.kind === 'plate').length
  if (plates !== undefined && plates > 0) return plates < 2 ? 'one piece' : 'plates'
  const room =
    ofSlot(context, 'frame').some(line => measureOf(line, 'freeHeightMm') !== undefined) ||
    ofSlot(context, 'standoff').length > 0
  return room ? 'plates' : null
}

/** Whether the video is digital: such units have an activation and updates. */
export function isDigital(context: Context): boolean {
  return ofSlot(context, 'video transmitter').some(line =>
    /digital/i.test(`${choiceOf(line, 'videoFamily')} ${line.name}`),
  )
}
