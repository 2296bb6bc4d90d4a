import dayjs from 'dayjs'

/** The day it is where the machine is, as `2026-11-28`. */
export const localDay = (): string => dayjs().format('YYYY-MM-DD')
