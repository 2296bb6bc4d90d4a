import { coverageFactor95 } from '../../maths/numbers'
import { countedLines } from '../../mass/loadout'
import type { Build, LoadoutChoice } from '../../model/ledger'
import { craftOf, type Craft } from '../currents'
import { drivesApart, lnKappaOf, taughtPackModel, type LnKappa, type TaughtPlan } from '../flown'
import { discharge, idealHoverW, type MotorCurve } from '../power'
import { dischargeAsked } from './forecast'

/** A loadout of a build with its grams. */
export interface LoadoutWithMass {
  readonly build: Build
  readonly choice: LoadoutChoice
  readonly massG: number
}

/** What the difference of two drives is known by, surest first. */
export type DriveKnownBy = 'flights' | 'bench tables' | 'the class' | 'the same drive'

/** Minutes of a loadout against those of another one, with the half-width of the difference at 95 %. */
export interface MinutesAgainst {
  readonly minutes: number
  readonly deltaMin: number
  readonly spreadMin: number
  readonly from: DriveKnownBy
}

/** How well two bench tables agree on the ratio of two motors; one standard uncertainty of the logarithm. Our choice. */
const uBenchRatio = 0.07

/** Watts one motor asks for to lift so many grams, by its bench table; null where the table does not reach. */
function benchWatts(curve: MotorCurve | null, thrustG: number): number | null {
  if (!curve || curve.rough || curve.thrustG(curve.mostV) < thrustG) return null
  let [low, high] = [0, curve.mostV]
  for (let i = 0; i < 50; i++) {
    const middle = (low + high) / 2
    if (curve.thrustG(middle) < thrustG) low = middle
    else high = middle
  }
  const watts = curve.watts(high)
  return watts > 0 ? watts : null
}

/** ln of the power per ideal power one craft hovers at by its bench table. */
function benchLnKappa({ motors, areaM2, densityKgM3 }: Craft, massG: number): number | null {
  const [only, ...others] = motors
  if (!only || others.length > 0 || only.count === 0) return null
  const watts = benchWatts(only.curve, massG / only.count)
  return watts === null ? null : Math.log((watts * only.count) / idealHoverW(massG, areaM2, densityKgM3))
}

function apart(
  then: Craft,
  now: Craft,
  thenG: number,
  nowG: number,
  plan: TaughtPlan,
): LnKappa & { from: DriveKnownBy } {
  if (then.drive === now.drive)
    return { value: Math.log(now.efficiency / then.efficiency), u: 0, from: 'the same drive' }
  const known = drivesApart(then, now, plan)
  if (known.flights.every(count => count > 0)) return { value: known.value, u: known.u, from: 'flights' }
  const [a, b] = [benchLnKappa(then, thenG), benchLnKappa(now, nowG)]
  if (a !== null && b !== null) return { value: a - b, u: uBenchRatio, from: 'bench tables' }
  return { value: known.value, u: known.u, from: 'the class' }
}

function flyable({ build, choice, massG }: LoadoutWithMass, plan: TaughtPlan) {
  const lines = countedLines(build, choice)
  const pack = lines.find(line => line.id === choice.packLineId)
  if (!pack?.pack || !(massG > 0)) return null
  const craft = craftOf(lines, pack, plan)
  return 'missing' in craft ? null : { craft, pack }
}

/**
 * Minutes of one loadout against those of another: what the two share in doubt falls away, so that the difference of two
 * drives is known by flights on both, by their bench tables, or by their class. Null where the minutes of either cannot be told.
 */
export function minutesAgainst(then: LoadoutWithMass, now: LoadoutWithMass, plan: TaughtPlan): MinutesAgainst | null {
  const [a, b] = [flyable(then, plan), flyable(now, plan)]
  if (!a || !b) return null
  const minutes = ({ craft, pack }: typeof a, massG: number, lnKappa: number) => {
    const asked = dischargeAsked(craft, pack, massG, plan)
    const powerW = craft.avionicsW + idealHoverW(massG, craft.areaM2, craft.densityKgM3) * Math.exp(lnKappa)
    return discharge(taughtPackModel(pack, plan), { ...asked, powerW }).timeS / 60
  }
  const known = lnKappaOf(b.craft, plan).value
  const { value, u, from } = apart(a.craft, b.craft, then.massG, now.massG, plan)
  const at = (z: number) => minutes(a, then.massG, known + value + z * coverageFactor95 * u)
  const [middle, before] = [at(0), minutes(b, now.massG, known)]
  if (middle === 0 || before === 0) return null
  return { minutes: middle, deltaMin: middle - before, spreadMin: (at(-1) - at(1)) / 2, from }
}
