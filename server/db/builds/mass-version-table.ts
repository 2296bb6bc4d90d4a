import type { Mass } from '../../../core/model/ledger'
import type { MassVersion } from '../../../shared/schemas/build-file'
import { DomainProblem } from '../../problems'
import type { Db } from '../open-database'
import { massFromRow, massToRow, textOrNull, type MassRow } from './line-rows'

const columns = `
  id AS versionId, evidence, value_g AS valueG, value_count AS valueCount, resolution_g AS resolutionG,
  piece_readings AS pieceReadings, half_range_g AS halfRangeG, own_spread_g AS ownSpreadG, basis, origin, weighing`

const otherGrams = 'These grams carry the id of an earlier version of other grams. Nothing was written.'

/** Versions of grams: written once, never changed. */
export function massVersionTable(db: Db) {
  const sql = {
    one: db.prepare(`SELECT ${columns} FROM mass_versions WHERE build_id = :buildId AND id = :versionId`),
    all: db.prepare(`
      SELECT ${columns}, line_id AS lineId, made_at AS madeAt
      FROM mass_versions
      WHERE build_id = :id
      ORDER BY entry, made_at, id`),
    insert: db.prepare(`
      INSERT OR IGNORE INTO mass_versions (build_id, id, line_id, made_at, evidence, value_g, value_count, resolution_g,
                                           piece_readings, half_range_g, own_spread_g, basis, origin, weighing, entry)
      VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`),
  }
  /** By place, not by name: this is done with every edit. */
  function insert(buildId: string, lineId: string, mass: Mass, madeAt: string, entry: number): boolean {
    const { changes } = sql.insert.run(
      buildId,
      mass.versionId,
      lineId,
      madeAt,
      mass.evidence,
      mass.valueG,
      mass.valueCount,
      mass.resolutionG,
      textOrNull(mass.pieceReadingsG),
      mass.halfRangeG,
      mass.ownSpreadG,
      mass.basis,
      mass.origin,
      textOrNull(mass.weighing),
      entry,
    )
    return changes === 1
  }

  return {
    /** Going back to a version that is there is fine, giving its id other grams is not. */
    add(buildId: string, lineId: string, mass: Mass, madeAt: string, entry: number) {
      if (insert(buildId, lineId, mass, madeAt, entry)) return
      const row = massToRow(buildId, lineId, mass, madeAt)
      const kept = massFromRow(sql.one.get({ buildId, versionId: mass.versionId }) as MassRow)!
      const there = massToRow(buildId, lineId, kept, madeAt)
      const differs = (Object.keys(row) as (keyof typeof row)[]).some(key => row[key] !== there[key])
      if (differs) throw new DomainProblem('refused', otherGrams, 'versionId')
    },
    all: (id: string): MassVersion[] =>
      (sql.all.all({ id }) as (MassRow & { lineId: string; madeAt: string })[]).map(row => ({
        lineId: row.lineId,
        madeAt: row.madeAt,
        mass: massFromRow(row) as Mass,
      })),
  }
}
export type MassVersionTable = ReturnType<typeof massVersionTable>
