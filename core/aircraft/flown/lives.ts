import type { Flight } from './flight'
import { lifeSlots, type FlownPart } from './flown-parts'

/** A new one was put in the place of a part: flights before count for the old one. */
export interface Renewal {
  readonly id: string
  readonly buildId: string
  readonly key: string
  /** Local day and time. */
  readonly at: string
}

/** What one part has flown since it was fitted. */
export interface PartLife extends FlownPart {
  readonly flights: number
  readonly minutes: number
  readonly firstAt: string
  readonly lastAt: string
  /** Builds it flew on. */
  readonly buildIds: readonly string[]
  /** When another one took its place; null while it flies. */
  readonly retiredAt: string | null
}

interface Running {
  part: FlownPart
  flights: number
  seconds: number
  firstAt: string
  lastAt: string
  buildIds: Set<string>
  retiredAt: string | null
}

/**
 * What every part has flown, those in use first, each kind by what it has flown. Flights before a renewal count for the part
 * that was there then, and it keeps them.
 */
export function partLives(flights: readonly Flight[], renewals: readonly Renewal[]): PartLife[] {
  const times = new Map<string, string[]>()
  for (const { key, at } of renewals) times.set(key, [...(times.get(key) ?? []), at].sort())
  const lives = new Map<string, Running>()
  for (const { flownAt, durationS, buildId, snapshot } of flights)
    for (const part of snapshot.parts) {
      const renewed = times.get(part.key) ?? []
      const before = renewed.filter(at => at <= flownAt).length
      const key = `${part.key}@${before}`
      const life = lives.get(key) ?? {
        ...{ part, flights: 0, seconds: 0, firstAt: flownAt, lastAt: flownAt },
        ...{ buildIds: new Set<string>(), retiredAt: renewed[before] ?? null },
      }
      if (flownAt >= life.lastAt) life.part = part
      life.flights++
      life.seconds += durationS
      if (flownAt < life.firstAt) life.firstAt = flownAt
      if (flownAt > life.lastAt) life.lastAt = flownAt
      life.buildIds.add(buildId)
      lives.set(key, life)
    }
  return [...lives.values()]
    .map(({ part, flights: count, seconds, firstAt, lastAt, buildIds, retiredAt }) => ({
      ...part,
      ...{ flights: count, minutes: seconds / 60, firstAt, lastAt, buildIds: [...buildIds].sort(), retiredAt },
    }))
    .sort(
      (a, b) =>
        Number(a.retiredAt !== null) - Number(b.retiredAt !== null) ||
        lifeSlots.indexOf(a.slot) - lifeSlots.indexOf(b.slot) ||
        b.flights - a.flights ||
        (a.name < b.name ? -1 : 1),
    )
}
