import type { Db } from './open-database'

/** SQL of the server's secrets, by name. They are never part of any answer. */
export function secretsRepository(db: Db) {
  const select = db.prepare('SELECT value FROM secrets WHERE name = :name').pluck()
  const put = db.prepare(
    'INSERT INTO secrets (name, value) VALUES (:name, :value) ON CONFLICT (name) DO UPDATE SET value = excluded.value',
  )
  const remove = db.prepare('DELETE FROM secrets WHERE name = :name')
  return {
    get: (name: string) => (select.get({ name }) as string | undefined) ?? null,
    put: (name: string, value: string) => {
      put.run({ name, value })
    },
    remove: (name: string) => {
      remove.run({ name })
    },
  }
}
