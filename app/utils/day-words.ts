import dayjs from 'dayjs'

/** The day and time of a moment: `14 October 2026, 19:00`. */
export const momentWords = (at: string): string => `${dayOf(at)}, ${dayjs(at).format('HH:mm')}`

/** A moment on an axis that is so long, ms: the time within two days, else the day. */
export const tickWords = (at: Date, lengthMs: number): string =>
  lengthMs < 2 * 86_400_000 ? dayjs(at).format('HH:mm') : dayOf(at, 'without year')
