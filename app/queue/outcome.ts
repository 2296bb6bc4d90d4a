import type { Problem } from '#shared/schemas/api'
import { ApiProblem, NoAnswer } from '../utils/api'
import type { SendOutcome, QueuedEdit } from './types'

/**
 * What a failed sending means for the edits that were sent. Only what was refused for itself is not tried again.
 * `onTop` makes the edit that would go over what is there.
 */
export function outcomeOfFailure(error: unknown, onTop: (problem: Problem) => QueuedEdit | null): SendOutcome {
  if (error instanceof NoAnswer) return { kind: 'wait', why: 'no answer' }
  if (!(error instanceof ApiProblem)) throw error
  const { problem, retryAfterMs } = error
  const afterMs = retryAfterMs ?? undefined
  if (problem.status === 401) return { kind: 'wait', why: 'signed out', afterMs }
  if ([408, 423, 425, 429, 503].includes(problem.status)) return { kind: 'wait', why: 'server busy', afterMs }
  if (problem.status >= 500) return { kind: 'wait', why: 'server trouble', afterMs }
  const again = problem.code === 'stale' ? onTop(problem) : null
  if (again) return { kind: 'met', sentence: problem.detail, meetings: problem.meetings ?? [], onTop: again }
  return { kind: 'refused', sentence: problem.detail }
}
