import type { Db } from './open-database'

/** What a row has in a build file besides its long texts: names of fields, figures, times, ids. */
const besideTexts = 700

/** How large the file of a build may become, as far as its rows say it: its history and its versions of grams, bytes. */
export function fileSizeTable(db: Db) {
  const sql = {
    journal: db
      .prepare(
        `SELECT coalesce(sum(octet_length(patch) + octet_length(json_quote(title)) + octet_length(json_quote(note)) + ${besideTexts}), 0)
         FROM journal WHERE build_id = :id`,
      )
      .pluck(),
    versions: db
      .prepare(
        `SELECT coalesce(sum(octet_length(coalesce(weighing, '')) + octet_length(json_quote(origin)) + ${besideTexts}), 0)
         FROM mass_versions WHERE build_id = :id`,
      )
      .pluck(),
  }
  return (id: string): number => (sql.journal.get({ id }) as number) + (sql.versions.get({ id }) as number)
}
