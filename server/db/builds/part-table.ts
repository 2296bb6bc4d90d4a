import { buildFields, newerField, upcastField, versionOf } from '../../../core/changes/commands'
import type { Build } from '../../../core/model/ledger'
import { DomainProblem } from '../../problems'
import type { Db } from '../open-database'

interface PartRow {
  readonly field: string
  readonly version: number
  readonly value: string
}

/** Fields of a build that have no table of their own: a row each, with the version it was written in; none while blank. */
export function partTable(db: Db, withTables: ReadonlySet<string>) {
  const fields = Object.keys(buildFields).filter(field => !withTables.has(field))
  const sql = {
    all: db.prepare('SELECT field, version, value FROM build_parts WHERE build_id = :buildId'),
    put: db.prepare(`
      INSERT INTO build_parts (build_id, field, version, value)
      VALUES (:buildId, :field, :version, :value)
      ON CONFLICT (build_id, field) DO UPDATE SET version = excluded.version, value = excluded.value`),
    remove: db.prepare('DELETE FROM build_parts WHERE build_id = :buildId AND field = :field'),
  }
  function put({ id: buildId, ...build }: Build, field: string) {
    const value = (build as Readonly<Record<string, unknown>>)[field] ?? null
    if (value === null) sql.remove.run({ buildId, field })
    else sql.put.run({ buildId, field, version: versionOf(field), value: JSON.stringify(value) })
  }
  return {
    /** The fields with what is kept of them; the rest of the build is `known`. */
    load(known: Pick<Build, 'id' | 'lines' | 'setups'>): Readonly<Record<string, unknown>> {
      const rows = new Map((sql.all.all({ buildId: known.id }) as PartRow[]).map(row => [row.field, row]))
      for (const { field, version } of rows.values()) {
        const newer = newerField(field, version)
        if (newer) throw new DomainProblem('unreadable', `It holds ${newer}. Update the application.`)
      }
      const values = fields.map(field => {
        const row = rows.get(field)
        return [field, row ? upcastField(field, JSON.parse(row.value), row.version) : buildFields[field]!.blank(known)]
      })
      return Object.fromEntries(values) as Readonly<Record<string, unknown>>
    },
    insert: (build: Build) => fields.forEach(field => put(build, field)),
    save: (build: Build, touched: ReadonlySet<string>) =>
      fields.filter(field => touched.has(field)).forEach(field => put(build, field)),
  }
}
