import type { Build, LoadoutChoice, Setup } from '../../../core/model/ledger'
import type { Db } from '../open-database'

/** Set-ups with the lines on board, and loadouts that are never flown. */
export function setupTable(db: Db) {
  const sql = {
    all: db.prepare('SELECT id, name FROM setups WHERE build_id = :id ORDER BY position'),
    lines: db.prepare(`
      SELECT setup_id AS setupId, line_id AS lineId
      FROM setup_lines
      WHERE build_id = :id
      ORDER BY setup_id, position`),
    removeAll: db.prepare('DELETE FROM setups WHERE build_id = :buildId'),
    insert: db.prepare('INSERT INTO setups (build_id, id, position, name) VALUES (:buildId, :id, :position, :name)'),
    insertLine: db.prepare(`
      INSERT INTO setup_lines (build_id, setup_id, line_id, position)
      VALUES (:buildId, :setupId, :lineId, :position)`),
    never: db.prepare(`
      SELECT setup_id AS setupId, pack_line_id AS packLineId
      FROM never_flown
      WHERE build_id = :id
      ORDER BY position`),
    removeNever: db.prepare('DELETE FROM never_flown WHERE build_id = :buildId'),
    insertNever: db.prepare(`
      INSERT INTO never_flown (build_id, position, setup_id, pack_line_id)
      VALUES (:buildId, :position, :setupId, :packLineId)`),
  }
  return {
    load(id: string): Setup[] {
      const lineIds = new Map<string, string[]>()
      for (const { setupId, lineId } of sql.lines.all({ id }) as { setupId: string; lineId: string }[])
        lineIds.set(setupId, [...(lineIds.get(setupId) ?? []), lineId])
      return (sql.all.all({ id }) as Pick<Setup, 'id' | 'name'>[]).map(setup => ({
        ...setup,
        lineIds: lineIds.get(setup.id) ?? [],
      }))
    },
    replace({ id: buildId, setups }: Build) {
      sql.removeAll.run({ buildId })
      setups.forEach((setup, position) => {
        sql.insert.run({ buildId, id: setup.id, position, name: setup.name })
        setup.lineIds.forEach((lineId, at) => sql.insertLine.run({ buildId, setupId: setup.id, lineId, position: at }))
      })
    },
    loadNever: (id: string) => sql.never.all({ id }) as LoadoutChoice[],
    replaceNever({ id: buildId, neverFlown }: Build) {
      sql.removeNever.run({ buildId })
      neverFlown.forEach((choice, position) => sql.insertNever.run({ buildId, position, ...choice }))
    },
  }
}
