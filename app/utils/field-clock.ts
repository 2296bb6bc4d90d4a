/** One flight on the clock: moments in milliseconds, so that neither a locked screen nor a reload stops it. */
export type FieldClock =
  | { readonly phase: 'before' }
  | { readonly phase: 'air'; readonly startedMs: number; readonly warnedMs: number | null }
  | {
      readonly phase: 'landed'
      readonly startedMs: number
      readonly warnedMs: number | null
      readonly landedMs: number
    }

export type FieldPress = 'go' | 'warning' | 'not yet' | 'landed' | 'still flying' | 'done'

export const clockAtRest: FieldClock = { phase: 'before' }

/** What a press does to the clock; a press that means nothing there leaves it as it is. */
export function pressed(clock: FieldClock, press: FieldPress, nowMs: number): FieldClock {
  if (press === 'done') return clockAtRest
  if (clock.phase === 'before') return press === 'go' ? { phase: 'air', startedMs: nowMs, warnedMs: null } : clock
  if (clock.phase === 'landed')
    return press === 'still flying' ? { phase: 'air', startedMs: clock.startedMs, warnedMs: clock.warnedMs } : clock
  if (press === 'warning') return clock.warnedMs === null ? { ...clock, warnedMs: nowMs } : clock
  if (press === 'not yet') return { ...clock, warnedMs: null }
  // A flight lasts at least a second: a second press at once is a slip.
  return press === 'landed' && nowMs - clock.startedMs >= 1000 ? { ...clock, phase: 'landed', landedMs: nowMs } : clock
}

/** Seconds in the air so far, or in all. */
export function secondsOf(clock: FieldClock, nowMs: number): number {
  if (clock.phase === 'before') return 0
  return Math.max(0, ((clock.phase === 'landed' ? clock.landedMs : nowMs) - clock.startedMs) / 1000)
}

/** A clock as it was kept in the browser; at rest where what is there is none. */
export function readClock(text: string | null): FieldClock {
  try {
    const kept = JSON.parse(text ?? '') as Partial<Extract<FieldClock, { phase: 'landed' }>>
    if (kept.phase === ('before' as string)) return clockAtRest
    const { phase, startedMs, warnedMs, landedMs } = kept
    if (typeof startedMs !== 'number' || !(warnedMs === null || typeof warnedMs === 'number')) return clockAtRest
    if (phase === ('air' as string)) return { phase: 'air', startedMs, warnedMs }
    return phase === 'landed' && typeof landedMs === 'number'
      ? { phase: 'landed', startedMs, warnedMs, landedMs }
      : clockAtRest
  } catch {
    return clockAtRest
  }
}
