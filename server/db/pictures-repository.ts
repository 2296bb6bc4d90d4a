import { namingColumns } from './naming-columns'
import type { Db } from './open-database'

/** SQL of what names a picture. */
export function picturesRepository(db: Db) {
  const places = namingColumns.map(({ table, column }) => `EXISTS (SELECT 1 FROM ${table} WHERE instr(${column}, :id))`)
  const named = db.prepare(`SELECT ${places.join(' OR ')}`).pluck()
  return {
    /** Whether anything still names it. */
    isNamed: (id: string) => named.get({ id }) === 1,
  }
}
