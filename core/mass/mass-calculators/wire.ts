import { CoreInputError } from '../../basics/errors'
import { materialNamed, wireGauges } from './facts'
import { requireCount, requireMeasure } from './validate'

/** A stranded conductor takes this much of the room it lies in. */
const strandFill = 0.785
const mostLengthMm = 100_000

/** Diameter of the solid conductor of a gauge, mm. Source: definition of the American wire gauge. */
export function conductorDiameterMm(awg: number): number {
  return 0.127 * 92 ** ((36 - awg) / 39)
}

/**
 * Grams of a length of stranded wire with a silicone jacket. Gauges are those of the facts; length in mm, up to 100 m.
 *
 * @example wireG(16, 100) // 1.8208
 */
export function wireG(awg: number, lengthMm: number): number {
  const gauge = wireGauges.find(w => w.awg === awg)
  if (!gauge)
    throw new CoreInputError('wireG', 'awg', awg, {
      is: 'one of',
      what: 'a gauge of the list',
      choices: wireGauges.map(w => w.awg),
    })
  requireMeasure('wireG', 'lengthMm', lengthMm, mostLengthMm)
  const copperMm2 = (Math.PI * conductorDiameterMm(awg) ** 2) / 4
  const jacketMm2 = Math.max((Math.PI * gauge.outerDiameterMm ** 2) / 4 - copperMm2 / strandFill, 0)
  const density = (name: string) => materialNamed(name)!.densityGPerCm3 / 1000
  return lengthMm * (copperMm2 * density('copper') + jacketMm2 * density('silicone rubber'))
}

/** Grams of so many equal lengths of wire. */
export function wiresG(awg: number, lengthMm: number, count: number): number {
  requireCount('wiresG', 'count', count)
  return count * wireG(awg, lengthMm)
}

/** A splice overlaps, is soldered at one joint and sleeved; grams beside the wire itself. Our choice. */
const spliceOverlapMm = 8
const spliceJointG = 0.03
const spliceSleeveG = 0.02

/** Grams that lengthening so many leads by so many mm adds, joints and sleeves included. */
export function spliceG(awg: number, byMm: number, count: number): number {
  requireMeasure('spliceG', 'lengthMm', byMm, mostLengthMm)
  return wiresG(awg, byMm + spliceOverlapMm, count) + count * (spliceJointG + spliceSleeveG)
}

/** Exposed quarter wave of an aerial, mm: c/(4f)·velocity factor. Frequency in MHz. */
export function quarterWaveMm(frequencyMhz: number, velocityFactor = 0.95): number {
  requireMeasure('quarterWaveMm', 'frequencyMhz', frequencyMhz, 100_000)
  requireMeasure('quarterWaveMm', 'velocityFactor', velocityFactor, 1)
  return (299_792.458 / (4 * frequencyMhz)) * velocityFactor
}
