import { readdirSync, readFileSync } from 'node:fs'
import { join, resolve } from 'node:path'

const root = join(import.meta.dirname, '..')
const migrationFolder = join(root, 'server/db/migrations')

/** The changes of the schema, as they lie in their folder. */
export const migrations = readdirSync(migrationFolder).map(name => ({
  name,
  sql: readFileSync(join(migrationFolder, name), 'utf8'),
}))

/** Words of the command: options by name, and the others in order. */
export function wordsOf(argv: readonly string[], withValue: readonly string[]) {
  const options = new Map<string, string>()
  const others: string[] = []
  for (let i = 0; i < argv.length; i++) {
    const word = argv[i]!
    if (!word.startsWith('--')) others.push(word)
    else if (withValue.includes(word)) options.set(word, argv[++i] ?? '')
    else options.set(word, '')
  }
  return { options, others }
}

/** Where the data lie: as said, else as the application finds them. */
export const dataFolderOf = (options: ReadonlyMap<string, string>): string =>
  resolve(options.get('--data') ?? process.env.JOLLY_GRAM_DATA ?? join(root, '.data/own'))
