import { CoreInputError } from '../../basics/errors'
import { sigmaG, type Estimate } from '../../maths/estimate'
import { piecesFor, weighedEstimate, type Scale } from '../../mass/scale'
import { coverageFactor95 } from '../../maths/numbers'
import type { ListingBiasTable } from '../../mass/listings'
import type { Basis, Line, Mass } from '../../model/ledger'
import { fixed } from '../../text/display'
import { isFarOff } from './run'
import { usualBasis } from './place'
import {
  takeByDifference,
  takeInLifts,
  takeOneByOne,
  takeTogether,
  type ReadyScale,
  type TareUsed,
  type Taking,
} from './take'

/** How the current line is put on the pan. */
export const panModes = ['one piece', 'all together', 'one after another', 'before and after', 'in lifts'] as const
export type PanMode = (typeof panModes)[number]
/** The ways to put several like pieces on it, in the order a key goes through. */
const waysOfSeveral: readonly PanMode[] = ['one piece', 'all together', 'one after another']

/** A run over lines with one current: where it is, how that one is weighed, and what was read of it so far. */
export interface RunState {
  readonly ids: readonly string[]
  readonly at: number
  readonly mode: PanMode
  /** Displays of the current line so far, grams. */
  readonly collectedG: readonly number[]
  readonly basis: Basis
  readonly message: string
  /** Whether the builder was asked about this display already: taken again, it is kept. */
  readonly doubted: boolean
}

export const runMessages = {
  noScale: 'Say first which scale this is, under Scales.',
  onePiece: 'This line has one piece.',
  doubtful: 'Is it the right part? It is far from what was expected. Take it again to keep it.',
  belowNothing: 'That comes out below nothing. Zero the scale with an empty pan and put the part on.',
  noKey: 'No scale is connected: press its own zero key. What you type from now on counts from there.',
  tooHeavy: (displayG: number, scaleName: string) =>
    `${fixed(displayG, 2)} g is more than ${scaleName} carries. Weigh it in two lifts.`,
} as const

export const noRun: RunState = {
  ids: [],
  at: 0,
  mode: 'one piece',
  collectedG: [],
  basis: 'as fitted',
  message: '',
  doubted: false,
}

/** What happens in a run. `line` is the line that is current afterwards, where that may have changed. */
export type RunEvent =
  | { readonly type: 'begun'; readonly ids: readonly string[] }
  | { readonly type: 'gone to'; readonly at: number; readonly line: Line | null }
  | { readonly type: 'mode chosen'; readonly mode: PanMode }
  | { readonly type: 'pieces cycled'; readonly line: Line }
  | { readonly type: 'basis chosen'; readonly basis: Basis }
  | { readonly type: 'doubted' }
  | { readonly type: 'read'; readonly displayG: number }
  | { readonly type: 'begun again'; readonly message: string }
  | { readonly type: 'said'; readonly message: string }

/** The run after an event. */
export function nextRun(state: RunState, event: RunEvent): RunState {
  switch (event.type) {
    case 'begun':
      return { ...noRun, ids: event.ids }
    case 'gone to': {
      const at = Math.min(Math.max(event.at, 0), state.ids.length)
      const { line } = event
      const mode = (line?.quantity ?? 1) > 1 ? 'all together' : 'one piece'
      return { ...noRun, ids: state.ids, at, mode, basis: line ? usualBasis(line) : 'as fitted' }
    }
    case 'mode chosen': {
      const basis = event.mode === 'before and after' ? 'as fitted' : state.basis
      return { ...state, mode: event.mode, basis, collectedG: [], message: '' }
    }
    case 'pieces cycled': {
      if (event.line.quantity === 1) return { ...state, message: runMessages.onePiece }
      const next = waysOfSeveral[(waysOfSeveral.indexOf(state.mode) + 1) % waysOfSeveral.length]!
      return nextRun(state, { type: 'mode chosen', mode: next })
    }
    case 'basis chosen':
      return { ...state, basis: event.basis }
    case 'doubted':
      return { ...state, doubted: true, message: runMessages.doubtful }
    case 'read':
      return { ...state, collectedG: [...state.collectedG, event.displayG], message: '' }
    case 'begun again':
      return { ...state, collectedG: [], message: event.message }
    case 'said':
      return { ...state, message: event.message }
  }
}

export const isFinished = ({ ids, at }: RunState): boolean => ids.length > 0 && at >= ids.length

/** How many pieces of a line lie on the pan. */
export const piecesOnPan = (mode: PanMode, line: Line): number =>
  mode === 'all together' || mode === 'before and after' ? line.quantity : 1

/** Of how many pieces together the spread of one is under one per cent of it; null where one alone does, or nobody knows. */
export function piecesForOnePercent({ mass, quantity }: Line, scale: Scale): number | null {
  const eachG = mass ? mass.valueG / mass.valueCount : 0
  if (quantity < 2 || !(eachG > 0)) return null
  const wanted = piecesFor(scale, (onePercent * eachG) / coverageFactor95)
  return wanted > 1 ? wanted : null
}
const onePercent = 0.01

/** How many displays a mode needs; null where the builder says when it is enough. */
export function displaysNeeded(mode: PanMode, line: Line): number | null {
  if (mode === 'one after another') return line.quantity
  if (mode === 'before and after') return 2
  return mode === 'in lifts' ? null : 1
}

/** Whether what was read so far can be kept, although more could be read. */
export const canFinish = ({ mode, collectedG }: RunState): boolean =>
  (mode === 'one after another' && collectedG.length > 0) || (mode === 'in lifts' && collectedG.length > 1)

/** The mass that displays make; null while some are missing. Throws {@link CoreInputError} where it comes out below nothing. */
export function massOfDisplays(
  { mode, basis }: Pick<RunState, 'mode' | 'basis'>,
  by: Taking,
  line: Line,
  displaysG: readonly number[],
  honesty: ListingBiasTable,
): Mass | null {
  if (displaysG.length === 0) return null
  switch (mode) {
    case 'one piece':
      return takeTogether(by, line, displaysG.slice(-1), 1, basis)
    case 'all together':
      return takeTogether(by, line, displaysG.slice(-1), line.quantity, basis)
    case 'one after another':
      return displaysG.length === 1
        ? takeTogether(by, line, displaysG, 1, basis)
        : takeOneByOne(by, line, displaysG, basis)
    case 'before and after':
      return displaysG.length < 2 ? null : takeByDifference(by, line, displaysG[0]!, displaysG[1]!, honesty)
    case 'in lifts':
      return displaysG.length < 2 ? null : takeInLifts(by, line, displaysG, basis)
  }
}

/** As {@link massOfDisplays}, and null where it comes out below nothing. */
export function massOfDisplaysOrNull(...given: Parameters<typeof massOfDisplays>): Mass | null {
  try {
    return massOfDisplays(...given)
  } catch (error) {
    if (error instanceof CoreInputError) return null
    throw error
  }
}

/** The pan as it is when a reading is asked for. */
export interface OnThePan {
  /** What it shows, or why that cannot be taken. */
  readonly display:
    { readonly massG: number; readonly reason: string } | { readonly massG: null; readonly reason: string }
  readonly ready: ReadyScale | null
  readonly tare: TareUsed
  /** What it should show; null where nobody knows. */
  readonly expected: Estimate | null
}

/** What speaks against taking a reading: a sentence, or doubt whether it is the right part. Null where nothing does. */
export function objection(state: RunState, { display, ready, tare, expected }: OnThePan): string | 'doubt' | null {
  if (!ready) return runMessages.noScale
  if (display.reason !== '' || display.massG === null) return display.reason
  if (display.massG > ready.scale.capacityG) return runMessages.tooHeavy(display.massG, ready.name)
  if (!expected || state.doubted || state.collectedG.length > 0) return null
  const netG = (display.massG - tare.displayG) / (ready.check?.result.gain ?? 1)
  const weighed = weighedEstimate(ready, { id: 'doubt', displaysG: [display.massG], tare })
  return isFarOff(expected, netG, sigmaG(weighed)) ? 'doubt' : null
}
