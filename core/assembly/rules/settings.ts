import { blankFlightPlan } from '../../power'
import type { Context } from './context'

/** Volts at which the warning is set: what the builder said in Packs, else by chemistry, under load. */
const usualWarningV: Readonly<Record<string, number>> = { 'LiPo': 3.5, 'LiHV': 3.5, 'Li-ion': 3.0 }

export function cellWarningV({ build, pack }: Context): { readonly cellV: number, readonly packV: number, readonly cells: number } | null {
  if (!pack?.pack) return null
  const { cells, chemistry } = pack.pack
  const cellV = (build.flying ?? blankFlightPlan).warnCellV ?? usualWarningV[chemistry] ?? 3.5
  return { cellV, packV: cellV * cells, cells }
}
