import type { Line } from '../../model/ledger'
import {
  airDensity,
  benchCurve,
  discAreaM2,
  roughCurve,
  usualEfficiency,
  type FlightPlan,
  type MotorCurve,
} from '../power'
import { benchOf, measureOf } from '../../model/properties'
import { deviceWatts, type DeviceWatts } from './devices'
import { driveOf } from './drive'

/** What the power model needs of one loadout, pack apart. */
export interface Craft {
  readonly props: number
  readonly diameterMm: number
  readonly areaM2: number
  readonly densityKgM3: number
  readonly efficiency: number
  /** Where the efficiency comes from, in words. */
  readonly efficiencyFrom: string
  readonly efficiencyIsOwn: boolean
  readonly devices: readonly DeviceWatts[]
  readonly avionicsW: number
  readonly motors: readonly MotorsOn[]
  /** Motors, props and cells in one word. */
  readonly drive: string
}

/** Where the most current of a motor comes from, surest first. */
export type CurrentFrom = 'said' | 'bench table' | 'kV and prop'

/** The motors of one line: how many, their most current where it was said, and what a bench table or the kV tells. */
export interface MotorsOn {
  readonly line: Line
  readonly count: number
  readonly saidA: number | null
  readonly curve: MotorCurve | null
}

/** What the current at full throttle of a line's motors comes from; null while nothing is known. */
export function currentFrom({ saidA, curve }: MotorsOn): CurrentFrom | null {
  if (saidA !== null) return 'said'
  return curve === null ? null : curve.rough ? 'kV and prop' : 'bench table'
}

/** What is missing before minutes can be told, with the line to look at (null: there is none yet). */
export interface CraftMissing {
  readonly missing: string
  readonly lineId: string | null
}

/** Bench tables and kV make curves; they are kept as long as the line, the prop and the air stay. */
const curves = new WeakMap<Line, { readonly key: string; readonly curve: MotorCurve | null }>()

/** The craft of one loadout: `lines` are those on board, `pack` the one among them. */
export function craftOf(lines: readonly Line[], pack: Line, plan: FlightPlan): Craft | CraftMissing {
  const propLines = lines.filter(line => line.slot === 'propeller')
  if (propLines.length === 0)
    return { missing: 'Add the propellers: their diameter decides how much power the weight asks for.', lineId: null }
  const unknown = propLines.find(line => measureOf(line, 'diameterMm') === undefined)
  if (unknown)
    return {
      missing: `Say the diameter of “${unknown.name}”: it decides how much power the weight asks for.`,
      lineId: unknown.id,
    }
  const [first] = propLines
  const diameterMm = measureOf(first!, 'diameterMm')!
  const usual = usualEfficiency(diameterMm, isDucted(lines))
  const efficiency = plan.efficiency ?? usual.efficiency
  const densityKgM3 = airDensity(plan.altitudeM, plan.temperatureC)
  const devices = deviceWatts(lines, pack)
  return {
    props: propLines.reduce((sum, line) => sum + line.quantity, 0),
    diameterMm,
    densityKgM3,
    efficiency,
    devices,
    areaM2: propLines.reduce((sum, line) => sum + discAreaM2(line.quantity, measureOf(line, 'diameterMm')!), 0),
    efficiencyFrom: plan.efficiency === null ? `usual of ${usual.craft} craft` : 'your own',
    efficiencyIsOwn: plan.efficiency !== null,
    avionicsW: devices.reduce((sum, device) => sum + device.watts, 0),
    motors: motorsOn(lines, plan),
    drive: driveOf(lines, pack),
  }
}

/** Whether a craft's props turn in ducts. */
const isDucted = (lines: readonly Line[]) =>
  lines.some(line => line.slot === 'frame' && (measureOf(line, 'ductMm') !== undefined || /\bduct/i.test(line.name)))

/** The motors on board, line by line; without a prop of known diameter only what was said or measured on a bench is known of them. */
export function motorsOn(lines: readonly Line[], plan: FlightPlan): MotorsOn[] {
  const prop = lines.find(line => line.slot === 'propeller' && measureOf(line, 'diameterMm') !== undefined)
  const efficiency = prop ? usualEfficiency(measureOf(prop, 'diameterMm')!, isDucted(lines)).efficiency : 1
  const densityKgM3 = airDensity(plan.altitudeM, plan.temperatureC)
  return lines
    .filter(line => line.slot === 'motor')
    .map((line): MotorsOn => ({
      line,
      count: line.quantity,
      saidA: measureOf(line, 'maxCurrentA') ?? null,
      curve: curveOf(line, prop, densityKgM3, efficiency),
    }))
}

function curveOf(motor: Line, prop: Line | undefined, densityKgM3: number, efficiency: number): MotorCurve | null {
  const key = [
    prop?.id,
    prop && measureOf(prop, 'diameterMm'),
    prop && measureOf(prop, 'pitchMm'),
    prop && measureOf(prop, 'blades'),
    densityKgM3,
    efficiency,
  ].join()
  const known = curves.get(motor)
  if (known?.key === key) return known.curve
  const bench = benchOf(motor)
  const kv = measureOf(motor, 'kv')
  const curve =
    bench.length > 0
      ? benchCurve(bench)
      : kv === undefined || !prop
        ? null
        : roughCurve({
            kv,
            diameterMm: measureOf(prop, 'diameterMm')!,
            pitchMm: measureOf(prop, 'pitchMm') ?? null,
            blades: measureOf(prop, 'blades') ?? 3,
            densityKgM3,
            efficiency,
          })
  curves.set(motor, { key, curve })
  return curve
}
