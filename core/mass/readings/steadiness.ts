import type { Reading } from './parse-line'

/** A reading with the time it came, milliseconds of any steady clock. */
export interface TimedReading extends Reading {
  readonly atMs: number
}

/** Whether what is on the pan has come to rest, and what it reads. */
export interface Steadiness {
  readonly steady: boolean
  /** How long it has stayed within one step, seconds. */
  readonly forS: number
  /** The display to take: the most frequent reading of the steady stretch; null when there is none. */
  readonly displayG: number | null
  /** Why it cannot be taken, as a sentence; empty when it can. */
  readonly reason: string
}

const leastSamples = 5
const leastMs = 1000

/**
 * Steady is at least five readings over a second or more, all within one step, the last not marked unsteady by the scale
 * and no overload among them. `stepG` is the scale's resolution; readings are oldest first.
 */
export function steadiness(readings: readonly TimedReading[], stepG: number): Steadiness {
  const last = readings.at(-1)
  if (!last) return { steady: false, forS: 0, displayG: null, reason: 'No reading has come yet.' }
  if (last.overload || last.massG === null)
    return {
      steady: false,
      forS: 0,
      displayG: null,
      reason: 'Too heavy for this scale: it says overload. Weigh it in two lifts.',
    }
  let low = last.massG
  let high = last.massG
  let first = readings.length - 1
  for (let i = readings.length - 1; i >= 0; i--) {
    const { massG, overload, marked } = readings[i]!
    if (massG === null || overload || marked === 'unstable') break
    low = Math.min(low, massG)
    high = Math.max(high, massG)
    if (high - low > stepG * 1.000001) break
    first = i
  }
  const stretch = readings.slice(first)
  const forMs = last.atMs - stretch[0]!.atMs
  if (last.marked === 'unstable')
    return { steady: false, forS: 0, displayG: last.massG, reason: 'The scale says it is still moving.' }
  if (stretch.length < leastSamples || forMs < leastMs)
    return {
      steady: false,
      forS: forMs / 1000,
      displayG: last.massG,
      reason: 'Not steady yet: it needs a second at rest.',
    }
  return { steady: true, forS: forMs / 1000, displayG: mostFrequent(stretch), reason: '' }
}

function mostFrequent(readings: readonly TimedReading[]): number {
  const counts = new Map<number, number>()
  let best = readings.at(-1)!.massG!
  for (const { massG } of readings) counts.set(massG!, (counts.get(massG!) ?? 0) + 1)
  for (const [massG, count] of counts) if (count > counts.get(best)!) best = massG
  return best
}
