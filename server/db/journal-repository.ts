import { vintageTable } from './vintages'
import type { Topic } from '../../core/changes/commands'
import { toldOf, type JournalEntry, type JournalRecord, type ToldEntry } from '../../shared/schemas/journal'
import type { Db } from './open-database'

const columns = `
  seq, at, kind, target, title, grams_before_g AS gramsBeforeG, grams_after_g AS gramsAfterG, auw_before_g AS auwBeforeG,
  auw_after_g AS auwAfterG, note, undone, mark`

/** Which entries of a journal are wanted. */
export interface EntriesWanted {
  readonly before: number
  readonly topic?: Topic | null
  readonly words?: string
}

type RecordRow = JournalEntry & { patch: string; vintage: number }

/** SQL of the journal: append, mark as taken back, annotate, read. */
export function journalRepository(db: Db) {
  const vintages = vintageTable(db)
  const sql = {
    entries: db.prepare(
      `SELECT ${columns}, topic FROM journal WHERE build_id = :buildId AND seq < :before ` +
        `AND (:topic IS NULL OR topic = :topic) ` +
        `AND (:words = '' OR instr(lower(title || ' ' || note || ' ' || mark), lower(:words)) > 0) ` +
        `ORDER BY seq DESC LIMIT :most`,
    ),
    marks: db.prepare(
      `SELECT ${columns}, topic FROM journal WHERE build_id = :buildId AND mark <> '' ORDER BY seq LIMIT :most`,
    ),
    down: db.prepare(
      `SELECT ${columns}, patch, vintage FROM journal WHERE build_id = :buildId AND seq <= :from AND seq > :to ` +
        `ORDER BY seq DESC LIMIT :most`,
    ),
    lastAt: db.prepare('SELECT at FROM journal WHERE build_id = :buildId ORDER BY seq DESC LIMIT 1').pluck(),
    firstAt: db.prepare('SELECT at FROM journal WHERE build_id = :buildId ORDER BY seq LIMIT 1').pluck(),
    one: db.prepare(`SELECT ${columns}, topic FROM journal WHERE build_id = :buildId AND seq = :seq`),
    ofListings: db.prepare(
      `SELECT ${columns}, patch, vintage FROM journal WHERE build_id = :buildId AND instr(patch, '"listing":{') > 0 ` +
        `ORDER BY seq DESC`,
    ),
    moments: db.prepare('SELECT seq, at FROM journal WHERE build_id = :buildId ORDER BY seq'),
    records: db.prepare(`SELECT ${columns}, patch, vintage FROM journal WHERE build_id = :buildId ORDER BY seq`),
    reasons: db.prepare(
      `SELECT at, title, note FROM journal WHERE build_id = :buildId AND kind = 'do' AND undone = 'in force' AND note <> '' ORDER BY seq`,
    ),
    withId: db.prepare(
      `SELECT ${columns}, patch, vintage FROM journal WHERE build_id = :buildId AND kind = 'do' AND ` +
        `(undone = 'in force') = :inForce AND instr(patch, json_quote(:id)) > 0`,
    ),
    lastSeq: db.prepare('SELECT coalesce(max(seq), 0) FROM journal WHERE build_id = :buildId').pluck(),
    append: db.prepare(`
      INSERT INTO journal (build_id, seq, at, kind, target, title, grams_before_g, grams_after_g, auw_before_g,
                           auw_after_g, note, undone, mark, topic, patch, key, vintage)
      VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`),
    since: db.prepare(
      `SELECT ${columns}, patch, vintage, key FROM journal WHERE build_id = :buildId AND seq > :seq ORDER BY seq`,
    ),
    nextUndo: db.prepare(
      `SELECT ${columns}, patch, vintage FROM journal WHERE build_id = :buildId AND kind = 'do' AND ` +
        `undone = 'in force' ORDER BY seq DESC LIMIT 1`,
    ),
    nextRedo: db.prepare(
      `SELECT ${columns}, patch, vintage FROM journal WHERE build_id = :buildId AND kind = 'do' AND ` +
        `undone = 'taken back' ORDER BY seq LIMIT 1`,
    ),
    stands: db.prepare('UPDATE journal SET undone = :undone WHERE build_id = :buildId AND seq = :seq'),
    overtake: db.prepare(
      `UPDATE journal SET undone = 'overtaken' WHERE build_id = :buildId AND kind = 'do' AND undone = 'taken back'`,
    ),
    note: db.prepare('UPDATE journal SET note = :note WHERE build_id = :buildId AND seq = :seq'),
    mark: db.prepare('UPDATE journal SET mark = :mark WHERE build_id = :buildId AND seq = :seq'),
  }
  const withPatch = (row: unknown): JournalRecord | null => {
    if (!row) return null
    const { patch, vintage, ...entry } = row as RecordRow
    return { ...entry, patch: vintages.read(patch, vintage) }
  }
  /** Writes an entry with the text of its patch. */
  function append(buildId: string, r: ToldEntry, patchText: string, key: string | null = null): void {
    sql.append.run(
      buildId,
      r.seq,
      r.at,
      r.kind,
      r.target,
      r.title,
      r.gramsBeforeG,
      r.gramsAfterG,
      r.auwBeforeG,
      r.auwAfterG,
      r.note,
      r.undone,
      r.mark,
      r.topic,
      patchText,
      key,
      vintages.present(),
    )
  }
  return {
    /** So many entries before one that are about something, or hold some words, newest first. */
    entries: (buildId: string, { before, topic = null, words = '' }: EntriesWanted, most: number) =>
      sql.entries.all({ buildId, before, topic, words, most }) as ToldEntry[],
    /** Entries that the builder has marked, oldest first. */
    marks: (buildId: string, most: number) => sql.marks.all({ buildId, most }) as ToldEntry[],
    /** So many entries from one downwards, newest first, above another. */
    down: (buildId: string, from: number, to: number, most: number) =>
      sql.down.all({ buildId, from, to, most }).map(row => withPatch(row)!),
    /** When it was changed last; null where it never was. */
    lastAt: (buildId: string) => (sql.lastAt.get({ buildId }) as string | undefined) ?? null,
    firstAt: (buildId: string) => (sql.firstAt.get({ buildId }) as string | undefined) ?? null,
    one: (buildId: string, seq: number) => sql.one.get({ buildId, seq }) as ToldEntry | undefined,
    /** Entries that touched a line with a listing, newest first; each is read only when it is asked for. */
    *ofListings(buildId: string): Iterable<JournalRecord> {
      for (const row of sql.ofListings.all({ buildId })) yield withPatch(row)!
    },
    /** When each entry was written, oldest first. */
    moments: (buildId: string) => sql.moments.all({ buildId }) as { readonly seq: number; readonly at: string }[],
    /** All entries, oldest first, as they are now; each is read only when it is asked for. */
    eachRecord(buildId: string): Iterable<JournalRecord> {
      const rows = sql.records.all({ buildId })
      return {
        *[Symbol.iterator]() {
          for (const row of rows) yield withPatch(row)!
        },
      }
    },
    /** What the changes in force were made for, where somebody said so, oldest first. */
    reasons: (buildId: string) => sql.reasons.all({ buildId }) as { at: string; title: string; note: string }[],
    /** Versions of a line's grams that only entries which were taken back have made: slips, no part of how it became known. */
    slips: (buildId: string, lineId: string): Set<string> => {
      const madeBy = (inForce: 0 | 1) =>
        sql.withId.all({ buildId, id: lineId, inForce }).flatMap(row =>
          withPatch(row)!
            .patch.lines.filter(({ after }) => after?.id === lineId)
            .flatMap(({ after, further }) => {
              const beside = after!.further ?? further?.changes.flatMap(one => one.after ?? []) ?? []
              return [after!.mass, ...beside.map(one => one.mass)].flatMap(mass => (mass ? [mass.versionId] : []))
            }),
        )
      const gone = new Set(madeBy(0))
      if (gone.size > 0) for (const id of madeBy(1)) gone.delete(id)
      return gone
    },
    lastSeq: (buildId: string) => sql.lastSeq.get({ buildId }) as number,
    append,
    /** Writes an entry that came whole. */
    appendRecord: (buildId: string, record: JournalRecord) =>
      append(buildId, toldOf(record), JSON.stringify(record.patch)),
    /** Entries after one, oldest first, with the keys of the writes they came from. */
    since: (buildId: string, seq: number) =>
      sql.since.all({ buildId, seq }).map(row => {
        const { key, ...record } = row as RecordRow & { key: string | null }
        return { key, record: withPatch(record)! }
      }),
    nextUndo: (buildId: string) => withPatch(sql.nextUndo.get({ buildId })),
    nextRedo: (buildId: string) => withPatch(sql.nextRedo.get({ buildId })),
    stands: (buildId: string, seq: number, undone: JournalEntry['undone']) => {
      sql.stands.run({ buildId, seq, undone })
    },
    /** What was taken back before a new change can no longer be redone. */
    overtake: (buildId: string) => {
      sql.overtake.run({ buildId })
    },
    /** Returns false when there is no such entry. */
    note: (buildId: string, seq: number, note: string) => sql.note.run({ buildId, seq, note }).changes === 1,
    /** Returns false when there is no such entry. */
    mark: (buildId: string, seq: number, mark: string) => sql.mark.run({ buildId, seq, mark }).changes === 1,
  }
}
export type JournalRepository = ReturnType<typeof journalRepository>
