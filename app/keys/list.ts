import { stations } from '../stations'
import { places, shortcuts, type Place } from './registry'

/** Keys of the sheet, which act on the cell that has the focus; `grid-keys` reads them. */
const sheetKeys: readonly (readonly [string, string])[] = [
  ['↑ ↓ ← →', 'move between cells'],
  ['Enter, typing', 'edit the cell'],
  ['Tab, Enter', 'keep what was typed and move on'],
  ['Esc', 'leave it as it was'],
  ['17.02 w', 'grams with how they are known: w weighed, l listed, o worked out, ~ guess'],
  ['6.91 6.88 6.97', 'several pieces weighed one by one, in “Each”'],
  ['Delete', 'take the line off, or bring it back'],
  ['Alt ↑ ↓', 'move the line'],
  ['Space, Shift ↑ ↓', 'choose the row, or rows, for several at once'],
  ['Menu key, Shift F10', 'what can be done with the row'],
  ['Ctrl D', 'duplicate'],
  ['Ctrl V', 'paste rows from a spreadsheet'],
  ['Ctrl Z', 'take back'],
]

/** Every key with what it does, by place: the list of keys. */
export function keyList(): readonly { readonly place: Place; readonly rows: readonly (readonly [string, string])[] }[] {
  const stationKeys = stations.map(station => station.key).join(' ')
  const stationNames = `${stations.map(station => station.name).join(', ')} of the open build`
  return places.map(place => ({
    place,
    rows: [
      ...(place === 'Everywhere' ? [[stationKeys, stationNames] as const] : []),
      ...Object.values(shortcuts)
        .filter(one => one.place === place)
        .map(({ label, what }) => [label, what] as const),
      ...(place === 'In the sheet' ? sheetKeys : []),
    ],
  }))
}
