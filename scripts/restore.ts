/**
 * Puts an archive in the place of what is here: `npm run restore -- FILE [--data FOLDER] [--yes]`. It is checked whole
 * first; what it takes the place of is kept. The application must not be running.
 */
import { existsSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { createInterface } from 'node:readline/promises'
import { checkArchive, decideRestore, dropChecked, finishRestore } from '../server/archive'
import type { Holdings } from '../shared/schemas/archive'
import { FolderHeld, ownFolder } from '../server/db/owner'
import { dataFolderOf, migrations, wordsOf } from './data-folder'

process.umask(0o077)
const { options, others } = wordsOf(process.argv.slice(2), ['--data'])
const folder = dataFolderOf(options)
if (others.length !== 1) fail('Say which file to restore: npm run restore -- FILE [--data FOLDER] [--yes]')
const file = resolve(others[0]!)
if (!existsSync(file)) fail(`There is no file ${file}.`)

const ownership = own()
try {
  finishRestore(folder)
  const checked = await checkArchive(folder, file, migrations)
  console.log(
    `Checked whole: ${checked.members} files, ${(checked.bytes / 1e6).toFixed(1)} MB, made ${checked.madeAt}.`,
  )
  console.log(`It holds ${words(checked.holds)}.`)
  console.log(checked.here ? `Here are ${words(checked.here)}.` : 'Here is nothing that can be read.')
  if (!options.has('--yes') && !(await isWanted())) {
    dropChecked(folder, checked.id)
    fail('Nothing was restored.')
  }
  const { keptAs } = decideRestore(folder, checked.id)
  finishRestore(folder)
  console.log(`Restored. What was here is kept in ${join(folder, keptAs)}.`)
} catch (error) {
  fail(error instanceof Error ? error.message : String(error))
} finally {
  ownership.release()
}

function own() {
  try {
    return ownFolder(folder, 'none, restoring')
  } catch (error) {
    if (error instanceof FolderHeld) return fail(error.message)
    throw error
  }
}
async function isWanted(): Promise<boolean> {
  if (!process.stdin.isTTY) return false
  const asking = createInterface({ input: process.stdin, output: process.stdout })
  const answer = await asking.question('Put it in the place of what is here? Type yes: ')
  asking.close()
  return answer.trim() === 'yes'
}
function words({ builds, flights, parts, from, to }: Holdings): string {
  const days = from && to ? `, ${from.slice(0, 10)} to ${to.slice(0, 10)}` : ''
  return `${builds.length} builds (${builds.map(({ name }) => name).join(', ')}), ${flights} flights, ${parts} parts${days}`
}
function fail(sentence: string): never {
  console.error(sentence)
  process.exit(1)
}
