import type { Estimate } from '../../maths/estimate'
import type { Build, Line, LoadoutChoice } from '../../model/ledger'
import { countedLines, type LineEstimates } from '../../mass/loadout'
import { everythingBefore } from './order'
import { blankAssembly, blankRecord, type Assembly, type AssemblyStep, type StepRecord } from '../../model/data'

export const assemblyOf = (build: Build): Assembly => build.assembly ?? blankAssembly

export function recordOf(assembly: Assembly, stepId: string): StepRecord {
  return assembly.records.find(record => record.stepId === stepId) ?? blankRecord(stepId)
}

export type StepState = 'open' | 'done' | 'skipped' | 'failed' | 'overridden' | 'blocked'

/** A failed test nobody has gone past. */
const isFailed = (record: StepRecord) =>
  record.test === 'failed' && record.overriddenWhy === '' && record.skippedWhy === null

/**
 * How a step stands, and the failed tests it waits for. A test that failed blocks everything that rests on it until it
 * is passed or overridden.
 */
export interface Standing {
  readonly state: StepState
  readonly blockedBy: readonly AssemblyStep[]
}

export function standingOf(steps: readonly AssemblyStep[], assembly: Assembly, step: AssemblyStep): Standing {
  const record = recordOf(assembly, step.id)
  const before = everythingBefore(steps, step.id)
  const blockedBy = steps.filter(other => before.has(other.id) && isFailed(recordOf(assembly, other.id)))
  if (record.skippedWhy !== null) return { state: 'skipped', blockedBy }
  if (isFailed(record)) return { state: 'failed', blockedBy }
  if (blockedBy.length > 0) return { state: 'blocked', blockedBy }
  if (record.test === 'failed') return { state: 'overridden', blockedBy }
  return { state: record.doneAt !== null ? 'done' : 'open', blockedBy }
}

/** Why a step cannot be ticked now; empty when it can. */
export function whyBlocked(steps: readonly AssemblyStep[], assembly: Assembly, step: AssemblyStep): string {
  const { blockedBy } = standingOf(steps, assembly, step)
  const gate = blockedBy[0]
  return gate
    ? `“${step.title}” waits for “${gate.title}”: its test failed. Test it again, or go past it with a reason.`
    : ''
}

/** What is on board after a step: each line with its pieces so far, in the order of the ledger. */
export function onBoardAfter(
  sorted: readonly AssemblyStep[],
  stepId: string,
  lines: readonly Line[],
  assembly: Assembly,
): Line[] {
  const upTo = sorted
    .slice(0, sorted.findIndex(step => step.id === stepId) + 1)
    .filter(step => recordOf(assembly, step.id).skippedWhy === null)
  const pieces = new Map<string, number>()
  for (const part of upTo.flatMap(step => step.parts))
    pieces.set(part.lineId, (pieces.get(part.lineId) ?? 0) + part.pieces)
  return lines.flatMap(line => {
    const count = pieces.get(line.id) ?? 0
    return count === 0 ? [] : [count === line.quantity ? line : { ...line, quantity: count }]
  })
}

/** What the scale should say after a step; what nobody has said the grams of counts as nothing and is counted in `open`. */
export function expectedAfter(
  sorted: readonly AssemblyStep[],
  stepId: string,
  build: Build,
  choice: LoadoutChoice,
  estimates: LineEstimates,
): { readonly lines: readonly Line[]; readonly estimate: Estimate; readonly open: number } {
  const lines = onBoardAfter(sorted, stepId, countedLines(build, choice), assemblyOf(build))
  return { lines, estimate: estimates.sum(lines), open: lines.filter(line => !line.mass).length }
}

export interface Progress {
  readonly done: number
  readonly of: number
  readonly minutesLeft: number
  readonly minutesTaken: number
  readonly failed: number
  readonly overridden: number
  readonly next: AssemblyStep | null
}

/** How far the build is: skipped steps do not count, one gone past does. */
export function progressOf(sorted: readonly AssemblyStep[], assembly: Assembly): Progress {
  const counted = sorted
    .map(step => ({ step, ...standingOf(sorted, assembly, step) }))
    .filter(({ state }) => state !== 'skipped')
  const isOpen = ({ step }: { step: AssemblyStep }) => recordOf(assembly, step.id).doneAt === null
  return {
    done: counted.filter(entry => !isOpen(entry)).length,
    of: counted.length,
    minutesLeft: counted.filter(isOpen).reduce((sum, { step }) => sum + step.minutes, 0),
    minutesTaken: assembly.records.reduce((sum, record) => sum + (record.minutes ?? 0), 0),
    failed: counted.filter(({ state }) => state === 'failed').length,
    overridden: counted.filter(({ state }) => state === 'overridden').length,
    next: counted.find(isOpen)?.step ?? null,
  }
}
