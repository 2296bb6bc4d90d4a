import type { Db } from './open-database'

/** SQL of the name of the data themselves. */
export function identityRepository(db: Db) {
  const select = db.prepare('SELECT id FROM identity').pluck()
  const renew = db.prepare('UPDATE identity SET id = lower(hex(randomblob(16)))')
  return {
    get: () => select.get() as string,
    /** These are other data from now on. */
    renew: () => {
      renew.run()
    },
  }
}
