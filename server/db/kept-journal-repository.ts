import type { Db } from './open-database'

/**
 * One thing outside the builds before and after a change; null where it was or is not there. `rest` is what goes with
 * it when it is deleted.
 */
export interface KeptChangeRecord {
  readonly kind: string
  readonly id: string
  readonly before: Readonly<Record<string, unknown>> | null
  readonly after: Readonly<Record<string, unknown>> | null
  readonly rest?: unknown
}
export interface KeptEntry {
  readonly seq: number
  readonly title: string
  readonly undone: 'in force' | 'taken back' | 'overtaken'
  readonly changes: readonly KeptChangeRecord[]
}

/** Whose changes are taken back together: a document, and the build where it is one of flights; '' otherwise. */
export interface KeptScope {
  readonly document: string
  readonly scope: string
}

/** So many entries of a document can be taken back; older ones make room. */
const kept = 500

/** SQL of the journal of what is kept outside the builds. */
export function keptJournalRepository(db: Db) {
  const columns = 'seq, title, undone, changes'
  const sql = {
    append: db.prepare(
      `INSERT INTO kept_journal (document, scope, at, title, key, undone, changes)
       VALUES (:document, :scope, :at, :title, :key, 'in force', :changes)`,
    ),
    byKey: db.prepare('SELECT seq FROM kept_journal WHERE document = :document AND key = :key').pluck(),
    nextUndo: db.prepare(
      `SELECT ${columns} FROM kept_journal WHERE document = :document AND scope = :scope AND undone = 'in force' ORDER BY seq DESC LIMIT 1`,
    ),
    nextRedo: db.prepare(
      `SELECT ${columns} FROM kept_journal WHERE document = :document AND scope = :scope AND undone = 'taken back' ORDER BY seq LIMIT 1`,
    ),
    mark: db.prepare('UPDATE kept_journal SET undone = :undone WHERE seq = :seq'),
    overtake: db.prepare(
      `UPDATE kept_journal SET undone = 'overtaken' WHERE document = :document AND scope = :scope AND undone = 'taken back'`,
    ),
    forget: db.prepare(
      `DELETE FROM kept_journal WHERE document = :document AND scope = :scope AND seq <= (SELECT max(seq) FROM kept_journal) - ${kept}`,
    ),
  }
  const entryOf = (row: unknown): KeptEntry | null =>
    row
      ? { ...(row as KeptEntry), changes: JSON.parse((row as { changes: string }).changes) as KeptChangeRecord[] }
      : null
  return {
    append(
      { document, scope }: KeptScope,
      at: string,
      title: string,
      key: string | null,
      changes: readonly KeptChangeRecord[],
    ) {
      sql.overtake.run({ document, scope })
      sql.append.run({ document, scope, at, title, key, changes: JSON.stringify(changes) })
      sql.forget.run({ document, scope })
    },
    has: (document: string, key: string) => sql.byKey.get({ document, key }) !== undefined,
    nextUndo: ({ document, scope }: KeptScope) => entryOf(sql.nextUndo.get({ document, scope })),
    nextRedo: ({ document, scope }: KeptScope) => entryOf(sql.nextRedo.get({ document, scope })),
    mark: (seq: number, undone: KeptEntry['undone']) => {
      sql.mark.run({ seq, undone })
    },
  }
}
export type KeptJournalRepository = ReturnType<typeof keptJournalRepository>
