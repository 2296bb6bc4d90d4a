import { mmPerInch } from '../../text/units'
import type { Chemistry, Line, Slot } from '../../model/ledger'
import type { Properties } from '../../model/data'
import facts from './typical-masses.json'

/** The range of masses seen in one class of part, grams a piece. No makers. */
export interface TypicalMass {
  readonly slot: Slot
  readonly class: string
  readonly lowG: number
  readonly highG: number
  readonly per: string
  readonly note: string
}

export const typicalMasses: readonly TypicalMass[] = facts as readonly TypicalMass[]

/** The class of a slot by its exact name, or undefined. */
export function typicalMass(slot: Slot, className: string): TypicalMass | undefined {
  return typicalMasses.find(t => t.slot === slot && t.class === className)
}

const inches = (text: string) => Number((Number(text) * mmPerInch).toFixed(2))
const numbersIn = (pattern: RegExp, text: string) => pattern.exec(text)?.slice(1).map(Number) ?? null

/** What the name of a class says of each slot, by property: of a range the end that promises less. */
const said: Partial<Record<Slot, (className: string) => Properties>> = {
  propeller: name => {
    const size = /^([\d.]+) (mm|in)/.exec(name)
    const blades = /two-blade/.test(name) ? 2 : /three-blade/.test(name) ? 3 : null
    return size
      ? { diameterMm: size[2] === 'in' ? inches(size[1]!) : Number(size[1]), ...(blades !== null && { blades }) }
      : {}
  },
  motor: (name): Properties => {
    const stator = numbersIn(/^(\d\d)(\d\d(?:\.\d)?)$/, name)
    return stator ? { statorDiameterMm: stator[0]!, statorHeightMm: stator[1]! } : {}
  },
  // Ducted frames are named by the distance of their motors along the diagonal, open ones by their largest prop.
  frame: (name): Properties => {
    const duct = numbersIn(/^(\d+) mm ducted$/, name)
    const open = /^([\d.]+)-inch /.exec(name)
    return duct ? { wheelbaseMm: duct[0]! } : open ? { propMaxMm: inches(open[1]!) } : {}
  },
  board: name => ({
    ...cellsIn(name),
    ...ampsIn(name),
    ...(/^all-in-one/.test(name)
      ? { provides: /1S$/.test(name) ? ['speed controller', 'receiver'] : ['speed controller'] }
      : {}),
  }),
  'speed controller': name => ampsIn(name),
  'power lead': name => {
    const gauge = numbersIn(/\b\d+-(\d+) AWG/, name)
    const plug = /\b\d+ A class\b/.exec(name)?.[0]
    return { ...(gauge && { awg: gauge[0]! }), ...(plug && { plug }) }
  },
  capacitor: name => {
    const [uF, volts] = [numbersIn(/^(\d+)-\d+ uF/, name), numbersIn(/ (\d+)-\d+ V$/, name)]
    return { ...(uF && { capacitanceUf: uF[0]! }), ...(volts && { ratedV: volts[0]! }) }
  },
  camera: name => videoIn(name),
  'video transmitter': name => videoIn(name),
  receiver: (name): Properties => (/two-aerial/.test(name) ? { aerials: 2 } : {}),
}
function cellsIn(name: string): Properties {
  const range = numbersIn(/\b(\d)-(\d)S\b/, name)
  const one = numbersIn(/\b(\d)S$/, name)
  return range ? { cellsMin: range[0]!, cellsMax: range[1]! } : one ? { cellsMin: one[0]!, cellsMax: one[0]! } : {}
}
function ampsIn(name: string): Properties {
  const amps = numbersIn(/\b(\d+)-\d+ A$/, name)
  return amps ? { ampsContinuous: amps[0]! } : {}
}
function videoIn(name: string): Properties {
  const family = /^(analogue|digital)/.exec(name)?.[1]
  return family ? { videoFamily: family } : {}
}

/**
 * What the name of a typical class says beyond its grams, as properties: nothing stands in the name that the line does
 * not have. Null when it says nothing.
 */
export function typicalProperties(slot: Slot, className: string): Properties | null {
  const properties = said[slot]?.(className) ?? {}
  return Object.keys(properties).length > 0 ? properties : null
}

/** The classes of a slot, lightest first. */
export function typicalClasses(slot: Slot): TypicalMass[] {
  return typicalMasses.filter(t => t.slot === slot).sort((a, b) => a.lowG - b.lowG)
}

/** Cells, chemistry and capacity of a typical class, from its name (`4S 650 mAh`, `2S 3000 mAh lithium-ion`). */
export function typicalPackFacts(
  className: string,
): { readonly cells: number; readonly chemistry: Chemistry; readonly capacityMah: number } | null {
  const match = /^(\d+)S (\d+) mAh(.*)$/.exec(className)
  return (
    match && {
      cells: Number(match[1]),
      capacityMah: Number(match[2]),
      chemistry: match[3]!.includes('lithium-ion') ? 'Li-ion' : 'LiPo',
    }
  )
}

const classOrigin = 'typical for '
const heldWords = ', whose facts still hold'

/**
 * The class whose facts a line still carries although it is called something else now: whether they hold is to be asked.
 * Null where nothing stands of a class, where it is still called by it, or where somebody has answered.
 */
export function classInDoubt(line: Pick<Line, 'slot' | 'name' | 'mass' | 'properties'>): string | null {
  const { mass } = line
  if (mass?.evidence !== 'typical' || !mass.origin.startsWith(classOrigin) || mass.origin.endsWith(heldWords))
    return null
  const className = mass.origin.slice(classOrigin.length)
  const facts = typicalProperties(line.slot, className)
  const stands =
    facts !== null &&
    Object.entries(facts).some(([key, value]) => JSON.stringify(line.properties?.[key]) === JSON.stringify(value))
  return stands && !line.name.toLowerCase().includes(className.toLowerCase()) ? className : null
}

/** What becomes of such a line: the facts hold and are not asked about again, or those of the class are taken away. */
export function classAnswered(
  line: Pick<Line, 'slot' | 'mass' | 'properties'>,
  className: string,
  holds: boolean,
  versionId: string,
): Pick<Line, 'mass'> | Pick<Line, 'properties'> {
  if (holds) return { mass: { ...line.mass!, versionId, origin: `${classOrigin}${className}${heldWords}` } }
  const facts = typicalProperties(line.slot, className) ?? {}
  const kept = Object.entries(line.properties ?? {}).filter(
    ([key, value]) => JSON.stringify(facts[key]) !== JSON.stringify(value),
  )
  return { properties: kept.length > 0 ? Object.fromEntries(kept) : null }
}
