import { createHash, randomUUID } from 'node:crypto'
import { once } from 'node:events'
import { mkdirSync, rmSync } from 'node:fs'
import { open, readdir } from 'node:fs/promises'
import { join } from 'node:path'
import { PassThrough, type Readable, type Writable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { ZipArchive } from 'archiver'
import Database from 'better-sqlite3'
import type { Db } from '../db/open-database'
import { holdingsOf } from './holdings'
import {
  archiveFormat,
  archiveVersion,
  databaseName,
  isMemberName,
  keptFolders,
  manifestName,
  type Manifest,
  type Member,
} from './layout'
import { withTrailingSum } from './trailing-sum'

/** Pages of the database copied at a time, others being answered in between. */
const pagesAtOnce = 400

export interface ArchiveSource {
  /** Where the data lie. */
  readonly folder: string
  readonly db: Db
  readonly now: () => string
  /** All pages at once, for another program than the one that writes: a write in between begins the copy anew. */
  readonly inOneStep?: boolean
}

/**
 * Writes everything into one file: the database as it is at one moment, without what is secret of this machine, and every
 * file beside it, with the SHA-256 of each. Whoever writes meanwhile goes on. What it holds is given back.
 */
export async function writeArchive(source: ArchiveSource, output: Writable): Promise<Manifest> {
  const broken = new AbortController()
  const desk = join(source.folder, `archive-${randomUUID()}`)
  mkdirSync(desk, { mode: 0o700 })
  try {
    const copy = join(desk, databaseName)
    await copyDatabase(source, copy)
    const told = toldOf(copy)
    // Read only when an archive is written: at every start it would be a tenth of it.
    const { ZipArchive: Zip } = await import('archiver')
    const zip = new Zip({ zlib: { level: 6 } })
    const piped = pipeline(zip, withTrailingSum(), output)
    // Whoever takes it has gone: what is being read is let go as well.
    piped.catch(error => broken.abort(error))
    zip.once('error', error => broken.abort(error))
    const members: Member[] = []
    const add = async (name: string, path: string) => {
      const member = await addFile(zip, name, path, broken.signal)
      if (member) members.push(member)
    }
    await add(databaseName, copy)
    for (const name of await filesOf(source.folder)) await add(name, join(source.folder, name))
    const manifest: Manifest = {
      format: archiveFormat,
      version: archiveVersion,
      madeAt: source.now(),
      ...told,
      members,
    }
    zip.append(JSON.stringify(manifest), { name: manifestName })
    await Promise.all([zip.finalize(), piped])
    return manifest
  } catch (error) {
    throw broken.signal.aborted ? broken.signal.reason : error
  } finally {
    rmSync(desk, { recursive: true, force: true })
  }
}

/** The database as it is at one moment, without secrets, checked. */
async function copyDatabase({ db, inOneStep }: ArchiveSource, to: string): Promise<void> {
  await db.backup(to, { progress: ({ remainingPages }) => (inOneStep ? Math.max(remainingPages, 1) : pagesAtOnce) })
  const copy = new Database(to)
  try {
    copy.pragma('journal_mode = DELETE')
    copy.exec('DELETE FROM secrets; DELETE FROM sessions;')
    // What was deleted still lies in free pages until they are written anew.
    copy.exec('VACUUM')
    requireWhole(copy)
  } finally {
    copy.close()
  }
}

/** Throws where a database is not whole, or has rows that refer to nothing. */
export function requireWhole(db: Db): void {
  const [first] = db.pragma('integrity_check') as { integrity_check: string }[]
  if (first?.integrity_check !== 'ok') throw new Error(`The database is damaged: ${first?.integrity_check}`)
  const loose = db.pragma('foreign_key_check') as unknown[]
  if (loose.length > 0) throw new Error(`The database has ${loose.length} rows that refer to nothing.`)
}

function toldOf(path: string): Pick<Manifest, 'migrations' | 'holds'> {
  const db = new Database(path, { readonly: true })
  try {
    const migrations = db.prepare('SELECT name FROM migrations ORDER BY name').pluck().all() as string[]
    return { migrations, holds: holdingsOf(db) }
  } finally {
    db.close()
  }
}

/** Every file that belongs to the data, by its name in the folder. */
export async function filesOf(folder: string): Promise<string[]> {
  const names: string[] = []
  for (const kept of keptFolders) {
    const all = await readdir(join(folder, kept), { recursive: true, withFileTypes: true }).catch(() => [])
    for (const entry of all) {
      if (!entry.isFile()) continue
      const name = join(entry.parentPath, entry.name)
        .slice(folder.length + 1)
        .replaceAll('\\', '/')
      if (isMemberName(name)) names.push(name)
    }
  }
  return names.sort()
}

/** Puts a file in; null where it has gone meanwhile. Pictures and logs are small already and are only stored. */
async function addFile(zip: ZipArchive, name: string, path: string, signal: AbortSignal): Promise<Member | null> {
  const file = await open(path, 'r').catch(() => null)
  if (!file) return null
  try {
    const counted = new PassThrough()
    const summed = sumOf(counted)
    // Where it breaks off, the reading below says so.
    summed.catch(() => undefined)
    const entered = once(zip, 'entry', { signal })
    zip.append(counted, { name, store: name !== databaseName })
    await Promise.all([pipeline(file.createReadStream(), counted, { signal }), entered])
    return { name, ...(await summed) }
  } finally {
    await file.close().catch(() => undefined)
  }
}

/** Size and SHA-256 of what passes. */
export function sumOf(stream: Readable): Promise<Pick<Member, 'size' | 'sha256'>> {
  const hash = createHash('sha256')
  let size = 0
  stream.on('data', (chunk: Buffer) => {
    size += chunk.length
    hash.update(chunk)
  })
  return new Promise((done, fail) => {
    stream.once('end', () => done({ size, sha256: hash.digest('hex') }))
    stream.once('error', fail)
  })
}
