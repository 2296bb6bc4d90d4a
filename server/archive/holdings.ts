import type { Db } from '../db/open-database'
import type { Holdings } from '../../shared/schemas/archive'

/** What a database holds, in counts and days. */
export function holdingsOf(db: Db): Holdings {
  const builds = db
    .prepare(
      `SELECT name, (SELECT count(*) FROM journal WHERE build_id = builds.id) AS entries,
              (SELECT max(at) FROM journal WHERE build_id = builds.id) AS changedAt
       FROM builds ORDER BY created_at, id`,
    )
    .all() as Holdings['builds']
  const count = (table: string) => db.prepare(`SELECT count(*) FROM ${table}`).pluck().get() as number
  const days = db
    .prepare(
      `SELECT min(at) AS first, max(at) AS last
       FROM (SELECT at FROM journal UNION ALL SELECT at FROM flights)`,
    )
    .get() as { first: string | null; last: string | null }
  return { builds, flights: count('flights'), parts: count('parts'), from: days.first, to: days.last }
}
