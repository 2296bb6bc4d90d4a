import materialFacts from './materials.json'
import screwFacts from './screws.json'
import wireFacts from './wires.json'

export interface Material {
  readonly name: string
  readonly densityGPerCm3: number
  readonly uses: readonly string[]
  readonly note: string
}
/** A gauge of stranded wire with a silicone jacket. */
export interface WireGauge {
  readonly awg: number
  readonly outerDiameterMm: number
  readonly ratedA: number
}
/** A screw's thread and head, without its length. */
export interface ScrewForm {
  readonly thread: string
  readonly pitchMm: number
  readonly head: string
  readonly headDiameterMm: number
  readonly headHeightMm: number
  readonly socketMm: number
  readonly socketDepthMm: number
}

export const materials: readonly Material[] = materialFacts
export const wireGauges: readonly WireGauge[] = wireFacts
export const screwForms: readonly ScrewForm[] = screwFacts

/** What screws of steel are changed for, as the facts name it. */
export const titaniumAlloy = 'titanium alloy (Ti-6Al-4V)'

export function materialNamed(name: string): Material | undefined {
  return materials.find(material => material.name === name)
}
export const materialsFor = (use: string): Material[] => materials.filter(material => material.uses.includes(use))

/** The gauge of the facts nearest to one a builder has typed. */
export function gaugeNear(awg: number): (typeof wireGauges)[number] {
  return wireGauges.reduce((best, gauge) => (Math.abs(gauge.awg - awg) < Math.abs(best.awg - awg) ? gauge : best))
}
