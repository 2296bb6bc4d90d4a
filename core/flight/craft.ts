import type { Line } from '../ledger'
import { airDensity, benchCurve, discAreaM2, roughCurve, usualEfficiency, type FlightPlan, type MotorCurve } from '../power'
import { benchOf, measureOf } from '../properties'
import { deviceWatts, type DeviceWatts } from './devices'

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
  readonly motors: number
  /** Null while neither a bench table nor the kV is known. */
  readonly curve: MotorCurve | null
}

/** What is missing before minutes can be told, with the line to look at (null: there is none yet). */
export interface CraftMissing { readonly missing: string, readonly lineId: string | null }

/** Bench tables and kV make curves; they are kept as long as the line, the prop and the air stay. */
const curves = new WeakMap<Line, { readonly key: string, readonly curve: MotorCurve | null }>()

/** The craft of one loadout: `lines` are those on board, `pack` the one among them. */
export function craftOf(lines: readonly Line[], pack: Line, plan: FlightPlan): Craft | CraftMissing {
  const propLines = lines.filter(line => line.slot === 'propeller')
  if (propLines.length === 0) return { missing: 'Add the propellers: their diameter decides how much power the weight asks for.', lineId: null }
  const unknown = propLines.find(line => measureOf(line, 'diameterMm') === undefined)
  if (unknown) return { missing: `Say the diameter of “${unknown.name}”: it decides how much power the weight asks for.`, lineId: unknown.id }
  const [first] = propLines
  const diameterMm = measureOf(first!, 'diameterMm')!
  const ducted = lines.some(line => line.slot === 'frame' && (measureOf(line, 'ductMm') !== undefined || /\bduct/i.test(line.name)))
  const usual = usualEfficiency(diameterMm, ducted)
  const efficiency = plan.efficiency ?? usual.efficiency
  const densityKgM3 = airDensity(plan.altitudeM, plan.temperatureC)
  const devices = deviceWatts(lines, pack)
  const motor = lines.find(line => line.slot === 'motor')
  return {
    props: propLines.reduce((sum, line) => sum + line.quantity, 0), diameterMm, densityKgM3, efficiency, devices,
    areaM2: propLines.reduce((sum, line) => sum + discAreaM2(line.quantity, measureOf(line, 'diameterMm')!), 0),
    efficiencyFrom: plan.efficiency === null ? `usual of ${usual.craft} craft` : 'your own', efficiencyIsOwn: plan.efficiency !== null,
    avionicsW: devices.reduce((sum, device) => sum + device.watts, 0),
    motors: lines.reduce((sum, line) => sum + (line.slot === 'motor' ? line.quantity : 0), 0),
    curve: motor ? curveOf(motor, first!, densityKgM3, usual.efficiency) : null,
  }
}

function curveOf(motor: Line, prop: Line, densityKgM3: number, efficiency: number): MotorCurve | null {
  const key = [prop.id, measureOf(prop, 'diameterMm'), measureOf(prop, 'pitchMm'), measureOf(prop, 'blades'), densityKgM3, efficiency].join()
  const known = curves.get(motor)
  if (known?.key === key) return known.curve
  const bench = benchOf(motor)
  const kv = measureOf(motor, 'kv')
  const curve = bench.length > 0
    ? benchCurve(bench)
    : kv === undefined
      ? null
      : roughCurve({ kv, diameterMm: measureOf(prop, 'diameterMm')!, pitchMm: measureOf(prop, 'pitchMm') ?? null, blades: measureOf(prop, 'blades') ?? 3, densityKgM3, efficiency })
  curves.set(motor, { key, curve })
  return curve
}
