import type { Db } from './open-database'

/** How many turns of the event loop a commit waits at most while more writes keep coming. */
const mostTurns = 4

interface Waiting { work: () => unknown, resolve: (value: never) => void, reject: (reason: unknown) => void }

/**
 * Writes that arrive together are committed together: each runs in its own savepoint of one transaction, and nobody is
 * answered before that transaction is on disk. A write that throws is rolled back alone; the others stand.
 * `onLost` is called when the commit itself fails, so that what was cached can be forgotten.
 */
export function groupCommit(db: Db, onLost: () => void) {
  const begin = db.prepare('BEGIN IMMEDIATE')
  const commit = db.prepare('COMMIT')
  const rollback = db.prepare('ROLLBACK')
  const save = db.prepare('SAVEPOINT one_write')
  const release = db.prepare('RELEASE one_write')
  const takeBack = db.prepare('ROLLBACK TO one_write')
  let queue: Waiting[] = []

  function flush(): void {
    const batch = queue
    queue = []
    const answers: (() => void)[] = []
    try {
      begin.run()
      for (const { work, resolve, reject } of batch) {
        save.run()
        try {
          const value = work()
          answers.push(() => resolve(value as never))
        }
        catch (error) {
          takeBack.run()
          answers.push(() => reject(error))
        }
        release.run()
      }
      commit.run()
    }
    catch (error) {
      if (db.inTransaction) rollback.run()
      onLost()
      for (const { reject } of batch) reject(error)
      return
    }
    for (const answer of answers) answer()
  }

  /** Commits once a turn of the loop has brought nothing new: a lone write at once, a crowd together. */
  function gather(seen: number, turnsLeft: number): void {
    if (queue.length === seen || turnsLeft === 0) flush()
    else setImmediate(() => gather(queue.length, turnsLeft - 1))
  }

  return {
    /** Runs `work` inside the next shared transaction; resolves once it is durable. */
    write<T>(work: () => T): Promise<T> {
      return new Promise<T>((resolve, reject) => {
        queue.push({ work, resolve: resolve as Waiting['resolve'], reject })
        if (queue.length === 1) setImmediate(() => gather(1, mostTurns))
      })
    },
  }
}
export type GroupCommit = ReturnType<typeof groupCommit>
