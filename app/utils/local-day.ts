import dayjs from 'dayjs'
import { dayWords, type DayLength } from '#core/text/display'

/** The day it is where the builder is, as `2026-11-28`. */
export function localDay(at: Date | string = new Date()): string {
  return dayjs(at).format('YYYY-MM-DD')
}

/** The day of a moment in words, in the order that was chosen: `3 November 2026`. */
export const dayOf = (at: Date | string, length: DayLength = 'long'): string => dayWords(localDay(at), length)
