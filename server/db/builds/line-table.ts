import {
  linesLeftBy,
  type ItemChange,
  type KeptLine,
  type KeptLineChange,
  type KeptPatch,
} from '../../../core/changes/commands'
import { sameData } from '../../../core/basics/merge'
import type { Build, FurtherWeighing, Line, Mass } from '../../../core/model/ledger'
import type { Found } from '../../../shared/schemas/api'
import type { Db } from '../open-database'
import { lineFromRow, lineToRow, type LineRow } from './line-rows'
import type { MassVersionTable } from './mass-version-table'

type Side = 'before' | 'after'
const other = (side: Side): Side => (side === 'after' ? 'before' : 'after')

/** Whether a change put something in that does not stand at the end of its list. */
export function isPutAmong<T extends { readonly id: string }>(
  change: ItemChange<T>,
  side: Side,
  list: readonly T[],
): boolean {
  const put = change[side]
  return put !== null && change[other(side)] === null && list.at(-1)?.id !== put.id
}

/** The weighings beside its estimate that a change may have put on a line: told item by item, or all that it has. */
const furtherPutIn = (change: KeptLineChange, side: Side): readonly FurtherWeighing[] =>
  change.further ? change.further.changes.flatMap(one => one[side] ?? []) : (change[side]?.further ?? [])

function onlyMassDiffers(before: KeptLine, after: KeptLine): boolean {
  return (Object.keys(after) as (keyof KeptLine)[]).every(key => key === 'mass' || sameData(before[key], after[key]))
}

/** Versions made here are told after all that came in with a file, in the order of the build’s revisions. */
const afterWhatCameIn = 1_000_000_000

/** A state of a build that is being written: which revision it is, and when. */
export interface WrittenState {
  readonly revision: number
  readonly madeAt: string
}

const prepared = (db: Db) => ({
  all: db.prepare(`
    SELECT l.build_id AS buildId, l.id, l.slot, l.name, l.quantity, l.mass_version_id AS massVersionId,
           l.listing_g AS listingG, l.listing_resolution_g AS listingResolutionG, l.state, l.role, l.removable,
           l.price_each_cents AS priceEachCents, l.note, l.tie, l.instead_of AS insteadOf, l.properties,
           l.part_id AS partId, l.feed, l.edition, l.further, l.pack_so_far AS packSoFar, l.picture_ids AS pictureIds,
           m.evidence, m.value_g AS valueG, m.value_count AS valueCount, m.resolution_g AS resolutionG,
           m.piece_readings AS pieceReadings, m.half_range_g AS halfRangeG, m.own_spread_g AS ownSpreadG, m.basis,
           m.origin, m.weighing,
           p.label, p.cells, p.chemistry, p.capacity_mah AS capacityMah, p.c_rating AS cRating, p.plug
    FROM lines l
    LEFT JOIN mass_versions m ON m.build_id = l.build_id AND m.id = l.mass_version_id
    LEFT JOIN packs p ON p.build_id = l.build_id AND p.line_id = l.id
    WHERE l.build_id = :id
    ORDER BY l.position`),
  put: db.prepare(`
    INSERT INTO lines (build_id, id, position, slot, name, quantity, mass_version_id, listing_g, listing_resolution_g,
                       state, role, removable, price_each_cents, note, tie, instead_of, properties, part_id, feed,
                       edition, further, pack_so_far, picture_ids)
    VALUES (:buildId, :id, :position, :slot, :name, :quantity, :massVersionId, :listingG, :listingResolutionG,
            :state, :role, :removable, :priceEachCents, :note, :tie, :insteadOf, :properties, :partId, :feed,
            :edition, :further, :packSoFar, :pictureIds)
    ON CONFLICT (build_id, id) DO UPDATE
    SET slot = excluded.slot, name = excluded.name, quantity = excluded.quantity,
        mass_version_id = excluded.mass_version_id, listing_g = excluded.listing_g,
        listing_resolution_g = excluded.listing_resolution_g, state = excluded.state, role = excluded.role,
        removable = excluded.removable, price_each_cents = excluded.price_each_cents, note = excluded.note,
        tie = excluded.tie, instead_of = excluded.instead_of, properties = excluded.properties,
        part_id = excluded.part_id, feed = excluded.feed, edition = excluded.edition, further = excluded.further,
        pack_so_far = excluded.pack_so_far, picture_ids = excluded.picture_ids`),
  pointToVersion: db.prepare('UPDATE lines SET mass_version_id = ? WHERE build_id = ? AND id = ?'),
  remove: db.prepare('DELETE FROM lines WHERE build_id = :buildId AND id = :id'),
  place: db.prepare('UPDATE lines SET position = :position WHERE build_id = :buildId AND id = :id'),
  lastPosition: db.prepare('SELECT coalesce(max(position), -1) FROM lines WHERE build_id = :buildId').pluck(),
  removePack: db.prepare('DELETE FROM packs WHERE build_id = :buildId AND line_id = :lineId'),
  putPack: db.prepare(`
    INSERT INTO packs (build_id, line_id, label, cells, chemistry, capacity_mah, c_rating, plug)
    VALUES (:buildId, :lineId, :label, :cells, :chemistry, :capacityMah, :cRating, :plug)
    ON CONFLICT (build_id, line_id) DO UPDATE
    SET label = excluded.label, cells = excluded.cells, chemistry = excluded.chemistry,
        capacity_mah = excluded.capacity_mah, c_rating = excluded.c_rating, plug = excluded.plug`),
  search: db.prepare(`
    SELECT l.build_id AS buildId, b.name AS buildName, l.id AS lineId,
           CASE WHEN p.label IS NULL THEN l.name ELSE p.label || ' · ' || l.name END AS name, l.slot, l.state
    FROM lines l
    JOIN builds b ON b.id = l.build_id
    LEFT JOIN packs p ON p.build_id = l.build_id AND p.line_id = l.id
    WHERE l.name LIKE :pattern ESCAPE '\\' OR l.slot LIKE :pattern ESCAPE '\\' OR p.label LIKE :pattern ESCAPE '\\'
       OR l.note LIKE :pattern ESCAPE '\\'
    ORDER BY b.archived, b.name, l.position
    LIMIT 40`),
})

/** The ledger: lines with their packs and the versions of their grams. */
export function lineTable(db: Db, versions: MassVersionTable) {
  const sql = prepared(db)

  /** Writes a line; of one that was there, only what differs from before. */
  function put(buildId: string, line: Line, change: KeptLineChange, side: Side, position: number) {
    const before = change[other(side)]
    if (before && !change.further && onlyMassDiffers(before, change[side]!)) {
      sql.pointToVersion.run(line.mass?.versionId ?? null, buildId, line.id)
      return
    }
    sql.put.run(lineToRow(buildId, line, position))
    if (line.pack) sql.putPack.run({ buildId, lineId: line.id, ...line.pack })
    else if (line.slot === 'pack') sql.removePack.run({ buildId, lineId: line.id })
  }

  return {
    /** Keeps the versions of grams that a change has put on lines. */
    keepVersions(buildId: string, patch: KeptPatch, side: Side, { revision, madeAt }: WrittenState) {
      for (const change of patch.lines) {
        const line = change[side]
        if (!line) continue
        const add = (mass: Mass) => versions.add(buildId, line.id, mass, madeAt, afterWhatCameIn + revision)
        if (line.mass && line.mass !== change[other(side)]?.mass) add(line.mass)
        for (const { mass } of furtherPutIn(change, side)) add(mass)
      }
    },
    load: (id: string) => (sql.all.all({ id }) as LineRow[]).map(lineFromRow),
    /** Lines that came or changed; those that are gone stay until {@link remove}, since set-ups may name them. */
    save(build: Build, patch: KeptPatch, side: Side) {
      const buildId = build.id
      const lines = linesLeftBy(patch, side, build)
      const comes = patch.lines.some(change => change[side] && !change[other(side)])
      let position = comes ? (sql.lastPosition.get({ buildId }) as number) : 0
      for (const change of patch.lines) {
        const line = lines.get(change[side]?.id ?? '')
        if (line) put(buildId, line, change, side, ++position)
      }
      if (patch.order || patch.lines.some(change => isPutAmong(change, side, build.lines)))
        build.lines.forEach((line, i) => sql.place.run({ buildId, id: line.id, position: i }))
    },
    removeGone(buildId: string, patch: KeptPatch, side: Side) {
      for (const change of patch.lines)
        if (!change[side]) sql.remove.run({ buildId, id: (change.before ?? change.after)!.id })
    },
    search: (text: string) => sql.search.all({ pattern: `%${text.replace(/[\\%_]/g, c => `\\${c}`)}%` }) as Found[],
  }
}
