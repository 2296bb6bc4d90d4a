import dayjs from 'dayjs'

/** The day it is where this runs, or was at a moment, as `2026-11-28`. */
export const localDay = (at: Date | string = new Date()): string => dayjs(at).format('YYYY-MM-DD')
