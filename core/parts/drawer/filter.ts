import { slotFacts, slots } from '../../model/ledger'
import { propertiesOf, propertyText, type PropertyUnit } from '../../model/properties'
import { statorCode, type Part } from './part'

/** A part prepared for filtering: its words in one text, its measures by unit. */
export interface Indexed<T extends Part = Part> {
  readonly part: T
  readonly words: string
  readonly grams: number | null
  readonly stator: number | null
  readonly measures: Readonly<Partial<Record<PropertyUnit | '€', readonly number[]>>>
}

/** One term of a filter as it was understood. */
export interface FilterTerm {
  readonly text: string
  readonly understood: string
  readonly keeps: (indexed: Indexed) => boolean
}

const unitNames: Record<string, PropertyUnit | 'g'> = {
  g: 'g',
  kv: 'kV',
  mm: 'mm',
  v: 'V',
  a: 'A',
  w: 'W',
  mw: 'mW',
  mah: 'mAh',
  c: 'C',
  µf: 'µF',
  μf: 'µF',
  uf: 'µF',
  mhz: 'MHz',
  awg: 'AWG',
  mω: 'mΩ',
  mohm: 'mΩ',
}
const number = String.raw`(\d+(?:[.,]\d+)?)`
const unitText = String.raw`\s*([a-zµμω]+)?`
const rangeTerm = new RegExp(String.raw`^${number}\s*(?:-|–|—|\.\.|to)\s*${number}${unitText}$`, 'i')
const boundTerm = new RegExp(String.raw`^(<=|>=|≤|≥|<|>|=|at most|at least|under|over)\s*${number}${unitText}$`, 'i')
const plainTerm = new RegExp(String.raw`^${number}\s*([a-zµμω]+)$`, 'i')
const bareStator = /^\d{4}(?:[.,]\d)?$/

/** Makes a part ready to be filtered; done once a part, not once a key typed. */
export function indexPart<T extends Part>(part: T): Indexed<T> {
  const measures: Partial<Record<PropertyUnit, number[]>> = {}
  const push = (unit: PropertyUnit, value: number) => {
    ;(measures[unit] ??= []).push(value)
  }
  for (const property of propertiesOf(part.slot)) {
    const value = part.properties?.[property.key]
    if (typeof value === 'number') push(property.unit, value)
  }
  if (part.pack) {
    push('mAh', part.pack.capacityMah)
    if (part.pack.cRating !== null) push('C', part.pack.cRating)
  }
  const texts = Object.values(part.properties ?? {}).filter(
    value => typeof value === 'string' || (Array.isArray(value) && typeof value[0] === 'string'),
  )
  const words = [
    part.name,
    part.slot,
    slotFacts[part.slot].label,
    part.note,
    part.bag,
    ...part.tags,
    part.pack ? `${part.pack.label} ${part.pack.cells}s ${part.pack.chemistry} ${part.pack.plug}` : '',
    ...texts.map(propertyText),
  ]
    .join(' ')
    .toLowerCase()
  return {
    part,
    words,
    grams: part.mass ? part.mass.valueG / part.mass.valueCount : (part.listing?.valueG ?? null),
    stator: statorCode(part.properties),
    measures,
  }
}

const figure = (text: string) => Number(text.replace(',', '.'))

function within(low: number, high: number, unit: string | undefined, text: string, words: string): FilterTerm | null {
  if (unit === undefined) {
    if (!(low >= 500 && high < 10_000)) return null
    return {
      text,
      understood: `stator ${words}`,
      keeps: i => i.stator !== null && i.stator >= low - 1e-9 && i.stator <= high + 1e-9,
    }
  }
  const known = unitNames[unit.toLowerCase()]
  if (!known) return null
  if (known === 'g')
    return {
      text,
      understood: `${words} g each`,
      keeps: i => i.grams !== null && i.grams >= low - 1e-9 && i.grams <= high + 1e-9,
    }
  return {
    text,
    understood: `${words} ${known}`,
    keeps: i => {
      const values = i.measures[known]
      if (!values) return false
      for (const value of values) if (value >= low - 1e-9 && value <= high + 1e-9) return true
      return false
    },
  }
}

function readTerm(text: string): FilterTerm {
  const range = rangeTerm.exec(text)
  if (range) {
    const [low, high] = [figure(range[1]!), figure(range[2]!)].sort((a, b) => a - b) as [number, number]
    const term = within(low, high, range[3], text, `${low}–${high}`)
    if (term) return term
  }
  const bound = boundTerm.exec(text)
  if (bound) {
    const limit = figure(bound[2]!)
    const sign = bound[1]!.toLowerCase()
    const [low, high, words] = /^(<|<=|≤|at most|under)$/.test(sign)
      ? [
          -Infinity,
          sign === '<' || sign === 'under' ? limit - 2e-9 : limit,
          sign === '<' || sign === 'under' ? `under ${limit}` : `at most ${limit}`,
        ]
      : sign === '='
        ? [limit, limit, String(limit)]
        : [
            sign === '>' || sign === 'over' ? limit + 2e-9 : limit,
            Infinity,
            sign === '>' || sign === 'over' ? `over ${limit}` : `at least ${limit}`,
          ]
    const term = within(low as number, high as number, bound[3], text, String(words))
    if (term) return term
  }
  const plain = plainTerm.exec(text)
  const exact = plain && within(figure(plain[1]!), figure(plain[1]!), plain[2], text, plain[1]!)
  if (exact) return exact
  if (bareStator.test(text)) {
    const stator = figure(text)
    return {
      text,
      understood: `stator ${text} or the word`,
      keeps: i => i.stator === stator || i.words.includes(text.toLowerCase()),
    }
  }
  const slot = slots.find(s => s === text.toLowerCase() || `${s}s` === text.toLowerCase())
  if (slot) return { text, understood: `kind ${slot}`, keeps: i => i.part.slot === slot }
  const wanted = text.toLowerCase()
  return { text, understood: `“${text}”`, keeps: i => i.words.includes(wanted) }
}

/**
 * Reads a filter such as `1404–1505, 3000–4000 kV, ≤ 11 g`: terms with commas between, all of which must hold. A range or
 * bound goes by its unit, four bare digits by the stator, a kind by its name, everything else by the words.
 */
export function readFilter(text: string): FilterTerm[] {
  return text
    .split(/,(?!\d)|;/)
    .map(t => t.trim())
    .filter(t => t !== '')
    .map(readTerm)
}

/** The parts all terms keep, in their order. */
export function filterParts<T extends Part>(indexed: readonly Indexed<T>[], terms: readonly FilterTerm[]): T[] {
  const kept: T[] = []
  for (const one of indexed) {
    let keeps = true
    for (const term of terms) {
      if (!term.keeps(one)) {
        keeps = false
        break
      }
    }
    if (keeps) kept.push(one.part)
  }
  return kept
}
