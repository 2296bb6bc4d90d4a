import type { Chemistry, Slot } from '../ledger'
import type { Properties } from '../properties/types'
import facts from '../facts/typical-masses.json'

/** The range of masses seen in one class of part, grams a piece. No makers. */
export interface TypicalMass { readonly slot: Slot, readonly class: string, readonly lowG: number, readonly highG: number, readonly per: string, readonly note: string }

export const typicalMasses: readonly TypicalMass[] = facts as readonly TypicalMass[]

/** The class of a slot by its exact name, or undefined. */
export function typicalMass(slot: Slot, className: string): TypicalMass | undefined {
  return typicalMasses.find(t => t.slot === slot && t.class === className)
}

/** What the name of a typical class says beyond its grams: the size of a propeller or duct, a motor's stator. Null when it says nothing. */
export function typicalProperties(slot: Slot, className: string): Properties | null {
  if (slot === 'propeller') {
    const size = /^([\d.]+) (mm|in)/.exec(className)
    const blades = /two-blade/.test(className) ? 2 : /three-blade/.test(className) ? 3 : null
    return size && { diameterMm: Number((Number(size[1]) * (size[2] === 'in' ? 25.4 : 1)).toFixed(2)), ...(blades !== null && { blades }) }
  }
  if (slot === 'motor') {
    const stator = /^(\d\d)(\d\d(?:\.\d)?)$/.exec(className)
    return stator && { statorDiameterMm: Number(stator[1]), statorHeightMm: Number(stator[2]) }
  }
  const duct = slot === 'frame' ? /^(\d+) mm ducted$/.exec(className) : null
  // Ducted frames are named by the distance of their motors along the diagonal.
  return duct && { wheelbaseMm: Number(duct[1]) }
}

/** The classes of a slot, lightest first. */
export function typicalClasses(slot: Slot): TypicalMass[] {
  return typicalMasses.filter(t => t.slot === slot).sort((a, b) => a.lowG - b.lowG)
}

/** Cells, chemistry and capacity of a typical class, from its name (`4S 650 mAh`, `2S 3000 mAh lithium-ion`). */
export function typicalPackFacts(className: string): { readonly cells: number, readonly chemistry: Chemistry, readonly capacityMah: number } | null {
  const match = /^(\d+)S (\d+) mAh(.*)$/.exec(className)
  return match && { cells: Number(match[1]), capacityMah: Number(match[2]), chemistry: match[3]!.includes('lithium-ion') ? 'Li-ion' : 'LiPo' }
}
