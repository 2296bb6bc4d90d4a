import type { EditDatabase } from './storage'
import type { Exclusively } from './types'

/** A lease that is not renewed ends after this: its tab was closed or sleeps. */
const leaseMs = 4000
const renewMs = 1000
const lookAgainMs = 120

/** By the browser’s own locks, which end with their tab. Only where the browser trusts the origin. */
export function byWebLocks(locks: LockManager): Exclusively {
  return (name, work) => locks.request(`edits of ${name}`, work) as Promise<never>
}

/**
 * By leases in the database that all tabs share, where there are no locks (plain http). A tab that falls asleep while it
 * holds one loses it after four seconds; should it wake in the middle, edits are sent twice and done once.
 */
export function byLeases(opened: Promise<EditDatabase>, holder: string, nowMs: () => number = Date.now): Exclusively {
  const pause = (ms: number) => new Promise(done => setTimeout(done, ms))

  async function take(name: string): Promise<boolean> {
    const work = (await opened).transaction('leases', 'readwrite')
    const held = await work.store.get(name)
    const now = nowMs()
    // A lease far in the future was written by a clock that has been put back since.
    const free = !held || held.holder === holder || held.untilMs <= now || held.untilMs > now + 2 * leaseMs
    if (free) await work.store.put({ name, holder, untilMs: now + leaseMs })
    await work.done
    return free
  }
  async function giveBack(name: string): Promise<void> {
    const work = (await opened).transaction('leases', 'readwrite')
    if ((await work.store.get(name))?.holder === holder) await work.store.delete(name)
    await work.done
  }

  /** Within one tab, work of one name comes one after another. */
  const lines = new Map<string, Promise<unknown>>()

  async function withLease<T>(name: string, work: () => Promise<T>): Promise<T> {
    // Without a database there are no leases, and nothing another tab could send.
    while (!(await take(name).catch(() => true))) await pause(lookAgainMs)
    const renewing = setInterval(() => {
      void take(name).catch(() => undefined)
    }, renewMs)
    try {
      return await work()
    } finally {
      clearInterval(renewing)
      await giveBack(name).catch(() => undefined)
    }
  }
  return (name, work) => {
    const turn = (lines.get(name) ?? Promise.resolve()).catch(() => undefined).then(() => withLease(name, work))
    lines.set(name, turn)
    return turn
  }
}

/** Within this tab alone, for a browser that keeps nothing. */
export function byTurns(): Exclusively {
  const lines = new Map<string, Promise<unknown>>()
  return (name, work) => {
    const turn = (lines.get(name) ?? Promise.resolve()).catch(() => undefined).then(work)
    lines.set(name, turn)
    return turn
  }
}
