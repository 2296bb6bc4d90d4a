import { CoreInputError, requireFinite } from '../../basics/errors'
import type { Chemistry, PackFacts } from '../../model/data'
import cellFacts from './cells.json'

/** A point of a cell's curve: charge 0 to 1, open-circuit volts of one cell. */
export interface CurvePoint {
  readonly charge: number
  readonly openV: number
}

function curveOf(chemistry: Chemistry): readonly CurvePoint[] {
  return cellFacts
    .filter(point => point.chemistry === chemistry)
    .map(point => ({ charge: point.chargePercent / 100, openV: point.openCircuitV }))
}
const curves: Readonly<Record<Chemistry, readonly CurvePoint[]>> = {
  LiPo: curveOf('LiPo'),
  LiHV: curveOf('LiHV'),
  'Li-ion': curveOf('Li-ion'),
}

/** Open-circuit volts by charge, from empty to full; linear between the points, volts rising throughout. */
export function cellCurve(chemistry: Chemistry): readonly CurvePoint[] {
  return curves[chemistry]
}

/** Open-circuit volts of one full cell. */
export function fullCellV(chemistry: Chemistry): number {
  return curves[chemistry].at(-1)!.openV
}

/** Open-circuit volts of one empty cell. */
export function emptyCellV(chemistry: Chemistry): number {
  return curves[chemistry][0]!.openV
}

/** Open-circuit volts of one cell at a charge from 0 (empty) to 1 (full). Throws outside that range. */
export function openCircuitV(chemistry: Chemistry, charge: number): number {
  if (!(charge >= 0 && charge <= 1))
    throw new CoreInputError('openCircuitV', 'charge', charge, { is: 'in range', least: 0, most: 1 })
  const curve = curves[chemistry]
  const above = Math.max(
    1,
    curve.findIndex(point => point.charge >= charge),
  )
  const [a, b] = [curve[above - 1]!, curve[above]!]
  return a.openV + ((b.openV - a.openV) * (charge - a.charge)) / (b.charge - a.charge)
}

/** Energy of a pack, watt-hours, by the open-circuit volts of half a charge: one choice for every place that names it. */
export function packWh({
  chemistry,
  cells,
  capacityMah,
}: Pick<PackFacts, 'chemistry' | 'cells' | 'capacityMah'>): number {
  return (capacityMah / 1000) * cells * openCircuitV(chemistry, 0.5)
}

/** The charge, 0 to 1, at which a resting cell shows so many volts; 0 below the curve, 1 above it. */
export function chargeAtV(chemistry: Chemistry, cellV: number): number {
  requireFinite('chargeAtV', 'cellV', cellV)
  const curve = curves[chemistry]
  if (cellV <= curve[0]!.openV) return 0
  const above = curve.findIndex(point => point.openV >= cellV)
  if (above < 0) return 1
  const [a, b] = [curve[above - 1]!, curve[above]!]
  return a.charge + ((b.charge - a.charge) * (cellV - a.openV)) / (b.openV - a.openV)
}

/** Resistance of a cell nobody has measured, milliohms: falls with capacity; ±40 %. */
export function assumedCellResistanceMohm(chemistry: Chemistry, capacityMah: number): number {
  if (!(capacityMah > 0) || !Number.isFinite(capacityMah))
    throw new CoreInputError('assumedCellResistanceMohm', 'capacityMah', capacityMah, { is: 'in range', above: 0 })
  return ((chemistry === 'Li-ion' ? 75 : 7.5) * 1000) / capacityMah
}
/** How far an assumed resistance may be off, as a share of it. */
export const assumedResistanceSpread = 0.4

/** Volts per cell under load at which to land, unless the builder says otherwise. */
export function usualCutOffV(chemistry: Chemistry): number {
  return chemistry === 'Li-ion' ? 3 : 3.5
}
