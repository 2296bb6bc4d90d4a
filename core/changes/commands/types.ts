import type { Assembly, StepRecord, FitPlan, FlightPlan, ShaveList, Shaving } from '../../model/data'
import type { Aim, Build, Line, LoadoutChoice, Mass, Observation, Setup } from '../../model/ledger'

/** The fields of a line a builder may change. */
export type LineFields = Partial<Omit<Line, 'id' | 'insteadOf' | 'edition' | 'further'>>

/**
 * What a weighing is for a line: its estimate from now on, in the place of one it is surer than; one more observation
 * beside its estimate; or the grams of another piece than before (cut, swapped).
 */
export type WeighedAs = 'estimate' | 'further' | 'another piece'

/** The fields of a build, its lines and set-ups apart. */
export type BuildFields = Partial<Pick<Build, 'name' | 'craftClass' | 'archived' | 'reference'>> & {
  aim?: Partial<Aim>
}

/** Everything that can be done to a build. Ids of new things come from the caller, so that browser and server agree on them. */
export type Command =
  | { readonly type: 'build.set'; readonly fields: BuildFields }
  | {
      readonly type: 'lines.add'
      readonly lines: readonly Line[]
      readonly beforeId: string | null
      /** The set-up that fitted fittings and payload among them fly in from now on; none by themselves. */ readonly setupId?:
        string | undefined
    }
  /** `anotherPiece`: the new grams are of another piece than the old ones, not the same one better known. */
  | {
      readonly type: 'lines.change'
      readonly changes: readonly {
        readonly id: string
        readonly fields: LineFields
        readonly anotherPiece?: boolean | undefined
      }[]
    }
  | { readonly type: 'line.weigh'; readonly id: string; readonly mass: Mass; readonly as: WeighedAs }
  /** Weighings as they come out under another check of their scale, wherever their versions stand. */
  | {
      readonly type: 'weighings.correct'
      readonly corrections: readonly { readonly id: string; readonly versionId: string; readonly mass: Mass }[]
    }
  /**
   * Says afterwards that the grams a line has now, or the weighing beside them named by its version, are of another
   * piece; `was`: the grams of the piece before.
   */
  | { readonly type: 'line.another'; readonly id: string; readonly versionId: string; readonly was: Mass }
  /** Says afterwards that what was taken for another piece is the one it was before, better known. */
  | { readonly type: 'line.same'; readonly id: string; readonly was: Mass }
  | { readonly type: 'lines.move'; readonly ids: readonly string[]; readonly beforeId: string | null }
  | { readonly type: 'lines.delete'; readonly ids: readonly string[] }
  | { readonly type: 'line.fit'; readonly id: string }
  | { readonly type: 'setup.put'; readonly setup: Setup }
  | { readonly type: 'setup.delete'; readonly id: string }
  | { readonly type: 'observation.put'; readonly observation: Observation }
  | { readonly type: 'observation.delete'; readonly id: string }
  | { readonly type: 'fit.set'; readonly fields: Partial<FitPlan> }
  | { readonly type: 'flying.set'; readonly fields: Partial<FlightPlan> }
  | { readonly type: 'shave.set'; readonly fields: Partial<Omit<ShaveList, 'shavings'>> }
  | { readonly type: 'shaving.put'; readonly shaving: Shaving }
  | { readonly type: 'shaving.delete'; readonly id: string }
  /** Decides on these: they are planned from now on, and what was planned besides is an idea again. */
  | { readonly type: 'shavings.plan'; readonly ids: readonly string[] }
  /**
   * `mass`: the grams of the line it touches afterwards, where it neither swaps nor leaves off. `realG`: what it took
   * off by the scale, null while only forecast.
   */
  | {
      readonly type: 'shaving.do'
      readonly id: string
      readonly mass: Mass | null
      readonly realG: number | null
      readonly on: string
      /** What it takes off by the ledger, kept as its forecast; the forecast there was where it is not given. */
      readonly gramsG?: number | undefined
      /** How long the leads of the line are afterwards, mm. */
      readonly leadMm?: number | undefined
    }
  | { readonly type: 'assembly.set'; readonly fields: Partial<Omit<Assembly, 'records'>> }
  /** What became of a step of the assembly: only the fields named change, so that two people at one step do not undo each other. */
  | { readonly type: 'assembly.record'; readonly stepId: string; readonly fields: Partial<Omit<StepRecord, 'stepId'>> }
  | { readonly type: 'loadout.fly'; readonly choice: LoadoutChoice }
  | { readonly type: 'loadout.never'; readonly choice: LoadoutChoice; readonly never: boolean }

/** A command that cannot be carried out; the sentence is for the builder, the field says where to point. */
export class CommandRefused extends Error {
  readonly field: string
  constructor(sentence: string, field: string) {
    super(sentence)
    this.name = 'CommandRefused'
    this.field = field
  }
}
