import type { Build } from '../../model/ledger'
import { sameData } from '../../basics/merge'
import type { KeptPatch } from '../../slices/contract'
import { applyPatch } from './patch'

/** What of a journal's entry its replay needs. */
export interface ReplayedEntry {
  readonly seq: number
  readonly kind: 'do' | 'undo' | 'redo'
  readonly target: number | null
  readonly undone: 'in force' | 'taken back' | 'overtaken'
  readonly patch: KeptPatch
}

const directionOf = (entry: Pick<ReplayedEntry, 'kind'>) => (entry.kind === 'undo' ? 'backwards' : 'forwards')
const opposite = (direction: 'forwards' | 'backwards') => (direction === 'forwards' ? 'backwards' : 'forwards')

/** The state a build was in before an entry of its journal, from the state after it. */
export function stateBefore(after: Build, entry: Pick<ReplayedEntry, 'kind' | 'patch'>): Build {
  return applyPatch(after, entry.patch, opposite(directionOf(entry)))
}

/**
 * Why a journal cannot be the history of a build, or null when it is: replayed from its beginning it must give the build,
 * every state on the way must be one (`stateProblem` says why not), entries must be numbered upwards, and what was taken
 * back or done again must be there, in the state the journal says. Costs two patches and two checks an entry.
 */
export function journalProblem(
  build: Build,
  entries: readonly ReplayedEntry[],
  stateProblem: (state: Build, entry: ReplayedEntry, direction: 'forwards' | 'backwards') => string | null,
): string | null {
  let first = build
  for (const entry of [...entries].reverse()) {
    const direction = opposite(directionOf(entry))
    first = applyPatch(first, entry.patch, direction)
    const problem = stateProblem(first, entry, direction)
    if (problem) return `before entry ${entry.seq}: ${problem}`
  }
  let state = first
  const marks = new Map<number, { mark: ReplayedEntry['undone']; entry: ReplayedEntry }>()
  let before = 0
  for (const entry of entries) {
    if (entry.seq <= before) return `entry ${entry.seq} is not numbered after ${before}`
    before = entry.seq
    const problem = followMark(entry, marks)
    if (problem) return problem
    state = applyPatch(state, entry.patch, directionOf(entry))
    const wrong = stateProblem(state, entry, directionOf(entry))
    if (wrong) return `entry ${entry.seq}: ${wrong}`
  }
  for (const { mark, entry } of marks.values())
    if (mark !== entry.undone) return `entry ${entry.seq} is said to be ${entry.undone}, but is ${mark}`
  return sameData(state, build) ? null : 'its last state is not the build'
}

/** Keeps account of what is in force; a sentence where an entry takes back or does again what it cannot. */
function followMark(
  entry: ReplayedEntry,
  marks: Map<number, { mark: ReplayedEntry['undone']; entry: ReplayedEntry }>,
): string | null {
  if (entry.kind === 'do') {
    for (const known of marks.values()) if (known.mark === 'taken back') known.mark = 'overtaken'
    marks.set(entry.seq, { mark: 'in force', entry })
    return null
  }
  const target = entry.target === null ? undefined : marks.get(entry.target)
  const wanted = entry.kind === 'undo' ? 'in force' : 'taken back'
  if (!target || target.mark !== wanted || !sameData(target.entry.patch, entry.patch))
    return `entry ${entry.seq} is no ${entry.kind} of an entry that was ${wanted}`
  target.mark = entry.kind === 'undo' ? 'taken back' : 'in force'
  return null
}
