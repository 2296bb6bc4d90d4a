import { quantile } from '../../maths/numbers'
import type { TelemetryLog } from './log'

/** Longer than this between two rows nothing is known of the time between, s. */
const gapS = 2
/** A craft is in the air while it draws for longer than this; a cut of the throttle shorter than this is part of the flight, s. */
const airborneS = 3

export interface Stretch {
  readonly fromS: number
  readonly toS: number
}

/** Half of the median of the upper half of the amps: under it nothing lifts. Null without amps above zero. */
export function airborneThresholdA(log: TelemetryLog): number | null {
  const amps = log.of.amps?.filter(value => value > 0).sort()
  if (!amps || amps.length === 0) return null
  return quantile(amps, 0.75) / 2
}

/** When the craft was in the air: stretches of more than 3 s above the threshold, cuts of less than 3 s among them. */
export function airborne({ timeS, of }: TelemetryLog, thresholdA: number): Stretch[] {
  const { amps } = of
  if (!amps) return []
  const joined: { fromS: number; toS: number }[] = []
  let isOn = false
  for (let i = 0; i < timeS.length; i++) {
    const wasOn = isOn
    isOn = amps[i]! > thresholdA
    const s = timeS[i]!
    if (isOn && !wasOn) {
      const last = joined.at(-1)
      if (last && s - last.toS < airborneS) last.toS = s
      else joined.push({ fromS: s, toS: s })
    } else if (isOn || wasOn) joined.at(-1)!.toS = s
  }
  return joined.filter(({ fromS, toS }) => toS - fromS > airborneS)
}

/** What a stretch of a log adds up to. Figures are of the time logged: gaps over 2 s are not bridged. */
export interface LogFigures {
  readonly loggedS: number
  readonly gaps: number
  readonly gapsS: number
  readonly mah: number
  /** Null without volts. */
  readonly wh: number | null
  readonly meanA: number | null
  readonly meanW: number | null
  readonly peakA: number | null
  readonly leastV: number | null
}

/** Volts of the pack in each row; of one cell times the cells where only those are logged. */
export function loggedPackVolts({ of }: TelemetryLog, cells: number): Float64Array | null {
  return of.packV ?? of.cellV?.map(value => value * cells) ?? null
}

/** Charge and energy of a stretch by trapezoid, over rows that say amps. Empty stretches add up to nothing. */
export function logFigures(log: TelemetryLog, { fromS, toS }: Stretch, cells: number): LogFigures {
  const { timeS } = log
  const { amps } = log.of
  const volts = loggedPackVolts(log, cells)
  let [loggedS, gaps, gapsS, coulomb, joule] = [0, 0, 0, 0, 0]
  let [peakA, leastV] = [-Infinity, Infinity]
  let last = -1
  for (let i = 0; i < timeS.length; i++) {
    if (timeS[i]! < fromS || timeS[i]! > toS || !amps || Number.isNaN(amps[i])) continue
    peakA = Math.max(peakA, amps[i]!)
    if (volts && volts[i]! < leastV) leastV = volts[i]!
    if (last >= 0) {
      const span = timeS[i]! - timeS[last]!
      if (span > gapS) {
        gaps++
        gapsS += span
      } else {
        loggedS += span
        coulomb += (span * (amps[i]! + amps[last]!)) / 2
        if (volts) joule += (span * (amps[i]! * volts[i]! + amps[last]! * volts[last]!)) / 2
      }
    }
    last = i
  }
  const isWhole = volts !== null && Number.isFinite(joule)
  return {
    loggedS,
    gaps,
    gapsS,
    mah: coulomb / 3.6,
    wh: isWhole ? joule / 3600 : null,
    meanA: loggedS > 0 ? coulomb / loggedS : null,
    meanW: isWhole && loggedS > 0 ? joule / loggedS : null,
    peakA: Number.isFinite(peakA) ? peakA : null,
    leastV: Number.isFinite(leastV) ? leastV : null,
  }
}

/** At most so many points for each of `buckets` equal stretches of time: first, least, greatest and last, so that no peak is lost. */
export function withExtremes(
  timeS: Float64Array,
  values: Float64Array,
  { fromS, toS }: Stretch,
  buckets: number,
): { readonly timeS: number; readonly value: number }[] {
  const points: { timeS: number; value: number }[] = []
  const width = (toS - fromS) / buckets || 1
  let bucket = -1
  let [first, low, high, last] = [-1, -1, -1, -1]
  const flush = () => {
    if (first < 0) return
    for (const i of [...new Set([first, low, high, last])].sort((a, b) => a - b))
      points.push({ timeS: timeS[i]!, value: values[i]! })
  }
  for (let i = 0; i < timeS.length; i++) {
    const s = timeS[i]!
    if (s < fromS || s > toS || Number.isNaN(values[i])) continue
    const at = Math.min(buckets - 1, Math.floor((s - fromS) / width))
    if (at !== bucket) {
      flush()
      bucket = at
      first = low = high = i
    }
    if (values[i]! < values[low]!) low = i
    if (values[i]! > values[high]!) high = i
    last = i
  }
  flush()
  return points
}

/** Charge so far in each row, mAh, by trapezoid over rows that say amps; gaps are not bridged, rows without amps hold the last. */
export function chargeSoFar({ timeS, of: { amps } }: TelemetryLog): Float64Array {
  const mah = new Float64Array(timeS.length)
  let [sum, last] = [0, -1]
  for (let i = 0; i < timeS.length; i++) {
    if (amps && !Number.isNaN(amps[i])) {
      const span = last < 0 ? 0 : timeS[i]! - timeS[last]!
      if (last >= 0 && span <= gapS) sum += (span * (amps[i]! + amps[last]!)) / 7.2
      last = i
    }
    mah[i] = sum
  }
  return mah
}

/** Stretches longer than 2 s in which no row was logged. */
export function gapsOf({ timeS }: TelemetryLog): Stretch[] {
  const gaps: Stretch[] = []
  for (let i = 1; i < timeS.length; i++)
    if (timeS[i]! - timeS[i - 1]! > gapS) gaps.push({ fromS: timeS[i - 1]!, toS: timeS[i]! })
  return gaps
}
