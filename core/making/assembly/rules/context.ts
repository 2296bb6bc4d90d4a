import {
  electricalTree,
  feedNodeOf,
  feedOf,
  packVolts,
  shortName,
  type ElectricalTree,
  type Volts,
} from '../../../aircraft/wiring'
import { isSaidJoint, type FitPlan, type JointPlan, type AssemblyStep } from '../../../model/data'
import { planWires, type PlannedWire } from '../../../aircraft/fit'
import type { Build, Line, LoadoutChoice, Slot } from '../../../model/ledger'
import { measureOf, providersOf } from '../../../model/properties'

/** What a rule may look at. */
export interface Context {
  readonly build: Build
  readonly choice: LoadoutChoice
  readonly lines: readonly Line[]
  readonly pack: Line | null
  readonly packVolts: Volts | null
  readonly fit: FitPlan
  readonly tree: ElectricalTree
  readonly wires: readonly PlannedWire[]
}

export type StepDraft = Partial<Omit<AssemblyStep, 'id' | 'title' | 'why' | 'phase' | 'minutes'>> &
  Pick<AssemblyStep, 'id' | 'title' | 'why' | 'phase' | 'minutes'>
export type Rule = (context: Context) => readonly StepDraft[]

export function contextOf(build: Build, choice: LoadoutChoice, lines: readonly Line[], fit: FitPlan): Context {
  const pack = lines.find(line => line.id === choice.packLineId) ?? null
  return {
    build,
    choice,
    lines,
    pack,
    packVolts: pack?.pack ? packVolts(pack.pack) : null,
    fit,
    tree: electricalTree(lines, pack),
    wires: planWires(fit.wires).rows,
  }
}

export const ofSlot = ({ lines }: Context, ...slots: Slot[]) => lines.filter(line => slots.includes(line.slot))
export const whole = (lines: readonly Line[]) => lines.map(line => ({ lineId: line.id, pieces: line.quantity }))
export const ids = (lines: readonly Line[]) => lines.map(line => line.id)
export const does = (context: Context, slot: Slot) => providersOf(context.lines, slot).length > 0
/** Whether a line of another slot does its work: a board with the radio inside. */
export const isInside = (context: Context, slot: Slot) => ofSlot(context, slot).length === 0 && does(context, slot)

const volts = (value: number) => `${Number(value.toFixed(1))} V`

/** Where a device gets its power and what it bears, in words. */
export function feedFacts({ lines, tree }: Context, device: Line): string[] {
  const feed = feedOf(device, lines)
  const node = feedNodeOf(tree, device.id)
  const [low, high] = [measureOf(device, 'voltsMin'), measureOf(device, 'voltsMax')]
  const bears =
    low !== undefined && high !== undefined
      ? `It bears ${volts(low)} to ${volts(high)}.`
      : high !== undefined
        ? `It bears ${volts(high)} at most.`
        : 'Nobody has said which volts it bears: read its paper before it gets power.'
  if (!feed || !node) return [`Nobody has said where ${shortName(device)} gets its power.`, bears]
  const there = node.volts
    ? node.volts.lowV === node.volts.highV
      ? volts(node.volts.lowV)
      : `${volts(node.volts.lowV)} to ${volts(node.volts.highV)}`
    : 'volts not known'
  return [`Power from ${node.name}: ${there}.`, bears]
}

/** Where a wrong pad would kill the device, or its feed already does. */
export function feedCautions({ lines, tree, packVolts: full }: Context, device: Line): string[] {
  const [low, high] = [measureOf(device, 'voltsMin'), measureOf(device, 'voltsMax')]
  const at = feedNodeOf(tree, device.id)?.volts
  const out: string[] = []
  if (at && high !== undefined && at.highV > high + 1e-9)
    out.push(`Its feed reaches ${volts(at.highV)}, it bears ${volts(high)}: do not connect it there.`)
  else if (at && low !== undefined && at.lowV < low - 1e-9)
    out.push(`Its feed falls to ${volts(at.lowV)}, it wants ${volts(low)}.`)
  // What is fed by a ready cable from another device cannot be put on the pack by mistake.
  const soldered = !['video transmitter', 'camera'].includes(
    lines.find(line => line.id === feedOf(device, lines)?.from)?.slot ?? '',
  )
  if (soldered && full && high !== undefined && full.highV > high + 1e-9)
    out.push(
      `A full pack has ${volts(full.highV)}: more than its ${volts(high)}. Check the pad with a meter before the wire goes on.`,
    )
  if (!feedOf(device, lines)) out.push('Say its feed in Fit before you solder.')
  return out
}

/** The leads of the wire plan that end at one of these slots or lines. */
export function wiresTo({ wires, lines }: Context, ...names: string[]): PlannedWire[] {
  const known = new Set([
    ...names,
    ...lines.filter(line => names.includes(line.slot) || names.includes(line.id)).flatMap(line => [line.id, line.name]),
  ])
  return wires.filter(({ wire }) => known.has(wire.from) || known.has(wire.to))
}
export const leadFact = ({ wire, lengthMm, words, massG }: PlannedWire) =>
  `${wire.name}: ${wire.count} × AWG ${wire.awg}, ${lengthMm} mm each (${wire.routeMm} way, ` +
  `${wire.slackMm} slack), ${massG.toFixed(2)} g. ${words}`

export const jointFact = (joint: JointPlan) =>
  !isSaidJoint(joint)
    ? `${joint.name}: its screws are not all said yet.`
    : `${joint.name}: ${joint.count} × ` +
      `${joint.thread}${joint.lengthMm === null ? '' : ` × ${joint.lengthMm}`} ${joint.head}, ` +
      `${joint.material}.`
