import type { Db } from './open-database'

/** SQL of the sessions of other devices. */
export function sessionsRepository(db: Db) {
  const insert = db.prepare('INSERT INTO sessions (id, made_at) VALUES (:id, :madeAt)')
  const all = db.prepare('SELECT id FROM sessions').pluck()
  const remove = db.prepare('DELETE FROM sessions WHERE id = :id')
  const removeAll = db.prepare('DELETE FROM sessions')
  const removeOlder = db.prepare('DELETE FROM sessions WHERE made_at < :before')
  return {
    ids: () => all.all() as string[],
    insert: (id: string, madeAt: string) => {
      insert.run({ id, madeAt })
    },
    remove: (id: string) => {
      remove.run({ id })
    },
    removeAll: () => {
      removeAll.run()
    },
    removeOlder: (before: string) => {
      removeOlder.run({ before })
    },
  }
}
