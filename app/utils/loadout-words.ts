import { fixed, minutesBand, signed } from '#core/text/display'
import type { LongerBy, LoadoutCell, SheetFlight } from '#core/aircraft/flight'

/** "Clear +13.4" under the grams of a loadout. */
export function headroomTag(cell: LoadoutCell): string {
  const verdict = cell.binding?.verdict
  return verdict ? signed(verdict.headroomG, 1) : ''
}

/** The band of minutes, or why there is none. */
export function minutesWords(flight: SheetFlight | undefined): string {
  if (!flight) return ''
  if (flight.missing) return flight.missing.missing
  return flight.forecast!.why ?? minutesBand(flight.forecast!.hardMinutes, flight.forecast!.gentleMinutes)
}

/** "12 % longer (11 to 13)": the difference of two packs, which is surer than either. */
export function longerWords({ share, from, to }: LongerBy): string {
  const percent = (value: number) => fixed(Math.abs(value) * 100, Math.abs(value) < 0.095 ? 1 : 0)
  if (Math.abs(share) < 5e-4) return 'as long'
  const [low, high] = share > 0 ? [from, to] : [-to, -from]
  const range = percent(low) === percent(high) ? '' : ` (${percent(low)} to ${percent(high)})`
  return `${percent(share)} % ${share > 0 ? 'longer' : 'shorter'}${range}`
}

/** How many loadouts are clear: the line under the station. */
export function loadoutsWords(cells: readonly LoadoutCell[]): string {
  const flown = cells.filter(cell => !cell.never)
  if (flown.length === 0) return 'no pack yet'
  if (!flown.some(cell => cell.binding?.verdict))
    return (
      `${flown.length} ${flown.length === 1 ? 'loadout' : 'loadouts'}, ` +
      `${flown.some(cell => cell.binding) ? 'nothing that flies yet' : 'no limit'}`
    )
  const clear = flown.filter(cell => cell.intoReserveG === 0).length
  const onPurpose = flown.filter(cell => cell.onPurpose && cell.binding?.verdict?.word === 'Over').length
  return `${clear} of ${flown.length} clear${onPurpose > 0 ? ` · ${onPurpose} over on purpose` : ''}`
}
