import type { FullThrottle } from '../../currents'
import type { Feed, Line } from '../../../model/ledger'
import type { ElectricalTree } from '../../wiring'
import type { GroundGear } from '../gear'
import type { FitPlan } from '../../../model/data'

/** clash: it will not work or will break; check: look before you go on; advice: works, but know this. */
export const severities = ['clash', 'check', 'advice'] as const
export type Severity = (typeof severities)[number]

/** Everything a check may look at: one loadout of a build. */
export interface FitContext {
  /** Lines on board in this loadout, the pack included. */
  readonly lines: readonly Line[]
  readonly pack: Line | null
  readonly fit: FitPlan
  readonly gear: GroundGear
  readonly tree: ElectricalTree
  /** Full throttle at the start of a flight. */
  readonly full: FullThrottle | 'collapses' | null
}

/** A way out of a finding; `move` is what the application can do for the builder at once. */
export interface WayOut {
  readonly words: string
  readonly gramsG: number | null
  readonly move: { readonly lineId: string; readonly feed: Feed } | null
}

export interface AskedProperty {
  readonly lineId: string
  readonly key: string
}

/** What a check says about one pair (or one thing). */
export type CheckOutcome =
  | { readonly kind: 'fits'; readonly lineIds: readonly string[]; readonly words: string }
  | {
      readonly kind: 'finding'
      readonly severity: Severity
      readonly lineIds: readonly string[]
      readonly about?: string
      readonly title: string
      readonly sentence: string
      readonly ways: readonly WayOut[]
    }
  | {
      readonly kind: 'unknown'
      readonly lineIds: readonly string[]
      readonly asks: readonly AskedProperty[]
      readonly couldClash: boolean
    }

/** One rule of how parts go together. */
export interface Check {
  readonly id: string
  readonly title: string
  readonly severity: Severity
  readonly examine: (context: FitContext) => readonly CheckOutcome[]
}

/** What a pair comes to: nothing to say but that it fits, or a finding. */
export type Judged =
  | { readonly fits: string }
  | {
      readonly title: string
      readonly sentence: string
      readonly ways?: readonly WayOut[]
      readonly severity?: Severity
      readonly about?: string
    }

export const way = (words: string, gramsG: number | null = null, move: WayOut['move'] = null): WayOut => ({
  words,
  gramsG,
  move,
})
