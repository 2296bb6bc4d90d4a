import Papa from 'papaparse'
import {
  evidences,
  lineStates,
  makeLine,
  makeMass,
  roles,
  slotFacts,
  slotNamed,
  type Evidence,
  type Line,
  type Slot,
} from '../../core/model/ledger'
import { isNotRead, readCents, readGrams, readQuantity, singleSpaced } from '../../core/text/units'
import { centsFigure, counted } from '../../core/text/display'
import { nameSchema } from '../../core/text/schemas'
import { csvFile, unguarded } from './csv'

/** The columns of a parts list, in the order they are written, with other headings they are recognised by. */
export const partsColumns = {
  slot: { title: 'Slot', also: ['slot', 'type', 'category', 'group', 'kind'] },
  name: {
    title: 'What',
    also: [
      'what',
      'name',
      'part',
      'parts',
      'item',
      'component',
      'description',
      'what is fitted',
      'product',
      'part name',
    ],
  },
  quantity: {
    title: 'How many',
    also: ['how many', 'quantity', 'qty', 'count', 'pieces', 'pcs', 'amount', 'number', '×', 'x'],
  },
  grams: {
    title: 'Each (g)',
    also: [
      'each (g)',
      'each, g',
      'each',
      'grams',
      'weight',
      'mass',
      'weight each',
      'mass each',
      'each weight',
      'unit weight',
      'piece',
      'grams each',
      'g',
      'weight (g)',
      'mass (g)',
    ],
  },
  known: { title: 'Known by', also: ['known by', 'evidence', 'source'] },
  listing: { title: 'Listed (g)', also: ['listed (g)', 'listed', 'listing'] },
  state: { title: 'State', also: ['state', 'status'] },
  role: { title: 'Role', also: ['role'] },
  price: { title: 'Price each', also: ['price each', 'price', 'cost'] },
  note: { title: 'Note', also: ['note', 'notes', 'remark', 'comment'] },
} as const
export type PartsColumn = keyof typeof partsColumns
export const partsColumnKeys = Object.keys(partsColumns) as PartsColumn[]

/** Which column of the file feeds which field; null leaves the field at its default. */
export type ColumnMapping = Record<PartsColumn, number | null>

export interface ReadTable {
  readonly header: readonly string[]
  readonly rows: readonly (readonly string[])[]
  readonly hasHeader: boolean
}

export const mostBytes = 2_000_000
export const mostRows = 2000

/** Reads CSV or text pasted from a spreadsheet into a table; refuses what is too big or broken with a sentence. */
export function readTable(text: string): ReadTable | { problem: string } {
  if (text.length > mostBytes)
    return {
      problem:
        `This is ${(text.length / 1e6).toFixed(1)} MB of text; a parts list has at most ` +
        `${mostBytes / 1e6} MB. Nothing was taken in.`,
    }
  const parsed = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
    skipEmptyLines: 'greedy',
    delimitersToGuess: ['\t', ';', ',', '|'],
  })
  const quotes = parsed.errors.find(e => e.type === 'Quotes')
  if (quotes)
    return {
      problem:
        `A quotation mark in row ${(quotes.row ?? 0) + 1} is never closed or stands in the wrong place. ` +
        `Mend the file; nothing was taken in.`,
    }
  const rows = parsed.data
  if (rows.length === 0) return { problem: 'There are no rows in it.' }
  if (rows.length > mostRows + 1)
    return {
      problem:
        `It has ${counted(rows.length)} rows; one build holds at most ` +
        `${counted(mostRows)} lines. Nothing was taken in.`,
    }
  const hasHeader =
    guessMapping(rows[0]!).matched >= 1 && rows[0]!.every(c => isNotRead(readGrams(c)) || c.trim() === '')
  const width = Math.max(...rows.map(r => r.length))
  const header = hasHeader ? rows[0]! : Array.from({ length: width }, (_, i) => `Column ${i + 1}`)
  return { header, rows: hasHeader ? rows.slice(1) : rows, hasHeader }
}

/** “weight g”, “mass [grams]”, “each in oz” without their unit. */
function withoutGrams(head: string): string {
  const words = head
    .replace(/[()[\],/]/g, ' ')
    .split(/\s+/)
    .filter(word => word !== '')
  while (unitWords.has(words.at(-1) ?? '')) words.pop()
  return words.join(' ')
}
const unitWords: ReadonlySet<string> = new Set(['in', 'g', 'gr', 'gram', 'grams', 'oz', 'ounce', 'ounces'])

/** The mapping the headings suggest; columns it does not know stay unmapped. */
export function guessMapping(header: readonly string[]): { mapping: ColumnMapping; matched: number } {
  const mapping = Object.fromEntries(partsColumnKeys.map(key => [key, null])) as ColumnMapping
  let matched = 0
  header.forEach((title, index) => {
    const wanted = title.trim().toLowerCase()
    const bare = withoutGrams(wanted)
    const key = partsColumnKeys.find(
      k =>
        mapping[k] === null && [wanted, bare].some(head => (partsColumns[k].also as readonly string[]).includes(head)),
    )
    if (key) {
      mapping[key] = index
      matched++
    }
  })
  return { mapping, matched }
}

/** The mapping for rows without headings: what, how many, grams, in the order they look like. */
export function guessHeadlessMapping(rows: readonly (readonly string[])[]): ColumnMapping {
  const mapping = Object.fromEntries(partsColumnKeys.map(key => [key, null])) as ColumnMapping
  const first = rows[0] ?? []
  const numeric = first.map((c, i) => (isNotRead(readGrams(c)) ? -1 : i)).filter(i => i >= 0)
  const texts = first.map((c, i) => (isNotRead(readGrams(c)) && c.trim() !== '' ? i : -1)).filter(i => i >= 0)
  const slotColumn = texts.find(i => slotNamed(first[i]!) !== null)
  if (slotColumn !== undefined) mapping.slot = slotColumn
  mapping.name = texts.find(i => i !== slotColumn) ?? slotColumn ?? 0
  const whole = numeric.find(i => /^[×x]? ?\d{1,2}$/i.test(singleSpaced(first[i]!)))
  if (numeric.length > 1 && whole !== undefined) {
    mapping.quantity = whole
    mapping.grams = numeric.find(i => i !== whole) ?? null
  } else {
    mapping.grams = numeric[0] ?? null
  }
  return mapping
}

/** One row of the file as it would become a line, or what is wrong with it. */
export interface ReadRow {
  readonly row: number
  readonly cells: readonly string[]
  readonly line: Line | null
  readonly problems: readonly string[]
}

/** A figure without a unit is in that of its heading: “Weight, oz” counts ounces. */
function withHeadUnit(text: string, column: number | null, table: ReadTable): string {
  return column !== null &&
    table.hasHeader &&
    /\boz\b|ounce/i.test(table.header[column] ?? '') &&
    !/[a-z]\s*$/i.test(text)
    ? `${text} oz`
    : text
}

/**
 * Every row as a line or as problems; `newId` makes ids, `chosen` are slots picked by hand, by the row’s place. Row
 * numbers are those of the file, headings counted.
 */
export function readRows(
  table: ReadTable,
  mapping: ColumnMapping,
  newId: () => string,
  chosen: ReadonlyMap<number, Slot> = new Map(),
): ReadRow[] {
  return table.rows.map((cells, index) => {
    const at = (key: PartsColumn) => (mapping[key] === null ? '' : (cells[mapping[key]!] ?? '')).trim()
    const problems: string[] = []
    const name = unguarded(at('name'))
    const named = nameSchema('The name').safeParse(name)
    if (!named.success) problems.push(named.error.issues[0]!.message)
    const slot = chosen.get(index) ?? (at('slot') === '' ? 'other' : slotNamed(at('slot')))
    if (!slot) problems.push(`“${at('slot').slice(0, 30)}” is not a slot: choose one.`)
    const quantity = at('quantity') === '' ? { quantity: 1 } : readQuantity(at('quantity'))
    if (isNotRead(quantity)) problems.push(quantity.problem)
    const known = at('known') === '' ? 'guess' : evidences.find(e => e === at('known').toLowerCase())
    if (!known) problems.push(`“${at('known').slice(0, 30)}” is not one of ${evidences.join(', ')}.`)
    const grams = at('grams') === '' ? null : readGrams(withHeadUnit(at('grams'), mapping.grams, table))
    if (grams && isNotRead(grams)) problems.push(grams.problem)
    const listing = at('listing') === '' ? null : readGrams(withHeadUnit(at('listing'), mapping.listing, table))
    if (listing && isNotRead(listing)) problems.push(`Listed: ${listing.problem}`)
    const state = at('state') === '' ? 'fitted' : lineStates.find(s => s === at('state').toLowerCase())
    if (!state) problems.push(`“${at('state').slice(0, 30)}” is not one of ${lineStates.join(', ')}.`)
    const role =
      at('role') === ''
        ? slot === 'payload'
          ? 'payload'
          : 'airframe'
        : roles.find(r => r === at('role').toLowerCase())
    if (!role) problems.push(`“${at('role').slice(0, 30)}” is not one of ${roles.join(', ')}.`)
    const price = readCents(at('price'))
    if (isNotRead(price)) problems.push(price.problem)
    if (at('note').length > 2000) problems.push('The note is longer than 2000 characters.')
    const row = { row: index + (table.hasHeader ? 2 : 1), cells }
    if (problems.length > 0 || !slot || !known || !state || !role || isNotRead(quantity) || isNotRead(price))
      return { ...row, line: null, problems }
    const read = grams && !isNotRead(grams) ? grams : null
    const listed = listing && !isNotRead(listing) ? { valueG: listing.massG, resolutionG: listing.stepG } : null
    return {
      ...row,
      problems,
      line: makeLine({
        id: newId(),
        slot,
        name,
        quantity: quantity.quantity,
        state,
        role,
        note: unguarded(at('note')),
        priceEachCents: price.cents,
        listing: listed ?? (known === 'listed' && read ? { valueG: read.massG, resolutionG: read.stepG } : null),
        mass: read ? massOfRow(read, known, newId()) : null,
      }),
    }
  })
}

function massOfRow(read: { massG: number; stepG: number }, evidence: Evidence, versionId: string) {
  return makeMass({ versionId, evidence, valueG: read.massG, resolutionG: read.stepG, origin: 'parts list' })
}

/** The parts list of a build as CSV (RFC 4180, UTF-8, formula-safe). */
export function partsCsv(lines: readonly Line[]): string {
  const rows = lines.map(line => ({
    slot: slotFacts[line.slot].label,
    name: line.name,
    quantity: String(line.quantity),
    grams: line.mass
      ? String(
          line.mass.valueCount === 1 ? line.mass.valueG : Number((line.mass.valueG / line.mass.valueCount).toFixed(6)),
        )
      : '',
    known: line.mass?.evidence ?? '',
    listing: line.listing ? String(line.listing.valueG) : '',
    state: line.state,
    role: line.role,
    price: line.priceEachCents === null ? '' : centsFigure(line.priceEachCents),
    note: line.note,
  }))
  return csvFile([
    partsColumnKeys.map(key => partsColumns[key].title),
    ...rows.map(row => partsColumnKeys.map(key => row[key])),
  ])
}
