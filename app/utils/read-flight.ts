import type { LandingRead } from '#core/aircraft/flown'
import { isNotRead, readNumber, withoutUnit } from '#core/text/units'
import { localDay } from '#shared/utils/local-day'

/** The day and time it is where the builder is: to the second, so that what is noted after another comes after it. */
export const localMoment = (at = new Date()): string => `${localDay(at)}T${at.toTimeString().slice(0, 8)}`

/** A figure typed into a field of a flight: empty is nothing said. */
export function readOptional(text: string, ...units: string[]): { value: number | null } | { problem: string } {
  if (text.trim() === '') return { value: null }
  const read = readNumber(withoutUnit(text, ...units))
  return isNotRead(read) ? read : { value: read.value }
}

/**
 * Landing volts as they are typed: `15.2` of the pack, `3.62 a cell`. Up to four and a half volts on a pack of several cells
 * those of one cell are meant.
 */
export function readLanding(
  text: string,
  cells: number | undefined,
  before: LandingRead | null,
): { value: LandingRead | null } | { problem: string } {
  const said = text.trim()
  if (said === '') return { value: null }
  const ofCell = /(?:a|per|\/)\s*cell$/i.test(said)
  const read = readNumber(withoutUnit(said.replace(/(?:a|per|\/)\s*cell$/i, ''), 'V', 'volts'))
  if (isNotRead(read)) return { problem: `“${said}” is no voltage. Type 15.2, or 3.8 a cell.` }
  const isCell = ofCell || (cells !== 1 && read.value <= 4.5)
  const value: LandingRead = {
    volts: read.value,
    of: isCell ? 'cell' : 'pack',
    loadA: before?.loadA ?? null,
    isFresh: before?.isFresh ?? false,
  }
  return { value }
}
