import type { sessionsRepository } from '../db/sessions-repository'

/** A session ends by itself after so many days. */
export const sessionDays = 30
const dayMs = 86_400_000

/** Who is signed in from another device. Ending a session ends what is open under it, too. */
export function sessionService(
  repository: ReturnType<typeof sessionsRepository>,
  now: () => string,
  newId: () => string,
) {
  repository.removeOlder(new Date(Date.parse(now()) - sessionDays * dayMs).toISOString())
  const present = new Set(repository.ids())
  const open = new Map<string, Set<() => void>>()

  function close(id: string): void {
    const ends = open.get(id) ?? new Set()
    open.delete(id)
    for (const end of ends) end()
  }
  return {
    begin(): string {
      const id = newId()
      repository.insert(id, now())
      present.add(id)
      return id
    },
    isOn: (id: string) => present.has(id),
    end(id: string): void {
      repository.remove(id)
      present.delete(id)
      close(id)
    },
    endAll(): void {
      repository.removeAll()
      const ids = [...present]
      present.clear()
      for (const id of ids) close(id)
    },
    /** What ends with a session: a stream, say. Returns how to take it off again. */
    whileOn(id: string, end: () => void): () => void {
      const ends = open.get(id) ?? new Set()
      open.set(id, ends.add(end))
      return () => {
        ends.delete(end)
      }
    },
  }
}
export type SessionService = ReturnType<typeof sessionService>
