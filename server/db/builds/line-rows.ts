import type {
  Basis,
  Chemistry,
  Evidence,
  Feed,
  Line,
  LineState,
  Mass,
  PackFacts,
  PackSoFar,
  Role,
  Slot,
} from '../../../core/model/ledger'
import type { Properties } from '../../../core/model/properties'

/** A mass version as a row; the fields are null where a line has no grams. */
export interface MassRow {
  versionId: string | null
  evidence: Evidence | null
  valueG: number
  valueCount: number
  resolutionG: number
  pieceReadings: string | null
  halfRangeG: number | null
  ownSpreadG: number | null
  basis: Basis
  origin: string
  weighing: string | null
}

/** A line joined with its present mass version and its pack facts. */
export interface LineRow extends Omit<MassRow, 'versionId'> {
  id: string
  slot: Slot
  name: string
  quantity: number
  massVersionId: string | null
  listingG: number | null
  listingResolutionG: number | null
  state: LineState
  role: Role
  removable: number
  priceEachCents: number | null
  note: string
  tie: string | null
  insteadOf: string | null
  label: string | null
  cells: number
  chemistry: Chemistry
  capacityMah: number
  cRating: number | null
  plug: string
  properties: string | null
  partId: string | null
  feed: string | null
  edition: number
  further: string
  packSoFar: string | null
  pictureIds: string
}

export function massFromRow(row: MassRow): Mass | null {
  if (!row.versionId || !row.evidence) return null
  return {
    versionId: row.versionId,
    evidence: row.evidence,
    valueG: row.valueG,
    valueCount: row.valueCount,
    resolutionG: row.resolutionG,
    pieceReadingsG: row.pieceReadings === null ? null : (JSON.parse(row.pieceReadings) as number[]),
    halfRangeG: row.halfRangeG,
    ownSpreadG: row.ownSpreadG,
    basis: row.basis,
    origin: row.origin,
    weighing: row.weighing === null ? null : (JSON.parse(row.weighing) as Mass['weighing']),
  }
}

/** The text a column keeps of what is no single figure. */
export const textOrNull = (value: object | null): string | null => (value ? JSON.stringify(value) : null)

export function massToRow(buildId: string, lineId: string, mass: Mass, madeAt: string) {
  const { pieceReadingsG, weighing, ...rest } = mass
  return {
    buildId,
    lineId,
    madeAt,
    ...rest,
    pieceReadings: textOrNull(pieceReadingsG),
    weighing: textOrNull(weighing),
  }
}

const nothingFurther: Line['further'] = []
const noPictures: Line['pictureIds'] = []

export function lineFromRow(row: LineRow): Line {
  const pack: PackFacts | null =
    row.label === null
      ? null
      : {
          label: row.label,
          cells: row.cells,
          chemistry: row.chemistry,
          capacityMah: row.capacityMah,
          cRating: row.cRating,
          plug: row.plug,
        }
  return {
    id: row.id,
    slot: row.slot,
    name: row.name,
    quantity: row.quantity,
    mass: massFromRow({ ...row, versionId: row.massVersionId }),
    edition: row.edition,
    further: row.further === '[]' ? nothingFurther : (JSON.parse(row.further) as Line['further']),
    listing: row.listingG === null ? null : { valueG: row.listingG, resolutionG: row.listingResolutionG ?? 0 },
    state: row.state,
    role: row.role,
    removable: row.removable === 1,
    priceEachCents: row.priceEachCents,
    note: row.note,
    tie: row.tie,
    insteadOf: row.insteadOf,
    pack,
    packSoFar: row.packSoFar === null ? null : (JSON.parse(row.packSoFar) as PackSoFar),
    partId: row.partId,
    properties: row.properties === null ? null : (JSON.parse(row.properties) as Properties),
    feed: row.feed === null ? null : (JSON.parse(row.feed) as Feed),
    pictureIds: row.pictureIds === '[]' ? noPictures : (JSON.parse(row.pictureIds) as string[]),
  }
}

export function lineToRow(buildId: string, line: Line, position: number) {
  return {
    buildId,
    id: line.id,
    position,
    slot: line.slot,
    name: line.name,
    quantity: line.quantity,
    massVersionId: line.mass?.versionId ?? null,
    listingG: line.listing?.valueG ?? null,
    listingResolutionG: line.listing?.resolutionG ?? null,
    state: line.state,
    role: line.role,
    removable: Number(line.removable),
    priceEachCents: line.priceEachCents,
    note: line.note,
    tie: line.tie,
    insteadOf: line.insteadOf,
    properties: line.properties === null ? null : JSON.stringify(line.properties),
    partId: line.partId,
    feed: line.feed === null ? null : JSON.stringify(line.feed),
    edition: line.edition,
    further: line.further.length === 0 ? '[]' : JSON.stringify(line.further),
    packSoFar: line.packSoFar === null ? null : JSON.stringify(line.packSoFar),
    pictureIds: line.pictureIds.length === 0 ? '[]' : JSON.stringify(line.pictureIds),
  }
}
