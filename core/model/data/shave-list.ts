export const measures = ['cents', 'minutes', 'loss', 'changes', 'forGood'] as const
export type CostMeasure = (typeof measures)[number]

/** What is done to a part. */
export const shavingKinds = [
  'swap part',
  'leave off',
  'trim leads',
  'direct solder',
  'change material',
  'drill',
  'cut',
  'strip case',
  'lighter strap',
  'shorter lead',
  'less coating',
  'put on',
  'other',
] as const
export type ShavingKind = (typeof shavingKinds)[number]

export const shavingStates = ['idea', 'planned', 'done', 'refused'] as const
export type ShavingState = (typeof shavingStates)[number]

/** What is given up, in one word. */
export const lossWords = [
  'nothing',
  'looks',
  'strength',
  'repair',
  'range',
  'water',
  'protection',
  'picture',
  'comfort',
] as const

/** How the grams of a shaving are known. */
export const shavingEvidences = ['guess', 'listed', 'worked out', 'weighed'] as const

/** One possible change that takes grams off (or puts them on), with what it costs. */
export interface Shaving {
  readonly id: string
  readonly what: string
  readonly kind: ShavingKind
  /** The line it touches; null while nobody has said. */
  readonly lineId: string | null
  /** For a swap: the candidate line fitted instead. Its grams are then those of the two lines. */
  readonly candidateId: string | null
  /** Grams taken off; negative where it puts grams on. Not used where lines are swapped or left off: the ledger knows. */
  readonly gramsG: number
  /** ± at 95 %, grams. */
  readonly spreadG: number
  readonly evidence: (typeof shavingEvidences)[number]
  /** Whole cents; null while nobody has said. Of a swap the price of the candidate counts where none is said here. */
  readonly cents: number | null
  readonly minutes: number
  /** What is given up, 0 to 5. */
  readonly loss: number
  readonly lossWord: (typeof lossWords)[number]
  /** For what is put on: what it brings, 0 to 5. */
  readonly gain: number
  readonly forGood: boolean
  /** How likely a slip of a usual hand ruins the part, per cent; costs that share of its price. */
  readonly slipPercent: number
  readonly excludes: readonly string[]
  readonly needs: readonly string[]
  readonly state: ShavingState
  readonly why: string
  readonly lock: 'in' | 'out' | null
  /** Day it was done, and what it really took off; null while nobody has weighed it. */
  readonly doneOn: string | null
  readonly realG: number | null
}

/** The shavings of a build and what its plans should spare. */
export interface ShaveList {
  readonly shavings: readonly Shaving[]
  readonly spare: CostMeasure
  readonly caps: { readonly cents: number | null; readonly minutes: number | null; readonly loss: number | null }
  /** Every loadout that is flown must come down, not only the one looked at. */
  readonly everyLoadout: boolean
}

export const blankShaveList: ShaveList = {
  shavings: [],
  spare: 'cents',
  caps: { cents: null, minutes: null, loss: null },
  everyLoadout: false,
}

/**
 * What a kind of shaving usually costs: everything but the grams can wait. What takes something off costs no money;
 * what has to be bought has a price nobody has said yet.
 */
export const usualOfKind: Readonly<
  Record<ShavingKind, Pick<Shaving, 'cents' | 'minutes' | 'loss' | 'lossWord' | 'forGood' | 'slipPercent'>>
> = {
  'swap part': { cents: null, minutes: 30, loss: 0, lossWord: 'nothing', forGood: false, slipPercent: 2 },
  'leave off': { cents: 0, minutes: 5, loss: 2, lossWord: 'protection', forGood: false, slipPercent: 0 },
  'trim leads': { cents: 0, minutes: 20, loss: 1, lossWord: 'repair', forGood: true, slipPercent: 3 },
  'direct solder': { cents: 0, minutes: 20, loss: 2, lossWord: 'repair', forGood: false, slipPercent: 5 },
  'change material': { cents: null, minutes: 15, loss: 1, lossWord: 'strength', forGood: false, slipPercent: 0 },
  drill: { cents: 0, minutes: 30, loss: 3, lossWord: 'strength', forGood: true, slipPercent: 5 },
  cut: { cents: 0, minutes: 20, loss: 3, lossWord: 'strength', forGood: true, slipPercent: 5 },
  'strip case': { cents: 0, minutes: 25, loss: 2, lossWord: 'protection', forGood: true, slipPercent: 10 },
  'lighter strap': { cents: null, minutes: 2, loss: 1, lossWord: 'strength', forGood: false, slipPercent: 0 },
  'shorter lead': { cents: 0, minutes: 20, loss: 1, lossWord: 'comfort', forGood: true, slipPercent: 2 },
  'less coating': { cents: 0, minutes: 10, loss: 2, lossWord: 'water', forGood: true, slipPercent: 0 },
  'put on': { cents: null, minutes: 10, loss: 0, lossWord: 'nothing', forGood: false, slipPercent: 0 },
  other: { cents: null, minutes: 15, loss: 1, lossWord: 'nothing', forGood: false, slipPercent: 0 },
}

/** How sure the builder's hand is: it scales how likely a slip is. */
export const hands = ['practised', 'usual', 'learning'] as const
export type Hand = (typeof hands)[number]
export const slipFactorOf: Readonly<Record<Hand, number>> = { practised: 0.5, usual: 1, learning: 2 }

/** Kinds that weaken what they touch: they carry the caution. */
export const structuralKinds: readonly ShavingKind[] = ['drill', 'cut']

/** A shaving as it is first written down; grams are enough. An unknown spread is taken as 30 %. */
export function makeShaving(given: { id: string; what: string; kind: ShavingKind } & Partial<Shaving>): Shaving {
  const gramsG = given.gramsG ?? 0
  return {
    lineId: null,
    candidateId: null,
    gramsG,
    spreadG: Number(Math.max(0.05, Math.abs(gramsG) * 0.3).toFixed(2)),
    evidence: 'guess',
    gain: given.kind === 'put on' ? 3 : 0,
    ...usualOfKind[given.kind],
    excludes: [],
    needs: [],
    state: 'idea',
    why: '',
    lock: null,
    doneOn: null,
    realG: null,
    ...given,
  }
}
