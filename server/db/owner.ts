import { mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { hostname } from 'node:os'
import { join } from 'node:path'
import Database from 'better-sqlite3'

/** A data folder that is held by this process until it ends, however it ends. */
export interface Ownership {
  readonly release: () => void
}

/** Another process holds the data folder; `who` is what it wrote of itself. */
export class FolderHeld extends Error {
  constructor(readonly who: string) {
    super(
      `The data folder is in use by another start of the application${who ? ` (${who})` : ''}. Use that one, or end it first.`,
    )
    this.name = 'FolderHeld'
  }
}

/**
 * Takes a data folder for this process: an exclusive transaction on a small database of its own, which the system lets go
 * with the process, so that a killed one leaves nothing behind. Who holds it is written beside. Throws {@link FolderHeld}.
 */
export function ownFolder(folder: string, port: string): Ownership {
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  const note = join(folder, 'owner.txt')
  const lock = new Database(join(folder, 'owner.sqlite'))
  try {
    lock.pragma('busy_timeout = 0')
    lock.pragma('journal_mode = DELETE')
    lock.exec('BEGIN EXCLUSIVE')
  } catch (error) {
    lock.close()
    if (!String((error as { code?: unknown }).code).startsWith('SQLITE_BUSY')) throw error
    let who = ''
    try {
      who = readFileSync(note, 'utf8').trim()
    } catch {
      /* it has only just begun */
    }
    throw new FolderHeld(who)
  }
  writeFileSync(note, `process ${process.pid} on ${hostname()}, port ${port}, since ${new Date().toISOString()}\n`, {
    mode: 0o600,
  })
  return {
    release: () => {
      lock.close()
    },
  }
}
