import type { Kit, Part } from '../../core/parts/drawer'
import { makeMass, type Mass } from '../../core/model/ledger'
import type { Db } from './open-database'

interface PartRow extends Omit<Part, 'properties' | 'listing' | 'mass' | 'pack' | 'packSoFar' | 'tags' | 'pictureIds'> {
  properties: string | null
  listingG: number | null
  listingResolutionG: number | null
  mass: string | null
  pack: string | null
  packSoFar: string | null
  tags: string
  pictureIds: string
}

const columns = `
  id, slot, name, properties, listing_g AS listingG, listing_resolution_g AS listingResolutionG, mass,
  pack, pack_so_far AS packSoFar, price_cents AS priceCents, sold_in AS soldIn,
  owned, lost, scrapped, missing, kit_id AS kitId, bag, link, note, tags, picture_ids AS pictureIds`

/** Mass fields that are at their default are not written. */
const usualMass = makeMass({ versionId: '', evidence: 'listed', valueG: 0 })
const unlessUsual = <K extends keyof Mass>(mass: Mass, key: K) => (mass[key] === usualMass[key] ? undefined : mass[key])
function lean(mass: Mass): string {
  // Written out field by field: JSON leaves out what is undefined, and lists of parts are long.
  return JSON.stringify({
    versionId: mass.versionId,
    evidence: mass.evidence,
    valueG: mass.valueG,
    valueCount: unlessUsual(mass, 'valueCount'),
    resolutionG: unlessUsual(mass, 'resolutionG'),
    pieceReadingsG: unlessUsual(mass, 'pieceReadingsG'),
    halfRangeG: unlessUsual(mass, 'halfRangeG'),
    ownSpreadG: unlessUsual(mass, 'ownSpreadG'),
    basis: unlessUsual(mass, 'basis'),
    origin: unlessUsual(mass, 'origin'),
    weighing: unlessUsual(mass, 'weighing'),
  } satisfies Record<keyof Mass, unknown>)
}
const massOf = (text: string): Mass => ({ ...usualMass, ...(JSON.parse(text) as Partial<Mass>) })

function fromRow({ listingG, listingResolutionG, ...row }: PartRow): Part {
  const read = (text: string | null) => (text === null ? null : JSON.parse(text))
  return {
    ...row,
    properties: read(row.properties),
    mass: row.mass === null ? null : massOf(row.mass),
    pack: read(row.pack),
    packSoFar: read(row.packSoFar),
    tags: JSON.parse(row.tags),
    pictureIds: JSON.parse(row.pictureIds),
    listing: listingG === null ? null : { valueG: listingG, resolutionG: listingResolutionG ?? 0 },
  }
}

/** A part's values in the order of the insert. */
function values(part: Part, madeAt: string, came: string): unknown[] {
  const written = (value: object | null) => (value === null ? null : JSON.stringify(value))
  return [
    part.id,
    part.slot,
    part.name,
    written(part.properties),
    part.listing?.valueG ?? null,
    part.listing?.resolutionG ?? null,
    part.mass === null ? null : lean(part.mass),
    part.mass === null ? null : madeAt,
    part.mass === null ? null : came,
    written(part.pack),
    written(part.packSoFar),
    part.priceCents,
    part.soldIn,
    part.owned,
    part.lost,
    part.scrapped,
    part.missing,
    part.kitId,
    part.bag,
    part.link,
    part.note,
    part.tags.length === 0 ? '[]' : JSON.stringify(part.tags),
    part.pictureIds.length === 0 ? '[]' : JSON.stringify(part.pictureIds),
  ]
}

/** Parts as they were handed over; those of before there were pictures have none. */
const handed = (text: string): HandedPart[] =>
  (JSON.parse(text) as HandedPart[]).map(one => ({
    ...one,
    part: one.part && { ...one.part, pictureIds: one.part.pictureIds ?? [] },
  }))

/** SQL of the drawer: parts, the versions of their grams, kits, hand-overs, how files were understood. */
export function partsRepository(db: Db) {
  const sql = {
    all: db.prepare(`SELECT ${columns} FROM parts ORDER BY rowid`),
    one: db.prepare(`SELECT ${columns} FROM parts WHERE id = :id`),
    count: db.prepare('SELECT count(*) FROM parts').pluck(),
    insert: db.prepare(`
      INSERT INTO parts (id, slot, name, properties, listing_g, listing_resolution_g, mass, mass_made_at, mass_came,
                         pack, pack_so_far, price_cents, sold_in, owned, lost, scrapped, missing, kit_id, bag, link, note, tags,
                         picture_ids)
      VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`),
    change: db.prepare(`
      UPDATE parts
      SET slot = ?, name = ?, properties = ?, listing_g = ?, listing_resolution_g = ?, mass = ?,
          mass_made_at = ?, mass_came = ?, pack = ?, pack_so_far = ?, price_cents = ?, sold_in = ?,
          owned = ?, lost = ?, scrapped = ?, missing = ?, kit_id = ?, bag = ?, link = ?, note = ?, tags = ?, picture_ids = ?
      WHERE id = ?`),
    dated: db.prepare('UPDATE parts SET mass_made_at = :madeAt, mass_came = :came WHERE id = :id AND mass IS NOT NULL'),
    present: db.prepare('SELECT mass, mass_made_at AS madeAt, mass_came AS came FROM parts WHERE id = :id'),
    known: db.prepare('SELECT id FROM parts WHERE id IN (SELECT value FROM json_each(:ids))').pluck(),
    remove: db.prepare('DELETE FROM parts WHERE id = :id'),
    version: db.prepare(
      'INSERT OR IGNORE INTO part_versions (part_id, id, made_at, came, mass, entry) VALUES (:partId, ' +
        ':id, :madeAt, :came, :mass, (SELECT coalesce(max(entry), 0) + 1 FROM part_versions WHERE part_id ' +
        '= :partId))',
    ),
    versions: db.prepare(
      'SELECT made_at AS madeAt, came, mass FROM part_versions WHERE part_id = :id ORDER BY entry, made_at, id',
    ),
    kits: db.prepare(
      'SELECT id, name, price_cents AS priceCents, link, note, leaves_out AS leavesOut FROM kits ORDER BY rowid',
    ),
    putKit: db.prepare(`
      INSERT INTO kits (id, name, price_cents, link, note, leaves_out) VALUES (:id, :name, :priceCents, :link, :note, :leavesOut)
      ON CONFLICT (id) DO UPDATE SET name = excluded.name, price_cents = excluded.price_cents, link = excluded.link,
                                     note = excluded.note, leaves_out = excluded.leaves_out`),
    removeKit: db.prepare('DELETE FROM kits WHERE id = :id'),
    mapping: db.prepare('SELECT mapping FROM column_mappings WHERE heads = :heads').pluck(),
    putMapping: db.prepare(
      'INSERT INTO column_mappings (heads, mapping) VALUES (:heads, :mapping) ON CONFLICT (heads) DO UPDATE SET mapping = excluded.mapping',
    ),
    handOver: db.prepare(`
      INSERT INTO hand_overs (id, from_build, from_seq, to_build, to_seq, parts_before, parts_after)
      VALUES (:id, :fromBuild, :fromSeq, :toBuild, :toSeq, :partsBefore, :partsAfter)`),
    handOverOf: db.prepare(`
      SELECT from_build AS fromBuild, from_seq AS fromSeq, to_build AS toBuild, to_seq AS toSeq,
             parts_before AS partsBefore, parts_after AS partsAfter
      FROM hand_overs WHERE (from_build = :buildId AND from_seq = :seq) OR (to_build = :buildId AND to_seq = :seq)`),
  }
  return {
    all: (): Part[] => (sql.all.all() as PartRow[]).map(fromRow),
    one: (id: string): Part | null => {
      const row = sql.one.get({ id }) as PartRow | undefined
      return row ? fromRow(row) : null
    },
    count: () => sql.count.get() as number,
    /** Which of these ids are there. */
    known: (ids: readonly string[]) => new Set(sql.known.all({ ids: JSON.stringify(ids) }) as string[]),
    /** Puts in a part that is not there yet. */
    insert: (part: Part, madeAt: string, came: string) => {
      sql.insert.run(values(part, madeAt, came))
    },
    /** Changes a part; grams that give way become an earlier version. */
    change(part: Part, madeAt: string, came: string) {
      const present = sql.present.get({ id: part.id }) as { mass: string | null; madeAt: string; came: string }
      const before = present.mass === null ? null : massOf(present.mass)
      const same = before?.versionId === part.mass?.versionId
      if (before && !same)
        sql.version.run({
          partId: part.id,
          id: before.versionId,
          madeAt: present.madeAt,
          came: present.came,
          mass: JSON.stringify(before),
        })
      const [id, ...rest] = same ? values(part, present.madeAt, present.came) : values(part, madeAt, came)
      sql.change.run(...rest, id)
    },
    /** When and how a part’s present grams became known. */
    dateMass: (id: string, madeAt: string, came: string) => {
      sql.dated.run({ id, madeAt, came })
    },
    remove: (id: string) => sql.remove.run({ id }).changes === 1,
    addVersion: (partId: string, mass: Mass, madeAt: string, came: string) => {
      sql.version.run({ partId, id: mass.versionId, madeAt, came, mass: JSON.stringify(mass) })
    },
    /** Every version of a part's grams, oldest first; going back to an earlier one does not list it twice. */
    versions(id: string): { madeAt: string; came: string; mass: Mass }[] {
      const earlier = (sql.versions.all({ id }) as { madeAt: string; came: string; mass: string }[]).map(v => ({
        ...v,
        mass: JSON.parse(v.mass) as Mass,
      }))
      const present = sql.present.get({ id }) as { mass: string | null; madeAt: string; came: string } | undefined
      if (!present?.mass) return earlier
      const mass = massOf(present.mass)
      return [
        ...earlier.filter(v => v.mass.versionId !== mass.versionId),
        { madeAt: present.madeAt, came: present.came, mass },
      ]
    },
    kits: () => sql.kits.all() as Kit[],
    putKit: (kit: Kit) => {
      sql.putKit.run(kit)
    },
    removeKit: (id: string) => sql.removeKit.run({ id }).changes === 1,
    mapping: (heads: string): Record<string, string> | null => {
      const text = sql.mapping.get({ heads }) as string | undefined
      return text ? JSON.parse(text) : null
    },
    putMapping: (heads: string, mapping: Record<string, string>) => {
      sql.putMapping.run({ heads, mapping: JSON.stringify(mapping) })
    },
    addHandOver: (handOver: HandOverRow & { id: string }) => {
      sql.handOver.run({
        ...handOver,
        partsBefore: JSON.stringify(handOver.partsBefore),
        partsAfter: JSON.stringify(handOver.partsAfter),
      })
    },
    handOverOf: (buildId: string, seq: number): HandOverRow | null => {
      const row = sql.handOverOf.get({ buildId, seq }) as
        (Omit<HandOverRow, 'partsBefore' | 'partsAfter'> & { partsBefore: string; partsAfter: string }) | undefined
      return row ? { ...row, partsBefore: handed(row.partsBefore), partsAfter: handed(row.partsAfter) } : null
    },
  }
}
export type PartsRepository = ReturnType<typeof partsRepository>

/** A part before or after lines were handed over, and the line its history came from. */
export interface HandedPart {
  readonly id: string
  readonly part: Part | null
  readonly lineId: string
}
/** Lines that went from a build to another or to the drawer, by the journal entries that tell of it. */
export interface HandOverRow {
  readonly fromBuild: string
  readonly fromSeq: number
  readonly toBuild: string | null
  readonly toSeq: number | null
  readonly partsBefore: readonly HandedPart[]
  readonly partsAfter: readonly HandedPart[]
}
