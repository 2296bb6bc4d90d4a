import { fixed, gramsWithSpread, minutesBand, signed } from '#core/text/display'
import type { LongerBy, LoadoutCell, LoadoutFigure, SheetFlight } from '#core/aircraft/flight'
import { withSetup } from '#core/mass/loadout'
import { judgementWord } from '#core/mass/report'
import { coverageFactor95 } from '#core/maths/numbers'
import { packLabel } from '#core/model/ledger'

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

/** The figure on view of a loadout, with its unit; '' where it cannot be told. `packG`: grams of its pack. */
export function loadoutFigureWords(
  figure: LoadoutFigure,
  cell: LoadoutCell,
  flight: SheetFlight | undefined,
  packG: number,
): string {
  if (figure.key === 'minutes') {
    if (!flight) return ''
    return flight.forecast?.why === null ? minutesWords(flight) : 'no minutes'
  }
  const value = figure.of(cell, flight, packG)
  return value === null ? '' : `${fixed(value, figure.digits)} ${figure.unit}`
}

/** How many counted lines have no grams: "one line without grams". */
export const openWords = (openLines: number): string =>
  `${openLines === 1 ? 'one line' : `${openLines} lines`} without grams`

/** A loadout in a sentence or two, for those who rest on it. */
export function loadoutTitle(cell: LoadoutCell, setupName: string, flight: SheetFlight | undefined): string {
  const { binding, openLines } = cell
  const verdict = binding?.verdict
    ? `${binding.verdict.word}, ${headroomTag(cell)} g`
    : binding
      ? judgementWord(binding)
      : 'no limit'
  const misfits = flight?.misfits ?? []
  return (
    `${packLabel(cell.pack)} ${withSetup(setupName)}: ` +
    `${gramsWithSpread(cell.massG, cell.sigmaG * coverageFactor95, binding?.limitG)}, ` +
    `${verdict}${openLines > 0 ? `, ${openWords(openLines)}` : ''}. ` +
    `${minutesWords(flight)}${misfits.length > 0 ? `. Does not fit: ${misfits.join('; ')}` : ''}`
  )
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
