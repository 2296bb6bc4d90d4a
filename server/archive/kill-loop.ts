/**
 * For the test that kills it: writes edits, archives them and puts the archive back, over and over, and says on its output
 * what it has done. Words: folder, and the number the edits go on from.
 */
import { createWriteStream, mkdirSync, readdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { makeApplication } from '../services/application'
import { checkArchive, decideRestore, finishRestore } from './index'

const [folder, from, migrationFolder] = process.argv.slice(2) as [string, string, string]
const migrations = readdirSync(migrationFolder).map(name => ({
  name,
  sql: readFileSync(join(migrationFolder, name), 'utf8'),
}))
const say = (...words: (string | number)[]) => writeFileSync(1, `${words.join(' ')}\n`)
const open = () => {
  finishRestore(folder)
  return makeApplication(join(folder, 'jolly-gram.sqlite'), migrations)
}

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
  decideRestore(folder, id)
  app = open()
  say('restored', archived)
  // Numbers go on from where they were: none is written twice.
}
