import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Migration } from './db/open-database'
import { makeApplication } from './services/application'

const folder = join(import.meta.dirname, 'db/migrations')

/** The migrations as they lie in their folder. */
export function migrationsOnDisk(): Migration[] {
  return readdirSync(folder).map(name => ({ name, sql: readFileSync(join(folder, name), 'utf8') }))
}

/** An application on a real database file in a folder of its own, which `remove` deletes; `again` opens it anew. */
export function applicationOnDisk(name = 'ledger.sqlite') {
  const home = mkdtempSync(join(tmpdir(), 'ledger-'))
  const path = join(home, name)
  const open = () => makeApplication(path, migrationsOnDisk())
  return { path, app: open(), again: open, remove: () => rmSync(home, { recursive: true }) }
}

/** The text of a demo build file. */
export function demoFile(name: string): string {
  return readFileSync(join(import.meta.dirname, `../demo/builds/${name}.build.json`), 'utf8')
}
