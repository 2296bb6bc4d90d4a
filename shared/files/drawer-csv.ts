import { counted } from '../../core/text/display'
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
export const drawerFileColumns = {
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
export type DrawerFileColumn = keyof typeof drawerFileColumns
const columnKeys = Object.keys(drawerFileColumns) as DrawerFileColumn[]

/** By the head of a column: one of {@link drawerFileColumns}, `property:<key>`, or empty for a column that is left out. */
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
      problem: `The file has ${counted(rows.length)} rows; at most ${counted(mostDrawerRows)} are brought in at once.`,
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
          ([...drawerFileColumns[key].also] as string[]).includes(plain(head)) ||
          plain(drawerFileColumns[key].title) === plain(head) ||
          ([...drawerFileColumns[key].also] as string[]).includes(bare),
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

/** What a row says, as far as it could be read. */
type ReadRow = { -readonly [K in keyof PartRow]?: PartRow[K] }
const most = {
  owned: 99_999,
  soldIn: 999,
  cells: 14,
  capacityMah: 50_000,
  shortText: 200,
  note: 2000,
  tag: 40,
  tags: 20,
}

/** How the columns of a list are read: made once, used for every row. */
class ListReader {
  private readonly places: Readonly<Partial<Record<DrawerFileColumn, number>>>
  private readonly ouncesIn: ReadonlySet<DrawerFileColumn>
  private readonly properties: readonly { readonly key: string; readonly i: number }[]
  readonly slot = once(slotNamed)
  readonly price = once(readCents)
  readonly number = once(readNumber)
  readonly valuesOf = once((slot: string) => this.propertyReaders(slot as Slot))

  constructor({ heads }: DrawerTable, mapping: DrawerMapping) {
    const at = new Map(heads.flatMap((head, i) => (ownEntry(mapping, head) ? [[mapping[head]!, i] as const] : [])))
    this.places = Object.fromEntries(columnKeys.map(key => [key, at.get(key)]))
    this.ouncesIn = new Set(columnKeys.filter(key => at.has(key) && inOunces(heads[at.get(key)!]!)))
    this.properties = [...at].flatMap(([target, i]) =>
      target.startsWith('property:') ? [{ key: target.slice('property:'.length), i }] : [],
    )
  }

  cell(cells: readonly string[], column: DrawerFileColumn): string {
    const i = this.places[column]
    return i === undefined ? '' : (cells[i] ?? '').trim()
  }
  isInOunces(column: DrawerFileColumn): boolean {
    return this.ouncesIn.has(column)
  }

  private propertyReaders(slot: Slot) {
    const known = propertiesOf(slot)
    return this.properties.map(({ key, i }) => {
      const property = known.find(p => p.key === key)
      return { i, key, read: property ? once((text: string) => readProperty(property, text)) : null }
    })
  }
}

/** One row being read, with what is wrong with it. */
class RowReading {
  readonly problems: string[] = []
  constructor(
    private readonly list: ListReader,
    private readonly cells: readonly string[],
  ) {}

  private cell(column: DrawerFileColumn): string {
    return this.list.cell(this.cells, column)
  }

  slot(): Slot | null {
    const text = this.cell('slot')
    const slot = this.list.slot(text)
    if (slot) return slot
    this.problems.push(text === '' ? 'The kind is missing.' : `“${text.slice(0, 30)}” is no kind of part.`)
    return null
  }
  name(): string {
    const name = unguarded(this.cell('name'))
    const named = plainName.test(name) ? null : partNameSchema.safeParse(name)
    if (named && !named.success) this.problems.push(named.error.issues[0]!.message)
    return name
  }
  grams(column: 'listed' | 'weighed'): { valueG: number; resolutionG: number } | undefined {
    const text = this.cell(column)
    if (text === '') return undefined
    const read = readGrams(!hasUnit.test(text) && this.list.isInOunces(column) ? `${text} oz` : text)
    if (!isNotRead(read)) return { valueG: read.massG, resolutionG: read.stepG }
    this.problems.push(`${drawerFileColumns[column].title}: ${read.problem}`)
    return undefined
  }
  whole(column: 'owned' | 'soldIn' | 'cells', least: number): number | undefined {
    const text = this.cell(column)
    if (text === '') return undefined
    const read = this.list.number(text)
    const isRight =
      !isNotRead(read) && Number.isInteger(read.value) && read.value >= least && read.value <= most[column]
    if (isRight) return read.value
    const range = `a whole number from ${least} to ${counted(most[column])}`
    this.problems.push(`${drawerFileColumns[column].title}: ${range}.`)
    return undefined
  }
  price(): number | null {
    const read = this.list.price(this.cell('price'))
    if (!isNotRead(read)) return read.cents
    this.problems.push(read.problem)
    return null
  }

  properties(slot: Slot): Record<string, PropertyValue> {
    const values: Record<string, PropertyValue> = {}
    for (const { i, read, key } of this.list.valuesOf(slot)) {
      const text = (this.cells[i] ?? '').trim()
      if (text === '') continue
      const value = read?.(text) ?? {
        problem: `A ${slot} has no “${everyProperty.get(key)?.label.toLowerCase() ?? key}”.`,
      }
      if (isNotRead(value)) this.problems.push(value.problem)
      else values[key] = value.value
    }
    // Each value was read by its own property; only how they go together is left to look at.
    const wrong = this.problems.length === 0 ? orderProblem(values) : null
    if (wrong) this.problems.push(wrong.message)
    return values
  }

  pack(): Pick<ReadRow, 'chemistry' | 'capacityMah'> {
    const text = this.cell('chemistry')
    const chemistry = chemistries.find(c => plain(c) === plain(text))
    if (text !== '' && !chemistry) this.problems.push(`“${text.slice(0, 30)}” is not one of ${chemistries.join(', ')}.`)
    const capacityMah = this.capacityMah()
    return {
      ...(chemistry === undefined ? {} : { chemistry }),
      ...(capacityMah === undefined ? {} : { capacityMah }),
    }
  }
  private capacityMah(): number | undefined {
    const text = this.cell('capacity')
    if (text === '') return undefined
    const read = readNumber(withoutUnit(text, 'mah'))
    if (!isNotRead(read) && read.value > 0 && read.value <= most.capacityMah) return read.value
    this.problems.push(`Pack: mAh is above 0 and at most ${counted(most.capacityMah)}.`)
    return undefined
  }

  words(): Pick<ReadRow, 'bag' | 'link' | 'note' | 'tags'> {
    const [bag, link, note] = [this.cell('bag'), this.cell('link'), this.cell('note')]
    const tags = this.cell('tags')
      .split(/[;,|]/)
      .map(tag => tag.trim().slice(0, most.tag))
      .filter(tag => tag !== '')
      .slice(0, most.tags)
    return {
      ...(bag === '' ? {} : { bag: bag.slice(0, most.shortText) }),
      ...(link === '' ? {} : { link: link.slice(0, most.shortText) }),
      ...(note === '' ? {} : { note: unguarded(note).slice(0, most.note) }),
      ...(tags.length === 0 ? {} : { tags }),
    }
  }
}

/** What a row makes of a part; its problems where it makes none. */
function readRow(list: ListReader, cells: readonly string[], heads: number, newId: () => string): PartRow | string[] {
  const row = new RowReading(list, cells)
  if (cells.length > heads)
    row.problems.push(`The row has ${cells.length} cells under ${heads} heads: a decimal comma may have split one.`)
  const slot = row.slot()
  const name = row.name()
  const [listed, weighed] = [row.grams('listed'), row.grams('weighed')]
  const priceCents = row.price()
  const owned = row.whole('owned', 0) ?? 1
  const soldIn = row.whole('soldIn', 1) ?? 1
  const properties = slot ? row.properties(slot) : {}
  const packCells = row.whole('cells', 1)
  const pack = slot === 'pack' ? { ...(packCells === undefined ? {} : { cells: packCells }), ...row.pack() } : {}
  if (row.problems.length > 0 || !slot) return row.problems
  return {
    id: newId(),
    slot,
    name,
    owned,
    ...(listed ? { listed } : {}),
    ...(weighed ? { weighed } : {}),
    ...(Object.keys(properties).length > 0 ? { properties } : {}),
    ...(priceCents === null ? {} : { priceCents }),
    ...(soldIn === 1 ? {} : { soldIn }),
    ...row.words(),
    ...pack,
  }
}

/** Rows after which the one who waits is told how far it is. */
const toldEvery = 1000

/** Reads the rows one by one; a row with a mistake is given back with what is wrong, the others are not touched by it. */
export function readDrawerRows(
  table: DrawerTable,
  mapping: DrawerMapping,
  newId: () => string,
  progress?: (done: number) => void,
): DrawerRows {
  const list = new ListReader(table, mapping)
  const parts: PartRow[] = []
  const bad: BadRow[] = []
  for (const [index, cells] of table.rows.entries()) {
    const row = readRow(list, cells, table.heads.length, newId)
    // The heads are the first row of the list.
    if (Array.isArray(row)) bad.push({ row: index + 2, cells, problems: row })
    else parts.push(row as PartRow)
    if (progress && (index + 1) % toldEvery === 0) progress(index + 1)
  }
  return { parts, bad }
}

/** The drawer as CSV: the columns above, then every property any part has. */
export function drawerCsv(parts: readonly Part[]): string {
  const keys = [...everyProperty.keys()].filter(key => parts.some(part => part.properties?.[key] !== undefined))
  const heads = [...columnKeys.map(key => drawerFileColumns[key].title), ...keys]
  const grams = (part: Part) => (part.mass ? String(Number((part.mass.valueG / part.mass.valueCount).toFixed(4))) : '')
  return csvFile([
    heads,
    ...parts.map(part => {
      const values: Record<DrawerFileColumn, string> = {
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
