import Papa from 'papaparse'
import { priceEachCents, type Part, type PartRow } from '../../core/parts/drawer'
import { chemistries, slotFacts, slotNamed, slots, type Slot } from '../../core/model/ledger'
import { ownEntry } from '../../core/basics/own'
import { isNotRead, readCents, readGrams, readNumber, withoutUnit } from '../../core/text/units'
import {
  propertiesOf,
  propertyText,
  readProperty,
  type Property,
  type PropertyValue,
} from '../../core/model/properties'
import { nameSchema } from '../../core/text/schemas'
import { orderProblem } from '../../core/model/properties'
import { csvFile, unguarded } from './csv'

/** What a column of a drawer file can be, apart from the properties of the kinds. */
export const drawerColumns = {
  slot: { title: 'Kind', also: ['kind', 'slot', 'type', 'category'] },
  name: { title: 'What', also: ['what', 'name', 'part', 'item', 'description'] },
  owned: { title: 'Owned', also: ['owned', 'how many', 'quantity', 'qty', 'count', 'stock', 'pieces'] },
  listed: {
    title: 'Listed, g',
    also: [
      'listed',
      'listed, g',
      'listed (g)',
      'weight',
      'weight (g)',
      'weight (oz)',
      'mass',
      'mass (g)',
      'grams',
      'g',
      'oz',
    ],
  },
  weighed: {
    title: 'Weighed, g',
    also: ['weighed', 'weighed, g', 'weighed (g)', 'weighed (oz)', 'measured', 'measured (g)'],
  },
  price: { title: 'Price', also: ['price', 'cost', 'price each'] },
  soldIn: { title: 'Sold in', also: ['sold in', 'pack of', 'per'] },
  bag: { title: 'Bag or box', also: ['bag', 'box', 'place', 'bag or box'] },
  tags: { title: 'Tags', also: ['tags', 'labels'] },
  link: { title: 'Link', also: ['link', 'from', 'where from'] },
  note: { title: 'Note', also: ['note', 'notes', 'remark'] },
  cells: { title: 'Pack: cells', also: ['cells', 's', 'pack: cells'] },
  chemistry: { title: 'Pack: chemistry', also: ['chemistry', 'cell chemistry', 'pack: chemistry'] },
  capacity: { title: 'Pack: mAh', also: ['mah', 'capacity', 'pack: mah'] },
} as const
export type DrawerColumn = keyof typeof drawerColumns
const columnKeys = Object.keys(drawerColumns) as DrawerColumn[]

/** By the head of a column: one of {@link drawerColumns}, `property:<key>`, or empty for a column that is left out. */
export type DrawerMapping = Readonly<Record<string, string>>

export interface DrawerTable {
  readonly heads: readonly string[]
  readonly rows: readonly (readonly string[])[]
}
export interface BadRow {
  readonly row: number
  readonly cells: readonly string[]
  readonly problems: readonly string[]
}
export interface DrawerRows {
  readonly parts: readonly PartRow[]
  readonly bad: readonly BadRow[]
}

export const mostDrawerRows = 50_000
export const mostDrawerBytes = 20_000_000

/** All properties of all kinds by key; a column of lengths may serve straps and screws alike. */
export const everyProperty: ReadonlyMap<string, Property> = new Map(
  slots.flatMap(slot => propertiesOf(slot).map(property => [property.key, property] as const)),
)

/** Splits a file into heads and rows: commas, semicolons or tabs, with or without a byte order mark. */
export function readDrawerTable(text: string): DrawerTable | { readonly problem: string } {
  const parsed = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
    skipEmptyLines: 'greedy',
    delimitersToGuess: [';', '\t', ',', '|'],
  })
  const [heads, ...rows] = parsed.data
  if (!heads || rows.length === 0) return { problem: 'The file has no rows under its heads.' }
  if (rows.length > mostDrawerRows)
    return {
      problem: `The file has ${rows.length.toLocaleString('en')} rows; at most ${mostDrawerRows.toLocaleString('en')} are brought in at once.`,
    }
  const trimmed = heads.map(head => head.trim())
  if (new Set(trimmed).size !== trimmed.length)
    return { problem: 'Two columns have the same head. Give each a head of its own.' }
  return { heads: trimmed, rows }
}

const plain = (text: string) => text.trim().toLowerCase()

const headUnits = new Set(['mm', 'v', 'a', 'w', 'mw', 'g', 'oz', 'µf', 'uf', 'mhz', 'awg', 'kv', 'mah'])
/** “weight (g)” and “weight, g” without their unit. */
function withoutUnitInHead(head: string): string {
  const at = Math.max(head.lastIndexOf(','), head.lastIndexOf('('))
  return at >= 0 && headUnits.has(withoutUnit(head.slice(at + 1), ')').trim()) ? head.slice(0, at).trimEnd() : head
}

/** What the heads most likely mean. */
export function guessDrawerMapping(heads: readonly string[]): DrawerMapping {
  const taken = new Set<string>()
  return Object.fromEntries(
    heads.map(head => {
      const bare = withoutUnitInHead(plain(head))
      const column = columnKeys.find(
        key =>
          ([...drawerColumns[key].also] as string[]).includes(plain(head)) ||
          plain(drawerColumns[key].title) === plain(head) ||
          ([...drawerColumns[key].also] as string[]).includes(bare),
      )
      const property = [...everyProperty.values()].find(
        p =>
          plain(p.label) === bare ||
          plain(p.key) === plain(head) ||
          plain(p.label) === plain(head) ||
          (p.unit !== '' && plain(p.unit) === plain(head)),
      )
      const target = column ?? (property ? `property:${property.key}` : '')
      if (target === '' || taken.has(target)) return [head, '']
      taken.add(target)
      return [head, target]
    }),
  )
}

/** Made once: a schema costs more than a row. */
const partNameSchema = nameSchema('The name')
/** Names that need no closer look. */
const plainName = /^[A-Za-z\d][A-Za-z\d .,/×“”&()-]{0,118}$/
const inOunces = (head: string) => /\boz\b|ounce/i.test(head)
const hasUnit = /[a-z]\s*$/i

/** A reader that reads the same text once: in a list most cells of a column are among a few values. */
function once<T>(read: (text: string) => T): (text: string) => T {
  const known = new Map<string, T>()
  return text => {
    const before = known.get(text)
    if (before !== undefined) return before
    const value = read(text)
    known.set(text, value)
    return value
  }
}

/** Reads the rows one by one; a row with a mistake is given back with what is wrong, the others are not touched by it. */
export function readDrawerRows(
  table: DrawerTable,
  mapping: DrawerMapping,
  newId: () => string,
  progress?: (done: number) => void,
): DrawerRows {
  const at = new Map(table.heads.flatMap((head, i) => (ownEntry(mapping, head) ? [[mapping[head]!, i] as const] : [])))
  const places = Object.fromEntries(columnKeys.map(key => [key, at.get(key)])) as Record<
    DrawerColumn,
    number | undefined
  >
  const properties = [...at].flatMap(([target, i]) =>
    target.startsWith('property:') ? [{ key: target.slice('property:'.length), i }] : [],
  )
  const readSlot = once(slotNamed)
  const readPrice = once(readCents)
  const readWhole = once(readNumber)
  const readersOf = once((slot: string) =>
    properties.map(({ key, i }) => {
      const property = propertiesOf(slot as Slot).find(p => p.key === key)
      return { i, key, read: property ? once((text: string) => readProperty(property, text)) : null }
    }),
  )
  const parts: PartRow[] = []
  const bad: BadRow[] = []
  for (const [index, cells] of table.rows.entries()) {
    const problems: string[] = []
    const cell = (column: DrawerColumn) => {
      const i = places[column]
      return i === undefined ? '' : (cells[i] ?? '').trim()
    }
    if (cells.length > table.heads.length)
      problems.push(
        `The row has ${cells.length} cells under ${table.heads.length} heads: a decimal comma may have split one.`,
      )
    const slot = readSlot(cell('slot'))
    if (!slot)
      problems.push(cell('slot') === '' ? 'The kind is missing.' : `“${cell('slot').slice(0, 30)}” is no kind of part.`)
    const name = unguarded(cell('name'))
    if (!plainName.test(name)) {
      const named = partNameSchema.safeParse(name)
      if (!named.success) problems.push(named.error.issues[0]!.message)
    }
    const grams = (column: 'listed' | 'weighed') => {
      const text = cell(column)
      if (text === '') return null
      const head = table.heads[at.get(column)!]!
      const read = readGrams(!hasUnit.test(text) && inOunces(head) ? `${text} oz` : text)
      if (!isNotRead(read)) return read
      problems.push(`${drawerColumns[column].title}: ${read.problem}`)
      return null
    }
    const whole = (column: 'owned' | 'soldIn' | 'cells', least: number, most: number) => {
      const text = cell(column)
      if (text === '') return undefined
      const read = readWhole(text)
      if (!isNotRead(read) && Number.isInteger(read.value) && read.value >= least && read.value <= most)
        return read.value
      problems.push(`${drawerColumns[column].title}: a whole number from ${least} to ${most.toLocaleString('en')}.`)
      return undefined
    }
    const listed = grams('listed')
    const weighed = grams('weighed')
    const price = readPrice(cell('price'))
    if (isNotRead(price)) problems.push(price.problem)
    const owned = whole('owned', 0, 99_999) ?? 1
    const soldIn = whole('soldIn', 1, 999) ?? 1
    const packCells = whole('cells', 1, 14)
    const values: Record<string, PropertyValue> = {}
    if (slot) {
      for (const { i, read, key } of readersOf(slot)) {
        const text = (cells[i] ?? '').trim()
        if (text === '') continue
        if (!read) {
          problems.push(`A ${slot} has no “${everyProperty.get(key)?.label.toLowerCase() ?? key}”.`)
          continue
        }
        const value = read(text)
        if (isNotRead(value)) problems.push(value.problem)
        else values[key] = value.value
      }
      // Each value was read by its own property; only how they go together is left to look at.
      const wrong = problems.length === 0 ? orderProblem(values) : null
      if (wrong) problems.push(wrong.message)
    }
    const chemistry = chemistries.find(c => plain(c) === plain(cell('chemistry')))
    if (slot === 'pack' && cell('chemistry') !== '' && !chemistry)
      problems.push(`“${cell('chemistry').slice(0, 30)}” is not one of ${chemistries.join(', ')}.`)
    let capacityMah: number | undefined
    if (slot === 'pack' && cell('capacity') !== '') {
      const read = readNumber(withoutUnit(cell('capacity'), 'mah'))
      if (isNotRead(read) || !(read.value > 0 && read.value <= 50_000))
        problems.push('Pack: mAh is above 0 and at most 50,000.')
      else capacityMah = read.value
    }
    if (problems.length > 0 || !slot || isNotRead(price)) {
      bad.push({ row: index + 2, cells, problems })
    } else {
      const [bag, link, note, tagged] = [cell('bag'), cell('link'), cell('note'), cell('tags')]
      const row: { -readonly [K in keyof PartRow]: PartRow[K] } = { id: newId(), slot, name, owned }
      if (listed) row.listed = { valueG: listed.massG, resolutionG: listed.stepG }
      if (weighed) row.weighed = { valueG: weighed.massG, resolutionG: weighed.stepG }
      if (Object.keys(values).length > 0) row.properties = values
      if (price.cents !== null) row.priceCents = price.cents
      if (soldIn !== 1) row.soldIn = soldIn
      if (bag !== '') row.bag = bag.slice(0, 200)
      if (link !== '') row.link = link.slice(0, 200)
      if (note !== '') row.note = unguarded(note).slice(0, 2000)
      const tags =
        tagged === ''
          ? []
          : tagged
              .split(/[;,|]/)
              .map(t => t.trim().slice(0, 40))
              .filter(t => t !== '')
              .slice(0, 20)
      if (tags.length > 0) row.tags = tags
      if (slot === 'pack') {
        if (packCells !== undefined) row.cells = packCells
        if (chemistry !== undefined) row.chemistry = chemistry
        if (capacityMah !== undefined) row.capacityMah = capacityMah
      }
      parts.push(row)
    }
    if (progress && index % 1000 === 999) progress(index + 1)
  }
  return { parts, bad }
}

/** The drawer as CSV: the columns above, then every property any part has. */
export function drawerCsv(parts: readonly Part[]): string {
  const keys = [...everyProperty.keys()].filter(key => parts.some(part => part.properties?.[key] !== undefined))
  const heads = [...columnKeys.map(key => drawerColumns[key].title), ...keys]
  const grams = (part: Part) => (part.mass ? String(Number((part.mass.valueG / part.mass.valueCount).toFixed(4))) : '')
  return csvFile([
    heads,
    ...parts.map(part => {
      const values: Record<DrawerColumn, string> = {
        slot: slotFacts[part.slot].label,
        name: part.name,
        owned: String(part.owned),
        listed: part.listing ? String(part.listing.valueG) : '',
        weighed: part.mass?.evidence === 'weighed' ? grams(part) : '',
        price: priceEachCents(part) === null ? '' : (part.priceCents! / 100).toFixed(2),
        soldIn: String(part.soldIn),
        bag: part.bag,
        tags: part.tags.join('; '),
        link: part.link,
        note: part.note.replaceAll('\n', ' '),
        cells: String((part.pack ?? part.packSoFar)?.cells ?? ''),
        chemistry: (part.pack ?? part.packSoFar)?.chemistry ?? '',
        capacity: String((part.pack ?? part.packSoFar)?.capacityMah ?? ''),
      }
      return [
        ...columnKeys.map(key => values[key]),
        ...keys.map(key => propertyText(part.properties?.[key]).replaceAll('\n', '; ')),
      ]
    }),
  ])
}
