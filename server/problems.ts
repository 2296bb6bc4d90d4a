import type { MeetingWords } from '../core/changes/commands'
import type { BuildReply } from '../shared/schemas/api'

export const problemCodes = {
  'not-found': 404,
  invalid: 422,
  refused: 422,
  stale: 409,
  'revision-missing': 428,
  'too-large': 413,
  'forbidden-origin': 403,
  'nothing-to-undo': 409,
  'signed-out': 401,
  'at-the-machine': 403,
  /** It was typed on data that others have taken the place of. */
  'other-data': 409,
  'not-open': 403,
  'not-allowed': 405,
  'too-much': 422,
  unreadable: 422,
  'journal-forged': 422,
  busy: 503,
  locked: 503,
} as const
export type ProblemCode = keyof typeof problemCodes

/** Something the builder must be told. One place turns the code into an HTTP status. */
export class DomainProblem extends Error {
  constructor(
    readonly code: ProblemCode,
    sentence: string,
    readonly field?: string,
    readonly current?: BuildReply,
    readonly meetings?: readonly MeetingWords[],
  ) {
    super(sentence)
    this.name = 'DomainProblem'
  }
}
