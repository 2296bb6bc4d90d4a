import { setImmediate as turn } from 'node:timers/promises'
import { stateBefore } from '../../../core/changes/commands'
import { momentsToDraw, weightThen, type WeightThen } from '../../../core/comparing/history'
import { ListingBiasTable, listingObservations, type ListingObservation } from '../../../core/mass/listings'
import type { Build } from '../../../core/model/ledger'
import type { ToldEntry } from '../../../shared/schemas/journal'
import type { BuildsRepository } from '../../db/builds-repository'
import type { JournalRepository } from '../../db/journal-repository'
import { DomainProblem } from '../../problems'
import type { BuildCache } from './build-cache'
import { saidAt, saidOverTime, type SaidOfListings } from './listing-history'

interface Dependencies {
  readonly builds: BuildsRepository
  readonly journal: JournalRepository
  readonly cache: BuildCache
}

/** A build as it was after an entry of its journal; number 0 is what it was before the first. */
export interface StateThen {
  readonly build: Build
  readonly entry: ToldEntry | null
  readonly at: string
  /** What other builds said of listings then. */
  readonly honestyElsewhere: readonly ListingObservation[]
}
export type DrawnMoment = { readonly seq: number; readonly at: string } & WeightThen
/** A line, the last entry that changed it between two moments, and what is said of it there. */
export interface TouchedLine {
  readonly lineId: string
  readonly seq: number
  readonly at: string
  readonly title: string
  readonly note: string
}

/** A state is kept every so many entries, so that those between are near. Our choice. */
const stride = 64
const pageSize = 200
/** Builds whose states are kept at a time. */
const mostTracks = 12
/** The most moments a weight history is drawn at. Our choice: one every few px. */
const mostDrawn = 200

/** What builds were at any moment of their journals, walked back from what they are. Others are answered in between. */
export class BuildHistory {
  /** States by the number of the entry after which they stood, by build; used last comes last. */
  private readonly tracks = new Map<string, Map<number, Build>>()
  private readonly said = new Map<string, { readonly seq: number; readonly said: readonly SaidOfListings[] }>()

  constructor(private readonly has: Dependencies) {}

  /** Forgets what a build was: it is another one now. */
  forget(id: string): void {
    this.tracks.delete(id)
    this.said.delete(id)
  }

  async stateAt(id: string, seq: number): Promise<StateThen> {
    const { journal } = this.has
    const entry = seq === 0 ? null : (journal.one(id, seq) ?? null)
    if (seq !== 0 && !entry) throw new DomainProblem('not-found', 'There is no such entry in this journal.')
    const build = await this.walkTo(id, seq)
    const at = entry?.at ?? this.beganAt(id)
    return { build, entry, at, honestyElsewhere: await this.honestyElsewhere(id, at) }
  }

  /** The weights of a build over its journal, oldest first, by what was known then. */
  async weights(id: string): Promise<DrawnMoment[]> {
    const moments = [{ seq: 0, at: this.beganAt(id) }, ...this.has.journal.moments(id)]
    const drawn = momentsToDraw(moments, mostDrawn)
    const weights: DrawnMoment[] = []
    // From the newest on, so that each is a few steps from the one before.
    for (const { seq, at } of [...drawn].reverse()) {
      const build = await this.walkTo(id, seq)
      const elsewhere = await this.honestyElsewhere(id, at)
      const honesty = new ListingBiasTable([...elsewhere, ...listingObservations(build.lines)])
      if (!build.reference) weights.push({ seq, at, ...weightThen(build, honesty) })
      await turn()
    }
    return weights.reverse()
  }

  /** For each line that entries after one and up to another have changed, the last of them. */
  async touched(id: string, from: number, to: number): Promise<TouchedLine[]> {
    const last = new Map<string, TouchedLine>()
    for await (const { seq, at, title, note, patch } of this.down(id, to, from))
      for (const { before, after } of patch.lines) {
        const lineId = (after ?? before)!.id
        if (!last.has(lineId)) last.set(lineId, { lineId, seq, at, title, note })
      }
    return [...last.values()]
  }

  private async *down(id: string, from: number, to: number) {
    let at = from
    while (at > to) {
      const page = this.has.journal.down(id, at, to, pageSize)
      yield* page
      if (page.length < pageSize) return
      at = page.at(-1)!.seq - 1
      await turn()
    }
  }

  private async walkTo(id: string, seq: number): Promise<Build> {
    const held = this.has.cache.get(id)
    const track = this.trackOf(id)
    let [at, state] = nearest(track, seq) ?? [held.seq, held.build]
    if (seq >= at) return state
    for await (const record of this.down(id, at, seq)) {
      state = stateBefore(state, record)
      at = record.seq - 1
      if (record.seq % stride === 0) track.set(at, state)
    }
    track.set(seq, state)
    return state
  }

  private trackOf(id: string): Map<number, Build> {
    const track = this.tracks.get(id) ?? new Map<number, Build>()
    this.tracks.delete(id)
    this.tracks.set(id, track)
    if (this.tracks.size > mostTracks) this.tracks.delete(this.tracks.keys().next().value!)
    return track
  }

  /** When a build began: when it was made here, or before that where it came in with a history. */
  private beganAt(id: string): string {
    const [made, firstAt] = [this.has.builds.madeAt(id), this.has.journal.firstAt(id)]
    return firstAt !== null && firstAt < made ? firstAt : made
  }

  /** What builds but one said of listings at a moment. */
  private async honestyElsewhere(id: string, at: string): Promise<ListingObservation[]> {
    const out: ListingObservation[] = []
    for (const { build, seq } of this.has.cache.all()) {
      if (build.id === id) continue
      const known = this.said.get(build.id)
      const said = known?.seq === seq ? known.said : saidOverTime(build.lines, this.has.journal.ofListings(build.id))
      if (said !== known?.said) {
        this.said.set(build.id, { seq, said })
        await turn()
      }
      if (this.beganAt(build.id) <= at) out.push(...saidAt(said, at))
    }
    return out
  }
}

/** The kept state at or next after a number. */
function nearest(track: ReadonlyMap<number, Build>, seq: number): [number, Build] | null {
  let best: [number, Build] | null = null
  for (const one of track) if (one[0] >= seq && (!best || one[0] < best[0])) best = one
  return best
}
