import { CoreInputError, requireNotNegative } from '../../basics/errors'
import { materialNamed } from './facts'
import { requireCount, requireMeasure } from './validate'

const perCm3 = 1 / 1000
const mostMm = 2000

/** A hole through a plate, mm, and how many of them. */
export interface Holes {
  readonly diameterMm: number
  readonly count: number
}

/**
 * Grams of a flat plate less its holes. Area in mm², thickness in mm, density in g/cm³. Throws when the holes are more
 * than the plate.
 */
export function plateG(
  areaMm2: number,
  thicknessMm: number,
  densityGPerCm3: number,
  holes: readonly Holes[] = [],
): number {
  requireMeasure('plateG', 'areaMm2', areaMm2, 1e6)
  requireMeasure('plateG', 'thicknessMm', thicknessMm, 100)
  requireMeasure('plateG', 'densityGPerCm3', densityGPerCm3, 25)
  let holesMm2 = 0
  for (const { diameterMm, count } of holes) {
    requireMeasure('plateG', 'diameterMm', diameterMm, mostMm)
    requireCount('plateG', 'count', count)
    holesMm2 += (count * Math.PI * diameterMm ** 2) / 4
  }
  if (holesMm2 >= areaMm2)
    throw new CoreInputError('plateG', 'holes', holesMm2.toFixed(1), { is: 'in range', under: areaMm2 })
  return (areaMm2 - holesMm2) * thicknessMm * densityGPerCm3 * perCm3
}

/** Grams a drilled hole takes away. */
export function holeG(diameterMm: number, thicknessMm: number, densityGPerCm3: number, count = 1): number {
  requireMeasure('holeG', 'diameterMm', diameterMm, mostMm)
  requireMeasure('holeG', 'thicknessMm', thicknessMm, 100)
  requireCount('holeG', 'count', count)
  return ((count * Math.PI * diameterMm ** 2) / 4) * thicknessMm * densityGPerCm3 * perCm3
}

/** Grams of a printed part: walls are full, the rest is filled to a share from 0 to 1. Volumes in cm³. */
export function printedG(volumeCm3: number, wallCm3: number, fill: number, densityGPerCm3: number): number {
  requireMeasure('printedG', 'volumeCm3', volumeCm3, 10_000)
  requireNotNegative('printedG', 'wallCm3', wallCm3)
  if (wallCm3 > volumeCm3) throw new CoreInputError('printedG', 'wallCm3', wallCm3, { is: 'in range', most: volumeCm3 })
  if (!(fill >= 0 && fill <= 1))
    throw new CoreInputError('printedG', 'fill', fill, { is: 'in range', least: 0, most: 100 })
  return (wallCm3 + (volumeCm3 - wallCm3) * fill) * densityGPerCm3
}

/** Grams of a hollow or full cylinder (standoff, spacer, tube), mm. */
export function tubeG(outerMm: number, innerMm: number, lengthMm: number, densityGPerCm3: number): number {
  requireMeasure('tubeG', 'outerMm', outerMm, mostMm)
  requireNotNegative('tubeG', 'innerMm', innerMm)
  requireMeasure('tubeG', 'lengthMm', lengthMm, mostMm)
  if (innerMm >= outerMm) throw new CoreInputError('tubeG', 'innerMm', innerMm, { is: 'in range', under: outerMm })
  return ((Math.PI * (outerMm ** 2 - innerMm ** 2)) / 4) * lengthMm * densityGPerCm3 * perCm3
}

/** Grams of a film over an area: coating, tape. Area in cm², film in mm. */
export function filmG(areaCm2: number, filmMm: number, densityGPerCm3: number): number {
  requireMeasure('filmG', 'areaCm2', areaCm2, 10_000)
  requireMeasure('filmG', 'filmMm', filmMm, 10)
  return ((areaCm2 * filmMm) / 10) * densityGPerCm3
}

/** Grams of so many equal things: solder joints, ties, dots of glue. */
export function countedG(count: number, eachG: number): number {
  requireCount('countedG', 'count', count)
  requireMeasure('countedG', 'eachG', eachG, 100)
  return count * eachG
}

/** Grams saved by making a solid of one material in another of the same size; negative where the other is denser. Grams in and out. */
export function materialSavesG(massG: number, from: string, to: string): number {
  requireMeasure('materialSavesG', 'gramsG', massG, 10_000)
  const [was, comes] = [materialNamed(from), materialNamed(to)]
  if (!was)
    throw new CoreInputError('materialSavesG', 'material', from, { is: 'one of', what: 'a material of the list' })
  if (!comes) throw new CoreInputError('materialSavesG', 'then', to, { is: 'one of', what: 'a material of the list' })
  return massG * (1 - comes.densityGPerCm3 / was.densityGPerCm3)
}
