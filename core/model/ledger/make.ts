import { usualConfidence } from '../../limits/verdict'
import type { Aim, Evidence, Line, Mass, Slot } from '../data'

/** What a new build aims at until somebody says otherwise; `confidence` comes from the settings. */
export function blankAim(confidence: number = usualConfidence): Aim {
  return {
    purpose: '',
    purposeKind: 'recreation',
    places: [],
    cardIds: [],
    reserveG: 0,
    confidence,
    goalDryG: null,
    goalMinutes: null,
    goalPriceCents: null,
  }
}

/** A line with the usual defaults; what differs is given. */
export function makeLine(given: { id: string; slot: Slot; name: string } & Partial<Line>): Line {
  return {
    quantity: 1,
    mass: null,
    edition: 0,
    further: [],
    listing: null,
    state: 'fitted',
    role: given.slot === 'payload' ? 'payload' : 'airframe',
    removable: false,
    priceEachCents: null,
    note: '',
    tie: null,
    insteadOf: null,
    pack: null,
    packSoFar: null,
    properties: null,
    partId: null,
    feed: null,
    pictureIds: [],
    ...given,
  }
}

/** A mass version with the usual defaults; `valueG` is of `valueCount` pieces. */
export function makeMass(given: { versionId: string; evidence: Evidence; valueG: number } & Partial<Mass>): Mass {
  return {
    valueCount: 1,
    resolutionG: 0.01,
    pieceReadingsG: null,
    halfRangeG: null,
    ownSpreadG: null,
    basis: given.evidence === 'listed' ? 'as supplied' : 'as fitted',
    origin: 'typed',
    weighing: null,
    ...given,
  }
}
