import type { Build, ReferenceCraft } from '../../../core/model/ledger'
import type { Db } from '../open-database'

interface HeadRow {
  id: string
  name: string
  craftClass: string
  archived: number
  revision: number
  purpose: string
  purposeKind: 'recreation' | 'other'
  places: string
  cardIds: string
  reserveG: number
  confidence: number
  goalDryG: number | null
  goalMinutes: number | null
  goalPriceCents: number | null
  setupId: string
  packLineId: string | null
}

type ReferenceRow = Omit<ReferenceCraft, 'pictureIds'> & { readonly pictureIds: string }

function toRow(build: Build) {
  const { aim, flies } = build
  return {
    id: build.id,
    name: build.name,
    craftClass: build.craftClass,
    archived: Number(build.archived),
    purpose: aim.purpose,
    purposeKind: aim.purposeKind,
    places: JSON.stringify(aim.places),
    cardIds: JSON.stringify(aim.cardIds),
    reserveG: aim.reserveG,
    confidence: aim.confidence,
    goalDryG: aim.goalDryG,
    goalMinutes: aim.goalMinutes,
    goalPriceCents: aim.goalPriceCents,
    ...flies,
  }
}

function fromRow(row: HeadRow) {
  const { purpose, purposeKind, reserveG, confidence, goalDryG, goalMinutes, goalPriceCents } = row
  const { places, cardIds } = { places: JSON.parse(row.places), cardIds: JSON.parse(row.cardIds) }
  return {
    id: row.id,
    name: row.name,
    craftClass: row.craftClass,
    archived: row.archived === 1,
    aim: { purpose, purposeKind, places, cardIds, reserveG, confidence, goalDryG, goalMinutes, goalPriceCents },
    flies: { setupId: row.setupId, packLineId: row.packLineId },
  }
}

/** The fields of a build that have columns of their own; a reference craft has a row of its own beside it. */
export const headFields = ['name', 'craftClass', 'archived', 'reference', 'aim', 'flies'] as const

export function headTable(db: Db) {
  const sql = {
    one: db.prepare(`
      SELECT id, name, craft_class AS craftClass, archived, revision, purpose, purpose_kind AS purposeKind, places,
             card_ids AS cardIds, reserve_g AS reserveG, confidence, goal_dry_g AS goalDryG, goal_minutes AS goalMinutes,
             goal_price_cents AS goalPriceCents, flies_setup_id AS setupId, flies_pack_line_id AS packLineId
      FROM builds
      WHERE id = :id`),
    madeAt: db.prepare('SELECT created_at FROM builds WHERE id = :id').pluck(),
    short: db.prepare('SELECT name, archived FROM builds WHERE id = :id'),
    ids: db.prepare('SELECT id FROM builds ORDER BY created_at, id').pluck(),
    insert: db.prepare(`
      INSERT INTO builds (id, name, craft_class, archived, revision, created_at, purpose, purpose_kind, places, card_ids,
                          reserve_g, confidence, goal_dry_g, goal_minutes, goal_price_cents, flies_setup_id, flies_pack_line_id)
      VALUES (:id, :name, :craftClass, :archived, 1, :createdAt, :purpose, :purposeKind, :places, :cardIds,
              :reserveG, :confidence, :goalDryG, :goalMinutes, :goalPriceCents, :setupId, :packLineId)`),
    update: db.prepare(`
      UPDATE builds
      SET name = :name, craft_class = :craftClass, archived = :archived, purpose = :purpose, purpose_kind = :purposeKind,
          places = :places, card_ids = :cardIds, reserve_g = :reserveG, confidence = :confidence, goal_dry_g = :goalDryG,
          goal_minutes = :goalMinutes, goal_price_cents = :goalPriceCents, flies_setup_id = :setupId,
          flies_pack_line_id = :packLineId
      WHERE id = :id`),
    revision: db.prepare('UPDATE builds SET revision = ? WHERE id = ?'),
    archived: db.prepare('UPDATE builds SET archived = :archived WHERE id = :id'),
    remove: db.prepare('DELETE FROM builds WHERE id = :id'),
    reference: db.prepare(`
      SELECT mass_g AS massG, spread_g AS spreadG, thrust_g AS thrustG, price_cents AS priceCents, minutes, note,
             picture_ids AS pictureIds
      FROM reference_crafts
      WHERE build_id = :id`),
    deleteReference: db.prepare('DELETE FROM reference_crafts WHERE build_id = :id'),
    insertReference: db.prepare(`
      INSERT INTO reference_crafts (build_id, mass_g, spread_g, thrust_g, price_cents, minutes, note, picture_ids)
      VALUES (:id, :massG, :spreadG, :thrustG, :priceCents, :minutes, :note, :pictureIds)`),
  }
  function putReference({ id, reference }: Build) {
    sql.deleteReference.run({ id })
    if (reference) sql.insertReference.run({ id, ...reference, pictureIds: JSON.stringify(reference.pictureIds) })
  }
  return {
    ids: () => sql.ids.all() as string[],
    /** When it was made here. */
    madeAt: (id: string) => sql.madeAt.get({ id }) as string,
    /** What can be said of a build that cannot be read. */
    short: (id: string) => (sql.short.get({ id }) as { name: string; archived: number } | undefined) ?? null,
    load(id: string) {
      const row = sql.one.get({ id }) as HeadRow | undefined
      if (!row) return null
      const kept = sql.reference.get({ id }) as ReferenceRow | undefined
      const reference: ReferenceCraft | null = kept ? { ...kept, pictureIds: JSON.parse(kept.pictureIds) } : null
      return { revision: row.revision, fields: { ...fromRow(row), reference } }
    },
    insert(build: Build, createdAt: string) {
      sql.insert.run({ ...toRow(build), createdAt })
      putReference(build)
    },
    update(build: Build, touched: ReadonlySet<string>) {
      if (headFields.some(field => touched.has(field))) sql.update.run(toRow(build))
      if (touched.has('reference')) putReference(build)
    },
    setRevision: (id: string, revision: number) => {
      sql.revision.run(revision, id)
    },
    setArchived: (id: string, archived: boolean) => {
      sql.archived.run({ id, archived: Number(archived) })
    },
    remove: (id: string) => sql.remove.run({ id }).changes === 1,
  }
}
