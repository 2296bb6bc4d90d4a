import type { Slot } from './slots'

export const layerKinds = ['plate', 'grommet', 'spacer', 'board', 'gap', 'ribbon', 'screw head', 'aerial'] as const
/** Where a layer has bare metal that another could touch. */
export const bareSides = ['none', 'below', 'above', 'both'] as const
export const boardSides = ['front', 'back', 'left', 'right'] as const

/**
 * One thing in the stack, from the bottom plate up. Plates bound the room between; what stands above the last plate
 * does not count for the standoffs.
 */
export interface Layer {
  readonly id: string
  readonly name: string
  readonly kind: (typeof layerKinds)[number]
  readonly lineId: string | null
  /** Null while nobody has said; a line's own height is taken then. */
  readonly heightMm: number | null
  readonly widthMm: number | null
  readonly lengthMm: number | null
  /** Turned against the craft's nose, degrees. */
  readonly turnDeg: number
  readonly bare: (typeof bareSides)[number]
  /** The side a plug goes in at; null when none does. */
  readonly port: (typeof boardSides)[number] | null
}
export interface Stack {
  readonly layers: readonly Layer[]
}

export const beyondThings = ['windings', 'a board', 'a cell', 'nothing'] as const

/** What screws hold, as far as it has a step of its own when the craft is put together. */
export const heldThings = ['motors', 'boards', 'something else'] as const

/** Where screws hold something: what is clamped, what the thread bites into, and what lies beyond it. Null is what nobody has said yet. */
export interface JointPlan {
  readonly id: string
  readonly name: string
  readonly holds: (typeof heldThings)[number] | null
  readonly count: number | null
  readonly thread: string | null
  readonly head: string | null
  readonly material: string | null
  readonly clampedMm: number | null
  readonly engagementMm: number | null
  readonly freeDepthMm: number | null
  readonly beyond: (typeof beyondThings)[number] | null
  /** What the thread bites into, in words (steel, aluminium, brass, plastic); empty while nobody has said. */
  readonly into: string
  /** The screw chosen; null while none is. */
  readonly lengthMm: number | null
  /** The line whose screws these are; null while there is none. */
  readonly lineId: string | null
  /** Whether somebody said these figures. Absent on joints from when every new one came with figures of its own. */
  readonly said?: boolean | undefined
}

const asked = ['count', 'thread', 'head', 'material', 'clampedMm', 'engagementMm', 'freeDepthMm', 'beyond'] as const
export type AskedOfJoint = (typeof asked)[number]
/** A joint of which everything is said that its screws depend on. */
export type SaidJoint = JointPlan & { readonly [K in AskedOfJoint]: NonNullable<JointPlan[K]> }

/** The figures every new joint once came with, whatever it was. */
const madeUp = {
  count: 16,
  thread: 'M2',
  head: 'button',
  material: 'alloy steel',
  clampedMm: 3,
  engagementMm: 2,
  freeDepthMm: 2.4,
  beyond: 'windings',
  into: 'aluminium',
} as const
/** Whether the figures of a joint may never have been said by anybody: they are asked about, and nothing rests on them. */
export function isJointInDoubt(joint: JointPlan): boolean {
  return (
    joint.said === undefined &&
    (Object.keys(madeUp) as (keyof typeof madeUp)[]).every(key => joint[key] === madeUp[key])
  )
}

/** What has still to be said of a joint before its screws can be told. */
export function askedOfJoint(joint: JointPlan): readonly AskedOfJoint[] {
  return isJointInDoubt(joint) ? asked : asked.filter(key => joint[key] === null)
}
export function isSaidJoint(joint: JointPlan): joint is SaidJoint {
  return askedOfJoint(joint).length === 0
}

/** One lead, or several alike, from one thing to another. */
export interface WirePlan {
  readonly id: string
  readonly name: string
  readonly from: string
  readonly to: string
  /** Null, as below, is what nobody has said yet. */
  readonly awg: number | null
  readonly count: number | null
  /** Along the way it will lie, mm. */
  readonly routeMm: number | null
  /** Kept besides, mm. */
  readonly slackMm: number | null
  /** What is there already, mm; null when it is cut from the reel. */
  readonly haveMm: number | null
}

/** What an end of a lead is called that goes to all motors; any other is a line, or whatever the builder calls it. */
export const motorsEnd = 'motors'
export const endsAtMotors = ({ from, to }: WirePlan): boolean => from === motorsEnd || to === motorsEnd

const askedOfWires = ['awg', 'count', 'routeMm', 'slackMm'] as const
export type AskedOfWire = (typeof askedOfWires)[number]
/** A lead of which everything is said that its grams depend on. */
export type SaidWire = WirePlan & { readonly [K in AskedOfWire]: number }
export const askedOfWire = (wire: WirePlan): readonly AskedOfWire[] => askedOfWires.filter(key => wire[key] === null)
export const isSaidWire = (wire: WirePlan): wire is SaidWire => askedOfWire(wire).length === 0

/** How things are mounted where it changes what must be set. */
export interface Mounting {
  readonly motorsUpsideDown: boolean
  readonly pushedProps: boolean
  readonly boardUpsideDown: boolean
  readonly boardTurnDeg: number
}

/** Something thought of for a slot, and why it was not taken. */
export interface Considered {
  readonly id: string
  readonly slot: Slot
  readonly name: string
  readonly grams: number | null
  readonly why: string
  readonly on: string
}

/** A finding the builder lives with, and why. */
export interface SetAside {
  readonly finding: string
  readonly why: string
}

/** How the parts of a build go together. */
export interface FitPlan {
  readonly stack: Stack | null
  readonly joints: readonly JointPlan[]
  readonly wires: readonly WirePlan[]
  readonly mounting: Mounting
  readonly considered: readonly Considered[]
  readonly setAside: readonly SetAside[]
}

export const usualMounting: Mounting = {
  motorsUpsideDown: false,
  pushedProps: false,
  boardUpsideDown: false,
  boardTurnDeg: 0,
}
export const blankFit: FitPlan = {
  stack: null,
  joints: [],
  wires: [],
  mounting: usualMounting,
  considered: [],
  setAside: [],
}
