import dayjs from 'dayjs'

/** The day it is, or was at a moment, where the machine is, as `2026-11-28`. */
export const localDay = (at?: string): string => dayjs(at).format('YYYY-MM-DD')
