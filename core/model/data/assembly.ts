/** What a step belongs to; the schools differ in the order of these. */
export const phases = [
  'dry fit',
  'frame',
  'motors',
  'power',
  'motor leads',
  'first power',
  'motor test',
  'boards',
  'radio',
  'video',
  'camera',
  'devices',
  'second power',
  'set up',
  'coat',
  'close',
  'pack',
  'props',
  'weigh',
  'maiden',
] as const
export type Phase = (typeof phases)[number]

/** So many pieces of a line, put on board at a step. */
export interface StepPart {
  readonly lineId: string
  readonly pieces: number
}

/** What a step is tested by. */
export interface StepTest {
  readonly doThis: string
  readonly see: string
  readonly otherwise: string
}

/** One step of putting a build together. */
export interface AssemblyStep {
  /** The same for the same step of any build, so that records and templates find it again. */
  readonly id: string
  readonly phase: Phase
  readonly title: string
  readonly why: string
  /** Tools and things at hand. */
  readonly need: readonly string[]
  /** What comes on board here. */
  readonly parts: readonly StepPart[]
  /** Lines worked on here that are on board already. */
  readonly uses: readonly string[]
  /** Figures of this very build: feeds, lengths, screws. */
  readonly facts: readonly string[]
  readonly cautions: readonly string[]
  /** A gate: what depends on it waits while it has failed. */
  readonly test: StepTest | null
  /** Steps whose work the test proves: done again, they want it again. */
  readonly proves: readonly string[]
  /** Steps that come before. */
  readonly after: readonly string[]
  /** Steps that lie underneath: to get at them this one is undone. Each comes before, too. */
  readonly over: readonly string[]
  /** Planned minutes. */
  readonly minutes: number
  /** Added by the builder. */
  readonly own: boolean
}

/** A step of the builder's own. */
export interface OwnStep {
  readonly id: string
  readonly title: string
  readonly words: string
  readonly phase: Phase
  readonly after: readonly string[]
  readonly minutes: number
}

/** What became of a step. */
export interface StepRecord {
  readonly stepId: string
  readonly startedAt: string | null
  readonly doneAt: string | null
  /** Minutes it really took; null while nobody has said. */
  readonly minutes: number | null
  readonly test: 'passed' | 'failed' | null
  /** Why a failed test was gone past; empty while it was not. */
  readonly overriddenWhy: string
  /** Why it is left out; null where it is not. */
  readonly skippedWhy: string | null
  readonly note: string
  readonly photoIds: readonly string[]
}

/** How a build is put together: the school or template, the builder's own order and steps, and what was done. */
export interface Assembly {
  readonly school: string
  /** Ids of steps in the order wished for; what is not named follows the school. */
  readonly order: readonly string[]
  readonly own: readonly OwnStep[]
  readonly records: readonly StepRecord[]
}

export const blankAssembly: Assembly = { school: 'motors first', order: [], own: [], records: [] }

export function blankRecord(stepId: string): StepRecord {
  return {
    stepId,
    startedAt: null,
    doneAt: null,
    minutes: null,
    test: null,
    overriddenWhy: '',
    skippedWhy: null,
    note: '',
    photoIds: [],
  }
}

/** A way of building kept by the builder, for any build. */
export interface AssemblyTemplate {
  readonly id: string
  readonly name: string
  readonly order: readonly string[]
  readonly own: readonly OwnStep[]
}
