import { quantile } from '../../maths/numbers'

/** What a column of a log can be, and the unit it is kept in. */
export const quantities = {
  time: { name: 'Time', unit: 's' },
  packV: { name: 'Volts of the pack', unit: 'V' },
  cellV: { name: 'Volts of a cell', unit: 'V' },
  amps: { name: 'Amps', unit: 'A' },
  consumedMah: { name: 'Charge so far', unit: 'mAh' },
  throttle: { name: 'Throttle', unit: '%' },
  altitudeM: { name: 'Altitude', unit: 'm' },
} as const
export type Quantity = keyof typeof quantities

/** Units a log may be written in, and how many of the unit kept one of them is. */
export const unitFactors: Readonly<Record<Quantity, Readonly<Record<string, number>>>> = {
  time: { s: 1, ms: 1e-3, µs: 1e-6, min: 60, 'h:m:s': 1 },
  packV: { V: 1, mV: 1e-3, cV: 1e-2, dV: 0.1 },
  cellV: { V: 1, mV: 1e-3, cV: 1e-2, dV: 0.1 },
  amps: { A: 1, mA: 1e-3, cA: 1e-2, dA: 0.1 },
  consumedMah: { mAh: 1, Ah: 1000 },
  throttle: { '%': 1, share: 100 },
  altitudeM: { m: 1, cm: 0.01, ft: 0.3048 },
}

/** One column as it is read: where it stands, and in which unit. */
export interface Column {
  readonly index: number
  readonly unit: string
}
export type Columns = Readonly<Partial<Record<Quantity, Column>>>

/** What heads say of columns, and from which row figures begin. */
export interface HeadsRead {
  readonly heads: readonly string[]
  /** Rows before the first of figures. */
  readonly headRows: number
  readonly columns: Columns
  /** Quantities whose unit no head says: it was judged by the figures. */
  readonly judged: readonly Quantity[]
  readonly isDecimalComma: boolean
}

/** Words by which a head tells what it is of; the first that fits. */
const words: readonly (readonly [Quantity, RegExp])[] = [
  ['consumedMah', /\b(m?ah|consumed|consumption|used|capacity)\b/],
  ['cellV', /\bcell\b/],
  ['packV', /\b(volts?|voltage|battery|pack|v|mv)\b/],
  ['amps', /\b(amps?|amperes?|current|a|ma)\b/],
  ['throttle', /\bthrottle\b/],
  ['altitudeM', /\b(altitude|height|alt)\b/],
  ['time', /\b(time|seconds?|elapsed|clock|ms|µs|us|s)\b/],
]
const unitWords: Readonly<Record<string, string>> = {
  s: 's',
  sec: 's',
  second: 's',
  seconds: 's',
  ms: 'ms',
  µs: 'µs',
  us: 'µs',
  min: 'min',
  v: 'V',
  volt: 'V',
  volts: 'V',
  mv: 'mV',
  cv: 'cV',
  dv: 'dV',
  a: 'A',
  amp: 'A',
  amps: 'A',
  ma: 'mA',
  ca: 'cA',
  da: 'dA',
  mah: 'mAh',
  ah: 'Ah',
  '%': '%',
  percent: '%',
  m: 'm',
  metres: 'm',
  meters: 'm',
  cm: 'cm',
  ft: 'ft',
  feet: 'ft',
}

/** A head in small letters, its signs as spaces, its joined words apart. */
const plain = (head: string) =>
  head
    .replace(/(\p{Ll}{2})(\p{Lu})/gu, '$1 $2')
    .toLowerCase()
    .replace(/μ/g, 'µ')
    .replace(/[^\p{L}\p{N}%µ]+/gu, ' ')
    .trim()

const clock = /^(?:\d{4}-\d\d-\d\d[ t])?(\d{1,2}):(\d\d)(?::(\d\d(?:[.,]\d+)?))?z?$/i

/** Seconds of a time of day; NaN where it is none. */
export function clockS(text: string): number {
  const found = clock.exec(text.trim())
  if (!found) return NaN
  const [, hours, minutes, seconds = '0'] = found
  return Number(hours) * 3600 + Number(minutes) * 60 + Number(seconds.replace(',', '.'))
}

/** The number in a field of a log; NaN where there is none. */
export function numberIn(text: string, isDecimalComma: boolean): number {
  if (text === '') return NaN
  return Number(isDecimalComma ? text.replace(',', '.') : text)
}
const isFigure = (text: string, isDecimalComma: boolean) =>
  text.trim() !== '' && (Number.isFinite(numberIn(text.trim(), isDecimalComma)) || !Number.isNaN(clockS(text)))

/** More than one row of heads, and of units below them, is not looked for beyond so many rows. */
const mostHeadRows = 20

/** The unit the head of a quantity says; null where it says none. */
function unitSaid(quantity: Quantity, head: string): string | null {
  const units = plain(head)
    .split(' ')
    .map(word => unitWords[word])
    .filter(unit => unit !== undefined && unit in unitFactors[quantity])
  return units.at(-1) ?? null
}

/** A unit by its figures, where no head says one. A pack has at most 60 V and is not flown under 2 V; motors draw under 400 A. */
function unitJudged(quantity: Quantity, texts: readonly string[], isDecimalComma: boolean): string {
  if (quantity === 'time' && texts.some(text => !Number.isNaN(clockS(text)))) return 'h:m:s'
  const values = texts.map(text => numberIn(text, isDecimalComma)).filter(value => Number.isFinite(value))
  const most = Math.max(0, ...values.map(Math.abs))
  switch (quantity) {
    case 'time': {
      const steps = values.slice(1).map((value, i) => value - values[i]!)
      const step = quantile(
        steps.sort((a, b) => a - b),
        0.5,
      )
      return step >= 500 ? 'µs' : step >= 5 ? 'ms' : 's'
    }
    case 'packV':
    case 'cellV':
      return most > 1000 ? 'mV' : most > 60 ? 'cV' : 'V'
    case 'amps':
      return most > 400 ? 'mA' : 'A'
    case 'throttle':
      return most <= 1 ? 'share' : '%'
    case 'consumedMah':
      return 'mAh'
    case 'altitudeM':
      return 'm'
  }
}

/**
 * What the first rows of a log say of its columns: heads over one or two rows, units beside or below them, decimal commas.
 * What it finds is an offer: the builder can say otherwise. Some hundred rows are enough.
 */
export function readHeads(rows: readonly (readonly string[])[]): HeadsRead {
  const body = rows.slice(1).flat()
  const isDecimalComma =
    body.filter(text => /^-?\d+,\d+$/.test(text.trim())).length >
    body.filter(text => /^-?\d+\.\d+$/.test(text.trim())).length
  const figures = (row: readonly string[]) => row.filter(text => isFigure(text, isDecimalComma)).length
  const first = rows.findIndex(row => 2 * figures(row) > row.filter(text => text.trim() !== '').length)
  const headRows = first < 0 || first > mostHeadRows ? Math.min(1, rows.length) : first
  const width = Math.max(0, ...rows.slice(0, headRows + 1).map(row => row.length))
  const heads = Array.from({ length: width }, (_, i) =>
    rows
      .slice(0, headRows)
      .map(row => row[i]?.trim() ?? '')
      .filter(text => text !== '')
      .join(' '),
  )
  const columns: Partial<Record<Quantity, Column>> = {}
  const judged: Quantity[] = []
  heads.forEach((head, index) => {
    const quantity = words.find(([, pattern]) => pattern.test(plain(head)))?.[0]
    if (!quantity || columns[quantity]) return
    const said = unitSaid(quantity, head)
    const texts = rows.slice(headRows).map(row => row[index]?.trim() ?? '')
    const isClock = quantity === 'time' && texts.some(text => !Number.isNaN(clockS(text)))
    if (said === null || isClock) judged.push(quantity)
    columns[quantity] = {
      index,
      unit: said === null || isClock ? unitJudged(quantity, texts, isDecimalComma) : said,
    }
  })
  return { heads, headRows, columns, judged, isDecimalComma }
}
