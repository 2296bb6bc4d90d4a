import { type CheckResult, evaluateCheck } from './check'
import { coverageFactor95 } from '../../maths/numbers'
import type { Scale, ScaleCheck } from './types'

/** How a scale stands at a time: which check is in force, whether it is overdue, whether it has drifted since the one before. */
export interface ScaleStanding {
  readonly check: ScaleCheck | null
  readonly result: CheckResult | null
  /** Whole days since the check; null without one. */
  readonly ageDays: number | null
  readonly overdue: boolean
  /** Change of gain since the check before it, and whether that is more than both allow (95 %). */
  readonly drift: { readonly change: number; readonly sigma: number; readonly flagged: boolean } | null
}

const dayMs = 86_400_000

/** The check in force at a time: the last one taken at or before it. `checks` may be in any order. */
export function checkInForce(checks: readonly ScaleCheck[], scaleId: string, atMs: number): ScaleCheck | null {
  let latest: ScaleCheck | null = null
  for (const check of checks) {
    if (check.scaleId !== scaleId || Date.parse(check.takenAt) > atMs) continue
    if (!latest || Date.parse(check.takenAt) > Date.parse(latest.takenAt)) latest = check
  }
  return latest
}

/** Judges a scale's checks at a time given in milliseconds. */
export function scaleStanding(scale: Scale, checks: readonly ScaleCheck[], nowMs: number): ScaleStanding {
  const check = checkInForce(checks, scale.id, nowMs)
  if (!check) return { check: null, result: null, ageDays: null, overdue: true, drift: null }
  const result = evaluateCheck(scale, check.placings)
  const before = checkInForce(checks, scale.id, Date.parse(check.takenAt) - 1)
  const ageDays = Math.floor((nowMs - Date.parse(check.takenAt)) / dayMs)
  return {
    check,
    result,
    ageDays,
    overdue: ageDays >= scale.checkIntervalDays,
    drift: before ? driftBetween(evaluateCheck(scale, before.placings), result) : null,
  }
}

/** Change of gain from one check to the next; what both owe to the same reference cancels. */
export function driftBetween(
  before: CheckResult,
  after: CheckResult,
): { change: number; sigma: number; flagged: boolean } {
  let variance = before.noiseSigma ** 2 + after.noiseSigma ** 2
  for (const id of new Set([...Object.keys(before.references), ...Object.keys(after.references)])) {
    variance += ((after.references[id] ?? 0) - (before.references[id] ?? 0)) ** 2
  }
  const change = after.gain - before.gain
  const sigma = Math.sqrt(variance)
  return { change, sigma, flagged: Math.abs(change) > coverageFactor95 * sigma }
}
