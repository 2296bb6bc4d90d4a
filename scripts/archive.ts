/**
 * Writes everything into one file, without the interface, for a timer: `npm run archive -- FILE [--data FOLDER]`. The
 * application may be running and be written to meanwhile.
 */
import { createWriteStream, existsSync } from 'node:fs'
import { rename, rm } from 'node:fs/promises'
import { join, resolve } from 'node:path'
import Database from 'better-sqlite3'
import { writeArchive } from '../server/archive'
import { dataFolderOf, wordsOf } from './data-folder'

process.umask(0o077)
const { options, others } = wordsOf(process.argv.slice(2), ['--data'])
const folder = dataFolderOf(options)
const database = join(folder, 'jolly-gram.sqlite')
if (others.length !== 1) fail('Say which file to write: npm run archive -- FILE [--data FOLDER]')
if (!existsSync(database)) fail(`There are no data in ${folder}.`)

const file = resolve(others[0]!)
const part = `${file}.part`
const db = new Database(database, { fileMustExist: true, timeout: 5000 })
try {
  const { members, holds } = await writeArchive(
    { folder, db, now: () => new Date().toISOString(), inOneStep: true },
    createWriteStream(part, { mode: 0o600, flush: true }),
  )
  await rename(part, file)
  console.log(`${file}: ${holds.builds.length} builds, ${holds.flights} flights, ${members.length} files.`)
} catch (error) {
  await rm(part, { force: true })
  fail(error instanceof Error ? error.message : String(error))
} finally {
  db.close()
}

function fail(sentence: string): never {
  console.error(sentence)
  process.exit(1)
}
