import type { CraftFigures } from '../../core/comparing/crafts'
import type { ComparedRow, Comparison } from '../../core/comparing/lines'
import { coverageFactor95 } from '../../core/maths/numbers'
import { sigmaG } from '../../core/maths/estimate'
import { slotFacts, type Line } from '../../core/model/ledger'
import {
  centsFigure,
  decimalsFor,
  fixed,
  gramsFigure,
  minutesBand,
  signed,
  spreadFigure,
} from '../../core/text/display'
import { csvFile } from './csv'

/** What a comparison is told from: names of the crafts, the first being what the others are compared with. */
export interface ComparisonTold {
  readonly names: readonly string[]
  /** Of those known by their lines, in the order of `columns`. */
  readonly comparison: Comparison | null
  /** For each name its column in the comparison; null for a craft known only as a whole. */
  readonly columns: readonly (number | null)[]
  readonly figures: readonly CraftFigures[]
  readonly currency: string
}

/** One figure of crafts as a whole, in words; an en dash where it cannot be told. */
export interface WholeRow {
  readonly label: string
  readonly texts: readonly string[]
  /** How far it lies apart among those that tell it, as a share of the greatest: what differs most comes first. */
  readonly apart: number
}

const unknown = '–'
type Tell = readonly [
  label: string,
  value: (f: CraftFigures) => number | null,
  text: (f: CraftFigures, value: number) => string,
]
const told = (currency: string): readonly Tell[] => [
  ['All-up, g', f => f.massG, f => gramsFigure(f.massG, f.spreadG, f.limitG)],
  ['Spread, g', f => f.spreadG, f => `± ${spreadFigure(f.spreadG)}`],
  ['Headroom, g', f => f.headroomG, (f, v) => signed(v, decimalsFor(f.spreadG))],
  ['Dry mass, g', f => f.dryG, (f, v) => gramsFigure(v, f.drySpreadG)],
  [
    'Minutes',
    f => f.minutes,
    (f, v) => (f.minutesBand ? minutesBand(...f.minutesBand).replace(' min', '') : fixed(v, 1)),
  ],
  ['Grams a minute', f => f.gramsPerMinute, (f, v) => fixed(v, 1)],
  ['Thrust to weight', f => f.thrustToWeight, (f, v) => `${fixed(v, 1)} : 1`],
  [`Price, ${currency}`, f => f.priceCents, (f, v) => `${f.unpricedLines > 0 ? 'from ' : ''}${centsFigure(v)}`],
  ['Balance, mm', f => f.aheadMm, (f, v) => `${fixed(Math.abs(v), 1)} ${v < 0 ? 'tail' : 'nose'}`],
  ['Pitch inertia, kg·mm²', f => f.pitchInertia, (f, v) => fixed(v, 0)],
  ['Flights behind the minutes', f => f.restsOn, (f, v) => (v === 0 ? 'none' : String(v))],
  [
    'Weighed',
    f => (f.weighedWhole ? 1 : f.lines === 0 ? 0 : f.weighedLines / f.lines),
    f =>
      `${f.weighedWhole ? 'whole' : `${f.weighedLines} of ${f.lines}`}${f.openLines > 0 ? `, ${f.openLines} open` : ''}`,
  ],
]

/** The figures of crafts as wholes, what lies farthest apart first. */
export function wholeRows(figures: readonly CraftFigures[], currency: string): WholeRow[] {
  return told(currency)
    .map(([label, value, text]) => {
      const values = figures.map(value)
      const known = values.flatMap(one => one ?? [])
      const greatest = Math.max(...known.map(Math.abs), 0)
      return {
        label,
        texts: figures.map((f, i) => (values[i] == null ? unknown : text(f, values[i]))),
        apart: known.length < 2 || greatest === 0 ? 0 : (Math.max(...known) - Math.min(...known)) / greatest,
      }
    })
    .sort((a, b) => b.apart - a.apart)
}

/** The grams of a line in a column: a figure, `open` where nobody has said them, a dash where there is no line. */
export function columnGrams({ lines, grams }: ComparedRow, column: number): string {
  const [line, estimate] = [lines[column], grams[column]]
  if (!line || !estimate) return unknown
  return line.mass ? gramsFigure(estimate.valueG, coverageFactor95 * sigmaG(estimate)) : 'open'
}

const titleOf = (line: Line | null | undefined) =>
  line
    ? `${line.quantity > 1 ? `${line.quantity} × ` : ''}${line.pack?.label ? `${line.pack.label} ` : ''}${line.name}`
    : unknown
const pieces = (line: Line | null | undefined) =>
  line?.priceEachCents == null ? null : line.priceEachCents * line.quantity
/** Cents from the first column to another; null where one of the two is not said. */
export function priceDifference({ lines }: ComparedRow, column: number): number | null {
  const [was, is] = [lines[0], lines[column]]
  const [before, after] = [was ? pieces(was) : 0, is ? pieces(is) : 0]
  return before === null || after === null ? null : after - before
}

/** The comparison as Markdown, to read and to share. */
export function comparisonMarkdown({ names, comparison, columns, figures, currency }: ComparisonTold): string {
  const cell = (text: string) => text.replace(/([\\`*_{}[\]<>#|~])/g, '\\$1')
  const row = (cells: readonly string[]) => `| ${cells.map(cell).join(' | ')} |`
  const out = [`# ${cell(names.join(', '))}`, '', row(['', ...names]), `|---|${names.map(() => '---:|').join('')}`]
  for (const { label, texts } of wholeRows(figures, currency)) out.push(row([label, ...texts]))
  if (!comparison) return `${out.join('\n')}\n`
  const shown = columns.flatMap((column, i) => (column === null ? [] : [{ column, name: names[i]! }]))
  out.push(
    '',
    row(['Slot', ...shown.flatMap(({ name }) => [name, 'g']), ...shown.slice(1).map(({ name }) => `to ${name}, g`)]),
  )
  out.push(
    `|---|${shown.map(() => '---|---:|').join('')}${shown
      .slice(1)
      .map(() => '---:|')
      .join('')}`,
  )
  for (const one of comparison.rows) {
    const slot = slotFacts[one.lines.find(line => line !== null)!.slot].label
    out.push(
      row([
        slot,
        ...shown.flatMap(({ column }) => [titleOf(one.lines[column]), columnGrams(one, column)]),
        ...shown.slice(1).map(({ column }) => signed(one.differences[column]!.valueG, 2)),
      ]),
    )
  }
  out.push(
    row([
      'All-up',
      ...shown.flatMap(({ column }) => ['', fixed(comparison.totals[column]!.valueG, 2)]),
      ...shown.slice(1).map(({ column }) => {
        const { valueG, sigmaG: sigma } = comparison.differences[column]!
        return `${signed(valueG, 2)} ± ${spreadFigure(coverageFactor95 * sigma)}`
      }),
    ]),
  )
  return `${out.join('\n')}\n`
}

/** The comparison line by line for a spreadsheet: grams and cents as plain numbers. */
export function comparisonCsv({ names, comparison, columns }: ComparisonTold): string {
  const shown = columns.flatMap((column, i) => (column === null ? [] : [{ column, name: names[i]! }]))
  const number = (value: number | null | undefined) => (value == null ? '' : Number(value.toFixed(4)))
  const heads = [
    'Slot',
    ...shown.flatMap(({ name }) => [name, `${name}, g`, `${name}, evidence`, `${name}, price in cents`]),
    ...shown.slice(1).flatMap(({ name }) => [`difference to ${name}, g`, `± 95 %, g`]),
  ]
  const rows = (comparison?.rows ?? []).map(one => [
    slotFacts[one.lines.find(line => line !== null)!.slot].label,
    ...shown.flatMap(({ column }) => {
      const line = one.lines[column]
      return [
        line ? titleOf(line) : '',
        line?.mass ? number(one.grams[column]!.valueG) : '',
        line?.mass?.evidence ?? '',
        number(pieces(line)),
      ]
    }),
    ...shown.slice(1).flatMap(({ column }) => {
      const { valueG, sigmaG: sigma } = one.differences[column]!
      return [number(valueG), number(coverageFactor95 * sigma)]
    }),
  ])
  return csvFile([heads, ...rows])
}
