import type { Line } from '#core/model/ledger'
import type { Estimate } from '#core/maths/estimate'
import type { SheetColumn } from '#shared/sheet/edit-cell'

/** All a row of the ledger is drawn from: as long as it is the same, so is the row. */
export interface SheetRowProps {
  readonly line: Line
  readonly estimate: Estimate
  /** Whether its grams are in the total of the loadout looked at. */
  readonly counted: boolean
  readonly selected: boolean
  /** Chosen to be changed together with others. */
  readonly chosen: boolean
  readonly activeColumn: SheetColumn | null
  /** The text the editor opens with; null while the row is only read. */
  readonly draft: string | null
  /** Whether the editor opens with the cell’s own text, all of it chosen. */
  readonly whole: boolean
  readonly problem: string
  /** For candidates: grams against the fitted line. */
  readonly deltaG: number | null
}
