import { dayWords, type DayLength } from '#core/text/display'
import { localDay } from '#shared/utils/local-day'

/** The day of a moment in words, in the order that was chosen: `3 November 2026`. */
export const dayOf = (at: Date | string, length: DayLength = 'long'): string => dayWords(localDay(at), length)
