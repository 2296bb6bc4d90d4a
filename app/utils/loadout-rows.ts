import type { LoadoutCell, LoadoutFigure, SheetFlight, SheetPack } from '#core/aircraft/flight'
import { spreadG, type Estimate } from '#core/maths/estimate'
import { packLabel, type Line } from '#core/model/ledger'
import { textOf } from '#core/model/properties'

/** A pack with every set-up of a build; null where a loadout is not shown. */
export interface LoadoutRow {
  readonly pack: SheetPack
  readonly packG: number
  readonly packSpreadG: number
  readonly cells: readonly (LoadoutCell | null)[]
  readonly retired: boolean
}
/** Which loadouts somebody wants to see. */
export interface LoadoutsShown {
  readonly onlyClear: boolean
  readonly withNever: boolean
  readonly withRetired: boolean
}

export const isRetired = (pack: Line): boolean => textOf(pack, 'packState') === 'retired'

/** One row a pack, in the order packs are first met, with one cell a set-up. */
export function loadoutRows(
  cells: readonly LoadoutCell[],
  setupIds: readonly string[],
  estimateOf: (pack: Line) => Estimate,
  { onlyClear, withNever, withRetired }: LoadoutsShown,
): LoadoutRow[] {
  const shows = (cell: LoadoutCell) => (withNever || !cell.never) && (!onlyClear || cell.intoReserveG === 0)
  const ofPack = new Map<string, LoadoutCell[]>()
  for (const cell of cells) ofPack.set(cell.pack.id, [...(ofPack.get(cell.pack.id) ?? []), cell])
  return [...ofPack.values()]
    .map((own): LoadoutRow => {
      const { pack: line, source } = own[0]!
      const estimate = estimateOf(line)
      return {
        pack: { source, line },
        packG: estimate.valueG,
        packSpreadG: spreadG(estimate),
        cells: setupIds
          .map(id => own.find(({ choice }) => choice.setupId === id) ?? null)
          .map(cell => (cell && shows(cell) ? cell : null)),
        retired: isRetired(line),
      }
    })
    .filter(row => (withRetired || !row.retired) && (!onlyClear || row.cells.some(cell => cell)))
}

/** What a pack fits with in none of its set-ups is said once, at the pack; the rest at each loadout. */
export function misfitsOfRow(
  { cells }: Pick<LoadoutRow, 'cells'>,
  flights: ReadonlyMap<string, Pick<SheetFlight, 'misfits'>>,
): { readonly all: readonly string[]; readonly of: (cell: LoadoutCell) => readonly string[] } {
  const misfits = (cell: LoadoutCell) => flights.get(cell.key)?.misfits ?? []
  const each = cells.flatMap(cell => (cell ? [misfits(cell)] : []))
  const all = (each[0] ?? []).filter(misfit => each.every(others => others.includes(misfit)))
  return { all, of: cell => misfits(cell).filter(misfit => !all.includes(misfit)) }
}

/** What a row is sorted by: a fact of the pack, or the figure on view of the set-up a column is of. Null where it cannot be told. */
export function loadoutValue(
  { pack: { line }, packG, cells }: LoadoutRow,
  key: string,
  setupIds: readonly string[],
  figure: LoadoutFigure,
  flights: ReadonlyMap<string, SheetFlight>,
): number | string | null {
  if (key === 'label') return packLabel(line).toLowerCase()
  if (key === 'mah') return line.pack?.capacityMah ?? null
  if (key === 'grams') return packG > 0 ? packG : null
  if (key === 'ratio') return capacityPerGram(line, packG)
  const cell = cells[setupIds.indexOf(key)]
  return cell ? figure.of(cell, flights.get(cell.key), packG) : null
}

/** mAh for each gram of a pack; null where one of both is not known. */
export const capacityPerGram = ({ pack }: Line, packG: number): number | null =>
  pack && packG > 0 ? pack.capacityMah / packG : null
