import { existsSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { ensureBuilt, ensureInstalled, root, startServer } from './prepare.mjs'

ensureInstalled()
ensureBuilt()
const dataFolder = process.env.JOLLY_GRAM_DATA ?? join(root, '.data/demo')
const database = join(dataFolder, 'jolly-gram.sqlite')
if (process.argv.includes('--fresh')) for (const ending of ['', '-wal', '-shm']) rmSync(database + ending, { force: true })
const isNew = !existsSync(database)
const { address } = await startServer({ dataFolder, port: process.env.PORT ?? 4251 })
if (isNew) {
  const folder = join(root, 'demo/builds')
  for (const name of ['sherbet', 'praline', 'marzipan', 'nougat', 'treacle']) {
    const file = readdirSync(folder).find(entry => entry === `${name}.build.json`)
    const answer = await fetch(`${address}/api/builds/import`, { method: 'POST', body: readFileSync(join(folder, file)) })
    if (!answer.ok) {
      console.error(`The demo build ${file} was refused: ${await answer.text()}`)
      process.exit(1)
    }
  }
}
console.log(`Jolly Gram with its demo data is at ${address}${isNew ? '' : ' (as you left it; “npm run demo -- --fresh” starts over)'}`)
