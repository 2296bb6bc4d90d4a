import type { Finding, Flight, Renewal, SettingsRecord } from '../../core/aircraft/flown'
import { findingSchema, flightSchema, renewalSchema, settingsRecordSchema } from '../../shared/schemas/flights'
import type { Db } from './open-database'

/** SQL of flights and findings. */
export function flightsRepository(db: Db) {
  const sql = {
    flights: db.prepare('SELECT id, build_id AS buildId, value FROM flights ORDER BY flown_at, id'),
    flight: db.prepare('SELECT value FROM flights WHERE id = :id').pluck(),
    putFlight: db.prepare(`
      INSERT INTO flights (id, build_id, flown_at, value) VALUES (:id, :buildId, :flownAt, :value)
      ON CONFLICT (id) DO UPDATE SET build_id = excluded.build_id, flown_at = excluded.flown_at, value = excluded.value`),
    removeFlight: db.prepare('DELETE FROM flights WHERE id = :id'),
    findings: db.prepare('SELECT value FROM findings WHERE build_id = :buildId ORDER BY found_at, id').pluck(),
    finding: db.prepare('SELECT value FROM findings WHERE id = :id').pluck(),
    putFinding: db.prepare(`
      INSERT INTO findings (id, build_id, found_at, value) VALUES (:id, :buildId, :foundAt, :value)
      ON CONFLICT (id) DO UPDATE SET build_id = excluded.build_id, found_at = excluded.found_at, value = excluded.value`),
    removeFinding: db.prepare('DELETE FROM findings WHERE id = :id'),
    renewals: db.prepare('SELECT value FROM renewals ORDER BY id').pluck(),
    renewal: db.prepare('SELECT value FROM renewals WHERE id = :id').pluck(),
    putRenewal: db.prepare(`
      INSERT INTO renewals (id, build_id, value) VALUES (:id, :buildId, :value)
      ON CONFLICT (id) DO UPDATE SET build_id = excluded.build_id, value = excluded.value`),
    removeRenewal: db.prepare('DELETE FROM renewals WHERE id = :id'),
    settings: db.prepare('SELECT value FROM settings_records WHERE build_id = :buildId').pluck(),
    settingsRecord: db.prepare('SELECT value FROM settings_records WHERE id = :id').pluck(),
    putSettings: db.prepare(`
      INSERT INTO settings_records (id, build_id, value) VALUES (:id, :buildId, :value)
      ON CONFLICT (id) DO UPDATE SET build_id = excluded.build_id, value = excluded.value`),
    removeSettings: db.prepare('DELETE FROM settings_records WHERE id = :id'),
  }
  const one = <T>(text: unknown, parse: (value: unknown) => T): T | null =>
    text === undefined ? null : parse(JSON.parse(text as string))
  return {
    /** All flights; those that cannot be read, as another program or a newer version may have left them, are counted by build. */
    allFlights(): { readonly flights: Flight[]; readonly unreadable: ReadonlyMap<string, number> } {
      const flights: Flight[] = []
      const unreadable = new Map<string, number>()
      for (const { buildId, value } of sql.flights.all() as { buildId: string; value: string }[]) {
        const read = flightSchema.safeParse(JSON.parse(value))
        if (read.success) flights.push(read.data)
        else unreadable.set(buildId, (unreadable.get(buildId) ?? 0) + 1)
      }
      return { flights, unreadable }
    },
    flight: (id: string): Flight | null => one(sql.flight.get({ id }), flightSchema.parse),
    putFlight: (flight: Flight) => {
      const { id, buildId, flownAt } = flight
      sql.putFlight.run({ id, buildId, flownAt, value: JSON.stringify(flight) })
    },
    removeFlight: (id: string) => {
      sql.removeFlight.run({ id })
    },
    findingsOf: (buildId: string): Finding[] =>
      (sql.findings.all({ buildId }) as string[]).map(text => findingSchema.parse(JSON.parse(text))),
    finding: (id: string): Finding | null => one(sql.finding.get({ id }), findingSchema.parse),
    putFinding: (finding: Finding) => {
      const { id, buildId, foundAt } = finding
      sql.putFinding.run({ id, buildId, foundAt, value: JSON.stringify(finding) })
    },
    settingsOf: (buildId: string): SettingsRecord[] =>
      (sql.settings.all({ buildId }) as string[])
        .map(text => settingsRecordSchema.parse(JSON.parse(text)))
        .sort((a, b) => (a.at < b.at || (a.at === b.at && a.id < b.id) ? -1 : 1)),
    settingsRecord: (id: string): SettingsRecord | null =>
      one(sql.settingsRecord.get({ id }), settingsRecordSchema.parse),
    putSettings: (record: SettingsRecord) => {
      sql.putSettings.run({ id: record.id, buildId: record.buildId, value: JSON.stringify(record) })
    },
    removeSettings: (id: string) => {
      sql.removeSettings.run({ id })
    },
    allRenewals: (): Renewal[] => (sql.renewals.all() as string[]).map(text => renewalSchema.parse(JSON.parse(text))),
    renewal: (id: string): Renewal | null => one(sql.renewal.get({ id }), renewalSchema.parse),
    putRenewal: (renewal: Renewal) => {
      sql.putRenewal.run({ id: renewal.id, buildId: renewal.buildId, value: JSON.stringify(renewal) })
    },
    removeRenewal: (id: string) => {
      sql.removeRenewal.run({ id })
    },
    removeFinding: (id: string) => {
      sql.removeFinding.run({ id })
    },
  }
}
export type FlightsRepository = ReturnType<typeof flightsRepository>
