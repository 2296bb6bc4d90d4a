import type { Slot } from '../ledger'
import facts from '../facts/typical-masses.json'

/** The range of masses seen in one class of part, grams a piece. No makers. */
export interface TypicalMass { readonly slot: Slot, readonly class: string, readonly lowG: number, readonly highG: number, readonly per: string, readonly note: string }

export const typicalMasses: readonly TypicalMass[] = facts as readonly TypicalMass[]

/** The class of a slot by its exact name, or undefined. */
export function typicalMass(slot: Slot, className: string): TypicalMass | undefined {
  return typicalMasses.find(t => t.slot === slot && t.class === className)
}

/** The classes of a slot, lightest first. */
export function typicalClasses(slot: Slot): TypicalMass[] {
  return typicalMasses.filter(t => t.slot === slot).sort((a, b) => a.lowG - b.lowG)
}
