/**
 * A drawer of 20,000 parts: what a filter takes, per key typed, against a plain loop that only looks at every name; and
 * what bringing 20,000 rows in takes, against the bare CSV parser and the bare database doing their share alone.
 */
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import Database from 'better-sqlite3'
import Papa from 'papaparse'
import { filterParts, indexPart, partOfRow, readFilter } from '../core/parts/drawer'
import { makeApplication } from '../server/services/application'
import { guessDrawerMapping, readDrawerRows, readDrawerTable } from '../shared/files/drawer-csv'
import { mostParts, partRowsRequestSchema } from '../shared/schemas/drawer'
import { medianMs, seeded } from './measure'

const count = 20_000
const random = seeded(7)
const rows = ['Kind;What;Owned;Listed, g;kV;Stator, diameter;Stator, height;Hole pattern;Price;Bag or box;Note']
for (let i = 0; i < count; i++) {
  const [d, h] = [8 + Math.floor(random() * 12), 2 + Math.floor(random() * 5)]
  rows.push(
    [
      'Motor',
      `Ostler ${d}${String(h).padStart(2, '0')} no. ${i}`,
      1 + (i % 6),
      (d * h * 0.16 + random()).toFixed(2).replace('.', ','),
      1500 + Math.floor(random() * 200) * 10,
      d,
      h,
      i % 2 ? '9×9 M2' : '12×12 M2',
      (10 + random() * 20).toFixed(2),
      `lid ${i % 40}`,
      i % 3 ? '' : 'from the harbour market',
    ].join(';'),
  )
}
const text = rows.join('\r\n')
let n = 0
const newId = () => `n${(++n).toString(36)}`

function filters(): void {
  const table = readDrawerTable(text)
  if ('problem' in table) throw new Error(table.problem)
  const { parts: listed, bad } = readDrawerRows(table, guessDrawerMapping(table.heads), newId)
  const parts = listed.map(partOfRow)
  if (parts.length !== count || bad.length > 0) throw new Error(`${parts.length} rows read, ${bad.length} refused`)
  const indexed = parts.map(indexPart)
  const terms = readFilter('1404–1505, 3000–4000 kV, ≤ 11 g')
  const kept = filterParts(indexed, terms).length
  if (kept === 0) throw new Error('the filter kept nothing')
  const filterMs = medianMs(() => {
    filterParts(indexed, readFilter('1404–1505, 3000–4000 kV, ≤ 11 g'))
  }, 40)
  const wordMs = medianMs(() => {
    filterParts(indexed, readFilter('harbour'))
  }, 40)
  const loopMs = medianMs(() => {
    parts.filter(part => part.name.toLowerCase().includes('harbour'))
  }, 40)
  console.log(
    `filter of ${count} parts by three figures (${kept} kept): ${filterMs.toFixed(2)} ms, by a word ` +
      `${wordMs.toFixed(2)} ms; a plain loop over the names ${loopMs.toFixed(2)} ms: ` +
      `${(filterMs / loopMs).toFixed(2)} and ${(wordMs / loopMs).toFixed(2)} times it; budget 50 ms: ` +
      `${Math.max(filterMs, wordMs) < 50 ? 'kept' : 'NOT KEPT'}`,
  )
}
filters()

const folder = mkdtempSync(join(tmpdir(), 'bench-drawer-'))
const migrationFolder = join(process.cwd(), 'server/db/migrations')
const migrations = readdirSync(migrationFolder).map(name => ({
  name,
  sql: readFileSync(join(migrationFolder, name), 'utf8'),
}))
async function timed(work: () => unknown): Promise<number> {
  const start = performance.now()
  await work()
  return performance.now() - start
}
const runs = { parser: [] as number[], database: [] as number[], table: [] as number[], whole: [] as number[] }
for (let run = 0; run < 15; run++) {
  let cells: string[][] = []
  runs.parser.push(
    await timed(() => {
      cells = Papa.parse<string[]>(text).data
    }),
  )
  const bare = new Database(join(folder, `bare${run}.sqlite`))
  bare.pragma('journal_mode = WAL')
  bare.pragma('synchronous = FULL')
  bare.exec(
    'CREATE TABLE parts (id INTEGER PRIMARY KEY, a TEXT, b TEXT, c TEXT, d TEXT, e TEXT, f TEXT, g ' +
      'TEXT, h TEXT, i TEXT, j TEXT, k TEXT) STRICT',
  )
  const insert = bare.prepare(
    'INSERT INTO parts (a, b, c, d, e, f, g, h, i, j, k) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
  )
  runs.database.push(
    await timed(() => {
      for (let at = 1; at < cells.length; at += mostParts)
        bare.transaction(() => {
          for (const row of cells.slice(at, at + mostParts)) insert.run(row)
        })()
    }),
  )
  bare.close()
  const app = makeApplication(join(folder, `whole${run}.sqlite`), migrations)
  runs.whole.push(
    await timed(async () => {
      const read = readDrawerTable(text)
      if ('problem' in read) throw new Error(read.problem)
      const mapping = guessDrawerMapping(read.heads)
      // In the application the rows are read in a worker and kept by the server: two heaps. Here a request at a time.
      for (let at = 0; at < read.rows.length; at += mostParts) {
        const made = readDrawerRows({ heads: read.heads, rows: read.rows.slice(at, at + mostParts) }, mapping, newId)
        const request = JSON.parse(JSON.stringify({ rows: made.parts })) as unknown
        await app.parts.bringIn(partRowsRequestSchema.parse(request).rows)
      }
    }),
  )
  app.close()
  const kept = new Database(join(folder, `whole${run}.sqlite`), { readonly: true })
  const stored = kept.prepare('SELECT * FROM parts').raw().all() as unknown[][]
  const names = kept
    .prepare('SELECT * FROM parts')
    .columns()
    .map(column => column.name)
  kept.close()
  if (stored.length !== count) throw new Error('not all parts are in the drawer')
  makeApplication(join(folder, `same${run}.sqlite`), migrations).close()
  const same = new Database(join(folder, `same${run}.sqlite`))
  same.pragma('synchronous = FULL')
  const put = same.prepare(`INSERT INTO parts (${names.join(', ')}) VALUES (${names.map(() => '?').join(', ')})`)
  runs.table.push(
    await timed(() => {
      for (let at = 0; at < count; at += mostParts)
        same.transaction(() => {
          for (const row of stored.slice(at, at + mostParts)) put.run(row)
        })()
    }),
  )
  same.close()
}
rmSync(folder, { recursive: true })
const median = (values: readonly number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!
// Each run is compared with the bare work done beside it, since the machine is not equally quick all the time.
const against = (bare: readonly number[]) => {
  const ratios = runs.whole.map((ms, run) => ms / (runs.parser[run]! + bare[run]!))
  return (
    `median ratio of ${ratios.length} runs ${median(ratios).toFixed(2)}, quickest against quickest ` +
    `${(Math.min(...runs.whole) / (Math.min(...runs.parser) + Math.min(...bare))).toFixed(2)}`
  )
}
console.log(
  `bringing ${count} rows in: ${median(runs.whole).toFixed(0)} ms (at most 4 times the bare parser and the bare database asked)`,
)
console.log(
  `  bare parser ${median(runs.parser).toFixed(0)} ms + bare database, the same parts put into the ` +
    `same table ${median(runs.table).toFixed(0)} ms: ${against(runs.table)}`,
)
console.log(
  `  bare parser + bare database, the cells of the file put into a table of texts without keys or ` +
    `checks ${median(runs.database).toFixed(0)} ms: ${against(runs.database)}`,
)
