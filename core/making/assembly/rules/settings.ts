import { usualCutOffV } from '../../../aircraft/power'
import type { Context } from './context'

/** Volts at which the warning is set: what the builder said in Packs, else where the flight ends there. */
export function cellWarningV({
  build,
  pack,
}: Context): { readonly cellV: number; readonly packV: number; readonly cells: number } | null {
  if (!pack?.pack) return null
  const { cells, chemistry } = pack.pack
  const cellV = build.flying?.warnCellV ?? build.flying?.endCellV ?? usualCutOffV(chemistry)
  return { cellV, packV: cellV * cells, cells }
}
