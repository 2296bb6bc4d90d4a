import { randomUUID } from 'node:crypto'
import { existsSync, mkdirSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import Database from 'better-sqlite3'
import { dataProblemOf } from '../db/data-problem'
import { openDatabase, type Db, type Migration } from '../db/open-database'
import type { Holdings } from '../../shared/schemas/archive'
import { DomainProblem } from '../problems'
import { localDay } from '../../shared/utils/local-day'
import { holdingsOf } from './holdings'
import { databaseName, type Manifest } from './layout'
import { layOut } from './read-archive'
import { commitRestore, stageIn } from './swap'
import { requireWhole } from './write-archive'

/** An archive that was checked whole and lies ready, with what it holds and what is here. */
export interface Checked {
  readonly id: string
  readonly madeAt: string
  readonly members: number
  readonly bytes: number
  readonly holds: Holdings
  readonly here: Holdings | null
}

/** Checks an archive whole, brings its database up to date, and lays it ready. Nothing here is touched. */
export async function checkArchive(folder: string, file: string, migrations: readonly Migration[]): Promise<Checked> {
  const id = randomUUID()
  const stage = stageIn(folder, id)
  mkdirSync(stage, { recursive: true, mode: 0o700 })
  try {
    const manifest = await layOut(file, stage)
    const holds = bringUpToDate(join(stage, databaseName), manifest, migrations)
    return {
      id,
      madeAt: manifest.madeAt,
      members: manifest.members.length,
      bytes: manifest.members.reduce((sum, { size }) => sum + size, 0),
      holds,
      here: heldHere(join(folder, databaseName), migrations),
    }
  } catch (error) {
    rmSync(stage, { recursive: true, force: true })
    throw error
  }
}

/** The database that was laid out, whole, of today's schema, with a name of its own; what it holds. */
function bringUpToDate(path: string, { migrations: had }: Manifest, migrations: readonly Migration[]): Holdings {
  const known = new Set(migrations.map(({ name }) => name))
  const newer = had.find(name => !known.has(name))
  if (newer)
    throw new DomainProblem(
      'refused',
      `This archive was made by a newer version of the application (${newer}). Update the application. Nothing was restored.`,
      'file',
    )
  let db: Db | null = null
  try {
    const laid = new Database(path)
    try {
      requireWhole(laid)
    } finally {
      laid.close()
    }
    db = openDatabase(path, migrations)
    requireWhole(db)
    db.exec('UPDATE identity SET id = lower(hex(randomblob(16)))')
    const holds = holdingsOf(db)
    db.pragma('wal_checkpoint(TRUNCATE)')
    return holds
  } catch (error) {
    if (dataProblemOf(error)) throw error
    const why = error instanceof Error ? error.message : String(error)
    throw new DomainProblem(
      'refused',
      `The database in this archive cannot be used: ${why.slice(0, 200)} Nothing was restored.`,
      'file',
    )
  } finally {
    db?.close()
  }
}

function heldHere(path: string, migrations: readonly Migration[]): Holdings | null {
  if (!existsSync(path)) return null
  const db = new Database(path, { readonly: true })
  try {
    const had = db.prepare('SELECT name FROM migrations').pluck().all() as string[]
    return migrations.every(({ name }) => had.includes(name)) ? holdingsOf(db) : null
  } catch {
    return null
  } finally {
    db.close()
  }
}

/** Throws where no archive of this name lies ready. */
export function requireReady(folder: string, id: string): void {
  if (!/^[\w-]{1,60}$/.test(id) || !existsSync(join(stageIn(folder, id), databaseName)))
    throw new DomainProblem('not-found', 'This archive does not lie ready any more. Check it again.')
}

/** What was checked takes the place of what is here, with the secrets of this machine. The data must be closed by now. */
export function decideRestore(folder: string, id: string): { keptAs: string } {
  requireReady(folder, id)
  keepSecrets(join(folder, databaseName), join(stageIn(folder, id), databaseName))
  return commitRestore(folder, id, localDay())
}

/** The passphrase and the key of the cookies belong to this machine, not to an archive. */
function keepSecrets(here: string, laid: string): void {
  const db = new Database(laid)
  try {
    db.exec('DELETE FROM secrets; DELETE FROM sessions;')
    if (!existsSync(here)) return
    const present = new Database(here, { readonly: true })
    let rows: { name: string; value: string }[] = []
    try {
      rows = present.prepare('SELECT name, value FROM secrets').all() as typeof rows
    } catch {
      // What is here cannot be read: a new passphrase has to be given.
    } finally {
      present.close()
    }
    const put = db.prepare('INSERT INTO secrets (name, value) VALUES (:name, :value)')
    db.transaction(() => rows.forEach(row => put.run(row)))()
    db.pragma('wal_checkpoint(TRUNCATE)')
  } finally {
    db.close()
  }
}

/** Lets what lies ready go. */
export function dropChecked(folder: string, id: string): void {
  if (/^[\w-]{1,60}$/.test(id)) rmSync(stageIn(folder, id), { recursive: true, force: true })
}
