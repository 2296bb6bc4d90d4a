import { mkdirSync } from 'node:fs'
import { dirname } from 'node:path'
import Database from 'better-sqlite3'

export type Db = Database.Database

/** One numbered migration: its file name and its SQL. */
export interface Migration { readonly name: string, readonly sql: string }

/**
 * Opens the database file (made with its folder when missing) and brings its schema up to date.
 * Write-ahead log with full synchronisation: an acknowledged commit survives a killed process and a power cut.
 */
export function openDatabase(path: string, migrations: readonly Migration[]): Db {
  if (path !== ':memory:') mkdirSync(dirname(path), { recursive: true })
  const db = new Database(path)
  db.pragma('journal_mode = WAL')
  db.pragma('synchronous = FULL')
  db.pragma('foreign_keys = ON')
  db.pragma('busy_timeout = 3000')
  db.pragma('wal_autocheckpoint = 4000')
  migrate(db, migrations)
  return db
}

/** Applies the migrations not applied yet, in order of their names, each in a transaction of its own. */
export function migrate(db: Db, migrations: readonly Migration[]): void {
  db.exec('CREATE TABLE IF NOT EXISTS migrations (name TEXT PRIMARY KEY, applied_at TEXT NOT NULL) STRICT')
  const done = new Set(db.prepare('SELECT name FROM migrations').pluck().all() as string[])
  const known = new Set(migrations.map(m => m.name))
  const newer = [...done].filter(name => !known.has(name))
  if (newer.length > 0) throw new Error(`The database was made by a newer version of the application (${newer.join(', ')}). Update the application to open it.`)
  const record = db.prepare('INSERT INTO migrations (name, applied_at) VALUES (:name, :appliedAt)')
  for (const { name, sql } of [...migrations].sort((a, b) => a.name.localeCompare(b.name))) {
    if (done.has(name)) continue
    db.transaction(() => {
      db.exec(sql)
      record.run({ name, appliedAt: new Date().toISOString() })
    })()
  }
}
