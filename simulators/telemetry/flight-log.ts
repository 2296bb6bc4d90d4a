import { chanceOf } from '../../core/maths/numbers'
import { loadedV, openCircuitV, type PackModel } from '../../core/aircraft/power'

/** A made-up flight, and how its log was written. Times in seconds, powers in watts. */
export interface FlightTraits {
  readonly pack: PackModel
  /** The charge it takes off with, 0 to 1. */
  readonly startCharge: number
  readonly seconds: number
  /** On the ground before and after, drawing what the devices draw. */
  readonly groundS: number
  readonly devicesW: number
  readonly meanW: number
  /** The throttle goes to another power every so many seconds, within this share of the mean either way. */
  readonly changesS: number
  readonly swing: number
  readonly rowsPerSecond: number
  readonly noiseV: number
  readonly noiseA: number
  /** Share of rows that were never written. */
  readonly lostShare: number
  /** Stretches without any row: from, and how long, s after the start. */
  readonly gaps: readonly (readonly [number, number])[]
  readonly seed: number
}

export const usualFlight: FlightTraits = {
  pack: { cells: 4, chemistry: 'LiPo', capacityMah: 850, cellResistanceMohm: 8.8 },
  startCharge: 1,
  seconds: 200,
  groundS: 8,
  devicesW: 9,
  meanW: 140,
  changesS: 1.2,
  swing: 0.35,
  rowsPerSecond: 20,
  noiseV: 0.01,
  noiseA: 0.1,
  lostShare: 0.01,
  gaps: [],
  seed: 1,
}

export interface LogRow {
  readonly timeS: number
  readonly volts: number
  readonly amps: number
  readonly mah: number
  readonly throttle: number
}

/** What is true of the flight, whatever the log says. */
export interface FlightTruth {
  /** Charge used in the time logged, gaps left out, mAh. */
  readonly loggedMah: number
  readonly usedMah: number
  readonly mohm: number
  readonly airborneFromS: number
  readonly airborneToS: number
}

const stepS = 0.002

/** Flies it in steps of two milliseconds by the pack's own discharge, and writes its log with noise, lost rows and gaps. */
export function flyAndLog(traits: FlightTraits): { readonly rows: readonly LogRow[]; readonly truth: FlightTruth } {
  const { pack, groundS, seconds, devicesW, meanW, changesS, swing, rowsPerSecond, gaps, lostShare } = traits
  const { uniform: random, normal } = chanceOf(traits.seed)
  const ohm = (pack.cells * pack.cellResistanceMohm) / 1000
  const isInGap = (s: number) => gaps.some(([from, long]) => s > from && s < from + long)
  const rows: LogRow[] = []
  let [charge, usedMah, loggedMah, sinceRowMah] = [traits.startCharge, 0, 0, 0]
  let [powerW, changeAt, nextRow, lastRowS] = [devicesW, groundS, 0, -Infinity]
  const lands = groundS + seconds
  const steps = Math.round((lands + groundS) / stepS)
  for (let step = 0; step <= steps; step++) {
    const s = step * stepS
    const isFlying = s >= groundS && s < lands
    if (!isFlying) powerW = devicesW
    else if (s >= changeAt) {
      powerW = Math.max(2 * devicesW, meanW * (1 + swing * (2 * random() - 1)))
      changeAt = s + changesS * (0.5 + random())
    }
    const openV = pack.cells * openCircuitV(pack.chemistry, Math.max(0, charge))
    const volts = loadedV(openV, ohm, powerW)
    if (volts === null || charge <= 0) throw new RangeError('The pack does not last for such a flight.')
    const amps = powerW / volts
    if (s >= nextRow) {
      nextRow += 1 / rowsPerSecond
      if (!isInGap(s) && random() >= lostShare) {
        if (s - lastRowS <= 2) loggedMah += sinceRowMah
        sinceRowMah = 0
        lastRowS = s
        rows.push({
          timeS: s,
          volts: volts + traits.noiseV * normal(),
          amps: Math.max(0, amps + traits.noiseA * normal()),
          mah: usedMah,
          throttle: (100 * powerW) / (meanW * (1 + swing)),
        })
      }
    }
    const mah = (amps * stepS) / 3.6
    charge -= mah / pack.capacityMah
    usedMah += mah
    sinceRowMah += mah
  }
  return {
    rows,
    truth: {
      loggedMah,
      usedMah,
      mohm: pack.cells * pack.cellResistanceMohm,
      airborneFromS: groundS,
      airborneToS: lands,
    },
  }
}

/** The log as a file of text: heads, and one row a line. */
export function logText(rows: readonly LogRow[], isDecimalComma = false): string {
  const figure = (value: number, decimals: number) =>
    isDecimalComma ? value.toFixed(decimals).replace('.', ',') : value.toFixed(decimals)
  const [between, heads] = isDecimalComma
    ? [';', ['Time (ms)', 'Voltage (V)', 'Current (A)', 'Consumed (mAh)', 'Throttle (%)']]
    : [',', ['time (s)', 'volts (V)', 'amps (A)', 'consumed (mAh)', 'throttle (%)']]
  return [
    heads,
    ...rows.map(({ timeS, volts, amps, mah, throttle }) => [
      isDecimalComma ? String(Math.round(timeS * 1000)) : timeS.toFixed(3),
      figure(volts, 3),
      figure(amps, 3),
      figure(mah, 1),
      figure(throttle, 1),
    ]),
  ]
    .map(row => row.join(between))
    .join('\n')
}
