import { afterAll, expect, it } from 'vitest'
import Database from 'better-sqlite3'
import { applicationOnDisk } from '../testing'
import { namingColumns } from './naming-columns'

const disk = applicationOnDisk()
afterAll(() => {
  disk.app.close()
  disk.remove()
})

/** Columns of the same names whose values cannot name a file: their schemas have no ids of pictures, photos or logs. */
const nameNone = [
  'assembly_templates.value',
  'renewals.value',
  'secrets.value',
  'settings.value',
  'settings_records.value',
]

it('every column that holds what a build, a part or a flight is made of is looked through for names of files', () => {
  const db = new Database(disk.path, { readonly: true })
  const columns = db
    .prepare(
      `SELECT t.name || '.' || c.name FROM sqlite_master t JOIN pragma_table_info(t.name) c
       WHERE t.type = 'table' AND c.name IN ('picture_ids', 'observation', 'value', 'patch', 'changes')`,
    )
    .pluck()
    .all() as string[]
  db.close()
  const looked = namingColumns.map(({ table, column }) => `${table}.${column}`)
  expect(columns.filter(column => !nameNone.includes(column)).sort()).toEqual([...looked].sort())
})
