import { newerThanKnown, presentVersions, upcastPatch, type Patch, type Versions } from '../../core/changes/commands'
import { DomainProblem } from '../problems'
import type { Db } from './open-database'

/** In which version each part of a build was when an entry of the journal was written. */
export function vintageTable(db: Db) {
  const sql = {
    one: db.prepare('SELECT versions FROM vintages WHERE id = :id').pluck(),
    id: db.prepare('SELECT id FROM vintages WHERE versions = :versions').pluck(),
    add: db.prepare('INSERT INTO vintages (versions) VALUES (:versions)'),
  }
  const known = new Map<number, Versions>()

  function versionsOf(id: number): Versions {
    const versions = known.get(id) ?? (JSON.parse(sql.one.get({ id }) as string) as Versions)
    const newer = newerThanKnown(versions)
    if (newer) throw new DomainProblem('unreadable', `Its history holds ${newer}. Update the application.`)
    known.set(id, versions)
    return versions
  }

  return {
    /** The patch of an entry, as it would be written now. */
    read: (patch: string, vintage: number): Patch =>
      upcastPatch(JSON.parse(patch) as Readonly<Record<string, unknown>>, versionsOf(vintage)) as unknown as Patch,
    /** The vintage of what is written now. Looked up each time: where a write is taken back, its vintage goes with it. */
    present(): number {
      const versions = JSON.stringify(presentVersions)
      const there = sql.id.get({ versions }) as number | undefined
      return there ?? Number(sql.add.run({ versions }).lastInsertRowid)
    },
  }
}
