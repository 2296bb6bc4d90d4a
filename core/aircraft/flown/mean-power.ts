import { CoreInputError } from '../../basics/errors'
import { discharge, openCircuitV, type DischargeOf, type PackModel } from '../power'

/** How close a power is found: relative, in the power and in the time it lasts. */
const closeEnough = 1e-12
/** No craft of this kind draws more, W: where nothing else ends the search. */
const mostW = 1e6
/** Next to no power, W. */
const leastW = 1e-6

/** Steps after which a search ends however close it is: halving alone would be done in fifty. */
const mostSteps = 80

/**
 * The greatest power between two bounds at which a flight lasts so many seconds; longer below, shorter above. The logarithm
 * of the time falls nearly evenly with that of the power, so chords find it in a few steps (regula falsi in its Illinois
 * form); where a chord does not serve, the ratio is halved.
 */
function powerLasting(low: number, high: number, seconds: number, timeS: (powerW: number) => number): number {
  const off = (lnPower: number) => Math.log(timeS(Math.exp(lnPower)) / seconds)
  let [from, to] = [Math.log(low), Math.log(high)]
  let [above, below] = [off(from), off(to)]
  let side = 0
  for (let step = 0; step < mostSteps && to - from > closeEnough; step++) {
    const chord = (from * below - to * above) / (below - above)
    const isChord = Number.isFinite(chord) && chord > from && chord < to
    const at = isChord ? chord : (from + to) / 2
    if (at <= from || at >= to) break
    const value = off(at)
    if (Math.abs(value) < closeEnough) return Math.exp(at)
    if (value > 0) {
      ;[from, above] = [at, value]
      if (side === 1) below /= 2
      side = 1
    } else {
      ;[to, below] = [at, value]
      if (side === -1) above /= 2
      side = -1
    }
  }
  return Math.exp((from + to) / 2)
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
  const timeS = (powerW: number) =>
    discharge(pack, { powerW, startCharge: fromCharge, cutOffCellV: 0, reserve: toCharge }).timeS
  // Just below the most it can give, so that the pack is not taken to collapse by a rounding.
  const top = most * (1 - 1e-9)
  if (timeS(top) >= seconds || timeS(leastW) < seconds) return null
  return powerLasting(leastW, top, seconds, timeS)
}

/**
 * The greatest constant power at which a discharge to its end lasts so many seconds, W. `of` is the discharge without
 * its power; 0 where even next to none does not last as long.
 */
export function powerThatLastsW(pack: PackModel, of: Omit<DischargeOf, 'powerW'>, seconds: number): number {
  if (!(seconds > 0) || !Number.isFinite(seconds))
    throw new CoreInputError('powerThatLastsW', 'seconds', seconds, { is: 'in range', above: 0 })
  const timeS = (powerW: number) => discharge(pack, { ...of, powerW }).timeS
  return timeS(leastW) >= seconds ? powerLasting(leastW, mostW, seconds, timeS) : 0
}
