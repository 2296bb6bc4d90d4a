import {
  makeLine,
  wholePack,
  type Chemistry,
  type Line,
  type Listing,
  type Mass,
  type PackFacts,
  type PackSoFar,
  type Slot,
} from '../../model/ledger'
import type { Properties } from '../../model/properties'

/** Something the builder owns, has owned or has looked at: one kind of thing, so many pieces. */
export interface Part {
  readonly id: string
  /** The slot it is made for: its kind. */
  readonly slot: Slot
  readonly name: string
  readonly properties: Properties | null
  readonly listing: Listing | null
  readonly mass: Mass | null
  readonly pack: PackFacts | null
  /** What is written of a pack that nobody has said whole; nothing rests on it. */
  readonly packSoFar: PackSoFar | null
  /** Price of `soldIn` pieces, whole cents. */
  readonly priceCents: number | null
  readonly soldIn: number
  /** Pieces that came, lost and scrapped ones included. 0: only looked at. */
  readonly owned: number
  readonly lost: number
  readonly scrapped: number
  /** Pieces that should have been in the bag and were not. */
  readonly missing: number
  readonly kitId: string | null
  /** Which bag or box it came from. */
  readonly bag: string
  readonly link: string
  readonly note: string
  readonly tags: readonly string[]
  readonly pictureIds: readonly string[]
}

/** One purchase that became many pieces. */
export interface Kit {
  readonly id: string
  readonly name: string
  readonly priceCents: number | null
  readonly link: string
  readonly note: string
  readonly leavesOut: string
}

/** Pieces of a part that are on a build. */
export interface Placement {
  readonly partId: string
  readonly buildId: string
  readonly buildName: string
  readonly lineId: string
  readonly quantity: number
  readonly state: Line['state']
}

export function makePart(given: { id: string; slot: Slot; name: string } & Partial<Part>): Part {
  return {
    properties: null,
    listing: null,
    mass: null,
    pack: null,
    packSoFar: null,
    priceCents: null,
    soldIn: 1,
    owned: 0,
    lost: 0,
    scrapped: 0,
    missing: 0,
    kitId: null,
    bag: '',
    link: '',
    note: '',
    tags: [],
    pictureIds: [],
    ...given,
  }
}

/** Pieces on builds: candidates do not take a piece out of the drawer. */
export function onBuilds(partId: string, placements: readonly Placement[]): number {
  return placements.filter(p => p.partId === partId && p.state !== 'candidate').reduce((sum, p) => sum + p.quantity, 0)
}

/** Pieces that lie in the drawer; negative when builds claim more than were bought. */
export function inDrawer(part: Part, placements: readonly Placement[]): number {
  return part.owned - part.lost - part.scrapped - onBuilds(part.id, placements)
}

/** What one piece costs, whole cents, rounded up; null without a price. */
export function priceEachCents(part: Part): number | null {
  return part.priceCents === null ? null : Math.ceil(part.priceCents / part.soldIn)
}

/** A line that is this part: linked, with its grams and their version. */
export function lineOfPart(part: Part, id: string, quantity: number, more: Partial<Line> = {}): Line {
  return makeLine({
    id,
    slot: part.slot,
    name: part.name,
    quantity,
    mass: part.mass,
    listing: part.listing,
    priceEachCents: priceEachCents(part),
    pack: part.slot === 'pack' ? part.pack : null,
    packSoFar: part.slot === 'pack' ? part.packSoFar : null,
    properties: part.properties,
    partId: part.id,
    pictureIds: part.pictureIds,
    ...more,
  })
}

/** A part made of a line that is put into the drawer. */
export function partOfLine(line: Line, id: string): Part {
  return makePart({
    id,
    slot: line.slot,
    name: line.name,
    properties: line.properties,
    listing: line.listing,
    mass: line.mass,
    pack: line.pack,
    packSoFar: line.packSoFar,
    priceCents: line.priceEachCents,
    owned: line.quantity,
    note: line.note,
    pictureIds: line.pictureIds,
  })
}

/** Whether a line is still simply its part: nothing was done to this piece alone (leads trimmed, weighed by difference). */
export function sameAsPart(line: Pick<Line, 'mass' | 'properties'>, part: Pick<Part, 'mass' | 'properties'>): boolean {
  return (
    (line.mass?.versionId ?? null) === (part.mass?.versionId ?? null) &&
    JSON.stringify(line.properties) === JSON.stringify(part.properties)
  )
}

/** The stator of a motor as a number: 14 mm by 4 mm is 1404. Null when either is not known. */
export function statorCode(properties: Properties | null): number | null {
  const [diameter, height] = [properties?.statorDiameterMm, properties?.statorHeightMm]
  return typeof diameter === 'number' && typeof height === 'number' ? diameter * 100 + height : null
}

/** The stator as builders write it, four digits before the point: 0802, 1303.5. */
export function statorText(code: number): string {
  return Number.isInteger(code) ? String(code).padStart(4, '0') : code.toFixed(1).padStart(6, '0')
}

/** A row of a list of parts: only what the row says, the rest is usual. Grams are of one piece, steps those of the last digit. */
export interface PartRow {
  readonly id: string
  readonly slot: Slot
  readonly name: string
  readonly owned: number
  readonly listed?: { readonly valueG: number; readonly resolutionG: number }
  readonly weighed?: { readonly valueG: number; readonly resolutionG: number }
  readonly properties?: Properties
  readonly priceCents?: number
  readonly soldIn?: number
  readonly bag?: string
  readonly link?: string
  readonly note?: string
  readonly tags?: readonly string[]
  readonly cells?: number
  readonly chemistry?: Chemistry
  readonly capacityMah?: number
}

/** The part a row of a list is. The first version of its grams has the part's own id. */
export function partOfRow(row: PartRow): Part {
  const { id, slot, name, owned, listed, weighed } = row
  const known = weighed ?? listed
  const soFar =
    slot === 'pack' && (row.cells ?? row.chemistry ?? row.capacityMah) !== undefined ? packSoFarOf(row) : null
  const pack = soFar && wholePack(soFar, name)
  // Written out field by field: lists are long, and copies of objects of many shapes are slow.
  return {
    id,
    slot,
    name,
    properties: row.properties ?? null,
    listing: listed ?? null,
    mass: known
      ? {
          versionId: id,
          evidence: weighed ? 'weighed' : 'listed',
          valueG: known.valueG,
          valueCount: 1,
          resolutionG: known.resolutionG,
          pieceReadingsG: null,
          halfRangeG: null,
          ownSpreadG: null,
          basis: 'as supplied',
          origin: 'drawer list',
          weighing: null,
        }
      : null,
    pack,
    packSoFar: pack ? null : soFar,
    priceCents: row.priceCents ?? null,
    soldIn: row.soldIn ?? 1,
    owned,
    lost: 0,
    scrapped: 0,
    missing: 0,
    kitId: null,
    bag: row.bag ?? '',
    link: row.link ?? '',
    note: row.note ?? '',
    pictureIds: [],
    tags: row.tags ?? [],
  }
}

function packSoFarOf({ cells, chemistry, capacityMah }: PartRow): PackSoFar {
  return {
    ...(cells === undefined ? {} : { cells }),
    ...(chemistry === undefined ? {} : { chemistry }),
    ...(capacityMah === undefined ? {} : { capacityMah }),
  }
}
