import { chmodSync, existsSync, mkdirSync, rmSync } from 'node:fs'
import { dirname } from 'node:path'
import Database from 'better-sqlite3'
import { DataProblem } from './data-problem'

export type Db = Database.Database

/** One numbered migration: its file name and its SQL. */
export interface Migration {
  readonly name: string
  readonly sql: string
}

/** A read waits so long for another program at most; whoever writes waits elsewhere, so that others are answered meanwhile. */
const busyTimeoutMs = 40

/**
 * Opens the database file (made with its folder when missing, both for this user alone) and brings its schema up to date.
 * Write-ahead log with full synchronisation: an acknowledged commit survives a killed process and a power cut.
 */
export function openDatabase(path: string, migrations: readonly Migration[]): Db {
  const onDisk = path !== ':memory:'
  if (onDisk) {
    mkdirSync(dirname(path), { recursive: true, mode: 0o700 })
    chmodSync(dirname(path), 0o700)
  }
  const db = new Database(path)
  try {
    db.pragma(`busy_timeout = ${busyTimeoutMs}`)
    db.pragma('journal_mode = WAL')
    db.pragma('synchronous = FULL')
    db.pragma('foreign_keys = ON')
    db.pragma('wal_autocheckpoint = 4000')
    migrate(db, migrations, onDisk ? path : null)
    if (onDisk)
      for (const ending of ['', '-wal', '-shm']) if (existsSync(path + ending)) chmodSync(path + ending, 0o600)
    return db
  } catch (error) {
    db.close()
    throw error
  }
}

/** Keeps the database as it is, beside itself, before its schema is changed. */
function copyBefore(db: Db, path: string, migration: string): void {
  const copy = `${path.replace(/\.sqlite$/, '')}.before-${/^\w{1,40}/.exec(migration)![0]}.sqlite`
  rmSync(copy, { force: true })
  db.prepare('VACUUM INTO ?').run(copy)
  chmodSync(copy, 0o600)
}

/**
 * Applies the migrations not applied yet, in order of their names, each in a transaction of its own. A database that has
 * something in it is copied before the first of them (`path` null: it lies in memory only).
 */
export function migrate(db: Db, migrations: readonly Migration[], path: string | null = null): void {
  db.exec('CREATE TABLE IF NOT EXISTS migrations (name TEXT PRIMARY KEY, applied_at TEXT NOT NULL) STRICT')
  const done = new Set(db.prepare('SELECT name FROM migrations').pluck().all() as string[])
  const known = new Set(migrations.map(m => m.name))
  const newer = [...done].filter(name => !known.has(name))
  if (newer.length > 0)
    throw new DataProblem(
      'newer',
      `The database was made by a newer version of the application (${newer.join(', ')}). Update the ` +
        `application to open it, or put a copy from before in its place. Nothing is written meanwhile.`,
    )
  const record = db.prepare('INSERT INTO migrations (name, applied_at) VALUES (:name, :appliedAt)')
  const wanted = migrations.filter(({ name }) => !done.has(name)).sort((a, b) => a.name.localeCompare(b.name))
  if (path !== null && done.size > 0 && wanted.length > 0) copyBefore(db, path, wanted[0]!.name)
  if (wanted.length === 0) return
  // A table that is made anew is gone for a moment: what refers to it is checked before each commit instead.
  db.pragma('foreign_keys = OFF')
  try {
    for (const { name, sql } of wanted) {
      db.transaction(() => {
        db.exec(sql)
        if ((db.pragma('foreign_key_check') as unknown[]).length > 0)
          throw new Error(`${name} leaves rows that refer to nothing`)
        record.run({ name, appliedAt: new Date().toISOString() })
      })()
    }
  } finally {
    db.pragma('foreign_keys = ON')
  }
}
