import { CoreInputError } from '../../basics/errors'
import { discharge, openCircuitV, type DischargeOf, type PackModel } from '../power'

/** Relative width at which a power found by halving is taken. */
const closeEnough = 1e-12
/** No craft of this kind draws more, W: where nothing else ends the search. */
const mostW = 1e6

/** The greatest power between two bounds that `holds`, which is true below some power and false above; halving the ratio. */
function greatest(low: number, high: number, holds: (powerW: number) => boolean): number {
  let [from, to] = [low, high]
  while (to - from > closeEnough * to) {
    const middle = Math.sqrt(from * to)
    if (middle <= from || middle >= to) break
    if (holds(middle)) from = middle
    else to = middle
  }
  return (from + to) / 2
}

/**
 * The constant power that takes a pack from one charge to another in so many seconds, W; null where no power does: even
 * the most it can give takes longer. Charges 0 to 1. Throws where the charge does not fall, or the time is not above zero.
 *
 * @example meanPowerW({ cells: 4, chemistry: 'LiPo', capacityMah: 850, cellResistanceMohm: 35.3 / 4 }, 1, 0.22, 228) // 160.2968
 */
export function meanPowerW(pack: PackModel, fromCharge: number, toCharge: number, seconds: number): number | null {
  if (!(seconds > 0) || !Number.isFinite(seconds))
    throw new CoreInputError('meanPowerW', 'seconds', seconds, { is: 'in range', above: 0 })
  if (!(toCharge >= 0 && toCharge < fromCharge))
    throw new CoreInputError('meanPowerW', 'toCharge', toCharge, { is: 'in range', least: 0, most: fromCharge })
  const ohm = (pack.cells * pack.cellResistanceMohm) / 1000
  const endV = pack.cells * openCircuitV(pack.chemistry, toCharge)
  const most = ohm > 0 ? Math.min(mostW, (endV * endV) / (4 * ohm)) : mostW
  const lasts = (powerW: number) =>
    discharge(pack, { powerW, startCharge: fromCharge, cutOffCellV: 0, reserve: toCharge }).timeS >= seconds
  const least = 1e-6
  // Just below the most it can give, so that the pack is not taken to collapse by a rounding.
  const top = most * (1 - 1e-9)
  if (lasts(top) || !lasts(least)) return null
  return greatest(least, top, lasts)
}

/**
 * The greatest constant power at which a discharge to its end lasts so many seconds, W. `of` is the discharge without
 * its power; 0 where even next to none does not last as long.
 */
export function powerThatLastsW(pack: PackModel, of: Omit<DischargeOf, 'powerW'>, seconds: number): number {
  if (!(seconds > 0) || !Number.isFinite(seconds))
    throw new CoreInputError('powerThatLastsW', 'seconds', seconds, { is: 'in range', above: 0 })
  const lasts = (powerW: number) => discharge(pack, { ...of, powerW }).timeS >= seconds
  const least = 1e-6
  return lasts(least) ? greatest(least, mostW, lasts) : 0
}
