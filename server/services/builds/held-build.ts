import type { Build } from '../../../core/model/ledger'
import { ListingBiasTable, listingObservations, type ListingObservation } from '../../../core/mass/listings'
import { LineEstimates } from '../../../core/mass/loadout'
import type { RuleCard } from '../../../core/limits/rules'
import type { ShelfEntry } from '../../../core/deciding/shelf'
import type { Steps } from '../../../shared/schemas/api'

/** A build as the server holds it in memory: the database is the truth, this is its copy. */
export interface HeldBuild {
  build: Build
  revision: number
  /** What its weighed parts say of listings. */
  observations: ListingObservation[]
  /** The last entry of its journal. */
  seq: number
  steps: Steps
  /** At most how large its file is, bytes; null until somebody writes. */
  fileBytes: number | null
  estimates: LineEstimates
  /** The all-up weight worked out last, and what it was worked out of. */
  allUp: { build: Build; honesty: ListingBiasTable; massG: number } | null
  /** The shelf entry made last, and what it was made of. */
  shelf: { build: Build; cards: readonly RuleCard[]; honesty: ListingBiasTable; entry: ShelfEntry } | null
}

export function heldBuild(build: Build, revision: number, seq: number, steps: Steps): HeldBuild {
  return {
    build,
    revision,
    observations: listingObservations(build.lines),
    seq,
    steps,
    fileBytes: null,
    estimates: new LineEstimates(new ListingBiasTable()),
    allUp: null,
    shelf: null,
  }
}
