import type { KeptPatch } from '../../../core/changes/commands'
import { listingObservations, type ListingObservation } from '../../../core/mass/listings'
import type { Line } from '../../../core/model/ledger'
import type { JournalRecord } from '../../../shared/schemas/journal'

/** What the weighed parts of a build said of listings from a moment on; the first is from the beginning. */
export interface SaidOfListings {
  /** Empty for what was before the first entry. */
  readonly since: string
  readonly observations: readonly ListingObservation[]
}

type Entry = Pick<JournalRecord, 'at' | 'kind' | 'patch'>

/**
 * What a build has said of listings over time, from its lines as they are and the entries that touched a line with a
 * listing, newest first. Oldest first.
 */
export function saidOverTime(lines: readonly Line[], entries: Iterable<Entry>): SaidOfListings[] {
  const listed = new Map(lines.filter(({ listing }) => listing !== null).map(line => [line.id, line]))
  const said: SaidOfListings[] = []
  for (const { at, kind, patch } of entries) {
    said.push({ since: at, observations: listingObservations([...listed.values()]) })
    stepBack(listed, patch, kind)
  }
  said.push({ since: '', observations: listingObservations([...listed.values()]) })
  return said.reverse()
}

/** Lines with a listing as they were before an entry: of one whose listing stayed, an entry tells only what else changed. */
function stepBack(listed: Map<string, Line>, { lines }: KeptPatch, kind: Entry['kind']): void {
  for (const change of lines) {
    const [now, then] = kind === 'undo' ? [change.before, change.after] : [change.after, change.before]
    const known = listed.get((now ?? then)!.id)
    if (now) listed.delete(now.id)
    if (then?.listing) listed.set(then.id, { ...known, ...then } as Line)
  }
}

/** What it said at a moment. */
export function saidAt(said: readonly SaidOfListings[], at: string): readonly ListingObservation[] {
  return said.findLast(({ since }) => since <= at)?.observations ?? []
}
