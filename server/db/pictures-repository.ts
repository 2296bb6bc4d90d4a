import type { Db } from './open-database'

/** SQL of what names a picture: lines, weighings, parts of the drawer, findings, reference crafts, and what can be undone. */
export function picturesRepository(db: Db) {
  const named = db
    .prepare(
      `SELECT EXISTS (SELECT 1 FROM lines WHERE instr(picture_ids, :id))
           OR EXISTS (SELECT 1 FROM parts WHERE instr(picture_ids, :id))
           OR EXISTS (SELECT 1 FROM findings WHERE instr(value, :id))
           OR EXISTS (SELECT 1 FROM observations WHERE instr(observation, :id))
           OR EXISTS (SELECT 1 FROM reference_crafts WHERE instr(picture_ids, :id))
           OR EXISTS (SELECT 1 FROM journal WHERE instr(patch, :id))
           OR EXISTS (SELECT 1 FROM kept_journal WHERE instr(changes, :id))`,
    )
    .pluck()
  return {
    /** Whether anything still names it. */
    isNamed: (id: string) => named.get({ id }) === 1,
  }
}
