import type { Line } from '../../ledger'
import { textOf } from '../../properties'
import { ofSlot, type Context } from './context'

/** A text or choice somebody has said of a line; empty where nobody has. */
export const choiceOf = (line: Line, key: string): string => textOf(line, key) ?? ''

/** Whether the frame is one piece: nothing is closed over the boards but a canopy. */
export function isOnePiece(context: Context): boolean {
  const made = ofSlot(context, 'frame').map(line => choiceOf(line, 'make')).find(Boolean)
  return made !== undefined ? made === 'one piece' : context.fit.stack !== null && context.fit.stack.layers.filter(layer => layer.kind === 'plate').length < 2
}

/** Whether the video is digital: such units have an activation and updates. */
export function isDigital(context: Context): boolean {
  return ofSlot(context, 'video transmitter').some(line => /digital/i.test(`${choiceOf(line, 'videoFamily')} ${line.name}`))
}
