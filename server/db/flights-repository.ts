import type { z } from 'zod'
import type { FlightFinding, Flight, Renewal, SettingsRecord } from '../../core/aircraft/flown'
import { findingSchema, flightSchema, renewalSchema, settingsRecordSchema } from '../../shared/schemas/flights'
import type { Db } from './open-database'

interface OfBuild {
  readonly id: string
  readonly buildId: string
}
type Table = 'flights' | 'findings' | 'renewals' | 'settings_records'

/** Things of a build in the order they happened, each whole in its row; `momentOf` says when. */
function momentsTable<T extends OfBuild>(db: Db, table: Table, schema: z.ZodType<T>, momentOf: (thing: T) => string) {
  const sql = {
    all: db.prepare(`SELECT build_id AS buildId, value FROM ${table} ORDER BY at, id`),
    of: db.prepare(`SELECT value FROM ${table} WHERE build_id = :buildId ORDER BY at, id`).pluck(),
    count: db.prepare(`SELECT count(*) FROM ${table} WHERE build_id = :buildId`).pluck(),
    one: db.prepare(`SELECT value FROM ${table} WHERE id = :id`).pluck(),
    put: db.prepare(`
      INSERT INTO ${table} (id, build_id, at, value) VALUES (:id, :buildId, :at, :value)
      ON CONFLICT (id) DO UPDATE SET build_id = excluded.build_id, at = excluded.at, value = excluded.value`),
    remove: db.prepare(`DELETE FROM ${table} WHERE id = :id`),
  }
  const parsed = (text: string) => schema.parse(JSON.parse(text))
  return {
    /** All of them; those that cannot be read, as another program or a newer version may have left them, are counted by build. */
    all(): { readonly things: T[]; readonly unreadable: ReadonlyMap<string, number> } {
      const things: T[] = []
      const unreadable = new Map<string, number>()
      for (const { buildId, value } of sql.all.all() as { buildId: string; value: string }[]) {
        const read = schema.safeParse(JSON.parse(value))
        if (read.success) things.push(read.data)
        else unreadable.set(buildId, (unreadable.get(buildId) ?? 0) + 1)
      }
      return { things, unreadable }
    },
    of: (buildId: string): T[] => (sql.of.all({ buildId }) as string[]).map(parsed),
    count: (buildId: string): number => sql.count.get({ buildId }) as number,
    one(id: string): T | null {
      const text = sql.one.get({ id }) as string | undefined
      return text === undefined ? null : parsed(text)
    },
    put(thing: T): void {
      const { id, buildId } = thing
      sql.put.run({ id, buildId, at: momentOf(thing), value: JSON.stringify(thing) })
    },
    remove(id: string): void {
      sql.remove.run({ id })
    },
  }
}
export type MomentsTable<T extends OfBuild> = ReturnType<typeof momentsTable<T>>

/** SQL of flights and what belongs to them. */
export const flightsRepository = (db: Db) => ({
  flights: momentsTable<Flight>(db, 'flights', flightSchema, ({ flownAt }) => flownAt),
  findings: momentsTable<FlightFinding>(db, 'findings', findingSchema, ({ foundAt }) => foundAt),
  renewals: momentsTable<Renewal>(db, 'renewals', renewalSchema, ({ at }) => at),
  settings: momentsTable<SettingsRecord>(db, 'settings_records', settingsRecordSchema, ({ at }) => at),
})
export type FlightsRepository = ReturnType<typeof flightsRepository>
