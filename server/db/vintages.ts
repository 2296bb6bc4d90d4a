import {
  newerThanKnown,
  presentVersions,
  upcastPatch,
  type KeptPatch,
  type Versions,
} from '../../core/changes/commands'
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
  const versions = JSON.stringify(presentVersions)
  const found = () => sql.id.get({ versions }) as number | undefined
  const added = () => found() ?? Number(sql.add.run({ versions }).lastInsertRowid)
  /** Made when the data are opened, before any write that could take it back with it; null where nothing can be written then. */
  const present = ((): number | null => {
    try {
      return added()
    } catch {
      return null
    }
  })()

  function versionsOf(id: number): Versions {
    const versions = known.get(id) ?? (JSON.parse(sql.one.get({ id }) as string) as Versions)
    const newer = newerThanKnown(versions)
    if (newer) throw new DomainProblem('unreadable', `Its history holds ${newer}. Update the application.`)
    known.set(id, versions)
    return versions
  }

  return {
    /** The patch of an entry, as it would be written now. */
    read: (patch: string, vintage: number): KeptPatch =>
      upcastPatch(JSON.parse(patch) as Readonly<Record<string, unknown>>, versionsOf(vintage)) as unknown as KeptPatch,
    /** The vintage of what is written now. */
    present: (): number => present ?? added(),
  }
}
