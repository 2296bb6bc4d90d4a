import dayjs from 'dayjs'

/** The day it is where the builder is, as `2026-11-28`. */
export function localDay(at: Date = new Date()): string {
  return dayjs(at).format('YYYY-MM-DD')
}
