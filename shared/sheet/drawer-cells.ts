import type { Part } from '../../core/parts/drawer'
import { priceEachCents, statorCode, statorText } from '../../core/parts/drawer'
import { makeMass, slotFacts, type Mass } from '../../core/model/ledger'
import { propertiesOf, propertyText } from '../../core/model/properties'
import { centsFigure, counted, fixed } from '../../core/text/display'
import { nameSchema } from '../../core/text/schemas'
import { isNotRead, readCents, readGrams, readNumber } from '../../core/text/units'
import type { Typing } from './grid-keys'

/** The columns of the drawer's grid, in order. */
export const drawerColumns = ['slot', 'name', 'facts', 'grams', 'known', 'owned', 'left', 'price'] as const
export type DrawerColumn = (typeof drawerColumns)[number]

/** How many of a part lie in the drawer, and how many are on builds. */
export interface Whereabouts {
  readonly left: number
  readonly out: number
}

/** What typing into a column writes. */
export const drawerTyping: Readonly<Record<DrawerColumn, Typing>> = {
  slot: 'nothing',
  name: 'letters',
  facts: 'nothing',
  grams: 'figures',
  known: 'nothing',
  owned: 'figures',
  left: 'nothing',
  price: 'figures',
}

/** Grams of one piece: as known, or as listed; null where nobody has said. */
export const gramsEach = (part: Part) =>
  part.mass ? part.mass.valueG / part.mass.valueCount : (part.listing?.valueG ?? null)
/** What a part is, in a few words. */
export function factsOf(part: Part): string {
  const { properties, pack } = part
  const stator = statorCode(properties)
  const between = (low: string, high: string, unit: string) =>
    properties?.[low] !== undefined && properties[high] !== undefined
      ? [
          properties[low] === properties[high]
            ? `${propertyText(properties[low])} ${unit}`
            : `${propertyText(properties[low])}–${propertyText(properties[high])} ${unit}`,
        ]
      : []
  const single = propertiesOf(part.slot)
    .filter(p => p.kind === 'measure' || p.kind === 'choice' || p.kind === 'text' || p.kind === 'patterns')
    .filter(p => properties?.[p.key] !== undefined && !/^(stator|cells|volts)/.test(p.key))
    .map(p => `${propertyText(properties![p.key])}${p.kind === 'measure' && p.unit ? ` ${p.unit}` : ''}`)
  const shown = [
    ...single.slice(0, 1),
    ...between('cellsMin', 'cellsMax', 'cells'),
    ...between('voltsMin', 'voltsMax', 'V'),
    ...single.slice(1),
  ].slice(0, stator === null ? 3 : 2)
  return [
    ...(stator === null ? [] : [statorText(stator)]),
    ...(pack ? [`${pack.cells}S ${pack.chemistry} ${pack.capacityMah} mAh`] : shown),
  ].join(' · ')
}
/** What a column is sorted by. */
export function sortKey(part: Part, column: DrawerColumn, { left }: Whereabouts): number | string | null {
  switch (column) {
    case 'slot':
      return slotFacts[part.slot].label
    case 'name':
      return part.name.toLowerCase()
    case 'facts':
      return factsOf(part)
    case 'grams':
      return gramsEach(part)
    case 'known':
      return part.mass?.evidence ?? null
    case 'owned':
      return part.owned
    case 'left':
      return left
    case 'price':
      return priceEachCents(part)
  }
}
/** What a cell shows. */
export function cellWords(part: Part, column: DrawerColumn, { left, out }: Whereabouts): string {
  switch (column) {
    case 'slot':
      return slotFacts[part.slot].label
    case 'name':
      return part.name
    case 'facts':
      return factsOf(part)
    case 'grams': {
      const grams = gramsEach(part)
      return grams === null ? '–' : fixed(Number(grams.toFixed(3)), grams < 1 ? 3 : 2)
    }
    case 'known':
      return part.mass?.evidence ?? (part.listing ? 'listed' : '')
    case 'owned':
      return part.owned === 0 ? 'no' : String(part.owned)
    case 'left': {
      return part.owned === 0 && out === 0 ? '' : `${left}${out > 0 ? ` · ${out} out` : ''}`
    }
    case 'price':
      return priceEachCents(part) === null ? '' : centsFigure(priceEachCents(part)!)
  }
}

/** What its editor begins with. */
export function textToEdit(part: Part, column: DrawerColumn): string {
  if (column === 'price') return part.priceCents === null ? '' : centsFigure(part.priceCents)
  if (column === 'grams') return gramsEach(part) === null ? '' : String(gramsEach(part))
  return column === 'owned' ? String(part.owned) : part.name
}

type Edited = Partial<Part> | { readonly problem: string }

function ownedFrom(part: Part, text: string): Edited {
  const read = readNumber(text)
  if (isNotRead(read) || !Number.isInteger(read.value) || read.value < 0 || read.value > mostOwned)
    return { problem: `How many you own: a whole number from 0 to ${counted(mostOwned)}.` }
  const gone = part.lost + part.scrapped
  return read.value < gone ? { problem: `${gone} are lost or scrapped already.` } : { owned: read.value }
}
const mostOwned = 99_999

/** Grams with `l` before them are listed; others are known as they were, and listed where nothing was known. */
function gramsFrom(part: Part, text: string, versionId: string): Edited {
  const listed = /^l\s+/i.test(text)
  const read = readGrams(text.replace(/^l\s+/i, ''))
  if (isNotRead(read)) return read
  const evidence: Mass['evidence'] = listed ? 'listed' : (part.mass?.evidence ?? 'listed')
  const { massG: valueG, stepG: resolutionG } = read
  const mass = makeMass({
    versionId,
    evidence,
    valueG,
    resolutionG,
    basis: 'as supplied',
    origin: 'typed in the drawer',
  })
  return { mass, ...(evidence === 'listed' ? { listing: { valueG, resolutionG } } : {}) }
}

/** What typing `text` into a cell makes of a part, or the sentence that says why it makes nothing. */
export function editPart(part: Part, column: DrawerColumn, text: string, versionId: string): Edited {
  switch (column) {
    case 'name': {
      const named = nameSchema('The name').safeParse(text)
      return named.success ? { name: text.trim() } : { problem: named.error.issues[0]!.message }
    }
    case 'owned':
      return ownedFrom(part, text)
    case 'price': {
      const read = readCents(text)
      return isNotRead(read) ? read : { priceCents: read.cents }
    }
    case 'grams':
      return gramsFrom(part, text, versionId)
    default:
      return { problem: 'This is worked out, not typed.' }
  }
}
