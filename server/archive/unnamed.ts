import { readdir, rm, stat } from 'node:fs/promises'
import { basename, join } from 'node:path'
import Database from 'better-sqlite3'
import { namingColumns } from '../db/naming-columns'
import { databaseName, isMemberName, keptFolders } from './layout'

/** A file younger than this may still be on its way to what will name it, ms. Our choice: a day. */
const youngMs = 86_400_000
/** About so much is read before others are answered again, characters. */
const charactersAtOnce = 256_000

export interface UnnamedFile {
  /** Below the data folder. */
  readonly name: string
  readonly bytes: number
}

async function oldFiles(folder: string, now: number): Promise<UnnamedFile[]> {
  const found = await Promise.all(
    keptFolders.map(async kept => {
      const names = await readdir(join(folder, kept), { recursive: true }).catch(() => [])
      return names.map(name => join(kept, name)).filter(isMemberName)
    }),
  )
  const told = await Promise.all(
    found.flat().map(async name => {
      const file = await stat(join(folder, name)).catch(() => null)
      return file?.isFile() && now - file.mtimeMs > youngMs ? [{ name, bytes: file.size }] : []
    }),
  )
  return told.flat()
}

/** Photos, pictures and logs that nothing names any more, not even what can be taken back. */
export async function unnamedFiles(folder: string, now = Date.now()): Promise<UnnamedFile[]> {
  const left = new Map<string, UnnamedFile[]>()
  for (const file of await oldFiles(folder, now)) {
    const [id = ''] = basename(file.name).split('.')
    left.set(id, [...(left.get(id) ?? []), file])
  }
  if (left.size === 0) return []
  const db = new Database(join(folder, databaseName), { readonly: true })
  try {
    let read = 0
    for (const { table, column } of namingColumns)
      for (const text of db.prepare(`SELECT ${column} FROM ${table}`).pluck().iterate() as Iterable<string>) {
        for (const [id] of text.matchAll(/[\w-]+/g)) left.delete(id)
        read += text.length
        if (read < charactersAtOnce) continue
        read = 0
        await new Promise(resolve => setImmediate(resolve))
      }
  } finally {
    db.close()
  }
  return [...left.values()].flat()
}

/** Takes them off the disk; what was named meanwhile stays. */
export async function clearUnnamed(folder: string, now = Date.now()): Promise<UnnamedFile[]> {
  const files = await unnamedFiles(folder, now)
  for (const { name } of files) await rm(join(folder, name), { force: true })
  return files
}
