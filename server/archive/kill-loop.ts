/**
 * For the test that kills it: writes edits, archives them and puts the archive back, over and over, and says on its output
 * what it has done. Words: folder, the number the edits go on from, the migrations, and before which step of its first
 * restore on the disk it ends itself, if at any.
 */
import fs, { createWriteStream, mkdirSync, readdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { syncBuiltinESMExports } from 'node:module'
import { join } from 'node:path'
import { makeApplication } from '../services/application'
import { checkArchive, decideRestore, finishRestore } from './index'

const [folder, from, migrationFolder, lastStep] = process.argv.slice(2) as [string, string, string, string?]
const migrations = readdirSync(migrationFolder).map(name => ({
  name,
  sql: readFileSync(join(migrationFolder, name), 'utf8'),
}))
const say = (...words: (string | number)[]) => writeFileSync(1, `${words.join(' ')}\n`)
const open = () => makeApplication(join(folder, 'jolly-gram.sqlite'), migrations)

/** Counts what the restore does to the disk, and ends the program, as a power cut would, before the one it was told. */
let isRestoring = false
let steps = 0
for (const name of ['openSync', 'mkdirSync', 'renameSync', 'rmSync', 'writeSync', 'fsyncSync'] as const) {
  const real = fs[name] as (...args: unknown[]) => unknown
  const counted = (...args: unknown[]) => {
    if (isRestoring && String(steps++) === lastStep) process.kill(process.pid, 'SIGKILL')
    return real(...args)
  }
  Object.assign(fs, { [name]: counted })
}
syncBuiltinESMExports()

let app = open()
let n = Number(from)
say('ready')
for (;;) {
  for (let i = 0; i < 6; i++) {
    n++
    mkdirSync(join(folder, 'photos/b'), { recursive: true })
    const photo = join(folder, `photos/b/p${n}.jpg`)
    writeFileSync(`${photo}.part`, `photo ${n}`)
    renameSync(`${photo}.part`, photo)
    const { revision } = app.builds.read('b')
    await app.builds.command('b', revision, { type: 'build.set', fields: { craftClass: `class ${n}` } }, '')
    say('ack', n)
  }
  const file = join(folder, 'all.zip')
  const archived = n
  await app.archive.write(createWriteStream(file, { flush: true }))
  n++
  const { revision } = app.builds.read('b')
  await app.builds.command('b', revision, { type: 'build.set', fields: { craftClass: `class ${n}` } }, '')
  say('ack', n)
  const { id } = await checkArchive(folder, file, migrations)
  app.close()
  say('restoring', archived, n)
  steps = 0
  isRestoring = true
  decideRestore(folder, id)
  finishRestore(folder)
  isRestoring = false
  say('restored', archived, steps)
  app = open()
  // Numbers go on from where they were: none is written twice.
}
