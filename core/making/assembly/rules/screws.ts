import { isJointInDoubt, type StepPart } from '../../../model/data'
import type { Line } from '../../../model/ledger'
import { shortName } from '../../../aircraft/wiring'
import { listOf, parsePattern, textOf } from '../../../model/properties'
import { ofSlot, type Context } from './context'

/** What screws hold, as far as it has a step of its own; what holds none of these goes on with the closing. */
export type Holds = 'motors' | 'boards' | 'frame'

interface Held {
  readonly line: Line
  readonly pieces: number
  readonly holds: Holds
  readonly assumed: boolean
}

/** Screws a motor is held by: the holes of its pattern, else as many as divide the screws there are. */
function holesOf(motors: readonly Line[]): number | null {
  const patterns = motors
    .flatMap(motor => listOf(motor, 'pattern') ?? [])
    .map(parsePattern)
    .filter(pattern => pattern !== null)
  return patterns.length === 0 ? null : patterns[0]!.holes.length
}
const fitsThread = (screw: Line, thread: string | undefined) =>
  thread === undefined || textOf(screw, 'thread') === undefined || textOf(screw, 'thread') === thread

/**
 * What screws without a joint hold, by kind and count: as many as the motors have holes (or four, three or two a motor where
 * nobody has said) hold the motors, in twos a standoff the frame, fours a board the stack. Anything else is left to the closing.
 */
function assumedOf(context: Context, line: Line, taken: ReadonlySet<Holds>): Omit<Held, 'line' | 'assumed'> | null {
  const motors = ofSlot(context, 'motor')
  const motorCount = motors.reduce((sum, motor) => sum + motor.quantity, 0)
  const boards = ofSlot(context, 'board', 'speed controller', 'power distribution', 'video transmitter').length
  const standoffs = ofSlot(context, 'standoff')
  const standoffCount = standoffs.reduce((sum, one) => sum + one.quantity, 0)
  const holes = holesOf(motors)
  if (
    !taken.has('motors') &&
    motorCount > 0 &&
    fitsThread(line, motors.map(motor => textOf(motor, 'screwThread')).find(Boolean))
  ) {
    const wanted = (holes === null ? [4, 3, 2] : [holes])
      .map(each => each * motorCount)
      .find(
        count =>
          count === line.quantity ||
          (holes !== null && count < line.quantity) ||
          (holes === null && count === 4 * motorCount && count < line.quantity),
      )
    if (wanted !== undefined) return { pieces: wanted, holds: 'motors' }
  }
  if (
    !taken.has('frame') &&
    standoffCount > 0 &&
    line.quantity === 2 * standoffCount &&
    fitsThread(line, standoffs.map(one => textOf(one, 'thread')).find(Boolean))
  )
    return { pieces: standoffCount, holds: 'frame' }
  if (!taken.has('boards') && boards > 0 && line.quantity === 4) return { pieces: 4, holds: 'boards' }
  return null
}

function heldOf(context: Context): Held[] {
  const out: Held[] = []
  const joints = context.fit.joints.filter(joint => !isJointInDoubt(joint))
  const screws = ofSlot(context, 'screw')
  const taken = new Set<Holds>()
  for (const line of screws) {
    for (const holds of ['motors', 'boards'] as const) {
      const pieces = joints
        .filter(joint => joint.lineId === line.id && joint.holds === holds)
        .reduce((sum, joint) => sum + (joint.count ?? 0), 0)
      if (pieces === 0) continue
      taken.add(holds)
      out.push({ line, pieces, holds, assumed: false })
    }
  }
  for (const line of screws.filter(one => !joints.some(joint => joint.lineId === one.id))) {
    const assumed = assumedOf(context, line, taken)
    if (!assumed) continue
    taken.add(assumed.holds)
    out.push({ line, ...assumed, assumed: true })
  }
  return out
}

/** The screws that come on board with what they hold. */
export function heldBy(context: Context, holds: Holds): StepPart[] {
  return heldOf(context)
    .filter(held => held.holds === holds)
    .map(({ line, pieces }) => ({ lineId: line.id, pieces }))
}

/** Which of them are only taken to be these: no joint says so. */
export function screwFacts(context: Context, holds: Holds): string[] {
  return heldOf(context)
    .filter(held => held.holds === holds && held.assumed)
    .map(
      ({ line, pieces }) =>
        `${pieces} of ${shortName(line)} are taken to be these screws, by kind and number: no joint of Fit says so.`,
    )
}
