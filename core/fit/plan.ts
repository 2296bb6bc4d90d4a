import type { Slot } from '../ledger'

export const layerKinds = ['plate', 'grommet', 'spacer', 'board', 'gap', 'ribbon', 'screw head', 'aerial'] as const
/** Where a layer has bare metal that another could touch. */
export const bareSides = ['none', 'below', 'above', 'both'] as const
export const boardSides = ['front', 'back', 'left', 'right'] as const

/** One thing in the stack, from the bottom plate up. Plates bound the room between; what stands above the last plate does not count for the standoffs. */
export interface Layer {
  readonly id: string
  readonly name: string
  readonly kind: (typeof layerKinds)[number]
  readonly lineId: string | null
  readonly heightMm: number
  readonly widthMm: number | null
  readonly lengthMm: number | null
  /** Turned against the craft's nose, degrees. */
  readonly turnDeg: number
  readonly bare: (typeof bareSides)[number]
  /** The side a plug goes in at; null when none does. */
  readonly port: (typeof boardSides)[number] | null
}
export interface Stack { readonly layers: readonly Layer[] }

export const beyondThings = ['windings', 'a board', 'a cell', 'nothing'] as const

/** Where screws hold something: what is clamped, what the thread bites into, and what lies beyond it. */
export interface JointPlan {
  readonly id: string
  readonly name: string
  readonly count: number
  readonly thread: string
  readonly head: string
  readonly material: string
  readonly clampedMm: number
  readonly engagementMm: number
  readonly freeDepthMm: number
  readonly beyond: (typeof beyondThings)[number]
  /** What the thread bites into, in words (steel, aluminium, brass, plastic). */
  readonly into: string
  /** The screw chosen; null while none is. */
  readonly lengthMm: number | null
  /** The line whose screws these are; null while there is none. */
  readonly lineId: string | null
}

/** One lead, or several alike, from one thing to another. */
export interface WirePlan {
  readonly id: string
  readonly name: string
  readonly from: string
  readonly to: string
  readonly awg: number
  readonly count: number
  /** Along the way it will lie, mm. */
  readonly routeMm: number
  /** Kept besides, mm. */
  readonly slackMm: number
  /** What is there already, mm; null when it is cut from the reel. */
  readonly haveMm: number | null
}

/** How things are mounted where it changes what must be set. */
export interface Mounting { readonly motorsUpsideDown: boolean, readonly pushedProps: boolean, readonly boardUpsideDown: boolean, readonly boardTurnDeg: number }

/** Something thought of for a slot, and why it was not taken. */
export interface Considered { readonly id: string, readonly slot: Slot, readonly name: string, readonly grams: number | null, readonly why: string, readonly on: string }

/** A finding the builder lives with, and why. */
export interface SetAside { readonly finding: string, readonly why: string }

/** How the parts of a build go together. */
export interface FitPlan {
  readonly stack: Stack | null
  readonly joints: readonly JointPlan[]
  readonly wires: readonly WirePlan[]
  readonly mounting: Mounting
  readonly considered: readonly Considered[]
  readonly setAside: readonly SetAside[]
}

export const usualMounting: Mounting = { motorsUpsideDown: false, pushedProps: false, boardUpsideDown: false, boardTurnDeg: 0 }
export const blankFit: FitPlan = { stack: null, joints: [], wires: [], mounting: usualMounting, considered: [], setAside: [] }
