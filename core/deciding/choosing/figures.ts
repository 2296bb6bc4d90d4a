import type { PackFacts, Slot } from '../../model/ledger'
import { propertiesOf, propertyText, type BenchRow, type Properties } from '../../model/properties'
import { packWh } from '../../aircraft/power'
import { statorCode, statorText } from '../../parts/drawer'

/** A figure that matters when parts of a kind are compared. Text where it is not a number. */
export interface Figure {
  readonly key: string
  readonly label: string
  readonly unit: string
  readonly digits: number
  readonly value: number | string | null
}

interface Compared {
  readonly slot: Slot
  readonly properties: Properties | null
  readonly pack: PackFacts | null
  readonly eachG: number | null
  readonly quantity: number
}

const num = (properties: Properties | null, key: string) =>
  typeof properties?.[key] === 'number' ? (properties[key] as number) : null

/** The figures of one part, by its kind. `cells` are those of the pack it would fly with, null when not known. */
export function figuresOf({ slot, properties, pack, eachG, quantity }: Compared, cells: number | null): Figure[] {
  const f = (key: string, label: string, unit: string, digits: number, value: number | string | null): Figure => ({
    key,
    label,
    unit,
    digits,
    value,
  })
  if (slot === 'motor') {
    const bench = (properties?.bench ?? []) as readonly BenchRow[]
    const thrust = bench.length > 0 ? Math.max(...bench.map(row => row.thrustG)) : null
    const kv = num(properties, 'kv')
    const stator = statorCode(properties)
    return [
      f('stator', 'Stator', '', 1, stator === null ? null : statorText(stator)),
      f('kv', 'kV', '', 0, kv),
      f('thrust', 'Thrust', 'g', 0, thrust),
      f('perGram', 'Thrust per gram', '', 1, thrust !== null && eachG ? thrust / eachG : null),
      f('kvCells', 'kV × cells', '', 0, kv !== null && cells !== null ? kv * cells : null),
      f('amps', 'Most amps', 'A', 1, num(properties, 'maxCurrentA')),
    ]
  }
  if (slot === 'pack') {
    const grams = eachG === null ? null : eachG * quantity
    const mah = pack?.capacityMah ?? null
    const wh = pack ? packWh(pack) : null
    return [
      f('cells', 'Cells', '', 0, pack?.cells ?? null),
      f('mah', 'mAh', '', 0, mah),
      f('perGram', 'mAh/g', '', 2, mah !== null && grams ? mah / grams : null),
      f('whPerKg', 'Wh/kg', '', 0, wh !== null && grams ? (wh / grams) * 1000 : null),
      f('amps', 'C × Ah', 'A', 0, pack?.cRating ? (pack.cRating * pack.capacityMah) / 1000 : null),
    ]
  }
  if (slot === 'frame') {
    return [
      f('propMaxMm', 'Largest prop', 'mm', 0, num(properties, 'ductMm') ?? num(properties, 'propMaxMm')),
      f('motorPatterns', 'Motor patterns', '', 0, propertyText(properties?.motorPatterns) || null),
      f('boardPatterns', 'Board patterns', '', 0, propertyText(properties?.boardPatterns) || null),
      f('armThicknessMm', 'Arms', 'mm', 1, num(properties, 'armThicknessMm')),
      f('freeHeightMm', 'Free height', 'mm', 1, num(properties, 'freeHeightMm')),
    ]
  }
  return propertiesOf(slot)
    .filter(property => property.kind === 'measure' || property.kind === 'choice' || property.kind === 'text')
    .slice(0, 6)
    .map(property => {
      const value = properties?.[property.key]
      return f(
        property.key,
        property.label,
        property.unit,
        property.kind === 'measure' && property.whole ? 0 : 1,
        typeof value === 'number' || typeof value === 'string' ? value : null,
      )
    })
}
