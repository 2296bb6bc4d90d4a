import type { Chemistry } from '../ledger'
import cellFacts from '../facts/cells.json'

interface CellPoint { readonly chemistry: string, readonly chargePercent: number, readonly openCircuitV: number }
const points: readonly CellPoint[] = cellFacts

const curve = (chemistry: Chemistry) => points.filter(point => point.chemistry === chemistry)

/** Open-circuit volts of one full cell. */
export function fullCellV(chemistry: Chemistry): number {
  return curve(chemistry).at(-1)!.openCircuitV
}

/** Open-circuit volts of one empty cell. */
export function emptyCellV(chemistry: Chemistry): number {
  return curve(chemistry)[0]!.openCircuitV
}
