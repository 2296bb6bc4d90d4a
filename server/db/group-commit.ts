import { DataProblem } from './data-problem'
import type { Db } from './open-database'

/** How many turns of the event loop a commit waits at most while more writes keep coming. */
const mostTurns = 4
/** While another program holds the database, it is asked again so often, and for so long before those who wait are told. */
const lockedRetryMs = 40
const lockedMs = 3000

interface Waiting {
  work: () => unknown
  resolve: (value: never) => void
  reject: (reason: unknown) => void
}

const isLocked = (error: unknown) => /^SQLITE_(?:BUSY|LOCKED)/.test(String((error as { code?: unknown } | null)?.code))

/**
 * Writes that arrive together are committed together: each runs in its own savepoint of one transaction, and nobody is
 * answered before that transaction is on disk. A write that throws is rolled back alone; the others stand. While another
 * program holds the database, writes wait without keeping anybody else from being answered.
 * `onLost` is called when the commit itself fails, so that what was cached can be forgotten; nothing is written to a database
 * that is no longer where it was (`isThere`).
 */
export function groupCommit(db: Db, onLost: () => void, isThere: () => boolean = () => true) {
  const begin = db.prepare('BEGIN IMMEDIATE')
  const commit = db.prepare('COMMIT')
  const rollback = db.prepare('ROLLBACK')
  const save = db.prepare('SAVEPOINT one_write')
  const release = db.prepare('RELEASE one_write')
  const takeBack = db.prepare('ROLLBACK TO one_write')
  let queue: Waiting[] = []
  let lockedSinceMs: number | null = null

  /** Begins the transaction; false where another program holds the database. */
  function begun(): boolean {
    try {
      begin.run()
      lockedSinceMs = null
      return true
    } catch (error) {
      if (!isLocked(error)) throw error
      lockedSinceMs ??= performance.now()
      return false
    }
  }

  function flush(): void {
    if (!db.open || !isThere()) {
      refuseAll(new DataProblem('gone'))
      return
    }
    let batch: Waiting[] = []
    const answers: (() => void)[] = []
    try {
      if (!begun()) {
        waitForOthers()
        return
      }
      batch = queue
      queue = []
      const alone = batch.length === 1
      for (const { work, resolve, reject } of batch) {
        if (!alone) save.run()
        try {
          const value = work()
          answers.push(() => resolve(value as never))
        } catch (error) {
          ;(alone ? rollback : takeBack).run()
          answers.push(() => reject(error))
        }
        if (!alone) release.run()
      }
      if (db.inTransaction) commit.run()
    } catch (error) {
      if (db.inTransaction) rollback.run()
      onLost()
      queue = [...batch, ...queue]
      refuseAll(error)
      return
    }
    for (const answer of answers) answer()
  }

  function refuseAll(error: unknown): void {
    const all = queue
    queue = []
    for (const { reject } of all) reject(error)
  }

  function waitForOthers(): void {
    if (performance.now() - lockedSinceMs! > lockedMs) {
      lockedSinceMs = null
      refuseAll(new DataProblem('in use'))
      return
    }
    setTimeout(flush, lockedRetryMs)
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
