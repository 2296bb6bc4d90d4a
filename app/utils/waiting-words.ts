import type { DocumentState } from '../queue'

const reasons = {
  'no answer': 'the server does not answer',
  'signed out': 'sign in again to save them',
  'server busy': 'the server asks to wait',
  'server trouble': 'the server has trouble writing',
} as const

/** Why the changes of a document wait, as half a sentence; empty while they are only on their way. */
export function whyWaiting({ met, why }: Pick<DocumentState, 'met' | 'why'>): string {
  if (met) return 'one met somebody else’s change'
  return why ? reasons[why] : ''
}
export const changesWords = (count: number) => (count === 1 ? '1 change' : `${count} changes`)
