import type { Line } from '../../model/ledger'
import { textOf } from '../../model/properties'

const dayMs = 86_400_000

/** Whole days from one day (YYYY-MM-DD) to another. */
export function daysBetween(from: string, to: string): number {
  return Math.round((Date.parse(`${to}T00:00:00Z`) - Date.parse(`${from}T00:00:00Z`)) / dayMs)
}

/** After so many days full, a pack is worth a word. */
const daysFull = 3

/** What should be known of a pack before it is flown or put away, on a given day (YYYY-MM-DD). */
export function packNotes(pack: Line, today: string): string[] {
  const notes: string[] = []
  const [charged, policy, state, caution] = ['lastChargedOn', 'chargePolicy', 'packState', 'cautions'].map(key =>
    textOf(pack, key),
  )
  const days = charged === undefined ? null : daysBetween(charged, today)
  if (days !== null && days >= 0) {
    const ago = days === 0 ? 'today' : days === 1 ? 'yesterday' : `${days} days ago`
    notes.push(
      days >= daysFull && policy !== 'storage'
        ? `Charged ${ago}. A pack left full ages and sags: bring it to storage, or charge it just before flying.`
        : `Charged ${ago}.`,
    )
  }
  if (state === 'tired') notes.push('Tired: expect fewer minutes and more sag than the figures say.')
  if (state === 'retired') notes.push('Retired: not flown any more.')
  if (caution) notes.push(caution)
  return notes
}
