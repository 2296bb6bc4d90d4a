import type { Kit, Part } from '../../core/drawer'
import type { Mass } from '../../core/ledger'
import type { Db } from './open-database'

interface PartRow extends Omit<Part, 'properties' | 'listing' | 'mass' | 'pack' | 'tags'> {
  properties: string | null, listingG: number | null, listingResolutionG: number | null, mass: string | null, pack: string | null, tags: string
}

const columns = `
  id, slot, name, properties, listing_g AS listingG, listing_resolution_g AS listingResolutionG, mass, pack, price_cents AS priceCents, sold_in AS soldIn,
  owned, lost, scrapped, missing, kit_id AS kitId, bag, link, note, tags`

function fromRow({ listingG, listingResolutionG, ...row }: PartRow): Part {
  const read = (text: string | null) => text === null ? null : JSON.parse(text)
  return { ...row, properties: read(row.properties), mass: read(row.mass), pack: read(row.pack), tags: JSON.parse(row.tags), listing: listingG === null ? null : { valueG: listingG, resolutionG: listingResolutionG ?? 0 } }
}

function toRow(part: Part) {
  const written = (value: object | null) => value === null ? null : JSON.stringify(value)
  const { listing, ...rest } = part
  return { ...rest, properties: written(part.properties), mass: written(part.mass), pack: written(part.pack), tags: JSON.stringify(part.tags), listingG: listing?.valueG ?? null, listingResolutionG: listing?.resolutionG ?? null }
}

/** SQL of the drawer: parts, the versions of their grams, kits, hand-overs, how files were understood. */
export function partsRepository(db: Db) {
  const sql = {
    all: db.prepare(`SELECT ${columns} FROM parts ORDER BY rowid`),
    one: db.prepare(`SELECT ${columns} FROM parts WHERE id = :id`),
    count: db.prepare('SELECT count(*) FROM parts').pluck(),
    put: db.prepare(`
      INSERT INTO parts (id, slot, name, properties, listing_g, listing_resolution_g, mass, pack, price_cents, sold_in, owned, lost, scrapped, missing, kit_id, bag, link, note, tags)
      VALUES (:id, :slot, :name, :properties, :listingG, :listingResolutionG, :mass, :pack, :priceCents, :soldIn, :owned, :lost, :scrapped, :missing, :kitId, :bag, :link, :note, :tags)
      ON CONFLICT (id) DO UPDATE
      SET slot = excluded.slot, name = excluded.name, properties = excluded.properties, listing_g = excluded.listing_g, listing_resolution_g = excluded.listing_resolution_g,
          mass = excluded.mass, pack = excluded.pack, price_cents = excluded.price_cents, sold_in = excluded.sold_in, owned = excluded.owned, lost = excluded.lost,
          scrapped = excluded.scrapped, missing = excluded.missing, kit_id = excluded.kit_id, bag = excluded.bag, link = excluded.link, note = excluded.note, tags = excluded.tags`),
    remove: db.prepare('DELETE FROM parts WHERE id = :id'),
    version: db.prepare('INSERT OR IGNORE INTO part_versions (part_id, id, made_at, came, mass) VALUES (:partId, :id, :madeAt, :came, :mass)'),
    versions: db.prepare('SELECT made_at AS madeAt, came, mass FROM part_versions WHERE part_id = :id ORDER BY made_at, id'),
    kits: db.prepare('SELECT id, name, price_cents AS priceCents, link, note, leaves_out AS leavesOut FROM kits ORDER BY rowid'),
    putKit: db.prepare(`
      INSERT INTO kits (id, name, price_cents, link, note, leaves_out) VALUES (:id, :name, :priceCents, :link, :note, :leavesOut)
      ON CONFLICT (id) DO UPDATE SET name = excluded.name, price_cents = excluded.price_cents, link = excluded.link, note = excluded.note, leaves_out = excluded.leaves_out`),
    removeKit: db.prepare('DELETE FROM kits WHERE id = :id'),
    mapping: db.prepare('SELECT mapping FROM column_mappings WHERE heads = :heads').pluck(),
    putMapping: db.prepare('INSERT INTO column_mappings (heads, mapping) VALUES (:heads, :mapping) ON CONFLICT (heads) DO UPDATE SET mapping = excluded.mapping'),
    handOver: db.prepare(`
      INSERT INTO hand_overs (id, from_build, from_seq, to_build, to_seq, parts_before, parts_after)
      VALUES (:id, :fromBuild, :fromSeq, :toBuild, :toSeq, :partsBefore, :partsAfter)`),
    handOverOf: db.prepare(`
      SELECT from_build AS fromBuild, from_seq AS fromSeq, to_build AS toBuild, to_seq AS toSeq, parts_before AS partsBefore, parts_after AS partsAfter
      FROM hand_overs WHERE (from_build = :buildId AND from_seq = :seq) OR (to_build = :buildId AND to_seq = :seq)`),
  }
  return {
    all: (): Part[] => (sql.all.all() as PartRow[]).map(fromRow),
    one: (id: string): Part | null => {
      const row = sql.one.get({ id }) as PartRow | undefined
      return row ? fromRow(row) : null
    },
    count: () => sql.count.get() as number,
    put: (part: Part) => { sql.put.run(toRow(part)) },
    remove: (id: string) => sql.remove.run({ id }).changes === 1,
    addVersion: (partId: string, mass: Mass, madeAt: string, came: string) => { sql.version.run({ partId, id: mass.versionId, madeAt, came, mass: JSON.stringify(mass) }) },
    versions: (id: string) => (sql.versions.all({ id }) as { madeAt: string, came: string, mass: string }[]).map(v => ({ ...v, mass: JSON.parse(v.mass) as Mass })),
    kits: () => sql.kits.all() as Kit[],
    putKit: (kit: Kit) => { sql.putKit.run(kit) },
    removeKit: (id: string) => sql.removeKit.run({ id }).changes === 1,
    mapping: (heads: string): Record<string, string> | null => {
      const text = sql.mapping.get({ heads }) as string | undefined
      return text ? JSON.parse(text) : null
    },
    putMapping: (heads: string, mapping: Record<string, string>) => { sql.putMapping.run({ heads, mapping: JSON.stringify(mapping) }) },
    addHandOver: (handOver: HandOver & { id: string }) => { sql.handOver.run({ ...handOver, partsBefore: JSON.stringify(handOver.partsBefore), partsAfter: JSON.stringify(handOver.partsAfter) }) },
    handOverOf: (buildId: string, seq: number): HandOver | null => {
      const row = sql.handOverOf.get({ buildId, seq }) as (Omit<HandOver, 'partsBefore' | 'partsAfter'> & { partsBefore: string, partsAfter: string }) | undefined
      return row ? { ...row, partsBefore: JSON.parse(row.partsBefore), partsAfter: JSON.parse(row.partsAfter) } : null
    },
  }
}
export type PartsRepository = ReturnType<typeof partsRepository>

/** A part before or after lines were handed over, and the line its history came from. */
export interface HandedPart { readonly id: string, readonly part: Part | null, readonly lineId: string }
/** Lines that went from a build to another or to the drawer, by the journal entries that tell of it. */
export interface HandOver { readonly fromBuild: string, readonly fromSeq: number, readonly toBuild: string | null, readonly toSeq: number | null, readonly partsBefore: readonly HandedPart[], readonly partsAfter: readonly HandedPart[] }
